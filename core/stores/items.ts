import { Decimal, type Fault, type Reading, UNITS, type UnitId, unreadable } from '../measure/index.ts';
import type { Ingredient } from '../ingredients/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Line } from '../recipes/index.ts';

/** What a kitchen keeps on its shelves. */
export const ITEM_KINDS = ['ingredient', 'jar', 'lid', 'band', 'label', 'packaging', 'fuel', 'tool'] as const;
/** The kind of an item ({@link ITEM_KINDS}). */
export type ItemKind = (typeof ITEM_KINDS)[number];

/** What an ingredient lot must say of itself, because a use hangs on it. */
export const ITEM_USES = ['vinegar', 'salt', 'citrus juice', 'produce', 'other'] as const;
/** What a use of an ingredient hangs on ({@link ITEM_USES}). */
export type ItemUse = (typeof ITEM_USES)[number];

/** Mouths of jars: lids and bands fit one of them. */
export const MOUTHS = ['regular', 'wide'] as const;
/** The mouth of a jar or lid. */
export type Mouth = (typeof MOUTHS)[number];

/** How a tool stands. */
export const TOOL_STATES = ['good', 'worn', 'out of use'] as const;
/** How a tool stands ({@link TOOL_STATES}). */
export type ToolState = (typeof TOOL_STATES)[number];

/** A package that shops sell: so much of the item's unit. */
export interface ShopPackage {
  name: string;
  /** Decimal text in the item's unit. */
  quantity: string;
}

/** Something the kitchen keeps. */
export interface Item {
  id: string;
  kind: ItemKind;
  name: string;
  /** Unit its lots are counted in. */
  unit: 'g' | 'mL' | 'each';
  /** Grams of one unit, for ingredients counted by mL or by piece; 1 for grams; null for what has no weight here. */
  unit_g: number | null;
  /** Grams in a millilitre, to convert what is bought by volume and counted by weight, or the other way. */
  density_gPerMl: number | null;
  /** Grams of a bushel of this commodity. */
  bushel_g: number | null;
  /** Entry of the library that recipes' lines name; a line of that entry is served by this item. */
  ingredientId: string | null;
  use: ItemUse;
  jarSize: JarSizeId | null;
  /** Of a jar, lid or band; null where it does not matter. */
  mouth: Mouth | null;
  /** Of a jar: filled to the brim, and empty on the scale. */
  brim_mL: number | null;
  tare_g: number | null;
  labelName: string;
  subIngredients: string;
  allergens: string[];
  /** Least to have, decimal text; null where none is set. */
  minimum: string | null;
  packages: ShopPackage[];
  /** Days between ordering and having it. */
  leadTime_days: number;
  /** Of a tool. */
  toolState: ToolState | null;
  version: number;
}

/** An item as it was stored, of any shape there ever was. */
export function upgradeItem(stored: Partial<Item> & Pick<Item, 'id' | 'kind' | 'name' | 'unit'>): Item {
  const density = stored.unit === 'mL' ? (stored.unit_g ?? null) : null;
  return {
    unit_g: null,
    density_gPerMl: density,
    bushel_g: null,
    ingredientId: null,
    use: /\bvinegar\b/i.test(stored.name) ? 'vinegar' : 'other',
    jarSize: null,
    mouth: null,
    brim_mL: null,
    tare_g: null,
    labelName: '',
    subIngredients: '',
    allergens: [],
    minimum: null,
    packages: [],
    leadTime_days: 0,
    toolState: null,
    version: 1,
    ...stored,
  };
}

/** What a lot of an ingredient of the library must say of itself, because a use hangs on it. */
export function itemUseOf(known: Pick<Ingredient, 'role' | 'acid' | 'liquid'>): ItemUse {
  if (known.role === 'salt') return 'salt';
  if (known.role === 'acid' && known.acid?.kind === 'acetic') return 'vinegar';
  if (known.role === 'acid' && known.liquid) return 'citrus juice';
  return known.role === 'fruit' || known.role === 'low-acid produce' ? 'produce' : 'other';
}

/**
 * Whether an item is what a line of a recipe asks for: by the library's entry, else by its name, else by what the label
 * calls both. An acid is never taken by its label: bottled and fresh lemon juice bear the same.
 */
export function serves(
  item: Item,
  line: Pick<Line, 'ingredientId' | 'name' | 'labelName' | 'role'>,
): boolean {
  if (item.kind !== 'ingredient') return false;
  if (item.ingredientId !== null && item.ingredientId === line.ingredientId) return true;
  const name = item.name.toLowerCase();
  return (
    name === line.name.toLowerCase() ||
    (line.role !== 'acid' &&
      line.labelName !== '' &&
      item.labelName.toLowerCase() === line.labelName.toLowerCase())
  );
}

/** How one unit is called after a figure: "g", "mL", or nothing for what is counted. */
export const unitSign = (unit: Item['unit']): string => (unit === 'each' ? '' : unit);

/**
 * A quantity in any unit, in the item's own.
 *
 * @param quantity  decimal text in `unit`
 * @returns decimal text in the item's unit, to 9 places, or why it cannot be converted
 * @source unit factors: NIST Handbook 44, appendix C, as in measure/units
 */
export function inItemUnit(
  item: Pick<Item, 'name' | 'unit' | 'unit_g' | 'density_gPerMl' | 'bushel_g' | 'kind'>,
  quantity: string,
  unit: UnitId,
): Reading<string> {
  const from = UNITS[unit];
  const given = new Decimal(quantity).times(factorOf(unit));
  const done = (value: Decimal): Reading<string> => ({ ok: true, value: value.toDecimalPlaces(9).toFixed() });
  const to = item.unit === 'each' ? 'count' : item.unit === 'g' ? 'mass' : 'volume';
  if (from.dimension === to) return done(given);
  const noWay = (lacking: string, next: string) =>
    unreadable(
      'cannot-convert',
      `${from.names[0] ?? unit} cannot be turned into ${item.unit === 'each' ? 'pieces' : item.unit} of ${item.name}.`,
      lacking,
      next,
    );
  if (item.kind !== 'ingredient' && item.kind !== 'fuel')
    return noWay('It is counted in pieces.', 'Enter how many pieces came.');
  const mass_g =
    from.dimension === 'mass'
      ? given
      : from.dimension === 'volume'
        ? item.density_gPerMl && given.times(item.density_gPerMl)
        : from.dimension === 'produce'
          ? item.bushel_g && given.times(item.bushel_g)
          : item.unit_g && item.unit === 'each' && given.times(item.unit_g);
  if (!mass_g)
    return from.dimension === 'produce'
      ? noWay('A bushel weighs what its commodity weighs.', 'Give the item the weight of its bushel.')
      : from.dimension === 'count'
        ? noWay('What one of them weighs is not on record.', 'Enter a weight or a volume.')
        : noWay(
            'What a millilitre weighs is not on record.',
            'Give the item its density, or enter a weight.',
          );
  if (item.unit === 'g') return done(mass_g);
  if (item.unit === 'mL')
    return item.density_gPerMl
      ? done(mass_g.div(item.density_gPerMl))
      : noWay('What a millilitre weighs is not on record.', 'Give the item its density.');
  return item.unit_g
    ? done(mass_g.div(item.unit_g))
    : noWay('What one of them weighs is not on record.', 'Give the item the weight of one.');
}

const factors = new Map<UnitId, Decimal>();

/** The exact factor of a unit as a decimal; reckoned once for each. */
function factorOf(unit: UnitId): Decimal {
  const known = factors.get(unit);
  if (known) return known;
  const { n, d, s } = UNITS[unit].factor;
  const factor = new Decimal(String(n)).times(Number(s)).div(String(d));
  factors.set(unit, factor);
  return factor;
}

/** What is missing or contradicts itself in an item; paths are its own keys. */
export function itemFaults(item: Item): Fault[] {
  const faults: Fault[] = [];
  const add = (path: string, code: string, what: string, why: string, next: string) =>
    faults.push({ path, code, what, why, next });
  if (item.kind === 'jar' && item.jarSize === null)
    add(
      'jarSize',
      'size-missing',
      'A jar needs its size.',
      'Its processing time and its price follow from it.',
      'Choose the size.',
    );
  if (item.kind === 'ingredient' && item.unit_g === null)
    add(
      'unit_g',
      'weight-missing',
      `One ${item.unit === 'each' ? 'piece' : item.unit} of ${item.name} needs its weight in grams.`,
      'Labels and costs go by weight.',
      'Weigh it, or count it in grams.',
    );
  if (item.kind !== 'ingredient' && item.kind !== 'fuel' && item.unit !== 'each')
    add(
      'unit',
      'unit-wrong',
      `A ${item.kind} is counted.`,
      'A part of one is none.',
      'Set the unit to each.',
    );
  if (item.kind === 'tool' && item.toolState === null)
    add(
      'toolState',
      'state-missing',
      'A tool needs its state.',
      'Worn tools are seen to before they fail.',
      'Say whether it is good, worn or out of use.',
    );
  if (item.packages.some(p => !new Decimal(p.quantity).gt(0)))
    add(
      'packages',
      'not-positive',
      'A package holds more than nothing.',
      'The shopping list counts in packages.',
      'Enter what one package holds.',
    );
  return faults;
}
