import type { FactEntry } from '@cocotte/contract';
import type { BatchEvent, SequencedEvent } from '@cocotte/core/batches';
import { type Running, assess, summarise } from '@cocotte/core/checks';

/** An entry of this device that the server has not got, or not yet told of. */
export interface OwnEntry {
  entry: FactEntry;
  kitchenId: string;
  batchId: string;
}

/** What runs of a batch, by its record and by what this device still has to say. */
export function runningOf(events: readonly SequencedEvent[], own: readonly OwnEntry[]): Running[] {
  const waiting = own.map(
    ({ entry, kitchenId, batchId }) => ({ ...entry, kitchenId, batchId, receipt: null }) as BatchEvent,
  );
  return summarise(assess([...events, ...waiting])).running;
}
