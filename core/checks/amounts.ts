import type { BatchState, LineMass } from '../batches/index.ts';
import { fillVolume_mL } from '../jars/index.ts';
import { Fraction, massText } from '../measure/index.ts';
import { factorForJars, scaleOff } from '../recipes/index.ts';
import { type Condition, condition } from './condition.ts';

/** No food of ours is lighter: what a filled jar weighs at least, whatever is packed in it. Our bound, from memory: oil is near 0.92. */
const LEAST_DENSITY_GPERML = 0.85;
/** What scales, measures of cups and ladling over may err by, all together. Our bound, from no source. */
const MORE_THAN_CAN_BE = 1.3;
/** Half an inch, where the process names no headspace: common practice, and the least a jar then holds. */
const HEADSPACE_MM = 12.7;

/**
 * Amounts that cannot have been: more in the jars than the pot held, a scale that has nothing to do with its jars. They
 * hold, since whatever else is reckoned from them is reckoned wrongly.
 */
export function amountConditions(state: BatchState, masses: readonly LineMass[]): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const { kitchen, recipe } = started;
  if (recipe.sketch) return [];
  const out: Condition[] = [];
  if (scaleOff(recipe, new Fraction(started.factor), started.jars))
    out.push(
      condition({
        code: 'scale',
        title: 'A scale that belongs to its jars',
        met: false,
        evidence: `The batch was started at ${new Fraction(started.factor).toFraction(true)} times the recipe, for jars that take ${factorForJars(recipe, started.jars).toFraction(true)} times.`,
        why: 'Weights, doses and times were planned for another amount.',
        next: 'Refrigerate or use up what was made, and start the batch again at the scale of its jars.',
        jars: null,
        against: true,
      }),
    );
  const numbers = state.jars.map(j => {
    const time = started.times.find(t => t.jarSize === j.size);
    return fillVolume_mL(j.size, time?.headspace_mm ?? HEADSPACE_MM);
  });
  const needed_g = numbers.reduce((sum, mL) => sum + mL, 0) * LEAST_DENSITY_GPERML;
  const unknown = masses.some(m => m.actual_g === 0 && m.line.where !== 'dip');
  const there_g = masses.reduce((sum, m) => sum + m.actual_g, 0);
  if (!unknown && needed_g > there_g * MORE_THAN_CAN_BE)
    out.push(
      condition({
        code: 'more-than-pot',
        title: 'No more in the jars than went in',
        met: false,
        evidence: `${state.jars.length} jars hold at least ${massText(needed_g, kitchen)}; ${massText(there_g, kitchen)} went in.`,
        why: 'What is in the jars then is not what the recipe covers.',
        next: 'Correct the weights or the count of jars; jars that were never filled are taken back with their entry.',
        jars: null,
        against: true,
      }),
    );
  return out;
}
