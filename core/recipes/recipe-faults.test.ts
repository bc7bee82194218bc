import {
  amountOf,
  lineOf,
  withAmount,
  withLine,
  withLines,
  withoutLine,
} from '../../testing/recipe-lines.ts';
import { emptyRecipe, stepFrom } from './index.ts';
import { recipeFaults } from './index.ts';
import type { Line, Recipe } from './index.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as demo from '../../demo/recipes.ts';

const { crushedTomatoes, currantJelly, plumJam, tomatoSalsa, waxBeans } = demo;
const codes = (recipe: Recipe) => recipeFaults(recipe).map(f => f.code);
const at = (recipe: Recipe) => recipeFaults(recipe).map(f => `${f.path} ${f.code}`);

describe('what keeps a recipe from being scaled, weighed or cooked', () => {
  it.each(Object.values(demo) as Recipe[])('$name has nothing of it', recipe =>
    expect(recipeFaults(recipe)).toEqual([]),
  );

  it('says what, why and what next, beside the field', () => {
    for (const broken of [
      emptyRecipe(),
      withLines(plumJam, lineOf('', '1 c')),
      withLine(plumJam, 'sugar', { density_gPerMl: null }),
      { ...plumJam, jars: [] },
    ])
      for (const fault of recipeFaults(broken)) {
        expect(fault.path).not.toBe('');
        expect(fault.what && fault.why && fault.next).toBeTruthy();
      }
  });

  it('an empty recipe: no ingredients, no fruit or produce; a sketch is cooked first and may have none', () => {
    expect(codes(emptyRecipe())).toEqual(['no-lines', 'no-main-line']);
    expect(codes({ ...emptyRecipe(), sketch: true })).toEqual([]);
  });

  it('a line with no ingredient, and two that share an id', () => {
    expect(at(withLines(plumJam, lineOf(' ', '1 lb', 'x')))).toContain('lines[4].name no-ingredient');
    expect(at(withLines(plumJam, lineOf('Sugar', '1 lb', 'sugar')))).toContain('lines[4].id line-twice');
  });
});

describe('amounts that cannot be weighed', () => {
  it.each([
    ['2 c', 'density_gPerMl', 'density-missing'],
    ['3 Tbsp', 'density_gPerMl', 'density-missing'],
    ['2 medium', 'each_g', 'weight-of-one-missing'],
    ['1 bushel', 'bushel_g', 'bushel-missing'],
    ['1 peck', 'bushel_g', 'bushel-missing'],
  ] as const)('%s without its %s', (text, field, code) => {
    const bare = withLines(plumJam, lineOf('Widdershins', text, 'w', { role: 'fruit' }));
    expect(at(bare)).toContain(`lines[4].${field} ${code}`);
    const known = withLine(bare, 'w', { [field]: 100 });
    expect(codes(known)).toEqual([]);
  });

  it('a weight needs nothing else', () =>
    expect(codes(withLines(plumJam, lineOf('Widdershins', '2 lb', 'w', { role: 'fruit' })))).toEqual([]));
});

describe('acid', () => {
  it('a splash must become a dose, in the pot; a range is a dose', () => {
    const splash = { ...amountOf('1 c'), toTaste: true };
    expect(codes(withLine(tomatoSalsa, 'lime', { amount: splash }))).toEqual(['acid-to-taste']);
    expect(codes(withAmount(tomatoSalsa, 'lime', '1/2-1 c, to taste'))).toEqual([]);
    expect(codes(withLine(tomatoSalsa, 'salt', { amount: splash }))).toEqual([]);
  });

  it('vinegar states its least strength wherever the food is low in acid, also in each jar, also for tomatoes', () => {
    expect(at(withLine(waxBeans, 'vinegar', { minStrength_pct: null }))).toEqual([
      'lines[1].minStrength_pct strength-missing',
    ]);
    const jar = withLine(crushedTomatoes, 'lemon', {
      ...lineOf('white-vinegar', '2 Tbsp', 'lemon', { where: 'each jar' }),
      minStrength_pct: null,
    });
    expect(codes(jar)).toEqual(['strength-missing']);
    // Fruit that is acid by itself may have any vinegar for its taste.
    const shrub = withLines(plumJam, lineOf('cider-vinegar', '1/4 c', 'v', { minStrength_pct: null }));
    expect(codes(shrub)).toEqual([]);
  });
});

describe('ratios', () => {
  const ratio = (of: 'line' | 'step', id: string, per: string): Line['ratio'] => ({
    of,
    id,
    per: amountOf(per),
  });

  it('that run in a circle, of two or of three', () => {
    const two = withLine(withLine(plumJam, 'sugar', { ratio: ratio('line', 'lemon', '1 c') }), 'lemon', {
      ratio: ratio('line', 'sugar', '1 c'),
    });
    expect(at(two)).toEqual(['lines[1].ratio ratio-circular', 'lines[2].ratio ratio-circular']);
    const self = withLine(plumJam, 'sugar', { ratio: ratio('line', 'sugar', '1 c') });
    expect(codes(self)).toEqual(['ratio-circular']);
    const three = withLine(
      withLine(withLine(plumJam, 'sugar', { ratio: ratio('line', 'lemon', '1 c') }), 'lemon', {
        ratio: ratio('line', 'water', '1 c'),
      }),
      'water',
      { ratio: ratio('line', 'sugar', '1 c') },
    );
    expect(codes(three)).toEqual(['ratio-circular', 'ratio-circular', 'ratio-circular']);
  });

  it('that refer to nothing, or to a step that expects nothing', () => {
    expect(codes(withLine(plumJam, 'sugar', { ratio: ratio('line', 'gone', '1 c') }))).toEqual([
      'ratio-missing',
    ]);
    expect(codes(withLine(plumJam, 'sugar', { ratio: ratio('step', 'boil', '1 L') }))).toEqual([
      'ratio-missing',
    ]);
    expect(codes(withLine(currantJelly, 'sugar', { ratio: ratio('step', 'nowhere', '1 L') }))).toEqual([
      'ratio-missing',
    ]);
  });

  it('that mix weight with volume, where nothing tells one from the other', () => {
    expect(codes(withLine(currantJelly, 'sugar', { ratio: ratio('step', 'juice', '1 kg') }))).toEqual([
      'ratio-units',
    ]);
    expect(codes(withLine(plumJam, 'sugar', { ratio: ratio('line', 'plums', '1 L') }))).toEqual([
      'ratio-units',
    ]);
    // By weight of another line, which can always be weighed.
    expect(codes(withLine(plumJam, 'sugar', { ratio: ratio('line', 'plums', '1 kg') }))).toEqual([]);
  });

  it('a dose that is more than its jar is no dose: by volume, by weight, and however the text has it', () => {
    const dose = (text: string) => codes(withAmount(crushedTomatoes, 'lemon', text));
    expect(dose('2 Tbsp')).toEqual([]);
    expect(dose('1 c')).toEqual([]);
    expect(dose('3 c')).toEqual(['dose-over-jar']);
    expect(dose('2 kg')).toEqual(['dose-over-jar']);
    // Eight heads of dill stand loose in three cups, and lie in one jar.
    expect(
      codes(withLines(crushedTomatoes, lineOf('dill', '8 heads', 'dill', { where: 'each jar' }))),
    ).toEqual([]);
    expect(at(withAmount(crushedTomatoes, 'lemon', '1 gal'))).toEqual(['lines[1].amount dose-over-jar']);
  });

  it('on a dose for each jar, which follows the jars already', () =>
    expect(codes(withLine(crushedTomatoes, 'lemon', { ratio: ratio('line', 'tomatoes', '1 kg') }))).toContain(
      'ratio-each-jar',
    ));
});

describe('steps', () => {
  const step = (id: string, over: Partial<Recipe['steps'][number]>): Recipe => ({
    ...plumJam,
    steps: plumJam.steps.map(s => (s.id === id ? { ...s, ...over } : s)),
  });

  it('portions of a line make one whole, however they are cut', () => {
    expect(at(step('boil', { adds: [{ lineId: 'sugar', share: '1/3' }] }))).toContain('steps portions');
    expect(recipeFaults(step('boil', { adds: [{ lineId: 'sugar', share: '2/3' }] }))[0]?.what).toBe(
      'The steps take 1 1/6 of Sugar.',
    );
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 }), cuts => {
        const all = cuts.reduce((a, b) => a + b, 0);
        const recipe: Recipe = {
          ...plumJam,
          steps: [
            ...plumJam.steps.map(s => ({ ...s, adds: s.adds.filter(a => a.lineId !== 'sugar') })),
            ...cuts.map((cut, i) => ({
              ...stepFrom(`cut${i}`, 'cook', 'More sugar'),
              adds: [{ lineId: 'sugar', share: `${cut}/${all}` }],
            })),
          ],
        };
        expect(codes(recipe)).toEqual([]);
      }),
    );
  });

  it('a line that no step names is no fault: it goes in when the cook says', () =>
    expect(codes(step('soften', { adds: [] }))).toEqual([]));

  it('name lines that are there', () =>
    expect(codes(step('soften', { adds: [{ lineId: 'gone', share: '1' }] }))).toEqual(['unknown-line']));

  it('a wait that ends before it begins', () => {
    expect(at(step('macerate', { window: { from_min: 600, to_min: 300 } }))).toEqual([
      'steps[2].window window-backwards',
    ]);
    expect(codes(step('macerate', { window: { from_min: 300, to_min: 300 } }))).toEqual([]);
  });

  it('a part is set aside before anything is done to it', () => {
    expect(codes(step('boil', { part: 'juice' }))).toEqual(['unknown-part']);
    const parted: Recipe = {
      ...plumJam,
      steps: plumJam.steps.map(s =>
        s.id === 'soften'
          ? { ...s, separates: { part: 'juice', share: 0.4 } }
          : s.id === 'boil'
            ? { ...s, part: 'juice' }
            : s,
      ),
    };
    expect(codes(parted)).toEqual([]);
    expect(codes({ ...parted, steps: [...parted.steps].reverse() })).toContain('unknown-part');
  });
});

describe('jars, headspace and outlets', () => {
  it('the size it makes is among its jars', () =>
    expect(at({ ...plumJam, makes: { size: 'pint', count: 4 } })).toEqual(['jars size-missing']));

  const letter = (headspace_mm: number, jars: Recipe['jars'] = waxBeans.jars): Recipe => ({
    ...waxBeans,
    jars,
    authority: {
      ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>),
      process: {
        ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>).process,
        headspace_mm,
      } as never,
    },
  });

  it('a headspace of nothing or less, and one taller than the jar', () => {
    expect(at(letter(0))).toEqual(['authority.process.headspace_mm headspace']);
    expect(codes(letter(-6.35))).toEqual(['headspace']);
    expect(codes(letter(6.35))).toEqual([]);
    const both: Recipe['jars'] = [
      { size: 'pint', net: { kind: 'volume', floz: 16 } },
      { size: 'quarter-pint', net: { kind: 'volume', floz: 4 } },
    ];
    expect(at(letter(50, both))).toEqual(['jars[1].size headspace-over-jar']);
  });

  it('the same for a publication that gives only a sea-level time', () => {
    const sea: Recipe = {
      ...crushedTomatoes,
      authority: {
        ...(crushedTomatoes.authority as Extract<Recipe['authority'], { grade: 'tested publication' }>),
        time: {
          kind: 'sea level',
          pack: 'hot',
          headspace_mm: -1,
          minutes: [{ jarSize: 'pint', minutes: 35 }],
        },
      },
    };
    expect(codes(sea)).toEqual(['headspace']);
  });

  const outlet = (over: Partial<Recipe['outlets'][number]>): Recipe => ({
    ...plumJam,
    outlets: [
      { id: 'o', name: 'Syrup', share: 0.2, use: 'jars', jarSize: 'half-pint', entryId: null, ...over },
    ],
  });
  it('outlets leave something for the jars, and those in jars name one', () => {
    expect(codes(outlet({}))).toEqual([]);
    expect(codes(outlet({ share: 1 }))).toEqual(['outlets-take-all']);
    expect(at(outlet({ jarSize: null }))).toEqual(['outlets[0].jarSize outlet-jar']);
    expect(codes(outlet({ entryId: 'no-such-entry' }))).toEqual(['outlet-jar']);
    expect(codes(outlet({ use: 'refrigerator', jarSize: null }))).toEqual([]);
    const two = outlet({ share: 0.6 });
    expect(codes({ ...two, outlets: [...two.outlets, ...two.outlets] })).toEqual(['outlets-take-all']);
  });
});

it('never throws, whatever half-written recipe it is given', () => {
  const pieces = fc.record({
    drop: fc.subarray(['plums', 'sugar', 'lemon', 'water']),
    role: fc.constantFrom(...plumJam.lines.map(l => l.role), 'other' as const),
    unit: fc.constantFrom('cup', 'g', 'each', 'bushel') as fc.Arbitrary<Line['amount']['unit']>,
    where: fc.constantFrom('pot', 'each jar', 'dip', 'soak') as fc.Arbitrary<Line['where']>,
  });
  fc.assert(
    fc.property(pieces, ({ drop, role, unit, where }) => {
      let recipe: Recipe = plumJam;
      for (const id of drop) recipe = withoutLine(recipe, id);
      recipe = {
        ...recipe,
        lines: recipe.lines.map(l => ({ ...l, role, where, amount: { ...l.amount, unit } })),
      };
      for (const fault of recipeFaults(recipe)) expect(fault.what).not.toBe('');
    }),
  );
});
