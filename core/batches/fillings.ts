import { type Day, dayOf } from '../measure/index.ts';
import { jarLotCode } from './lot-code.ts';
import type { BatchState, JarState } from './state.ts';

/** Jars that were filled in one go: those of another day are a lot of their own within the batch. */
export interface Filling {
  /** The lot code of the batch, with a letter from the second filling on. */
  lotCode: string;
  /** The day it was filled, in the kitchen's zone; of the first, the day of the batch. */
  madeOn: Day;
  jars: JarState[];
  from_ms: number;
  to_ms: number;
}

type Filled = Pick<BatchState, 'started' | 'jars'>;

/**
 * A pot that is filled from by loads stays hot between them. After longer it was put away, and comes back as food that was
 * left over. Our bound, from no source: twice the longest load.
 */
const ONE_GO_MS = 6 * 3_600_000;
const LETTERS = 'BCDEFGHJKLMNPQRSTUVWXYZ';

/** The lot code of the nth filling, 0 for the first. Before patterns were kept a letter stood behind the check. */
function codeOf({ lotCode, lotPattern }: NonNullable<Filled['started']>, n: number): string {
  if (n === 0) return lotCode;
  return lotPattern ? jarLotCode(lotPattern, lotCode, n, null) : `${lotCode}-${LETTERS[n - 1] ?? 'Z'}`;
}

/**
 * The fillings of a batch, in order: what was filled long after the last jar is a filling of its own, with a lot code and a
 * day of its own.
 *
 * @returns none before the batch is started or a jar is filled
 */
export function fillings(state: Filled): Filling[] {
  const { started } = state;
  if (!started) return [];
  const out: Filling[] = [];
  for (const jar of [...state.jars].sort((a, b) => a.filled.at_ms - b.filled.at_ms || a.number - b.number)) {
    const at_ms = jar.filled.at_ms;
    const last = out.at(-1);
    if (last && at_ms - last.to_ms <= ONE_GO_MS) {
      last.jars.push(jar);
      last.to_ms = at_ms;
      continue;
    }
    out.push({
      lotCode: codeOf(started, out.length),
      madeOn: out.length === 0 ? started.madeOn : dayOf(at_ms, started.kitchen.zone),
      jars: [jar],
      from_ms: at_ms,
      to_ms: at_ms,
    });
  }
  return out;
}

/** The lot code that what is filled next as a filling of its own will bear. */
export const nextFillingCode = (state: Filled): string =>
  state.started ? codeOf(state.started, Math.max(1, fillings(state).length)) : '';

/** Jars that bear one code: what is written on their lids and stands on their labels. */
export interface Lot {
  lotCode: string;
  madeOn: Day;
  /** Number of the load, where the code says it. */
  load: number | null;
  jars: JarState[];
}

/** The lots of a batch by the codes its jars bear: fillings, each by its loads where the kitchen's codes have them. */
export function lotsOf(state: Filled & Pick<BatchState, 'loads'>): Lot[] {
  const { started } = state;
  const pattern = started?.lotPattern;
  const numbers = new Map(state.loads.map(l => [l.id, l.number]));
  return fillings(state).flatMap(({ lotCode, madeOn, jars }, filling) => {
    if (!started || !pattern?.load) return [{ lotCode, madeOn, load: null, jars }];
    const loadOf = (jar: JarState) => numbers.get(jar.loadIds.at(-1) ?? '') ?? null;
    return [...new Set(jars.map(loadOf))].map(load => ({
      lotCode: jarLotCode(pattern, started.lotCode, filling, load),
      madeOn,
      load,
      jars: jars.filter(j => loadOf(j) === load),
    }));
  });
}

/** The lot of a jar; null for a jar that was never filled. */
export const lotOf = (state: Parameters<typeof lotsOf>[0], jar: number): Lot | null =>
  lotsOf(state).find(l => l.jars.some(j => j.number === jar)) ?? null;
