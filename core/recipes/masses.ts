import { pintsOf } from '../jars/index.ts';
import {
  type Amount,
  amount_g,
  amountMiddle,
  byName,
  Fraction,
  type Names,
  UNITS,
} from '../measure/index.ts';
import type { Line, Recipe } from './recipe.ts';

/** What a ratio refers to is not there, or refers back to itself. */
export class RatioError extends RangeError {
  constructor(
    readonly lineId: string,
    readonly reason: 'circular' | 'missing' | 'units',
  ) {
    super(`ratio of line "${lineId}": ${reason}`);
    this.name = 'RatioError';
  }
}

/** Measures taken in a batch, by step id: grams or millilitres. They take the place of what a recipe expects. */
/** Before anything was measured. */
export const NOTHING_MEASURED: Measures = byName();

/** What measures taken in a batch came to, by the id of their step. */
export type Measures = Readonly<Names<{ quantity: number; unit: 'g' | 'mL' }>>;

/**
 * How many times a line's amount is wanted: the scale itself, or what its ratio makes of a measure or another line.
 *
 * @param scale  exact factor on the recipe as written
 * @throws RatioError for a ratio that runs in a circle, names nothing, or mixes weight with volume
 */
export function timesOf(
  recipe: Pick<Recipe, 'lines' | 'steps'>,
  line: Line,
  scale: Fraction,
  measured: Measures = NOTHING_MEASURED,
  seen: readonly string[] = [],
): Fraction {
  const { ratio } = line;
  if (!ratio) return scale;
  if (seen.includes(line.id)) throw new RatioError(line.id, 'circular');
  const per = baseOf(ratio.per);
  if (ratio.of === 'line') {
    const other = recipe.lines.find(l => l.id === ratio.id);
    if (!other) throw new RatioError(line.id, 'missing');
    const times = timesOf(recipe, other, scale, measured, [...seen, line.id]);
    const unit = UNITS[ratio.per.unit];
    const otherUnit = UNITS[other.amount.unit];
    if (unit.dimension === otherUnit.dimension) return baseOf(other.amount).mul(times).div(per);
    if (unit.dimension !== 'mass') throw new RatioError(line.id, 'units');
    return new Fraction(amount_g(other.amount, other, times).toFixed(9)).div(per);
  }
  const step = recipe.steps.find(s => s.id === ratio.id);
  if (!step) throw new RatioError(line.id, 'missing');
  const taken = measured[step.id];
  const unit = UNITS[ratio.per.unit].dimension;
  if (taken) {
    if ((taken.unit === 'g') !== (unit === 'mass')) throw new RatioError(line.id, 'units');
    return new Fraction(taken.quantity.toFixed(6)).div(per);
  }
  if (!step.expects) throw new RatioError(line.id, 'missing');
  if (UNITS[step.expects.unit].dimension !== unit) throw new RatioError(line.id, 'units');
  return baseOf(step.expects).mul(scale).div(per);
}

const baseOf = (amount: Amount): Fraction => amountMiddle(amount).mul(UNITS[amount.unit].factor);

/**
 * Grams of a line as prepared; bought amounts are trimmed first. For `each jar` lines, in one pint.
 *
 * @param times  how many times its amount, from {@link timesOf}
 * @throws RangeError when the line cannot be weighed
 */
export function lineMass_g(line: Line, times: Fraction = new Fraction(1)): number {
  const mass_g = amount_g(line.amount, line, times);
  return line.basis === 'as bought' ? mass_g * line.trimYield : mass_g;
}

/**
 * Grams prepared of each line at a scale, by line id. `each jar` lines count for the pints filled.
 *
 * @param pints  nominal pints filled, for per-jar lines
 */
export function recipeMasses_g(
  recipe: Pick<Recipe, 'lines' | 'steps'>,
  scale: Fraction,
  pints: Fraction,
  measured: Measures = NOTHING_MEASURED,
): Map<string, number> {
  return new Map(
    recipe.lines.map(line => [
      line.id,
      lineMass_g(line, line.where === 'each jar' ? pints : timesOf(recipe, line, scale, measured)),
    ]),
  );
}

/**
 * The same for a recipe as written, while it is being written: a line that cannot be weighed yet counts nothing, so that
 * the review keeps up with what is typed.
 */
export function knownMasses_g(recipe: Pick<Recipe, 'lines' | 'steps' | 'makes'>): Map<string, number> {
  const pints = pintsOf([recipe.makes]);
  const one = new Fraction(1);
  return new Map(
    recipe.lines.flatMap(line => {
      try {
        return [
          [
            line.id,
            lineMass_g(line, line.where === 'each jar' ? pints : timesOf(recipe, line, one)),
          ] as const,
        ];
      } catch (error) {
        if (error instanceof RangeError) return [];
        throw error;
      }
    }),
  );
}
