import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  BUFFER_NAMES,
  bareCalibration,
  bufferAt,
  calibrationFaults,
  calibrationRemarks,
  calibrationTyped,
  electrodeOf,
  nernst_mV,
} from './index.ts';

describe('the slope of an electrode', () => {
  it('is the Nernst slope of theory: 59.16 mV at 25 °C (CRC Handbook, from memory)', () => {
    // 54.20, 58.17, 59.16, 60.15, 62.13 and 66.10 mV at 0, 20, 25, 30, 40 and 60 °C: printed in every handbook of pH.
    for (const [temp_C, mV] of [
      [0, 54.2],
      [20, 58.17],
      [25, 59.16],
      [30, 60.15],
      [40, 62.13],
      [60, 66.1],
    ] as const)
      expect(nernst_mV(temp_C)).toBeCloseTo(mV, 1);
    expect(nernst_mV(25)).toBeCloseTo(59.159, 3);
  });

  it('is found again from the millivolts it gives, whatever its slope, offset and temperature', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 60, max: 105, noNaN: true }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.double({ min: 15, max: 35, noNaN: true }),
        fc.constantFrom([4.01, 7], [4.01, 6.86], [4.01, 7, 10.01], [1.68, 4.01, 6.86]),
        (slope_pct, offset_mV, temp_C, names) => {
          const points = names.map(ph => ({
            ph,
            mV: offset_mV - ((nernst_mV(temp_C) * slope_pct) / 100) * (bufferAt(ph, temp_C) - 7),
          }));
          const found = electrodeOf(points, temp_C);
          expect(found?.slope_pct).toBeCloseTo(slope_pct, 6);
          expect(found?.offset_mV).toBeCloseTo(offset_mV, 6);
        },
      ),
    );
  });

  it('is not read between two buffers of the same pH, or one', () => {
    expect(electrodeOf([{ ph: 7, mV: 0 }], 25)).toBeNull();
    expect(
      electrodeOf(
        [
          { ph: 7, mV: 0 },
          { ph: 7, mV: 3 },
        ],
        25,
      ),
    ).toBeNull();
    expect(
      electrodeOf(
        [
          { ph: 4.01, mV: null },
          { ph: 7, mV: 3 },
        ],
        25,
      ),
    ).toBeNull();
  });
});

describe('buffers at their temperature', () => {
  it('phthalate follows pH = 4.000 + ((t - 15) / 100)² / 2 (BS 1647, from memory), within what a meter shows', () => {
    for (let t = 0; t <= 40; t++)
      expect(Math.abs(bufferAt(4.01, t) - (4 + ((t - 15) / 100) ** 2 / 2))).toBeLessThan(0.012);
  });

  it('are what they are called at 25 °C, and change evenly and in one way where chemistry says so', () => {
    for (const name of BUFFER_NAMES) {
      expect(bufferAt(name, 25)).toBeCloseTo(name, 1);
      const steps = Array.from({ length: 40 }, (_, t) => bufferAt(name, t + 1) - bufferAt(name, t));
      expect(Math.max(...steps.map(Math.abs))).toBeLessThan(0.016);
      // Neutral and alkaline buffers lose pH with warmth, as their acids give off more.
      if (name > 5) expect(Math.max(...steps)).toBeLessThan(0);
    }
  });

  it('one that is not known here, or outside its table, is what it is called', () => {
    expect(bufferAt(5.5, 20)).toBe(5.5);
    expect(bufferAt(4.01, -3)).toBe(4.01);
    expect(bufferAt(4.01, 60)).toBe(4.01);
    expect(bufferAt(4.01, 40)).toBeCloseTo(4.027, 3);
  });
});

const points = (...of: [ph: number, mV: number | null][]) => of.map(([ph, mV]) => ({ ph, mV }));

describe('a calibration as it is typed', () => {
  const codes = (
    of: [number, number | null][],
    temp_C: number | null = 25,
    slope_pct: number | null = null,
  ) => calibrationTyped({ points: points(...of), temp_C, slope_pct }).map(f => `${f.path} ${f.code}`);

  it('names buffers that are swapped, the same, or on one side, an impossible slope and a missing temperature', () => {
    expect(
      codes([
        [4.01, 177],
        [7, 0],
      ]),
    ).toEqual([]);
    expect(
      codes([
        [4.01, 0],
        [7, 177],
      ]),
    ).toEqual(['points.0.mV swapped']);
    expect(
      codes([
        [4.01, 177],
        [4.01, 0],
      ]),
    ).toEqual(['points.1.ph same-buffer']);
    expect(
      codes([
        [7, 0],
        [10.01, -177],
      ]),
    ).toEqual(['points.1.ph no-bracket']);
    expect(codes([])).toEqual(['points.0.ph no-bracket']);
    expect(
      codes([
        [4.01, 20],
        [7, 0],
      ]),
    ).toEqual(['points.0.mV impossible-slope']);
    expect(
      codes(
        [
          [4.01, null],
          [7, null],
        ],
        25,
        30,
      ),
    ).toEqual(['slope_pct impossible-slope']);
    expect(
      codes(
        [
          [4.01, 177],
          [7, 0],
        ],
        null,
      ),
    ).toEqual(['temp_C no-temperature']);
  });

  it('a poor slope is kept, and supports nothing: it says what to do', () => {
    expect(
      codes([
        [4.01, 150],
        [7, 0],
      ]),
    ).toEqual([]);
    const poor = bareCalibration({
      at: '2026-11-20T09:00:00.000Z',
      slope_pct: 85,
      temp_C: 25,
      points: points([4.01, 150], [7, 0]),
    });
    const [fault] = calibrationFaults(poor, '2026-11-20', () => '2026-11-20');
    expect(fault?.next).toMatch(/^Clean the electrode, soak it/);
  });

  it('an electrode of over two years is worth a word, and no refusal', () => {
    expect(calibrationRemarks({ electrodeSince: '2024-11-19' }, '2026-11-20')).toHaveLength(1);
    expect(calibrationRemarks({ electrodeSince: '2024-12-20' }, '2026-11-20')).toEqual([]);
    expect(calibrationRemarks({ electrodeSince: null }, '2026-11-20')).toEqual([]);
  });
});
