import { useMemo, useSyncExternalStore } from 'react';

/** A timer of somebody's own, on this device: it is no entry of any record. */
export interface OwnTimer {
  id: string;
  name: string;
  /** Kitchen time. */
  since_ms: number;
  until_ms: number;
}

const keyOf = (kitchenId: string) => `cocotte.timers.${kitchenId}`;
const listeners = new Set<() => void>();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  // Another tab of this device set one, or stopped it.
  addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    removeEventListener('storage', listener);
  };
}

const textOf = (kitchenId: string) => localStorage.getItem(keyOf(kitchenId)) ?? '';

/** Timers that a text holds; none where it is no list of them. */
export function timersFrom(text: string): OwnTimer[] {
  try {
    const found = JSON.parse(text) as unknown;
    return Array.isArray(found)
      ? found.filter(
          (t): t is OwnTimer =>
            typeof t === 'object' && t !== null && 'id' in t && Number.isFinite((t as OwnTimer).until_ms),
        )
      : [];
  } catch {
    return [];
  }
}

/** Timers of this device in a kitchen. */
export function useTimers(kitchenId: string): OwnTimer[] {
  const text = useSyncExternalStore(subscribe, () => textOf(kitchenId));
  return useMemo(() => timersFrom(text), [text]);
}

/** Sets a timer, in the place of one with its id; null stops that one. */
export function setTimer(kitchenId: string, id: string, timer: OwnTimer | null): void {
  const others = timersFrom(textOf(kitchenId)).filter(t => t.id !== id);
  localStorage.setItem(keyOf(kitchenId), JSON.stringify(timer === null ? others : [...others, timer]));
  for (const listener of listeners) listener();
}
