import { useSyncExternalStore } from 'react';

/** The kitchen's time on this device: the server's clock, learned from every reply. */
let offset_ms: number | null = null;
let measured_at: number | null = null;

/** Learns the offset from a reply: the server's clock against the middle of the call. */
export function learnOffset(server_ms: number, sent_ms: number, received_ms: number): void {
  offset_ms = Math.round(server_ms - (sent_ms + received_ms) / 2);
  measured_at = performance.now();
}

/** Server minus device, and the age of that measurement. */
export function clockOffset(): { offset_ms: number | null; age_ms: number | null } {
  return { offset_ms, age_ms: measured_at === null ? null : Math.round(performance.now() - measured_at) };
}

/** The kitchen's now, in milliseconds since the epoch. */
export function kitchenNow(): number {
  return Date.now() + (offset_ms ?? 0);
}

const listeners = new Set<() => void>();
let ticking: number | undefined;
let shown_ms = kitchenNow();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  ticking ??= window.setInterval(() => {
    shown_ms = kitchenNow();
    for (const l of listeners) l();
  }, 500);
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0) {
      window.clearInterval(ticking);
      ticking = undefined;
    }
  };
}

/** The kitchen's now, told again twice a second. */
export function useNow(): number {
  return useSyncExternalStore(subscribe, () => shown_ms);
}
