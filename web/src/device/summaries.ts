import type { BatchView, FactEntry } from '@cocotte/contract';
import type { BatchEvent } from '@cocotte/core/batches';
import { type BatchSummary, assess, summarise } from '@cocotte/core/checks';

export { isOpen } from '@cocotte/core/checks';

/** An entry of this device that the server has not got, or not yet told of. */
export interface OwnEntry {
  entry: FactEntry;
  kitchenId: string;
  batchId: string;
}

/** What a batch's record says by itself; the same record is not folded twice. */
const made = new WeakMap<BatchView, BatchSummary>();

/** The entries of a batch: what the server knows, and what this device still has to say. */
export function entriesOf(view: BatchView, own: readonly OwnEntry[]): BatchEvent[] {
  const known = new Set(view.events.map(e => e.id));
  const fresh = new Map(own.filter(w => !known.has(w.entry.id)).map(w => [w.entry.id, w]));
  return [
    ...view.events,
    ...[...fresh.values()].map(
      ({ entry, kitchenId, batchId }) => ({ ...entry, kitchenId, batchId, receipt: null }) as BatchEvent,
    ),
  ];
}

/** A batch as lists show it, by its record and by what this device still has to say. */
export function summaryOf(view: BatchView, own: readonly OwnEntry[]): BatchSummary {
  if (own.length > 0) return summarise(assess(entriesOf(view, own)));
  let summary = made.get(view);
  if (!summary) made.set(view, (summary = summarise(assess(view.events))));
  return summary;
}
