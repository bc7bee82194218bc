import { JAR_SIZES, jarSize, type JarSizeId, pintsOf } from '../jars/index.ts';
import {
  HELD,
  amountMiddle,
  byName,
  Fraction,
  kitchenVolume,
  kitchenWeight,
  mixedText,
  UNITS,
} from '../measure/index.ts';
import { lineMass_g, type Measures, NOTHING_MEASURED, timesOf } from './masses.ts';
import { type Line, mainLine, type Recipe, type StepTarget } from './recipe.ts';

/** So many jars of a size. */
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
  /** In cups and spoons or in its own count, as the recipe measures it. */
  measure: string;
  /** Rounding error of `measure` as a share of the amount, 0 where it is a weight or a whole count. */
  measureError: number;
  /** Prepared, as a weight in pounds and ounces, when `measure` is no weight. */
  weight: string;
  /** Bought: in pounds and ounces, acids that are poured by volume; empty for water. */
  toBuy: string;
  /** Settled by tasting within a range: least and most, in grams; null for a fixed amount. */
  range_g: { from: number; to: number } | null;
  /** What goes in at which step, when it enters in several portions. */
  portions: { stepId: string; measure: string; mass_g: number }[];
  /** For `each jar` lines: the dose by jar size, in kitchen measures and grams. */
  eachJar: { size: JarSizeId; measure: string; mass_g: number }[];
}

/** A recipe at a scale: exact factor, rounded for the scale and the spoon. */
export interface ScaledRecipe {
  /** Exact factor on the recipe as written, `n` or `n/d`. */
  factor: string;
  lines: ScaledLine[];
  jars: JarsWanted[];
  /** Product left over after the last whole jar, as a share of a jar of the smallest size used; 0 when none. */
  over: number;
}

/**
 * The factor that makes these jars.
 *
 * @throws RangeError when no jar is wanted or a count is not a whole number from 0
 */
export function factorForJars(recipe: Pick<Recipe, 'makes'>, jars: readonly JarsWanted[]): Fraction {
  if (jars.some(j => !Number.isInteger(j.count) || j.count < 0))
    throw new RangeError('factorForJars: counts are whole numbers from 0');
  const wanted = pintsOf(jars);
  if (wanted.compare(0) <= 0) throw new RangeError('factorForJars: at least one jar is wanted');
  return wanted.div(pintsOf([recipe.makes]));
}

/** A scale this many times off its jars is no plan for them. Our bound, from no source. */
const SCALE_OFF = 3;

/**
 * Whether a scale has nothing to do with the jars it is for: weights, doses and times then are those of another amount.
 *
 * @throws RangeError where no jar is wanted, as {@link factorForJars}
 */
export function scaleOff(
  recipe: Pick<Recipe, 'makes'>,
  factor: Fraction,
  jars: readonly JarsWanted[],
): 'above' | 'below' | null {
  const off = factor.div(factorForJars(recipe, jars));
  if (off.compare(SCALE_OFF) > 0) return 'above';
  return off.mul(SCALE_OFF).compare(1) < 0 ? 'below' : null;
}

/**
 * The factor that uses up this much fruit (or produce).
 *
 * @param fruit_g  grams of the main line, above zero
 * @param basis  whether that is its weight as bought or as prepared
 * @throws RangeError for zero or less
 */
export function factorForFruit(
  recipe: Pick<Recipe, 'lines'>,
  fruit_g: number,
  basis: Line['basis'] = 'prepared',
): Fraction {
  if (!(fruit_g > 0)) throw new RangeError('factorForFruit: fruit must be above zero');
  const line = mainLine(recipe);
  const prepared_g = basis === 'as bought' ? fruit_g * line.trimYield : fruit_g;
  return new Fraction(prepared_g).div(new Fraction(lineMass_g(line).toFixed(6)));
}

/** Whole jars of one size that a factor fills, with the share of one more. */
export function jarsForFactor(
  recipe: Pick<Recipe, 'makes'>,
  factor: Fraction,
  size: JarSizeId,
): { count: number; over: number } {
  const exact = pintsOf([recipe.makes]).mul(factor).div(jarSize(size).pints);
  const count = Number(exact.floor().n);
  return { count, over: exact.sub(count).valueOf() };
}

/**
 * Jars for so many pints that leave the least over: mostly of the size wanted, the rest of at most two smaller jars.
 *
 * @param pints  what there is to fill
 * @param sizes  sizes that may be used; `main` is one of them
 * @returns counts, largest first, and what is over in pints
 * @example
 * chooseJars(new Fraction(7, 2), 'pint', ['pint', 'half-pint']).jars; // [{ size: 'pint', count: 3 }, { size: 'half-pint', count: 1 }]
 */
export function chooseJars(
  pints: Fraction,
  main: JarSizeId,
  sizes: readonly JarSizeId[],
): { jars: JarsWanted[]; over: Fraction } {
  const mainPints = jarSize(main).pints;
  const count = Number(pints.div(mainPints).floor().n);
  const rest = pints.sub(mainPints.mul(count));
  const smaller = JAR_SIZES.filter(s => sizes.includes(s.id) && s.pints.compare(mainPints) < 0).reverse();
  let best: { jars: JarsWanted[]; over: Fraction } = { jars: [], over: rest };
  const better = (jars: JarsWanted[], over: Fraction) => {
    const order = over.compare(best.over);
    const fewer = countOf(jars) < countOf(best.jars);
    if (over.compare(0) >= 0 && (order < 0 || (order === 0 && fewer))) best = { jars, over };
  };
  for (const one of smaller) {
    better([{ size: one.id, count: 1 }], rest.sub(one.pints));
    better([{ size: one.id, count: 2 }], rest.sub(one.pints.mul(2)));
    for (const two of smaller)
      if (two.pints.compare(one.pints) < 0)
        better(
          [
            { size: one.id, count: 1 },
            { size: two.id, count: 1 },
          ],
          rest.sub(one.pints).sub(two.pints),
        );
  }
  return { jars: [...(count > 0 ? [{ size: main, count }] : []), ...best.jars], over: best.over };
}

const countOf = (jars: readonly JarsWanted[]) => jars.reduce((sum, j) => sum + j.count, 0);

/**
 * What to lay out before starting: the jars, a spare for each started dozen, one small one for what is left, and as
 * many new lids. Common practice.
 */
export function layOut(
  jars: readonly JarsWanted[],
  sizes: readonly JarSizeId[],
): { jars: { size: JarSizeId; count: number; spare: number }[]; small: JarSizeId | null; lids: number } {
  const rows = jars
    .filter(j => j.count > 0)
    .map(j => ({ size: j.size, count: j.count, spare: Math.ceil(j.count / 12) }));
  const small =
    JAR_SIZES.find(s => sizes.includes(s.id) && !rows.some(r => jarSize(r.size).pints.compare(s.pints) < 0))
      ?.id ?? null;
  const lids = rows.reduce((sum, r) => sum + r.count + r.spare, 0) + (small ? 1 : 0);
  return { jars: rows, small, lids };
}

/**
 * Scales every line of a recipe. Lines for the pot and the brine follow the factor; lines for each jar follow the jars;
 * lines with a ratio follow what they are a ratio of.
 *
 * @param factor  exact, above zero
 * @param jars  jars to be filled, which set the per-jar lines
 * @param measured  measures taken so far, which settle ratios
 * @throws RangeError for a line that cannot be weighed, or a ratio that cannot be reckoned
 * @example
 * const twice = scaleRecipe(plumJam, new Fraction(2), [{ size: 'half-pint', count: 16 }]);
 * const once = scaleRecipe(plumJam, new Fraction(1), [{ size: 'half-pint', count: 8 }]);
 * twice.lines[0].mass_g / once.lines[0].mass_g; // 2
 */
export function scaleRecipe(
  recipe: Pick<Recipe, 'lines' | 'steps' | 'makes'>,
  factor: Fraction,
  jars: readonly JarsWanted[],
  measured: Measures = NOTHING_MEASURED,
): ScaledRecipe {
  const used = jars.filter(j => j.count > 0);
  const pints = pintsOf(used);
  const lines = recipe.lines.map(line =>
    scaleLine(
      recipe,
      line,
      line.where === 'each jar' ? pints : timesOf(recipe, line, factor, measured),
      used,
    ),
  );
  const smallest = [...used].sort((a, b) => jarSize(a.size).pints.compare(jarSize(b.size).pints))[0];
  const left = pintsOf([recipe.makes]).mul(factor).sub(pints);
  const over = smallest && left.compare(0) > 0 ? left.div(jarSize(smallest.size).pints).valueOf() : 0;
  return { factor: factor.toFraction(), lines, jars: used, over };
}

/**
 * A target of cooking at a scale, for each of several pots: a volume and a depth are those of the recipe as written in one
 * pot, and grow with what is in it. Temperatures, times and shares do not.
 *
 * @example
 * targetAt({ kind: 'volume', volume_mL: 3600 }, new Fraction(2), 1).volume_mL; // 7200
 */
export function targetAt(target: StepTarget, factor: Fraction, pots: number): StepTarget {
  const times = factor.valueOf() / pots;
  if (target.kind === 'volume') return { ...target, volume_mL: target.volume_mL * times };
  return target.kind === 'depth' ? { ...target, depth_mm: target.depth_mm * times } : target;
}

/** What goes into one pot of a line. */
export interface PotAmount {
  /** In cups and spoons or in its own count. */
  measure: string;
  mass_g: number;
}

/**
 * What goes into each pot of a recipe that is cooked in several: of each line that is not dosed by jar, by its id.
 *
 * @param pots  how many; what was measured is shared by them too
 * @throws RangeError as {@link scaleRecipe}
 */
export function amountsPerPot(
  recipe: Pick<Recipe, 'lines' | 'steps' | 'makes'>,
  factor: Fraction,
  pots: number,
  measured: Measures = NOTHING_MEASURED,
): Map<string, PotAmount> {
  const share = byName(
    Object.entries(measured).map(([id, m]) => [id, { ...m, quantity: m.quantity / pots }] as const),
  );
  return new Map(
    scaleRecipe(recipe, factor.div(pots), [], share)
      .lines.filter(l => l.where !== 'each jar')
      .map(({ lineId, measure, mass_g }) => [lineId, { measure, mass_g }]),
  );
}

function scaleLine(
  recipe: Pick<Recipe, 'steps'>,
  line: Line,
  times: Fraction,
  jars: readonly JarsWanted[],
): ScaledLine {
  const mass_g = lineMass_g(line, times);
  const shown = measureText(line, times);
  const { upTo, value } = line.amount;
  const middle = amountMiddle(line.amount).valueOf();
  const portions = recipe.steps.flatMap(step =>
    step.adds
      .filter(a => a.lineId === line.id && a.share !== '1')
      .map(a => {
        const share = new Fraction(a.share);
        return {
          stepId: step.id,
          measure: measureText(line, times.mul(share)).text,
          mass_g: mass_g * share.valueOf(),
        };
      }),
  );
  return {
    lineId: line.id,
    name: line.name,
    preparation: line.preparation,
    where: line.where,
    mass_g,
    asBought_g: mass_g / line.trimYield,
    measure: shown.text,
    measureError: shown.error,
    weight: kitchenWeight(mass_g),
    toBuy: toBuy(line, mass_g, shown.text),
    range_g:
      upTo === null || middle === 0
        ? null
        : {
            from: (mass_g * new Fraction(value).valueOf()) / middle,
            to: (mass_g * new Fraction(upTo).valueOf()) / middle,
          },
    portions,
    eachJar:
      line.where !== 'each jar'
        ? []
        : jars.map(j => ({
            size: j.size,
            measure: measureText(line, jarSize(j.size).pints).text,
            mass_g: lineMass_g(line, jarSize(j.size).pints),
          })),
  };
}

/** An ounce of vinegar is asked by weight or by volume; what is poured is bought by volume, so that nobody has to ask. */
function toBuy(line: Line, mass_g: number, measure: string): string {
  if (line.role === 'water') return '';
  const poured = line.role === 'acid' && UNITS[line.amount.unit].dimension === 'volume';
  return poured && line.trimYield === 1 ? measure : kitchenWeight(mass_g / line.trimYield);
}

/** A line at so many times its amount, in the measures of a kitchen, with the error of rounding. */
export function measureText(line: Line, times: Fraction): { text: string; error: number } {
  const unit = UNITS[line.amount.unit];
  const value = amountMiddle(line.amount).mul(times);
  if (unit.dimension === 'volume') return kitchenVolume(value.mul(unit.factor).valueOf());
  if (unit.dimension === 'count' || unit.dimension === 'produce') return counted(line, value, times);
  const mass_g = value.mul(unit.factor).valueOf();
  if (line.density_gPerMl && line.basis === 'prepared') return kitchenVolume(mass_g / line.density_gPerMl);
  return { text: kitchenWeight(mass_g), error: 0 };
}

/** Pieces and bushels to a quarter or a third; what that does not hold is weighed: never "0 bushels". */
function counted(line: Line, value: Fraction, times: Fraction): { text: string; error: number } {
  const { symbol } = UNITS[line.amount.unit];
  const exact = value.valueOf();
  const near = mixedText(exact, false);
  const shown = near
    .split(' ')
    .reduce((sum, part) => sum.add(part), new Fraction(0))
    .valueOf();
  const error = exact === 0 ? 0 : shown / exact - 1;
  if (Math.abs(error) <= HELD) return { text: `${near} ${symbol}`.trim(), error };
  const weighs = line.each_g !== null || line.bushel_g !== null;
  return {
    text: weighs
      ? kitchenWeight(lineMass_g(line, times))
      : `${Number(exact.toPrecision(2))} ${symbol}`.trim(),
    error: 0,
  };
}
