import { currantJelly, plumJam, strawberryJam } from '../../demo/recipes.ts';
import { lineOf, withLine, withLines } from '../../testing/recipe-lines.ts';
import { byName } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import { authorityFault, routeToSale } from './authority.ts';
import { nameCheck, spreadCover } from './identity.ts';
import { processFor } from './process-for.ts';
import { classOf } from './rules.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

describe('may it be called so (21 CFR 150; from memory)', () => {
  const spread = (
    fruit: number,
    sugar: number,
    group: 'I' | 'II',
    product: Recipe['product'] = 'jam',
    more: Partial<Line> = {},
  ): Recipe => ({
    ...plumJam,
    product,
    lines: [
      lineOf('plum', `${fruit} g`, 'f', { group, safelyAcid: true, ...more }),
      lineOf('sugar', `${sugar} g`, 's'),
    ],
  });
  it.each([
    ['I', 470, 550, 'jam', true],
    ['I', 470, 551, 'jam', false],
    ['II', 450, 550, 'jam', true],
    ['II', 450, 551, 'jam', false],
    ['I', 470, 550, 'preserves', true],
    ['I', 450, 550, 'jelly', true],
    ['I', 449, 550, 'jelly', false],
    ['I', 500, 200, 'fruit butter', true],
    ['I', 499, 200, 'fruit butter', false],
  ] as const)('group %s, %i of fruit to %i of sugar as %s: %s', (group, fruit, sugar, product, meets) => {
    const found = nameCheck(spread(fruit, sugar, group, product));
    expect(found.meets).toBe(meets);
  });

  it('asks for its soluble solids: 65 % for jam, preserves and jelly, 43 % for fruit butter', () => {
    expect(nameCheck(spread(470, 500, 'I'), byName(), 65).meets).toBe(true);
    expect(nameCheck(spread(470, 500, 'I'), byName(), 64.9).meets).toBe(false);
    expect(nameCheck(spread(500, 200, 'I', 'fruit butter'), byName(), 43).meets).toBe(true);
    expect(nameCheck(spread(500, 200, 'I', 'fruit butter'), byName(), 42.9).why).toMatch(
      /42.9 % soluble solids/,
    );
  });

  it('counts sweeteners by their solids and fruit without the sugar added to it', () => {
    const honey = (g: number): Recipe => ({
      ...plumJam,
      lines: [
        lineOf('plum', '470 g', 'f', { group: 'I' }),
        lineOf('honey', `${g} g`, 'h', { solids_pct: 82 }),
      ],
    });
    // 550 g of solids are 670.7 g of honey of 82 %.
    expect(nameCheck(honey(670)).meets).toBe(true);
    expect(nameCheck(honey(672)).meets).toBe(false);
    // 500 g of which a tenth is added sugar: 450 of fruit, 50 of sugar already.
    expect(nameCheck(spread(500, 500, 'II', 'jam', { addedSugar_pct: 10 })).meets).toBe(true);
    expect(nameCheck(spread(500, 501, 'II', 'jam', { addedSugar_pct: 10 })).meets).toBe(false);
  });

  it('gives the same answer at any scale, and more fruit never makes it fail', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 5000 }),
        fc.integer({ min: 50, max: 5000 }),
        fc.integer({ min: 2, max: 9 }),
        (fruit, sugar, times) => {
          const found = nameCheck(spread(fruit, sugar, 'I'));
          expect(nameCheck(spread(fruit * times, sugar * times, 'I')).meets).toBe(found.meets);
          if (found.meets) expect(nameCheck(spread(fruit + times, sugar, 'I')).meets).toBe(true);
          expect(found.fruitPart).toBeCloseTo((fruit / (fruit + sugar)) * 100, 9);
        },
      ),
    );
  });

  it('takes the stricter group where fruits of both are mixed', () => {
    const mixed: Recipe = {
      ...plumJam,
      lines: [
        lineOf('plum', '225 g', 'a', { group: 'II' }),
        lineOf('strawberry', '225 g', 'b', { group: 'I' }),
        lineOf('sugar', '550 g', 's'),
      ],
    };
    expect(nameCheck(mixed).needed).toBeCloseTo((47 / 102) * 100, 6);
    expect(nameCheck(mixed).meets).toBe(false);
  });

  it('judges what went in where it is known, and as written where it is not', () => {
    const jam = spread(470, 550, 'I');
    expect(nameCheck(jam, byName({ f: 460 })).meets).toBe(false);
    expect(nameCheck(jam, byName({ f: 460, s: 530 })).meets).toBe(true);
  });

  it('has nothing to say of a name without a standard, and says no to one without a sweetener', () => {
    expect(nameCheck({ ...plumJam, product: 'chutney' })).toMatchObject({ meets: true, needed: null });
    const bare: Recipe = { ...plumJam, lines: [lineOf('plum', '500 g', 'f')] };
    expect(nameCheck(bare)).toMatchObject({ meets: false, fruitPart: 100 });
    expect(nameCheck({ ...plumJam, lines: [] })).toMatchObject({ meets: false, fruitPart: 0 });
  });

  it('counts only what stays of strained fruit', () => {
    const jelly = nameCheck(currantJelly);
    const squeezed = nameCheck(withLine(currantJelly, 'currants', { keptShare: 0.31 }));
    expect(squeezed.fruitPart).toBeLessThan(jelly.fruitPart);
  });
});

describe('a fruit spread that the published family time covers', () => {
  it('is safely acid fruit and sugar, whatever it may be called', () => {
    for (const recipe of [
      plumJam,
      currantJelly,
      strawberryJam,
      { ...plumJam, product: 'marmalade' as const },
    ])
      expect(spreadCover(recipe)).toMatchObject({ covered: true });
    // More sugar than the standard of jam allows its fruit is a matter of the name.
    const sweet = withLine(plumJam, 'sugar', { amount: lineOf('sugar', '4 kg').amount });
    expect(nameCheck(sweet).meets).toBe(false);
    expect(authorityFault(sweet)).toBeNull();
    expect(routeToSale(sweet).open).toBe(true);
    // A butter is done long before its sugar keeps it.
    const butter = { ...plumJam, product: 'fruit butter' as const };
    expect(authorityFault({ ...butter, authority: { grade: 'own', entryId: 'fruit-butter' } })?.what).toBe(
      'An own fruit butter has no processing time to borrow.',
    );
    // Without any sugar nothing keeps it.
    expect(spreadCover({ lines: plumJam.lines.filter(l => l.role !== 'sweetener') })).toMatchObject({
      covered: false,
      why: expect.stringMatching(/no sweetener/),
    });
  });

  it.each([
    ['a fruit that is not safely acid', 'fig', {}, /not on the list/],
    ['low-acid produce', 'onion', {}, /low-acid produce does not belong/],
    ['something nobody has named', 'Widdershins', { role: 'other' }, /nobody has said what it is/],
  ] as const)('is not one with %s', (_, name, over, why) => {
    const recipe = withLines(plumJam, lineOf(name, '200 g', 'x', over as Partial<Line>));
    expect(spreadCover(recipe)).toMatchObject({ covered: false, why: expect.stringMatching(why) });
    expect(authorityFault(recipe)).not.toBeNull();
  });

  it.each([
    ['a fig called safely acid', 'fig', { safelyAcid: true }],
    ["the same under the kitchen's own name", 'Ripe black figs', { role: 'fruit', safelyAcid: true }],
    ['an onion called a spice', 'onion', { role: 'spice' }],
    ['the same under another name', 'Diced red onions', { role: 'sweetener' }],
  ] as const)('borrows no time with %s, whatever class was written down', (_, name, over) => {
    const recipe = withLines(plumJam, lineOf(name, '200 g', 'x', over as Partial<Line>));
    for (const foodClass of ['fruit spread', 'acid food', 'acidified food'] as const) {
      expect(authorityFault({ ...recipe, foodClass })).toMatchObject({
        what: 'An own recipe has no processing time to borrow.',
      });
      expect(processFor({ ...recipe, foodClass }, 'half-pint', 0).ok).toBe(false);
    }
    expect(classOf(recipe)).toBe('acidified food');
  });

  it('what only dips the fruit and never stays in it is no part of it', () => {
    for (const name of ['onion', 'Widdershins'])
      expect(authorityFault(withLines(plumJam, lineOf(name, '200 g', 'x', { where: 'dip' })))).toBeNull();
  });
});
