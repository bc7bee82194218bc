import type { CheckedBatch } from './history.ts';

/** What was foreseen of a batch beside what was read of it. */
export interface ForeseenAndRead {
  lotCode: string;
  madeOn: string;
  name: string;
  foreseen: number;
  low: number;
  high: number;
  /** The mean of its readings that count. */
  read: number;
}

/** How far forecasts of acidity lay from what was read of the same batches. */
export interface ForecastError {
  of: ForeseenAndRead[];
  /** Read less foreseen, on the average: what the kitchen's produce is away from the usual. */
  mean: number;
  /** Root of the mean square. */
  rms: number;
  /** Share of the readings that lay in the interval that was to hold nine of ten. */
  held: number;
}

/**
 * Holds forecasts against the kitchen's own readings.
 *
 * @returns null where no batch has both
 */
export function forecastError(
  batches: readonly Pick<CheckedBatch, 'lotCode' | 'madeOn' | 'name' | 'phForecast' | 'readings'>[],
): ForecastError | null {
  const of = batches.flatMap(({ lotCode, madeOn, name, phForecast, readings }) => {
    const counting = readings.filter(r => r.counts);
    if (!phForecast || counting.length === 0) return [];
    const read = counting.reduce((sum, r) => sum + r.ph, 0) / counting.length;
    return [
      { lotCode, madeOn, name, foreseen: phForecast.mid, low: phForecast.low, high: phForecast.high, read },
    ];
  });
  if (of.length === 0) return null;
  const errors = of.map(o => o.read - o.foreseen);
  return {
    of,
    mean: errors.reduce((a, b) => a + b, 0) / of.length,
    rms: Math.sqrt(errors.reduce((a, b) => a + b * b, 0) / of.length),
    held: of.filter(o => o.read >= o.low && o.read <= o.high).length / of.length,
  };
}
