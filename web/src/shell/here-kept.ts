import { CallError } from './call.ts';

/** Session and kitchen as they were last read, so that the page opens where the kitchen cannot be reached. */
const KEPT = 'cocotte.here';
/** Asked for again so often while only what is kept is known. */
const AGAIN_MS = 5000;
/** What belongs to the device and not to whoever uses it: it stays when somebody signs out. */
const OF_THE_DEVICE = new Set(['cocotte.clock', 'cocotte.device', 'cocotte.counter', 'cocotte.keys-off']);

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
  const key = `${KEPT}.${what}`;
  try {
    const told = await ask();
    try {
      // What comes after signing out is not written back.
      if (forgotten || !worth(told)) localStorage.removeItem(key);
      else localStorage.setItem(key, JSON.stringify(told));
    } catch {
      // A browser that keeps nothing opens no page without the kitchen.
    }
    return told;
  } catch (error) {
    const text = error instanceof CallError && error.away ? localStorage.getItem(key) : null;
    if (text === null) throw error;
    const kept = JSON.parse(text) as T;
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
