import { byName, rangesText } from '../measure/index.ts';
import { bookNotes, unfitUse } from './books.ts';
import { bottleDeviations } from './bottle.ts';
import { type ByType, deviation } from './counted.ts';
import { settleCorrections } from './corrections.ts';
import { type BatchEvent, type EventType, type StartedBody, upgradeStarted } from './events.ts';
import { type PlacedEntry, placeEntries } from './evidence.ts';
import { deriveLoads } from './loads.ts';
import { orderDeviations, tooLate } from './order.ts';
import type { Trace } from './evidence.ts';
import { type NameJars, readJars } from './readings.ts';
import { acidityDeviations, exitDeviations, settleDeviations } from './settling.ts';
import type { BatchState, Deviation, JarState, LoadState } from './state.ts';
import { replacedDeviations, replacedLines, unknownThings, withLines } from './things.ts';
import { upgradeEvent } from './versions.ts';

const HOUR_MS = 3_600_000;
/** Least hours between lifting and a press that proves a seal. Common practice: 12 to 24 h of cooling. */
export const PRESS_AFTER_HOURS = 12;

/**
 * The state of a batch from its entries. Pure: reads nothing else, and gives the same state for the same set of entries
 * with the same receipts, in whatever order, however often each was delivered.
 *
 * @param events  entries of one batch, those with a receipt and those that still wait on this device
 * @returns plain data, safe to store and send
 * @example
 * const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
 * batch.fill([1, 2]);
 * fold(batch.events).jars.map(jar => jar.number); // [1, 2]
 */
export function fold(events: readonly BatchEvent[]): BatchState {
  const newer: BatchEvent[] = [];
  const readable: BatchEvent[] = [];
  for (const event of events) {
    const today = upgradeEvent(event);
    if (today) readable.push(today);
    else if (!newer.some(e => e.id === event.id)) newer.push(event);
  }
  const { standing, amendments } = settleCorrections(placeEntries(readable));
  const byType = byName() as ByType;
  for (const s of standing) ((byType[s.event.type] ??= []) as PlacedEntry[]).push(s);
  const of = <K extends EventType>(type: K) =>
    (byType[type] ?? []) as (PlacedEntry & { event: BatchEvent<K> })[];

  const first = of('batch.started')[0];
  const added = of('line.added').map(s => ({ line: s.event.body.line, by: s.trace }));
  const asStarted = first ? upgradeStarted(first.event.body) : null;
  const replaced = asStarted ? replacedLines(asStarted, of('line.replaced')) : [];
  const started = first && asStarted ? { ...withLines(asStarted, added, replaced), by: first.trace } : null;
  const deviations: Deviation[] = [];

  const reversed = new Set(of('draw.reversed').map(s => s.event.body.drawId));
  const draws = of('lot.drawn')
    .filter(s => !reversed.has(s.event.id))
    .map(s => ({ drawId: s.event.id, by: s.trace, ...s.event.body }));
  if (asStarted) deviations.push(...replacedDeviations(asStarted, replaced, draws));
  const outlets = of('outlet.opened').map(s => ({ ...s.event.body, by: s.trace }));

  const steps: BatchState['steps'] = byName();
  const step = (id: string) =>
    (steps[id] ??= { started: null, done: null, ended: null, outOfOrder: '', pots: byName() });
  for (const s of [...of('step.started'), ...of('step.done')]) {
    const { type, body } = s.event;
    const at = step(body.stepId);
    at.outOfOrder ||= body.outOfOrder;
    const pot =
      body.potId === null ? at : (at.pots[body.potId] ??= { started: null, done: null, ended: null });
    if (type === 'step.started') {
      pot.started ??= s.trace;
      at.started ??= s.trace;
    } else {
      pot.done ??= s.trace;
      pot.ended ??= body.ended;
      // One pot of several is not all of them.
      const pots = potNumbers(started?.pots.count ?? 1);
      if (body.potId !== null && pots.every(n => at.pots[n]?.done)) at.done ??= s.trace;
      at.ended ??= at.done ? body.ended : null;
    }
  }

  const weighed: BatchState['weighed'] = byName();
  for (const s of of('line.weighed')) {
    const before = weighed[s.event.body.lineId]?.mass_g ?? 0;
    weighed[s.event.body.lineId] = { mass_g: before + s.event.body.mass_g, by: s.trace };
  }
  const measures: BatchState['measures'] = byName();
  for (const s of of('measure.taken')) {
    const { stepId, quantity, unit, how, from } = s.event.body;
    measures[stepId] = { quantity, unit, how, from, by: s.trace };
  }

  const unknown = started ? unknownThings(standing, started, added, weighed) : { deviations: [], notes: [] };
  deviations.push(...unknown.deviations);
  const jars = fillJars(byType, deviations);
  const known = new Map(jars.map(j => [j.number, j]));
  /** The jars an entry names that exist; the others open a deviation. */
  const named = (numbers: number[], s: PlacedEntry, doing: string): JarState[] => {
    const missing = numbers.filter(n => !known.has(n));
    if (missing.length > 0) {
      deviations.push(
        deviation({
          key: `unknown_jar:${s.event.id}`,
          code: 'unknown_jar',
          jars: [],
          what: `Jar ${rangesText(missing)} was ${doing} but never recorded as filled.`,
          next: 'Record the filling, or correct the entry.',
        }),
      );
    }
    return numbers.flatMap(n => known.get(n) ?? []);
  };

  const loads = deriveLoads(byType, started, outlets, known, named, deviations);
  const loadsById = new Map(loads.map(l => [l.id, l]));
  deviations.push(...orderDeviations(jars, loads));
  doseJars(byType, started, jars, loads, named, deviations);
  const doseChecks = of('dose.checked').map(s => ({ ...s.event.body, by: s.trace }));
  if (started) deviations.push(...bottleDeviations(started.recipe.lines, jars, doseChecks));
  for (const s of of('jars.marked'))
    for (const jar of named(s.event.body.jars, s, 'marked')) jar.marked = s.event.body.for;
  const liftedOf = (jar: JarState) => loadsById.get(jar.loadIds.at(-1) ?? '')?.lifted ?? null;
  for (const s of of('jars.market_checked'))
    for (const jar of named(s.event.body.jars, s, 'checked'))
      jar.market = { done: s.event.body.done, by: s.trace };
  for (const s of of('jars.withdrawn'))
    for (const jar of named(s.event.body.jars, s, 'withdrawn'))
      jar.withdrawn ??= { why: s.event.body.why, by: s.trace };
  pressJars(byType, liftedOf, named);
  const readings = readJars(of('ph.read'), of('meter.rechecked'), started, liftedOf, named);
  takeAway(byType, loads, readings, known, named);

  if (started) deviations.push(...acidityDeviations(readings, started));
  if (started) deviations.push(...exitDeviations(jars, of('jars.released'), started));
  settleDeviations(of('deviation.settled'), of('deviation.looked'), standing, deviations);
  const taken = new Set(draws.flatMap(d => d.used?.entryId ?? []));
  const used = of('lot.used').map(s => ({ ...s.event.body, drawn: taken.has(s.event.id), by: s.trace }));
  deviations.push(...unfitUse(used, started));
  const books = [...unknown.notes, ...(started ? bookNotes({ started, draws, weighed, used, jars }) : [])];
  for (const s of of('deviation.settled')) {
    const note = books.find(b => b.key === s.event.body.key);
    if (note) note.settled ??= { reason: s.event.body.reason, by: s.trace };
  }

  return {
    started,
    draws,
    steps,
    weighed,
    added,
    replaced,
    measures,
    doseChecks,
    leftOver: of('left.over').map(s => ({ ...s.event.body, by: s.trace })),
    leftoversBack: of('leftover.back').map(s => ({ ...s.event.body, by: s.trace })),
    washed: of('pot.washed').map(s => ({ ...s.event.body, by: s.trace })),
    // Two tabs may both have handed it in: one picture is one.
    pictures: [...new Map(of('picture.kept').map(s => [s.event.body.paperId, s])).values()].map(s => ({
      ...s.event.body,
      eventId: s.event.id,
      by: s.trace,
    })),
    outlets,
    used,
    books,
    newer,
    yieldReasons: of('yield.explained').map(s => ({ reason: s.event.body.reason, by: s.trace })),
    jars,
    loads,
    presses: of('jars.pressed').map(({ event: { body }, trace }) => ({
      sealed: body.sealed,
      failed: body.failed,
      by: trace,
    })),
    deviations,
    amendments,
    temperatures: of('temperature.read').map(({ event: { body }, trace }) => ({
      checked: body.checked,
      where: body.where,
      part: body.part,
      temp_C: body.temp_C,
      outletId: body.outletId,
      potId: body.potId,
      by: trace,
    })),
    boiled: of('jars.boiled').map(({ event: { body }, trace }) => ({ minutes: body.minutes, by: trace })),
    nets: heaviest(
      of('jars.weighed').flatMap(({ event: { body }, trace }) =>
        body.jars.map(j => ({ ...j, left_g: body.left_g, by: trace })),
      ),
    ),
    weighings: [
      ...new Map(
        of('jars.weighed').flatMap(({ event: { body }, trace }) =>
          body.jars.map(j => [j.jar, { ...j, by: trace }] as const),
        ),
      ).values(),
    ],
    solids: of('solids.read').map(({ event: { body }, trace }) => ({
      part: body.part,
      brix_pct: body.brix_pct,
      outletId: body.outletId,
      potId: body.potId,
      by: trace,
    })),
    levels: of('level.read').map(s => ({ ...s.event.body, by: s.trace })),
    looks: of('jars.looked').map(s => ({ ...s.event.body, by: s.trace })),
    readings,
    potReadings: of('pot.ph_read').map(s => ({ ...s.event.body, by: s.trace })),
    minutes: standing.flatMap(({ event, trace }) =>
      event.type === 'minutes.worked' || event.type === 'minutes.shared' || event.type === 'kitchen.worked'
        ? [
            {
              minutes: event.body.minutes,
              kind: event.type === 'kitchen.worked' ? ('kitchen' as const) : ('batch' as const),
              with: event.type === 'minutes.shared' ? event.body.with : [],
              by: trace,
            },
          ]
        : [],
    ),
    energy: of('energy.used').map(s => ({ ...s.event.body, by: s.trace })),
    returns: of('lots.returned').map(s => ({ ...s.event.body, by: s.trace })),
    taken: of('jars.taken').map(s => ({ jars: s.event.body.jars, lotId: s.event.body.lotId, by: s.trace })),
    curves: of('curve.kept').map(s => ({ ...s.event.body, by: s.trace })),
    potTaken: of('pot.taken').map(s => ({ ...s.event.body, by: s.trace })),
    notes: of('note.written').map(s => ({ text: s.event.body.text, by: s.trace })),
    releases: of('jars.released').map(s => ({
      ...s.event.body,
      seq: s.event.receipt?.seq ?? null,
      by: s.trace,
    })),
    labels: of('labels.printed').map(s => {
      const last = of('labels.counted').findLast(c => c.event.body.printId === s.event.id);
      const counted = last
        ? {
            used: last.event.body.used,
            spoiled: last.event.body.spoiled,
            destroyed: last.event.body.destroyed,
            by: last.trace,
          }
        : null;
      return { ...s.event.body, eventId: s.event.id, by: s.trace, counted };
    }),
  };
}

/** The pots of a batch, as entries name them: `1` to their number. */
export const potNumbers = (count: number): string[] => Array.from({ length: count }, (_, i) => String(i + 1));

function fillJars(byType: ByType, deviations: Deviation[]): JarState[] {
  const jars = new Map<number, JarState>();
  for (const s of byType['jars.filled'] ?? []) {
    const twice = s.event.body.jars.filter(n => jars.has(n));
    if (twice.length > 0) {
      deviations.push(
        deviation({
          key: `filled_twice:${s.event.id}`,
          code: 'filled_twice',
          jars: twice,
          what: `Jar ${rangesText(twice)} was recorded as filled twice.`,
          next: 'Correct one of the two entries.',
        }),
      );
    }
    const { size, outletId, jarLotId, lidLotId, headspace_mm, closure } = s.event.body;
    for (const number of s.event.body.jars) {
      if (jars.has(number)) continue;
      jars.set(number, {
        number,
        size,
        outletId,
        jarLotId,
        lidLotId,
        firstLidLotId: lidLotId,
        headspace_mm,
        closure,
        marked: 'sale',
        market: null,
        withdrawn: null,
        filled: s.trace,
        doses: byName(),
        loadIds: [],
        setAside: null,
        pressed: null,
      });
    }
  }
  return [...jars.values()].sort((a, b) => a.number - b.number);
}

/** Acid and other lines of single jars: before or after filling, never once the jar is closed and packed. */
function doseJars(
  byType: ByType,
  started: StartedBody | null,
  jars: readonly JarState[],
  loads: readonly LoadState[],
  named: NameJars,
  deviations: Deviation[],
): void {
  for (const s of byType['dose.given'] ?? [])
    for (const jar of named(s.event.body.jars, s, 'dosed')) {
      if (jar.doses[s.event.body.lineId]?.is === 'given') continue;
      jar.doses[s.event.body.lineId] = { is: tooLate(s.trace, jar, loads) ? 'late' : 'given', by: s.trace };
    }
  for (const s of byType['dose.missed'] ?? [])
    for (const jar of named(s.event.body.jars, s, 'named'))
      jar.doses[s.event.body.lineId] = { is: 'missed', by: s.trace };
  for (const line of started?.recipe.lines ?? []) {
    if (line.role !== 'acid') continue;
    const late = new Map<string, number[]>();
    for (const jar of jars) {
      const dose = jar.doses[line.id];
      if (dose?.is === 'missed')
        deviations.push(
          deviation({
            key: `dose_missed:${line.id}:${jar.number}`,
            code: 'dose_missed',
            jars: [jar.number],
            what: `Jar ${jar.number} was closed without its ${line.name}.`,
            next: 'Set the jar aside: an acid that is missing cannot be settled afterwards.',
          }),
        );
      if (dose?.is === 'late') late.set(dose.by.eventId, [...(late.get(dose.by.eventId) ?? []), jar.number]);
    }
    for (const [eventId, numbers] of late)
      deviations.push(
        deviation({
          key: `dose_late:${eventId}`,
          code: 'dose_late',
          jars: numbers,
          what: `${line.name} was entered for jar ${rangesText(numbers)} after the jar was closed and packed.`,
          next: 'If it went in before, correct the time of the entry. Otherwise set the jar aside.',
        }),
      );
  }
}

/**
 * Whether a jar had cooled long enough by an entry. A doubtful time proves nothing; jars whose lifting is doubtful cool
 * from the latest it can have been.
 */
export const hasCooled = (by: Trace, lifted: Trace): boolean =>
  !by.doubtful && by.at_ms - lifted.latest_ms >= PRESS_AFTER_HOURS * HOUR_MS;

/**
 * Only a press after the jar's last load was lifted says anything about its seal. One that failed stays failed until
 * the jar is processed again; one that comes before the jar has cooled finds failures, and proves nothing.
 */
function pressJars(byType: ByType, liftedOf: (jar: JarState) => Trace | null, named: NameJars): void {
  for (const s of byType['jars.pressed'] ?? []) {
    const { sealed, failed, how } = s.event.body;
    const mark = (numbers: number[], isSealed: boolean) => {
      for (const jar of named(numbers, s, 'pressed')) {
        const lifted = liftedOf(jar);
        if (!lifted || s.at_ms < lifted.at_ms || jar.pressed?.sealed === false) continue;
        if (isSealed && jar.pressed && hasCooled(jar.pressed.by, lifted)) continue;
        jar.pressed = { sealed: isSealed, how, by: s.trace };
      }
    };
    mark(sealed, true);
    // A jar named in both counts as failed.
    mark(failed, false);
  }
}

/** Jars that left: set aside, opened for a reading, taken into the kitchen, put in the cold until they go in again. */
function takeAway(
  byType: ByType,
  loads: readonly LoadState[],
  readings: BatchState['readings'],
  known: ReadonlyMap<number, JarState>,
  named: NameJars,
): void {
  for (const s of byType['jars.set_aside'] ?? [])
    for (const jar of named(s.event.body.jars, s, 'set aside'))
      jar.setAside ??= { why: s.event.body.why, by: s.trace };
  for (const s of byType['jars.taken'] ?? [])
    for (const jar of named(s.event.body.jars, s, 'taken'))
      jar.setAside ??= { why: 'used in the kitchen', by: s.trace };
  for (const s of byType['jars.moved'] ?? [])
    for (const jar of named(s.event.body.jars, s, 'moved')) {
      const load = loads.find(l => l.id === jar.loadIds.at(-1));
      if (!load || load.packed.at_ms < s.at_ms) jar.setAside ??= { why: s.event.body.to, by: s.trace };
    }
  for (const { jar: number, hours, by } of readings) {
    const jar = known.get(number);
    if (!jar || hours === null) continue;
    // One that was released after it was read was not the one that was opened: no later rule takes it back.
    const released = (byType['jars.released'] ?? []).some(
      s => s.at_ms > by.at_ms && s.event.body.jars.includes(number),
    );
    if (!released) jar.setAside ??= { why: 'tested', by };
  }
}

/**
 * Of each jar the heaviest weighing: less in it would be more solids, so that a lighter one afterwards proves nothing. One
 * that was misread is corrected, which takes a signature.
 */
function heaviest(weighed: BatchState['nets']): BatchState['nets'] {
  const most = new Map<number, BatchState['nets'][number]>();
  for (const n of weighed) if (n.net_g > (most.get(n.jar)?.net_g ?? 0)) most.set(n.jar, n);
  const left_g = Math.max(0, ...weighed.map(n => n.left_g));
  return [...most.values()].map(n => ({ ...n, left_g }));
}
