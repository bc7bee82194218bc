import { describe, expect, it } from 'vitest';
import { strawberryJam } from '../../demo/recipes.ts';
import { lineOf } from '../../testing/recipe-lines.ts';
import { jarSize, type JarSizeId } from '../jars/index.ts';
import { Fraction } from '../measure/index.ts';
import { type Line, type Recipe, type Step, emptyRecipe, stepFrom } from '../recipes/index.ts';
import { asManyAsItFills, type Balance, plan, spread } from './index.ts';

const KITCHEN = { altitude_m: 0, thermometerError_C: 0, pot: null, pots: 1, headspace_mm: 12.7 };
const one = new Fraction(1);
const INCH_4 = 6.35;

const whole = (id: string, name: string, text: string, over: Partial<Line> = {}): Line =>
  lineOf(name, text, id, { basis: 'as bought', ...over });
const cook = (target: Step['target'], ...ids: string[]): Step => ({
  ...stepFrom('cook', 'cook', 'Cook'),
  target,
  adds: ids.map(lineId => ({ lineId, share: '1' })),
});
const hot = { kind: 'temperature', temp_C: 95, hold_min: 5 } as const;
const recipe = (lines: Line[], steps: Step[], over: Partial<Recipe> = {}): Recipe => ({
  ...emptyRecipe(),
  lines,
  steps,
  makes: { size: 'quart', count: 7 },
  ...over,
});
/** Trim by the mill, as the editor offers it. */
const milled = { trimYield: 0.66 };

/** Grams of pieces in a pint, by the guide's own figure for nine pints: the same pack then has to fill seven quarts. */
function packedFrom(lb: number, yieldOf: number, pieceDensity: number): Partial<Recipe> {
  return {
    packing: { perPint_g: (lb * 453.592 * yieldOf) / 9, pieceDensity_gPerMl: pieceDensity, spareShare: 0.1 },
  };
}
const packed = (name: string, lb: number, forNinePints_lb: number): Recipe => {
  const line = whole('fruit', name, `${lb} lb`);
  return recipe(
    [line, lineOf('water', '8 c', 'water', { where: 'brine' })],
    [],
    packedFrom(forNinePints_lb, line.trimYield, 1.05),
  );
};

interface Known {
  what: string;
  recipe: Recipe;
  size: JarSizeId;
  headspace_mm?: number;
  jars: [low: number, high: number];
}

// USDA Complete Guide to Home Canning (2015), guides 2, 3 and 6, "quantity"; recalled from memory. Those marked * are
// common practice, without a source.
const KNOWN: Known[] = [
  {
    what: '23 lb of tomatoes, as juice: 7 quarts',
    recipe: recipe([whole('t', 'tomato', '23 lb', milled)], [cook(hot, 't')]),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '35 lb of tomatoes, as thin sauce (by a third): 7 quarts',
    recipe: recipe([whole('t', 'tomato', '35 lb', milled)], [cook({ kind: 'reduced', by: 1 / 3 }, 't')]),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '46 lb of tomatoes, as thick sauce (by a half): 7 quarts',
    recipe: recipe([whole('t', 'tomato', '46 lb', milled)], [cook({ kind: 'reduced', by: 1 / 2 }, 't')]),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '22 lb of tomatoes, crushed: 7 quarts',
    recipe: recipe([whole('t', 'tomato', '22 lb')], [cook(hot, 't')]),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '21 lb of tomatoes, whole or halved in water: 7 quarts, packed as 13 lb in 9 pints',
    recipe: packed('tomato', 21, 13),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '21 lb of apples, as sauce: 7 quarts',
    recipe: recipe([whole('a', 'apple', '21 lb', { trimYield: 0.78 })], [cook(hot, 'a')]),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '19 lb of apples, sliced: 7 quarts, packed as 12 1/4 lb in 9 pints',
    recipe: packed('apple', 19, 12.25),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '17 1/2 lb of peaches: 7 quarts, packed as 11 lb in 9 pints',
    recipe: packed('peach', 17.5, 11),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '18 lb of pears: 7 quarts, packed as 11 lb in 9 pints',
    recipe: packed('pear', 18, 11),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '14 lb of plums: 7 quarts, packed as 9 lb in 9 pints',
    recipe: packed('plum', 14, 9),
    size: 'quart',
    jars: [7, 7],
  },
  {
    what: '* 5 cups of crushed strawberries, 7 cups of sugar, one packet: 8 half-pints',
    recipe: strawberryJam,
    size: 'half-pint',
    headspace_mm: INCH_4,
    jars: [8, 8],
  },
  {
    what: '* a bushel of tomatoes, 53 lb, as juice: 15 to 18 quarts',
    recipe: recipe([whole('t', 'tomato', '53 lb', milled)], [cook(hot, 't')], {
      makes: { size: 'quart', count: 16 },
    }),
    size: 'quart',
    jars: [15, 18],
  },
];

const filled = (size: JarSizeId) => (b: Balance) =>
  b.filling.pints / jarSize(size).pints.valueOf() + (b.filling.part?.share ?? 0);

describe('known results of practice', () => {
  const found = KNOWN.map(known => {
    const [range] = spread(
      plan(known.recipe, one, asManyAsItFills([known.size]), {
        ...KITCHEN,
        headspace_mm: known.headspace_mm ?? KITCHEN.headspace_mm,
      }),
      [filled(known.size)],
    );
    const { mid, low, high } = range as { mid: number; low: number; high: number };
    const [least, most] = known.jars;
    return {
      what: known.what,
      mid,
      low,
      high,
      near: mid >= least * 0.9 && mid <= most * 1.1,
      covered: low <= most && high >= least,
    };
  });
  const told = found.map(
    f =>
      `${f.near && f.covered ? '' : '!! '}${f.what}: ${f.mid.toFixed(1)} (${f.low.toFixed(1)} to ${f.high.toFixed(1)})`,
  );

  it('the middle is within 10 % for at least eight in ten', () => {
    expect(found.filter(f => f.near).length, told.join('\n')).toBeGreaterThanOrEqual(
      Math.ceil(KNOWN.length * 0.8),
    );
  });

  it('the range covers at least nine in ten', () => {
    expect(found.filter(f => f.covered).length, told.join('\n')).toBeGreaterThanOrEqual(
      Math.ceil(KNOWN.length * 0.9),
    );
  });
});
