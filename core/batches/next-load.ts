import { fitting, type Holds, type JarSizeId, rackShare, roomFor, USUAL_HOLDS } from '../jars/index.ts';
import type { Canner } from '../kitchen/index.ts';
import { type ScheduledTime, steamFault } from '../times/index.ts';
import type { BatchState, JarState } from './state.ts';

/** Jars that may go in the canner next: never processed, or short, failed or in doubt before; those in the cold too. */
export function loadable(state: Pick<BatchState, 'jars' | 'loads' | 'deviations'>): JarState[] {
  const loads = new Map(state.loads.map(l => [l.id, l]));
  return state.jars.filter(j => {
    // What stands in the cold may go in again; the gate asks for the whole time all the same.
    if (j.setAside) return j.setAside.why === 'refrigerator' || j.setAside.why === 'freezer';
    const load = loads.get(j.loadIds.at(-1) ?? '');
    if (!load) return true;
    return (
      load.lifted !== null &&
      (load.phase !== 'processed' ||
        j.pressed?.sealed === false ||
        state.deviations.some(d => !d.settled && d.loadId === load.id && d.jars?.includes(j.number)))
    );
  });
}

/** A canner as it stands ready for the next load. */
export interface NextLoad {
  /** The kitchen's canner; null for one that it has not written down. */
  canner: Canner | null;
  heat: Canner['kind'];
  holds: Holds;
  /** A load of this batch is in it. */
  busy: boolean;
  /** Jars that go in now, in the order in which they were filled. */
  jars: JarState[];
  /** Jars that no load of it may take, with the reason: no time in steam, or no room for their size. */
  unfit: { size: JarSizeId; why: string }[];
}

/** What stands for a canner where a kitchen has none of a kind on record. */
const unnamed = (heat: Canner['kind']) => ({ canner: null, heat, holds: USUAL_HOLDS });

/**
 * What each canner takes next: no more jars than stand in it at once, none whose time was not tested for its heat. Free
 * ones come first, those of the heat the batch was started with before the others.
 *
 * @param canners  of the kitchen
 * @returns one entry for each canner, at least one
 * @throws RangeError when the batch has not been started
 */
export function nextLoads(
  state: Pick<BatchState, 'started' | 'jars' | 'loads' | 'deviations'>,
  canners: readonly Canner[],
): NextLoad[] {
  const { started } = state;
  if (!started) throw new RangeError('nextLoads: the batch has not been started');
  const all = loadable(state);
  const fresh = all.filter(j => j.loadIds.length === 0);
  // Fresh jars and jars that go back in are separate loads.
  const waiting = fresh.length > 0 ? fresh : all;
  const inUse = new Set(state.loads.filter(l => !l.lifted).map(l => l.cannerId));
  const known = canners.map(canner => ({ canner, heat: canner.kind, holds: canner.holds }));
  const there = known.some(c => c.heat === started.heat) ? known : [...known, unnamed(started.heat)];
  const timeOf = (size: JarSizeId) => started.times.find(t => t.jarSize === size);
  const loads = there.map(c => {
    const unfit = new Map<JarSizeId, string>();
    for (const { size } of waiting) {
      const time = timeOf(size);
      const untested = c.heat === 'steam' && time ? steamFault(time) : null;
      if (untested) unfit.set(size, untested);
      else if (!c.holds[size]) unfit.set(size, 'no-room');
    }
    // The only canner is the one that is meant where nobody said which.
    const busy = inUse.has(c.canner?.id ?? null) || (there.length === 1 && inUse.size > 0);
    return {
      ...c,
      busy,
      jars: fitting(
        c.holds,
        waiting.filter(j => !unfit.has(j.size)),
      ),
      unfit: [...unfit].map(([size, why]) => ({ size, why })),
    };
  });
  const rank = (l: NextLoad) =>
    (l.busy ? 4 : 0) + (l.jars.length === 0 ? 2 : 0) + (l.heat === started.heat ? 0 : 1);
  return loads.sort((a, b) => rank(a) - rank(b));
}

/** A load as it is about to be packed: what it runs for, and what else there is to say of it. */
export interface LoadPlan {
  times: ScheduledTime[];
  /** Minutes of the longest of its times; null where a jar has none. */
  minutes: number | null;
  /** Sizes that alone would take less; empty where all take the same. */
  shorter: { size: JarSizeId; minutes: number }[];
  /** Jars more than stand in it. */
  over: number;
  /** Places that stay free: jars of water keep the others upright. */
  free: number;
}

/** What a load of these jars comes to in a canner. */
export function loadPlan(
  state: Pick<BatchState, 'started'>,
  load: Pick<NextLoad, 'holds'>,
  jars: readonly JarState[],
): LoadPlan {
  const sizes = [...new Set(jars.map(j => j.size))];
  const found = sizes.map(size => state.started?.times.find(t => t.jarSize === size));
  const times = found.filter(t => t !== undefined);
  const minutes =
    times.length < sizes.length || times.length === 0 ? null : Math.max(...times.map(t => t.minutes));
  const inside = jars.map(j => j.size);
  const least = sizes[0];
  return {
    times,
    minutes,
    shorter:
      minutes === null
        ? []
        : times.filter(t => t.minutes < minutes).map(t => ({ size: t.jarSize, minutes: t.minutes })),
    over: rackShare(load.holds, inside) > 1 + 1e-9 ? jars.length - fitting(load.holds, jars).length : 0,
    free: least ? roomFor(load.holds, least, inside) : 0,
  };
}
