import type { FruitGroup, LineRole } from '../ingredients/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Amount, Day } from '../measure/index.ts';
import type { LetterProcess, Method, Product, TimeBasis } from '../times/index.ts';

/**
 * Where a line goes. `soak`: poured away but for a share; `infused`: lifted out again; `dip`: never in the food;
 * `strained`: put through a cloth, a share retained; `each jar`: dosed by jar, not by pot.
 */
export type Place = 'pot' | 'brine' | 'soak' | 'infused' | 'dip' | 'strained' | 'each jar';
/** Every place, in the order in which they are offered. */
export const PLACES: readonly Place[] = ['pot', 'brine', 'soak', 'infused', 'dip', 'strained', 'each jar'];

/** So much of a line for each so much of something: of a measure taken in the batch, or of another line. */
export interface Ratio {
  of: 'step' | 'line';
  id: string;
  per: Amount;
}

/** One line of a recipe: an ingredient, how much of it, and where it goes. Holds its own facts; nothing is looked up later. */
export interface Line {
  id: string;
  /** Entry of the library its facts were taken from, or null. */
  ingredientId: string | null;
  name: string;
  /** How it is cut or packed, "stoned and quartered". */
  preparation: string;
  role: LineRole;
  /** The amount as the recipe states it. `each jar` lines: in one pint, other sizes in proportion. With a ratio: for each `per`. */
  amount: Amount;
  /** Which weight the amount means. */
  basis: 'prepared' | 'as bought';
  where: Place;
  /** Share of its mass that stays in the food, 0 to 1. */
  keptShare: number;
  ratio: Ratio | null;
  /** The way it is cut or packed whose density is used. */
  form: string;
  /** Grams in a millilitre as prepared; needed where the amount is a volume. */
  density_gPerMl: number | null;
  /** Grams of one; needed where the amount is a count. */
  each_g: number | null;
  /** Grams of a bushel; needed where the amount is in bushels or pecks. */
  bushel_g: number | null;
  /** Where the three figures above come from. */
  weightSource: string;
  /** Prepared over as-bought mass, above 0 up to 1. */
  trimYield: number;
  /** Soluble solids as prepared, °Brix. */
  solids_pct: number;
  /** Sugar added to bought fruit, percent of its weight: it counts as sweetener, not as fruit. */
  addedSugar_pct: number;
  /** Grams of fresh produce one gram stands for: above 1 for dried. */
  freshFactor: number;
  /** Group under the standard of identity, for fruit. */
  group: FruitGroup | null;
  /** Name in the ingredient list of the label. */
  labelName: string;
  /** Sub-ingredients of a bought compound, in its package's words; empty for a plain ingredient. */
  subIngredients: string;
  /** Major allergens and sulphites it brings. */
  allergens: string[];
  /** For acid lines: least strength that will do, percent, or null where the kind is enough. */
  minStrength_pct: number | null;
  /** Safely acid by itself (fruit on the safe list). */
  safelyAcid: boolean;
}

/** What a step is about. */
export const STEP_KINDS = [
  'prepare',
  'soak',
  'strain',
  'rest',
  'cook',
  'measure',
  'acidify',
  'blend back',
  'fill',
  'process',
  'cool',
] as const;
/** What a step is about ({@link STEP_KINDS}). */
export type StepKind = (typeof STEP_KINDS)[number];

/** When a step is done, where something can be read off or looked at. */
export type StepTarget =
  | { kind: 'none' }
  | { kind: 'gel point' }
  /** Reached, and then held for so long. */
  | { kind: 'temperature'; temp_C: number; hold_min: number }
  | { kind: 'time'; minutes: number }
  /** Down to a volume, for a pot that cannot be weighed. */
  | { kind: 'volume'; volume_mL: number }
  /** Down to a depth in the pot. */
  | { kind: 'depth'; depth_mm: number }
  /** Down by a share of the volume it begins with, above 0 and below 1. */
  | { kind: 'reduced'; by: number }
  | { kind: 'look'; text: string };

/** How much of a person a step takes. */
export type Attention = { kind: 'hands-on' } | { kind: 'look in'; every_min: number } | { kind: 'free' };

/** One step of a recipe: what is done, until when, and what goes in there. */
export interface Step {
  id: string;
  kind: StepKind;
  text: string;
  /** A caution that stands where the step is, or empty. */
  caution: string;
  target: StepTarget;
  /** A wait is a window: not before, not after. */
  window: { from_min: number; to_min: number } | null;
  attention: Attention;
  /** Hours one may stop after this step, or null where one may not. */
  mayStop_h: number | null;
  /** What goes in at this step: a share of a line, `n/d`. The shares of a line over all steps make one. */
  adds: { lineId: string; share: string }[];
  /** The separated part it acts on; empty for the whole. */
  part: string;
  /** Takes a part aside, by its share of the mass. */
  separates: { part: string; share: number } | null;
  /** For `measure` steps: what is expected at the recipe as written, for planning. */
  expects: Amount | null;
}

/** What makes a spread set. One that sets by cooking alone has to show that it came to the gel point. */
export type SetBy =
  'nothing added' | 'ordinary pectin' | 'low-sugar pectin' | 'calcium pectin' | 'modified starch' | 'not set';
/** Every way to set, in the order in which they are offered. */
export const SET_BY: readonly SetBy[] = [
  'nothing added',
  'ordinary pectin',
  'low-sugar pectin',
  'calcium pectin',
  'modified starch',
  'not set',
];

/**
 * `fruit spread` and `acid food`: acid by themselves. `acidified food`: low-acid food brought to 4.6 or below.
 * `fermented food`: soured by its own lactic acid. `refused`: not for boiling water at all.
 */
export type FoodClass = 'fruit spread' | 'acid food' | 'acidified food' | 'fermented food' | 'refused';
/** Every class, from the least to the most that is asked of it. */
export const FOOD_CLASSES: readonly FoodClass[] = [
  'fruit spread',
  'acid food',
  'acidified food',
  'fermented food',
  'refused',
];

/** What a letter allows of one line, in per cent of all that goes in by weight; null where it sets no such limit. */
export interface LetterLine {
  lineId: string;
  least_pct: number | null;
  most_pct: number | null;
}

/** What a process authority's letter names beside its heat step; empty where it says nothing of it. */
export interface LetterTerms {
  /** For whom it was written, and where they cook. */
  producer: string;
  site: string;
  /** Longest side of a piece. */
  pieceSize_mm: number | null;
  /** Pieces in one pint jar, as prepared, at most. */
  perPint_g: number | null;
  /** Limits of its formula; lines without one are followed as they were taken over. */
  lines: LetterLine[];
  /** Thickener and oil it allows, by their names. */
  thickener: string;
  oil: string;
  closure: string;
  /** Last day before it has to be looked at again. */
  reviewOn: Day | null;
}

/** A letter that names nothing beside its heat step. */
export const noTerms = (): LetterTerms => ({
  producer: '',
  site: '',
  pieceSize_mm: null,
  perPint_g: null,
  lines: [],
  thickener: '',
  oil: '',
  closure: '',
  reviewOn: null,
});

/** What the heat process of a recipe rests on: one of four grades, each with what it has to say for itself. */
export type Authority =
  | {
      grade: 'tested publication';
      /** A set-maker's own leaflet ranks with a tested publication. */
      kind: 'publication' | 'leaflet';
      title: string;
      edition: string;
      year: number;
      part: string;
      checkedOn: string;
      fromMemory: boolean;
      time: TimeBasis;
    }
  | {
      grade: 'letter';
      authority: string;
      reference: string;
      issuedOn: string;
      demo: boolean;
      maxPh: number;
      /** What else the letter limits, in its words. */
      limits: string;
      terms: LetterTerms;
      process: LetterProcess;
    }
  | { grade: 'published, untested'; title: string }
  | { grade: 'own'; entryId: string | null };

/** Net contents as a label states them, in US units; the metric figure is derived. */
export type NetContents = { kind: 'weight'; oz: number } | { kind: 'volume'; floz: number };

/** Something else that leaves the same pot: a share of it, with its own measure and process. */
export interface Outlet {
  id: string;
  name: string;
  /** Share of the finished mass, above 0 and below 1. */
  share: number;
  use: 'jars' | 'refrigerator' | 'ingredient';
  jarSize: JarSizeId | null;
  /** Published entry its own process is read from, or null for none. */
  entryId: string | null;
}

/** How pieces are packed into jars, for products with a covering liquid. */
export interface Packing {
  /** Grams of prepared pieces in one pint jar. */
  perPint_g: number;
  /** Grams in a millilitre of the pieces themselves. */
  pieceDensity_gPerMl: number;
  /** Liquid made beyond what the gaps take, as a share of it. */
  spareShare: number;
}

/** The formula an authority covers, kept as it was taken over: what later changes are held against. */
export interface TestedFormula {
  takenOn: string;
  product: Product;
  lines: Line[];
  method: Method;
  setBy: SetBy;
  jarSizes: JarSizeId[];
}

/** Everything a recipe version says. Frozen once a batch has used it. */
export interface Recipe {
  /** Shape of this object; older ones are read forever, see upgradeRecipe. */
  format: 3;
  name: string;
  /** Three capital letters that begin its lot codes. */
  code: string;
  /** What the label calls the food. */
  statementOfIdentity: string;
  product: Product;
  family: string;
  tags: string[];
  /** The recipe this one is a variant of, or null. */
  variantOf: string | null;
  /** Derived by the review; kept here so that a batch stores it. */
  foodClass: FoodClass;
  setBy: SetBy;
  method: Method;
  authority: Authority;
  tested: TestedFormula | null;
  lines: Line[];
  steps: Step[];
  /** What the lines as written make. */
  makes: { size: JarSizeId; count: number };
  jars: { size: JarSizeId; net: NetContents }[];
  outlets: Outlet[];
  packing: Packing | null;
  shelfLife_months: number;
  /** Days until it tastes right, 0 for at once. */
  readyAfter_days: number;
  notes: string;
  /** Cooked first, written down afterwards: it may have no lines yet and is a trial only. */
  sketch: boolean;
}

/** One version in the book. A frozen one was cooked, and is never changed. */
export interface RecipeVersion {
  recipeId: string;
  number: number;
  frozen: boolean;
  recipe: Recipe;
}

/** The line that "fruit at hand" means: the first fruit, else the first produce. */
export function mainLine(recipe: Pick<Recipe, 'lines'>): Line {
  const line =
    recipe.lines.find(l => l.role === 'fruit') ?? recipe.lines.find(l => l.role === 'low-acid produce');
  if (!line) throw new RangeError('mainLine: the recipe has no fruit or produce');
  return line;
}
