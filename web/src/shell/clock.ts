import { useSyncExternalStore } from 'react';

/** The kitchen's time on this device: the server's clock, learned from every reply. */
let offset_ms: number | null = null;
let measured_at: number | null = null;

const listeners = new Set<() => void>();
let ticking: number | undefined;
let shown_ms = Date.now();

/** Learns the offset from a reply: the server's clock against the middle of the call. */
export function learnOffset(server_ms: number, sent_ms: number, received_ms: number): void {
  offset_ms = Math.round(server_ms - (sent_ms + received_ms) / 2);
  measured_at = performance.now();
  tick();
}

/** Server minus device, and the age of that measurement. */
export function clockOffset(): { offset_ms: number | null; age_ms: number | null } {
  return { offset_ms, age_ms: measured_at === null ? null : Math.round(performance.now() - measured_at) };
}

/** The kitchen's now, in milliseconds since the epoch. */
export function kitchenNow(): number {
  return Date.now() + (offset_ms ?? 0);
}

function tick(): void {
  const now = kitchenNow();
  // A new measurement of the offset moves it by milliseconds: not worth telling.
  if (Math.abs(now - shown_ms) < 200) return;
  shown_ms = now;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  tick();
  ticking ??= window.setInterval(tick, 500);
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
