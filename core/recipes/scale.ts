import { Fraction, UNITS, amount_g, kitchenVolume, kitchenWeight, mixedText } from '../measure/index.ts';
import { type JarSizeId, jarSize } from './jars.ts';
import { type Line, type Recipe, lineMass_g, mainLine } from './recipe.ts';

export interface JarsWanted {
  size: JarSizeId;
  count: number;
}

/** A line at the scale of a batch. */
export interface ScaledLine {
  lineId: string;
  name: string;
  preparation: string;
  where: Line['where'];
  /** Prepared, in grams. */
  mass_g: number;
  /** Bought, in grams, before trimming. */
  asBought_g: number;
  /** Prepared, in cups and spoons or in its own count. */
  measure: string;
  /** Rounding error of `measure` as a share of the amount, 0 where it is a weight or a whole count. */
  measureError: number;
  /** Bought, in pounds and ounces. */
  toBuy: string;
  /** For `each jar` lines: the dose by jar size, in kitchen measures and grams. */
  eachJar: { size: JarSizeId; measure: string; mass_g: number }[];
}

export interface ScaledRecipe {
  /** Exact factor on the recipe as written, `n` or `n/d`. */
  factor: string;
  lines: ScaledLine[];
  jars: JarsWanted[];
  /** Product left over after the last whole jar, as a share of a jar of the smallest size used; 0 when none. */
  over: number;
}

const pintsOf = (jars: JarsWanted[]): Fraction =>
  jars.reduce((sum, j) => sum.add(jarSize(j.size).pints.mul(j.count)), new Fraction(0));

/**
 * The factor that makes these jars.
 *
 * @throws RangeError when no jar is wanted or a count is not a whole number from 0
 */
export function factorForJars(recipe: Recipe, jars: JarsWanted[]): Fraction {
  if (jars.some(j => !Number.isInteger(j.count) || j.count < 0))
    throw new RangeError('factorForJars: counts are whole numbers from 0');
  const wanted = pintsOf(jars);
  if (wanted.compare(0) <= 0) throw new RangeError('factorForJars: at least one jar is wanted');
  return wanted.div(pintsOf([recipe.makes]));
}

/**
 * The factor that uses up this much prepared fruit (or produce).
 *
 * @param prepared_g  grams of the main line, prepared; above zero
 * @throws RangeError for zero or less
 */
export function factorForFruit(recipe: Recipe, prepared_g: number): Fraction {
  if (!(prepared_g > 0)) throw new RangeError('factorForFruit: fruit must be above zero');
  return new Fraction(prepared_g).div(new Fraction(lineMass_g(mainLine(recipe)).toFixed(6)));
}

/** Whole jars of one size that a factor fills, with the share of one more. */
export function jarsForFactor(
  recipe: Recipe,
  factor: Fraction,
  size: JarSizeId,
): { count: number; over: number } {
  const exact = pintsOf([recipe.makes]).mul(factor).div(jarSize(size).pints);
  const count = Number(exact.floor().n);
  return { count, over: exact.sub(count).valueOf() };
}

/**
 * Scales every line of a recipe. Lines for the pot and the brine follow the factor; lines for each jar follow the jars.
 *
 * @param factor  exact, above zero
 * @param jars  jars to be filled, which set the per-jar lines
 */
export function scaleRecipe(recipe: Recipe, factor: Fraction, jars: JarsWanted[]): ScaledRecipe {
  const used = jars.filter(j => j.count > 0);
  const pints = pintsOf(used);
  const lines = recipe.lines.map(line => scaleLine(line, line.where === 'each jar' ? pints : factor, used));
  const smallest = [...used].sort((a, b) => jarSize(a.size).pints.compare(jarSize(b.size).pints))[0];
  const left = pintsOf([recipe.makes]).mul(factor).sub(pints);
  const over = smallest && left.compare(0) > 0 ? left.div(jarSize(smallest.size).pints).valueOf() : 0;
  return { factor: factor.toFraction(), lines, jars: used, over };
}

function scaleLine(line: Line, times: Fraction, jars: JarsWanted[]): ScaledLine {
  const mass_g = amount_g(line.amount, line, times);
  const shown = measureText(line, times);
  return {
    lineId: line.id,
    name: line.name,
    preparation: line.preparation,
    where: line.where,
    mass_g,
    asBought_g: mass_g / line.trimYield,
    measure: shown.text,
    measureError: shown.error,
    toBuy: kitchenWeight(mass_g / line.trimYield),
    eachJar:
      line.where !== 'each jar'
        ? []
        : jars.map(j => ({
            size: j.size,
            measure: measureText(line, jarSize(j.size).pints).text,
            mass_g: amount_g(line.amount, line, jarSize(j.size).pints),
          })),
  };
}

function measureText(line: Line, times: Fraction): { text: string; error: number } {
  const unit = UNITS[line.amount.unit];
  const value = new Fraction(line.amount.value).mul(times);
  if (unit.dimension === 'volume') return kitchenVolume(value.mul(unit.factor).valueOf());
  if (unit.dimension === 'count') return { text: mixedText(value.valueOf(), false), error: 0 };
  if (line.density_gPerMl) return kitchenVolume(value.mul(unit.factor).valueOf() / line.density_gPerMl);
  return { text: kitchenWeight(value.mul(unit.factor).valueOf()), error: 0 };
}
