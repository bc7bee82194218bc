import type { Kitchen } from '@cocotte/core/kitchen';
import { pintsOf } from '@cocotte/core/jars';
import { type Recipe, factorForPot } from '@cocotte/core/recipes';
import * as demo from '@cocotte/demo/recipes';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Wanted, firstWanted, foresee, planOf } from '../src/recipes/sheet/plan.ts';
import { kitchenOf } from './browser.ts';

const { crushedTomatoes, plumJam, strawberryJam, waxBeans } = demo;
const HERE: Kitchen = kitchenOf('en-US', true, {
  altitude_m: 716.28,
  pots: [{ id: 'p', name: 'Jam pan', capacity_mL: 9000, diameter_mm: 380, boilOff_gPerMin: 60 }],
  canners: [
    { id: 'c', name: 'Canner', kind: 'boiling water', holds: { 'half-pint': 8, pint: 7 } },
    { id: 's', name: 'Steam', kind: 'steam', holds: { quart: 7 } },
  ],
});
const plan = (recipe: Recipe, over: Partial<Wanted>, here = HERE) =>
  planOf(recipe, { ...firstWanted(recipe, here), ...over }, here);
const jars = (recipe: Recipe, over: Partial<Wanted>) =>
  plan(recipe, over).jars.map(j => `${j.count} ${j.size}`);

describe('a sheet begins', () => {
  it('with the recipe as written, in the first pot and canner there are', () => {
    for (const recipe of Object.values(demo) as Recipe[]) {
      const first = planOf(recipe, firstWanted(recipe, HERE), HERE);
      expect(first.fault).toBeNull();
      expect(first.factor.toFraction()).toBe('1');
      expect(first.jars).toEqual([recipe.makes]);
      expect(first.pot?.id).toBe('p');
      expect(first.canner?.id).toBe('c');
    }
  });

  it('without a pot or a canner too', () => {
    const bare = kitchenOf('en-US', true);
    expect(planOf(plumJam, firstWanted(plumJam, bare), bare)).toMatchObject({
      pot: null,
      canner: null,
      fault: null,
    });
  });
});

describe('by jars wanted', () => {
  it('of several sizes together', () => {
    const mixed = plan(plumJam, { counts: { 'half-pint': 10, 'quarter-pint': 12 } });
    expect(mixed.factor.toFraction()).toBe('2');
    expect(mixed.jars).toEqual([
      { size: 'half-pint', count: 10 },
      { size: 'quarter-pint', count: 12 },
    ]);
  });

  it('none is asked for; sizes the recipe has not are not counted', () => {
    expect(plan(plumJam, { counts: {} }).fault).toMatch(/No jar is wanted/);
    expect(plan(plumJam, { counts: { quart: 4 } }).fault).toMatch(/No jar is wanted/);
    expect(plan(plumJam, { counts: {} }).factor.toFraction()).toBe('1');
  });
});

describe('by fruit at hand', () => {
  const fruit = (text: string, basis: Wanted['basis'] = 'as bought') =>
    plan(plumJam, { mode: 'fruit', fruit: text, basis });

  it('as bought loses what is trimmed, prepared does not', () => {
    expect(fruit('4 1/2 lb', 'prepared').factor.valueOf()).toBeCloseTo(1, 6);
    expect(fruit('4 1/2 lb', 'as bought').factor.valueOf()).toBeCloseTo(0.92, 6);
    expect(fruit('1 bushel', 'as bought').factor.valueOf()).toBeGreaterThan(9);
  });

  it('fills whole jars, the rest in smaller ones, by its balance as past batches correct it', () => {
    const by = (share: number | null) =>
      planOf(
        plumJam,
        { ...firstWanted(plumJam, HERE), mode: 'fruit', fruit: '5 lb', basis: 'prepared' },
        HERE,
        share === null ? null : { batches: 1, share, low: share, high: share },
      ).jars.map(j => `${j.count} ${j.size}`);
    expect(by(null)).toEqual(['9 half-pint']);
    expect(by(0.93)).toEqual(['8 half-pint', '1 quarter-pint']);
  });

  it.each([
    ['', null],
    ['plenty', /no amount|not/i],
    ['3', /cannot be weighed|unit|means/i],
    ['0 lb', /above zero|zero/i],
    ['1/2 oz', /less than one half-pint/],
    ['90000 lb', /more than 500 jars/],
  ] as const)('"%s"', (text, words) => {
    const { fault, factor } = fruit(text);
    if (words === null) expect(fault).toBeNull();
    else if (fault !== null) expect(fault).toMatch(words);
    expect(factor.valueOf()).toBeGreaterThan(0);
  });
});

describe('by loads, by the pot, by a factor', () => {
  it('whole loads of the canner', () => {
    expect(jars(plumJam, { mode: 'loads', loads: 3 })).toEqual(['24 half-pint']);
    expect(plan(plumJam, { mode: 'loads', cannerId: 's' }).fault).toMatch(/Steam holds no half-pints/);
    expect(plan(plumJam, { mode: 'loads', cannerId: 'gone' }).fault).toMatch(/No canner is on record/);
  });

  it('as much as the pot may start with', () => {
    const [pan] = HERE.pots;
    if (!pan) throw new Error('there is a pot');
    const full = plan(plumJam, { mode: 'pot' });
    expect(full.pots.pots).toBe(1);
    expect(full.factor.valueOf()).toBe(factorForPot(plumJam, pan).valueOf());
    expect(plan(plumJam, { mode: 'pot', potId: 'gone' }).fault).toMatch(/No pot is on record/);
  });

  it('a factor within reason', () => {
    expect(jars(plumJam, { mode: 'factor', factor: '1 1/2' })).toEqual(['12 half-pint']);
    expect(plan(plumJam, { mode: 'factor', factor: '0' }).fault).toMatch(/at least 0.05/);
    expect(plan(plumJam, { mode: 'factor', factor: '50' }).fault).toMatch(/at most 20/);
    expect(plan(plumJam, { mode: 'factor', factor: 'twice' }).fault).toMatch(/not a number/);
    expect(plan(plumJam, { mode: 'factor', factor: '0.05' }).fault).toMatch(/less than one half-pint/);
  });
});

describe('pots', () => {
  it('ordinary pectin is split, or doubled by decision', () => {
    const double = { counts: { [strawberryJam.makes.size]: strawberryJam.makes.count * 2 } };
    expect(plan(strawberryJam, double).pots).toMatchObject({ pots: 2, each: '1', overridden: false });
    expect(plan(strawberryJam, { ...double, doublePectin: true }).pots.overridden).toBe(true);
  });
});

describe('what is foreseen', () => {
  it('a pot for what is cooked down, a pack for what is covered, nothing for what cannot be weighed', () => {
    expect(foresee(plumJam, plan(plumJam, {}), HERE)).toMatchObject({
      made: { pack: null, byEye: false },
      headspace_mm: 6.35,
    });
    expect(foresee(waxBeans, plan(waxBeans, {}), HERE)).toMatchObject({
      made: { pack: { jarsPerBushel: expect.any(Number) } },
      headspace_mm: 12.7,
    });
    const odd: Recipe = { ...plumJam, lines: plumJam.lines.map(l => ({ ...l, density_gPerMl: null })) };
    expect(foresee(odd, plan(odd, {}), HERE)).toMatchObject({ made: null });
  });

  it('half an inch where no time says otherwise', () => {
    const own: Recipe = { ...crushedTomatoes, authority: { grade: 'own', entryId: null } };
    expect(foresee(own, plan(own, {}), HERE).headspace_mm).toBe(12.7);
  });
});

it('whatever is set, the sheet stays usable: a factor, jars of the recipe, and no throw', () => {
  const wanted = fc.record({
    mode: fc.constantFrom('jars', 'fruit', 'loads', 'pot', 'factor') as fc.Arbitrary<Wanted['mode']>,
    fruit: fc.oneof(fc.string({ maxLength: 10 }), fc.constantFrom('3 lb', '2 kg', '1 bu', '4 c', '-1 lb')),
    basis: fc.constantFrom('prepared', 'as bought') as fc.Arbitrary<Wanted['basis']>,
    loads: fc.integer({ min: 1, max: 12 }),
    factor: fc.oneof(fc.string({ maxLength: 6 }), fc.constantFrom('1', '2.5', '1/3', '0')),
    cannerId: fc.constantFrom('c', 's', ''),
    potId: fc.constantFrom('p', ''),
    doublePectin: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.constantFrom(...(Object.values(demo) as Recipe[])), wanted, (recipe, over) => {
      const made = plan(recipe, over);
      expect(made.factor.compare(0)).toBeGreaterThan(0);
      expect(made.jars.length).toBeGreaterThan(0);
      for (const jar of made.jars) expect(recipe.jars.map(j => j.size)).toContain(jar.size);
      // Never more jars than there is for them: as the recipe says, or as its balance does of fruit at hand.
      const foreseen = over.mode === 'fruit' ? (foresee(recipe, made, HERE).made?.pints.mid ?? 0) : 0;
      expect(pintsOf(made.jars).valueOf()).toBeLessThanOrEqual(
        Math.max(pintsOf([recipe.makes]).mul(made.factor).valueOf(), foreseen * 1.03) + 1e-9,
      );
      expect(() => foresee(recipe, made, HERE)).not.toThrow();
    }),
    { numRuns: 150 },
  );
});
