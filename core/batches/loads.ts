import { rackShare } from '../jars/index.ts';
import { durationText, rangesText } from '../measure/index.ts';
import { type ScheduledTime, steamLoadFault } from '../times/index.ts';
import { type ByType, deviation } from './counted.ts';
import type { BatchEvent } from './events.ts';
import { type PlacedEntry, type Elapsed, elapsedBetween, inOrder, seqOf } from './evidence.ts';
import type { BatchState, Deviation, JarState, LoadState } from './state.ts';

type LoadEvent = 'load.boiling' | 'load.boil_lost' | 'load.heat_off' | 'load.lifted';
type NameJars = (numbers: number[], s: PlacedEntry, doing: string) => JarState[];
type Stove = PlacedEntry & { event: BatchEvent<LoadEvent> };
type Settlement = PlacedEntry & { event: BatchEvent<'deviation.settled'> };

/**
 * What is taken off where nobody said when the heat went off: ten minutes, twice the common rest of five
 * (common practice, no source). */
export const FORGOTTEN_REST_S = 600;

/** Shares of mixed sizes leave gaps that a smaller jar takes. Our choice, from no source. */
const MORE_THAN_FULL = 1.2;

/**
 * Loads with their clocks. The time of a load runs from the last full boil before its first end to that end: the heat
 * going off, or lifting where that was not recorded, less the longest rest. Losing the boil voids it; it counts only
 * when continuous, verified and long enough.
 */
export function deriveLoads(
  byType: ByType,
  started: BatchState['started'],
  outlets: BatchState['outlets'],
  known: Map<number, JarState>,
  named: NameJars,
  deviations: Deviation[],
): LoadState[] {
  const loads = new Map<string, LoadState>();
  for (const s of byType['load.packed'] ?? []) {
    const { loadId, number, jars: numbers, newLidLotId, cannerId, heat } = s.event.body;
    if (loads.has(loadId)) {
      deviations.push(
        deviation({
          key: `packed_twice:${s.event.id}`,
          code: 'packed_twice',
          jars: numbers,
          what: `Load ${number} was recorded as packed twice.`,
          next: 'Correct one of the two entries.',
        }),
      );
      continue;
    }
    const jars = named(numbers, s, 'put in the canner');
    const times = timesOf(jars, started, outlets);
    const heated = heat ?? started?.heat ?? 'boiling water';
    for (const jar of jars) {
      jar.loadIds.push(loadId);
      if (newLidLotId) jar.lidLotId = newLidLotId;
    }
    loads.set(loadId, {
      id: loadId,
      number,
      jars: numbers.filter(n => known.has(n)),
      newLidLotId,
      cannerId,
      heat: heated,
      packed: s.trace,
      phase: 'packed',
      // It runs for the longest of its jars' times.
      required_s: times && Math.max(...times.map(t => t.minutes * 60)),
      boilingSince: null,
      voided_s: [],
      lost: [],
      time_s: null,
      timeHow: '',
      heatOff: null,
      lifted: null,
      echoes: [],
    });
    const sizes = jars.map(j => j.size);
    const share = fullest(started, cannerId, sizes);
    // What stands in a canner is its owner's figure: a jar more than reckoned may still find a place among mixed sizes.
    if (share !== null && share > MORE_THAN_FULL)
      deviations.push(
        deviation({
          key: `overfull:${loadId}`,
          code: 'overfull',
          jars: numbers,
          what: `Load ${number} was recorded with ${jars.length} jars (${rangesText(numbers)}), more than stand in its canner at once.`,
          next: 'Correct the load to the jars that were in it. If all of them stood in it, covered, settle it with the reason, and correct what the canner holds.',
          settles: 'reason',
          loadId,
        }),
      );
    const unfit = heated === 'steam' && times ? steamLoadFault(times) : null;
    if (unfit)
      deviations.push(
        deviation({
          key: `steam:${loadId}`,
          code: 'steam_untested',
          jars: numbers,
          what: `Load ${number} (jars ${rangesText(numbers)}) was put in steam. ${unfit}`,
          next: 'Within 24 h put the jars in boiling water with new lids as a new load, or refrigerate them; correct the entry if it was water.',
          loadId,
        }),
      );
  }
  const timelines = new Map<string, Stove[]>();
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
            next: 'Record which jars were in it, or take the entry back.',
          }),
        );
        continue;
      }
      const list = timelines.get(id) ?? [];
      list.push(s as Stove);
      timelines.set(id, list);
    }
  }
  const settlements = byType['deviation.settled'] ?? [];
  for (const [id, timeline] of timelines)
    runClock(loads.get(id) as LoadState, timeline, settlements, deviations);
  return [...loads.values()].sort((a, b) => a.number - b.number || (a.id < b.id ? -1 : 1));
}

/**
 * How full its canner is with these: of the one that is named, or where none is, of the one among the kitchen's that takes
 * most; null where nobody kept what they hold.
 */
function fullest(
  started: BatchState['started'],
  cannerId: string | null,
  sizes: readonly JarState['size'][],
): number | null {
  const known = (started?.equipment.canners ?? []).flatMap(c =>
    c.holds ? [{ id: c.id, holds: c.holds }] : [],
  );
  const named = known.filter(c => c.id === cannerId);
  const among = named.length > 0 ? named : known;
  return among.length === 0 ? null : Math.min(...among.map(c => rackShare(c.holds, sizes)));
}

/** The times of the jars of a load; null where one of them has none. */
function timesOf(
  jars: readonly JarState[],
  started: BatchState['started'],
  outlets: BatchState['outlets'],
): ScheduledTime[] | null {
  const times = jars.map(jar =>
    (jar.outletId === null ? started?.times : outlets.find(o => o.outletId === jar.outletId)?.times)?.find(
      t => t.jarSize === jar.size,
    ),
  );
  return times.length === 0 || times.includes(undefined) ? null : (times as ScheduledTime[]);
}

/** Whether a device that made an entry had not yet seen another: what it says is then no second event, but an echo. */
const unseen = (later: BatchEvent, earlier: BatchEvent): boolean =>
  later.deviceId !== earlier.deviceId && earlier.receipt !== null && later.basedOnSeq < seqOf(earlier);

const WORDS: Record<LoadEvent, string> = {
  'load.boiling': 'a full boil',
  'load.boil_lost': 'a lost boil',
  'load.heat_off': '"heat off"',
  'load.lifted': '"lifted"',
};

function runClock(
  load: LoadState,
  unsorted: Stove[],
  settlements: readonly Settlement[],
  deviations: Deviation[],
): void {
  let run: Stove | null = null;
  let end: Stove | null = null;
  let last: Stove | null = null;
  let measured: Elapsed | null = null;
  const where = load.jars.length === 0 ? '' : ` (jars ${rangesText(load.jars)})`;
  const against = (s: Stove, code: string, other: Stove | null) =>
    deviations.push(
      deviation({
        key: `${code}:${s.event.id}`,
        code,
        jars: load.jars,
        loadId: load.id,
        what: other
          ? `Load ${load.number}${where}: ${WORDS[s.event.type]} was entered, after ${WORDS[other.event.type]} of the same load.`
          : `Load ${load.number}${where}: ${WORDS[s.event.type]} was entered, and no boil before it.`,
        next: 'Take back or correct the one that is wrong; jars that went back in are a new load.',
      }),
    );
  for (const s of [...unsorted].sort(inOrder)) {
    const { type } = s.event;
    if (type === 'load.lifted') {
      if (load.lifted) {
        if (unseen(s.event, (last as Stove).event)) load.echoes.push(s.trace);
        else against(s, 'second_end', last);
        continue;
      }
      load.lifted = s.trace;
      if (!end && run) measured = lessTheRest(elapsedBetween(run, s));
      end ??= s;
      last = s;
    } else if (end) {
      if (type === 'load.heat_off' && unseen(s.event, end.event)) load.echoes.push(s.trace);
      else
        against(s, load.lifted ? 'after_lift' : type === 'load.heat_off' ? 'second_end' : 'after_end', end);
    } else if (type === 'load.boiling') {
      run = s;
      load.boilingSince = s.trace;
      load.phase = 'boiling';
    } else if (type === 'load.boil_lost') {
      if (!run) {
        against(s, 'lost_outside', null);
        continue;
      }
      load.voided_s.push(elapsedBetween(run, s).time_s);
      load.lost.push((s.event as BatchEvent<'load.boil_lost'>).body.lost);
      run = null;
      load.boilingSince = null;
      load.phase = 'boil lost';
    } else {
      end = s;
      last = s;
      load.heatOff = s.trace;
      measured = run && elapsedBetween(run, s);
      load.phase = 'resting';
    }
  }
  if (end) judge(load, measured, end, settlements, deviations);
}

/** Lifted without a word of the heat: the jars may have stood the longest rest in water that no longer boiled. */
const lessTheRest = (whole: Elapsed): Elapsed => ({
  ...whole,
  time_s: Math.max(0, whole.time_s - FORGOTTEN_REST_S),
  how: `${whole.how}; when the heat went off was not entered, ${durationText(FORGOTTEN_REST_S)} are taken off`,
});

/** Says what the finished time was worth. */
function judge(
  load: LoadState,
  measured: Elapsed | null,
  end: Stove,
  settlements: readonly Settlement[],
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
        loadId: load.id,
      }),
    );
    return;
  }
  if (measured && !measured.verified) {
    const key = `time_unverified:${load.id}`;
    // One that came before the load ended cannot have seen it; of several the first stands.
    const settled = settlements
      .filter(s => s.event.body.key === key && s.event.body.minutes !== null && maySettle(s, end))
      .sort((a, b) => seqOf(a.event) - seqOf(b.event))[0];
    deviations.push(
      deviation({
        key,
        code: 'time_unverified',
        jars: load.jars,
        what: `The time of load ${load.number}${where} is unverified: ${measured.how}.`,
        next: 'Settle it with the minutes you saw on another clock, or reprocess with new lids.',
        settles: 'minutes',
        settled: settled ? { reason: settled.event.body.reason, by: settled.trace } : null,
        loadId: load.id,
      }),
    );
    if (!settled) {
      if (load.lifted) load.phase = 'unverified';
      return;
    }
    load.time_s = (settled.event.body.minutes as number) * 60;
    load.timeHow = 'settled by a person, by another clock';
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
        loadId: load.id,
      }),
    );
    return;
  }
  if (load.lifted) load.phase = 'processed';
}

/**
 * Whether a settlement can settle something: it came after it, in the world and at the server, from somebody with the
 * right to sign.
 */
export function maySettle(settlement: PlacedEntry, settled: Pick<PlacedEntry, 'event' | 'at_ms'>): boolean {
  const { receipt } = settlement.event;
  return (
    settlement.at_ms >= settled.at_ms &&
    seqOf(settlement.event) >= seqOf(settled.event) &&
    receipt !== null &&
    receipt.signs !== false
  );
}
