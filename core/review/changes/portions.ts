import { isLowAcid } from '../../ingredients/index.ts';
import { amountMiddle, UNITS } from '../../measure/index.ts';
import { type Line, lineMass_g } from '../../recipes/index.ts';
import type { Formula } from './change.ts';

/**
 * What a line's amount goes with: the pot, each jar, or a measure of something else. They scale apart from each other,
 * so they are compared apart.
 */
export type Follows = 'pot' | 'jar' | 'measure';

/** One ingredient that follows one thing: its grams together, for the pot as written, a pint jar, or one of the measure. */
export interface Portion {
  follows: Follows;
  /** The last of its lines, for its role and its name. */
  line: Line;
  grams: number;
}

/** Amounts that differ by less are the same: rounding of spoons, not a change. */
const SAME = 0.01;

/** Whether there is less than there was, by more than the rounding of spoons. */
export const less = (now: number, then: number): boolean => now < then * (1 - SAME) - 1e-9;
/** Whether there is more than there was, by more than the rounding of spoons. */
export const more = (now: number, then: number): boolean => now > then * (1 + SAME) + 1e-9;

/** Where a line's amount belongs. */
export function followsOf(line: Line): Follows {
  return line.where === 'each jar' ? 'jar' : line.ratio ? 'measure' : 'pot';
}

/** Grams of a line that stay in the food, for what it follows; nothing where it cannot be weighed. */
export function portion_g(line: Line): number {
  try {
    const grams = lineMass_g(line) * line.keptShare;
    if (!line.ratio) return grams;
    const { per } = line.ratio;
    return grams / amountMiddle(per).mul(UNITS[per.unit].factor).valueOf();
  } catch (error) {
    if (error instanceof RangeError) return 0;
    throw error;
  }
}

/** The portions of a formula, by ingredient and by what they follow. */
export function portionsOf(formula: Formula): Map<string, Portion> {
  const out = new Map<string, Portion>();
  for (const line of formula.lines) {
    // A dip is never in the food.
    if (line.where === 'dip') continue;
    const follows = followsOf(line);
    const key = `${follows} ${line.ingredientId ?? line.name.trim().toLowerCase()}`;
    out.set(key, { follows, line, grams: (out.get(key)?.grams ?? 0) + portion_g(line) });
  }
  return out;
}

/**
 * How many times the tested pot the pot of a recipe is. It goes by the fruit or produce there is most of in the tested
 * formula and that is still in the recipe, so that a change of one ingredient does not look like one of all others;
 * where nothing is left of it, by everything that is in the pot.
 */
export function potScale(tested: Formula, recipe: Formula): number {
  const then = portionsOf(tested);
  const now = portionsOf(recipe);
  const food = (p: Portion) =>
    p.follows === 'pot' && p.grams > 0 && (p.line.role === 'fruit' || isLowAcid(p.line));
  const main = [...then]
    .filter(([key, p]) => food(p) && (now.get(key)?.grams ?? 0) > 0)
    .sort(([, a], [, b]) => b.grams - a.grams)[0];
  if (main) return (now.get(main[0]) as Portion).grams / main[1].grams;
  const all = (portions: Map<string, Portion>) =>
    [...portions.values()].filter(p => p.follows === 'pot').reduce((sum, p) => sum + p.grams, 0);
  return all(then) > 0 ? all(now) / all(then) : 1;
}

/** Grams the tested formula would have at the recipe's scale. */
export const at = (portion: Pick<Portion, 'follows' | 'grams'>, scale: number): number =>
  portion.follows === 'pot' ? portion.grams * scale : portion.grams;
