import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, currantJelly, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { amountOf, lineOf, withAmount, withLines } from '../../testing/recipe-lines.ts';
import { fold } from '../batches/index.ts';
import { gate } from '../checks/index.ts';
import { truthfulName } from '../labels/index.ts';
import { PLAIN_FIGURES } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import { claimOf, namesFor, withName } from './index.ts';
import { writtenFigures } from './names.ts';

/**
 * Which names are truthful, against the standards of identity: 21 CFR 150.110 to 150.160 (spreads), 155.190 to 155.194
 * (tomatoes, purée, ketchup), 156.145 (tomato juice), 101.30 (per cent juice). All from memory: the rules they have to obey
 * are tested as much as their figures.
 */
const choice = (recipe: Recipe, name: string, over: Parameters<typeof namesFor>[2] = undefined) =>
  namesFor(recipe, PLAIN_FIGURES, over).choices.find(c => c.name === name);
const truthful = (recipe: Recipe) =>
  namesFor(recipe)
    .choices.filter(c => c.truthful)
    .map(c => c.name);
const made = (of: Partial<Recipe>, ...lines: Line[]): Recipe => ({ ...plumJam, ...of, lines });
const cooked = (recipe: Recipe, solids_pct: number) =>
  ({ ...writtenFigures(recipe), solids_pct, measured: true }) as const;

describe('spreads', () => {
  const spread = (fruit_g: number, sugar_g: number, method: Partial<Recipe['method']> = {}) =>
    made(
      { method: { ...plumJam.method, ...method } },
      lineOf('plum', `${fruit_g} g`, 'f', { group: 'I', safelyAcid: true, role: 'fruit', solids_pct: 11 }),
      lineOf('sugar', `${sugar_g} g`, 's'),
    );

  it('are named by their fruit, their solids, and what is in them', () => {
    const enough = spread(470, 500);
    const named = (recipe: Recipe, solids: number) =>
      namesFor(recipe, PLAIN_FIGURES, cooked(recipe, solids))
        .choices.filter(c => c.truthful)
        .map(c => c.name);
    expect(named(enough, 66)).toEqual(['jam', 'preserves', 'fruit spread', 'topping']);
    expect(named(enough, 64)).toEqual(['fruit spread', 'topping']);
    expect(named(spread(470, 560), 66)).toEqual(['fruit spread', 'topping']);
    expect(named(spread(470, 500, { strain: 'strained', cut: 'juice' }), 66)).toEqual([
      'jelly',
      'fruit spread',
      'topping',
    ]);
    // 5 of fruit to 2 of sugar, and 43 %.
    expect(named(spread(500, 200, { cut: 'puréed' }), 44)).toContain('fruit butter');
    expect(named(spread(500, 201, { cut: 'puréed' }), 44)).not.toContain('fruit butter');
    expect(named(spread(500, 200, { cut: 'puréed' }), 42)).not.toContain('fruit butter');
    expect(truthful({ ...plumJam, setBy: 'not set' })).toContain('syrup');
  });

  it('hold citrus peel to be a marmalade, and several fruits to be a conserve', () => {
    const orange = made(
      {},
      lineOf('Orange', '500 g', 'o', { role: 'fruit', group: 'I', safelyAcid: true }),
      lineOf('sugar', '500 g', 's'),
    );
    expect(truthful(orange)).toContain('marmalade');
    expect(truthful(plumJam)).not.toContain('marmalade');
    expect(truthful(plumJam)).not.toContain('conserve');
    const two = withLines(plumJam, lineOf('raisin', '100 g', 'r', { role: 'fruit', safelyAcid: true }));
    expect(truthful(two)).toContain('conserve');
  });

  it('by cups ask to be weighed near a limit, and by weight do not', () => {
    const cups = withAmount(plumJam, 'sugar', '12 c');
    const near = namesFor(cups);
    expect(near.choices.find(c => c.name === 'jam')?.near).toBe('amounts');
    expect(near.weigh).toEqual(['Sugar']);
    expect(namesFor(withAmount(plumJam, 'sugar', '7 c'), PLAIN_FIGURES, cooked(plumJam, 68)).weigh).toEqual(
      [],
    );
    const weighed = withAmount(plumJam, 'sugar', '2300 g');
    expect(namesFor(weighed, PLAIN_FIGURES, cooked(weighed, 68)).weigh).toEqual([]);
  });

  it('foreseen near its solids it may be a jam, and the pot decides; far from it, it may not', () => {
    const jam = (solids_pct: number, measured = false) =>
      choice(plumJam, 'jam', { ...writtenFigures(plumJam), solids_pct, measured });
    expect(jam(64.4)).toMatchObject({ truthful: true, near: 'solids' });
    expect(jam(64.4)?.why).toMatch(
      /64\.4 % soluble solids are foreseen; a jam needs 65 % when it is finished\.$/,
    );
    expect(jam(63)?.truthful).toBe(false);
    expect(jam(64.9, true)?.truthful).toBe(false);
    expect(namesFor(plumJam).weigh).toEqual([]);
  });

  it('generated: more sugar to the same fruit never makes a jam of what was none; every recipe has a truthful name', () => {
    const grams = fc.integer({ min: 50, max: 3000 });
    fc.assert(
      fc.property(grams, grams, fc.integer({ min: 1, max: 900 }), (fruit, sugar, more) => {
        const is = (recipe: Recipe) => choice(recipe, 'jam', cooked(recipe, 70))?.truthful;
        if (!is(spread(fruit, sugar))) expect(is(spread(fruit, sugar + more))).toBe(false);
        expect(truthful(spread(fruit, sugar))).toContain('fruit spread');
      }),
      { numRuns: 60 },
    );
  });
});

describe('tomatoes', () => {
  const tomato = (of: Partial<Recipe['method']>, ...more: Line[]): Recipe => ({
    ...crushedTomatoes,
    product: 'tomato sauce',
    statementOfIdentity: 'Tomato purée',
    method: { ...crushedTomatoes.method, ...of },
    lines: [...crushedTomatoes.lines, ...more],
    steps: [],
  });
  /** Solids of the tomatoes alone, from the figures of its lines. */
  const boiled = (recipe: Recipe, share: number): Parameters<typeof namesFor>[2] => {
    const of = writtenFigures(recipe);
    for (const parts of of.jars?.values() ?? []) parts.water_g *= share;
    return of;
  };

  it('are purée from 8 % of their own solids on, paste from 24 %, and no other food is', () => {
    const sauce = tomato({ cut: 'puréed' });
    const names = (share: number, recipe = sauce) =>
      namesFor(recipe, PLAIN_FIGURES, boiled(recipe, share))
        .choices.filter(c => c.truthful)
        .map(c => c.name);
    expect(names(1)).toEqual(['tomato sauce']);
    expect(names(0.4)).toEqual(['tomato purée', 'tomato sauce']);
    expect(names(0.1)).toEqual(['tomato paste', 'tomato sauce']);
    const onion = tomato({ cut: 'puréed' }, lineOf('onion', '300 g', 'onion', { role: 'low-acid produce' }));
    expect(names(0.4, onion)).toEqual(['tomato sauce']);
    expect(choice(onion, 'tomato purée')?.why).toBe('It holds onions as well.');
    expect(choice(tomato({ cut: 'chopped' }), 'tomato purée')?.truthful).toBe(false);
  });

  it('are ketchup with vinegar, sweetener and spice, and lack what they lack', () => {
    const sauce = tomato({ cut: 'puréed' });
    expect(choice(sauce, 'ketchup')?.why).toBe(
      'A ketchup also holds vinegar, a sweetener, spice, onion or garlic.',
    );
    const ketchup = tomato(
      { cut: 'puréed' },
      lineOf('White vinegar, 5 %', '200 g', 'v', { role: 'acid' }),
      lineOf('sugar', '100 g', 's', { role: 'sweetener' }),
      lineOf('Allspice', '3 g', 'a', { role: 'spice' }),
    );
    expect(choice(ketchup, 'ketchup')?.truthful).toBe(true);
  });

  it('in pieces are canned tomatoes, and say so of water', () => {
    const pieces = { ...crushedTomatoes, method: { ...crushedTomatoes.method, cut: 'halved' as const } };
    expect(truthful(pieces)).toEqual(['canned tomatoes']);
    const wet = { ...pieces, method: { ...pieces.method, liquid: 'water' as const } };
    expect(truthful(wet)).toEqual(['tomatoes in water']);
  });
});

describe('juice', () => {
  const juice = (water_g: number, sugar_g = 0): Recipe =>
    made(
      {
        product: 'juice',
        statementOfIdentity: 'Grape juice',
        steps: [],
        method: { ...plumJam.method, cut: 'juice' },
      },
      lineOf('grape', '1000 g', 'g', { role: 'fruit', safelyAcid: true, solids_pct: 16 }),
      ...(water_g > 0 ? [lineOf('water', `${water_g} g`, 'w', { role: 'water' })] : []),
      ...(sugar_g > 0 ? [lineOf('sugar', `${sugar_g} g`, 's', { role: 'sweetener' })] : []),
    );

  it('is called so alone where it is all juice; sugar does not thin it, water does', () => {
    expect(namesFor(juice(0)).juice_pct).toBeGreaterThan(98);
    expect(namesFor(juice(0, 150)).juice_pct).toBeGreaterThan(98);
    expect(choice(juice(0), 'juice')?.truthful).toBe(true);
    const half = namesFor(juice(1000));
    expect(half.juice_pct).toBeGreaterThan(48);
    expect(half.juice_pct).toBeLessThan(52);
    expect(half.choices.filter(c => c.truthful).map(c => c.name)).toEqual([
      expect.stringMatching(/^juice drink, \d\d % juice$/),
    ]);
  });

  it('generated: more water is never more juice', () => {
    fc.assert(
      fc.property(fc.nat(3000), fc.integer({ min: 1, max: 900 }), (water, more) => {
        const pct = (g: number) => namesFor(juice(g)).juice_pct ?? 0;
        expect(pct(water + more)).toBeLessThanOrEqual(pct(water) + 1e-9);
      }),
      { numRuns: 40 },
    );
  });
});

describe('what a statement claims', () => {
  it.each([
    ['Red plum jam', plumJam, 'jam'],
    ['Plum fruit spread', plumJam, undefined],
    ['Red currant jelly', currantJelly, 'jelly'],
    ['Plum butter', plumJam, 'fruit butter'],
    ['Bread and butter pickles', waxBeans, undefined],
    ['Jam-packed beans', waxBeans, undefined],
    ['Crushed tomatoes', crushedTomatoes, 'canned tomatoes'],
    ['Plums in juice', plumJam, undefined],
    ['__proto__', plumJam, undefined],
  ])('%s', (statementOfIdentity, recipe, claimed) => {
    expect(claimOf({ ...recipe, statementOfIdentity })?.name).toBe(claimed);
  });

  it.each([
    ['Red plum jam', plumJam, 'fruit spread', 'Red plum fruit spread'],
    ['Jam of red plums', plumJam, 'topping', 'Topping of red plums'],
    ['Plums', plumJam, 'topping', 'Plums, topping'],
    ['Plum topping', plumJam, 'topping', 'Plum topping'],
    ['Tomato purée', { ...crushedTomatoes, product: 'purée' as const }, 'tomato sauce', 'Tomato sauce'],
    ['Crushed tomatoes', crushedTomatoes, 'tomatoes in water', 'Crushed tomatoes in water'],
  ])('%s renamed', (statementOfIdentity, recipe, name, expected) => {
    expect(withName({ ...recipe, statementOfIdentity }, name)).toBe(expected);
  });

  it('a spread that calls itself jam is held to the standard of jam, whatever kind of product it was entered as', () => {
    const thin = {
      ...plumJam,
      product: 'fruit spread' as const,
      lines: plumJam.lines.map(l => (l.id === 'plums' ? { ...l, amount: amountOf('500 g') } : l)),
    };
    const batch = new PaperBatch(thin, [{ size: 'half-pint', count: 2 }]);
    for (const [lineId, mass_g] of [
      ['plums', 125],
      ['sugar', 350],
    ] as const)
      batch.fact('line.weighed', { lineId, mass_g });
    expect(truthfulName(fold(batch.drawAll().events), PLAIN_FIGURES).name).toBe('Red plum fruit spread');
    // The name holds no jar.
    expect(gate(fold(batch.events)).conditions.map(c => c.code)).not.toContain('name');
  });

  it('solids that were only reckoned take no name away; solids that were read do', () => {
    const batch = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).drawAll();
    const read = (brix_pct: number, part = '') =>
      truthfulName(
        fold(
          batch().fact('solids.read', {
            part,
            brix_pct,
            outletId: null,
            potId: null,
            instrumentId: null,
          }).events,
        ),
        PLAIN_FIGURES,
      ).name;
    expect(truthfulName(fold(batch().events), PLAIN_FIGURES).name).toBe('Red plum jam');
    expect(read(60)).toBe('Red plum fruit spread');
    expect(read(65)).toBe('Red plum jam');
    expect(read(60, 'syrup')).toBe('Red plum jam');
  });
});
