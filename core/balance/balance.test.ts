import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { currantJelly, plumJam, strawberryJam, tomatoSalsa, waxBeans } from '../../demo/recipes.ts';
import { lineOf, withLine } from '../../testing/recipe-lines.ts';
import { fillVolume_mL } from '../jars/index.ts';
import { Fraction } from '../measure/index.ts';
import {
  type Line,
  PLACES,
  type Recipe,
  STEP_KINDS,
  type Step,
  emptyRecipe,
  stepFrom,
} from '../recipes/index.ts';
import {
  type Balance,
  type BalanceKitchen,
  type Contents,
  PART_NAMES,
  type Parts,
  type VesselId,
  acidIn,
  asManyAsItFills,
  balance,
  barrierIn100_g,
  brixOf,
  massIn,
  massOf,
  pictureOf,
  plan,
  reachedJars_g,
  spread,
  together,
  volume_mL,
  weakestJar,
} from './index.ts';

const KITCHEN: BalanceKitchen = {
  altitude_m: 716.28,
  thermometerError_C: 0,
  pot: { id: 'p', name: 'Pot', capacity_mL: 9000, diameter_mm: 280, boilOff_gPerMin: 30 },
  pots: 1,
  headspace_mm: 12.7,
};
const one = new Fraction(1);
const MILLIGRAM = 0.001;

/** What each vessel holds when every flow is followed, and whether any gave more than it had. */
function followed(flows: Balance['flows']): { held: Map<VesselId, Contents>; overdrawn: string[] } {
  const held = new Map<VesselId, Contents>();
  const overdrawn: string[] = [];
  const of = (id: VesselId) => held.get(id) ?? (held.set(id, new Map()).get(id) as Contents);
  for (const { from, to, contents } of flows)
    for (const [id, parts] of contents)
      for (const name of PART_NAMES) {
        const add = (vessel: VesselId, by: number) => {
          const there = of(vessel).get(id) ?? {
            water_g: 0,
            sugar_g: 0,
            salt_g: 0,
            soluble_g: 0,
            insoluble_g: 0,
            acid_g: 0,
          };
          there[name] += by;
          of(vessel).set(id, there);
          if (there[name] < -MILLIGRAM) overdrawn.push(`${vessel} ${id} ${name} ${there[name]}`);
        };
        if (parts[name] < 0) overdrawn.push(`a flow of less than nothing: ${from} to ${to}, ${name}`);
        if (!from.startsWith('line:')) add(from, -parts[name]);
        add(to, parts[name]);
      }
  return { held, overdrawn };
}

const NAMES = [
  'plum',
  'cucumber',
  'onion',
  'cabbage',
  'sugar',
  'canning-salt',
  'white-vinegar',
  'citric-acid',
  'bottled-lemon',
  'water',
  'cinnamon-stick',
  'pectin-powder',
  'honey',
];

/** Any recipe one could write: lines anywhere, steps in any order, parts, portions, targets that cannot be. */
const anyRecipe = fc
  .tuple(
    fc.array(
      fc.record({
        name: fc.constantFrom(...NAMES),
        grams: fc.integer({ min: 1, max: 9000 }),
        where: fc.constantFrom(...PLACES),
        kept: fc.double({ min: 0, max: 1, noNaN: true }),
        trim: fc.double({ min: 0.3, max: 1, noNaN: true }),
        bought: fc.boolean(),
      }),
      { minLength: 1, maxLength: 8 },
    ),
    fc.array(
      fc.record({
        kind: fc.constantFrom(...STEP_KINDS),
        target: fc.constantFrom<Step['target']>(
          { kind: 'none' },
          { kind: 'gel point' },
          { kind: 'temperature', temp_C: 104, hold_min: 5 },
          { kind: 'time', minutes: 40 },
          { kind: 'volume', volume_mL: 2000 },
          { kind: 'reduced', by: 1 / 3 },
          { kind: 'depth', depth_mm: 60 },
          { kind: 'look', text: 'thick' },
        ),
        part: fc.constantFrom('', '', 'juice'),
        separates: fc.constantFrom(null, null, { part: 'juice', share: 0.4 }),
        expects: fc.constantFrom(null, '2 L', '1 kg'),
      }),
      { maxLength: 9 },
    ),
    fc.boolean(),
    fc.double({ min: 0, max: 0.4, noNaN: true }),
  )
  .map(([lines, steps, packed, outlet]): Recipe => {
    const made: Recipe = {
      ...emptyRecipe(),
      makes: { size: 'pint', count: 4 },
      jars: [{ size: 'pint', net: { kind: 'weight', oz: 16 } }],
      packing: packed ? { perPint_g: 250, pieceDensity_gPerMl: 0.95, spareShare: 0.1 } : null,
      outlets:
        outlet > 0.05
          ? [{ id: 'o', name: 'Juice', share: outlet, use: 'refrigerator', jarSize: null, entryId: null }]
          : [],
      lines: lines.map((l, i): Line => ({
        ...lineOf(l.name, `${l.grams} g`, `l${i}`),
        where: l.where,
        keptShare: l.kept,
        trimYield: l.trim,
        basis: l.bought ? 'as bought' : 'prepared',
      })),
      steps: steps.map((s, i): Step => ({
        ...stepFrom(`s${i}`, s.kind, 'do'),
        target: s.target,
        part: s.part,
        separates: s.separates,
        expects: s.expects && s.kind === 'measure' ? lineOf('water', s.expects).amount : null,
      })),
    };
    // Each line goes in at some step, some of them in two portions, and some at none.
    const into = made.steps.length;
    if (into > 0)
      made.lines.forEach((l, i) => {
        if (i % 4 === 3) return;
        const shares = i % 3 === 2 ? ['1/3', '2/3'] : ['1'];
        shares.forEach((share, n) => made.steps[(i * 5 + n * 3) % into]?.adds.push({ lineId: l.id, share }));
      });
    return made;
  });

describe('conservation', () => {
  it('in equals out at every flow, of each part of each line, to a milligram, whatever the recipe', () => {
    fc.assert(
      fc.property(anyRecipe, fc.boolean(), (recipe, counted) => {
        const jars = counted ? [{ size: 'pint' as const, count: 3 }] : asManyAsItFills(['pint', 'half-pint']);
        const made = balance(plan(recipe, one, jars, KITCHEN));
        const { held, overdrawn } = followed(made.flows);
        expect(overdrawn).toEqual([]);
        let off_g = 0;
        for (const id of new Set([...held.keys(), ...made.vessels.keys()]))
          for (const line of recipe.lines)
            for (const name of PART_NAMES)
              off_g = Math.max(
                off_g,
                Math.abs(
                  (held.get(id)?.get(line.id)?.[name] ?? 0) -
                    (made.vessels.get(id)?.get(line.id)?.[name] ?? 0),
                ),
              );
        expect(off_g).toBeLessThan(MILLIGRAM);
        // Only water leaves as steam.
        const steam = together(made.vessels.get('steam') ?? new Map());
        expect(massOf(steam)).toBeCloseTo(steam.water_g, 6);
      }),
      { numRuns: 400 },
    );
  });

  it('jars together are what flowed into them', () => {
    fc.assert(
      fc.property(anyRecipe, recipe => {
        const made = balance(plan(recipe, one, asManyAsItFills(['pint', 'half-pint']), KITCHEN));
        const inJars = made.jars.reduce((sum, j) => sum + j.count * massIn(j.each), 0);
        expect(Math.abs(inJars - massIn(made.vessels.get('jars') ?? new Map()))).toBeLessThan(MILLIGRAM * 10);
      }),
      { numRuns: 300 },
    );
  });

  it('scales evenly: twice the recipe in twice the pots is twice of everything', () => {
    for (const recipe of [plumJam, strawberryJam, currantJelly, tomatoSalsa, waxBeans]) {
      const jars = (n: number) => [{ size: recipe.makes.size, count: recipe.makes.count * n }];
      const once = balance(plan(recipe, one, jars(1), KITCHEN));
      const twice = balance(plan(recipe, new Fraction(2), jars(2), { ...KITCHEN, pots: 2 }));
      for (const [id, contents] of once.vessels)
        if (!recipe.steps.some(s => s.target.kind === 'volume'))
          expect(massIn(twice.vessels.get(id) ?? new Map()) / 2).toBeCloseTo(massIn(contents), 6);
    }
  });

  it('does not ask in which order things are done that do not touch', () => {
    const beans = waxBeans.steps;
    const swapped: Recipe = {
      ...waxBeans,
      steps: [beans[0], beans[2], beans[1], ...beans.slice(3)] as Step[],
    };
    const jars = [{ size: 'pint' as const, count: 8 }];
    const of = (recipe: Recipe) => balance(plan(recipe, one, jars, KITCHEN)).vessels;
    const there = of(waxBeans);
    for (const [id, contents] of of(swapped))
      expect(massIn(contents)).toBeCloseTo(massIn(there.get(id) ?? new Map()), 9);
    expect([...of(swapped).keys()].sort()).toEqual([...there.keys()].sort());
  });
});

describe('packed jars', () => {
  // The demo's dilled beans, worked by hand from its lines: 8 pints at 1/2 inch.
  const vinegar_g = 6 * 236.588 * (lineOf('white-vinegar', '1 c').density_gPerMl as number);
  const water_g = 4 * 236.588 * (lineOf('water', '1 c').density_gPerMl as number);
  const salt_g = (1 / 3) * 236.588 * (lineOf('canning-salt', '1 c').density_gPerMl as number);
  const made = balance(plan(waxBeans, one, [{ size: 'pint', count: 8 }], KITCHEN));
  const process = plan(waxBeans, one, [{ size: 'pint', count: 8 }], KITCHEN);
  const jar = made.jars[0] as Balance['jars'][number];

  it('hold what a table worked by hand says', () => {
    const brine_g = vinegar_g + water_g + salt_g;
    // In one jar: 225 g of beans at 0.95 g/mL, a dill head of 6 g, a clove of 4 g, a quarter teaspoon of flakes.
    const flakes_g = (4.92892 / 4) * (lineOf('pepper-flakes', '1 tsp').density_gPerMl as number);
    // Herbs in a jar take no more room than they weigh at 0.9 g/mL, however loose a cup of them is.
    const doses_mL = (6 + 4 + flakes_g) / 0.9;
    const gap_mL = fillVolume_mL('pint', 12.7) - 225 / 0.95 - doses_mL;
    expect(jar.gap_mL).toBeCloseTo(gap_mL, 1);
    expect(jar.pieces_g).toBeCloseTo(225, 9);
    const parts = together(jar.each);
    const brineInJar_g = massIn(jar.each) - 225 - 6 - 4 - flakes_g;
    // Filled hot, a gap of some 202 mL takes some 200 g of a brine of 1.03 g/mL.
    expect(brineInJar_g / gap_mL).toBeGreaterThan(0.96);
    expect(brineInJar_g / gap_mL).toBeLessThan(1.02);
    const share = brineInJar_g / brine_g;
    expect(parts.salt_g).toBeCloseTo(salt_g * share, 6);
    expect(acidIn(process, jar.each).acetic_g).toBeCloseTo(vinegar_g * 0.05 * share, 6);
    expect(barrierIn100_g(process, jar.each)).toBeCloseTo((vinegar_g * 5 * share) / massIn(jar.each), 6);
  });

  it('leave brine in the pot that is in no jar: no acid of the pickle and no salt of its label', () => {
    const spare = together(made.vessels.get('spare brine') as Contents);
    expect(massOf(spare)).toBeGreaterThan(500);
    const reached = reachedJars_g(made);
    expect(reached.get('vinegar')).toBeLessThan(vinegar_g * 0.8);
    // Twice the brine made is no more acid in the jar.
    const twice = ['vinegar', 'water', 'salt'].reduce(
      (r, id) =>
        withLine(r, id, {
          amount: {
            ...(r.lines.find(l => l.id === id) as Line).amount,
            value: new Fraction((r.lines.find(l => l.id === id) as Line).amount.value).mul(2).toFraction(),
          },
        }),
      waxBeans,
    );
    const more = plan(twice, one, [{ size: 'pint', count: 8 }], KITCHEN);
    expect(weakestJar(more, balance(more))?.average_g).toBeCloseTo(
      weakestJar(process, made)?.average_g as number,
      6,
    );
  });

  it('hold less acid the tighter they are packed', () => {
    const at = (contents: Contents) => barrierIn100_g(process, contents);
    expect(at(jar.tightest)).toBeLessThan(at(jar.each));
    expect(at(jar.loosest)).toBeGreaterThan(at(jar.each));
    expect(weakestJar(process, made)?.in100_g).toBe(at(jar.tightest));
  });

  it('say when brine runs short, and fill no gap with nothing', () => {
    const little = balance(
      plan(
        withLine(waxBeans, 'vinegar', { amount: lineOf('x', '1 c').amount }),
        one,
        [{ size: 'pint', count: 12 }],
        KITCHEN,
      ),
    );
    expect(little.filling.brineMade_mL).toBeLessThan(little.filling.brineNeeded_mL);
    expect(little.vessels.get('spare brine')).toBeUndefined();
  });
});

describe('soaks', () => {
  const relish = (steps: Step[]): Recipe => ({
    ...emptyRecipe(),
    product: 'relish',
    lines: [
      lineOf('Cucumbers', '3000 g', 'cucumbers', { role: 'low-acid produce', solids_pct: 3 }),
      lineOf('canning-salt', '150 g', 'salt', { where: 'soak', keptShare: 0.05 }),
      ...(steps.some(s => s.id === 'rinse')
        ? [lineOf('water', '1000 g', 'rinse', { where: 'soak', keptShare: 0 })]
        : []),
      lineOf('white-vinegar', '1000 g', 'vinegar'),
    ],
    steps,
    makes: { size: 'pint', count: 7 },
  });
  const adds = (...ids: string[]) => ids.map(lineId => ({ lineId, share: '1' }));
  const soak = { ...stepFrom('soak', 'soak', 'Salt, 4 h; drain'), adds: adds('cucumbers', 'salt') };
  const rinse = { ...stepFrom('rinse', 'soak', 'Cold water, 1 h; drain'), adds: adds('rinse') };
  const boil = {
    ...stepFrom('boil', 'cook', 'Boil'),
    adds: adds('vinegar'),
    target: { kind: 'temperature', temp_C: 90, hold_min: 1 } as const,
  };
  const salted = (recipe: Recipe) => {
    const made = balance(plan(recipe, one, [{ size: 'pint', count: 7 }], KITCHEN));
    return {
      made,
      inFood: together(made.vessels.get('jars') as Contents),
      drain: together(made.vessels.get('drain') ?? new Map()),
    };
  };

  it('keep what practice keeps of cucumbers, and of the salt what stands in that water', () => {
    const { drain } = salted(relish([soak, boil]));
    // 3 kg of cucumber and 150 g of salt; 68 % of the cucumber is left.
    expect(massOf(drain)).toBeCloseTo(3150 - 3000 * 0.68, 6);
    expect(drain.salt_g / 150).toBeGreaterThan(0.3);
    expect(drain.salt_g / 150).toBeLessThan(0.45);
  });

  it('lose most of it to a rinse', () => {
    const once = salted(relish([soak, boil])).inFood.salt_g;
    const twice = salted(relish([soak, rinse, boil])).inFood.salt_g;
    expect(twice).toBeLessThan(once * 0.75);
    expect(twice).toBeGreaterThan(0);
  });

  it('are settled by a weight after draining', () => {
    const weighed = { ...stepFrom('weigh', 'measure', 'Weigh'), expects: lineOf('x', '2200 g').amount };
    const { drain } = salted(relish([soak, weighed, boil]));
    expect(massOf(drain)).toBeCloseTo(3150 - 2200, 6);
  });

  it('pour acid away with the rest', () => {
    const bath = relish([{ ...soak, adds: adds('cucumbers', 'vinegar') }, boil]);
    const soaked = withLine(withLine(bath, 'vinegar', { where: 'soak' }), 'salt', { where: 'dip' });
    const made = salted({ ...soaked, steps: [{ ...soak, adds: adds('cucumbers', 'vinegar') }] }).made;
    const jars = together(made.vessels.get('jars') ?? new Map());
    expect(together(made.vessels.get('drain') as Contents).acid_g).toBeGreaterThan(5);
    expect(jars.acid_g + together(made.vessels.get('left over') ?? new Map()).acid_g).toBeLessThan(50);
  });
});

describe('cooking', () => {
  it('reaches a temperature only where the water goes that far, and says both figures where it cannot', () => {
    const thick = withLine(plumJam, 'sugar', { amount: lineOf('sugar', '40 lb').amount });
    const made = balance(plan(thick, one, asManyAsItFills(['half-pint']), KITCHEN));
    expect(made.faults).toEqual([
      expect.objectContaining({ stepId: 'boil', code: 'past target', target: 'gel point' }),
    ]);
    expect(made.faults[0]?.there).toBeGreaterThan(made.faults[0]?.asked as number);
  });

  it('is reduced by a third of its volume', () => {
    const sauce: Recipe = {
      ...tomatoSalsa,
      steps: tomatoSalsa.steps.map(s =>
        s.id === 'cook' ? { ...s, target: { kind: 'reduced', by: 1 / 3 } } : s,
      ),
    };
    const made = balance(plan(sauce, one, asManyAsItFills(['pint']), KITCHEN));
    const cook = made.cooks[0] as Balance['cooks'][number];
    expect(volume_mL(cook.end) / volume_mL(cook.start)).toBeCloseTo(2 / 3, 4);
  });

  it('of a part leaves the rest alone', () => {
    const parted: Recipe = {
      ...plumJam,
      steps: plumJam.steps.flatMap(s =>
        s.id === 'soften'
          ? [
              {
                ...s,
                target: { kind: 'temperature' as const, temp_C: 80, hold_min: 0 },
                separates: { part: 'juice', share: 0.5 },
              },
            ]
          : s.id === 'boil'
            ? [
                { ...s, part: 'juice' },
                { ...stepFrom('back', 'blend back', 'Back in'), part: 'juice' },
              ]
            : [s],
      ),
    };
    const made = balance(plan(parted, one, asManyAsItFills(['half-pint']), KITCHEN));
    const whole = balance(plan(plumJam, one, asManyAsItFills(['half-pint']), KITCHEN));
    // The juice is as thick as jam; with the fruit back in, all of it is thinner.
    expect(brixOf(made.cooks[1]?.end as Parts)).toBeCloseTo(brixOf(whole.ready), 0);
    expect(brixOf(made.ready)).toBeLessThan(brixOf(whole.ready) - 5);
    expect(made.cooks.map(c => c.part)).toEqual(['', 'juice']);
  });

  it('does not put the fruit behind the sugar on a label by what boiled off', () => {
    const made = balance(plan(plumJam, one, [{ size: 'half-pint', count: 8 }], KITCHEN));
    const inJar = made.vessels.get('jars') as Contents;
    expect(massOf(inJar.get('plums') ?? made.ready)).toBeLessThan(massOf(inJar.get('sugar') ?? made.ready));
    const reached = reachedJars_g(made);
    expect(reached.get('plums') as number).toBeGreaterThan(reached.get('sugar') as number);
  });
});

describe('ranges', () => {
  it('hold the middle, and are as wide as what is uncertain', () => {
    fc.assert(
      fc.property(anyRecipe, recipe => {
        const [pints] = spread(plan(recipe, one, asManyAsItFills(['pint']), KITCHEN), [b => massOf(b.ready)]);
        expect(pints?.low).toBeLessThanOrEqual(pints?.mid as number);
        expect(pints?.high).toBeGreaterThanOrEqual(pints?.mid as number);
      }),
      { numRuns: 60 },
    );
  });
});

describe('the picture', () => {
  it('runs in no circle, and every place passes on what it got, whatever the recipe', () => {
    fc.assert(
      fc.property(anyRecipe, recipe => {
        const process = plan(recipe, one, asManyAsItFills(['pint']), KITCHEN);
        const made = balance(process);
        const { places, flows } = pictureOf(process, made);
        const next = new Map(places.map(p => [p.id, flows.filter(f => f.from === p.id).map(f => f.to)]));
        const circles = (id: string, seen: readonly string[]): boolean =>
          seen.includes(id) || (next.get(id) ?? []).some(to => circles(to, [...seen, id]));
        expect(places.filter(p => circles(p.id, [])).map(p => p.id)).toEqual([]);
        const all = flows.filter(f => f.from.startsWith('in ') || f.from.startsWith('small '));
        const all_g = all.reduce((sum, f) => sum + f.mass_g, 0);
        for (const place of places) {
          const into = flows.filter(f => f.to === place.id).reduce((sum, f) => sum + f.mass_g, 0);
          const out = flows.filter(f => f.from === place.id).reduce((sum, f) => sum + f.mass_g, 0);
          // What is no wider than a hair is left to the table.
          if (into > 0 && out > 0) expect(Math.abs(into - out)).toBeLessThan(all_g * 0.02 + 0.01);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('of the dilled beans: three come in by themselves, jars take most, brine is left over', () => {
    const process = plan(waxBeans, one, [{ size: 'pint', count: 8 }], KITCHEN);
    const { places, flows } = pictureOf(process, balance(process));
    expect(places.filter(p => p.vessel === null && p.lineIds.length === 1).map(p => p.lineIds[0])).toEqual(
      expect.arrayContaining(['beans', 'vinegar', 'water']),
    );
    expect(places.map(p => p.vessel)).toEqual(
      expect.arrayContaining(['board', 'brine', 'jars', 'spare brine']),
    );
    expect(
      flows.find(f => f.from === 'brine' && f.to === 'jars' && f.kind === 'acid')?.mass_g,
    ).toBeGreaterThan(500);
  });
});
