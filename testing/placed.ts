import type { BatchEvent, PlacedEntry, Stamp, Trace } from '@cocotte/core/batches';

/** An entry where its stamp says it happened, for tests of what is measured between two. */
export function placed(stamp: Stamp, over: Partial<Trace> = {}): PlacedEntry {
  const { typedInAfterwards: typed, clockOffset_ms: offset_ms } = stamp;
  const at_ms = typed ? Date.parse(stamp.occurredAt) : Date.parse(stamp.wallClock) + (offset_ms ?? 0);
  return {
    event: { ...stamp, receipt: null } as unknown as BatchEvent,
    at_ms,
    trace: {
      eventId: stamp.id,
      personId: stamp.personId,
      at_ms,
      known: typed || offset_ms === null ? 'written up' : 'live',
      doubtful: false,
      earliest_ms: at_ms,
      latest_ms: at_ms,
      corrected: false,
      ...over,
    },
  };
}
