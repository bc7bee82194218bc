import { type FactEntry, appendFacts } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { CallError, call } from '../shell/call.ts';

/**
 * The one queue through which every batch entry goes, also when online. It lies in IndexedDB, so that a reload, a lost
 * connection or a closed tab loses nothing; one tab delivers (Web Locks), the others watch.
 */
export interface Waiting {
  key: number;
  kitchenId: string;
  batchId: string;
  entry: FactEntry;
  /** Set when the server refused it for good. */
  refused: Fault[] | null;
}

interface Schema extends DBSchema {
  entries: { key: number; value: Omit<Waiting, 'key'> & { key?: number } };
}

export interface OutboxView {
  waiting: readonly Waiting[];
  /** Delivered in this tab a moment ago: shown until the batch that is read back holds them. */
  sent: readonly Waiting[];
  /** The last try found nobody. */
  away: boolean;
}

const NEWS = 'cocotte-outbox';
const LOCK = 'cocotte-outbox-delivery';
const PAUSE_MS = { first: 800, longest: 5000 };
const AT_ONCE = 100;
const SENT_KEPT = 300;

let opened: Promise<IDBPDatabase<Schema>> | null = null;
const database = () =>
  (opened ??= openDB<Schema>('cocotte', 1, {
    upgrade: db => void db.createObjectStore('entries', { keyPath: 'key', autoIncrement: true }),
  }));

let view: OutboxView = { waiting: [], sent: [], away: false };
const listeners = new Set<() => void>();
const news = 'BroadcastChannel' in globalThis ? new BroadcastChannel(NEWS) : null;
let who: { personId: string } | null = null;
let delivered: (batchId: string) => void = () => undefined;
let delivering = false;

function show(next: Partial<OutboxView>): void {
  view = { ...view, ...next };
  for (const listener of listeners) listener();
}

async function reload(): Promise<void> {
  const all = await (await database()).getAll('entries');
  show({ waiting: all as Waiting[] });
}

news?.addEventListener('message', () => void reload());

export const outbox = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },

  view: (): OutboxView => view,

  /** Says who is signed in and what to do once a batch's entries have arrived. */
  async open(person: { personId: string }, onDelivered: (batchId: string) => void): Promise<void> {
    who = person;
    delivered = onDelivered;
    await reload();
    void deliver();
  },

  /** Keeps entries and sets out to deliver them. Resolves once they are kept. */
  async add(kitchenId: string, batchId: string, entries: FactEntry[]): Promise<void> {
    const tx = (await database()).transaction('entries', 'readwrite');
    for (const entry of entries) void tx.store.add({ kitchenId, batchId, entry, refused: null });
    await tx.done;
    await reload();
    news?.postMessage('');
    void deliver();
  },

  /** Lets go of an entry that the server refused. */
  async discard(key: number): Promise<void> {
    await (await database()).delete('entries', key);
    await reload();
    news?.postMessage('');
  },

  /** Tries again now. */
  deliver: () => void deliver(),
};

async function deliver(): Promise<void> {
  if (delivering) return;
  delivering = true;
  try {
    // Web Locks need a protected page; without them this tab delivers alone, and the server takes each entry once.
    if (navigator.locks) await navigator.locks.request(LOCK, run);
    else await run();
  } finally {
    delivering = false;
  }
  if (mine().length > 0) void deliver();
}

/** Entries of whoever is signed in, in whichever of their kitchens: each is sent to the kitchen it was made in. */
const mine = () => view.waiting.filter(w => !w.refused && w.entry.personId === who?.personId);

async function run(): Promise<void> {
  let pause_ms = PAUSE_MS.first;
  for (;;) {
    await reload();
    const first = mine()[0];
    if (!first) return;
    const group = mine()
      .filter(w => w.batchId === first.batchId)
      .slice(0, AT_ONCE);
    try {
      await call(appendFacts, {
        params: { batchId: first.batchId },
        body: { events: group.map(w => w.entry) },
        kitchenId: first.kitchenId,
        once: true,
      });
      await drop(group);
      show({ away: false });
      delivered(first.batchId);
      pause_ms = PAUSE_MS.first;
    } catch (error) {
      if (isForGood(error)) {
        // One bad entry must not hold the others: alone it is marked, in company they go one by one.
        for (const one of group) await deliverAlone(one);
        delivered(first.batchId);
      } else {
        show({ away: true });
        await new Promise(resolve => setTimeout(resolve, pause_ms));
        pause_ms = Math.min(PAUSE_MS.longest, pause_ms * 1.7);
        if (error instanceof CallError && error.status === 401) return;
      }
    }
  }
}

/** Refused whatever is tried again: not signed in, too many at once and a server that broke are no such thing. */
const isForGood = (error: unknown): error is CallError =>
  error instanceof CallError &&
  !error.away &&
  error.status !== 401 &&
  error.status !== 408 &&
  error.status !== 429 &&
  error.status < 500;

async function deliverAlone(one: Waiting): Promise<void> {
  try {
    await call(appendFacts, {
      params: { batchId: one.batchId },
      body: { events: [one.entry] },
      kitchenId: one.kitchenId,
      once: true,
    });
    await drop([one]);
  } catch (error) {
    if (!isForGood(error)) return;
    await (await database()).put('entries', { ...one, refused: error.faults });
    await reload();
    news?.postMessage('');
  }
}

async function drop(entries: Waiting[]): Promise<void> {
  show({ sent: [...view.sent, ...entries].slice(-SENT_KEPT) });
  const tx = (await database()).transaction('entries', 'readwrite');
  for (const { key } of entries) void tx.store.delete(key);
  await tx.done;
  await reload();
  news?.postMessage('');
}
