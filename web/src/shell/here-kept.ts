import { type IDBPDatabase, deleteDB, openDB } from 'idb';
import { CallError } from './call.ts';

/**
 * Session and kitchen as they were last read, so that the page opens where the kitchen cannot be reached. In IndexedDB: a
 * browser writes its local storage down only now and then, and one that is killed forgets what it had not written.
 */
const KEPT = 'cocotte-kept here';
const TOLD = 'told';
let opened: Promise<IDBPDatabase> | null = null;
const database = (): Promise<IDBPDatabase> =>
  (opened ??= openDB(KEPT, 1, {
    upgrade: db => void db.createObjectStore(TOLD),
    // Signing out in another tab erases it: this one lets go.
    blocking: (_was, _wanted, event) => (event.target as IDBDatabase).close(),
  }));
/** Asked for again so often while only what is kept is known. */
const AGAIN_MS = 5000;
/** What belongs to the device and not to whoever uses it: it stays when somebody signs out. */
const OF_THE_DEVICE = new Set(['cocotte.clock', 'cocotte.device', 'cocotte.counter', 'cocotte.keys-off']);

async function keep(what: string, told: object): Promise<void> {
  await (await database()).put(TOLD, told, what);
}

/** Nobody is here: nothing is known of whoever was. */
async function forget(): Promise<void> {
  const db = await opened?.catch(() => null);
  db?.close();
  opened = null;
  await deleteDB(KEPT);
}

const isKept = new WeakSet<object>();
let forgotten = false;

/**
 * Reads, and keeps what was told; where nobody answers, gives what was told last.
 *
 * @param worth  whether it is worth keeping; what was kept goes where it is not
 */
export async function orKept<T extends object>(
  what: string,
  ask: () => Promise<T>,
  worth: (told: T) => boolean = () => true,
): Promise<T> {
  try {
    const told = await ask();
    // What comes after signing out is not written back. A browser that keeps nothing opens no page without the kitchen.
    if (!forgotten) void (worth(told) ? keep(what, told) : forget()).catch(() => undefined);
    return told;
  } catch (error) {
    const kept =
      error instanceof CallError && error.away
        ? ((await database()
            .then(db => db.get(TOLD, what))
            .catch(() => undefined)) as T | undefined)
        : undefined;
    if (kept === undefined) throw error;
    isKept.add(kept);
    return kept;
  }
}

/** How often a query asks again: only while what it shows is what was kept. */
export const whileKept = ({ state }: { state: { data?: object | undefined } }): number | false =>
  state.data && isKept.has(state.data) ? AGAIN_MS : false;

const news = 'BroadcastChannel' in globalThis ? new BroadcastChannel('cocotte-people') : null;
// Somebody signed out, in, or went to sign in as another in a tab beside: this one begins again, and finds who is here.
news?.addEventListener('message', () => window.location.assign('/'));

/** Forgets, in this tab and for good, what this device kept of whoever was here: drafts, lists, session. */
export function forgetHere(): void {
  forgotten = true;
  for (const store of [localStorage, sessionStorage])
    for (const key of Object.keys(store))
      if (key.startsWith('cocotte') && !OF_THE_DEVICE.has(key)) store.removeItem(key);
}

/** Tells the tabs beside this one that somebody else, or nobody, is signed in now. */
export const tellOthers = (): void => news?.postMessage('');
