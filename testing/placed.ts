import type { BatchEvent, PlacedEntry, Stamp } from '@cocotte/core/batches';

/** An entry where its stamp says it happened, for tests of what is measured between two. */
export const placed = (
  stamp: Stamp,
  over: Partial<PlacedEntry> = {},
  at_ms = stamp.typedInAfterwards
    ? Date.parse(stamp.occurredAt)
    : Date.parse(stamp.wallClock) + (stamp.clockOffset_ms ?? 0),
): PlacedEntry => ({
  event: { ...stamp, receipt: null } as unknown as BatchEvent,
  at_ms,
  earliest_ms: at_ms,
  latest_ms: at_ms,
  known: stamp.typedInAfterwards || stamp.clockOffset_ms === null ? 'written up' : 'live',
  doubtful: false,
  ...over,
});
