import { describe, expect, it } from 'vitest';
import {
  crushedTomatoes,
  plumJam,
  sauerkraut,
  strawberryJam,
  tomatoSalsa,
  waxBeans,
} from '../../demo/recipes.ts';
import { readAmount } from '../measure/index.ts';
import {
  type Line,
  type Recipe,
  acidBalance,
  changesFrom,
  classOf,
  dossier,
  formulaOf,
  libraryOf,
  lineFrom,
  nameCheck,
  processFor,
  review,
  reviewFaults,
  routeToSale,
} from './index.ts';

const LIBRARY = libraryOf([]);
const line = (name: string, text: string, id = name, over: Partial<Line> = {}): Line => {
  const read = readAmount(text, 'en-US');
  if (!read.ok) throw new Error(read.fault.what);
  const ingredient = LIBRARY.find(i => i.id === name || i.name.toLowerCase() === name.toLowerCase()) ?? null;
  return { ...lineFrom(id, read.value, ingredient?.name ?? name, ingredient), basis: 'prepared', ...over };
};
const with_ = (recipe: Recipe, ...lines: Line[]): Recipe => ({
  ...recipe,
  lines: [...recipe.lines, ...lines],
});
const codes = (recipe: Recipe, level = 'refused') =>
  reviewFaults(recipe)
    .filter(f => f.level === level)
    .map(f => f.code);

describe('what is refused (common practice of the trade)', () => {
  it.each([
    ['bacon', 'animal'],
    ['egg yolks', 'animal'],
    ['heavy cream', 'animal'],
    ['peanut butter', 'nut'],
    ['cocoa powder', 'chocolate'],
    ['espresso', 'drink'],
    ['black beans, cooked', 'starchy'],
    ['olive oil', 'oil'],
    ['pickling lime', 'lime'],
    ['alum', 'alum'],
    ['cornstarch', 'thickener'],
    ['tapioca', 'thickener'],
  ])('%s', (name, code) => {
    const recipe = with_(plumJam, line(name, '100 g'));
    expect(codes(recipe)).toContain(code);
    expect(classOf(recipe)).toBe('refused');
    expect(routeToSale(recipe).open).toBe(false);
    expect(processFor(recipe, 'half-pint', 0).ok).toBe(false);
    const fault = reviewFaults(recipe).find(f => f.code === code);
    expect(fault && fault.why && fault.next && fault.source).toBeTruthy();
  });

  it.each([
    'eggplant',
    'nutmeg',
    'cream of tartar',
    'cauliflower',
    'banana peppers',
    'rice vinegar',
    'mustard flowers',
  ])('but not %s', name =>
    expect(codes(with_(waxBeans, line(name, '10 g', name, { role: 'spice' })))).toEqual([]),
  );

  it('pumpkin, squash, banana and melon butters', () => {
    for (const name of ['Pumpkin purée', 'Butternut squash', 'Bananas', 'Cantaloupe'])
      expect(codes(with_({ ...plumJam, product: 'fruit butter' }, line(name, '500 g')))).toContain(
        'low-acid-butter',
      );
    // Pickled, with its acid, squash is another thing.
    expect(
      codes(with_(waxBeans, line('Yellow squash', '500 g', 'squash', { role: 'low-acid produce' }))),
    ).toEqual([]);
  });

  it('curds, cakes in jars, soups, pressure canning, open kettle, inversion, wax', () => {
    expect(codes({ ...plumJam, name: 'Lemon curd' })).toContain('curd');
    expect(codes({ ...plumJam, name: 'Carrot cake in a jar' })).toContain('cake-in-jar');
    expect(codes({ ...waxBeans, name: 'Bread and butter pickles' })).toEqual([]);
    expect(codes({ ...crushedTomatoes, name: 'Tomato soup' })).toContain('soup');
    const step = (text: string): Recipe => ({
      ...plumJam,
      steps: plumJam.steps.map((s, i) => (i === 6 ? { ...s, text } : s)),
    });
    expect(codes(step('Pressure can for 20 minutes'))).toContain('pressure');
    expect(codes(step('Fill, close and turn the jars upside down'))).toContain('open-kettle');
    expect(codes(step('Seal with melted wax'))).toContain('open-kettle');
    const hotFill: Recipe = {
      ...step('Fill, close, invert the jars for a minute'),
      authority: {
        ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>),
        process: {
          kind: 'hot-fill-hold',
          temp_C: 88,
          hold_min: 3,
          closure: 'lug',
          headspace_mm: 6,
          jarSizes: ['half-pint'],
        },
      },
    };
    expect(codes(hotFill)).toEqual([]);
  });

  it('oil and cooked beans, but for the tested products that hold them, unchanged', () => {
    const marinated: Recipe = {
      ...waxBeans,
      authority: {
        ...(crushedTomatoes.authority as Extract<Recipe['authority'], { grade: 'tested publication' }>),
        time: { kind: 'entry', entryId: 'marinated-peppers' },
      },
    };
    expect(codes(with_(marinated, line('olive oil', '100 g')))).toEqual([]);
    expect(codes(with_(waxBeans, line('olive oil', '100 g')))).toContain('oil');
  });

  it('butter over half a teaspoon, low-acid food without acid, fermentation alone', () => {
    expect(codes(strawberryJam)).toEqual([]);
    expect(codes(with_(plumJam, line('butter', '1 tsp')))).toContain('butter');
    const bare: Recipe = { ...waxBeans, lines: waxBeans.lines.filter(l => l.role !== 'acid') };
    expect(codes(bare)).toContain('low-acid');
    const sour: Recipe = {
      ...bare,
      steps: bare.steps.map((s, i) =>
        i === 1 ? { ...s, text: 'Let it ferment in its brine for a week' } : s,
      ),
    };
    expect(codes(sour)).toContain('ferment');
    expect(codes({ ...sauerkraut, authority: { grade: 'own', entryId: null } })).toContain('ferment');
  });

  it('modified starch only in a tested pie filling', () => {
    const starch = line('Modified starch, cook type', '100 g', 'starch', { role: 'set' });
    expect(codes(with_(plumJam, starch))).toContain('starch');
    expect(codes(with_({ ...crushedTomatoes, product: 'pie filling' }, starch))).toEqual([]);
  });
});

describe('what has to be mended before sale', () => {
  it('weak, unlabelled and home-made vinegar; fresh juice as the barrier', () => {
    const vinegar = (over: Partial<Line>): Recipe => ({
      ...waxBeans,
      lines: waxBeans.lines.map(l => (l.id === 'vinegar' ? { ...l, ...over } : l)),
    });
    expect(codes(vinegar({ minStrength_pct: 4 }), 'mend')).toContain('weak-vinegar');
    expect(codes(vinegar({ minStrength_pct: 5 }), 'mend')).toEqual([]);
    expect(codes(vinegar({ name: 'Home-made vinegar', ingredientId: null }), 'mend')).toContain(
      'unlabelled-vinegar',
    );
    const lemons = vinegar({ name: 'Fresh lemon juice', ingredientId: 'fresh-lemon', minStrength_pct: null });
    expect(codes(lemons, 'mend')).toContain('fresh-juice');
    expect(routeToSale(vinegar({ minStrength_pct: 4 })).open).toBe(false);
  });

  it('the dose in each jar of plain tomatoes: too little, enough, and by another acid', () => {
    const dose = (text: string, over: Partial<Line> = {}): Recipe => ({
      ...crushedTomatoes,
      lines: [
        crushedTomatoes.lines[0] as Line,
        { ...(crushedTomatoes.lines[1] as Line), amount: (line('x', text) as Line).amount, ...over },
      ],
    });
    expect(codes(dose('1 Tbsp'), 'mend')).toEqual([]);
    expect(codes(dose('2 tsp'), 'mend')).toContain('acid-each-jar');
    const citric = { name: 'Citric acid', ingredientId: 'citric-acid' };
    expect(codes(dose('1/4 tsp', citric), 'mend')).toEqual([]);
    expect(codes(dose('1/8 tsp', citric), 'mend')).toContain('acid-each-jar');
    const vinegar = { name: 'White vinegar, 5 %', ingredientId: 'white-vinegar', minStrength_pct: 5 };
    expect(codes(dose('2 Tbsp', vinegar), 'mend')).toEqual([]);
    expect(codes(dose('1 Tbsp', vinegar), 'mend')).toContain('acid-each-jar');
    expect(codes({ ...crushedTomatoes, lines: [crushedTomatoes.lines[0] as Line] }, 'mend')).toContain(
      'acid-each-jar',
    );
  });

  it('says what may stand in for an acid', () => {
    const said = (recipe: Recipe) => reviewFaults(recipe).find(f => f.code === 'acid-equivalent')?.what;
    expect(said(waxBeans)).toMatch(
      /bottled lemon or lime juice may take its place, volume for volume; never the other way/,
    );
    expect(said(crushedTomatoes)).toMatch(
      /1\/4 tsp of citric acid or 2 Tbsp of 5 % vinegar may take its place in a pint/,
    );
    expect(said(tomatoSalsa)).toMatch(/vinegar may not take its place/);
  });

  it('iodised salt in a brine; salt and weeks of sauerkraut (USDA, guide 6; from memory)', () => {
    const salty: Recipe = {
      ...waxBeans,
      lines: waxBeans.lines.map(l => (l.id === 'salt' ? { ...l, name: 'Iodised table salt' } : l)),
    };
    expect(codes(salty, 'mend')).toContain('cloudy-salt');
    expect(codes(sauerkraut, 'mend')).toEqual([]);
    const kraut = (salt: string): Recipe => ({
      ...sauerkraut,
      lines: [sauerkraut.lines[0] as Line, line('canning-salt', salt, 'salt')],
    });
    // 25 lb are 11,340 g: 2.25 % is 255.1 g, 2.5 % is 283.5 g.
    expect(codes(kraut('254 g'), 'mend')).toContain('kraut-salt');
    expect(codes(kraut('256 g'), 'mend')).toEqual([]);
    expect(codes(kraut('283 g'), 'mend')).toEqual([]);
    expect(codes(kraut('285 g'), 'mend')).toContain('kraut-salt');
    const short: Recipe = {
      ...sauerkraut,
      steps: sauerkraut.steps.map(s =>
        s.id === 'ferment' ? { ...s, window: { from_min: 20_160, to_min: 40_320 } } : s,
      ),
    };
    expect(codes(short, 'mend')).toContain('kraut-weeks');
  });
});

describe('class and low-acid share', () => {
  it('is derived from what is in it', () => {
    expect(classOf(plumJam)).toBe('fruit spread');
    expect(classOf(waxBeans)).toBe('acidified food');
    expect(classOf(sauerkraut)).toBe('fermented food');
    expect(classOf({ ...plumJam, product: 'syrup' })).toBe('acid food');
    expect(classOf(with_(plumJam, line('jalapeno', '50 g')))).toBe('acidified food');
    // Fruit that is not safely acid.
    expect(
      classOf({
        ...plumJam,
        lines: plumJam.lines.map(l => (l.id === 'plums' ? { ...l, safelyAcid: false } : l)),
      }),
    ).toBe('acidified food');
  });

  it('is not talked out of what the library knows: an onion called a spice, a fig called safely acid', () => {
    const onion = with_(plumJam, line('onion', '200 g', 'o', { role: 'spice' }));
    expect(classOf(onion)).toBe('acidified food');
    expect(codes(onion, 'note')).toContain('low-acid-by-library');
    const fig = with_(plumJam, line('fig', '200 g', 'f', { safelyAcid: true }));
    expect(classOf(fig)).toBe('acidified food');
    expect(acidBalance(fig).lowAcid_g).toBeCloseTo(200, 6);
  });

  it('counts dried produce as the fresh it came from', () => {
    const fresh = acidBalance(with_(plumJam, line('garlic', '100 g', 'g'))).lowAcid_g;
    const dried = acidBalance(
      with_(plumJam, line('x', '20 g', 'g', { role: 'low-acid produce', freshFactor: 5 })),
    ).lowAcid_g;
    expect(dried).toBeCloseTo(fresh, 6);
    expect(acidBalance(plumJam).lowAcidShare).toBe(0);
  });
});

describe('changes to a tested recipe: which took it out of its authority', () => {
  const change = (over: Partial<Recipe>) =>
    changesFrom(formulaOf(waxBeans), formulaOf({ ...waxBeans, ...over }));
  const lines = (id: string, text: string) =>
    waxBeans.lines.map(l => (l.id === id ? { ...l, amount: line('x', text).amount } : l));
  const breaking = (over: Partial<Recipe>) =>
    change(over)
      .filter(c => c.breaks)
      .map(c => c.code);

  it('nothing changed, or all of it scaled, is no change', () => {
    expect(change({})).toEqual([]);
    const doubled = ['beans', 'vinegar', 'water', 'salt'].reduce((all, id) => {
      const was = waxBeans.lines.find(l => l.id === id) as Line;
      const twice = { beans: '8 lb', vinegar: '12 c', water: '8 c', salt: '2/3 c' }[id] as string;
      return all.map(l => (l.id === id ? { ...was, amount: line('x', twice).amount } : l));
    }, waxBeans.lines);
    expect(breaking({ lines: doubled })).toEqual([]);
  });

  it('less acid, more produce, more water, another fruit, a fresh herb, oil, a thickener', () => {
    expect(breaking({ lines: lines('vinegar', '5 c') })).toContain('less-acid');
    expect(breaking({ lines: lines('beans', '5 lb') })).toEqual(expect.arrayContaining(['less-acid']));
    expect(breaking({ lines: lines('water', '5 c') })).toContain('diluted');
    expect(breaking({ lines: [...waxBeans.lines, line('onion', '200 g')] })).toContain('produce-added');
    expect(breaking({ lines: [...waxBeans.lines, line('basil', '10 g')] })).toContain('fresh-herb');
    expect(breaking({ lines: [...waxBeans.lines, line('oil', '10 g')] })).toContain('oil');
    expect(breaking({ setBy: 'modified starch' })).toContain('thickening');
  });

  it('other cut, peel, pack, packing liquid, strain, purée, a larger jar', () => {
    const m = waxBeans.method;
    expect(breaking({ method: { ...m, cut: 'sliced' } })).toContain('cut');
    expect(breaking({ method: { ...m, cut: 'puréed' } })).toContain('pureed');
    expect(breaking({ method: { ...m, peel: 'peeled' } })).toContain('peel');
    expect(breaking({ method: { ...m, pack: 'hot' } })).toContain('pack');
    expect(breaking({ method: { ...m, liquid: 'water' } })).toContain('liquid');
    expect(breaking({ method: { ...m, strain: 'strained' } })).toContain('strain');
    expect(breaking({ jars: [{ size: 'quart', net: { kind: 'volume', floz: 32 } }] })).toContain(
      'larger-jar',
    );
    expect(breaking({ jars: [{ size: 'half-pint', net: { kind: 'volume', floz: 8 } }] })).toEqual([]);
  });

  it('leaves dried spices, salt in a vinegar pickle, bottled juice for vinegar and a little butter free', () => {
    expect(breaking({ lines: lines('flakes', '1 tsp') })).toEqual([]);
    expect(breaking({ lines: lines('salt', '1/4 c') })).toEqual([]);
    const juice = waxBeans.lines.map(l =>
      l.id === 'vinegar' ? { ...line('bottled-lemon', '6 c', 'vinegar'), where: 'brine' as const } : l,
    );
    expect(breaking({ lines: juice })).toEqual([]);
    const jam = changesFrom(formulaOf(plumJam), formulaOf(with_(plumJam, line('butter', '1/2 tsp'))));
    expect(jam.filter(c => c.breaks)).toEqual([]);
    // In a spread sugar sets, keeps and names it; in a ferment salt is the process.
    const sweet = plumJam.lines.map(l => (l.id === 'sugar' ? { ...l, amount: line('x', '5 c').amount } : l));
    expect(
      changesFrom(formulaOf(plumJam), formulaOf({ ...plumJam, lines: sweet })).map(c => c.code),
    ).toContain('sugar-in-spread');
    const salt = sauerkraut.lines.map(l =>
      l.id === 'salt' ? { ...l, amount: line('x', '200 g').amount } : l,
    );
    expect(
      changesFrom(formulaOf(sauerkraut), formulaOf({ ...sauerkraut, lines: salt })).map(c => c.code),
    ).toContain('salt-in-ferment');
  });

  it('never puts vinegar in the place of bottled juice', () => {
    const base: Recipe = { ...tomatoSalsa };
    const vinegar = base.lines.map(l => (l.id === 'lime' ? line('white-vinegar', '1 c', 'lime') : l));
    expect(changesFrom(formulaOf(base), formulaOf({ ...base, lines: vinegar })).map(c => c.code)).toContain(
      'vinegar-for-juice',
    );
  });

  it('closes sale and takes the time away, and says what would bring it back', () => {
    const tested = { takenOn: '2026-01-01', ...formulaOf(waxBeans) };
    const changed: Recipe = { ...waxBeans, tested, lines: lines('vinegar', '5 c') };
    expect(routeToSale({ ...waxBeans, tested }).open).toBe(true);
    expect(routeToSale(changed)).toMatchObject({ open: false });
    expect(routeToSale(changed).next).toMatch(/Put the acid back/);
    expect(processFor(changed, 'pint', 0).ok).toBe(false);
  });
});

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
      line('plum', `${fruit} g`, 'f', { group, safelyAcid: true, ...more }),
      line('sugar', `${sugar} g`, 's'),
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
    if (!meets) expect(found.instead.length).toBeGreaterThan(0);
  });

  it('asks for its soluble solids: 65 % for jam, preserves and jelly, 43 % for fruit butter', () => {
    expect(nameCheck(spread(470, 500, 'I'), {}, 65).meets).toBe(true);
    expect(nameCheck(spread(470, 500, 'I'), {}, 64.9).meets).toBe(false);
    expect(nameCheck(spread(500, 200, 'I', 'fruit butter'), {}, 43).meets).toBe(true);
    expect(nameCheck(spread(500, 200, 'I', 'fruit butter'), {}, 42.9).why).toMatch(/42.9 % soluble solids/);
  });

  it('counts sweeteners by their solids and fruit without the sugar added to it', () => {
    const honey = (g: number): Recipe => ({
      ...plumJam,
      lines: [line('plum', '470 g', 'f', { group: 'I' }), line('honey', `${g} g`, 'h', { solids_pct: 82 })],
    });
    // 550 g of solids are 670.7 g of honey of 82 %.
    expect(nameCheck(honey(670)).meets).toBe(true);
    expect(nameCheck(honey(672)).meets).toBe(false);
    // 500 g of which a tenth is added sugar: 450 of fruit, 50 of sugar already.
    expect(nameCheck(spread(500, 500, 'II', 'jam', { addedSugar_pct: 10 })).meets).toBe(true);
    expect(nameCheck(spread(500, 501, 'II', 'jam', { addedSugar_pct: 10 })).meets).toBe(false);
  });
});

describe('an own recipe', () => {
  it('lists what a process authority will ask for, ready to send', () => {
    const text = dossier(
      tomatoSalsa,
      {
        locale: 'en-US',
        zone: 'UTC',
        currency: 'USD',
        temperature: 'F',
        altitude: 'ft',
        makerName: 'Wrenfold Kitchen',
        makerAddress: 'Alder Crossing',
        altitude_m: 716.28,
      },
      [{ day: '2026-10-01', ph: 4.12, method: 'meter' }],
    );
    for (const words of [
      'Tomatoes: 3,000.0 g',
      'pint glass jar',
      'pH 4.12',
      'scheduled process',
      'a fixed amount for what is added to taste',
      'down to 3.60 L',
    ])
      expect(text).toContain(words);
    expect(review(tomatoSalsa).route.open).toBe(false);
  });
});
