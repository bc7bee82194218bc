import { describe, expect, it } from 'vitest';
import { bareCalibration } from '../acid/index.ts';
import { boilingPoint_C } from '../heat/index.ts';
import { calibrated, type CheckBody, CHECKED_KINDS, checkVerdict, dueAgain } from './index.ts';

const PLACE = { altitude_m: 716, locale: 'en-US' };
const verdict = (body: CheckBody, on = '2026-11-20') =>
  checkVerdict(body, PLACE, on, ms => new Date(ms).toISOString().slice(0, 10));
const calibration = (over: object = {}) =>
  bareCalibration({
    at: '2026-11-20T09:00:00.000Z',
    temp_C: 25,
    points: [
      { ph: 4.01, mV: 174 },
      { ph: 7, mV: -2 },
    ],
    ...over,
  });

describe('an instrument held against something known', () => {
  it('a scale within one per cent or a gram', () => {
    expect(verdict({ kind: 'scale', known_g: 500, shows_g: 505 })).toMatchObject({ good: true, off: 5 });
    expect(verdict({ kind: 'scale', known_g: 500, shows_g: 494.9 })).toMatchObject({ good: false });
    expect(verdict({ kind: 'scale', known_g: 20, shows_g: 21 })).toMatchObject({ good: true });
    expect(verdict({ kind: 'scale', known_g: 20, shows_g: 21.1 }).next).toMatch(/Level it/);
  });

  it('a thermometer in boiling water as it boils here, and in ice', () => {
    const boils_C = boilingPoint_C(PLACE.altitude_m);
    expect(verdict({ kind: 'thermometer', ice_C: 0.5, boils_C: boils_C + 1 })).toMatchObject({ good: true });
    expect(verdict({ kind: 'thermometer', ice_C: 0.5, boils_C: boils_C + 1 }).off).toBeCloseTo(1, 6);
    expect(verdict({ kind: 'thermometer', ice_C: null, boils_C: boils_C - 5.1 })).toMatchObject({
      good: false,
      next: 'Replace it.',
    });
    expect(verdict({ kind: 'thermometer', ice_C: 6, boils_C })).toMatchObject({ good: false });
  });

  it('a refractometer in water', () => {
    expect(verdict({ kind: 'refractometer', water_pct: -0.5 })).toMatchObject({ good: true });
    expect(verdict({ kind: 'refractometer', water_pct: 0.6 })).toMatchObject({ good: false });
  });

  it('a meter by its slope, on its day only', () => {
    const kept = calibrated(calibration());
    expect(kept.slope_pct).toBeCloseTo(99.4, 0);
    expect(kept.offset_mV).toBeCloseTo(-2, 0);
    expect(verdict({ kind: 'ph meter', calibration: kept })).toMatchObject({ good: true, off: null });
    expect(verdict({ kind: 'ph meter', calibration: kept }, '2026-11-21')).toMatchObject({ good: false });
    // What was typed beside the millivolts is not believed.
    expect(
      calibrated(
        calibration({
          slope_pct: 100,
          points: [
            { ph: 4.01, mV: 120 },
            { ph: 7, mV: 0 },
          ],
        }),
      ).slope_pct,
    ).toBeLessThan(70);
    expect(
      calibrated(
        calibration({
          slope_pct: 97,
          points: [
            { ph: 4.01, mV: null },
            { ph: 7, mV: null },
          ],
        }),
      ).slope_pct,
    ).toBe(97);
  });

  it('is due again after its days, and at once where it did not serve or was never checked', () => {
    expect(dueAgain('scale', { on: '2026-11-01', good: true })).toBe('2026-12-01');
    expect(dueAgain('ph meter', { on: '2026-11-20', good: true })).toBe('2026-11-21');
    for (const kind of CHECKED_KINDS) {
      expect(dueAgain(kind, null)).toBeNull();
      expect(dueAgain(kind, { on: '2026-11-01', good: false })).toBeNull();
    }
  });
});
