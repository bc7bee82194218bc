import { type Day, dayOf } from '../measure/index.ts';
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

/**
 * A pot that is filled from by loads stays hot between them. After longer it was put away, and comes back as food that was
 * left over. Our bound, from no source: twice the longest load.
 */
const ONE_GO_MS = 6 * 3_600_000;
const LETTERS = 'BCDEFGHJKLMNPQRSTUVWXYZ';
/** The lot code of the nth filling, 0 for the first. */
const codeOf = (lotCode: string, n: number): string =>
  n === 0 ? lotCode : `${lotCode}-${LETTERS[n - 1] ?? 'Z'}`;

/**
 * The fillings of a batch, in order: what was filled long after the last jar is a filling of its own, with a lot code and a
 * day of its own.
 *
 * @returns none before the batch is started or a jar is filled
 */
export function fillings(state: Pick<BatchState, 'started' | 'jars'>): Filling[] {
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
      lotCode: codeOf(started.lotCode, out.length),
      madeOn: out.length === 0 ? started.madeOn : dayOf(at_ms, started.kitchen.zone),
      jars: [jar],
      from_ms: at_ms,
      to_ms: at_ms,
    });
  }
  return out;
}

/** The lot code that what is filled next as a filling of its own will bear. */
export const nextFillingCode = (state: Pick<BatchState, 'started' | 'jars'>): string =>
  codeOf(state.started?.lotCode ?? '', Math.max(1, fillings(state).length));

/** The filling that a jar belongs to; null for a jar that was never filled. */
export const fillingOf = (state: Pick<BatchState, 'started' | 'jars'>, jar: number): Filling | null =>
  fillings(state).find(f => f.jars.some(j => j.number === jar)) ?? null;
