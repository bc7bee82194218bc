import { type Process, DEFAULT_HEADSPACE_MM, PACK, plan, processOf } from '../balance/index.ts';
import { jarSize, type JarSizeId, pintsOf } from '../jars/index.ts';
import { Fraction, byName, type Habits } from '../measure/index.ts';
import { type JarsWanted, type Recipe, type Step, stepText } from '../recipes/index.ts';
import { processWords, type ScheduledTime } from '../times/index.ts';
import { type LineMass, lineMasses, measuresOf } from './masses.ts';
import type { BatchState } from './state.ts';

type Recorded = Pick<
  BatchState,
  'started' | 'draws' | 'weighed' | 'measures' | 'jars' | 'temperatures' | 'replaced' | 'potTaken'
>;

/** Weighed acid counts as far as it was drawn from lots, but for what scales differ by: of what came from nowhere nobody knows the strength. */
const DRAWN_SHARE = 0.9;

/** Grams of a line that went in, as far as they count. */
function counted_g(mass: LineMass): number {
  const { line, drawn_g, actual_g } = mass;
  return line.role === 'acid' && drawn_g !== null && drawn_g < actual_g * DRAWN_SHARE ? drawn_g : actual_g;
}

/** Jars that were filled from the pot, by size. */
export function filledJars(state: Pick<BatchState, 'jars'>): JarsWanted[] {
  const counts = new Map<JarSizeId, number>();
  for (const jar of state.jars)
    if (jar.outletId === null) counts.set(jar.size, (counts.get(jar.size) ?? 0) + 1);
  return [...counts].map(([size, count]) => ({ size, count }));
}

const kitchenOf = (started: NonNullable<BatchState['started']>) => ({
  altitude_m: started.kitchen.altitude_m,
  thermometerError_C: started.kitchen.thermometerError_C,
  // The rate of its pot is not in the record: what boiled off is told by targets, measures and jars.
  pot: null,
  pots: started.pots.count,
  headspace_mm: started.times[0]?.headspace_mm ?? DEFAULT_HEADSPACE_MM,
});

/**
 * A batch as it happened so far, the rest as planned: what was weighed, drawn and measured takes the place of the plan,
 * the hottest reading that of the temperature it was to be cooked to, and the jars that were filled that of those wanted.
 *
 * @throws RangeError when the batch has not been started, or a line of it cannot be weighed
 */
export function observed(state: Recorded, masses: readonly LineMass[] = lineMasses(state)): Process {
  const { started } = state;
  if (!started) throw new RangeError('observed: the batch has not been started');
  const factor = new Fraction(started.factor);
  const filled = filledJars(state);
  const jars = filled.length > 0 ? filled : started.jars;
  const pints = pintsOf(started.jars);
  const byId = new Map(masses.map(m => [m.line.id, m]));
  // What is dosed by jar went in as the recipe doses it; whether it did is asked of each jar.
  const grams = new Map(
    masses.map(m => [m.line.id, m.line.where === 'each jar' ? m.planned_g : counted_g(m)]),
  );
  const process = processOf(
    asCooked(started.recipe, state),
    factor,
    grams,
    jars,
    pints,
    kitchenOf(started),
    id => byId.get(id)?.basis ?? 'planned',
  );
  const taken = measuresOf(started.recipe, state.measures);
  return {
    ...process,
    // What was really taken stands for what the recipe meant to give off.
    ...(state.potTaken.length > 0 && {
      recipe: { ...process.recipe, outlets: [] },
      taken: state.potTaken.map(t => ({ id: t.by.eventId, mass_g: t.mass_g })),
    }),
    measures: byName([
      ...Object.entries(process.measures),
      ...Object.entries(taken).map(
        ([id, m]) => [id, { quantity: m.quantity, unit: m.unit, known: 'measured' as const }] as const,
      ),
    ]),
    perPint_g: packed_g(started.recipe, process, jars),
  };
}

/**
 * What the authority of a batch covers: its recipe, carried out as written at its scale, all of its pieces in its jars.
 * What took the place of a line at the pot is no part of it.
 */
export function covered(state: Recorded): Process {
  const { started } = state;
  if (!started) throw new RangeError('covered: the batch has not been started');
  const was = new Map(state.replaced.map(r => [r.was.id, r.was]));
  const recipe = { ...started.recipe, lines: started.recipe.lines.map(l => was.get(l.id) ?? l) };
  const process = plan(recipe, new Fraction(started.factor), started.jars, kitchenOf(started));
  return { ...process, perPint_g: packed_g(recipe, process, started.jars) };
}

/** The recipe cooked as far as it was: what was read in the pot stands for the temperature it was to reach. */
function asCooked(recipe: Recipe, state: Pick<BatchState, 'temperatures'>): Recipe {
  const read = state.temperatures.filter(t => t.where === 'pot' && t.part === '').map(t => t.temp_C);
  if (read.length === 0) return recipe;
  const hottest = Math.max(...read);
  const last = recipe.steps.findLast(s => s.target.kind === 'gel point' || s.target.kind === 'temperature');
  if (!last) return recipe;
  return {
    ...recipe,
    steps: recipe.steps.map(s =>
      s === last ? { ...s, target: { kind: 'temperature', temp_C: hottest, hold_min: 0 } } : s,
    ),
  };
}

/** Pieces that leave no room for liquid fill no more than this of a jar. Our bound, from no source. */
const FULL_OF_PIECES = 0.95;

/**
 * Grams of pieces in a pint, from what went in and the pints that were filled: no more than a jar can hold. Null where it
 * lies within what jars of a pack differ by: then the recipe's own figure stands, and some pieces were left over.
 */
function packed_g(recipe: Recipe, process: Process, filled: readonly JarsWanted[]): number | null {
  const { packing } = recipe;
  if (!packing) return null;
  const pieces_g = process.lines
    .filter(l => (l.line.role === 'fruit' || l.line.role === 'low-acid produce') && l.line.where === 'pot')
    .reduce((sum, l) => sum + l.prepared_g, 0);
  const share = pieces_g / pintsOf(filled).valueOf() / packing.perPint_g;
  if (share >= PACK.low && share <= PACK.high) return null;
  const most = Math.min(
    ...process.jars.map(
      j => (j.fill_mL * FULL_OF_PIECES * packing.pieceDensity_gPerMl) / jarSize(j.size).pints.valueOf(),
    ),
  );
  return Math.min(most, packing.perPint_g * share);
}

/**
 * The words of a step of a batch, with its own figures.
 *
 * @param kitchen  in whose measures the headspace is said
 */
export function batchStepText(
  state: Pick<BatchState, 'started' | 'jars' | 'measures'>,
  step: Step,
  kitchen: Pick<Habits, 'locale' | 'measures'>,
): string {
  const { started } = state;
  if (!started) return step.text;
  return stepText(started.recipe, step, {
    factor: new Fraction(started.factor),
    measured: measuresOf(started.recipe, state.measures),
    ...processWords(timesInUse(state), kitchen),
  });
}

/** Processing times of the sizes that were wanted or filled; the others stand ready for an odd jar. */
export function timesInUse(state: Pick<BatchState, 'started' | 'jars'>): ScheduledTime[] {
  const { started } = state;
  if (!started) return [];
  const sizes = new Set([...started.jars.map(j => j.size), ...state.jars.map(j => j.size)]);
  return started.times.filter(t => sizes.has(t.jarSize));
}
