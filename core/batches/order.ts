import { rangesText } from '../measure/index.ts';
import { deviation } from './counted.ts';
import type { Trace } from './evidence.ts';
import type { Deviation, JarState, LoadState } from './state.ts';

/** Two entries of one moment may stand so far apart: what clocks differ by. */
const TOLERANCE_MS = 5000;
/** A typed time is of a minute, not of a second. */
const TYPED_TOLERANCE_MS = 60_000;

/** Whether one entry may have happened after another, beyond what their clocks may differ by. */
function after(one: Trace, other: Trace): boolean {
  const tolerance =
    one.known === 'written up' || other.known === 'written up' ? TYPED_TOLERANCE_MS : TOLERANCE_MS;
  return one.latest_ms > other.earliest_ms + tolerance;
}

/**
 * What cannot have happened in the order in which it was entered: a jar is filled, dosed, closed and packed, comes to
 * the boil, and is lifted before it goes into another load. Each deviation names both entries and holds its jars.
 */
export function orderDeviations(jars: readonly JarState[], loads: readonly LoadState[]): Deviation[] {
  const byId = new Map(loads.map(l => [l.id, l]));
  const out: Deviation[] = [];
  const next = 'Correct the time of the entry that is wrong, or set the jars aside.';
  for (const load of loads) {
    const own = jars.filter(j => j.loadIds.includes(load.id));
    const late = own.filter(j => after(j.filled, load.packed)).map(j => j.number);
    if (late.length > 0)
      out.push(
        deviation({
          key: `filled_after:${load.id}`,
          code: 'filled_after',
          jars: late,
          loadId: load.id,
          what: `Jar ${rangesText(late)} was entered as filled after load ${load.number}, which holds it, was packed.`,
          next,
        }),
      );
    if (load.boilingSince && after(load.packed, load.boilingSince))
      out.push(
        deviation({
          key: `packed_late:${load.id}`,
          code: 'packed_late',
          jars: load.jars,
          loadId: load.id,
          what: `Load ${load.number} was entered as packed after its full boil.`,
          next,
        }),
      );
  }
  for (const jar of jars) {
    for (let i = 1; i < jar.loadIds.length; i++) {
      const [before, into] = [i - 1, i].map(at => byId.get(jar.loadIds[at] as string)) as [
        LoadState,
        LoadState,
      ];
      if (before.lifted && !after(before.lifted, into.packed)) continue;
      out.push(
        deviation({
          key: `two_loads:${jar.number}:${into.id}`,
          code: 'two_loads',
          jars: [jar.number],
          what: `Jar ${jar.number} is in load ${before.number} and load ${into.number} at once.`,
          next: 'Correct which load it went in.',
        }),
      );
    }
  }
  return out;
}

/** Whether something was put into a jar only after the jar was closed and packed. */
export function tooLate(dose: Trace, jar: JarState, loads: readonly LoadState[]): boolean {
  const first = loads.find(l => l.id === jar.loadIds[0]);
  return first !== undefined && after(dose, first.packed);
}
