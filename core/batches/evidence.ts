import { instantMs } from '../measure/index.ts';
import { type BatchEvent, isDecision } from './events.ts';
import type { Receipt, Stamp } from './stamp.ts';

/**
 * How an entry came to be known: *live* when it arrived as it happened, *queued* when its device sent it later and its
 * clock is known to have been right, *written up* when a person typed the time or nothing speaks for the clock, and
 * *waiting* while it is still on its device and proves nothing.
 */
export type Known = 'live' | 'queued' | 'written up' | 'waiting';

/** Who entered something, when it happened, and how that is known. */
export interface Trace {
  eventId: string;
  personId: string;
  at_ms: number;
  known: Known;
  /**
   * Its time is not to be relied on: it was moved from where it cannot have been, the clock jumped between stamping and
   * delivering, or nobody ever measured the clock by which it waited.
   */
  doubtful: boolean;
  /** It happened between these, at `at_ms` where its time is not doubtful. */
  earliest_ms: number;
  latest_ms: number;
  /** It stands as a later entry corrected it, see the state's `amendments`. */
  corrected: boolean;
}

/** An entry at the instant it is taken to have happened. */
export interface PlacedEntry {
  event: BatchEvent;
  at_ms: number;
  trace: Trace;
}

/** An entry that arrived this soon after it happened was entered at the time. Our choice, from no source. */
export const LIVE_WITHIN_MS = 120_000;
/** Two measures of one device's clock may differ by this much: what the way to the server takes. Our choice. */
export const OFFSET_TOLERANCE_MS = 10_000;
/** A time that has to be moved by more than this is doubtful. Our choice, from no source. */
export const MOVED_TOLERANCE_MS = 5000;
/** How long a measured offset is good for: a quartz clock drifts by a second or two in a day (from memory). */
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
  const told = Array.from(unique.values(), tellingOf);
  const seenBy = arrivals(told);
  const byDevice = new Map<string, Telling[]>();
  for (const t of told) {
    const own = byDevice.get(t.event.deviceId);
    if (own) own.push(t);
    else byDevice.set(t.event.deviceId, [t]);
  }
  const placed: PlacedEntry[] = [];
  for (const own of byDevice.values()) {
    own.sort((a, b) => a.event.deviceCounter - b.event.deviceCounter || (a.event.id < b.event.id ? -1 : 1));
    let least = Infinity;
    for (let i = own.length - 1; i >= 0; i--) {
      const t = own[i] as Telling;
      if (t.arrived_ms === null) continue;
      least = Math.min(least, t.arrived_ms);
      t.latest_ms = least;
    }
    let before_ms = -Infinity;
    for (const t of own) {
      const { typedInAfterwards: typed } = t.event;
      const earliest = typed ? -Infinity : Math.max(before_ms, seenBy(t));
      const at_ms = Math.min(Math.max(t.claimed_ms, earliest), t.latest_ms);
      if (!typed) before_ms = at_ms;
      placed.push({ event: t.event, at_ms, trace: traceOf(t, at_ms, earliest) });
    }
  }
  return placed.sort(inOrder);
}

/** What an entry and its receipt say of its time, each read once. */
interface Telling {
  event: BatchEvent;
  seq: number;
  arrived_ms: number | null;
  /** Stamped by a device's clock: neither typed nor a decision. */
  byClock: boolean;
  /** The offset of that clock as it stamped and as it delivered, see {@link offsetAtStamping_ms}. */
  stamping_ms: number | null;
  delivery_ms: number | null;
  /** As typed; a decision as it arrived; else by the device's clock, set right. */
  claimed_ms: number;
  /** No later than this: its own arrival, and that of its device's later entries. */
  latest_ms: number;
}

function tellingOf(event: BatchEvent): Telling {
  const { receipt } = event;
  const arrived_ms = receipt ? instantMs(receipt.at) : null;
  const decided = arrived_ms !== null && isDecision(event.type);
  const byClock = !event.typedInAfterwards && !decided;
  const stamping_ms = byClock ? offsetAtStamping_ms(event) : null;
  const delivery_ms =
    byClock && arrived_ms !== null && receipt?.sentAt != null ? arrived_ms - instantMs(receipt.sentAt) : null;
  const claimed_ms = event.typedInAfterwards
    ? instantMs(event.occurredAt)
    : decided
      ? arrived_ms
      : instantMs(event.wallClock) + (stamping_ms ?? delivery_ms ?? 0);
  return {
    event,
    seq: seqOf(event),
    arrived_ms,
    byClock,
    stamping_ms,
    delivery_ms,
    claimed_ms,
    latest_ms: Infinity,
  };
}

/** How the entry is known, and within which bounds it happened. */
function traceOf(t: Telling, at_ms: number, earliest: number): Trace {
  const { event, arrived_ms, stamping_ms, delivery_ms } = t;
  const lag_ms = arrived_ms === null ? 0 : arrived_ms - at_ms;
  const jumped =
    stamping_ms !== null && delivery_ms !== null && Math.abs(stamping_ms - delivery_ms) > OFFSET_TOLERANCE_MS;
  // How long it waited on a device whose clock nobody had measured, only that clock says.
  const unmeasured = t.byClock && stamping_ms === null && delivery_ms !== null && lag_ms > LIVE_WITHIN_MS;
  const doubtful = Math.abs(at_ms - t.claimed_ms) > MOVED_TOLERANCE_MS || jumped || unmeasured;
  const writtenUp = event.typedInAfterwards || doubtful || (t.byClock && stamping_ms === null);
  return {
    eventId: event.id,
    personId: event.personId,
    at_ms,
    known:
      arrived_ms === null
        ? 'waiting'
        : writtenUp
          ? 'written up'
          : lag_ms <= LIVE_WITHIN_MS
            ? 'live'
            : 'queued',
    doubtful,
    earliest_ms: doubtful ? Math.max(0, Math.min(earliest, at_ms)) : at_ms,
    latest_ms: doubtful && arrived_ms !== null ? arrived_ms : at_ms,
    corrected: false,
  };
}

/** When the last of what an entry's device had seen arrived; before all time where it had seen nothing. */
function arrivals(told: readonly Telling[]): (t: Telling) => number {
  const received = told.filter(t => t.arrived_ms !== null).sort((a, b) => a.seq - b.seq);
  const greatest: number[] = [];
  for (const t of received) greatest.push(Math.max(greatest.at(-1) ?? -Infinity, t.arrived_ms as number));
  return ({ event, seq }) => {
    const upTo = Math.min(event.basedOnSeq, seq - 1);
    let low = 0;
    let high = received.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((received[middle] as Telling).seq <= upTo) low = middle + 1;
      else high = middle;
    }
    return greatest[low - 1] ?? -Infinity;
  };
}

/** Seconds by which two ways of measuring one duration may differ before it counts as unverified. Our choice, from no source. */
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
  if (from.trace.doubtful || to.trace.doubtful)
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
