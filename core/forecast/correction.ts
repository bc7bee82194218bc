import type { Range } from '../balance/index.ts';

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
  /** What eight in ten batches come to; below {@link OWN_RANGE} batches what was seen. */
  low: number;
  high: number;
}

/** From so many batches on, a kitchen's own record says how far it scatters. */
export const OWN_RANGE = 3;

/** Ninetieth part of Student's t, by degrees of freedom from 1. Standard tables. */
const T_90 = [3.078, 1.886, 1.638, 1.533, 1.476, 1.44, 1.415, 1.397, 1.383, 1.372];
const T_90_MANY = 1.282;

/** What past batches say of a forecast; null without a batch. */
export function correctionFrom(past: readonly PastYield[]): SeenYield | null {
  const shares = past.filter(p => p.expected_pints > 0).map(p => p.actual_pints / p.expected_pints);
  const n = shares.length;
  if (n === 0) return null;
  const share = shares.reduce((sum, s) => sum + s, 0) / n;
  if (n < OWN_RANGE) return { batches: n, share, low: Math.min(...shares), high: Math.max(...shares) };
  const variance = shares.reduce((sum, s) => sum + (s - share) ** 2, 0) / (n - 1);
  const by = (T_90[n - 2] ?? T_90_MANY) * Math.sqrt(variance * (1 + 1 / n));
  return { batches: n, share, low: Math.max(0, share - by), high: share + by };
}

/** A forecast as past batches correct it: its middle from the first batch on, its range from the third. */
export function corrected(foreseen: Range, seen: SeenYield | null): Range {
  if (!seen) return foreseen;
  const mid = foreseen.mid * seen.share;
  if (seen.batches < OWN_RANGE)
    return { mid, low: foreseen.low * seen.share, high: foreseen.high * seen.share };
  return { mid, low: foreseen.mid * seen.low, high: foreseen.mid * seen.high };
}

/** How past batches were cooked, as far as their records tell. */
export interface SeenCooking {
  batches: number;
  /** The shortest and the longest, in minutes. */
  least_min: number;
  most_min: number;
  /** Grams of water a pot boiled off in a minute, the middle one of those that tell; null where none does. */
  boilOff_gPerMin: number | null;
}

/**
 * What past batches say of how long a recipe cooks; null where none tells.
 *
 * @param past  of each batch its minutes, and its rate where jars and what went in told it
 * @example cookingFrom([{ cook_min: 34, boilOff_gPerMin: 42 }, { cook_min: 41, boilOff_gPerMin: null }])?.most_min; // 41
 */
export function cookingFrom(
  past: readonly { cook_min: number | null; boilOff_gPerMin: number | null }[],
): SeenCooking | null {
  const minutes = past.flatMap(p => p.cook_min ?? []);
  if (minutes.length === 0) return null;
  const rates = past.flatMap(p => p.boilOff_gPerMin ?? []).toSorted((a, b) => a - b);
  return {
    batches: minutes.length,
    least_min: Math.min(...minutes),
    most_min: Math.max(...minutes),
    boilOff_gPerMin: rates[Math.floor((rates.length - 1) / 2)] ?? null,
  };
}
