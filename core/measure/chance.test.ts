import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chanceOfMore, wilson } from './index.ts';

describe('the interval of a share', () => {
  it.each([
    // Newcombe, Two-sided confidence intervals for the single proportion, Statistics in Medicine 17 (1998), table I, method 3; from memory.
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i lies between %f and %f (Newcombe 1998)', (hits, of, low, high) => {
    const found = wilson(hits, of);
    expect(found.low).toBeCloseTo(low, 4);
    expect(found.high).toBeCloseTo(high, 4);
  });

  it('holds the share, stays within 0 and 1, and is narrower the more was counted', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.nat(500), (of, some) => {
        const hits = Math.min(of, some);
        const { share, low, high } = wilson(hits, of);
        expect(low).toBeLessThanOrEqual(share + 1e-12);
        expect(high).toBeGreaterThanOrEqual(share - 1e-12);
        expect(low).toBeGreaterThanOrEqual(0);
        expect(high).toBeLessThanOrEqual(1);
        const twice = wilson(hits * 2, of * 2);
        expect(twice.high - twice.low).toBeLessThan(high - low);
        // What holds and what fails are two sides of one count.
        const other = wilson(of - hits, of);
        expect(other.low).toBeCloseTo(1 - high, 9);
      }),
    );
  });

  it('is refused of nothing, and of more than all', () => {
    for (const [hits, of] of [
      [0, 0],
      [3, 2],
      [-1, 5],
    ] as const)
      expect(() => wilson(hits, of)).toThrow(RangeError);
  });
});

describe('the chance of so many or more', () => {
  it('is that of the lady who tasted tea: 3 of 4 right, and all four (Fisher 1935)', () => {
    expect(chanceOfMore(3, 4, 1, 4)).toBeCloseTo(17 / 70, 10);
    expect(chanceOfMore(4, 4, 0, 4)).toBeCloseTo(1 / 70, 10);
  });

  it('is that of a table of twins in every textbook of statistics (Fisher: 10 of 13 against 2 of 17)', () => {
    // Convictions of like-sex twins of criminals: 0.000465, one-sided. Statistical Methods for Research Workers, from memory.
    expect(chanceOfMore(10, 13, 2, 17)).toBeCloseTo(0.000465, 5);
  });

  it('is what counting every way to draw says', () => {
    const choose = (n: number, k: number): number => {
      let c = 1;
      for (let i = 0; i < k; i++) c = (c * (n - i)) / (i + 1);
      return c;
    };
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 25 }),
        fc.nat(25),
        fc.integer({ min: 1, max: 25 }),
        fc.nat(25),
        (a, x, b, y) => {
          const [failed, others] = [Math.min(a, x), Math.min(b, y)];
          let ways = 0;
          for (let k = failed; k <= Math.min(a, failed + others); k++)
            if (a - k <= a + b - failed - others)
              ways += choose(failed + others, k) * choose(a + b - failed - others, a - k);
          expect(chanceOfMore(failed, a, others, b)).toBeCloseTo(ways / choose(a + b, a), 8);
        },
      ),
    );
  });

  it('never grows with another failure, and refuses more failures than were tried', () => {
    for (let k = 1; k <= 20; k++)
      expect(chanceOfMore(k, 20, 2, 100)).toBeLessThanOrEqual(chanceOfMore(k - 1, 20, 2, 100));
    expect(() => chanceOfMore(5, 4, 0, 3)).toThrow(RangeError);
    expect(() => chanceOfMore(1, 4, 5, 3)).toThrow(RangeError);
  });
});
