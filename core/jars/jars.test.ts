import { describe, expect, it } from 'vitest';
import { JAR_SIZES, fillVolume_mL, jarCountText, jarSize, pintsOf } from './index.ts';

/** A US liquid pint, exactly (NIST Handbook 44, appendix C: 231 cubic inches to the gallon). */
const PINT_ML = (231 * 16.387064) / 8;

describe('jars', () => {
  it('are in order of size, each named for the pints it holds', () => {
    expect(JAR_SIZES.map(s => [s.id, s.pints.valueOf()])).toEqual([
      ['quarter-pint', 0.25],
      ['half-pint', 0.5],
      ['three-quarter-pint', 0.75],
      ['pint', 1],
      ['pint-and-a-half', 1.5],
      ['quart', 2],
      ['half-gallon', 4],
    ]);
  });

  it('hold a little more at the brim than their name says, and less of that the bigger they are', () => {
    const over = JAR_SIZES.map(s => s.brim_mL / (s.pints.valueOf() * PINT_ML));
    for (const share of over) {
      expect(share).toBeGreaterThan(1.01);
      expect(share).toBeLessThan(1.13);
    }
  });

  it('lose a disc as high as the headspace', () => {
    // An inch under the mouth of a pint, 2,830 mm² of it: 72 mL.
    expect(fillVolume_mL('pint', 25.4)).toBeCloseTo(494 - 71.882, 3);
    for (const { id, brim_mL } of JAR_SIZES) {
      expect(fillVolume_mL(id, 0)).toBe(brim_mL);
      expect(fillVolume_mL(id, 12.7)).toBeLessThan(brim_mL);
    }
  });

  it('are counted exactly, whatever their sizes', () => {
    expect(
      pintsOf([
        { size: 'quarter-pint', count: 3 },
        { size: 'pint-and-a-half', count: 3 },
        { size: 'half-gallon', count: 1 },
      ]).toFraction(),
    ).toBe('37/4');
    expect([jarCountText(1, 'pint-and-a-half'), jarCountText(2, 'pint-and-a-half')]).toEqual([
      '1 pint-and-a-half',
      '2 pint-and-a-halves',
    ]);
    expect(() => jarSize('__proto__' as 'pint')).toThrow(RangeError);
  });
});
