import { type FactEntry, appendFacts } from '@cocotte/contract';
import { RECORD_SHAPE } from '@cocotte/core/batches';
import type { Fault } from '@cocotte/core/measure';
import { CallError, call, faultsOf } from '../shell/call.ts';
import { misread } from '../words/index.ts';
import * as store from './store.ts';
import type { DeviceCount, Waiting } from './store.ts';

/**
 * The one queue through which every batch entry goes, also when online. It lies in IndexedDB, so that a reload, a lost
 * connection or a closed tab loses nothing; one tab delivers (Web Locks), the others watch. A delivery names the person
 * and the kitchen it was made for; only what the server answers of an entry itself refuses it, all else waits.
 */
export interface OutboxView {
  waiting: readonly Waiting[];
  /** Delivered in this tab a moment ago: shown until the batch that is read back holds them. */
  sent: readonly Waiting[];
  /** The last try found nobody. */
  away: boolean;
  /** What was entered and could neither be kept nor sent: it is to be entered again. */
  unkept: readonly Fault[];
  /** What the server said of a whole delivery it would not take just now; empty for none. */
  stalled: readonly Fault[];
}

const NEWS = 'cocotte-outbox';
const LOCK = 'cocotte-outbox-delivery';
const PAUSE_MS = { first: 800, longest: 5000 };
const AT_ONCE = 100;
const SENT_KEPT = 300;

let view: OutboxView = { waiting: [], sent: [], away: false, unkept: [], stalled: [] };
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
  // What somebody else entered here and is not delivered waits for them, unseen.
  // Where nothing can be kept, nothing waits.
  const all = await store.waiting().catch(() => []);
  show({ waiting: all.filter(w => w.entry.personId === who?.personId) });
}

async function changed(): Promise<void> {
  await reload();
  news?.postMessage('');
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

  /**
   * Makes entries, keeps them and sets out to deliver them. Resolves once they are kept; where the browser keeps nothing
   * they go straight to the server, and null says that they did not get there either.
   */
  async add(
    kitchenId: string,
    batchId: string,
    makers: readonly ((device: DeviceCount) => FactEntry)[],
  ): Promise<FactEntry[] | null> {
    let entries: FactEntry[];
    try {
      entries = await store.keep(kitchenId, batchId, makers);
    } catch {
      return straight(kitchenId, batchId, makers);
    }
    await changed();
    void deliver();
    return entries;
  },

  /** What could not be kept was read. */
  readUnkept: (): void => show({ unkept: [] }),

  /** Lets go of an entry that the server refused. */
  async discard(key: number): Promise<void> {
    await store.settle([key], []);
    await changed();
  },

  /** Tries again now. */
  deliver: () => void deliver(),
};

/** Sends entries that cannot be kept: they arrive now, or whoever entered them is told. */
async function straight(
  kitchenId: string,
  batchId: string,
  makers: readonly ((device: DeviceCount) => FactEntry)[],
): Promise<FactEntry[] | null> {
  const entries = makers.map(make => make(store.countUnkept()));
  try {
    const { answers } = await call(appendFacts, {
      params: { batchId },
      body: deliveryOf(kitchenId, entries),
      kitchenId,
    });
    const kept = new Set(answers.filter(a => a.outcome === 'kept').map(a => a.id));
    const taken = entries.filter(e => kept.has(e.id));
    const now = taken.map(entry => ({ key: -1, kitchenId, batchId, entry, refused: null }));
    show({ sent: [...view.sent, ...now].slice(-SENT_KEPT), unkept: answers.flatMap(a => a.faults) });
    delivered(batchId);
    return taken.length === entries.length ? entries : null;
  } catch (error) {
    show({ unkept: [misread('not-kept').fault, ...faultsOf(error)] });
    return null;
  }
}

/** A delivery of entries that were made in one kitchen by one person. */
const deliveryOf = (kitchenId: string, events: FactEntry[]) => ({
  personId: (events[0] as FactEntry).personId,
  kitchenId,
  sentAt: new Date().toISOString(),
  recordShape: RECORD_SHAPE,
  events,
});

async function deliver(): Promise<void> {
  if (delivering) return;
  delivering = true;
  let signedOut = false;
  const all = async () => {
    signedOut = await run();
  };
  try {
    // Web Locks need a protected page; without them this tab delivers alone, and the server takes each entry once.
    if (navigator.locks) await navigator.locks.request(LOCK, all);
    else await all();
  } finally {
    delivering = false;
  }
  // What was added in the last moment of it; for somebody who is signed out it waits until they are back.
  if (!signedOut && mine().length > 0) void deliver();
}

/** Entries of whoever is signed in, in whichever of their kitchens: each is sent to the kitchen it was made in. */
const mine = () => view.waiting.filter(w => !w.refused);

/** @returns whether it ended because nobody is signed in */
async function run(): Promise<boolean> {
  let pause_ms = PAUSE_MS.first;
  for (;;) {
    await reload();
    const batches = [...new Set(mine().map(w => w.batchId))];
    if (batches.length === 0) return false;
    let waits = false;
    // A batch that cannot be delivered just now does not hold the others.
    for (const batchId of batches) {
      const outcome = await deliverOf(batchId);
      if (outcome === 'signed out') return true;
      if (outcome === 'waits') waits = true;
      if (view.away) break;
    }
    if (!waits) {
      pause_ms = PAUSE_MS.first;
      continue;
    }
    await new Promise(resolve => setTimeout(resolve, pause_ms));
    pause_ms = Math.min(PAUSE_MS.longest, pause_ms * 1.7);
  }
}

/** Delivers what waits of one batch, up to a hundred entries. */
async function deliverOf(batchId: string): Promise<'taken' | 'waits' | 'signed out'> {
  const [first] = mine().filter(w => w.batchId === batchId);
  if (!first) return 'taken';
  const group = mine()
    .filter(w => w.batchId === batchId && w.kitchenId === first.kitchenId)
    .slice(0, AT_ONCE);
  try {
    const { answers } = await call(appendFacts, {
      params: { batchId },
      body: deliveryOf(
        first.kitchenId,
        group.map(w => w.entry),
      ),
      kitchenId: first.kitchenId,
      once: true,
    });
    const outcome = new Map(answers.map(a => [a.id, a]));
    const taken = group.filter(w => outcome.get(w.entry.id)?.outcome === 'kept');
    const refused = group.flatMap(w => {
      const answer = outcome.get(w.entry.id);
      return answer?.outcome === 'refused' ? [{ ...w, refused: answer.faults }] : [];
    });
    show({ sent: [...view.sent, ...taken].slice(-SENT_KEPT), away: false, stalled: [] });
    await store.settle(
      taken.map(w => w.key),
      refused,
    );
    await changed();
    delivered(batchId);
    return taken.length + refused.length > 0 ? 'taken' : 'waits';
  } catch (error) {
    const away = !(error instanceof CallError) || error.away;
    show({ away, stalled: away ? view.stalled : faultsOf(error) });
    return error instanceof CallError && error.status === 401 ? 'signed out' : 'waits';
  }
}
