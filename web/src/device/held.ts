import type { BatchView, EventsPage } from '@cocotte/contract';
import type { SequencedEvent } from '@cocotte/core/batches';

/** Records of batches as this device holds them, by batch. A record that is held is whole up to some number. */
export type Held = ReadonlyMap<string, BatchView>;

/**
 * What is held with a newer reading of one batch: nothing older takes the place of what is newer.
 *
 * @returns the same map where nothing is new
 */
export function withView(held: Held, view: BatchView): Held {
  const before = held.get(view.id);
  return before && before.lastSeq >= view.lastSeq ? held : new Map(held).set(view.id, view);
}

/**
 * What is held with a page of the kitchen's record. Entries of a batch that is not held, and that does not begin in the
 * page, are nothing to go by: the batch is to be read whole.
 *
 * @returns what is held then, which batches have grown, and which are to be read
 */
export function withPage(held: Held, page: EventsPage): { held: Held; grown: string[]; unread: string[] } {
  const fresh = new Map<string, SequencedEvent[]>();
  for (const event of page.events) fresh.set(event.batchId, [...(fresh.get(event.batchId) ?? []), event]);
  const after = new Map(held);
  const grown: string[] = [];
  const unread: string[] = [];
  for (const [id, events] of fresh) {
    const before = held.get(id);
    if (!before && events[0]?.type !== 'batch.started') {
      unread.push(id);
      continue;
    }
    const lastSeq = before?.lastSeq ?? 0;
    const more = events.filter(e => e.receipt.seq > lastSeq);
    const last = more.at(-1);
    if (!last) continue;
    grown.push(id);
    after.set(id, {
      id,
      events: [...(before?.events ?? []), ...more],
      people: { ...before?.people, ...page.people },
      lastSeq: last.receipt.seq,
    });
  }
  return { held: grown.length > 0 ? after : held, grown, unread };
}
