import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type AcidityReading,
  type ReadWhen,
  bareCalibration,
  COOLED_HOURS,
  EQUILIBRIUM_HOURS,
  evidenceFaults,
  OPENED_HOURS,
  PH_LIMIT,
  PH_PAPER_LIMIT,
  PH_UNCERTAINTY,
  readAbove,
  readPh,
  SAMPLE_TEMP_C,
  uncertaintyOf,
} from './index.ts';

const DAY = '2026-11-20';
const calibration = (over: object = {}) =>
  bareCalibration({
    at: `${DAY}T09:00:00.000Z`,
    slope_pct: 98,
    temp_C: 24,
    points: [4.01, 7].map(ph => ({ ph, mV: null })),
    resolution_ph: 0.01,
    ...over,
  });
const reading = (over: Partial<AcidityReading> = {}): AcidityReading => ({
  ph: 4.1,
  temp_C: 24,
  hoursSinceProcessing: 0,
  method: 'meter',
  buffers: [4.01, 7],
  reference: '',
  sample: null,
  tightest: false,
  replicates: [],
  paper: null,
  calibration: calibration(),
  ...over,
});
const when = (over: Partial<ReadWhen> = {}): ReadWhen => ({
  hours: 30,
  on: DAY,
  dayOfInstant: ms => new Date(ms).toISOString().slice(0, 10),
  texture: 'pieces',
  recheck_off: 0,
  opened_h: 0,
  ...over,
});
/** Faults of a reading so many hours after its jar was lifted; what was typed of the hours is only a remark. */
const faults = (over: Partial<AcidityReading> = {}, known: Partial<ReadWhen> = {}) =>
  evidenceFaults(reading(over), when(known));

describe('which reading counts as evidence (21 CFR 114.80 and 114.90; from memory)', () => {
  it('a meter reading at equilibrium, at sample temperature, calibrated on both sides of 4.6, its buffer read again', () =>
    expect(faults()).toEqual([]));

  it('not before the jar is at equilibrium: a day at least, and a smooth one once it has cooled', () => {
    expect(faults({}, { hours: EQUILIBRIUM_HOURS })).toEqual([]);
    expect(faults({ hoursSinceProcessing: 500 }, { hours: 23.97 })).toEqual([
      'read 23.9 h after processing; equilibrium takes at least 24 h',
    ]);
    expect(faults({}, { hours: COOLED_HOURS, texture: 'smooth' })).toEqual([]);
    expect(faults({}, { hours: 11.9, texture: 'smooth' })).toHaveLength(1);
    expect(faults({}, { hours: 13, texture: 'crushed' })).toHaveLength(1);
    expect(faults({ method: 'paper', ph: 3.8 }, { hours: 2 })).toHaveLength(1);
  });

  it('not before its jar was lifted, whatever hours were typed, and not of a jar that was opened before', () => {
    expect(faults({ hoursSinceProcessing: 48 }, { hours: null })).toEqual([
      'read before its jar was lifted: it says nothing of the finished jar',
    ]);
    expect(faults({}, { opened_h: OPENED_HOURS })).toEqual([]);
    expect(faults({}, { opened_h: 26 })).toEqual(['its jar had been opened 26 h before']);
  });

  it('a meter between 20 and 30 °C, both ends included, and as warm as its buffers', () => {
    const at = (temp_C: number, buffers_C = temp_C) =>
      faults({ temp_C, calibration: calibration({ temp_C: buffers_C }) });
    expect(at(SAMPLE_TEMP_C.min)).toEqual([]);
    expect(at(SAMPLE_TEMP_C.max)).toEqual([]);
    expect(at(19.9, 20)[0]).toMatch(/sample at 19.9 °C/);
    expect(at(30.1, 30)).toHaveLength(1);
    expect(at(20, 25)).toEqual([]);
    expect(at(20, 25.5)).toEqual(['sample at 20 °C and buffers at 25.5 °C: 5 °C apart is the most']);
    // Paper and a laboratory's own sample are not read by this kitchen's meter.
    expect(faults({ method: 'paper', ph: 3.9, temp_C: 40, calibration: null })).toEqual([]);
  });

  it('a calibration of the same day, with its slope, in buffers on both sides of 4.6', () => {
    const with_ = (over: object, known: Partial<ReadWhen> = {}) =>
      faults({ calibration: calibration(over) }, known);
    const points = (...names: number[]) => ({ points: names.map(ph => ({ ph, mV: null })) });
    expect(with_({}, { on: '2026-11-21' })).toEqual(['the meter was not calibrated that day']);
    for (const names of [[], [4.01], [6.86, 7], [PH_LIMIT, 7], [4.01, PH_LIMIT]])
      expect(with_(points(...names))).toHaveLength(1);
    expect(with_(points(7, 4.01))).toEqual([]);
    expect(with_({ slope_pct: 92 })).toEqual([]);
    expect(with_({ slope_pct: 91.9 })).toEqual(['the slope of 91.9 % lies outside 92 to 103 %']);
    expect(with_({ offset_mV: -31 })).toHaveLength(1);
    expect(with_({ buffersOpenedOn: '2026-08-22' })).toEqual([]);
    expect(with_({ buffersOpenedOn: '2026-08-21' })).toHaveLength(1);
    // Names of buffers alone, as they were kept once, prove no calibration.
    expect(faults({ calibration: null })).toEqual([
      'how the meter was calibrated that day is not kept with it',
    ]);
    expect(faults({ calibration: null, buffers: [] })).toHaveLength(1);
  });

  it('a meter that shows no slope counts where it read its 4.01 buffer again within 0.05', () => {
    const again = (recheck_ph: number | null) =>
      faults({ calibration: calibration({ slope_pct: null, recheck_ph }) });
    expect(again(null)).toEqual(['a meter that shows no slope has to read its 4.01 buffer again']);
    expect(again(4.05)).toEqual([]);
    expect(again(4.06)).toEqual(['the 4.01 buffer read 4.06 again']);
    expect(again(3.94)).toHaveLength(1);
  });

  it('its buffer again at the end, within 0.05', () => {
    expect(faults({}, { recheck_off: null })).toEqual(['the buffer was not read again after it']);
    expect(faults({}, { recheck_off: -0.05 })).toEqual([]);
    expect(faults({}, { recheck_off: 0.06 })[0]).toMatch(/^the buffer read 4.06 again after it/);
  });

  it('single readings of a sample that agree', () => {
    expect(faults({ replicates: [4.05, 4.15] })).toEqual([]);
    expect(faults({ replicates: [4.0, 4.2] })).toEqual([
      'its single readings differ by 0.20; 0.1 is the most',
    ]);
  });

  it('paper only at 4.0 or below, a laboratory only with its reference and its paper', () => {
    const paper = { method: 'paper' as const, calibration: null };
    expect(faults({ ...paper, ph: PH_PAPER_LIMIT })).toEqual([]);
    expect(faults({ ...paper, ph: 4.01 })).toEqual(['paper is relied on only at 4.0 or below']);
    expect(faults({ ...paper, ph: 3.9, replicates: [3.95, 4.01] })).toHaveLength(1);
    const lab = { method: 'laboratory' as const, calibration: null };
    const kept = { paperId: 'p', sha256: 'x' };
    expect(faults({ ...lab, reference: 'LAB-7', paper: kept })).toEqual([]);
    expect(faults({ ...lab, reference: '  ', paper: kept })).toEqual([
      'the laboratory report has no reference',
    ]);
    expect(faults({ ...lab, reference: 'LAB-7' })).toEqual(["the laboratory's paper is not attached"]);
  });

  it('names every fault at once', () =>
    expect(faults({ temp_C: 60, calibration: null }, { hours: 1 })).toHaveLength(3));

  it('waiting longer and calibrating in more buffers never takes evidence away', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 14, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.array(fc.double({ min: 1, max: 13, noNaN: true }), { maxLength: 4 }),
        fc.constantFrom('pieces' as const, 'crushed' as const, 'smooth' as const),
        (ph, hours, temp_C, names, texture) => {
          const count = (buffers: number[], h: number) =>
            faults(
              { ph, temp_C, calibration: calibration({ points: buffers.map(b => ({ ph: b, mV: null })) }) },
              { hours: h, texture },
            ).length;
          expect(count([...names, 4.01, 7], hours + 24)).toBeLessThanOrEqual(count(names, hours));
        },
      ),
    );
  });
});

describe('what a reading may be wrong by', () => {
  it('is twice the root of the sum of squares, and never under 0.05', () => {
    const u = (replicates: number[], off: number | null = 0, resolution_ph = 0.01) =>
      uncertaintyOf({ replicates, calibration: calibration({ resolution_ph }) }, off);
    expect(u([4.1, 4.1, 4.1]).u_ph).toBe(PH_UNCERTAINTY);
    // Two that differ by 0.1: a standard deviation of 0.0707, of the mean 0.05; beside buffers 0.0115 and a step 0.0029.
    expect(u([4.05, 4.15]).u_ph).toBeCloseTo(
      2 * Math.hypot(0.05, 0.02 / Math.sqrt(3), 0.01 / Math.sqrt(12)),
      10,
    );
    // A meter that shows tenths.
    expect(u([], 0, 0.1).u_ph).toBeCloseTo(
      2 * Math.hypot(0.02, 0.02 / Math.sqrt(3), 0.1 / Math.sqrt(12)),
      10,
    );
  });

  it('grows with what the buffer was off, and with what replicates differ, however they come', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 3, max: 5, noNaN: true }), { minLength: 2, maxLength: 6 }),
        fc.double({ min: -0.2, max: 0.2, noNaN: true }),
        (replicates, off) => {
          const { u_ph } = uncertaintyOf({ replicates, calibration: null }, off);
          expect(u_ph).toBeGreaterThanOrEqual(PH_UNCERTAINTY);
          expect(uncertaintyOf({ replicates, calibration: null }, off * 2).u_ph).toBeGreaterThanOrEqual(u_ph);
          const wider = replicates.map(r => 4 + (r - 4) * 2);
          expect(uncertaintyOf({ replicates: wider, calibration: null }, off).u_ph).toBeGreaterThanOrEqual(
            u_ph - 1e-12,
          );
        },
      ),
    );
  });

  it('no figure that somebody typed makes the mean of replicates smaller, and one above the limit is above it', () => {
    expect(readPh({ ph: 3.9, replicates: [4.7, 4.9] })).toBeCloseTo(4.8, 10);
    expect(readPh({ ph: 4.2, replicates: [] })).toBe(4.2);
    expect(readAbove({ ph: 4.5, replicates: [4.4, 4.61] }, PH_LIMIT)).toBe(true);
    expect(readAbove({ ph: 4.6, replicates: [4.6] }, PH_LIMIT)).toBe(false);
  });
});
