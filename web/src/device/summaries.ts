import type { BatchView, FactEntry } from '@cocotte/contract';
import type { BatchEvent } from '@cocotte/core/batches';
import { type Assessment, type BatchSummary, assess, summarise } from '@cocotte/core/checks';

export { isOpen } from '@cocotte/core/checks';

/** An entry of this device that the server has not got, or not yet told of. */
export interface OwnEntry {
  entry: FactEntry;
  kitchenId: string;
  batchId: string;
}

/** A batch's record as it was folded last, and from which entries of this device beside it. */
interface Folded extends Assessment {
  key: string;
  events: BatchEvent[];
  summary: BatchSummary | null;
}
const made = new WeakMap<BatchView, Folded>();

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

/**
 * Where a batch stands, by its record and by what this device still has to say, with the entries it was folded from.
 * Rail, Today and the batch itself ask for the same: it is folded once.
 */
export function assessed(view: BatchView, own: readonly OwnEntry[]): Folded {
  const key = own.map(w => w.entry.id).join(' ');
  const known = made.get(view);
  if (known?.key === key) return known;
  const events = own.length > 0 ? entriesOf(view, own) : view.events;
  const folded: Folded = { key, events, ...assess(events), summary: null };
  made.set(view, folded);
  return folded;
}

/** A batch as lists show it, by its record and by what this device still has to say. */
export function summaryOf(view: BatchView, own: readonly OwnEntry[]): BatchSummary {
  const folded = assessed(view, own);
  return (folded.summary ??= summarise(folded));
}
