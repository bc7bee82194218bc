import { instantMs } from '../measure/index.ts';
import { type BatchEvent, isDecision } from './events.ts';
import type { Receipt, Stamp } from './stamp.ts';

/**
 * How an entry came to be known: *live* when it arrived as it happened, *queued* when its device sent it later and its
 * clock is known to have been right, *written up* when a person typed the time or nothing speaks for the clock, and
 * *waiting* while it is still on its device and proves nothing.
 */
export type Known = 'live' | 'queued' | 'written up' | 'waiting';

/** An entry with the instant it is taken to have happened. */
export interface PlacedEntry {
  event: BatchEvent;
  at_ms: number;
  known: Known;
  /**
   * Its time is not to be relied on: it was moved from where it cannot have been, or the clock jumped between stamping
   * and delivering.
   */
  doubtful: boolean;
  /** No earlier than this: its own instant, or where that is doubtful what its device had seen and made before. */
  earliest_ms: number;
  /** No later than this: its own instant, or where that is doubtful its arrival. */
  latest_ms: number;
}

/** An entry that arrived this soon after it happened was entered at the time. */
export const LIVE_WITHIN_MS = 120_000;
/** Two measures of one device's clock may differ by this much: what the way to the server takes. */
export const OFFSET_TOLERANCE_MS = 10_000;
/** A time that has to be moved by more than this is doubtful. */
export const MOVED_TOLERANCE_MS = 5000;
/** How long a measured offset is good for: a clock drifts by a second or two in a day. */
export const OFFSET_AGE_MS = 24 * 3_600_000;
/** No clock of ours shows another century, so an offset that large was not measured. */
const OFFSET_MOST_MS = 100 * 365.25 * 24 * 3_600_000;

/** The offset of a device's clock as it was when it stamped; null where it is unknown, stale or absurd: never zero. */
export function offsetAtStamping_ms(
  stamp: Pick<Stamp, 'clockOffset_ms' | 'clockOffsetAge_ms'>,
): number | null {
  const { clockOffset_ms: offset, clockOffsetAge_ms: age } = stamp;
  if (offset === null || age === null) return null;
  return age >= 0 && age <= OFFSET_AGE_MS && Math.abs(offset) <= OFFSET_MOST_MS ? offset : null;
}

/** The offset of a device's clock as it was when it delivered; null while it waits, or where nobody said. */
export function offsetAtDelivery_ms(receipt: Receipt | null): number | null {
  return receipt === null || receipt.sentAt === null
    ? null
    : instantMs(receipt.at) - instantMs(receipt.sentAt);
}

/** Whether the clock of an entry was measured twice, stamping and delivering, and went evenly in between. */
export function clockConfirmed(
  event: Pick<BatchEvent, 'receipt' | 'clockOffset_ms' | 'clockOffsetAge_ms'>,
): boolean {
  const stamping = offsetAtStamping_ms(event);
  const delivery = offsetAtDelivery_ms(event.receipt);
  return stamping !== null && delivery !== null && Math.abs(stamping - delivery) <= OFFSET_TOLERANCE_MS;
}

/** When an entry says it happened: as typed; a decision as it arrived; else by the device's clock, set right. */
function claimed_ms(event: BatchEvent): number {
  if (event.typedInAfterwards) return instantMs(event.occurredAt);
  if (event.receipt && isDecision(event.type)) return instantMs(event.receipt.at);
  const offset = offsetAtStamping_ms(event) ?? offsetAtDelivery_ms(event.receipt) ?? 0;
  return instantMs(event.wallClock) + offset;
}

/** Whether a device's clock went unevenly between stamping and delivering: it jumped, or was set. */
function jumped(event: BatchEvent): boolean {
  if (event.typedInAfterwards || isDecision(event.type)) return false;
  const stamping = offsetAtStamping_ms(event);
  const delivery = offsetAtDelivery_ms(event.receipt);
  return stamping !== null && delivery !== null && Math.abs(stamping - delivery) > OFFSET_TOLERANCE_MS;
}

/** Whether an entry waited on a device whose clock nobody had measured: how long it waited, only that clock says. */
const unmeasured = (event: BatchEvent, at_ms: number): boolean =>
  !event.typedInAfterwards &&
  !isDecision(event.type) &&
  event.receipt?.sentAt != null &&
  offsetAtStamping_ms(event) === null &&
  instantMs(event.receipt.at) - at_ms > LIVE_WITHIN_MS;

function knownHow(event: BatchEvent, at_ms: number, doubtful: boolean): Known {
  if (event.receipt === null) return 'waiting';
  if (event.typedInAfterwards || doubtful) return 'written up';
  if (!isDecision(event.type) && offsetAtStamping_ms(event) === null) return 'written up';
  return instantMs(event.receipt.at) - at_ms <= LIVE_WITHIN_MS ? 'live' : 'queued';
}

/**
 * The order of a record: by the instant it happened, then by the server's number, what waits last, then by the
 * device's own count.
 */
export function inOrder(
  a: Pick<PlacedEntry, 'event' | 'at_ms'>,
  b: Pick<PlacedEntry, 'event' | 'at_ms'>,
): number {
  return (
    a.at_ms - b.at_ms ||
    seqOf(a.event) - seqOf(b.event) ||
    a.event.deviceCounter - b.event.deviceCounter ||
    (a.event.id < b.event.id ? -1 : a.event.id > b.event.id ? 1 : 0)
  );
}

/** The server's number of an entry; past every number while it waits. */
export const seqOf = (event: Pick<BatchEvent, 'receipt'>): number =>
  event.receipt?.seq ?? Number.MAX_SAFE_INTEGER;

/**
 * Places every entry where it can have happened, and says how that is known. Depends on the set of entries and their
 * receipts alone: not on the order of delivery, nor on how often each came.
 *
 * Nothing happened after it arrived, or after a later entry of its device did; nothing that was not typed happened
 * before what its device had seen; and what one device stamped never runs backwards.
 *
 * @param entries  of one batch; a repeat that has a receipt stands before one that waits
 * @returns each entry once, in the order of {@link inOrder}
 */
export function placeEntries(entries: Iterable<BatchEvent>): PlacedEntry[] {
  const unique = new Map<string, BatchEvent>();
  for (const entry of entries) {
    const there = unique.get(entry.id);
    if (!there || seqOf(entry) < seqOf(there)) unique.set(entry.id, entry);
  }
  const seen = arrivals([...unique.values()]);
  const byDevice = new Map<string, BatchEvent[]>();
  for (const entry of unique.values()) {
    const own = byDevice.get(entry.deviceId);
    if (own) own.push(entry);
    else byDevice.set(entry.deviceId, [entry]);
  }
  const placed: PlacedEntry[] = [];
  for (const own of byDevice.values()) {
    own.sort((a, b) => a.deviceCounter - b.deviceCounter || (a.id < b.id ? -1 : 1));
    const latest: number[] = [];
    let least = Infinity;
    for (let i = own.length - 1; i >= 0; i--) {
      const { receipt } = own[i] as BatchEvent;
      if (receipt) least = Math.min(least, instantMs(receipt.at));
      latest[i] = receipt ? least : Infinity;
    }
    let before_ms = -Infinity;
    own.forEach((event, i) => {
      const claimed = claimed_ms(event);
      const earliest = event.typedInAfterwards ? -Infinity : Math.max(before_ms, seen(event));
      const at_ms = Math.min(Math.max(claimed, earliest), latest[i] as number);
      if (!event.typedInAfterwards) before_ms = at_ms;
      const doubtful =
        Math.abs(at_ms - claimed) > MOVED_TOLERANCE_MS || jumped(event) || unmeasured(event, at_ms);
      const latest_ms = doubtful && event.receipt ? instantMs(event.receipt.at) : at_ms;
      const earliest_ms = doubtful ? Math.max(0, Math.min(earliest, at_ms)) : at_ms;
      placed.push({
        event,
        at_ms,
        doubtful,
        earliest_ms,
        latest_ms,
        known: knownHow(event, at_ms, doubtful),
      });
    });
  }
  return placed.sort(inOrder);
}

/** When the last of what an entry's device had seen arrived; before all time where it had seen nothing. */
function arrivals(entries: readonly BatchEvent[]): (event: BatchEvent) => number {
  const received = entries.filter(e => e.receipt !== null).sort((a, b) => seqOf(a) - seqOf(b));
  const greatest: number[] = [];
  for (const { receipt } of received)
    greatest.push(Math.max(greatest.at(-1) ?? -Infinity, instantMs((receipt as Receipt).at)));
  return event => {
    const upTo = Math.min(event.basedOnSeq, seqOf(event) - 1);
    let low = 0;
    let high = received.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (seqOf(received[middle] as BatchEvent) <= upTo) low = middle + 1;
      else high = middle;
    }
    return greatest[low - 1] ?? -Infinity;
  };
}

/** Seconds by which two ways of measuring one duration may differ before it counts as unverified. */
export const CLOCK_TOLERANCE_S = 5;

/** How long it was between two entries, and whether that can be relied on. */
export interface Elapsed {
  /** The shortest of the durations that can be argued. */
  time_s: number;
  verified: boolean;
  /** Why it is not verified, or how it was measured. */
  how: string;
}

/**
 * The time between two entries. Inside one page session the monotonic clock tells; where it fell behind because the
 * device slept, the wall clock does, if it was measured before and after and went evenly. Between sessions and devices
 * the instants tell, where they are known. What two clocks say differently is unverified, and the shorter counts.
 */
export function elapsedBetween(from: PlacedEntry, to: PlacedEntry): Elapsed {
  const byInstants_s = (to.at_ms - from.at_ms) / 1000;
  const typed = from.event.typedInAfterwards || to.event.typedInAfterwards;
  if (!typed && from.event.pageSessionId === to.event.pageSessionId) {
    const monotonic_s = (to.event.monotonic_ms - from.event.monotonic_ms) / 1000;
    if (Math.abs(monotonic_s - byInstants_s) <= CLOCK_TOLERANCE_S)
      return { time_s: monotonic_s, verified: true, how: 'by the page clock' };
    if (monotonic_s < byInstants_s && clockConfirmed(from.event) && clockConfirmed(to.event))
      return {
        time_s: byInstants_s,
        verified: true,
        how: 'by a clock compared before and after: the page slept',
      };
    return {
      time_s: Math.min(monotonic_s, byInstants_s),
      verified: false,
      how: `two clocks disagree by ${Math.round(Math.abs(monotonic_s - byInstants_s))} s`,
    };
  }
  const unknown = (e: PlacedEntry) => !e.event.typedInAfterwards && offsetAtStamping_ms(e.event) === null;
  if (unknown(from) || unknown(to))
    return {
      time_s: byInstants_s,
      verified: false,
      how: 'the device had not yet compared its clock with the kitchen',
    };
  if (from.doubtful || to.doubtful)
    return {
      time_s: byInstants_s,
      verified: false,
      how: 'an entry says a time that cannot have been, or its clock jumped before it arrived',
    };
  return {
    time_s: byInstants_s,
    verified: true,
    how: typed ? 'from times typed in afterwards' : 'by clocks compared with the kitchen',
  };
}
