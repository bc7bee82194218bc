import {
  crushedTomatoes,
  plumJam,
  sauerkraut,
  strawberryJam,
  tomatoSalsa,
  waxBeans,
} from '../../demo/recipes.ts';
import { lineOf, withLines } from '../../testing/recipe-lines.ts';
import { libraryOf } from '../ingredients/index.ts';
import { type Line, noTerms, type Recipe, recipeFaults } from '../recipes/index.ts';
import { acidBalance } from './acid-balance.ts';
import { formulaChanges, routeToSale } from './authority.ts';
import { REFUSALS } from './data/refusals.ts';
import { processFor } from './process-for.ts';
import { classOf, reviewFaults } from './rules.ts';

import { describe, expect, it } from 'vitest';

const codes = (recipe: Recipe, level = 'refused') =>
  reviewFaults(recipe)
    .filter(f => f.level === level)
    .map(f => f.code);

describe('what is refused (common practice of the trade)', () => {
  it.each([
    ['bacon', 'animal'],
    ['egg yolks', 'animal'],
    ['heavy cream', 'animal'],
    ['peanut butter', 'nut-spread'],
    ['cocoa powder', 'chocolate'],
    ['espresso', 'drink'],
    ['black beans, cooked', 'starchy'],
    ['olive oil', 'oil'],
    ['pickling lime', 'lime'],
    ['alum', 'alum'],
    ['cornstarch', 'thickener'],
    ['tapioca', 'thickener'],
    ['venison', 'animal'],
    ['duck fat', 'animal'],
    ['fish sauce', 'animal'],
    ['oysters', 'animal'],
    ['mayonnaise', 'animal'],
    ['gelatin', 'animal'],
    ['tahini', 'nut-spread'],
    ['almond paste', 'nut-spread'],
    ['chopped walnuts', 'nut'],
    ['caramel', 'chocolate'],
    ['earl grey', 'drink'],
    ['cooked rice', 'starchy'],
    ['potatoes', 'starchy'],
    ['sesame oil', 'oil'],
    ['calcium hydroxide', 'lime'],
    ['xanthan gum', 'thickener'],
    ['chia seeds', 'thickener'],
    ['instant modified starch', 'thickener'],
    ['plain flour', 'thickener'],
  ])('%s', (name, code) => {
    const recipe = withLines(plumJam, lineOf(name, '100 g'));
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
    'almond extract',
    'egg plums',
    'crab apples',
    'gooseberries',
    'oyster mushrooms',
    'brown rice syrup',
    'barley malt vinegar',
    'pumpkin pie spice',
    'hamburg parsley',
    'teasel',
    'boiling water',
  ])('but not %s', name =>
    expect(codes(withLines(waxBeans, lineOf(name, '10 g', name, { role: 'spice' })))).toEqual([]),
  );

  it('pumpkin, squash, banana and melon butters', () => {
    for (const name of ['Pumpkin purée', 'Butternut squash', 'Bananas', 'Cantaloupe'])
      expect(codes(withLines({ ...plumJam, product: 'fruit butter' }, lineOf(name, '500 g')))).toContain(
        'low-acid-butter',
      );
    // Pickled, with its acid, squash is another thing.
    expect(
      codes(withLines(waxBeans, lineOf('Yellow squash', '500 g', 'squash', { role: 'low-acid produce' }))),
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
        terms: { ...noTerms(), closure: 'lug' },
        process: {
          kind: 'hot-fill-hold',
          temp_C: 88,
          hold_min: 3,
          headspace_mm: 6,
          jarSizes: ['half-pint'],
        },
      },
    };
    expect(codes(hotFill)).toEqual([]);
  });

  it('lime and alum also where the food is only dipped or soaked in them', () => {
    for (const where of ['dip', 'soak'] as const) {
      expect(codes(withLines(waxBeans, lineOf('pickling lime', '100 g', 'l', { where })))).toContain('lime');
      expect(codes(withLines(waxBeans, lineOf('alum', '5 g', 'a', { where })))).toContain('alum');
    }
    expect(codes(withLines(waxBeans, lineOf('egg', '1', 'e', { where: 'dip' })))).toEqual([]);
  });

  it('nuts, but for a tested recipe or a letter that has them; nut spreads always', () => {
    const nuts = lineOf('Chopped pecans', '100 g');
    expect(codes(withLines(plumJam, nuts))).toEqual(['nut']);
    expect(codes(withLines(waxBeans, nuts))).toEqual([]);
    expect(codes(withLines(waxBeans, lineOf('Pecan butter', '100 g')))).toEqual(['nut-spread']);
  });

  it('a pumpkin, squash or melon only where it is a butter, a purée or a spread', () => {
    for (const product of ['fruit butter', 'purée', 'jam', 'preserves', 'fruit spread'] as const)
      expect(codes({ ...withLines(plumJam, lineOf('Pumpkin', '500 g')), product })).toContain(
        'low-acid-butter',
      );
    for (const name of ['Watermelon rind', 'Bitter melon', 'Pumpkin pie spice', 'Melon seeds'])
      expect(codes(withLines(plumJam, lineOf(name, '5 g', 'x', { role: 'spice' })))).toEqual([]);
  });

  it('every rule says what, why and what next, and reads any case', () => {
    for (const rule of REFUSALS) {
      expect(rule.what && rule.why && rule.next).toBeTruthy();
      expect(rule.pattern.flags).not.toContain('g');
    }
    expect(codes(withLines(plumJam, lineOf('SMOKED BACON', '100 g')))).toEqual(['animal']);
  });

  it('the library agrees with the rules: what it marks as refused is refused by its name', () => {
    for (const i of libraryOf([]).filter(x => x.refused !== null)) {
      const found = [plumJam, waxBeans].flatMap(r =>
        reviewFaults(withLines(r, lineOf(i.id, '100 g', 'x'))).filter(f => f.level !== 'note'),
      );
      expect([i.name, found.map(f => f.code)]).toEqual([i.name, expect.arrayContaining([i.refused])]);
    }
  });

  it('oil and cooked beans, but for the tested products that hold them, unchanged', () => {
    const marinated: Recipe = {
      ...waxBeans,
      authority: {
        ...(crushedTomatoes.authority as Extract<Recipe['authority'], { grade: 'tested publication' }>),
        time: { kind: 'entry', entryId: 'marinated-peppers' },
      },
    };
    expect(codes(withLines(marinated, lineOf('olive oil', '100 g')))).toEqual([]);
    expect(codes(withLines(waxBeans, lineOf('olive oil', '100 g')))).toContain('oil');
  });

  it('butter over half a teaspoon, low-acid food without acid, fermentation alone', () => {
    expect(codes(strawberryJam)).toEqual([]);
    expect(codes(withLines(plumJam, lineOf('butter', '1 tsp')))).toContain('butter');
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
    const starch = lineOf('Modified starch, cook type', '100 g', 'starch', { role: 'set' });
    expect(codes(withLines(plumJam, starch))).toContain('starch');
    expect(codes(withLines({ ...crushedTomatoes, product: 'pie filling' }, starch))).toEqual([]);
  });
});

describe('what has to be mended before sale', () => {
  it('weak, unlabelled and home-made vinegar; fresh juice as the barrier', () => {
    const vinegar = (over: Partial<Line>): Recipe => ({
      ...waxBeans,
      lines: waxBeans.lines.map(l => (l.id === 'vinegar' ? { ...l, ...over } : l)),
    });
    expect(codes(vinegar({ minStrength_pct: 4 }), 'mend')).toContain('weak-vinegar');
    expect(codes(vinegar({ minStrength_pct: 4.99 }), 'mend')).toContain('weak-vinegar');
    expect(codes(vinegar({ minStrength_pct: 5 }), 'mend')).toEqual([]);
    expect(codes(vinegar({ name: 'Home-made vinegar', ingredientId: null }), 'mend')).toContain(
      'unlabelled-vinegar',
    );
    const lemons = vinegar({ name: 'Fresh lemon juice', ingredientId: 'fresh-lemon', minStrength_pct: null });
    expect(codes(lemons, 'mend')).toContain('fresh-juice');
    expect(routeToSale(vinegar({ minStrength_pct: 4 })).open).toBe(false);
  });

  it('the dose in each jar of plain tomatoes: too little, enough, and by another acid', () => {
    const lost = (recipe: Recipe) => formulaChanges(recipe).map(c => c.code);
    const dose = (text: string, over: Partial<Line> = {}): Recipe => ({
      ...crushedTomatoes,
      lines: [
        crushedTomatoes.lines[0] as Line,
        { ...(crushedTomatoes.lines[1] as Line), amount: (lineOf('x', text) as Line).amount, ...over },
      ],
    });
    expect(lost(dose('1 Tbsp'))).toEqual([]);
    expect(lost(dose('2 tsp'))).toContain('less-acid');
    // By weight: a tablespoon of juice is 15.25 g.
    expect(lost(dose('15.3 g'))).toEqual([]);
    expect(lost(dose('15 g'))).toContain('less-acid');
    expect(lost(dose('1-2 Tbsp'))).toEqual([]);
    expect(lost(dose('0.5-2 Tbsp'))).toContain('less-acid');
    expect(lost(dose('1'))).toContain('less-acid');
    const citric = { name: 'Citric acid', ingredientId: 'citric-acid' };
    expect(lost(dose('1/4 tsp', citric))).toEqual([]);
    expect(lost(dose('1/8 tsp', citric))).toContain('less-acid');
    const vinegar = { name: 'White vinegar, 5 %', ingredientId: 'white-vinegar', minStrength_pct: 5 };
    expect(lost(dose('1.15 g', { ...citric, density_gPerMl: 0.93 }))).toEqual([]);
    expect(lost(dose('1 g', citric))).toContain('less-acid');
    const orange = { name: 'Bottled orange juice', ingredientId: null };
    expect(lost(dose('3 Tbsp', orange))).toContain('less-acid');
    expect(lost(dose('2 Tbsp', vinegar))).toEqual([]);
    // In the pot it is not in each jar.
    expect(lost(dose('1 c', { where: 'pot' }))).toContain('less-acid');
    expect(lost(dose('1 Tbsp', vinegar))).toContain('less-acid');
    expect(lost({ ...crushedTomatoes, lines: [crushedTomatoes.lines[0] as Line] })).toContain('less-acid');
  });

  it('two acids in one line are settled before it can be kept; the headspace of a step is held beside the entry', () => {
    const named = (name: string) =>
      recipeFaults({
        ...crushedTomatoes,
        lines: [crushedTomatoes.lines[0] as Line, { ...(crushedTomatoes.lines[1] as Line), name }],
      }).map(f => f.code);
    for (const name of [
      'Citric acid or bottled lemon juice',
      'bottled or fresh lemon juice',
      'vinegar / lemon juice',
    ])
      expect(named(name), name).toContain('two-acids');
    for (const name of [
      'Bottled lemon juice',
      'Lemon juice',
      'Bottled lemon or lime juice',
      'White vinegar, 5 %',
    ])
      expect(named(name), name).not.toContain('two-acids');
    const fill = (text: string): Recipe => ({
      ...crushedTomatoes,
      steps: crushedTomatoes.steps.map(s => (s.kind === 'fill' ? { ...s, text } : s)),
    });
    const noted = (text: string) =>
      reviewFaults(fill(text)).find(f => f.code === 'headspace-in-step')?.what ?? '';
    for (const text of [
      'Fill to 1/2 inch',
      'Fill to 1/2-inch, wipe',
      'Leave 0.5 in of headspace',
      'Fill the jars',
      'Leave 1 / 2"',
    ])
      expect(noted(text), text).toBe('');
    expect(noted('Fill to 1/4 inch')).toBe('"Fill to 1/4 inch": 1/4 inch, where the entry has 1/2.');
    expect(noted('Leave 1 1/4 inches')).toMatch(/: 1 1\/4 inch, where/);
    expect(noted('Leave 1/0 inch')).toBe('');
  });

  it('an own syrup of safely acid fruit borrows the family time on proven solids, one of figs does not', () => {
    const syrup = {
      ...plumJam,
      product: 'syrup',
      setBy: 'not set',
      authority: { grade: 'own', entryId: 'berry-syrup' },
    } as Recipe;
    expect(routeToSale(syrup)).toMatchObject({
      open: true,
      what: 'Own recipe for a syrup of safely acid fruit.',
    });
    expect(processFor(syrup, 'half-pint', 0)).toMatchObject({ ok: true, time: { minutes: 10 } });
    expect(routeToSale(withLines(syrup, lineOf('fig', '1 lb'))).open).toBe(false);
    expect(routeToSale({ ...syrup, product: 'juice' }).open).toBe(false);
  });

  it('what a letter names is allowed, what it says is not in it is refused, and so is all else', () => {
    const letter = waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>;
    const sauce = (limits: string, ...names: string[]): string[] =>
      reviewFaults({
        ...waxBeans,
        authority: { ...letter, demo: false, limits },
        lines: [...waxBeans.lines, ...names.map(n => lineOf(n, '5 g', n, { role: 'set' }))],
      })
        .filter(f => f.level === 'refused')
        .map(f => f.code);
    expect(sauce('Hot sauce with xanthan gum to 0.3 %.', 'Xanthan gum')).toEqual([]);
    expect(sauce('Hot sauce.', 'Xanthan gum')).toEqual(['thickener']);
    for (const limits of [
      'No xanthan gum.',
      'Without any thickener such as xanthan.',
      'Guar, never xanthan',
      '',
    ])
      expect(sauce(limits, 'Xanthan gum'), limits).toEqual(['thickener']);
    expect(sauce('Xanthan gum to 0.3 %.', 'Guar')).toEqual(['thickener']);
    expect(sauce('Olive oil, 1 part in 20, as marinated.', 'Olive oil')).toEqual([]);
    expect(sauce('Olive oil.', 'Cream')).toEqual(['animal']);
    expect(sauce('.* [a-z]', 'Xanthan gum')).toEqual(['thickener']);
    // A tested publication names by what it covers, never by words.
    expect(
      reviewFaults({
        ...crushedTomatoes,
        lines: [...crushedTomatoes.lines, lineOf('Xanthan gum', '5 g')],
      }).map(f => f.code),
    ).toContain('thickener');
  });

  it('says what may stand in for an acid', () => {
    const said = (recipe: Recipe) => reviewFaults(recipe).find(f => f.code === 'acid-equivalent')?.what;
    expect(said(waxBeans)).toMatch(
      /bottled lemon or lime juice may take its place, volume for volume; never the other way/,
    );
    expect(said(crushedTomatoes)).toMatch(
      /the entry takes in each pint 1 Tbsp of bottled lemon juice, 1\/4 tsp of citric acid or 2 Tbsp of 5 % vinegar/,
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
      lines: [sauerkraut.lines[0] as Line, lineOf('canning-salt', salt, 'salt')],
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
    expect(classOf(withLines(plumJam, lineOf('jalapeno', '50 g')))).toBe('acidified food');
    // Fruit that is not safely acid.
    expect(
      classOf({
        ...plumJam,
        lines: plumJam.lines.map(l => (l.id === 'plums' ? { ...l, safelyAcid: false } : l)),
      }),
    ).toBe('acidified food');
  });

  it('is not talked out of what the library knows: an onion called a spice, a fig called safely acid', () => {
    const onion = withLines(plumJam, lineOf('onion', '200 g', 'o', { role: 'spice' }));
    expect(classOf(onion)).toBe('acidified food');
    expect(codes(onion, 'note')).toContain('low-acid-by-library');
    const fig = withLines(plumJam, lineOf('fig', '200 g', 'f', { safelyAcid: true }));
    expect(classOf(fig)).toBe('acidified food');
    expect(acidBalance(fig).lowAcidShare).toBeCloseTo(200 / 2241.2, 3);
    // Under a name of the kitchen's own, without the library's entry.
    for (const [name, role] of [
      ['Finely chopped onions', 'spice'],
      ['Sweet red peppers', 'other'],
      ['Tomato', 'water'],
      ['White peaches', 'sweetener'],
    ] as const)
      expect([
        name,
        classOf(withLines(plumJam, lineOf(name, '100 g', 'x', { role, ingredientId: null }))),
      ]).toEqual([name, 'acidified food']);
    for (const name of ['Celery seed', 'Garlic powder', 'Fig vinegar', 'Tomatillo-coloured sugar'])
      expect([
        name,
        classOf(withLines(plumJam, lineOf(name, '5 g', 'x', { role: 'spice', ingredientId: null }))),
      ]).toEqual([name, 'fruit spread']);
  });

  it('counts dried produce as the fresh it came from', () => {
    const fresh = acidBalance(withLines(plumJam, lineOf('garlic', '100 g', 'g'))).lowAcidShare;
    const dried = acidBalance(
      withLines(plumJam, lineOf('x', '20 g', 'g', { role: 'low-acid produce', freshFactor: 5 })),
    ).lowAcidShare;
    expect(dried).toBeCloseTo(fresh, 3);
    expect(acidBalance(plumJam).lowAcidShare).toBe(0);
  });
});
