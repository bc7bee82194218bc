import type { UnitId } from '../measure/index.ts';

/** What an ingredient is for; decides the review, the label and the identity of a spread. */
export type LineRole =
  'fruit' | 'low-acid produce' | 'sweetener' | 'acid' | 'salt' | 'set' | 'spice' | 'fat' | 'water' | 'other';
/** Every role, in the order in which they are offered. */
export const LINE_ROLES: readonly LineRole[] = [
  'fruit',
  'low-acid produce',
  'sweetener',
  'acid',
  'salt',
  'set',
  'spice',
  'fat',
  'water',
  'other',
];

/** Fruit group under the standard of identity of jam, 21 CFR 150.160(b). */
export type FruitGroup = 'I' | 'II';

/** What of a line tells which ingredient it is: of a recipe's line, or of one that is being written. */
export interface NamedIngredient {
  role: LineRole;
  name: string;
  /** Entry of the library its facts were taken from, or null. */
  ingredientId: string | null;
}

/** Where a value was published or measured, and whether it was recalled rather than read. */
export interface IngredientSource {
  title: string;
  fromMemory: boolean;
}

/** How pectins and starches set, for the rules that hang on it. */
export type SetKind =
  'ordinary pectin' | 'low-sugar pectin' | 'calcium pectin' | 'calcium water' | 'modified starch' | 'other';

/** What is known of one ingredient of the trade. Values stand for typical goods; a kitchen may override any of them. */
export interface Ingredient {
  id: string;
  name: string;
  /** Other names it goes by in recipes, lower case. */
  aliases: string[];
  role: LineRole;
  /** Grams in one US cup, by the way it is cut or packed. */
  cup_g: Record<string, number>;
  /** Grams of one: a medium one as `each`, else by the piece it is counted in. */
  one_g: Partial<Record<UnitId, number>>;
  /** Grams of a bushel of this commodity. */
  bushel_g: number | null;
  /** Prepared over bought mass, by how it is prepared. */
  trim: Partial<Record<'knife' | 'mill' | 'blender', number>>;
  /** Drained over frozen mass, for what is thawed. */
  thawedYield: number | null;
  water_pct: number;
  /** Soluble solids, °Brix. */
  solids_pct: number;
  ph: [low: number, high: number] | null;
  acid: { kind: 'citric' | 'malic' | 'tartaric' | 'acetic'; titratable_pct: number } | null;
  /** Fruit that is acid enough by itself. */
  safelyAcid: boolean;
  /** Group under the standard of identity of jam. */
  group: FruitGroup | null;
  /** Acid by weight as labelled; null where it is unknown or varies. */
  strength_pct: number | null;
  allergens: string[];
  labelName: string;
  subIngredients: string;
  /** Grams of fresh produce one gram stands for: above 1 for dried. */
  freshFactor: number;
  set: SetKind | null;
  /** Poured: its ounces may be by weight or fluid. */
  liquid: boolean;
  /** Sold by the dry pint. */
  dryPint: boolean;
  /** Code of the rule that refuses it, or null. */
  refused: string | null;
  notes: string;
  /** Sources that differ from the usual one of a value, by the name of the value. */
  sources: Partial<Record<string, string>>;
}
