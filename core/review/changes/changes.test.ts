import {
  crushedTomatoes,
  currantJelly,
  plumJam,
  sauerkraut,
  tomatoSalsa,
  waxBeans,
} from '../../../demo/recipes.ts';
import {
  amountOf,
  lineOf,
  withAmount,
  withLine,
  withLines,
  withoutLine,
} from '../../../testing/recipe-lines.ts';
import { Fraction, PLAIN_FIGURES } from '../../measure/index.ts';
import type { Line, Recipe } from '../../recipes/index.ts';
import { routeToSale } from '../authority.ts';
import { processFor } from '../process-for.ts';
import { formulaOf } from './change.ts';
import { changesFrom } from './index.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const changes = (tested: Recipe, recipe: Recipe) =>
  changesFrom(formulaOf(tested), formulaOf(recipe), PLAIN_FIGURES);
const codes = (tested: Recipe, recipe: Recipe) => changes(tested, recipe).map(c => c.code);
const breaking = (tested: Recipe, recipe: Recipe) =>
  changes(tested, recipe)
    .filter(c => c.breaks)
    .map(c => c.code);
const method = (recipe: Recipe, over: Partial<Recipe['method']>): Recipe => ({
  ...recipe,
  method: { ...recipe.method, ...over },
});

/** The whole pot so many times; doses follow the jars and ratios their measure, so those stay. */
function scaled(recipe: Recipe, times: Fraction): Recipe {
  return {
    ...recipe,
    lines: recipe.lines.map(l =>
      l.where === 'each jar' || l.ratio
        ? l
        : {
            ...l,
            amount: { ...l.amount, value: new Fraction(l.amount.value).mul(times).toFraction(), upTo: null },
          },
    ),
  };
}

describe('no change', () => {
  it.each([plumJam, waxBeans, crushedTomatoes, tomatoSalsa, currantJelly, sauerkraut])(
    '$name held against itself, and at any scale',
    recipe => {
      const plain = scaled(recipe, new Fraction(1));
      expect(changes(plain, plain)).toEqual([]);
      fc.assert(
        fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 40 }), (n, d) => {
          expect(changes(plain, scaled(plain, new Fraction(n, d)))).toEqual([]);
        }),
        { numRuns: 30 },
      );
    },
  );

  it('is the rounding of spoons: less than one part in a hundred', () => {
    expect(changes(waxBeans, withAmount(waxBeans, 'vinegar', '1413 mL'))).toEqual([]);
    expect(breaking(waxBeans, withAmount(waxBeans, 'vinegar', '1400 mL'))).toEqual(['less-acid']);
  });

  it('is the same amount in another unit, under another name for the line', () => {
    const grams = withLine(waxBeans, 'beans', { amount: amountOf('1814.37 g'), preparation: 'whole' });
    expect(changes(waxBeans, grams)).toEqual([]);
  });
});

describe('names the change that was made, and no other', () => {
  it('one vegetable more, and only that', () => {
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('onion', '200 g')))).toEqual(['produce-added']);
    expect(breaking(tomatoSalsa, withLines(tomatoSalsa, lineOf('carrot', '300 g')))).toEqual([
      'produce-added',
    ]);
  });

  it('says what would bring it back', () => {
    const [change] = changes(waxBeans, withLines(waxBeans, lineOf('onion', '200 g')));
    expect(change).toMatchObject({ breaks: true, what: 'Onions: added.', next: 'Leave out onions.' });
    const [less] = changes(waxBeans, withAmount(waxBeans, 'vinegar', '3 c'));
    expect(less?.what).toMatch(/Less acid: 50 % of what the tested recipe has/);
    expect(less?.next).toMatch(/Put the acid back, or take out produce/);
    const [water] = changes(waxBeans, withAmount(waxBeans, 'water', '6 c'));
    expect(water).toMatchObject({
      code: 'diluted',
      what: 'Water: more of it (150 % of what was tested).',
      next: 'Go back to the tested amount of water.',
    });
  });

  it('more produce for the same acid and water is less acid, and thicker', () => {
    expect(breaking(waxBeans, withAmount(waxBeans, 'beans', '5 lb'))).toEqual(['less-acid']);
  });

  it('goes by everything in the pot where nothing of the food is left', () => {
    const other = withLine(withoutLine(waxBeans, 'beans'), 'salt', {});
    const okra = withLines(other, lineOf('okra', '4 lb', 'okra'));
    expect(breaking(waxBeans, okra)).toContain('produce-added');
    expect(codes(waxBeans, okra)).toContain('less-low-acid');
  });
});

describe('acid', () => {
  it('less of it, or none, is lost; more of it is free', () => {
    expect(breaking(waxBeans, withAmount(waxBeans, 'vinegar', '5 c'))).toEqual(['less-acid']);
    expect(breaking(waxBeans, withoutLine(waxBeans, 'vinegar'))).toEqual(['less-acid']);
    expect(changes(waxBeans, withAmount(waxBeans, 'vinegar', '7 c'))).toMatchObject([
      { code: 'more-acid', breaks: false },
    ]);
  });

  it('a weaker vinegar is lost, a stronger one is not', () => {
    expect(breaking(waxBeans, withLine(waxBeans, 'vinegar', { minStrength_pct: 4 }))).toEqual([
      'weaker-vinegar',
    ]);
    expect(breaking(waxBeans, withLine(waxBeans, 'vinegar', { minStrength_pct: 6 }))).toEqual([]);
  });

  it('bottled juice may stand in for vinegar, volume for volume, never the other way (USDA, guide 6; from memory)', () => {
    const juice = (text: string): Recipe => ({
      ...waxBeans,
      lines: waxBeans.lines.map(l =>
        l.id === 'vinegar' ? lineOf('bottled-lemon', text, 'vinegar', { where: 'brine' }) : l,
      ),
    });
    expect(changes(waxBeans, juice('6 c'))).toMatchObject([{ code: 'juice-for-vinegar', breaks: false }]);
    expect(breaking(waxBeans, juice('5 c'))).toEqual(['less-acid']);
    const vinegar: Recipe = {
      ...tomatoSalsa,
      lines: tomatoSalsa.lines.map(l => (l.id === 'lime' ? lineOf('white-vinegar', '1 c', 'lime') : l)),
    };
    expect(breaking(tomatoSalsa, vinegar)).toContain('vinegar-for-juice');
  });

  it('fresh, home-made or other juice never stands in for what was tested', () => {
    for (const [name, over] of [
      ['fresh-lemon', {}],
      ['Home-made vinegar', { role: 'acid' }],
      ['Bottled orange juice', { role: 'acid' }],
      ['Wine', { role: 'acid' }],
    ] as [string, Partial<Line>][]) {
      const swapped: Recipe = {
        ...waxBeans,
        lines: waxBeans.lines.map(l =>
          l.id === 'vinegar'
            ? lineOf(name, '6 c', 'vinegar', { where: 'brine', density_gPerMl: 1.02, ...over })
            : l,
        ),
      };
      expect(breaking(waxBeans, swapped)).toContain('less-acid');
    }
  });

  it('an acid of unknown strength that is added is no part of what was tested', () =>
    expect(
      breaking(waxBeans, withLines(waxBeans, lineOf('Wine', '200 g', 'wine', { role: 'acid' }))),
    ).toEqual(['other']));

  it('in each jar of plain tomatoes the three kinds stand in for each other (USDA, guide 3; from memory)', () => {
    const dose = (name: string, text: string): Recipe => ({
      ...crushedTomatoes,
      lines: [crushedTomatoes.lines[0] as Line, lineOf(name, text, 'lemon', { where: 'each jar' })],
    });
    expect(breaking(crushedTomatoes, dose('citric-acid', '1/4 tsp'))).toEqual([]);
    expect(breaking(crushedTomatoes, dose('white-vinegar', '2 Tbsp'))).toEqual([]);
    expect(breaking(crushedTomatoes, dose('white-vinegar', '1 Tbsp'))).toEqual(['less-acid']);
    expect(breaking(crushedTomatoes, dose('citric-acid', '1/8 tsp'))).toEqual(['less-acid']);
    expect(breaking(crushedTomatoes, dose('bottled-lemon', '2 tsp'))).toEqual(['less-acid']);
    expect(
      breaking(crushedTomatoes, { ...crushedTomatoes, lines: [crushedTomatoes.lines[0] as Line] }),
    ).toEqual(['less-acid']);
  });

  it('moved from each jar into the pot, or from the pot into each jar, is not where it was tested', () => {
    const inPot = withLine(crushedTomatoes, 'lemon', { where: 'pot', amount: amountOf('2 c') });
    expect(breaking(crushedTomatoes, inPot)).toEqual(['less-acid']);
    expect(changes(crushedTomatoes, inPot)[0]?.what ?? '').not.toBe('');
    const inJars = withLine(waxBeans, 'vinegar', { where: 'each jar', amount: amountOf('1 c') });
    expect(breaking(waxBeans, inJars)).toEqual(['less-acid']);
  });

  it('whatever is taken from the acid by more than the rounding, the recipe never keeps its authority', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(waxBeans, tomatoSalsa),
        fc.integer({ min: 0, max: 985 }),
        fc.integer({ min: 1, max: 12 }),
        (recipe, thousandths, times) => {
          const big = scaled(recipe, new Fraction(times));
          const weak: Recipe = {
            ...big,
            lines: big.lines.map(l =>
              l.role === 'acid'
                ? {
                    ...l,
                    amount: {
                      ...l.amount,
                      value: new Fraction(l.amount.value).mul(thousandths, 1000).toFraction(),
                    },
                  }
                : l,
            ),
          };
          expect(breaking(scaled(recipe, new Fraction(1)), weak)).toContain('less-acid');
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('ingredients', () => {
  it('low-acid produce: more of it is lost, less of it is free', () => {
    const [onions] = tomatoSalsa.lines.filter(l => l.role === 'low-acid produce' && l.where === 'pot');
    const id = (onions as Line).id;
    const twice = withLine(tomatoSalsa, id, {
      amount: {
        ...(onions as Line).amount,
        value: new Fraction((onions as Line).amount.value).mul(2).toFraction(),
      },
    });
    expect(breaking(tomatoSalsa, twice)).toEqual(['more-low-acid']);
    expect(breaking(tomatoSalsa, withoutLine(tomatoSalsa, id))).toEqual([]);
    expect(codes(tomatoSalsa, withoutLine(tomatoSalsa, id))).toEqual(['less-low-acid']);
  });

  it('is not talked out of it by a role: an onion called a spice, water, or a salt', () => {
    for (const role of ['spice', 'water', 'salt', 'sweetener', 'other'] as const) {
      expect(breaking(waxBeans, withLines(waxBeans, lineOf('onion', '100 g', 'o', { role })))).toEqual([
        'produce-added',
      ]);
      const own = lineOf('Chopped yellow onions', '100 g', 'o', { role });
      expect(breaking(waxBeans, withLines(waxBeans, own))).toEqual(['produce-added']);
    }
  });

  it('fresh herbs and garlic are lost, dried spice is free', () => {
    for (const name of ['basil', 'garlic'])
      expect(breaking(tomatoSalsa, withLines(tomatoSalsa, lineOf(name, '20 g', 'new')))).toContain(
        tomatoSalsa.lines.some(l => l.ingredientId === name) ? 'more-low-acid' : 'fresh-herb',
      );
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('black-pepper', '2 tsp')))).toEqual([]);
    expect(breaking(waxBeans, withAmount(waxBeans, 'flakes', '1 tsp'))).toEqual([]);
    expect(
      breaking(waxBeans, withLines(waxBeans, lineOf('Fresh widdershins', '5 g', 'f', { role: 'spice' }))),
    ).toEqual(['fresh-herb']);
  });

  it('a clove more of garlic in each jar is lost, however large the batch', () =>
    expect(breaking(waxBeans, scaled(withAmount(waxBeans, 'garlic', '2'), new Fraction(5)))).toEqual([
      'more-low-acid',
    ]));

  it('produce moved from the pot into each jar is added there', () => {
    const jar = withLine(tomatoSalsa, 'onions', { where: 'each jar', amount: amountOf('20 g') });
    expect(breaking(tomatoSalsa, jar)).toEqual(['produce-added']);
  });

  it('salt is flavour in a vinegar pickle and the process in a ferment', () => {
    expect(breaking(waxBeans, withAmount(waxBeans, 'salt', '1/4 c'))).toEqual([]);
    expect(breaking(sauerkraut, withAmount(sauerkraut, 'salt', '200 g'))).toEqual(['salt-in-ferment']);
    expect(breaking(sauerkraut, withAmount(sauerkraut, 'salt', '400 g'))).toEqual(['salt-in-ferment']);
  });

  it('sugar sets, keeps and names a spread, and is flavour elsewhere', () => {
    expect(breaking(plumJam, withAmount(plumJam, 'sugar', '5 c'))).toEqual(['sugar-in-spread']);
    expect(breaking(plumJam, withAmount(plumJam, 'sugar', '8 c'))).toEqual(['sugar-in-spread']);
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('sugar', '1 c')))).toEqual([]);
  });

  it('sugar by the measure of juice is compared by its measure, and changing that is a change', () => {
    const richer = withLine(currantJelly, 'sugar', { amount: amountOf('950 g') });
    expect(breaking(currantJelly, richer)).toEqual(['sugar-in-spread']);
    const ratio = currantJelly.lines.find(l => l.id === 'sugar')?.ratio;
    if (!ratio) throw new Error('the jelly has its sugar by ratio');
    const same = withLine(currantJelly, 'sugar', {
      amount: amountOf('425 g'),
      ratio: { ...ratio, per: amountOf('500 mL') },
    });
    expect(breaking(currantJelly, same)).toEqual([]);
    const fixed = withLine(currantJelly, 'sugar', { amount: amountOf('1700 g'), ratio: null });
    expect(breaking(currantJelly, fixed)).toContain('sugar-in-spread');
  });

  it('another fruit, another share of it, a thickener, oil, and what nobody named are lost', () => {
    expect(breaking(plumJam, withLines(plumJam, lineOf('strawberry', '300 g')))).toEqual(['fruit-added']);
    const two = withLines(plumJam, lineOf('strawberry', '300 g', 's'));
    expect(breaking(two, withAmount(two, 's', '400 g'))).toEqual(['fruit-changed']);
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('canning-starch', '50 g')))).toEqual(['thickening']);
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('oil', '10 g')))).toEqual(['oil']);
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('Widdershins', '10 g')))).toEqual(['other']);
  });

  it('half a teaspoon of butter against foam is free, a teaspoon is not', () => {
    expect(breaking(plumJam, withLines(plumJam, lineOf('butter', '1/2 tsp')))).toEqual([]);
    expect(breaking(plumJam, withLines(plumJam, lineOf('butter', '1 tsp')))).toEqual(['oil']);
  });

  it('less water leaves more acid; in a spread it boils away', () => {
    expect(breaking(waxBeans, withAmount(waxBeans, 'water', '3 c'))).toEqual([]);
    expect(breaking(plumJam, withAmount(plumJam, 'water', '2 c'))).toEqual([]);
  });

  it('what only dips the food is no part of it', () =>
    expect(breaking(waxBeans, withLines(waxBeans, lineOf('onion', '500 g', 'o', { where: 'dip' })))).toEqual(
      [],
    ));

  it('a line that cannot be weighed yet still counts as added', () =>
    expect(
      breaking(
        waxBeans,
        withLines(waxBeans, lineOf('Knobbed greens', '2 c', 'k', { role: 'low-acid produce' })),
      ),
    ).toEqual(['produce-added']));
});

describe('method, product, set and jars', () => {
  it.each([
    ['cut', { cut: 'sliced' }, 'cut'],
    ['purée', { cut: 'puréed' }, 'pureed'],
    ['peel', { peel: 'peeled' }, 'peel'],
    ['pack', { pack: 'hot' }, 'pack'],
    ['packing liquid', { liquid: 'water' }, 'liquid'],
    ['straining', { strain: 'strained' }, 'strain'],
  ] as const)('another %s is lost', (_, over, code) => {
    const [change, ...rest] = changes(waxBeans, method(waxBeans, over));
    expect(rest).toEqual([]);
    expect(change).toMatchObject({ code, breaks: true });
    expect(change?.next).toMatch(/^Go back to /);
  });

  it('a formula that leaves the peel open covers both', () => {
    const open = method(tomatoSalsa, { peel: 'either' });
    expect(breaking(open, method(tomatoSalsa, { peel: 'peeled' }))).toEqual([]);
    expect(breaking(method(tomatoSalsa, { peel: 'peeled' }), open)).toEqual(['peel']);
  });

  it('another product or another set is lost', () => {
    expect(breaking(waxBeans, { ...waxBeans, product: 'relish' })).toEqual(['product']);
    expect(breaking(waxBeans, { ...waxBeans, setBy: 'modified starch' })).toEqual(['thickening']);
  });

  it('a larger jar is lost and a smaller one is not', () => {
    const jars = (...sizes: Recipe['jars'][number]['size'][]): Recipe => ({
      ...waxBeans,
      jars: sizes.map(size => ({ size, net: { kind: 'volume', floz: 8 } })),
    });
    expect(breaking(waxBeans, jars('pint', 'quart'))).toEqual(['larger-jar']);
    expect(breaking(waxBeans, jars('quart', 'half-gallon'))).toEqual(['larger-jar', 'larger-jar']);
    expect(breaking(waxBeans, jars('quarter-pint', 'half-pint', 'pint'))).toEqual([]);
  });
});

describe('what follows from it', () => {
  it('closes sale and takes the time away, and says what would bring it back', () => {
    const tested = { takenOn: '2026-01-01', ...formulaOf(waxBeans) };
    const changed: Recipe = { ...withAmount(waxBeans, 'vinegar', '5 c'), tested };
    expect(routeToSale({ ...waxBeans, tested }).open).toBe(true);
    expect(routeToSale(changed)).toMatchObject({ open: false });
    expect(routeToSale(changed).next).toMatch(/Put the acid back/);
    expect(processFor(changed, 'pint', 0).ok).toBe(false);
  });

  it('an own recipe has no formula to hold to', () =>
    expect(
      routeToSale({ ...withAmount(plumJam, 'sugar', '6 c'), tested: { takenOn: 'x', ...formulaOf(plumJam) } })
        .open,
    ).toBe(true));
});
