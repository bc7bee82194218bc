import { balance, massIn, netOfJars_g, type VesselId } from '../balance/index.ts';
import { observed } from './observed.ts';
import type { BatchState } from './state.ts';

/** What is boiled off, poured away, kept back, or sticks as it usually does. */
const GONE: ReadonlySet<VesselId> = new Set<VesselId>([
  'trimmings',
  'drain',
  'cloth',
  'lifted',
  'steam',
  'wall',
  'unaccounted',
]);

/** Where the food of a batch went, in grams; what came in is all of them together. */
export interface Went {
  in_g: number;
  jars_g: number;
  /** Taken out of the pot as lots of their own. */
  taken_g: number;
  /** Left over, as it was weighed. */
  left_g: number;
  /** Boiled off, drained, kept back by a cloth, lifted out again, stuck to the pot as usual. */
  off_g: number;
  /** What the rest does not explain: stuck, foamed, tasted, or more in the jars than reckoned. */
  missing_g: number;
}

/**
 * Where what came in went: the balance of the batch, with what was weighed of what is left over. Null where a line cannot be
 * weighed, or no jar is filled.
 */
export function wentWhere(state: BatchState): Went | null {
  if (!state.started || state.jars.length === 0) return null;
  let made;
  try {
    made = balance(observed(state));
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
  let in_g = 0;
  let off_g = 0;
  for (const [vessel, contents] of made.vessels) {
    if (vessel.startsWith('line:')) continue;
    const mass_g = massIn(contents);
    in_g += mass_g;
    if (GONE.has(vessel)) off_g += mass_g;
  }
  const taken_g = state.potTaken.reduce((sum, t) => sum + t.mass_g, 0);
  const told_g = state.leftOver.reduce((sum, l) => sum + (l.mass_g ?? 0), 0);
  const nets = netOfJars_g(made);
  const weighed = new Map(state.nets.map(n => [n.jar, n.net_g]));
  const jars_g = state.jars.reduce((sum, j) => sum + (weighed.get(j.number) ?? nets.get(j.size) ?? 0), 0);
  return {
    in_g,
    jars_g,
    taken_g,
    left_g: told_g,
    off_g,
    missing_g: in_g - jars_g - taken_g - told_g - off_g,
  };
}
