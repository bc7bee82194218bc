/** One past batch: what it was expected to fill and what it filled, in pints. */
export interface PastYield {
  batchId: string;
  day: string;
  expected_pints: number;
  actual_pints: number;
  /** Why they differ, in the cook's words. */
  reason: string;
}

/** What past batches say of a forecast: how much of it came out, between which bounds. */
export interface SeenYield {
  batches: number;
  /** Mean of actual over expected. */
  share: number;
  low: number;
  high: number;
}

/** Corrects a forecast by what came out before; null without a batch. The range is what was seen, not a bound. */
export function correctionFrom(past: readonly PastYield[]): SeenYield | null {
  const shares = past.filter(p => p.expected_pints > 0).map(p => p.actual_pints / p.expected_pints);
  if (shares.length === 0) return null;
  return {
    batches: shares.length,
    share: shares.reduce((sum, s) => sum + s, 0) / shares.length,
    low: Math.min(...shares),
    high: Math.max(...shares),
  };
}
