import type { AtCounter, SessionView } from '@cocotte/contract';

/**
 * Who acts at this device, where several people signed in on it: whoever was tapped last, in every tab, also without a
 * connection. Null for whoever is signed in.
 */
const KEY = 'cocotte.acting';
const listeners = new Set<() => void>();

/** Who was tapped last; null for whoever is signed in. */
export function actingId(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Somebody takes over. */
export function act(personId: string | null): void {
  if (personId === null) localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, personId);
  for (const listener of listeners) listener();
}

/** Hears when somebody takes over, in whichever tab. */
export function onActing(listener: () => void): () => void {
  const heard = (e: StorageEvent) => (e.key === KEY || e.key === null) && listener();
  listeners.add(listener);
  window.addEventListener('storage', heard);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', heard);
  };
}

/** Who uses this device in a kitchen, whoever is signed in among them. */
export const counterOf = (session: SessionView, kitchenId: string): AtCounter[] =>
  session.counter.filter(c => c.kitchenId === kitchenId);
