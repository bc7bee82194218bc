import { lowBuffer, type ReadWhen, type Texture } from '../acid/index.ts';
import { dayOf } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import type { BatchEvent, EventType, StartedBody } from './events.ts';
import type { PlacedEntry, Trace } from './evidence.ts';
import type { BatchState, JarState } from './state.ts';

/** The jars an entry names that exist; the others open a deviation. */
export type NameJars = (numbers: number[], s: PlacedEntry, doing: string) => JarState[];

type Of<K extends EventType> = PlacedEntry & { event: BatchEvent<K> };

const HOUR_MS = 3_600_000;
/** A buffer that is read again stands behind readings of the same sitting. Our choice. */
const SITTING_MS = 12 * HOUR_MS;

/**
 * Readings with their hours since the jar's own last load was lifted: none where it was read before that, and as few as
 * can be where a time is doubtful; with the buffer as it read afterwards, and how long the jar had been open.
 */
export function readJars(
  readings: readonly Of<'ph.read'>[],
  rechecked: readonly Of<'meter.rechecked'>[],
  started: Pick<StartedBody, 'kitchen'> | null,
  liftedOf: (jar: JarState) => Trace | null,
  named: NameJars,
): BatchState['readings'] {
  const opened = new Map<number, Trace>();
  return readings.map(s => {
    const { body } = s.event;
    const [jar] = named([body.jar], s, 'measured');
    const lifted = jar ? liftedOf(jar) : null;
    const first = opened.get(body.jar) ?? s.trace;
    if (!opened.has(body.jar)) opened.set(body.jar, s.trace);
    const read = {
      ...body,
      on: dayOf(s.at_ms, started?.kitchen.zone ?? 'UTC'),
      opened_h: (s.at_ms - first.at_ms) / HOUR_MS,
      recheck_off: recheckOf(s, rechecked),
      by: s.trace,
    };
    if (!lifted || s.at_ms < lifted.at_ms) return { ...read, hours: null };
    return { ...read, hours: s.trace.doubtful ? 0 : Math.max(0, (s.at_ms - lifted.latest_ms) / HOUR_MS) };
  });
}

/** How far off the buffer was when it was first read again after a reading, in the same sitting; null where it was not. */
function recheckOf(s: Of<'ph.read'>, rechecked: readonly Of<'meter.rechecked'>[]): number | null {
  const { calibration } = s.event.body;
  if (!calibration) return null;
  const again = rechecked.find(
    r =>
      r.event.body.calibratedAt === calibration.at &&
      r.at_ms >= s.at_ms &&
      r.at_ms <= s.at_ms + SITTING_MS &&
      !r.trace.doubtful,
  );
  if (!again) return null;
  const { reads_ph, temp_C } = again.event.body;
  return reads_ph - lowBuffer({ points: calibration.points, temp_C });
}

/** How fast acid spreads through a product, by how it is cut: pieces in a liquid are pieces, however small. */
export function textureOf({ method, packing }: Pick<Recipe, 'method' | 'packing'>): Texture {
  if (packing !== null) return 'pieces';
  if (method.cut === 'puréed' || method.cut === 'juice') return 'smooth';
  return method.cut === 'crushed' ? 'crushed' : 'pieces';
}

/** What the record knows of a reading beside what it says itself, by which it counts or does not. */
export function readWhen(
  { started }: Pick<BatchState, 'started'>,
  reading: Pick<BatchState['readings'][number], 'hours' | 'on' | 'recheck_off' | 'opened_h'>,
): ReadWhen {
  const { hours, on, recheck_off, opened_h } = reading;
  return {
    hours,
    on,
    recheck_off,
    opened_h,
    dayOfInstant: ms => dayOf(ms, started?.kitchen.zone ?? 'UTC'),
    texture: started ? textureOf(started.recipe) : 'pieces',
  };
}
