import type { Calibration } from '@cocotte/core/acid';

/** A sound calibration in 4.01 and 7, made at an instant. */
export const calibratedAt = (ms: number, over: Partial<Calibration> = {}): Calibration => ({
  at: new Date(ms).toISOString(),
  slope_pct: 98.4,
  recheck_ph: null,
  temp_C: 24,
  offset_mV: 3,
  points: [
    { ph: 4.01, mV: 177 },
    { ph: 7, mV: 3 },
  ],
  buffersOpenedOn: null,
  electrodeSince: null,
  resolution_ph: 0.01,
  ...over,
});

/** The 4.01 buffer, read again after the readings of that calibration. */
export const rechecked = (calibration: Calibration, reads_ph = 4.01) => ({
  calibratedAt: calibration.at,
  reads_ph,
  temp_C: 24,
  instrumentId: null,
});
