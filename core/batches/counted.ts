import type { BatchEvent, EventType } from './events.ts';
import type { PlacedEntry } from './evidence.ts';
import type { Deviation } from './state.ts';

/** Events of each kind, in order of happening. */
export type ByType = { [K in EventType]?: (PlacedEntry & { event: BatchEvent<K> })[] };

/** What a deviation says of itself; it belongs to no load and is not settled unless said. */
type NewDeviation = Pick<Deviation, 'key' | 'code' | 'jars' | 'what' | 'next'> &
  Partial<Pick<Deviation, 'loadId' | 'settles' | 'settled'>>;

/** A deviation that nobody has settled yet; on no load unless one is named, and not to be settled unless said. */
export const deviation = (d: NewDeviation): Deviation => ({
  loadId: null,
  settles: null,
  settled: null,
  actions: [],
  secondLook: null,
  ...d,
});
