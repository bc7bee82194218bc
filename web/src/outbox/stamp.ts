import { type EventType, type Stamp, VERSIONS } from '@cocotte/core/batches';
import { v7 } from 'uuid';
import { clockOffset } from '../shell/clock.ts';
import type { DeviceCount } from './store.ts';

/** Names this page session: the monotonic clock is compared only within one. */
const pageSessionId = v7();

/**
 * The envelope of an entry made now on this device.
 *
 * @param of  kind of entry, written in the shape this build knows
 * @param personId  who makes it
 * @param typedAt_ms  when it happened, if typed in afterwards; null for now
 * @param basedOnSeq  the last entry this device had seen
 * @param device  this device, and the count drawn for the entry
 */
export function makeStamp(
  of: EventType,
  personId: string,
  typedAt_ms: number | null,
  basedOnSeq: number,
  device: DeviceCount,
): Stamp {
  const wallClock = new Date().toISOString();
  const { offset_ms, age_ms } = clockOffset();
  return {
    id: v7(),
    typeVersion: VERSIONS[of],
    personId,
    ...device,
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
