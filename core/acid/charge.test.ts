import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACID_COUNT, type AcidName, acidAt, baseAt, phOf } from './index.ts';

const mixture = (acids: Partial<Record<AcidName, number>>, base_mol = 0, salt_mol = 0) => {
  const of = new Float64Array(ACID_COUNT);
  for (const [name, mol] of Object.entries(acids)) of[acidAt(name as AcidName)] = mol;
  return { acids: of, base_mol, salt_mol };
};
const ph = (...of: Parameters<typeof mixture>) => phOf(mixture(...of));

describe('the pH of solutions in handbooks', () => {
  it.each([
    // CRC Handbook and textbooks of analytical chemistry, 25 °C, from memory.
    ['0.1 m acetic acid', { acetic: 0.1 }, 2.88],
    ['1 m acetic acid', { acetic: 1 }, 2.38],
    ['0.01 m acetic acid', { acetic: 0.01 }, 3.38],
    ['0.1 m citric acid', { citric: 0.1 }, 2.08],
    ['0.1 m lactic acid', { lactic: 0.1 }, 2.44],
    ['0.1 m tartaric acid', { tartaric: 0.1 }, 2.04],
    ['0.1 m malic acid', { malic: 0.1 }, 2.22],
    ['0.1 m oxalic acid', { oxalic: 0.1 }, 1.3],
    ['0.1 m phosphoric acid', { phosphoric: 0.1 }, 1.63],
    ['0.1 m ascorbic acid', { ascorbic: 0.1 }, 2.56],
  ] as const)('%s', (_, acids, read) => expect(Math.abs(ph(acids) - read)).toBeLessThan(0.04));

  it.each([
    // NIST standard buffers at 25 °C, from memory: what they are made of, and what they read.
    ['tetroxalate 0.05 m', { oxalic: 0.1 }, 0.05, 1.679],
    ['hydrogen tartrate, saturated', { tartaric: 0.0341 }, 0.0341, 3.557],
    ['dihydrogen citrate 0.05 m', { citric: 0.05 }, 0.05, 3.776],
    ['phthalate 0.05 m', { phthalic: 0.05 }, 0.05, 4.005],
    ['phosphate 0.025 m each', { phosphoric: 0.05 }, 0.075, 6.865],
    ['carbonate 0.025 m each', { carbonic: 0.05 }, 0.075, 10.012],
  ] as const)('the buffer %s reproduces itself', (_, acids, base, read) =>
    expect(Math.abs(ph(acids, base) - read)).toBeLessThan(0.02),
  );

  it('water is neutral, strong acid and strong base are what they are', () => {
    expect(ph({})).toBeCloseTo(7, 1);
    expect(Math.abs(ph({}, -0.01) - 2.05)).toBeLessThan(0.03);
    expect(Math.abs(ph({}, 0.01) - 11.95)).toBeLessThan(0.03);
  });
});

describe('titration curves of textbooks', () => {
  it('a weak acid with a strong base: start, half way at its constant, and the end in the alkaline', () => {
    // 0.1 m acetic acid, by shares neutralised: Harris, Quantitative Chemical Analysis, from memory.
    for (const [share, read] of [
      [0, 2.88],
      [0.25, 4.23],
      [0.5, 4.67],
      [0.75, 5.13],
      [1, 8.84],
    ] as const)
      expect(Math.abs(ph({ acetic: 0.1 }, 0.1 * share) - read)).toBeLessThan(0.08);
  });

  it('two acids together are less sour than the stronger alone, and sourer than the weaker', () => {
    const both = ph({ acetic: 0.05, lactic: 0.05 });
    expect(both).toBeLessThan(ph({ acetic: 0.05 }));
    expect(both).toBeLessThan(ph({ lactic: 0.05 }));
    expect(both).toBeGreaterThan(ph({ lactic: 0.1 }) - 0.02);
  });

  it('base that goes in never makes it sourer, acid never less sour, in any mixture', () => {
    const amount = fc.double({ min: 0, max: 0.6, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(amount, { minLength: ACID_COUNT, maxLength: ACID_COUNT }),
        fc.double({ min: -0.02, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0.001, max: 0.2, noNaN: true }),
        fc.nat(ACID_COUNT - 1),
        (acids, base_mol, salt_mol, more, which) => {
          const was = phOf({ acids, base_mol, salt_mol });
          expect(was).toBeGreaterThanOrEqual(0);
          expect(was).toBeLessThanOrEqual(14);
          expect(phOf({ acids, base_mol: base_mol + more, salt_mol })).toBeGreaterThan(was - 0.02);
          const sourer = acids.map((mol, i) => (i === which ? mol + more : mol));
          expect(phOf({ acids: sourer, base_mol, salt_mol })).toBeLessThan(was + 0.02);
        },
      ),
    );
  });

  it('is the same from wherever the search begins', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), {
          minLength: ACID_COUNT,
          maxLength: ACID_COUNT,
        }),
        fc.double({ min: -0.05, max: 1.5, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0, max: 14, noNaN: true }),
        (acids, base_mol, salt_mol, start) => {
          const found = phOf({ acids, base_mol, salt_mol });
          expect(phOf({ acids, base_mol, salt_mol }, start)).toBeCloseTo(found, 3);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('finds the base of a mixture that reads a pH', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 0.3, noNaN: true }), {
          minLength: ACID_COUNT,
          maxLength: ACID_COUNT,
        }),
        fc.double({ min: 2, max: 7, noNaN: true }),
        (acids, read) => {
          // Beside a strong anion a charge may be shielded otherwise than is guessed: to a hundredth.
          const base_mol = baseAt(acids, read);
          if (base_mol >= 0)
            expect(Math.abs(phOf({ acids, base_mol, salt_mol: 0 }) - read)).toBeLessThan(0.01);
        },
      ),
    );
  });
});
