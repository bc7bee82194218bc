import { createContext, use, useSyncExternalStore } from 'react';
import { type DeviceTime, KitchenClock, type Offset } from './kitchen-clock.ts';

/** Where the next page finds how this device's clock lay to the kitchen's. */
const KEPT = 'cocotte.clock';
const TICK_MS = 500;
/** A measurement that nothing confirmed for so long is made anew. */
const STALE_MS = 10 * 60_000;

/** What this device's clocks show now. */
export const deviceTime = (): DeviceTime => ({ mono_ms: performance.now(), wall_ms: Date.now() });

function readKept(): Offset | null {
  try {
    const kept = JSON.parse(globalThis.localStorage?.getItem(KEPT) ?? 'null') as Partial<Offset> | null;
    return Number.isFinite(kept?.offset_ms) && Number.isFinite(kept?.measuredAt_ms) ? (kept as Offset) : null;
  } catch {
    return null;
  }
}

/** The kitchen's time on this device: the server's clock, learned from every reply. */
const clock = new KitchenClock(readKept());
const listeners = new Set<() => void>();
let ticking: number | undefined;
let shown_ms = clock.now_ms(deviceTime());
let shownUnsure = false;
let asked: (() => void) | null = null;
let lastAsked_ms = -Infinity;

/** Learns from a reply as it comes in: the server's clock, read at some moment since it was asked. */
export function learnOffset(server_ms: number, sent: DeviceTime): void {
  clock.learn(server_ms, sent, deviceTime());
  try {
    localStorage.setItem(KEPT, JSON.stringify(clock.toKeep()));
  } catch {
    // A browser that keeps nothing learns it again.
  }
  tick();
}

/** Server minus device, and the age of that measurement. */
export const clockOffset = () => clock.offset(deviceTime());

/** The kitchen's now, in milliseconds since the epoch. */
export const kitchenNow = (): number => clock.now_ms(deviceTime());

/** Says how the server is asked for its clock when the device slept, its clock was set, or a measurement grew old. */
export function askingBy(ask: () => void): void {
  asked = ask;
}

function tick(): void {
  const now = deviceTime();
  const unsure = clock.isUnsure(now);
  const { age_ms } = clock.offset(now);
  const wants = unsure ? 5000 : age_ms === null || age_ms > STALE_MS ? 60_000 : Infinity;
  if (now.mono_ms - lastAsked_ms > wants) {
    lastAsked_ms = now.mono_ms;
    asked?.();
  }
  const now_ms = clock.now_ms(now);
  // A new measurement of the offset moves it by milliseconds: not worth telling.
  if (Math.abs(now_ms - shown_ms) < 200 && unsure === shownUnsure) return;
  shown_ms = now_ms;
  shownUnsure = unsure;
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  tick();
  ticking ??= window.setInterval(tick, TICK_MS);
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0) {
      window.clearInterval(ticking);
      ticking = undefined;
    }
  };
}

/** A clock that views live by. */
export interface Clock {
  subscribe: (listener: () => void) => () => void;
  /** As it was told last, twice a second. */
  shown_ms: () => number;
  /** At this very moment. */
  now_ms: () => number;
}

/** By which clock the views below live: the kitchen's, but for a rehearsal. */
export const ClockContext = createContext<Clock>({ subscribe, shown_ms: () => shown_ms, now_ms: kitchenNow });

/** The now of this view, told again twice a second. */
export const useNow = (): number => {
  const by = use(ClockContext);
  return useSyncExternalStore(by.subscribe, by.shown_ms);
};

/** What tells the now of this view at any moment. */
export const useClock = (): (() => number) => use(ClockContext).now_ms;

/** Whether this device slept, or its clock was set, and the kitchen has not been asked since. */
export const useUnsureClock = (): boolean => useSyncExternalStore(subscribe, () => shownUnsure);
