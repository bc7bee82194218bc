import type { BatchView } from '@cocotte/contract';
import type { SequencedEvent } from '@cocotte/core/batches';
import { type DBSchema, type IDBPDatabase, deleteDB, openDB } from 'idb';

/** What is known of a batch beside its entries. */
interface BatchHead {
  id: string;
  people: Record<string, string>;
  lastSeq: number;
}
interface Schema extends DBSchema {
  events: { key: number; value: SequencedEvent; indexes: { batch: string } };
  batches: { key: string; value: BatchHead };
  /** Replies as they were last seen, by their address. */
  replies: { key: string; value: { at_ms: number; reply: unknown } };
  /** How far the kitchen's record is held. */
  reach: { key: string; value: number };
}
const REACH = 'seq';
const MOST_REPLIES = 400;
const PREFIX = 'cocotte-kept ';

/** What this device keeps of a kitchen for one person. Each kitchen and person has a database of its own. */
export class DeviceStore {
  private constructor(
    private readonly db: IDBPDatabase<Schema>,
    readonly name: string,
  ) {}

  /** @throws where the browser lets nothing be kept */
  static async open(kitchenId: string, personId: string): Promise<DeviceStore> {
    const name = `${PREFIX}${kitchenId} ${personId}`;
    const db = await openDB<Schema>(name, 1, {
      upgrade(made) {
        made.createObjectStore('events', { keyPath: 'receipt.seq' }).createIndex('batch', 'batchId');
        made.createObjectStore('batches', { keyPath: 'id' });
        made.createObjectStore('replies');
        made.createObjectStore('reach');
      },
      // Signing out in another tab erases it: this one lets go, and what comes late is not written.
      blocking: (_was, _wanted, event) => (event.target as IDBDatabase).close(),
    });
    askToKeep();
    return new DeviceStore(db, name);
  }

  /** Every batch that is kept, with its entries, and how far the record is held; null before anything was read. */
  async readAll(): Promise<{ views: BatchView[]; seq: number | null }> {
    const tx = this.db.transaction(['events', 'batches', 'reach']);
    const [heads, events, seq] = await Promise.all([
      tx.objectStore('batches').getAll(),
      tx.objectStore('events').getAll(),
      tx.objectStore('reach').get(REACH),
    ]);
    const byBatch = new Map<string, SequencedEvent[]>(heads.map(h => [h.id, []]));
    for (const event of events) byBatch.get(event.batchId)?.push(event);
    return {
      views: heads.map(head => ({ ...head, events: byBatch.get(head.id) ?? [] })),
      seq: seq ?? null,
    };
  }

  /** One batch as it is kept. */
  async read(batchId: string): Promise<BatchView | null> {
    const tx = this.db.transaction(['events', 'batches']);
    const [head, events] = await Promise.all([
      tx.objectStore('batches').get(batchId),
      tx.objectStore('events').index('batch').getAll(batchId),
    ]);
    return head ? { ...head, events } : null;
  }

  /**
   * Keeps batches, and how far the record is held, in one transaction. What is kept already and newer stays.
   *
   * @param seq  null leaves it as it was
   */
  async keep(views: readonly BatchView[], seq: number | null): Promise<void> {
    const tx = this.db.transaction(['events', 'batches', 'reach'], 'readwrite');
    for (const { events, ...head } of views) {
      const before = await tx.objectStore('batches').get(head.id);
      if (before && before.lastSeq >= head.lastSeq) continue;
      for (const event of events)
        if (event.receipt.seq > (before?.lastSeq ?? 0)) void tx.objectStore('events').put(event);
      void tx.objectStore('batches').put(head);
    }
    const reached = (await tx.objectStore('reach').get(REACH)) ?? -1;
    if (seq !== null && seq > reached) void tx.objectStore('reach').put(seq, REACH);
    await tx.done;
  }

  /** Lets go of batches. */
  async drop(batchIds: readonly string[]): Promise<void> {
    const tx = this.db.transaction(['events', 'batches'], 'readwrite');
    for (const id of batchIds) {
      for (const key of await tx.objectStore('events').index('batch').getAllKeys(id))
        void tx.objectStore('events').delete(key);
      void tx.objectStore('batches').delete(id);
    }
    await tx.done;
  }

  /** Keeps a reply; beyond so many those not seen for longest go. */
  async keepReply(address: string, reply: unknown, at_ms: number): Promise<void> {
    const tx = this.db.transaction('replies', 'readwrite');
    void tx.store.put({ at_ms, reply }, address);
    if ((await tx.store.count()) > MOST_REPLIES) {
      const keys = await tx.store.getAllKeys();
      const ages = (await tx.store.getAll()).map((r, i) => [r.at_ms, keys[i]] as [number, string]);
      for (const [, key] of ages.sort((a, b) => a[0] - b[0]).slice(0, MOST_REPLIES / 4))
        void tx.store.delete(key);
    }
    await tx.done;
  }

  /** A reply as it was last seen. */
  async readReply(address: string): Promise<unknown> {
    return (await this.db.get('replies', address))?.reply;
  }

  close(): void {
    this.db.close();
  }
}

let asked = false;
/** Asks the browser, once a page, not to throw away what is kept when its disk is short. It may say no. */
function askToKeep(): void {
  const { storage } = navigator as Partial<Navigator>;
  if (asked || !storage?.persist) return;
  asked = true;
  storage
    .persisted()
    .then(already => already || storage.persist())
    .catch(() => undefined);
}

/** Erases what this device keeps of every kitchen, for whoever it was kept, or for one person. */
export async function eraseKept(personId = ''): Promise<void> {
  const all = (await indexedDB.databases?.()) ?? [];
  await Promise.all(
    all.flatMap(({ name }) => (name?.startsWith(PREFIX) && name.endsWith(personId) ? [deleteDB(name)] : [])),
  );
}
