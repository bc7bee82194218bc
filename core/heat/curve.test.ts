import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Degrees, thinned } from './curve.ts';

const curve = fc
  .array(
    fc.record({
      step_ms: fc.integer({ min: 0, max: 5000 }),
      temp_C: fc.double({ min: -20, max: 130, noNaN: true }),
    }),
    {
      maxLength: 400,
    },
  )
  .map(steps => {
    let at_ms = 1_000_000;
    return steps.map(({ step_ms, temp_C }): Degrees => ({ at_ms: (at_ms += step_ms), temp_C }));
  });

describe('a long curve that is drawn', () => {
  it('keeps its first, its last, its highest and its lowest, in order, in as few points as asked for', () => {
    fc.assert(
      fc.property(curve, fc.integer({ min: 4, max: 80 }), (points, most) => {
        const few = thinned(points, most);
        expect(few.length).toBeLessThanOrEqual(Math.max(most, 0));
        expect(few.every(p => points.includes(p))).toBe(true);
        expect(few.map(p => p.at_ms)).toEqual(few.map(p => p.at_ms).toSorted((a, b) => a - b));
        expect(new Set(few).size).toBe(few.length);
        expect(few[0]).toBe(points[0]);
        expect(few.at(-1)).toBe(points.at(-1));
        const temps = (of: Degrees[]) => of.map(p => p.temp_C);
        if (points.length > 0) {
          expect(Math.max(...temps(few))).toBe(Math.max(...temps(points)));
          expect(Math.min(...temps(few))).toBe(Math.min(...temps(points)));
        }
      }),
    );
  });
  it('is itself where it is short', () => {
    const three = [1, 2, 3].map(i => ({ at_ms: i, temp_C: i }));
    expect(thinned(three, 4)).toEqual(three);
    expect(thinned([], 4)).toEqual([]);
  });
});
