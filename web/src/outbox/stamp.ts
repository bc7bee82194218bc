import type { Stamp } from '@cocotte/core/batches';
import { v7 } from 'uuid';
import { clockOffset } from '../shell/clock.ts';

const DEVICE = 'cocotte.device';
const COUNTER = 'cocotte.counter';

/** Names this page session: the monotonic clock is compared only within one. */
const pageSessionId = v7();

function deviceId(): string {
  const there = localStorage.getItem(DEVICE);
  if (there) return there;
  const made = v7();
  localStorage.setItem(DEVICE, made);
  return made;
}

function nextCounter(): number {
  const next = Number(localStorage.getItem(COUNTER) ?? '0') + 1;
  localStorage.setItem(COUNTER, String(next));
  return next;
}

/**
 * The envelope of an entry made now on this device.
 *
 * @param typedAt_ms  when it happened, if typed in afterwards; null for now
 * @param basedOnSeq  the last entry this device had seen
 */
export function makeStamp(personId: string, typedAt_ms: number | null, basedOnSeq: number): Stamp {
  const wallClock = new Date().toISOString();
  const { offset_ms, age_ms } = clockOffset();
  return {
    id: v7(),
    typeVersion: 1,
    personId,
    deviceId: deviceId(),
    deviceCounter: nextCounter(),
    wallClock,
    monotonic_ms: Math.round(performance.now() * 1000) / 1000,
    pageSessionId,
    clockOffset_ms: offset_ms,
    clockOffsetAge_ms: age_ms,
    occurredAt: typedAt_ms === null ? wallClock : new Date(typedAt_ms).toISOString(),
    typedInAfterwards: typedAt_ms !== null,
    basedOnSeq,
  };
}
