import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tomatoSalsa, waxBeans } from '../../demo/recipes.ts';
import type { AcidName } from '../acid/index.ts';
import { asManyAsItFills, balance, plan } from '../balance/index.ts';
import { COMPOSITIONS } from '../ingredients/index.ts';
import { Fraction } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import {
  type AcidityAsk,
  acidityAsk,
  acidityForecast,
  broughtBy,
  ownPh,
  SAP_PH,
  sapOf,
  wayToEquilibrium,
} from './index.ts';

const LIMITS = { limit: 4.6, act: 4.2 };
const all = (x: number): [number, number, number] => [x, x, x];

describe('plain foods by what is in them alone', () => {
  /** FDA, Approximate pH of Foods and Food Products (2007 and earlier editions), from memory: ranges over varieties. */
  const PUBLISHED: Readonly<Record<string, readonly [number, number]>> = {
    apple: [3.3, 4.0],
    apricot: [3.3, 4.8],
    asparagus: [6, 6.7],
    banana: [4.5, 5.2],
    'snap-bean': [5.6, 6.5],
    beet: [5.3, 6.6],
    blackberry: [3.85, 4.5],
    blueberry: [3.12, 3.33],
    broccoli: [6.3, 6.85],
    'brussels-sprout': [6, 6.3],
    cabbage: [5.2, 6.8],
    melon: [6.13, 6.58],
    carrot: [5.88, 6.4],
    cauliflower: [5.6, 5.6],
    celery: [5.7, 6],
    'sweet-cherry': [4.01, 4.54],
    'sour-cherry': [3.25, 3.82],
    corn: [5.9, 7.3],
    cucumber: [5.12, 5.78],
    'currant-red': [2.9, 2.9],
    eggplant: [5.5, 6.5],
    fig: [5.05, 5.98],
    gooseberry: [2.8, 3.1],
    grapefruit: [3, 3.75],
    grape: [2.8, 3.82],
    guava: [3.37, 4.1],
    lemon: [2, 2.6],
    lime: [2, 2.8],
    lettuce: [5.8, 6.15],
    mango: [3.4, 4.8],
    watermelon: [5.18, 5.6],
    mushroom: [6, 6.7],
    nectarine: [3.92, 4.18],
    okra: [5.5, 6.6],
    onion: [5.3, 5.85],
    orange: [3.3, 4.34],
    papaya: [5.2, 6],
    parsnip: [5.3, 5.7],
    peach: [3.3, 4.05],
    pear: [3.5, 4.6],
    pea: [6.22, 6.88],
    'bell-pepper': [5.2, 5.93],
    persimmon: [4.42, 4.7],
    pineapple: [3.2, 4],
    plum: [2.8, 4.45],
    pomegranate: [2.93, 3.2],
    potato: [5.4, 5.9],
    pumpkin: [4.99, 5.5],
    quince: [3.12, 3.4],
    radish: [5.52, 6.05],
    raspberry: [3.22, 3.95],
    rhubarb: [3.1, 3.4],
    spinach: [5.5, 6.8],
    strawberry: [3, 3.9],
    zucchini: [5.69, 6.1],
    'sweet-potato': [5.3, 5.6],
    tomato: [4.3, 4.9],
    tomatillo: [3.83, 3.83],
    turnip: [5.29, 5.9],
    cranberry: [2.3, 2.52],
    kiwifruit: [3.1, 3.96],
  };

  it('the 90 % interval, under 1.0 wide, meets the published range of nine in ten; no input was chosen by the list', () => {
    const told = Object.entries(PUBLISHED).map(([id, [from, to]]) => {
      const brought = broughtBy(COMPOSITIONS.get(id) as never);
      const own = ownPh(brought);
      // As a line whose pH nobody published: the interval is the forecast's own.
      const ask: AcidityAsk = {
        lines: [
          {
            id,
            name: id,
            sap_g: all(500),
            acids: [...brought.acids],
            ph: [own - 0.4, own + 0.4],
            known: 'composition',
            piece: true,
          },
        ],
        added: [],
        water_g: all(440),
        salt_g: all(0),
        poured_g: all(0),
        piece_mm: null,
        flat: false,
      };
      const { low, high } = acidityForecast(ask, LIMITS, { draws: 1500 }).average;
      return { id, low, high, wide: high - low, meets: low <= to && high >= from };
    });
    expect(told.length).toBeGreaterThanOrEqual(40);
    expect(Math.max(...told.map(t => t.wide))).toBeLessThan(1);
    const missed = told.filter(t => !t.meets).map(t => t.id);
    expect({ share: 1 - missed.length / told.length, missed }).toEqual({
      share: expect.toSatisfy((share: number) => share >= 0.9),
      missed: expect.anything(),
    });
  });
});

describe('pickles and acidified products', () => {
  const ask = (
    produce: readonly (readonly [id: string, g: number])[],
    added: readonly (readonly [acid: AcidName, g: number])[],
    water_g: number,
    salt_g: number,
    boiledOff_g = 0,
  ): AcidityAsk => ({
    lines: produce.map(([id, g]) => ({
      id,
      name: id,
      sap_g: all(g),
      piece: true,
      ...sapOf({ ingredientId: id, name: id, role: 'low-acid produce' }),
    })),
    added: added.map(([acid, g]) => ({ id: acid, name: acid, kind: 'vinegar', acid, acid_g: all(g) })),
    water_g: all(
      produce.reduce((sum, [, g]) => sum + g * 0.9, 0) +
        water_g +
        // Vinegar of 5 % brings its water along.
        added.reduce((sum, [acid, g]) => sum + (acid === 'acetic' ? g * 19 : 0), 0) -
        boiledOff_g,
    ),
    salt_g: all(salt_g),
    poured_g: all(water_g),
    piece_mm: null,
    flat: false,
  });
  /**
   * Finished pH as published: FDA, Approximate pH of Foods; USDA and extension bulletins on pickles; all from memory. The formulas
   * are usual ones: half vinegar and half water over packed pieces, sauces cooked to a third.
   */
  const FINISHED: readonly (readonly [string, readonly [number, number], AcidityAsk])[] = [
    ['dill pickles', [3.2, 3.7], ask([['cucumber', 600]], [['acetic', 10]], 200, 15)],
    ['sour pickles, in vinegar', [3.0, 3.4], ask([['cucumber', 600]], [['acetic', 20]], 0, 15)],
    [
      'sweet pickles',
      [2.5, 3.0],
      ask(
        [
          ['cucumber', 500],
          ['onion', 80],
        ],
        [['acetic', 18]],
        0,
        10,
      ),
    ],
    ['pickled onions', [3.7, 4.6], ask([['onion', 600]], [['acetic', 8]], 200, 10)],
    ['pickled beets', [3.5, 4.6], ask([['beet', 600]], [['acetic', 10]], 200, 5)],
    ['sauerkraut', [3.3, 3.6], ask([['cabbage', 1000]], [['lactic', 15]], 0, 22)],
    [
      'ketchup',
      [3.89, 3.92],
      ask(
        [
          ['tomato', 1000],
          ['onion', 50],
        ],
        [['acetic', 4.5]],
        0,
        5,
        650,
      ),
    ],
    [
      'chili sauce',
      [2.77, 3.7],
      ask(
        [
          ['tomato', 1000],
          ['onion', 100],
          ['bell-pepper', 100],
        ],
        [['acetic', 12]],
        0,
        5,
        500,
      ),
    ],
    ['tomato juice with lemon', [4.1, 4.6], ask([['tomato', 473]], [['citric', 0.68]], 0, 0)],
    ['tomatoes with citric acid', [3.5, 4.7], ask([['tomato', 473]], [['citric', 0.6]], 0, 0)],
    ['pickled cauliflower', [3.2, 4], ask([['cauliflower', 500]], [['acetic', 11]], 220, 10)],
    [
      'pepper relish',
      [3.2, 3.9],
      ask(
        [
          ['bell-pepper', 700],
          ['onion', 200],
        ],
        [['acetic', 15]],
        0,
        8,
      ),
    ],
    ['pimento, acidified', [4.4, 4.6], ask([['bell-pepper', 450]], [['citric', 0.5]], 100, 2)],
    ['pickled carrots', [3.2, 4], ask([['carrot', 550]], [['acetic', 12]], 200, 8)],
  ];

  it('meet the published range of what is finished in nine of ten', () => {
    expect(FINISHED.length).toBeGreaterThanOrEqual(12);
    const missed = FINISHED.filter(([, [from, to], of]) => {
      const { low, high } = acidityForecast(of, LIMITS, { draws: 1500 }).average;
      expect(high - low).toBeLessThan(1);
      return low > to || high < from;
    }).map(([name]) => name);
    // Sugar turns activities up, which is not reckoned: a sweet pickle reads sourer than it is foreseen.
    expect(missed).toEqual(['sweet pickles']);
  });
});

const askOf = (recipe: Recipe) => {
  const process = plan(recipe, new Fraction(1), asManyAsItFills([recipe.makes.size]), {
    altitude_m: 700,
    thermometerError_C: 0,
    pot: null,
    pots: 1,
    headspace_mm: 12.7,
  });
  return acidityAsk(process, balance(process), recipe.method.cut) as AcidityAsk;
};

describe('a recipe', () => {
  it('is asked of what is in its jars: all of its acid and its produce, the tightest jar with less acid than the loosest', () => {
    const ask = askOf(waxBeans);
    expect(ask.lines.map(l => l.name)).toContain('Yellow wax beans');
    expect(ask.added).toMatchObject([{ acid: 'acetic', kind: 'vinegar' }]);
    const [acid] = ask.added;
    expect(acid?.acid_g[1]).toBeLessThan(acid?.acid_g[2] ?? 0);
    const { tightest, average, loosest } = acidityForecast(ask, LIMITS, { draws: 800 });
    expect(tightest.mid).toBeGreaterThan(average.mid);
    expect(loosest).toBeLessThan(average.mid);
  });

  it('says the same for the same seed, and nearly the same for another', () => {
    const ask = askOf(tomatoSalsa);
    const once = acidityForecast(ask, LIMITS, { draws: 3000, seed: 7 });
    expect(acidityForecast(ask, LIMITS, { draws: 3000, seed: 7 })).toEqual(once);
    const other = acidityForecast(ask, LIMITS, { draws: 3000, seed: 8 });
    expect(Math.abs(other.tightest.mid - once.tightest.mid)).toBeLessThan(0.02);
    expect(once.bins.tightest.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 6);
  });

  it('more acid than it has reaches the target, with the confidence that is said', () => {
    const ask = askOf(crushedWithLittle());
    const { moreAcid, tightest } = acidityForecast(ask, LIMITS, { draws: 4000 });
    expect(tightest.aboveAct).toBeGreaterThan(0.1);
    expect(moreAcid).toBeGreaterThan(1);
    const dosed = {
      ...ask,
      added: ask.added.map(a => ({
        ...a,
        acid_g: a.acid_g.map(g => g * (moreAcid ?? 1)) as typeof a.acid_g,
      })),
    };
    expect(acidityForecast(dosed, LIMITS, { draws: 4000 }).tightest.aboveAct).toBeLessThan(0.13);
  });

  it('lemon or citric acid for vinegar makes a pickle sourer, and vinegar for lemon less so', () => {
    const beans = acidityForecast(askOf(waxBeans), LIMITS, { draws: 500 });
    for (const swap of beans.swaps) expect(swap.ph).toBeLessThan(beans.average.mid);
    const salsa = acidityForecast(askOf(tomatoSalsa), LIMITS, { draws: 500 });
    expect(salsa.swaps.find(s => s.to === 'vinegar')?.ph).toBeGreaterThan(salsa.average.mid);
  });

  it('names what nothing is known of, and gives it the range of all such produce', () => {
    const [strange] = waxBeans.lines.filter(l => l.role === 'low-acid produce');
    const recipe = {
      ...waxBeans,
      lines: waxBeans.lines.map(l =>
        l.id === strange?.id ? { ...l, ingredientId: null, name: 'Samphire', labelName: 'samphire' } : l,
      ),
    };
    expect(acidityForecast(askOf(recipe), LIMITS, { draws: 500 }).guessed).toContain('Samphire');
    expect(sapOf({ ingredientId: null, name: '__proto__', role: 'fruit' })).toMatchObject({
      known: 'guessed',
    });
  });

  it('a name that may be sweet or hot peppers has the range of both', () => {
    const both = sapOf({ ingredientId: null, name: 'peppers', role: 'low-acid produce' });
    for (const id of ['bell-pepper', 'hot-pepper']) {
      const one = sapOf({ ingredientId: id, name: id, role: 'low-acid produce' });
      expect(both.ph[0]).toBeLessThanOrEqual(one.ph[0] + 1e-9);
      expect(both.ph[1]).toBeGreaterThanOrEqual(one.ph[1] - 1e-9);
    }
  });
});

/** Tomatoes with half of the lemon they ask for. */
function crushedWithLittle(): Recipe {
  return {
    ...tomatoSalsa,
    lines: tomatoSalsa.lines.map(l =>
      l.role === 'acid' ? { ...l, amount: { ...l.amount, value: '1/4' } } : l,
    ),
  };
}

describe('any mixture', () => {
  const line = (ph: number, g: number) => ({
    id: 'x',
    name: 'x',
    sap_g: all(g),
    acids: [...broughtBy(COMPOSITIONS.get('tomato') as never).acids],
    ph: [ph, ph] as [number, number],
    known: 'published' as const,
    piece: true,
  });
  const ask = (lines: AcidityAsk['lines'], acid_g: number): AcidityAsk => ({
    lines,
    added: [{ id: 'v', name: 'v', kind: 'vinegar', acid: 'acetic', acid_g: all(acid_g) }],
    water_g: all(400),
    salt_g: all(0),
    poured_g: all(0),
    piece_mm: null,
    flat: false,
  });
  const mid = (of: AcidityAsk) => acidityForecast(of, LIMITS, { draws: 1 }).average.mid;

  it('acid that is sourer than it never makes it less sour; produce that is less sour never makes it sourer', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 6.5, noNaN: true }),
        fc.double({ min: 50, max: 400, noNaN: true }),
        fc.double({ min: 0.5, max: 20, noNaN: true }),
        fc.double({ min: 0.5, max: 20, noNaN: true }),
        (ph, g, acid_g, more_g) => {
          const was = mid(ask([line(ph, g)], acid_g));
          expect(mid(ask([line(ph, g)], acid_g + more_g))).toBeLessThanOrEqual(was + 1e-3);
          const milder = ask([line(ph, g), { ...line(6.5, 100), id: 'y' }], acid_g);
          if (was < 6.4) expect(mid(milder)).toBeGreaterThanOrEqual(was - 1e-3);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('refuses what has no water', () =>
    expect(() => acidityForecast({ ...ask([], 1), water_g: all(0) }, LIMITS)).toThrow(RangeError));
});

describe('the way to equilibrium', () => {
  it('begins with the produce and ends where all is the same; thick pieces take longer, and slices come from two sides', () => {
    const of = askOf(waxBeans);
    const way = wayToEquilibrium(of, 8);
    expect(way[0]?.centre_ph).toBeGreaterThan(5);
    const end = way.at(-1);
    expect(Math.abs((end?.centre_ph ?? 0) - (end?.liquid_ph ?? 9))).toBeLessThan(0.02);
    const { mid } = acidityForecast(of, LIMITS, { draws: 2000 }).average;
    expect(Math.abs((end?.pieces_ph ?? 0) - mid)).toBeLessThan(0.15);
    for (let i = 1; i < way.length; i++) {
      expect(way[i]?.centre_ph).toBeLessThanOrEqual((way[i - 1]?.centre_ph ?? 0) + 1e-6);
      expect(way[i]?.liquid_ph).toBeGreaterThanOrEqual((way[i - 1]?.liquid_ph ?? 9) - 1e-6);
      expect(way[i]?.centre_ph).toBeGreaterThanOrEqual((way[i]?.pieces_ph ?? 0) - 1e-6);
    }
    const at24 = (mm: number) => wayToEquilibrium(of, mm).find(w => w.hours === 24)?.centre_ph ?? 0;
    expect(at24(40)).toBeGreaterThan(at24(20));
    // Twice as thick takes four times as long: Fick's law.
    const hoursTo = (mm: number) => wayToEquilibrium(of, mm).find(w => w.centre_ph < 4.6)?.hours ?? Infinity;
    expect(hoursTo(32)).toBeGreaterThan(hoursTo(16));
  });

  it('is not told where nothing is packed or no acid is added', () => {
    expect(wayToEquilibrium({ ...askOf(waxBeans), added: [] }, 8)).toEqual([]);
    expect(wayToEquilibrium(askOf(waxBeans), 0)).toEqual([]);
  });
});

it('sap is not kept above what it is kept at', () => {
  for (const of of COMPOSITIONS.values()) expect(ownPh(broughtBy(of))).toBeLessThan(SAP_PH + 0.02);
});
