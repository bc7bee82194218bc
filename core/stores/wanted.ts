import { densityOf, type Ingredient, type NameIndex } from '../ingredients/index.ts';
import { JAR_SIZES, jarSize } from '../jars/index.ts';
import { byName, Decimal, type Day, dayText, type Figures, under } from '../measure/index.ts';
import { type Item, itemUseOf, upgradeItem } from './items.ts';
import { type LotFacts, plainFacts } from './lots.ts';
import type { Need } from './shelf.ts';
import type { ShoppingLine } from './shopping.ts';

/**
 * An item of a kitchen for an ingredient of the library, with the library's facts: what is poured is counted in mL, the rest
 * in grams.
 *
 * @param name  as the kitchen calls it
 * @param known  null for what the library does not have: then it is counted in grams, and its facts stay empty
 */
export function itemOf(id: string, name: string, known: Ingredient | null): Item {
  const density = known && densityOf(known, '');
  const poured = known !== null && known.liquid && density !== null;
  return {
    ...upgradeItem({ id, kind: 'ingredient', name, unit: poured ? 'mL' : 'g' }),
    unit_g: poured ? density : 1,
    density_gPerMl: density,
    ingredientId: known?.id ?? null,
    bushel_g: known?.bushel_g ?? null,
    use: known ? itemUseOf(known) : 'other',
    labelName: known?.labelName ?? name.toLowerCase(),
    subIngredients: known?.subIngredients ?? '',
    allergens: known?.allergens ?? [],
  };
}

/**
 * An item as a name alone says it: jars of a size, lids, an ingredient of the library, or something that is counted in grams.
 * Two things that a name may be are none of them.
 */
export function itemNamed(id: string, name: string, index: NameIndex): Item {
  const size = JAR_SIZES.toReversed().find(s =>
    new RegExp(`\\b${s.name}s?\\b`, 'i').test(name.replaceAll(' ', '-')),
  );
  const jars = /\b(?:jars?|bottles?)\b/i.test(name);
  const kind = /\blids?\b/i.test(name)
    ? 'lid'
    : /\bbands?\b/i.test(name)
      ? 'band'
      : jars && size
        ? 'jar'
        : null;
  if (kind)
    return {
      ...upgradeItem({ id, kind, name: name.slice(0, 80), unit: 'each' }),
      jarSize: kind === 'jar' ? (size?.id ?? null) : null,
    };
  const found = index.find(name);
  return itemOf(id, name.slice(0, 80), found?.exact ? found.ingredient : null);
}

/** Something a batch needs that the shelf has not enough of: its item, to be made or there already, and how much is lacking. */
export interface Wanted {
  item: Item;
  /** The kitchen keeps it already. */
  kept: boolean;
  /** In the item's unit, whole grams, millilitres or pieces, decimal text. */
  quantity: string;
  /** Names of what it is for. */
  for: string[];
}

/**
 * What batches need and the shelf has not: each item once, made from the library with its kind and unit where the kitchen
 * does not keep it. Bands are used again, and fuel, labels and packaging are not asked for.
 *
 * @param needs  of one or several batches, as {@link needsOf} gives them
 * @param byId  the library
 * @param newId  makes the id of each new item
 */
export function wantedOf(
  needs: readonly Need[],
  byId: ReadonlyMap<string, Ingredient>,
  newId: () => string,
): Wanted[] {
  const rows = new Map<
    string,
    { item: Item; kept: boolean; wanted: Decimal; there: Decimal; for: string[] }
  >();
  for (const need of needs) {
    if (!(need.quantity > 0) || !['ingredient', 'jar', 'lid'].includes(need.kind)) continue;
    const known = byId.get(need.line?.ingredientId ?? '') ?? null;
    const key = need.shelf?.item.id ?? known?.id ?? `${need.kind} ${need.size ?? need.title.toLowerCase()}`;
    const row = rows.get(key) ?? {
      item: need.shelf?.item ?? newItem(need, known, newId()),
      kept: need.shelf !== undefined,
      wanted: new Decimal(0),
      there: (need.shelf?.lots ?? []).reduce((sum, l) => sum.plus(l.onHand), new Decimal(0)),
      for: [],
    };
    rows.set(key, row);
    // A need without an item is in grams, or in pieces.
    const unit_g = need.shelf ? 1 : need.line ? (row.item.unit_g ?? 1) : 1;
    row.wanted = row.wanted.plus(new Decimal(need.quantity.toFixed(6)).div(unit_g));
    row.for = [...new Set([...row.for, need.title])];
  }
  return [...rows.values()].flatMap(({ item, kept, wanted, there, for: names }) => {
    const lacking = wanted.minus(Decimal.max(there, 0));
    return lacking.gt(0)
      ? [{ item, kept, quantity: lacking.toDecimalPlaces(0, Decimal.ROUND_UP).toFixed(), for: names }]
      : [];
  });
}

/** A line of the shopping list as what is wanted of it: in its packages, where it has some. */
export function wantedLine(
  line: ShoppingLine,
  items: readonly Item[],
  byId: ReadonlyMap<string, Ingredient>,
  newId: () => string,
): Wanted {
  const kept = items.find(i => i.id === line.itemId);
  const known = byId.get(line.ingredientId ?? '') ?? null;
  const item = kept ?? newItem({ ...line, title: line.name, line: null }, known, newId());
  const unit_g = kept ? 1 : line.kind === 'ingredient' ? (item.unit_g ?? 1) : 1;
  return {
    item,
    kept: kept !== undefined,
    quantity: new Decimal(line.buy).div(unit_g).toDecimalPlaces(0, Decimal.ROUND_UP).toFixed(),
    for: line.uses.map(u => u.name),
  };
}

function newItem(
  need: Pick<Need, 'kind' | 'title' | 'size' | 'line'>,
  known: Ingredient | null,
  id: string,
): Item {
  if (need.kind === 'ingredient') {
    const item = itemOf(id, known?.name ?? need.title, known);
    const { line } = need;
    // What the library does not know the line may say.
    return known || !line ? item : { ...item, density_gPerMl: line.density_gPerMl, bushel_g: line.bushel_g };
  }
  const name = need.size ? `${jarSize(need.size).name} jars` : 'Lids';
  return {
    ...upgradeItem({
      id,
      kind: need.kind,
      name: name.charAt(0).toUpperCase() + name.slice(1),
      unit: 'each',
    }),
    jarSize: need.kind === 'jar' ? need.size : null,
  };
}

/** Kinds that entries of the library are, and words in a name that speak against each: then it is asked. */
const KIND_OF = byName<Pick<LotFacts, 'salt' | 'juice'> & { against: RegExp }>([
  ['canning-salt', { salt: 'canning', juice: null, against: /iodi[sz]ed|anti.?caking|table|season/i }],
  ['kosher-salt', { salt: 'kosher', juice: null, against: /iodi[sz]ed|anti.?caking|table|season/i }],
  ['sea-salt', { salt: 'sea', juice: null, against: /iodi[sz]ed|anti.?caking|table|season/i }],
  ['bottled-lemon', { salt: null, juice: 'bottled', against: /fresh|press|squeez|home|own/i }],
  ['bottled-lime', { salt: null, juice: 'bottled', against: /fresh|press|squeez|home|own/i }],
  ['fresh-lemon', { salt: null, juice: 'fresh', against: /bottle/i }],
  ['fresh-lime', { salt: null, juice: 'fresh', against: /bottle/i }],
]);

/**
 * What a lot says of itself by the library's entry of its item: bottled juice is bottled, canning salt is canning salt. A
 * name alone proves nothing, and one that speaks against the entry is asked. Strength and condition no entry says.
 */
export function factsByName(item: Pick<Item, 'use' | 'ingredientId' | 'name'>): LotFacts {
  const kind = under(KIND_OF, item.ingredientId ?? '');
  if (!kind || kind.against.test(item.name)) return plainFacts();
  return plainFacts({
    salt: item.use === 'salt' ? kind.salt : null,
    juice: item.use === 'citrus juice' ? kind.juice : null,
  });
}

/** What is asked of a lot before it can be put on the shelf, and no name says. */
export type LotAsk = 'strength' | 'condition' | 'salt' | 'juice';
/** @returns what a new lot of an item has to say, beyond what its name says */
export function asksOf(item: Item): LotAsk[] {
  const facts = factsByName(item);
  return [
    ...(item.use === 'vinegar' ? (['strength'] as const) : []),
    ...(item.use === 'produce' ? (['condition'] as const) : []),
    ...(item.use === 'salt' && facts.salt === null ? (['salt'] as const) : []),
    ...(item.use === 'citrus juice' && facts.juice === null ? (['juice'] as const) : []),
  ];
}

/**
 * A name for a lot that was given none: what it is and when it came, and a letter where that stands on another jar already.
 *
 * @param taken  names in use, in lower case
 * @example lotName('Red plums', '2026-07-04', new Set(), { locale: 'en-US' }) // 'Red plums Jul 4, 2026'
 */
export function lotName(name: string, day: Day, taken: ReadonlySet<string>, figures: Figures): string {
  const base = `${name.slice(0, 26)} ${dayText(day, figures)}`.slice(0, 38);
  for (let n = 0; n < 26 * 26; n++) {
    const end = n === 0 ? '' : ` ${n < 26 ? String.fromCodePoint(97 + n) : `${n + 1}`}`;
    const found = `${base.slice(0, 40 - end.length)}${end}`;
    if (!taken.has(found.toLowerCase())) return found;
  }
  return base;
}
