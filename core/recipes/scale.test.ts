import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { jarCountText } from '../jars/index.ts';
import { Fraction } from '../measure/index.ts';
import { lineMass_g } from './index.ts';
import { recipeFaults } from './index.ts';
import { mainLine } from './index.ts';
import { amountsPerPot, factorForFruit, factorForJars, jarsForFactor, scaleRecipe } from './index.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const RECIPES = [plumJam, waxBeans, crushedTomatoes];

describe('scaling', () => {
  it('follows jars wanted, line by line', () => {
    const jars = [{ size: 'half-pint' as const, count: 16 }];
    const scaled = scaleRecipe(plumJam, factorForJars(plumJam, jars), jars);
    expect(scaled.factor).toBe('2');
    expect(scaled.lines.map(l => l.lineId)).toEqual(['plums', 'sugar', 'lemon', 'water']);
    expect(scaled.lines[0]?.mass_g).toBeCloseTo(2 * 2041.166, 2);
    expect(scaled.lines[0]?.asBought_g).toBeCloseTo((2 * 2041.166) / 0.92, 1);
    expect(scaled.lines[1]?.measure).toBe('14 c');
  });

  it('writes pieces and bushels within 5 %, or weighs them: never "0 bushels", never "0 oz to buy"', () => {
    const bushel = { text: '1 bushel', unit: 'bushel' as const, value: '1', upTo: null, toTaste: false };
    const [first] = plumJam.lines;
    if (!first) throw new Error('no line');
    const lines = [
      { ...first, id: 'a', amount: bushel, bushel_g: 25_000, each_g: null },
      { ...first, id: 'b', amount: { ...bushel, unit: 'each' as const }, bushel_g: null, each_g: 60 },
    ];
    const recipe = { ...plumJam, lines, steps: [] };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4000 }), n => {
        const factor = new Fraction(n, 400);
        for (const l of scaleRecipe(recipe, factor, []).lines) {
          expect(Math.abs(l.measureError)).toBeLessThanOrEqual(0.05);
          expect(`${l.measure} ${l.weight} ${l.toBuy}`).not.toMatch(/(?:^| )0 /);
        }
      }),
    );
    const small = scaleRecipe(recipe, new Fraction(1, 40), []).lines.map(l => l.measure);
    expect(small).toEqual(['1 lb 6 oz', '1 1/2 g']);
  });

  it('follows the fruit at hand, and says how much of a jar is over', () => {
    const factor = factorForFruit(plumJam, 3000);
    expect(factor.valueOf()).toBeCloseTo(3000 / lineMass_g(mainLine(plumJam)), 6);
    const fits = jarsForFactor(plumJam, factor, 'half-pint');
    expect(fits.count).toBe(11);
    expect(fits.over).toBeCloseTo(0.758, 2);
    expect(() => factorForFruit(plumJam, 0)).toThrow(RangeError);
    expect(() => factorForJars(plumJam, [{ size: 'pint', count: 0 }])).toThrow(RangeError);
  });

  it('doses each jar by its size: quart twice a pint, half-pint half (USDA Complete Guide, guide 3, acidification; from memory)', () => {
    const scaled = scaleRecipe(crushedTomatoes, new Fraction(1), [
      { size: 'pint', count: 2 },
      { size: 'quart', count: 3 },
    ]);
    const lemon = scaled.lines.find(l => l.lineId === 'lemon');
    expect(lemon?.eachJar.map(e => e.measure)).toEqual(['1 Tbsp', '2 Tbsp']);
    expect(lemon?.mass_g).toBeCloseTo(8 * 14.787 * 1.03, 0);
  });

  it('up and down again gives the same, no line is dropped, and mass is in proportion', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...RECIPES),
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 1, max: 97 }),
        (recipe, n, d) => {
          const jars = [recipe.makes];
          const factor = new Fraction(n, d);
          const once = scaleRecipe(recipe, new Fraction(1), jars);
          const scaled = scaleRecipe(recipe, factor, jars);
          expect(scaled.lines).toHaveLength(recipe.lines.length);
          expect(new Fraction(scaled.factor).div(factor).toFraction()).toBe('1');
          scaled.lines.forEach((l, i) => {
            const whole = once.lines[i] as (typeof once.lines)[number];
            expect(l.mass_g / whole.mass_g).toBeCloseTo(l.where === 'each jar' ? 1 : factor.valueOf(), 9);
          });
        },
      ),
    );
  });

  it('finds what keeps a recipe from being kept', () => {
    expect(recipeFaults(plumJam)).toEqual([]);
    const bad = {
      ...plumJam,
      lines: [{ ...(plumJam.lines[1] as (typeof plumJam.lines)[number]), density_gPerMl: null }],
      steps: [
        {
          ...(plumJam.steps[0] as (typeof plumJam.steps)[number]),
          adds: [{ lineId: 'gone', share: '1' }],
          window: { from_min: 9, to_min: 1 },
        },
      ],
    };
    expect(recipeFaults(bad).map(f => f.code)).toEqual([
      'density-missing',
      'no-main-line',
      'unknown-line',
      'window-backwards',
    ]);
    expect(
      recipeFaults({ ...waxBeans, lines: waxBeans.lines.map(l => ({ ...l, minStrength_pct: null })) }).map(
        f => f.code,
      ),
    ).toContain('strength-missing');
    expect(jarCountText(1, 'pint')).toBe('1 pint');
  });
});

describe('several pots', () => {
  it('each get their share of every line but those dosed by jar, and together all of it', () => {
    for (const recipe of [plumJam, waxBeans]) {
      const whole = scaleRecipe(recipe, new Fraction(3), []).lines;
      const each = amountsPerPot(recipe, new Fraction(3), 3);
      for (const line of whole)
        if (line.where === 'each jar') expect(each.has(line.lineId)).toBe(false);
        else expect((each.get(line.lineId)?.mass_g ?? 0) * 3).toBeCloseTo(line.mass_g, 6);
    }
    expect(amountsPerPot(plumJam, new Fraction(2), 2).get('sugar')?.measure).toBe('7 c');
  });
});
