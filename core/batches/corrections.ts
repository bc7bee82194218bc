import { evidenceFaults, PH_LIMIT, readAbove, readPh } from '../acid/index.ts';
import { type Names, byName, canonicalJson, instantMs } from '../measure/index.ts';
import { type BatchEvent, type EventBodies, isDecision } from './events.ts';
import { type PlacedEntry, inOrder, seqOf } from './evidence.ts';
import type { Amendment } from './state.ts';

/** A correction this soon after what it corrects, by the same person, is a slip of the finger. Our choice, from no source. */
export const SLIP_MS = 120_000;

type Corrected = PlacedEntry & { event: BatchEvent<'entry.corrected'> };

/** The entries that stand, and what became of those that were corrected. */
export interface Settled {
  standing: PlacedEntry[];
  amendments: Names<Amendment>;
}

/**
 * Puts corrections in the place of what they correct. The one with the greatest number of the server's wins. One that
 * makes the evidence of safety better counts only when somebody with the right to sign stands behind it, unless it is a
 * slip: entered within two minutes by the same person, with nothing built on what it corrects.
 */
export function settleCorrections(placed: readonly PlacedEntry[]): Settled {
  const byId = new Map(placed.map(p => [p.event.id, p]));
  const signed = new Set(
    placed.flatMap(({ event }) =>
      event.type === 'correction.signed' && event.receipt !== null && event.receipt.signs !== false
        ? [event.body.correctionId]
        : [],
    ),
  );
  const corrections = new Map<string, Corrected[]>();
  for (const p of placed) {
    if (p.event.type !== 'entry.corrected') continue;
    const original = byId.get(p.event.body.replaces);
    if (!original || isDecision(original.event.type) || original.event.type !== p.event.body.type) continue;
    const list = corrections.get(original.event.id) ?? [];
    list.push(p as Corrected);
    corrections.set(original.event.id, list);
  }
  const start = placed.find(p => p.event.type === 'batch.started')?.event as
    BatchEvent<'batch.started'> | undefined;
  const limit = start?.body.phLimit ?? PH_LIMIT;
  const amendments: Names<Amendment> = byName();
  const standing: PlacedEntry[] = [];
  for (const p of placed) {
    const own = corrections.get(p.event.id);
    if (!own) {
      standing.push(p);
      continue;
    }
    own.sort((a, b) => seqOf(a.event) - seqOf(b.event) || a.event.deviceCounter - b.event.deviceCounter);
    // What was taken back stands as nothing.
    const versions: (PlacedEntry | null)[] = [p];
    const told = own.map((by): Amendment['corrections'][number] => {
      const next = correctedBy(p, by);
      const isSlip = isSlipOf(p, by, placed);
      const isSigned =
        by.event.receipt !== null && (by.event.receipt.signs !== false || signed.has(by.event.id));
      const counts = isSigned || isSlip || !versions.some(was => improves(was, next, placed, limit));
      if (counts) versions.push(next);
      const { personId, body } = by.event;
      return {
        correctionId: by.event.id,
        personId,
        reason: body.reason,
        counts,
        slip: isSlip,
        signed: isSigned,
      };
    });
    const stands = told.findLast(t => t.counts);
    amendments[p.event.id] = {
      was: { type: p.event.type, body: p.event.body } as Amendment['was'],
      was_ms: p.at_ms,
      standing: stands?.correctionId ?? null,
      corrections: told,
    };
    const last = versions.at(-1);
    // A slip that was mended at once is no blemish on the evidence.
    if (last)
      standing.push({
        ...last,
        trace: { ...last.trace, corrected: stands !== undefined && !stands.slip },
      });
  }
  // What was not corrected is in its order.
  return { standing: corrections.size > 0 ? standing.sort(inOrder) : standing, amendments };
}

/** The entry as a correction makes it; null where it takes it back. A new time lies no later than the entry arrived. */
function correctedBy(original: PlacedEntry, { event: { body } }: Corrected): PlacedEntry | null {
  if (body.body === null) return null;
  const event = { ...original.event, body: body.body } as BatchEvent;
  if (body.occurredAt === null) return { ...original, event };
  const says_ms = instantMs(body.occurredAt);
  const arrived = original.event.receipt ? instantMs(original.event.receipt.at) : Infinity;
  const at_ms = Math.min(says_ms, arrived);
  return {
    event: { ...event, occurredAt: body.occurredAt, typedInAfterwards: true } as BatchEvent,
    at_ms,
    trace: {
      ...original.trace,
      at_ms,
      known: original.trace.known === 'waiting' ? 'waiting' : 'written up',
      doubtful: says_ms > arrived,
      earliest_ms: at_ms,
      latest_ms: at_ms,
    },
  };
}

/** Entered within two minutes by the same person, with nothing built on what it corrects. */
function isSlipOf(original: PlacedEntry, by: Corrected, placed: readonly PlacedEntry[]): boolean {
  if (original.event.personId !== by.event.personId) return false;
  if (original.event.typedInAfterwards || by.event.typedInAfterwards || by.trace.doubtful) return false;
  if (by.at_ms - original.at_ms > SLIP_MS || by.at_ms < original.at_ms) return false;
  const [from, to] = [seqOf(original.event), seqOf(by.event)];
  return !placed.some(({ event }) => {
    const at = seqOf(event);
    const between = at > from && at < to && event.id !== by.event.id;
    return between && buildsOn(event, original.event);
  });
}

/** Jars an entry is about; null for none in particular. */
function jarsOf(event: BatchEvent): readonly number[] | null {
  switch (event.type) {
    case 'jars.pressed':
      return [...event.body.sealed, ...event.body.failed];
    case 'ph.read':
      return [event.body.jar];
    case 'jars.filled':
    case 'dose.given':
    case 'dose.missed':
    case 'jars.released':
    case 'jars.taken':
    case 'jars.withdrawn':
    case 'jars.market_checked':
    case 'labels.printed':
    case 'load.packed':
      return event.body.jars;
    default:
      return null;
  }
}

function loadOf(event: BatchEvent): string | null {
  switch (event.type) {
    case 'load.packed':
    case 'load.boiling':
    case 'load.boil_lost':
    case 'load.heat_off':
    case 'load.lifted':
      return event.body.loadId;
    default:
      return null;
  }
}

/** Whether a later entry rests on an earlier one: the same load went on, or its jars were released, labelled, taken. */
function buildsOn(later: BatchEvent, earlier: BatchEvent): boolean {
  if (later.type === 'deviation.settled')
    return later.body.key.includes(earlier.id) || later.body.key.includes(loadOf(earlier) ?? earlier.id);
  const load = loadOf(earlier);
  if (load !== null && loadOf(later) === load) return true;
  if (later.type !== 'jars.released' && later.type !== 'jars.taken' && later.type !== 'labels.printed')
    return false;
  const jars = jarsOf(earlier);
  return jars === null || later.body.jars.some(n => jars.includes(n));
}

/** Whether a reading that is corrected shows more than it did: less pH, fewer faults, another sample, a tighter jar. */
function betterReading(
  was: EventBodies['ph.read'],
  now: EventBodies['ph.read'] | undefined,
  limit: number,
): boolean {
  if (!now) return readAbove(was, limit);
  const faults = (r: EventBodies['ph.read']) =>
    evidenceFaults(r, {
      hours: null,
      // Of what is known only by its place in the record: the same for both.
      on: (r.calibration?.at ?? '').slice(0, 10),
      dayOfInstant: ms => new Date(ms).toISOString().slice(0, 10),
      texture: 'pieces',
      recheck_off: null,
      opened_h: 0,
    }).length;
  return (
    (readAbove(was, limit) && readPh(now) < readPh(was)) ||
    faults(now) < faults(was) ||
    (now.tightest && !was.tightest) ||
    (now.sample !== null && now.sample !== was.sample) ||
    (now.calibration !== null && !sameText(now.calibration, was.calibration))
  );
}

const sameText = (a: unknown, b: unknown): boolean => canonicalJson(a) === canonicalJson(b);

/**
 * Whether a correction makes the evidence of safety better: a reading above the limit, or one that did not count, a lost
 * boil, a time that grows, a failed press, a missed dose, a temperature that rises,
 * more jars in a load or with their acid.
 */
function improves(
  was: PlacedEntry | null,
  next: PlacedEntry | null,
  placed: readonly PlacedEntry[],
  limit: number,
): boolean {
  // What was taken back and comes again is new evidence, whatever it says.
  if (was === null) return next !== null;
  const { event } = was;
  const then = next?.event.body;
  // By what it says of its time, even where it is not believed.
  const says_ms = next?.event.typedInAfterwards ? instantMs(next.event.occurredAt) : next?.at_ms;
  const moved_ms = says_ms === undefined ? 0 : says_ms - was.at_ms;
  switch (event.type) {
    case 'ph.read':
      return betterReading(event.body, then as EventBodies['ph.read'] | undefined, limit) || moved_ms !== 0;
    case 'pot.ph_read': {
      const reading = then as EventBodies['pot.ph_read'] | undefined;
      return readAbove(event.body, limit) && (!reading || readPh(reading) < readPh(event.body));
    }
    case 'meter.rechecked':
      return next === null || moved_ms !== 0 || !sameText(event.body, then);
    case 'load.boil_lost':
      return next === null || moved_ms !== 0;
    case 'load.boiling':
      return next === null || moved_ms < 0;
    case 'load.heat_off':
      return (next === null || moved_ms > 0) && isFirstEnd(event, placed);
    case 'load.lifted':
      return moved_ms !== 0 || (next === null && isFirstEnd(event, placed));
    case 'jars.pressed': {
      const failed = (then as EventBodies['jars.pressed'] | undefined)?.failed ?? [];
      return event.body.failed.some(n => !failed.includes(n)) || (next !== null && moved_ms > 0);
    }
    case 'dose.missed': {
      const jars = (then as EventBodies['dose.missed'] | undefined)?.jars ?? [];
      return event.body.jars.some(n => !jars.includes(n));
    }
    case 'dose.given': {
      // More jars, another line, or at a time when they were still open.
      const given = then as EventBodies['dose.given'] | undefined;
      return (
        given !== undefined &&
        (given.lineId !== event.body.lineId ||
          given.jars.some(n => !event.body.jars.includes(n)) ||
          moved_ms < 0)
      );
    }
    case 'load.packed': {
      const packed = then as EventBodies['load.packed'] | undefined;
      return (
        packed !== undefined &&
        (packed.loadId !== event.body.loadId ||
          packed.jars.some(n => !event.body.jars.includes(n)) ||
          packed.heat !== event.body.heat ||
          packed.newLidLotId !== event.body.newLidLotId ||
          packed.cannerId !== event.body.cannerId ||
          moved_ms !== 0)
      );
    }
    case 'dose.checked': {
      // More out of the bottle is more in the jars.
      const checked = then as EventBodies['dose.checked'] | undefined;
      return (
        checked === undefined ||
        checked.quantity > event.body.quantity ||
        checked.unit !== event.body.unit ||
        moved_ms !== 0
      );
    }
    case 'leftover.back':
      // When it was put in the cold, and how it cooled, is what its jars rest on.
      return next !== null;
    case 'line.replaced':
      // Something else went in, or it did not: who says so later signs for it.
      return true;
    case 'jars.filled':
      // What was read, boiled or dosed before the jars were closed hangs on when that was.
      return next !== null && moved_ms !== 0;
    case 'temperature.read': {
      const read = then as EventBodies['temperature.read'] | undefined;
      return read === undefined
        ? event.body.where === 'jar'
        : read.temp_C > event.body.temp_C ||
            read.where !== event.body.where ||
            (event.body.part !== '' && read.part === '') ||
            moved_ms < 0;
    }
    case 'jars.boiled': {
      const boiled = then as EventBodies['jars.boiled'] | undefined;
      return boiled !== undefined && (boiled.minutes > event.body.minutes || moved_ms < 0);
    }
    case 'jars.weighed': {
      // Less in the jars from the same pot is more solids.
      const weighed = then as EventBodies['jars.weighed'] | undefined;
      const all_g = (b: EventBodies['jars.weighed']) =>
        b.jars.reduce((sum, j) => sum + j.net_g, 0) / Math.max(1, b.jars.length) + b.left_g;
      return (
        weighed === undefined || all_g(weighed) < all_g(event.body) || weighed.left_g < event.body.left_g
      );
    }
    case 'solids.read': {
      const read = then as EventBodies['solids.read'] | undefined;
      return (
        read !== undefined &&
        (read.brix_pct > event.body.brix_pct || (event.body.part !== '' && read.part === '') || moved_ms < 0)
      );
    }
    default:
      return false;
  }
}

function isFirstEnd(
  event: BatchEvent<'load.heat_off' | 'load.lifted'>,
  placed: readonly PlacedEntry[],
): boolean {
  return !placed.some(
    ({ event: other }) =>
      (other.type === 'load.heat_off' || other.type === 'load.lifted') &&
      other.body.loadId === event.body.loadId &&
      other.id !== event.id &&
      seqOf(other) < seqOf(event),
  );
}

/**
 * A body as somebody typed it anew: where one of its figures is another, no instrument showed it.
 *
 * @param was  the body that is corrected
 * @param next  the same with what was typed
 * @example
 * retyped({ temp_C: 104, instrumentId: 'probe-1' }, { temp_C: 99, instrumentId: 'probe-1' }).instrumentId; // null
 */
export function retyped(
  was: Readonly<Record<string, unknown>>,
  next: Readonly<Record<string, unknown>>,
): Record<string, unknown> {
  const same = Object.keys(next).every(k => typeof next[k] !== 'number' || next[k] === was[k]);
  if (same || !('instrumentId' in next)) return { ...next };
  return {
    ...next,
    instrumentId: null,
    ...('checked' in next ? { checked: null } : {}),
    // The mean of single readings that is typed anew is a reading of its own.
    ...('replicates' in next ? { replicates: [] } : {}),
  };
}
