import { balance, massIn } from '../balance/index.ts';
import type { Step } from '../recipes/index.ts';
import type { Trace } from './evidence.ts';
import { filledJars, observed } from './observed.ts';
import type { BatchState } from './state.ts';

/** How a batch was cooked, as far as its record tells. */
export interface Cooked {
  /** Minutes of the steps in which the whole pot is cooked. */
  minutes: number;
  /** Grams of water that each pot boiled off in a minute; null where jars and what went in do not tell. */
  boilOff_gPerMin: number | null;
}

const MINUTE_MS = 60_000;
/** Longer than this no pot is cooked in one go: then somebody forgot a tap. Our bound, from no source. */
const LONGEST_MIN = 24 * 60;
/** Below this share of the pot what boiled off is lost in what jars differ by. Our bound, from no source. */
const LEAST_SHARE = 0.05;

/**
 * Minutes and boiling-off rate of a batch that was cooked: from the begin of its cook steps (or the end of the step before,
 * where nobody tapped it) to their end; and what went in less what the jars hold, driven off in that time.
 *
 * @returns null where an end or a begin is missing, or its time is doubtful
 */
export function cooked(state: BatchState): Cooked | null {
  const { started } = state;
  if (!started) return null;
  const { steps } = started.recipe;
  const whole = steps.filter(s => s.kind === 'cook' && s.part === '');
  const minutes = whole.map(s => minutesOf(state, steps, s));
  if (whole.length === 0 || minutes.some(m => m === null)) return null;
  const sum = minutes.reduce<number>((n, m) => n + (m ?? 0), 0);
  const driven_g = drivenOff_g(state, whole.at(-1) as Step);
  return {
    minutes: sum,
    boilOff_gPerMin: driven_g === null ? null : driven_g / sum / started.pots.count,
  };
}

/** When a step began: its own tap, else the end of the step before; null where neither is there. */
export function beginOf(state: BatchState, steps: readonly Step[], step: Step): Trace | null {
  const before = steps[steps.indexOf(step) - 1];
  return state.steps[step.id]?.started ?? (before && state.steps[before.id]?.done) ?? null;
}

function minutesOf(state: BatchState, steps: readonly Step[], step: Step): number | null {
  const began = beginOf(state, steps, step);
  const done = state.steps[step.id]?.done ?? null;
  if (!began || !done || began.doubtful || done.doubtful) return null;
  const minutes = (done.at_ms - began.at_ms) / MINUTE_MS;
  return minutes >= 1 && minutes <= LONGEST_MIN ? minutes : null;
}

/** Grams that left as steam, when the pot ends where the jars that were filled are full. */
function drivenOff_g(state: BatchState, last: Step): number | null {
  const jars = state.jars.filter(j => j.setAside?.why !== 'part-filled');
  if (filledJars({ jars }).length === 0) return null;
  try {
    const process = observed({ ...state, jars, temperatures: [] });
    if (process.recipe.packing) return null;
    const byEye = (s: Step): Step =>
      s.id === last.id ? { ...s, target: { kind: 'look', text: 'the jars are full' } } : s;
    const recipe = { ...process.recipe, steps: process.recipe.steps.map(byEye) };
    const { flows, vessels } = balance({ ...process, recipe });
    // More was in the pot than the jars hold, however far it boils down: it went another way.
    if (
      massIn(vessels.get('left over') ?? new Map()) >
      massIn(vessels.get('jars') ?? new Map()) * LEAST_SHARE
    )
      return null;
    const steam_g = flows.filter(f => f.to === 'steam').reduce((n, f) => n + massIn(f.contents), 0);
    const in_g = process.lines.reduce((n, l) => n + l.prepared_g, 0);
    return steam_g > in_g * LEAST_SHARE ? steam_g : null;
  } catch {
    // A line that cannot be weighed.
    return null;
  }
}
