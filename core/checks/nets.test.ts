import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import {
  allowedVariation_g,
  declarable_oz,
  declared_g,
  netsBySize,
  netVerdict,
  samplingOf,
} from './index.ts';

const OZ = 28.349_523_125;
const jars = (...nets: number[]) => nets.map((net_g, i) => ({ jar: i + 1, net_g }));

describe('the sampling rule (NIST Handbook 133, tables 2-1 and 2-5; from memory)', () => {
  it('asks for all of a dozen, twelve of up to 250, twenty-four and forty-eight beyond', () => {
    expect([1, 2, 7, 11, 12, 250, 251, 3200, 3201].map(n => samplingOf(n).sample)).toEqual([
      1, 2, 7, 11, 12, 12, 24, 24, 48,
    ]);
  });

  it('its factors are Student’s t of 97.5 % over the root of the sample', () => {
    // Two-sided 95 % quantiles of Student's t, as in every table of statistics.
    const t: Record<number, number> = {
      2: 12.706,
      3: 4.303,
      4: 3.182,
      5: 2.776,
      6: 2.571,
      7: 2.447,
      8: 2.365,
      9: 2.306,
      10: 2.262,
      11: 2.228,
      12: 2.201,
      24: 2.069,
      48: 2.012,
    };
    for (const [n, quantile] of Object.entries(t)) {
      const lot = Number(n) === 12 ? 12 : Number(n) === 24 ? 300 : Number(n) === 48 ? 5000 : Number(n);
      expect(samplingOf(lot).factor).toBeCloseTo(quantile / Math.sqrt(Number(n)), 2);
    }
  });

  it('what a single package may lack grows with it, and falls as a share of it', () => {
    // Half a pound of jam may lack 12.7 g, a pound 19.9 g, two pounds 31.8 g.
    expect(allowedVariation_g(0.5 * 16 * OZ)).toBeCloseTo(0.028 * 16 * OZ, 6);
    expect(allowedVariation_g(16 * OZ)).toBeCloseTo(0.044 * 16 * OZ, 6);
    expect(allowedVariation_g(32 * OZ)).toBeCloseTo(0.07 * 16 * OZ, 6);
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 2000, noNaN: true }),
        fc.double({ min: 1.4, max: 3, noNaN: true }),
        (g, more) => {
          expect(allowedVariation_g(g * more)).toBeGreaterThanOrEqual(allowedVariation_g(g) - 1e-9);
          expect(allowedVariation_g(g) / g).toBeLessThanOrEqual(0.1 + 1e-9);
        },
      ),
    );
  });
});

describe('weighed jars against what is declared', () => {
  it('a mean at or above it passes; one below it passes only within what chance explains', () => {
    expect(netVerdict(jars(284, 285, 283, 284), 283.5, 4, 1)).toMatchObject({
      passes: true,
      meanGood: true,
      short: [],
    });
    // 2 g less on the average, with a spread of 1 g over twelve: more than 0.635 g.
    const steady = jars(...Array.from({ length: 12 }, (_, i) => 281.5 + (i % 2 === 0 ? 1 : -1)));
    expect(netVerdict(steady, 283.5, 60, 1)).toMatchObject({ passes: false, meanGood: false });
    // The same mean with a wide spread may be chance.
    const wide = jars(...Array.from({ length: 12 }, (_, i) => 281.5 + (i % 2 === 0 ? 6 : -6)));
    expect(netVerdict(wide, 283.5, 60, 1)).toMatchObject({ meanGood: true });
  });

  it('one jar that lacks more than a single one may fails the lot, whatever the mean', () => {
    const verdict = netVerdict(jars(300, 300, 268.9, 300), 283.5, 4, 1);
    expect(verdict).toMatchObject({ passes: false, meanGood: true, short: [{ jar: 3 }] });
    expect(netVerdict(jars(300, 300, 269.1, 300), 283.5, 4, 1)?.passes).toBe(true);
  });

  it('names a scale that is too coarse, and how many are asked for', () => {
    expect(netVerdict(jars(284), 283.5, 40, 5)).toMatchObject({ asked: 12, sample: 1, fineEnough: false });
    expect(netVerdict([], 283.5, 40, 1)).toBeNull();
  });

  it('filled to its target a lot passes, and what it proposes to declare passes too', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 230, max: 330, noNaN: true }), { minLength: 2, maxLength: 12 }),
        nets => {
          const verdict = netVerdict(jars(...nets), 283.5, nets.length, 1);
          if (!verdict) throw new Error('weighed');
          const { target_g, mean_g, couldDeclare_g } = verdict;
          const up = nets.map(g => g + target_g - mean_g);
          expect(netVerdict(jars(...up), 283.5, nets.length, 1)?.meanGood).toBe(true);
          const oz = declarable_oz(couldDeclare_g);
          expect(oz * OZ).toBeLessThanOrEqual(mean_g + 1e-6);
          if (oz > 1) expect(netVerdict(jars(...nets), oz * OZ, nets.length, 1)?.meanGood).toBe(true);
        },
      ),
    );
  });

  it('a declaration never overstates: it is rounded down', () => {
    expect(declarable_oz(283.49)).toBeCloseTo(9.9, 6);
    expect(declarable_oz(283.5)).toBeCloseTo(10, 6);
    expect(declarable_oz(16.4 * OZ)).toBeCloseTo(16, 6);
  });

  it('a volume is weighed by the density of what is in the jar', () => {
    expect(declared_g({ kind: 'weight', oz: 10 }, 1.3)).toBeCloseTo(283.495, 3);
    expect(declared_g({ kind: 'volume', floz: 8 }, 1.3)).toBeCloseTo(8 * 29.5735 * 1.3, 2);
  });

  it('of a batch the last weighing of a jar counts here, and only jars that are its own', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).fill([1, 2]);
    batch.fact('jars.weighed', {
      jars: [
        { jar: 1, net_g: 300 },
        { jar: 2, net_g: 290 },
      ],
      left_g: 0,
    });
    batch.wait(5).fact('jars.weighed', {
      jars: [
        { jar: 1, net_g: 280 },
        { jar: 9, net_g: 400 },
      ],
      left_g: 0,
    });
    expect(netsBySize(fold(batch.events), 1.3)).toMatchObject([
      {
        size: 'half-pint',
        nets: [
          { jar: 1, net_g: 280 },
          { jar: 2, net_g: 290 },
        ],
      },
    ]);
  });
});
