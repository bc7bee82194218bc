import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type AcidityReading,
  EQUILIBRIUM_HOURS,
  PH_LIMIT,
  PH_PAPER_LIMIT,
  SAMPLE_TEMP_C,
  evidenceFaults,
} from './index.ts';

const reading = (over: Partial<AcidityReading> = {}): AcidityReading => ({
  ph: 4.1,
  temp_C: 24,
  hoursSinceProcessing: 30,
  method: 'meter',
  buffers: [4.01, 7],
  reference: '',
  ...over,
});
/** Faults of a reading so many hours after its jar was lifted; what was typed of the hours is only a remark. */
const faults = (over: Partial<AcidityReading> = {}, hours: number | null = 30) =>
  evidenceFaults(reading({ hoursSinceProcessing: 0, ...over }), hours);

describe('which reading counts as evidence (21 CFR 114.80 and 114.90; from memory)', () => {
  it('a meter reading at equilibrium, at sample temperature, calibrated on both sides of 4.6', () =>
    expect(faults()).toEqual([]));

  it('not before the jar is at equilibrium: a day at least', () => {
    expect(faults({}, EQUILIBRIUM_HOURS)).toEqual([]);
    expect(faults({ hoursSinceProcessing: 500 }, 23.97)).toEqual([
      'read 23.9 h after processing; equilibrium takes at least 24 h',
    ]);
    for (const method of ['paper', 'laboratory'] as const)
      expect(faults({ method, ph: 3.8, reference: 'L-1' }, 2)).toHaveLength(1);
  });

  it('not before its jar was lifted, whatever hours were typed', () => {
    expect(faults({ hoursSinceProcessing: 48 }, null)).toEqual([
      'read before its jar was lifted: it says nothing of the finished jar',
    ]);
  });

  it('a meter between 20 and 30 °C, both ends included', () => {
    expect(faults({ temp_C: SAMPLE_TEMP_C.min })).toEqual([]);
    expect(faults({ temp_C: SAMPLE_TEMP_C.max })).toEqual([]);
    expect(faults({ temp_C: 19.9 })[0]).toMatch(/sample at 19.9 °C/);
    expect(faults({ temp_C: 30.1 })).toHaveLength(1);
    // Paper and a laboratory's own sample are not read by this kitchen's meter.
    expect(faults({ method: 'paper', ph: 3.9, temp_C: 40, buffers: [] })).toEqual([]);
  });

  it('buffers on both sides of 4.6; one that is 4.6 itself brackets nothing', () => {
    expect(faults({ buffers: [] })).toHaveLength(1);
    expect(faults({ buffers: [4.01] })).toHaveLength(1);
    expect(faults({ buffers: [6.86, 7, 10.01] })).toHaveLength(1);
    expect(faults({ buffers: [PH_LIMIT, 7] })).toHaveLength(1);
    expect(faults({ buffers: [4.01, PH_LIMIT] })).toHaveLength(1);
    expect(faults({ buffers: [7, 4.01] })).toEqual([]);
  });

  it('paper only at 4.0 or below, a laboratory only with its reference', () => {
    const paper = { method: 'paper' as const, buffers: [] };
    expect(faults({ ...paper, ph: PH_PAPER_LIMIT })).toEqual([]);
    expect(faults({ ...paper, ph: 4.01 })).toEqual(['paper is relied on only at 4.0 or below']);
    const lab = { method: 'laboratory' as const, buffers: [] };
    expect(faults({ ...lab, reference: 'LAB-7' })).toEqual([]);
    expect(faults({ ...lab, reference: '  ' })).toEqual(['the laboratory report has no reference']);
  });

  it('names every fault at once', () => expect(faults({ temp_C: 60, buffers: [] }, 1)).toHaveLength(3));

  it('waiting longer and calibrating in more buffers never takes evidence away', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 14, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.array(fc.double({ min: 1, max: 13, noNaN: true }), { maxLength: 4 }),
        (ph, hoursSinceProcessing, temp_C, buffers) => {
          const before = faults({ ph, hoursSinceProcessing, temp_C, buffers }).length;
          const after = faults({
            ph,
            hoursSinceProcessing: hoursSinceProcessing + 24,
            temp_C,
            buffers: [...buffers, 4.01, 7],
          }).length;
          expect(after).toBeLessThanOrEqual(before);
        },
      ),
    );
  });
});
