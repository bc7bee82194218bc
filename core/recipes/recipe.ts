import type { Amount, Fault } from '../measure/index.ts';
import { UNITS, amount_g } from '../measure/index.ts';
import type { JarSizeId } from './jars.ts';
import type { MinutesByAltitude, ProcessSource } from './process-data.ts';

/** What an ingredient is for; decides the review, the label and the identity of a spread. */
export type LineRole = 'fruit' | 'low-acid produce' | 'sweetener' | 'acid' | 'salt' | 'spice' | 'water';
export const LINE_ROLES: readonly LineRole[] = [
  'fruit',
  'low-acid produce',
  'sweetener',
  'acid',
  'salt',
  'spice',
  'water',
];

/** One line of a recipe: an ingredient, how much of it prepared, and where it goes. */
export interface Line {
  id: string;
  name: string;
  /** How it is cut or packed, "stoned and quartered". */
  preparation: string;
  role: LineRole;
  /** The prepared amount as the recipe states it. For `each jar` lines: in one pint, other sizes in proportion. */
  amount: Amount;
  where: 'pot' | 'brine' | 'each jar';
  /** Grams in a millilitre as prepared; needed where the amount is a volume. */
  density_gPerMl: number | null;
  /** Grams of one; needed where the amount is a count. */
  each_g: number | null;
  /** Where the two figures above come from. */
  weightSource: string;
  /** Prepared over as-bought mass, above 0 up to 1. */
  trimYield: number;
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

export type StepKind = 'prepare' | 'rest' | 'cook' | 'acidify' | 'fill' | 'process' | 'cool';
export const STEP_KINDS: readonly StepKind[] = [
  'prepare',
  'rest',
  'cook',
  'acidify',
  'fill',
  'process',
  'cool',
];

export type StepTarget =
  | { kind: 'none' }
  | { kind: 'gel point' }
  | { kind: 'temperature'; temp_C: number }
  | { kind: 'time'; minutes: number }
  | { kind: 'look'; text: string };

export interface Step {
  id: string;
  kind: StepKind;
  text: string;
  /** A caution that stands where the step is, or empty. */
  caution: string;
  target: StepTarget;
  /** A wait is a window: not before, not after. */
  window: { from_min: number; to_min: number } | null;
  /** Lines that go in at this step. */
  lineIds: string[];
}

export type Authority =
  | {
      grade: 'tested publication';
      title: string;
      edition: string;
      part: string;
      checkedOn: string;
      fromMemory: boolean;
      entryId: string;
    }
  | {
      grade: 'letter';
      authority: string;
      reference: string;
      issuedOn: string;
      demo: boolean;
      headspace_mm: number;
      pack: 'hot' | 'raw';
      maxPh: number;
      minutes: { jarSize: JarSizeId; byAltitude: MinutesByAltitude }[];
    }
  | { grade: 'published, untested'; title: string }
  | { grade: 'own'; entryId: string | null };

export type NetContents = { kind: 'weight'; oz: number } | { kind: 'volume'; floz: number };

/** Everything a recipe version says. Frozen once a batch has used it. */
export interface Recipe {
  name: string;
  /** Three capital letters that begin its lot codes. */
  code: string;
  /** What the label calls the food. */
  statementOfIdentity: string;
  foodClass: 'fruit spread' | 'acidified food';
  authority: Authority;
  lines: Line[];
  steps: Step[];
  /** What the lines as written make. */
  makes: { size: JarSizeId; count: number };
  jars: { size: JarSizeId; net: NetContents }[];
  shelfLife_months: number;
  /** Days until it tastes right, 0 for at once. */
  readyAfter_days: number;
  notes: string;
}

export interface RecipeVersion {
  recipeId: string;
  number: number;
  frozen: boolean;
  recipe: Recipe;
}

/** Source of a lookup row, re-exported for those who show it. */
export type { ProcessSource };

/**
 * What is wrong with a recipe before it can be kept: a line that cannot be weighed, a step that names a missing line,
 * nothing to put in a jar. Paths point into the recipe.
 */
export function recipeFaults(recipe: Recipe): Fault[] {
  const faults: Fault[] = [];
  const fault = (path: string, code: string, what: string, why: string, next: string) =>
    faults.push({ path, code, what, why, next });
  const ids = new Set<string>();
  recipe.lines.forEach((line, i) => {
    const dimension = UNITS[line.amount.unit].dimension;
    if (ids.has(line.id))
      fault(
        `lines[${i}].id`,
        'line-twice',
        'Two lines share one id.',
        'A draw or a weight could not tell them apart.',
        'Give each line its own id.',
      );
    ids.add(line.id);
    if (dimension === 'volume' && line.density_gPerMl === null) {
      fault(
        `lines[${i}].density_gPerMl`,
        'density-missing',
        `${line.name} is measured by volume and has no density.`,
        'Its weight, its cost and its place on the label follow from the density.',
        'Weigh one cup and enter grams per millilitre, or give the amount by weight.',
      );
    }
    if (dimension === 'count' && line.each_g === null) {
      fault(
        `lines[${i}].each_g`,
        'weight-of-one-missing',
        `${line.name} is counted and has no weight of one.`,
        'Its weight, its cost and its place on the label follow from it.',
        'Weigh one and enter its grams.',
      );
    }
    if (
      line.role === 'acid' &&
      line.where !== 'each jar' &&
      recipe.foodClass === 'acidified food' &&
      line.minStrength_pct === null &&
      /vinegar/i.test(line.name)
    ) {
      fault(
        `lines[${i}].minStrength_pct`,
        'strength-missing',
        `${line.name} has no least strength.`,
        'Vinegar under 5 % does not make a pickle safe.',
        'Enter 5 or the strength the authority asks for.',
      );
    }
  });
  if (recipe.lines.length === 0)
    fault(
      'lines',
      'no-lines',
      'The recipe has no ingredients.',
      'Nothing can be scaled, drawn or labelled.',
      'Add the first line.',
    );
  if (!recipe.lines.some(l => l.role === 'fruit' || l.role === 'low-acid produce')) {
    fault(
      'lines',
      'no-main-line',
      'No line is fruit or produce.',
      'Scaling by what is at hand starts from it.',
      'Set the role of the main ingredient.',
    );
  }
  recipe.steps.forEach((step, i) => {
    for (const id of step.lineIds) {
      if (!ids.has(id))
        fault(
          `steps[${i}].lineIds`,
          'unknown-line',
          'The step names a line that is not there.',
          'Its ingredient would never be called for.',
          'Choose one of the lines above.',
        );
    }
    if (step.window && step.window.to_min < step.window.from_min) {
      fault(
        `steps[${i}].window`,
        'window-backwards',
        'The wait ends before it begins.',
        'The rail could not call it.',
        'Put the shorter time first.',
      );
    }
  });
  if (!recipe.jars.some(j => j.size === recipe.makes.size)) {
    fault(
      'jars',
      'size-missing',
      'The jar size the recipe makes is not among its jars.',
      'Its net contents would be unknown.',
      'Add that size.',
    );
  }
  return faults;
}

/** Mass in grams of a line's prepared amount as written; for `each jar` lines, in one pint. */
export function lineMass_g(line: Line): number {
  return amount_g(line.amount, line);
}

/** The line that "fruit at hand" means: the first fruit, else the first produce. */
export function mainLine(recipe: Pick<Recipe, 'lines'>): Line {
  const line =
    recipe.lines.find(l => l.role === 'fruit') ?? recipe.lines.find(l => l.role === 'low-acid produce');
  if (!line) throw new RangeError('mainLine: the recipe has no fruit or produce');
  return line;
}
