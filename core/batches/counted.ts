import { type BatchEvent, type EventType } from './events.ts';
import type { Deviation, Trace } from './state.ts';

/** An event that counts, after corrections, with its instant. */
export interface CountedEntry {
  event: BatchEvent;
  at_ms: number;
  trace: Trace;
}

/** Events of each kind, in order of happening. */
export type ByType = { [K in EventType]?: (CountedEntry & { event: BatchEvent<K> })[] };

/** The order of a record: by corrected instant, then device counter, then id. */
export function inOrder(
  a: { event: BatchEvent; at_ms: number },
  b: { event: BatchEvent; at_ms: number },
): number {
  if (a.at_ms !== b.at_ms) return a.at_ms - b.at_ms;
  if (a.event.deviceCounter !== b.event.deviceCounter) return a.event.deviceCounter - b.event.deviceCounter;
  return a.event.id < b.event.id ? -1 : a.event.id > b.event.id ? 1 : 0;
}

/** What a deviation says of itself; it belongs to no load and is not settled unless said. */
type NewDeviation = Pick<Deviation, 'key' | 'code' | 'jars' | 'what' | 'next' | 'canSettle'> &
  Partial<Pick<Deviation, 'loadId'>>;

/** A deviation that nobody has settled yet; on no load unless one is named. */
export const deviation = (d: NewDeviation): Deviation => ({ loadId: null, settled: null, ...d });
