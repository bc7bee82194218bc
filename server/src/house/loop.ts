import { monitorEventLoopDelay } from 'node:perf_hooks';

const RESOLUTION_MS = 10;

/**
 * Watches how long anything holds the event loop, and with it every other call.
 *
 * @returns the longest since it was last asked, in milliseconds
 */
export function watchLoop(): () => number {
  const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
  delay.enable();
  return () => {
    const held_ms = Math.max(0, delay.max / 1e6 - RESOLUTION_MS);
    delay.reset();
    return Number.isFinite(held_ms) ? Math.round(held_ms * 10) / 10 : 0;
  };
}
