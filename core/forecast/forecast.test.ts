import { currantJelly, plumJam, strawberryJam, tomatoSalsa, waxBeans } from '../../demo/recipes.ts';
import { massIn, type VesselId } from '../balance/index.ts';
import { boilingPoint_C, brixAtRise, GEL_RISE_C } from '../heat/index.ts';
import { fillVolume_mL, JAR_SIZES, jarSize, type JarSizeId, pintsOf } from '../jars/index.ts';
import type { Canner, Pot } from '../kitchen/index.ts';
import { byName, Fraction, PLAIN_FIGURES } from '../measure/index.ts';
import {
  chooseJars,
  factorForFruit,
  factorForJars,
  factorForPot,
  jarsForLoads,
  layOut,
  loadsFor,
  planPots,
  potVolume_mL,
  RatioError,
  type Recipe,
  recipeFaults,
  recipeMasses_g,
  scaleRecipe,
  stepFrom,
  timesOf,
} from '../recipes/index.ts';
import { correctionFrom } from './correction.ts';
import { corrected, forecast } from './index.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const POT: Pot = { id: 'p', name: 'Jam pan', capacity_mL: 9000, diameter_mm: 380, boilOff_gPerMin: 60 };
const HERE = { ...PLAIN_FIGURES, altitude_m: 716.28, thermometerError_C: 0, pot: POT };
const one = new Fraction(1);
const sizes: JarSizeId[] = ['half-pint', 'quarter-pint'];
const pot = (recipe: Recipe, factor = one, pots = 1, here = HERE) =>
  forecast(recipe, factor, { ...here, pots, headspace_mm: 6.35 }, sizes);
const packed = (recipe: Recipe) => forecast(recipe, one, { ...HERE, pots: 1, headspace_mm: 12.7 }, ['pint']);

describe('the forecast of a pot', () => {
  it('drives water off until the soluble solids stand at the gel point; nothing else leaves', () => {
    const f = pot(plumJam);
    const masses = recipeMasses_g(plumJam, one, pintsOf([plumJam.makes]));
    const total = [...masses.values()].reduce((a, b) => a + b, 0);
    expect(f.input_g).toBeCloseTo(total, 6);
    expect(f.input_g - f.waterOff_g).toBeCloseTo(f.final_g, 6);
    // What fruit brings and what is inverted boil higher than sucrose does: at least 65 %, as the name asks.
    expect(f.solids_pct).toBeGreaterThanOrEqual(65);
    expect(f.solids_pct).toBeLessThan(brixAtRise(GEL_RISE_C, HERE.altitude_m));
    const boil = f.cooks.at(-1);
    expect(boil?.minutes).toBeCloseTo((boil?.waterOff_g ?? 0) / 60, 6);
    expect(boil?.end_C).toBeCloseTo(boilingPoint_C(HERE.altitude_m) + GEL_RISE_C, 1);
    expect(f.faults).toEqual([]);
  });

  it('takes half as long in two pots, and boils at less when higher', () => {
    const two = pot(plumJam, new Fraction(2), 2);
    expect(two.cooks.at(-1)?.minutes).toBeCloseTo(pot(plumJam).cooks.at(-1)?.minutes ?? 0, 6);
    const high = pot(plumJam, one, 1, { ...HERE, altitude_m: 2500 });
    expect(high.cooks.at(-1)?.end_C).toBeLessThan(pot(plumJam).cooks.at(-1)?.end_C ?? 0);
  });

  it('mass in equals mass out, whatever the scale, the parts and the outlets', () => {
    const parted: Recipe = {
      ...plumJam,
      outlets: [
        { id: 'o', name: 'Plum syrup', share: 0.2, use: 'refrigerator', jarSize: null, entryId: null },
      ],
      steps: [
        {
          ...stepFrom('mix', 'prepare', 'All in'),
          adds: plumJam.lines.map(l => ({ lineId: l.id, share: '1' })),
        },
        { ...stepFrom('sep', 'strain', 'Strain the juice off'), separates: { part: 'juice', share: 0.4 } },
        {
          ...stepFrom('boil', 'cook', 'Boil the juice down'),
          part: 'juice',
          target: { kind: 'volume', volume_mL: 1000 },
        },
        { ...stepFrom('back', 'blend back', 'Fruit back in'), part: 'juice' },
      ],
    };
    expect(recipeFaults(parted)).toEqual([]);
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 400 }), percent => {
        const factor = new Fraction(percent, 100);
        const f = pot(parted, factor);
        expect(f.faults).toEqual([]);
        expect(f.final_g + f.waterOff_g).toBeCloseTo(f.input_g, 4);
        const of = (id: VesselId) => massIn(f.made.vessels.get(id) ?? new Map());
        const out = f.outlets.reduce((sum, o) => sum + o.mass_g, 0);
        expect(of('jars') + of('left over') + of('wall') + out).toBeCloseTo(f.final_g, 4);
      }),
    );
  });

  it('says why a target cannot be reached: more solids than went in, no solids, more volume than there is', () => {
    const sweet: Recipe = {
      ...plumJam,
      lines: plumJam.lines.filter(l => l.id === 'sugar' || l.id === 'lemon'),
    };
    expect(pot(sweet).faults[0]).toMatchObject({ stepId: 'boil' });
    expect(pot(sweet).faults[0]?.why).toMatch(/more solids than/);
    const water: Recipe = { ...plumJam, lines: plumJam.lines.filter(l => l.id === 'water') };
    expect(pot(water).faults[0]?.what).toMatch(/never reached/);
    const volume = (volume_mL: number): Recipe => ({
      ...plumJam,
      steps: plumJam.steps.map(s => (s.id === 'boil' ? { ...s, target: { kind: 'volume', volume_mL } } : s)),
    });
    expect(pot(volume(9000)).faults[0]?.what).toMatch(/more than there is/);
    expect(pot(volume(500)).faults[0]?.what).toMatch(/less than what is dissolved/);
    expect(pot(volume(1900)).faults).toEqual([]);
    expect(pot(volume(1900)).volume_mL).toBeCloseTo(1900, 0);
  });

  it('knows time by the rate, depth by the width of the pot, and heating that boils nothing off', () => {
    const target = (t: Recipe['steps'][number]['target']): Recipe => ({
      ...tomatoSalsa,
      steps: tomatoSalsa.steps.map(s => (s.id === 'cook' ? { ...s, target: t } : s)),
    });
    expect(pot(target({ kind: 'time', minutes: 10 })).waterOff_g).toBeCloseTo(600, 6);
    expect(pot(target({ kind: 'temperature', temp_C: 85, hold_min: 5 })).waterOff_g).toBe(0);
    const deep = pot(target({ kind: 'depth', depth_mm: 25 }));
    expect(deep.volume_mL).toBeCloseTo((25 * Math.PI * 190 ** 2) / 1000, 0);
    expect(pot(target({ kind: 'look', text: 'thick' })).minutes).toBeNull();
  });
});

describe('the forecast of a pack', () => {
  it('fills pieces by weight and gaps with liquid, with its spare', () => {
    const f = packed(waxBeans);
    const gap = f.pack?.perJar[0]?.gap_mL ?? 0;
    // What is dosed into each jar takes room too.
    expect(gap).toBeLessThan(fillVolume_mL('pint', 12.7) - 225 / 0.95);
    expect(gap).toBeGreaterThan(fillVolume_mL('pint', 12.7) - 225 / 0.95 - 15);
    expect(f.pack?.perJar[0]).toMatchObject({ pieces_g: 225 });
    expect(f.pack?.liquidNeeded_mL).toBeCloseTo(8 * gap * 1.1, 6);
    expect(f.pack?.leftover_mL).toBeCloseTo((f.pack?.liquidMade_mL ?? 0) - 8 * gap, 6);
    expect(f.pack?.jarsPerBushel).toBeGreaterThan(30);
    expect(f.jars).toEqual([{ size: 'pint', count: 8 }]);
    expect(f.faults).toEqual([]);
  });

  it('says when the pieces do not fit, and takes less acid in a tighter jar', () => {
    const tight = { ...waxBeans, packing: { perPint_g: 500, pieceDensity_gPerMl: 0.95, spareShare: 0.1 } };
    expect(packed(tight).faults[0]?.what).toMatch(/do not fit/);
    expect(packed(waxBeans).acidIn100?.tightest_g).toBeLessThan(packed(waxBeans).acidIn100?.average_g ?? 0);
  });

  it('counts the brine of a hot pack that is packed by volume', () => {
    const slaw: Recipe = { ...waxBeans, packing: null };
    const f = packed(slaw);
    const masses = recipeMasses_g(slaw, one, pintsOf([slaw.makes]));
    expect(f.final_g).toBeCloseTo(
      ['beans', 'vinegar', 'water', 'salt'].reduce((sum, id) => sum + (masses.get(id) ?? 0), 0),
      6,
    );
  });
});

describe('figures that contradict each other', () => {
  const quarts = (over: Partial<Recipe>): Recipe => ({
    ...tomatoSalsa,
    makes: { size: 'quart', count: 7 },
    jars: [{ size: 'quart', net: { kind: 'weight', oz: 32 } }],
    ...over,
  });
  const cookTo = (target: Recipe['steps'][number]['target']) =>
    tomatoSalsa.steps.map(s => (s.id === 'cook' ? { ...s, target } : s));
  const at = (recipe: Recipe, here = HERE) =>
    forecast(recipe, one, { ...here, pots: 1, headspace_mm: 12.7 }, ['quart']).faults;

  it('3.5 L beside 7 quarts', () => {
    const [fault] = at(quarts({ steps: cookTo({ kind: 'volume', volume_mL: 3500 }) }));
    expect(fault?.what).toMatch(/^3\.5 L at \d+ °Brix fill 3\.\d quarts, and the recipe says 7 quarts\.$/);
  });

  it('70 minutes until thick that drive nothing off', () => {
    const thick = (makes: Recipe['makes']) => ({
      ...quarts({ steps: cookTo({ kind: 'time', minutes: 70 }) }),
      makes,
    });
    const [fault] = at(thick({ size: 'quart', count: 2 }), { ...HERE, pot: null as never });
    expect(fault?.what).toMatch(/fill 4\.\d quarts, and the recipe says 2 quarts/);
    expect(fault?.why).toMatch(/nothing boils off/);
    // By eye it ends where the jars are full, and that is said with both figures.
    const [eye] = at({
      ...thick({ size: 'quart', count: 2 }),
      steps: cookTo({ kind: 'look', text: 'thick' }),
    });
    expect(eye?.what).toMatch(/^3\.\d L go into this step, and 2 quarts hold 1\.\d L\.$/);
  });

  it('a temperature that the jars cannot be at', () => {
    const [fault] = at({ ...plumJam, makes: { size: 'half-pint', count: 16 } });
    expect(fault?.what).toMatch(/at 6\d °Brix fill 8\.\d half-pints, and the recipe says 16 half-pints/);
  });

  it('a share that is taken away is a target like any other', () => {
    const f = pot({ ...tomatoSalsa, steps: cookTo({ kind: 'reduced', by: 1 / 3 }) });
    expect(f.byEye).toBe(false);
    expect(f.cooks.at(-1)?.minutes).toBeGreaterThan(10);
  });
});

describe('the range', () => {
  it('is the kitchen’s own from the third batch on, and its middle from the first', () => {
    const range = { mid: 10, low: 8, high: 12 };
    const past = (...of: number[]) =>
      correctionFrom(
        of.map(actual_pints => ({ batchId: '', day: '', expected_pints: 10, actual_pints, reason: '' })),
      );
    expect(corrected(range, past())).toEqual(range);
    expect(corrected(range, past(9))).toEqual({ mid: 9, low: 7.2, high: 10.8 });
    const own = corrected(range, past(9, 9.5, 10));
    expect(own.mid).toBeCloseTo(9.5, 9);
    // Mean 0.95, sd 0.05; t of 1.886 at 2 degrees of freedom: standard tables.
    expect(own.high).toBeCloseTo(10 * (0.95 + 1.886 * 0.05 * Math.sqrt(4 / 3)), 6);
    expect(own.low).toBeCloseTo(10 * (0.95 - 1.886 * 0.05 * Math.sqrt(4 / 3)), 6);
  });
});

describe('what past batches say', () => {
  it('corrects by their mean, within what was seen', () => {
    const past = (actual: number) => ({
      batchId: '',
      day: '',
      expected_pints: 4,
      actual_pints: actual,
      reason: '',
    });
    expect(correctionFrom([])).toBeNull();
    expect(correctionFrom([past(3), past(5)])).toEqual({ batches: 2, share: 1, low: 0.75, high: 1.25 });
  });
});

describe('scaling', () => {
  const scaleAll = (recipe: Recipe, factor: Fraction) =>
    scaleRecipe(recipe, factor, [{ size: recipe.makes.size, count: 4 }]);

  it('loses no line, in proportion, and portions make the whole', () => {
    for (const recipe of [plumJam, waxBeans, currantJelly, strawberryJam, tomatoSalsa])
      fc.assert(
        fc.property(fc.integer({ min: 1, max: 60 }), n => {
          const factor = new Fraction(n, 8);
          const base = scaleAll(recipe, one);
          const scaled = scaleAll(recipe, factor);
          expect(scaled.lines.map(l => l.lineId)).toEqual(recipe.lines.map(l => l.id));
          scaled.lines.forEach((l, i) => {
            const was = base.lines[i]?.mass_g ?? 0;
            if (l.where === 'each jar') expect(l.mass_g).toBeCloseTo(was, 6);
            else expect(l.mass_g / was).toBeCloseTo(factor.valueOf(), 6);
            if (l.portions.length > 0)
              expect(l.portions.reduce((sum, p) => sum + p.mass_g, 0)).toBeCloseTo(l.mass_g, 6);
          });
        }),
        { numRuns: 40 },
      );
  });

  it('up and down again returns the same, exactly', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 99 }), (n, d) => {
        const up = new Fraction(n, d);
        for (const recipe of [plumJam, waxBeans, currantJelly])
          for (const l of recipe.lines) {
            const times = timesOf(recipe, l, up.mul(new Fraction(d, n)));
            expect(times.equals(timesOf(recipe, l, one))).toBe(true);
            expect(
              timesOf(recipe, l, up)
                .mul(new Fraction(d, n))
                .equals(timesOf(recipe, l, one)),
            ).toBe(true);
          }
      }),
    );
  });

  it('by fruit as bought and as prepared, by loads, by the pot, by jars of mixed sizes', () => {
    expect(factorForFruit(plumJam, 2041.165_665, 'prepared').valueOf()).toBeCloseTo(1, 6);
    expect(factorForFruit(plumJam, 2041.165_665 / 0.92, 'as bought').valueOf()).toBeCloseTo(1, 6);
    const canner: Canner = {
      id: 'c',
      name: 'Canner',
      kind: 'boiling water',
      holds: { 'half-pint': 8, pint: 9 },
    };
    expect(jarsForLoads(2, 'half-pint', canner)).toEqual([{ size: 'half-pint', count: 16 }]);
    expect(() => jarsForLoads(1, 'quart', canner)).toThrow(RangeError);
    expect(loadsFor([{ size: 'half-pint', count: 8 }], canner).loads).toBe(1);
    expect(loadsFor([{ size: 'half-pint', count: 9 }], canner).loads).toBe(2);
    // Half the room by half-pints, half by pints.
    expect(
      loadsFor(
        [
          { size: 'half-pint', count: 4 },
          { size: 'pint', count: 4 },
        ],
        canner,
      ).loads,
    ).toBe(1);
    expect(loadsFor([{ size: 'quart', count: 1 }], canner).missing).toEqual(['quart']);
    const fits = factorForPot(plumJam, POT);
    expect(potVolume_mL(plumJam) * fits.valueOf()).toBeLessThanOrEqual(POT.capacity_mL * 0.5);
    expect(
      factorForJars(plumJam, [
        { size: 'half-pint', count: 6 },
        { size: 'quarter-pint', count: 4 },
      ]).valueOf(),
    ).toBe(1);
  });

  it('splits ordinary pectin rather than doubling it, unless overridden; and what the pot cannot hold', () => {
    const big: Pot = { ...POT, capacity_mL: 100_000 };
    expect(planPots(strawberryJam, new Fraction(2), big, false)).toMatchObject({
      pots: 2,
      each: '1',
      overridden: false,
    });
    expect(planPots(strawberryJam, new Fraction(5, 2), big, false).pots).toBe(3);
    expect(planPots(strawberryJam, new Fraction(2), big, true)).toMatchObject({
      pots: 1,
      each: '2',
      overridden: true,
    });
    expect(planPots({ ...strawberryJam, setBy: 'calcium pectin' }, new Fraction(2), big, false).pots).toBe(1);
    expect(planPots(plumJam, new Fraction(3), POT, false).pots).toBeGreaterThan(1);
    expect(planPots(plumJam, new Fraction(3), null, false).pots).toBe(1);
  });

  it('chooses jars that leave the least over, and never more than there is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.constantFrom<JarSizeId>('half-pint', 'pint', 'quart'),
        (n, main) => {
          const pints = new Fraction(n, 8);
          const { jars, over } = chooseJars(pints, main, ['quarter-pint', 'half-pint', 'pint', 'quart']);
          expect(pintsOf(jars).add(over).equals(pints)).toBe(true);
          expect(over.compare(0)).toBeGreaterThanOrEqual(0);
          expect(over.compare(jarSize(main).pints)).toBeLessThan(0);
          expect(jars.filter(j => j.size !== main).reduce((sum, j) => sum + j.count, 0)).toBeLessThanOrEqual(
            2,
          );
        },
      ),
    );
    expect(
      chooseJars(new Fraction(15, 4), 'pint', ['pint', 'half-pint', 'quarter-pint']).over.valueOf(),
    ).toBe(0);
    expect(layOut([{ size: 'half-pint', count: 8 }], ['half-pint', 'quarter-pint'])).toEqual({
      jars: [{ size: 'half-pint', count: 8, spare: 1 }],
      small: 'quarter-pint',
      lids: 10,
    });
  });

  it('reckons a ratio from what is expected, and from what was measured', () => {
    const sugar = (measured: Readonly<Record<string, { quantity: number; unit: 'g' | 'mL' }>> = {}) =>
      scaleRecipe(currantJelly, one, [], byName(measured)).lines.find(l => l.lineId === 'sugar')?.mass_g;
    expect(sugar()).toBeCloseTo(1700, 6);
    expect(sugar({ juice: { quantity: 1850, unit: 'mL' } })).toBeCloseTo(1572.5, 6);
    expect(() => sugar({ juice: { quantity: 1850, unit: 'g' } })).toThrow(RatioError);
  });

  it('finds ratios that run in a circle, refer to nothing, or mix weight with volume', () => {
    const ratio = (id: string, of: 'line' | 'step', text = '100 g') => ({
      of,
      id,
      per: {
        text,
        unit: text.endsWith('g') ? ('g' as const) : ('mL' as const),
        value: '100',
        upTo: null,
        toTaste: false,
      },
    });
    const circular: Recipe = {
      ...plumJam,
      lines: plumJam.lines.map(l =>
        l.id === 'sugar'
          ? { ...l, ratio: ratio('lemon', 'line') }
          : l.id === 'lemon'
            ? { ...l, ratio: ratio('sugar', 'line') }
            : l,
      ),
    };
    expect(() => timesOf(circular, circular.lines[1] as Recipe['lines'][number], one)).toThrow(RatioError);
    expect(recipeFaults(circular).map(f => f.code)).toContain('ratio-circular');
    const nothing: Recipe = {
      ...plumJam,
      lines: plumJam.lines.map(l => (l.id === 'sugar' ? { ...l, ratio: ratio('gone', 'line') } : l)),
    };
    expect(recipeFaults(nothing).map(f => f.code)).toContain('ratio-missing');
    const mixed: Recipe = {
      ...currantJelly,
      lines: currantJelly.lines.map(l => (l.id === 'sugar' ? { ...l, ratio: ratio('juice', 'step') } : l)),
    };
    expect(recipeFaults(mixed).map(f => f.code)).toContain('ratio-units');
  });

  it('keeps portions to one whole, parts to those set aside, headspace above zero, jars in order', () => {
    const portions: Recipe = {
      ...plumJam,
      steps: plumJam.steps.map(s =>
        s.id === 'boil' ? { ...s, adds: [{ lineId: 'sugar', share: '1/3' }] } : s,
      ),
    };
    expect(recipeFaults(portions).map(f => f.code)).toContain('portions');
    const part: Recipe = {
      ...plumJam,
      steps: plumJam.steps.map(s => (s.id === 'boil' ? { ...s, part: 'juice' } : s)),
    };
    expect(recipeFaults(part).map(f => f.code)).toContain('unknown-part');
    const tall = {
      ...waxBeans,
      authority: {
        ...waxBeans.authority,
        process: { kind: 'boiling water', pack: 'raw', headspace_mm: -3, minutes: [] },
      },
    } as unknown as Recipe;
    expect(recipeFaults(tall).map(f => f.code)).toContain('headspace');
    for (let i = 1; i < JAR_SIZES.length; i++)
      expect(JAR_SIZES[i]?.pints.compare(JAR_SIZES[i - 1]?.pints ?? 0)).toBeGreaterThan(0);
  });
});
