import type { BatchState } from '../batches/index.ts';
import { Decimal, allocate, roundTogether } from '../measure/index.ts';
import { type JarSizeId, jarSize } from '../recipes/index.ts';

export interface CostPart {
  part: 'ingredients' | 'jars' | 'lids' | 'work';
  /** Exact, before rounding, decimal text. */
  exact: string;
  /** Rounded so that the parts add up to the total, decimal text. */
  amount: string;
}

export interface CostSheet {
  currency: string;
  parts: CostPart[];
  /** Sum of the rounded parts, decimal text. */
  total: string;
  minutes: number;
  hourlyRate: string;
  /** Jars that carry the cost: all filled and not set aside. */
  jars: number;
  /** What set-aside jars add to the others, decimal text. */
  lostJars: number;
  bySize: { size: JarSizeId; count: number; perJar: string; total: string }[];
}

const CENT_PLACES = 2;

/**
 * What a batch cost: lots drawn, jars and lids, and attended minutes at the kitchen's hourly rate, as stored when it
 * was decided. Rounded parts add up to the total, and so do the jars: each size carries its share by nominal volume.
 * `perJar` is that share over its jars, rounded once.
 *
 * @returns null before the batch is started
 */
export function batchCost(state: BatchState): CostSheet | null {
  const { started } = state;
  if (!started) return null;
  const zero = new Decimal(0);
  const lots = state.draws.flatMap(d => d.lots);
  const ofKind = (kind: string) =>
    lots
      .filter(l => l.kind === kind)
      .reduce((sum, l) => sum.plus(new Decimal(l.quantity).times(l.unitCost)), zero);
  const minutes = state.minutes.reduce((sum, m) => sum.plus(m.minutes), zero);
  const work = minutes.times(started.kitchen.hourlyRate).div(60);
  const exact = [ofKind('ingredient'), ofKind('jar'), ofKind('lid'), work];
  const rounded = roundTogether(exact, CENT_PLACES);
  const total = rounded.reduce((a, b) => a.plus(b), zero);

  const kept = state.jars.filter(j => !j.setAside);
  const sizes = [...new Set(kept.map(j => j.size))].sort((a, b) =>
    jarSize(a).pints.compare(jarSize(b).pints),
  );
  const weights = sizes.map(size => {
    const { n, d } = jarSize(size).pints;
    return new Decimal(String(n)).div(String(d)).times(kept.filter(j => j.size === size).length);
  });
  const shares = sizes.length === 0 ? [] : allocate(total, weights, CENT_PLACES);
  const names = ['ingredients', 'jars', 'lids', 'work'] as const;
  return {
    currency: started.kitchen.currency,
    parts: names.map((part, i) => ({
      part,
      exact: (exact[i] as Decimal).toFixed(),
      amount: (rounded[i] as Decimal).toFixed(CENT_PLACES),
    })),
    total: total.toFixed(CENT_PLACES),
    minutes: minutes.toNumber(),
    hourlyRate: started.kitchen.hourlyRate,
    jars: kept.length,
    lostJars: state.jars.length - kept.length,
    bySize: sizes.map((size, i) => {
      const count = kept.filter(j => j.size === size).length;
      const share = shares[i] as Decimal;
      return {
        size,
        count,
        perJar: share.div(count).toFixed(CENT_PLACES),
        total: share.toFixed(CENT_PLACES),
      };
    }),
  };
}
