import { describe, expect, it } from 'vitest';
import { M_PER_FOOT } from '../measure/index.ts';
import { ALTITUDE_BANDS_FT, byBands, fromSeaLevel, minutesAt } from './index.ts';

describe('altitude bands', () => {
  it('are named by how many figures a table has; no table has two', () => {
    expect(byBands([10, 15, 20]).map(b => b.upTo_ft)).toEqual([...ALTITUDE_BANDS_FT.three]);
    expect(byBands([35, 40, 45, 50]).map(b => b.upTo_ft)).toEqual([...ALTITUDE_BANDS_FT.four]);
    for (const wrong of [[], [10], [10, 15], [1, 2, 3, 4, 5]])
      expect(() => byBands(wrong)).toThrow('tables have 3 or 4');
  });

  it('hold their top and end there, in feet, for a table and for a sea-level time alike', () => {
    const steps = (altitude_ft: number) => [
      minutesAt(byBands([35, 40, 45, 50]), altitude_ft * M_PER_FOOT)?.minutes,
      // Over 20 minutes each started thousand feet adds two, so the ladder leads only where it adds more.
      fromSeaLevel(10, altitude_ft * M_PER_FOOT).minutes,
    ];
    expect([1000, 1001, 3000, 3001, 6000, 6001, 9000].map(steps)).toEqual([
      [35, 11],
      [40, 15],
      [40, 15],
      [45, 20],
      [45, 20],
      [50, 25],
      [50, 25],
    ]);
  });
});
