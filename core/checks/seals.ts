import { type BatchState, SUSPECT } from '../batches/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { type Share, chanceOfMore, wilson } from '../measure/index.ts';

/** Jars of one kind whose seals were tried: how many, and how many failed. */
export interface SealCount {
  lidLotId: string | null;
  size: JarSizeId;
  load: number;
  cannerId: string | null;
  /** As it was measured; null where it was as asked. */
  headspace_mm: number | null;
  tried: number;
  failed: number;
}

/**
 * How the seals of a batch held, counted by what may have to do with it. A jar that went in again under a new lid was tried
 * twice; one that was found open later failed then.
 */
export function sealCounts(state: BatchState): SealCount[] {
  const counts = new Map<string, SealCount>();
  const loads = new Map(state.loads.map(l => [l.id, l]));
  for (const jar of state.jars) {
    let lidLotId = jar.firstLidLotId;
    jar.loadIds.forEach((id, i) => {
      const load = loads.get(id);
      if (load?.newLidLotId) lidLotId = load.newLidLotId;
      if (!load?.lifted) return;
      const from_ms = load.lifted.at_ms;
      const until_ms = loads.get(jar.loadIds[i + 1] ?? '')?.packed.at_ms ?? Infinity;
      const presses = state.presses.filter(p => p.by.at_ms >= from_ms && p.by.at_ms <= until_ms);
      const failed =
        presses.some(p => p.failed.includes(jar.number)) || (until_ms === Infinity && wentBad(jar));
      if (!failed && !presses.some(p => p.sealed.includes(jar.number))) return;
      const of = {
        lidLotId,
        size: jar.size,
        load: load.number,
        cannerId: load.cannerId,
        headspace_mm: jar.headspace_mm,
      };
      const key = JSON.stringify(of);
      const count = counts.get(key) ?? { ...of, tried: 0, failed: 0 };
      counts.set(key, { ...count, tried: count.tried + 1, failed: count.failed + (failed ? 1 : 0) });
    });
  }
  return [...counts.values()];
}

const wentBad = ({ setAside }: BatchState['jars'][number]): boolean =>
  setAside !== null &&
  (setAside.why === 'seal failed' || (SUSPECT as readonly string[]).includes(setAside.why));

/** Seals of one group: of a lid lot, a size, a canner. */
export interface SealGroup extends Share {
  key: string;
  tried: number;
  failed: number;
}

/** Lids from which on a lot is judged. Our choice: below it one or two failures say nothing. */
export const LIDS_TO_JUDGE = 20;
/** How unlikely chance has to be before a lid lot is called worse. The usual level of a test. */
const WORSE_BELOW = 0.05;

/**
 * Seals by what they have in common, the worst first.
 *
 * @param keyOf  what a count belongs to; null leaves it out
 */
export function sealGroups(
  counts: readonly SealCount[],
  keyOf: (count: SealCount) => string | null,
): SealGroup[] {
  const sums = new Map<string, { tried: number; failed: number }>();
  for (const count of counts) {
    const key = keyOf(count);
    if (key === null) continue;
    const sum = sums.get(key) ?? { tried: 0, failed: 0 };
    sums.set(key, { tried: sum.tried + count.tried, failed: sum.failed + count.failed });
  }
  return [...sums]
    .map(([key, sum]) => ({ key, ...sum, ...wilson(sum.failed, sum.tried) }))
    .sort((a, b) => b.share - a.share || b.tried - a.tried);
}

/** A lid lot that fails more often than chance, beside the kitchen's other lids. */
export interface WorseLids {
  lidLotId: string;
  tried: number;
  failed: number;
  othersTried: number;
  othersFailed: number;
  /** How likely so many failures are where the lot is no worse. */
  chance: number;
}

/**
 * Lid lots that are worse than chance: Fisher's exact test, one-sided, each lot against all other lids at 5 %, from 20 lids on.
 *
 * @example
 * const count = (lidLotId, tried, failed) => ({ lidLotId, tried, failed, size: 'pint', load: 1, cannerId: null, headspace_mm: null });
 * worseLids([count('a', 24, 4), count('b', 120, 1)]).map(w => w.lidLotId); // ['a']
 */
export function worseLids(counts: readonly SealCount[]): WorseLids[] {
  const groups = sealGroups(counts, c => c.lidLotId);
  const [tried, failed] = [
    groups.reduce((sum, g) => sum + g.tried, 0),
    groups.reduce((sum, g) => sum + g.failed, 0),
  ];
  return groups.flatMap(g => {
    const [othersTried, othersFailed] = [tried - g.tried, failed - g.failed];
    if (g.tried < LIDS_TO_JUDGE || othersTried === 0) return [];
    const chance = chanceOfMore(g.failed, g.tried, othersFailed, othersTried);
    return chance < WORSE_BELOW
      ? [{ lidLotId: g.key, tried: g.tried, failed: g.failed, othersTried, othersFailed, chance }]
      : [];
  });
}
