import fc from 'fast-check';
import { expect, it } from 'vitest';
import { potDepths } from './index.ts';

it('a pot holds more the deeper it stands, as much for each step, and at its rim all that it holds', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 500, max: 200_000 }),
      fc.integer({ min: 80, max: 1200 }),
      fc.constantFrom(10, 12.7, 25.4),
      (capacity_mL, diameter_mm, step_mm) => {
        const all = potDepths({ capacity_mL, diameter_mm }, step_mm);
        const rim = all.at(-1);
        expect(rim?.volume_mL).toBeCloseTo(capacity_mL, 6);
        // A cylinder, as any textbook has it: a quarter of pi, its width squared, its depth.
        for (const { depth_mm, volume_mL } of all)
          expect(volume_mL).toBeCloseTo((Math.PI / 4) * diameter_mm ** 2 * depth_mm * 1e-3, 6);
        all.slice(0, -1).forEach((d, i) => expect(d.depth_mm).toBeCloseTo(step_mm * (i + 1), 9));
        expect(all.every((d, i) => i === 0 || d.depth_mm > (all[i - 1]?.depth_mm ?? Infinity))).toBe(true);
      },
    ),
  );
  expect(() => potDepths({ capacity_mL: 1, diameter_mm: 1 }, 0)).toThrow(RangeError);
});
