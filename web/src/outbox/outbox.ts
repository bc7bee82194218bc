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
/** What the server says where it takes nothing of a person from this device: what they entered waits for them. */
const NOT_HERE = new Set(['sign-in', 'not-here', 'no-kitchen']);

let view: OutboxView = { waiting: [], sent: [], away: false, unkept: [], stalled: [] };
const listeners = new Set<() => void>();
const news = 'BroadcastChannel' in globalThis ? new BroadcastChannel(NEWS) : null;
/** Who stands at this device: what they entered is seen. What others left here is delivered unseen. */
let present: readonly string[] = [];
/** Everything that waits here, of whomever. */
let all: readonly Waiting[] = [];
let delivered: (batchId: string) => void = () => undefined;
let delivering = false;

function show(next: Partial<OutboxView>): void {
  view = { ...view, ...next };
  for (const listener of listeners) listener();
}

async function reload(): Promise<void> {
  // Where nothing can be kept, nothing waits.
  showAll(await store.waiting().catch(() => []));
}

function showAll(now: readonly Waiting[]): void {
  all = now;
  show({ waiting: all.filter(w => present.includes(w.entry.personId)) });
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

  /** Says who stands at this device and what to do once a batch's entries have arrived. */
  async open(people: readonly string[], onDelivered: (batchId: string) => void): Promise<void> {
    present = people;
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
    let kept: Waiting[];
    try {
      kept = await store.keep(kitchenId, batchId, makers);
    } catch {
      return straight(kitchenId, batchId, makers);
    }
    showAll([...all, ...kept]);
    news?.postMessage('');
    void deliver();
    return kept.map(w => w.entry);
  },

  /**
   * Enters what its person answers for by a PIN: it goes straight to the kitchen, which alone knows the PIN.
   *
   * @returns what is wrong; nothing where it was taken
   */
  async sign(
    kitchenId: string,
    batchId: string,
    makers: readonly ((device: DeviceCount) => FactEntry)[],
  ): Promise<Fault[]> {
    const entries: FactEntry[] = [];
    // oxlint-disable-next-line no-await-in-loop -- each count is drawn after the one before
    for (const make of makers) entries.push(make(await store.draw()));
    try {
      return (await send(kitchenId, batchId, entries, '')).faults;
    } catch (error) {
      return error instanceof CallError && error.away ? [misread('not-signed').fault] : faultsOf(error);
    }
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
    const { taken, faults } = await send(kitchenId, batchId, entries);
    show({ unkept: faults });
    return taken.length === entries.length ? entries : null;
  } catch (error) {
    show({ unkept: [misread('not-kept').fault, ...faultsOf(error)] });
    return null;
  }
}

/** Sends entries now, and shows those that were taken until the record that is read back holds them. */
async function send(kitchenId: string, batchId: string, entries: FactEntry[], pin?: string) {
  const { answers } = await call(appendFacts, {
    params: { batchId },
    body: deliveryOf(kitchenId, entries),
    kitchenId,
    personId: personOf(entries),
    ...(pin === undefined ? {} : { pin }),
  });
  const kept = new Set(answers.filter(a => a.outcome === 'kept').map(a => a.id));
  const taken = entries.filter(e => kept.has(e.id));
  const now = taken.map(entry => ({ key: -1, kitchenId, batchId, entry, refused: null }));
  show({ sent: [...view.sent, ...now].slice(-SENT_KEPT) });
  delivered(batchId);
  return { taken, faults: answers.flatMap(a => a.faults) };
}

const personOf = (entries: readonly FactEntry[]): string => (entries[0] as FactEntry).personId;

/** A delivery of entries that were made in one kitchen by one person. */
const deliveryOf = (kitchenId: string, events: FactEntry[]) => ({
  personId: personOf(events),
  kitchenId,
  sentAt: new Date().toISOString(),
  recordShape: RECORD_SHAPE,
  events,
});

/** Was asked for while a delivery ran: it looks once more at what had to wait for its person. */
let again = false;

async function deliver(): Promise<void> {
  again = true;
  if (delivering) return;
  delivering = true;
  try {
    while (again) {
      again = false;
      // Web Locks need a protected page; without them this tab delivers alone, and the server takes each entry once.
      if (navigator.locks) await navigator.locks.request(LOCK, run);
      else await run();
    }
  } finally {
    delivering = false;
  }
}

/** Entries that may be delivered, by batch, kitchen and person: each is sent to the kitchen it was made in, for whoever made it. */
function groups(): Map<string, Waiting[]> {
  const out = new Map<string, Waiting[]>();
  for (const w of all) {
    if (w.refused) continue;
    const key = `${w.batchId} ${w.kitchenId} ${w.entry.personId}`;
    out.set(key, [...(out.get(key) ?? []), w]);
  }
  return out;
}

/** Delivers until nothing is left but what waits for its person. */
async function run(): Promise<void> {
  let pause_ms = PAUSE_MS.first;
  /** For whom this device may not deliver just now: what they entered waits until they are back. */
  const missing = new Set<string>();
  for (;;) {
    await reload();
    const ready = [...groups().values()].filter(g => !missing.has(personOf(g.map(w => w.entry))));
    if (ready.length === 0) return;
    let waits = false;
    // A batch that cannot be delivered just now does not hold the others.
    for (const group of ready) {
      const outcome = await deliverOf(group.slice(0, AT_ONCE));
      if (outcome === 'not here') missing.add(personOf(group.map(w => w.entry)));
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

/** Delivers entries of one batch by one person. */
async function deliverOf(group: Waiting[]): Promise<'taken' | 'waits' | 'not here'> {
  const [first] = group;
  if (!first) return 'taken';
  const { batchId, kitchenId } = first;
  const { personId } = first.entry;
  const seen = present.includes(personId);
  try {
    const { answers } = await call(appendFacts, {
      params: { batchId },
      body: deliveryOf(
        kitchenId,
        group.map(w => w.entry),
      ),
      kitchenId,
      personId,
      once: true,
    });
    const outcome = new Map(answers.map(a => [a.id, a]));
    const taken = group.filter(w => outcome.get(w.entry.id)?.outcome === 'kept');
    const refused = group.flatMap(w => {
      const answer = outcome.get(w.entry.id);
      return answer?.outcome === 'refused' ? [{ ...w, refused: answer.faults }] : [];
    });
    show({ sent: [...view.sent, ...(seen ? taken : [])].slice(-SENT_KEPT), away: false, stalled: [] });
    await store.settle(
      taken.map(w => w.key),
      refused,
    );
    await changed();
    delivered(batchId);
    return taken.length + refused.length > 0 ? 'taken' : 'waits';
  } catch (error) {
    const away = !(error instanceof CallError) || error.away;
    const notHere = error instanceof CallError && NOT_HERE.has(error.code);
    show({ away, stalled: away || notHere || !seen ? view.stalled : faultsOf(error) });
    return notHere ? 'not here' : 'waits';
  }
}
