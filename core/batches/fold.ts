import { type Names, byName, rangesText } from '../measure/index.ts';
import {
  type BatchEvent,
  type EventType,
  type StartedBody,
  correctedInstant_ms,
  isDecision,
  upgradeStarted,
} from './events.ts';
import { type ByType, type CountedEntry, deviation, inOrder } from './counted.ts';
import { deriveLoads } from './loads.ts';
import type { BatchState, Deviation, JarState, Trace } from './state.ts';

/**
 * The state of a batch from its events. Pure: reads nothing else, and gives the same state for the same set of events
 * in whatever order, however often each was delivered.
 *
 * @param events  entries of one batch
 * @returns plain data, safe to store and send
 * @example
 * const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
 * batch.add('jars.filled', { size: 'half-pint', jars: [1, 2], jarLotId: null, lidLotId: null });
 * fold(batch.events).jars.map(jar => jar.number); // [1, 2]
 */
export function fold(events: readonly BatchEvent[]): BatchState {
  const { standing, corrections } = settleCorrections(events);
  const byType = byName() as ByType;
  for (const s of standing) ((byType[s.event.type] ??= []) as CountedEntry[]).push(s);
  const of = <K extends EventType>(type: K) =>
    (byType[type] ?? []) as (CountedEntry & { event: BatchEvent<K> })[];

  const first = of('batch.started')[0];
  const added = of('line.added').map(s => ({ line: s.event.body.line, by: s.trace }));
  const started = first ? { ...withLines(upgradeStarted(first.event.body), added), by: first.trace } : null;
  const deviations: Deviation[] = [];

  const reversed = new Set(of('draw.reversed').map(s => s.event.body.drawId));
  const draws = of('lot.drawn')
    .filter(s => !reversed.has(s.event.id))
    .map(s => ({ drawId: s.event.id, by: s.trace, lots: s.event.body.lots }));

  const steps: BatchState['steps'] = byName();
  const step = (id: string) => (steps[id] ??= { started: null, done: null });
  for (const s of of('step.started')) step(s.event.body.stepId).started ??= s.trace;
  for (const s of of('step.done')) step(s.event.body.stepId).done ??= s.trace;

  const weighed: BatchState['weighed'] = byName();
  for (const s of of('line.weighed')) {
    const before = weighed[s.event.body.lineId]?.mass_g ?? 0;
    weighed[s.event.body.lineId] = { mass_g: before + s.event.body.mass_g, by: s.trace };
  }

  const measures: BatchState['measures'] = byName();
  for (const s of of('measure.taken')) {
    const { stepId, quantity, unit } = s.event.body;
    measures[stepId] = { quantity, unit, by: s.trace };
  }

  if (started && !started.recipe.sketch)
    for (const { line, by } of added) {
      const free = (line.role === 'spice' && line.freshFactor > 1) || line.role === 'salt';
      deviations.push(
        deviation({
          key: `line_added:${by.eventId}`,
          code: 'line_added',
          jars: null,
          what: `${line.name} went in, and the recipe does not name it.`,
          next: free
            ? 'Settle it with the reason, and write it into the recipe.'
            : 'The authority covers the recipe as it stands. If it was entered by mistake, take the entry back; else the batch stays held.',
          canSettle: free,
        }),
      );
    }
  if (started) deviations.push(...unknownThings(standing, started));
  const jars = fillJars(byType, deviations);
  const known = new Map(jars.map(j => [j.number, j]));
  /** The jars an entry names that exist; the others open a deviation. */
  const named = (numbers: number[], s: CountedEntry, doing: string): JarState[] => {
    const missing = numbers.filter(n => !known.has(n));
    if (missing.length > 0) {
      deviations.push(
        deviation({
          key: `unknown_jar:${s.event.id}`,
          code: 'unknown_jar',
          jars: [],
          what: `Jar ${rangesText(missing)} was ${doing} but never recorded as filled.`,
          next: 'Record the filling, or correct the entry.',
          canSettle: false,
        }),
      );
    }
    return numbers.flatMap(n => known.get(n) ?? []);
  };

  for (const s of of('dose.given'))
    for (const jar of named(s.event.body.jars, s, 'dosed')) jar.doses[s.event.body.lineId] ??= 'given';
  for (const s of of('dose.missed'))
    for (const jar of named(s.event.body.jars, s, 'named')) jar.doses[s.event.body.lineId] = 'missed';
  for (const s of of('jars.set_aside')) {
    for (const jar of named(s.event.body.jars, s, 'set aside'))
      jar.setAside ??= { why: s.event.body.why, by: s.trace };
  }
  for (const s of of('jars.taken')) {
    for (const jar of named(s.event.body.jars, s, 'taken'))
      jar.setAside ??= { why: 'used in the kitchen', by: s.trace };
  }
  const loads = deriveLoads(byType, started, known, named, deviations);
  pressJars(byType, jars, loads, named);

  for (const s of of('ph.read')) named([s.event.body.jar], s, 'measured');
  for (const jar of jars) {
    const missed = Object.entries(jar.doses).filter(([, dose]) => dose === 'missed');
    for (const [lineId] of missed) {
      const line = started?.recipe.lines.find(l => l.id === lineId);
      if (line?.role !== 'acid') continue;
      const key = `dose_missed:${lineId}:${jar.number}`;
      deviations.push(
        deviation({
          key,
          code: 'dose_missed',
          jars: [jar.number],
          what: `Jar ${jar.number} was closed without its ${line.name}.`,
          next: 'Set the jar aside: an acid that is missing cannot be settled afterwards.',
          canSettle: false,
        }),
      );
    }
  }
  for (const s of of('deviation.settled')) {
    const target = deviations.find(d => d.key === s.event.body.key && d.canSettle);
    if (target) target.settled = { reason: s.event.body.reason, by: s.trace };
  }

  return {
    started,
    draws,
    steps,
    weighed,
    added,
    measures,
    yieldReasons: of('yield.explained').map(s => ({ reason: s.event.body.reason, by: s.trace })),
    jars,
    loads,
    deviations,
    corrections,
    temperatures: of('temperature.read').map(s => ({
      where: s.event.body.where,
      temp_C: s.event.body.temp_C,
      by: s.trace,
    })),
    readings: of('ph.read').map(s => ({ ...s.event.body, by: s.trace })),
    minutes: [...of('minutes.worked'), ...of('minutes.shared'), ...of('kitchen.worked')]
      .sort(inOrder)
      .map(s => ({
        minutes: s.event.body.minutes,
        kind: s.event.type === 'kitchen.worked' ? ('kitchen' as const) : ('batch' as const),
        with: s.event.type === 'minutes.shared' ? s.event.body.with : [],
        by: s.trace,
      })),
    energy: of('energy.used').map(s => ({ ...s.event.body, by: s.trace })),
    returns: of('lots.returned').map(s => ({ ...s.event.body, by: s.trace })),
    taken: of('jars.taken').map(s => ({ jars: s.event.body.jars, lotId: s.event.body.lotId, by: s.trace })),
    notes: of('note.written').map(s => ({ text: s.event.body.text, by: s.trace })),
    releases: of('jars.released').map(s => ({
      jars: s.event.body.jars,
      evidence: s.event.body.evidence,
      by: s.trace,
    })),
    labels: of('labels.printed').map(s => ({
      eventId: s.event.id,
      jars: s.event.body.jars,
      label: s.event.body.label,
      by: s.trace,
    })),
  };
}

/** What entries name that the batch does not have: stored all the same, and held until a person says what was meant. */
function unknownThings(standing: readonly CountedEntry[], started: StartedBody): Deviation[] {
  const { recipe, kitchen } = started;
  const has = {
    step: new Set(recipe.steps.map(s => s.id)),
    line: new Set(recipe.lines.map(l => l.id)),
    burner: new Set(kitchen.costs.burners.map(b => b.id)),
  };
  const out: Deviation[] = [];
  for (const { event } of standing) {
    const named = thingNamed(event);
    // A sketch is written down while it is cooked: it has no lines or steps yet that could be missed.
    if (!named || has[named.kind].has(named.id) || (recipe.sketch && named.kind !== 'burner')) continue;
    out.push(
      deviation({
        key: `unknown_${named.kind}:${event.id}`,
        code: `unknown_${named.kind}`,
        jars: named.jars,
        what: `An entry names a ${named.kind} that this batch does not have: "${named.id.slice(0, 60)}".`,
        next: 'Correct or take back the entry; or settle it with what was meant.',
        canSettle: true,
      }),
    );
  }
  return out;
}

function thingNamed(
  event: BatchEvent,
): { kind: 'step' | 'line' | 'burner'; id: string; jars: number[] | null } | null {
  switch (event.type) {
    case 'step.started':
    case 'step.done':
    case 'measure.taken':
      return { kind: 'step', id: event.body.stepId, jars: null };
    case 'line.weighed':
      return { kind: 'line', id: event.body.lineId, jars: null };
    case 'dose.given':
    case 'dose.missed':
      return { kind: 'line', id: event.body.lineId, jars: event.body.jars };
    case 'energy.used':
      return { kind: 'burner', id: event.body.burnerId, jars: [] };
    default:
      return null;
  }
}

/** Lines added while cooking stand among the recipe's, so that they are drawn, weighed, costed and labelled alike. */
function withLines(started: StartedBody, added: BatchState['added']): StartedBody {
  const known = new Set(started.recipe.lines.map(l => l.id));
  const more = added.map(a => a.line).filter(l => !known.has(l.id) && known.add(l.id));
  return more.length === 0
    ? started
    : { ...started, recipe: { ...started.recipe, lines: [...started.recipe.lines, ...more] } };
}

/** Sorts, drops repeats, and puts corrected entries in the place of those they correct. */
function settleCorrections(events: readonly BatchEvent[]): {
  standing: CountedEntry[];
  corrections: Names<string>;
} {
  const unique = new Map<string, BatchEvent>();
  for (const event of events) unique.set(event.id, event);
  const sorted = [...unique.values()]
    .map(event => ({ event, at_ms: correctedInstant_ms(event) }))
    .sort(inOrder);
  const corrections: Names<string> = byName();
  const latest = new Map<string, BatchEvent<'entry.corrected'>>();
  for (const { event } of sorted) {
    if (event.type !== 'entry.corrected') continue;
    const original = unique.get(event.body.replaces);
    if (original && (isDecision(original.type) || original.type !== event.body.type)) continue;
    latest.set(event.body.replaces, event);
    corrections[event.body.replaces] = event.id;
  }
  const standing: CountedEntry[] = [];
  let moved = false;
  for (const { event, at_ms } of sorted) {
    if (event.type === 'entry.corrected') {
      standing.push({ event, at_ms, trace: traceOf(event, at_ms) });
      continue;
    }
    const by = latest.get(event.id);
    if (!by) {
      standing.push({ event, at_ms, trace: traceOf(event, at_ms) });
      continue;
    }
    if (by.body.body === null) continue;
    const retimed =
      by.body.occurredAt === null ? {} : { occurredAt: by.body.occurredAt, typedInAfterwards: true };
    const corrected = { ...event, ...retimed, body: by.body.body } as BatchEvent;
    const correctedAt = correctedInstant_ms(corrected);
    moved ||= correctedAt !== at_ms;
    standing.push({ event: corrected, at_ms: correctedAt, trace: traceOf(corrected, correctedAt) });
  }
  if (moved) standing.sort(inOrder);
  return { standing, corrections };
}

function traceOf(event: BatchEvent, at_ms: number): Trace {
  return { eventId: event.id, personId: event.personId, at_ms, typed: event.typedInAfterwards };
}

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
          canSettle: false,
        }),
      );
    }
    for (const number of s.event.body.jars) {
      if (jars.has(number)) continue;
      jars.set(number, {
        number,
        size: s.event.body.size,
        jarLotId: s.event.body.jarLotId,
        lidLotId: s.event.body.lidLotId,
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

/** Only a press after the jar's last load was lifted says anything about its seal; the last press counts. */
function pressJars(
  byType: ByType,
  jars: JarState[],
  loads: BatchState['loads'],
  named: (n: number[], s: CountedEntry, doing: string) => JarState[],
): void {
  const liftedAt = new Map<number, number>();
  for (const jar of jars) {
    const load = loads.find(l => l.id === jar.loadIds.at(-1));
    if (load?.lifted) liftedAt.set(jar.number, load.lifted.at_ms);
  }
  for (const s of byType['jars.pressed'] ?? []) {
    const { sealed, failed } = s.event.body;
    const mark = (numbers: number[], isSealed: boolean) => {
      for (const jar of named(numbers, s, 'pressed')) {
        const lifted = liftedAt.get(jar.number);
        if (lifted !== undefined && s.at_ms >= lifted) jar.pressed = { sealed: isSealed, by: s.trace };
      }
    };
    mark(sealed, true);
    // A jar named in both counts as failed.
    mark(failed, false);
  }
}
