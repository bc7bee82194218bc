import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  fitting,
  type Holds,
  JAR_SIZES,
  jarSize,
  type JarSizeId,
  rack_mm,
  rackShare,
  roomFor,
  standOnRack,
  USUAL_HOLDS,
  waterToStart_mL,
} from './index.ts';

const sizes = fc.constantFrom<JarSizeId>(...JAR_SIZES.map(s => s.id));
const anyHolds = fc.dictionary(sizes, fc.integer({ min: 1, max: 24 })) as fc.Arbitrary<Holds>;

describe('a canner seen from above', () => {
  it('takes 7 quarts and offers no eighth, whatever waits', () => {
    const waiting = Array.from({ length: 28 }, (_, i) => ({ number: i + 1, size: 'quart' as const }));
    expect(fitting(USUAL_HOLDS, waiting).map(j => j.number)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(
      roomFor(
        USUAL_HOLDS,
        'quart',
        Array.from({ length: 7 }, () => 'quart' as const),
      ),
    ).toBe(0);
  });

  it('passes over what does not stand in it, and takes what comes after', () => {
    const holds: Holds = { quart: 7, pint: 8 };
    const jars = [
      { number: 1, size: 'half-gallon' as const },
      { number: 2, size: 'quart' as const },
      { number: 3, size: 'half-gallon' as const },
      { number: 4, size: 'pint' as const },
    ];
    expect(fitting(holds, jars).map(j => j.number)).toEqual([2, 4]);
    expect(rackShare(holds, ['half-gallon'])).toBe(Infinity);
    expect(roomFor({ ['__proto__' as 'pint']: 5 }, 'pint', [])).toBe(0);
  });

  it('never offers more than its shares allow, and leaves out no jar that would still stand', () => {
    fc.assert(
      fc.property(anyHolds, fc.array(sizes, { maxLength: 40 }), (holds, waiting) => {
        const taken = fitting(
          holds,
          waiting.map((size, number) => ({ size, number })),
        );
        const inside = taken.map(j => j.size);
        expect(rackShare(holds, inside)).toBeLessThanOrEqual(1 + 1e-9);
        const numbers = new Set(taken.map(j => j.number));
        waiting.forEach((size, number) => {
          if (!numbers.has(number)) expect(roomFor(holds, size, inside)).toBe(0);
        });
      }),
    );
  });

  it('is as wide as what it takes: seven touching circles are three across, by any ruler', () => {
    expect(rack_mm({ quart: 7 })).toBeCloseTo(3 * jarSize('quart').diameter_mm, 6);
    expect(rack_mm({ pint: 1 })).toBe(jarSize('pint').diameter_mm);
    expect(rack_mm({})).toBe(0);
    // A wide canner is some 300 to 330 mm across: common practice.
    expect(rack_mm(USUAL_HOLDS)).toBeGreaterThan(270);
    expect(rack_mm(USUAL_HOLDS)).toBeLessThan(330);
    // More jars never need less room.
    for (let n = 1; n < 40; n++)
      expect(rack_mm({ pint: n + 1 })).toBeGreaterThanOrEqual(rack_mm({ pint: n }));
  });

  it('stands jars where they do not run into one another, inside the rim', () => {
    for (const { id } of JAR_SIZES)
      for (let n = 1; n <= (USUAL_HOLDS[id] ?? 0); n++) {
        const across = rack_mm(USUAL_HOLDS);
        const at = standOnRack(
          across,
          Array.from({ length: n }, () => id),
        );
        expect(at).toHaveLength(n);
        at.forEach((a, i) => {
          expect(Math.hypot(a.x_mm, a.y_mm) + a.r_mm).toBeLessThanOrEqual(across / 2 + 0.6);
          for (const b of at.slice(i + 1))
            expect(Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)).toBeGreaterThan((a.r_mm + b.r_mm) * 0.94);
        });
      }
    const mixed = standOnRack(310, ['quart', 'half-pint', 'quart', 'pint', 'half-pint']);
    expect(mixed.map(p => p.r_mm * 2)).toEqual([95, 71, 95, 81, 71]);
    mixed.forEach((a, i) => {
      for (const b of mixed.slice(i + 1))
        expect(Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm)).toBeGreaterThan(a.r_mm + b.r_mm - 1);
    });
  });

  it('wants less water the more jars stand in it, and more the higher they are', () => {
    const across = rack_mm(USUAL_HOLDS);
    const quarts = (n: number) => Array.from({ length: n }, () => 'quart' as const);
    expect(waterToStart_mL(across, quarts(7), 25)).toBeLessThan(waterToStart_mL(across, quarts(4), 25));
    expect(waterToStart_mL(across, quarts(7), 50)).toBeGreaterThan(waterToStart_mL(across, quarts(7), 25));
    // All water over seven quarts in a canner of 290 mm comes to 5 to 8 litres: common practice fills it half.
    expect(waterToStart_mL(across, quarts(7), 25)).toBeGreaterThan(4000);
    expect(waterToStart_mL(across, quarts(7), 25)).toBeLessThan(9000);
  });
});
