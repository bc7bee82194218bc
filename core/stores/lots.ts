import type { Day, Fault } from '../measure/index.ts';
import type { Item } from './items.ts';

/** Where a lot came from. */
export const LOT_SOURCES = [
  'purchase',
  'own harvest',
  'gift',
  'on the shelf',
  'made here',
  'jars',
  'mixed',
] as const;
/** How a lot came into the kitchen. `on the shelf`: there before stock was kept. */
export type LotSource = (typeof LOT_SOURCES)[number];

/** What a lot is worth when it did not come with a price. */
export const VALUE_RULES = [
  'paid',
  'market value',
  'nothing',
  'cost of what went in',
  'cost and work',
  'price to come',
] as const;
/**
 * What a lot is worth. Bought: what was `paid`. Own harvest and gifts: their `market value` that day, or `nothing`.
 * Made here and frozen stock: the cost of what went in, with or without the work, or one of the others. Bought and not
 * priced yet: `price to come`, which counts as without a price, and not as nothing.
 */
export type ValueRule = (typeof VALUE_RULES)[number];

/** Kinds of salt: those with additives cloud a brine. */
export const SALT_KINDS = ['canning', 'kosher', 'sea', 'iodised', 'with anti-caking agent'] as const;
/** A kind of salt ({@link SALT_KINDS}). */
export type SaltKind = (typeof SALT_KINDS)[number];
/** Tested recipes count on the strength of bottled juice; fresh juice varies. */
export const JUICE_KINDS = ['bottled', 'fresh'] as const;
/** Bottled or fresh. */
export type JuiceKind = (typeof JUICE_KINDS)[number];
/** How produce came in; some of it is refused for canning. */
export const CONDITIONS = [
  'sound',
  'ripe',
  'overripe',
  'bruised',
  'frozen',
  'mouldy',
  'from dead or frost-killed vines',
] as const;
/** How produce came in ({@link CONDITIONS}). */
export type Condition = (typeof CONDITIONS)[number];

/** A part of a lot that came out of another: of a lot that was poured in or worked up, or of finished jars. */
export type LotPart =
  | { kind: 'lot'; lotId: string; label: string; name: string; quantity: string; unit: Item['unit'] }
  | { kind: 'jars'; batchId: string; lotCode: string; name: string; jars: number[] }
  | { kind: 'pot'; batchId: string; lotCode: string; name: string; mass_g: number };

/** What one lot says of itself beyond its item. */
export interface LotFacts {
  source: LotSource;
  supplierLot: string;
  value: ValueRule;
  salt: SaltKind | null;
  juice: JuiceKind | null;
  condition: Condition | null;
  pickedOn: Day | null;
  /** The package's own sub-ingredients; empty where the item's stand for it. */
  subIngredients: string;
  allergens: string[];
  from: LotPart[];
  /** Of finished jars: whether every one of them was released for sale. */
  released: boolean;
  /** Lowest and highest pH known of what is in it; null where none was read. */
  ph: number | null;
  note: string;
}

/** Ways a lot can come in that a person may enter; the others are made by what is done in the kitchen. */
export const TYPED_SOURCES = [
  'purchase',
  'own harvest',
  'gift',
  'on the shelf',
] as const satisfies readonly LotSource[];

/**
 * What a person may say of a lot. Where it came from inside the kitchen, what acidity was read of it, and whether its
 * jars were released follow from the record and are never typed.
 */
export function typedFacts(facts: LotFacts, source: LotSource = facts.source): LotFacts {
  return { ...facts, source, from: [], released: true, ph: null };
}

/** A purchase of which nothing is said. */
export function plainFacts(over: Partial<LotFacts> = {}): LotFacts {
  return {
    source: 'purchase',
    supplierLot: '',
    value: 'paid',
    salt: null,
    juice: null,
    condition: null,
    pickedOn: null,
    subIngredients: '',
    allergens: [],
    from: [],
    released: true,
    ph: null,
    note: '',
    ...over,
  };
}

/** One purchase of an item, or what was picked, given or made of it; drawn from until it is gone. */
export interface Lot {
  id: string;
  itemId: string;
  label: string;
  supplier: string;
  receivedOn: Day;
  /** Best by, or the keeping limit of what was made here. */
  bestBy: Day | null;
  /** Money for one unit, decimal text. */
  unitCost: string;
  /** Left, in the item's unit, decimal text. */
  onHand: string;
  /** Strength of a vinegar, percent by weight of acid; null for other things. */
  strength_pct: number | null;
  /** Day it was opened; null while it is closed. */
  openedOn: Day | null;
  receiptId: string | null;
  facts: LotFacts;
}

/** What a lot must say, given what its item is for; paths are keys of the lot or of its facts. */
export function lotFaults(
  item: Item,
  lot: Pick<Lot, 'strength_pct' | 'facts' | 'receivedOn' | 'bestBy'>,
  today: Day,
): Fault[] {
  const faults: Fault[] = [];
  const add = (path: string, code: string, what: string, why: string, next: string) =>
    faults.push({ path, code, what, why, next });
  if (lot.receivedOn > today)
    add(
      'receivedOn',
      'future-day',
      'The day it came lies in the future.',
      'Stock cannot be used before it is here.',
      'Enter the day it came.',
    );
  if (!(TYPED_SOURCES as readonly LotSource[]).includes(lot.facts.source))
    add(
      'source',
      'source-made',
      `A lot cannot be entered as "${lot.facts.source}".`,
      'What is made here traces to what went in, by the movements of its making.',
      'Make it out of its lots or jars, or say how it came.',
    );
  if (lot.facts.pickedOn !== null && lot.facts.pickedOn > lot.receivedOn)
    add(
      'pickedOn',
      'picked-late',
      'It was picked after it came.',
      'Days since picking count for produce.',
      'Check both days.',
    );
  if (item.use === 'salt' && lot.facts.salt === null)
    add(
      'salt',
      'kind-missing',
      'The kind of salt is not said.',
      'Iodised salt and salt with anti-caking agents cloud a brine.',
      'Read it on the package.',
    );
  if (item.use === 'citrus juice' && lot.facts.juice === null)
    add(
      'juice',
      'kind-missing',
      'Bottled or fresh is not said.',
      'Only bottled juice counts where acid is the barrier.',
      'Say which it is.',
    );
  if (item.use === 'produce' && lot.facts.condition === null)
    add(
      'condition',
      'condition-missing',
      'The condition of the produce is not said.',
      'Overripe produce and that of dead vines is lower in acid.',
      'Say how it came.',
    );
  return faults;
}

/** Sub-ingredients and allergens that a lot brings: its package's own, else its item's. */
export function contentsOf(
  item: Pick<Item, 'subIngredients' | 'allergens'>,
  facts: LotFacts,
): Pick<LotFacts, 'subIngredients' | 'allergens'> {
  return {
    subIngredients: facts.subIngredients || item.subIngredients,
    allergens: [...new Set([...item.allergens, ...facts.allergens])],
  };
}
