import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HEIGHTS_FT } from './data/heights.ts';
import {
  findHeights,
  FIRST_STEPS,
  firstSteps,
  JURISDICTIONS,
  type Kitchen,
  noPlace,
  plainCosts,
  USUAL_THINGS,
  withUsual,
} from './index.ts';

const empty = {
  kitchen: { placed: false, pots: [], canners: [], jurisdiction: noPlace(), makerName: '', makerAddress: '' },
  recipes: 0,
  items: 0,
  batches: 0,
};

describe('the first steps', () => {
  it('all are open in an empty kitchen, each goes when it is done, none is left at the end', () => {
    expect(firstSteps(empty)).toEqual(FIRST_STEPS);
    const placed = { ...empty, kitchen: { ...empty.kitchen, placed: true } };
    expect(firstSteps(placed)).toEqual(FIRST_STEPS.slice(1));
    const kitchen = withUsual(
      { ...placed.kitchen, costs: plainCosts },
      new Set(USUAL_THINGS.map(t => t.id)),
      () => 'x',
    );
    const [rules = null] = JURISDICTIONS;
    const whole = { ...kitchen, makerName: 'A', makerAddress: 'B', jurisdiction: { ...noPlace(), rules } };
    expect(firstSteps({ kitchen: whole, recipes: 1, items: 1, batches: 1 })).toEqual([]);
    expect(firstSteps({ kitchen: whole, recipes: 1, items: 1, batches: 0 })).toEqual(['batch']);
  });

  it('usual things add to what is there, each once, with figures that can be', () => {
    const kitchen: Pick<Kitchen, 'pots' | 'canners' | 'costs'> = { pots: [], canners: [], costs: plainCosts };
    for (const thing of USUAL_THINGS) {
      const one = withUsual(kitchen, new Set([thing.id]), () => 'x');
      expect(one.pots.length + one.canners.length + one.costs.burners.length, thing.id).toBe(1);
      for (const pot of one.pots) {
        expect(pot.capacity_mL).toBeGreaterThan(5000);
        // Its height is between a third and three times its width: a pot, and no plate.
        const height_mm = (pot.capacity_mL * 1000) / (Math.PI * (pot.diameter_mm / 2) ** 2);
        expect(height_mm / pot.diameter_mm).toBeGreaterThan(1 / 3);
        expect(height_mm / pot.diameter_mm).toBeLessThan(3);
      }
      for (const { holds } of one.canners) {
        // Of a larger jar no more stand in it than of a smaller one.
        const counts = ['quarter-pint', 'half-pint', 'pint', 'quart'].map(s => holds[s as 'pint'] ?? 0);
        expect(counts).toEqual(counts.toSorted((a, b) => b - a));
      }
    }
    expect(withUsual(kitchen, new Set(), () => 'x')).toEqual(kitchen);
  });
});

describe('heights of places', () => {
  it('are found by a part of the name, those that begin with it first; nothing for nothing', () => {
    expect(findHeights('denv')[0]).toEqual(['Denver, Colorado', 5280]);
    expect(findHeights('port').map(([p]) => p)).toEqual(['Portland, Maine', 'Portland, Oregon']);
    expect(findHeights('  ')).toEqual([]);
    fc.assert(fc.property(fc.string({ maxLength: 40 }), text => findHeights(text).length <= 8));
  });

  it('each stands once, between the sea and the highest towns', () => {
    expect(new Set(HEIGHTS_FT.map(([p]) => p)).size).toBe(HEIGHTS_FT.length);
    for (const [place, height_ft] of HEIGHTS_FT) {
      expect(place).toMatch(/^[\p{L}. ]+, [\p{L} ]+$/u);
      expect(height_ft, place).toBeGreaterThanOrEqual(0);
      expect(height_ft, place).toBeLessThan(10_500);
      expect(height_ft % 10, place).toBe(0);
    }
  });
});
