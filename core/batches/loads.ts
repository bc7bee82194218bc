import { durationText, rangesText } from '../measure/index.ts';
import { type Elapsed, elapsedBetween } from './events.ts';
import { type ByType, type CountedEntry, deviation, inOrder } from './counted.ts';
import type { BatchState, Deviation, JarState, LoadState } from './state.ts';

type LoadEvent = 'load.boiling' | 'load.boil_lost' | 'load.heat_off' | 'load.lifted';
type NameJars = (numbers: number[], s: CountedEntry, doing: string) => JarState[];

/**
 * Loads with their clocks. The time of a load runs from the full boil to the heat going off (or to lifting where that
 * was not recorded); losing the boil voids it; it counts only when continuous, verified and long enough.
 */
export function deriveLoads(
  byType: ByType,
  started: BatchState['started'],
  known: Map<number, JarState>,
  named: NameJars,
  deviations: Deviation[],
): LoadState[] {
  const loads = new Map<string, LoadState>();
  for (const s of byType['load.packed'] ?? []) {
    const { loadId, number, jars: numbers, newLidLotId } = s.event.body;
    if (loads.has(loadId)) {
      deviations.push(
        deviation({
          key: `packed_twice:${s.event.id}`,
          code: 'packed_twice',
          jars: numbers,
          what: `Load ${number} was recorded as packed twice.`,
          next: 'Correct one of the two entries.',
          canSettle: false,
        }),
      );
      continue;
    }
    for (const jar of named(numbers, s, 'put in the canner')) {
      jar.loadIds.push(loadId);
      if (newLidLotId) jar.lidLotId = newLidLotId;
    }
    loads.set(loadId, {
      id: loadId,
      number,
      jars: numbers.filter(n => known.has(n)),
      newLidLotId,
      phase: 'packed',
      required_s: requiredSeconds(
        numbers.flatMap(n => known.get(n) ?? []),
        started,
      ),
      boilingSince: null,
      voided_s: [],
      time_s: null,
      timeHow: '',
      heatOff: null,
      lifted: null,
    });
  }
  const timelines = new Map<string, (CountedEntry & { kind: LoadEvent })[]>();
  for (const kind of ['load.boiling', 'load.boil_lost', 'load.heat_off', 'load.lifted'] as const) {
    for (const s of byType[kind] ?? []) {
      const id = s.event.body.loadId;
      if (!loads.has(id)) {
        deviations.push(
          deviation({
            key: `unknown_load:${s.event.id}`,
            code: 'unknown_load',
            jars: [],
            what: 'A load was timed that was never packed.',
            next: 'Record which jars were in it.',
            canSettle: false,
          }),
        );
        continue;
      }
      const list = timelines.get(id) ?? [];
      list.push({ ...s, kind });
      timelines.set(id, list);
    }
  }
  const settlements = (byType['deviation.settled'] ?? []).map(s => s.event.body);
  for (const [id, timeline] of timelines)
    runClock(loads.get(id) as LoadState, timeline, settlements, deviations);
  for (const jar of known.values()) overlapFault(jar, loads, deviations);
  return [...loads.values()].sort((a, b) => a.number - b.number || (a.id < b.id ? -1 : 1));
}

function requiredSeconds(jars: JarState[], started: BatchState['started']): number | null {
  let longest = 0;
  for (const jar of jars) {
    const time = started?.times.find(t => t.jarSize === jar.size);
    if (!time) return null;
    longest = Math.max(longest, time.minutes * 60);
  }
  return jars.length === 0 ? null : longest;
}

function runClock(
  load: LoadState,
  unsorted: (CountedEntry & { kind: LoadEvent })[],
  settlements: { key: string; minutes: number | null }[],
  deviations: Deviation[],
): void {
  const timeline = [...unsorted].sort(inOrder);
  let run: CountedEntry | null = null;
  let measured: Elapsed | null = null;
  for (const s of timeline) {
    if (s.kind === 'load.lifted') {
      if (run && !load.heatOff) measured = elapsedBetween(run.event, s.event);
      load.lifted ??= s.trace;
    } else if (load.lifted) {
      deviations.push(
        deviation({
          key: `after_lift:${s.event.id}`,
          code: 'after_lift',
          jars: load.jars,
          what: `Load ${load.number} has an entry at the stove after it was lifted.`,
          next: 'Correct the time of one of them; jars that went back in are a new load.',
          canSettle: false,
        }),
      );
    } else if (s.kind === 'load.boiling') {
      run = s;
      measured = null;
      load.heatOff = null;
      load.boilingSince = s.trace;
      load.phase = 'boiling';
    } else if (s.kind === 'load.boil_lost') {
      if (run) load.voided_s.push(elapsedBetween(run.event, s.event).time_s);
      run = null;
      measured = null;
      load.heatOff = null;
      load.boilingSince = null;
      load.phase = 'boil lost';
    } else {
      load.heatOff = s.trace;
      if (run) measured = elapsedBetween(run.event, s.event);
      load.phase = 'resting';
    }
  }
  if (!load.lifted && !load.heatOff) return;
  judge(load, measured, settlements, deviations);
}

/** Says what the finished time was worth. */
function judge(
  load: LoadState,
  measured: Elapsed | null,
  settlements: { key: string; minutes: number | null }[],
  deviations: Deviation[],
): void {
  load.time_s = measured?.time_s ?? 0;
  load.timeHow = measured?.how ?? 'no full boil was recorded';
  const where = load.jars.length === 0 ? '' : ` (jars ${rangesText(load.jars)})`;
  if (load.required_s === null) {
    if (load.lifted) load.phase = 'no time';
    deviations.push(
      deviation({
        key: `no_time:${load.id}`,
        code: 'no_time',
        jars: load.jars,
        what: `Load ${load.number}${where} holds a jar with no processing time.`,
        next: 'These jars are never released; use them up from the refrigerator.',
        canSettle: false,
        loadId: load.id,
      }),
    );
    return;
  }
  if (measured && !measured.verified) {
    const key = `time_unverified:${load.id}`;
    const settled = settlements.find(s => s.key === key && s.minutes !== null);
    deviations.push(
      deviation({
        key,
        code: 'time_unverified',
        jars: load.jars,
        what: `The time of load ${load.number}${where} is unverified: ${measured.how}.`,
        next: 'Settle it with the minutes you saw on another clock, or reprocess with new lids.',
        canSettle: true,
        loadId: load.id,
      }),
    );
    if (!settled) {
      if (load.lifted) load.phase = 'unverified';
      return;
    }
    load.time_s = (settled.minutes as number) * 60;
    load.timeHow = 'settled by a person';
  }
  if (load.time_s + 0.5 < load.required_s) {
    if (load.lifted) load.phase = 'short';
    deviations.push(
      deviation({
        key: `short:${load.id}`,
        code: 'short',
        jars: load.jars,
        what: `Load ${load.number}${where} boiled ${durationText(load.time_s)} of ${durationText(load.required_s)}.`,
        next: 'Within 24 h put the jars back with new lids as a new load, or refrigerate them.',
        canSettle: false,
        loadId: load.id,
      }),
    );
    return;
  }
  if (load.lifted) load.phase = 'processed';
}

/** A jar goes into a second load only after the first was lifted. */
function overlapFault(jar: JarState, loads: Map<string, LoadState>, deviations: Deviation[]): void {
  for (let i = 1; i < jar.loadIds.length; i++) {
    const before = loads.get(jar.loadIds[i - 1] as string);
    const after = loads.get(jar.loadIds[i] as string);
    if (!before || !after || before.lifted) continue;
    deviations.push(
      deviation({
        key: `two_loads:${jar.number}:${after.id}`,
        code: 'two_loads',
        jars: [jar.number],
        what: `Jar ${jar.number} is in load ${before.number} and load ${after.number} at once.`,
        next: 'Correct which load it went in.',
        canSettle: false,
      }),
    );
  }
}
