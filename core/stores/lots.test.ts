import { PLAIN_FIGURES } from '../measure/index.ts';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { libraryOf } from '../ingredients/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import {
  type DrawUse,
  type Item,
  type LotFacts,
  contentsOf,
  drawFault,
  lotFaults,
  plainFacts,
  typedFacts,
  unfitFault,
  itemUseOf,
  upgradeItem,
} from './index.ts';

const item = (over: Partial<Item> = {}): Item =>
  upgradeItem({ id: 'i', kind: 'ingredient', name: 'Thing', unit: 'g', unit_g: 1, ...over });
const lotOf = (facts: Partial<LotFacts>, over: { strength_pct?: number; bestBy?: string } = {}) => ({
  label: 'L',
  strength_pct: null,
  bestBy: null,
  ...over,
  facts: plainFacts(facts),
});
const lineOf = (recipe: Recipe, id: string) => recipe.lines.find(l => l.id === id) as Line;
const drawUse = (recipe: Recipe, line: Line | null, purpose: DrawUse['purpose'] = 'sale'): DrawUse => ({
  recipe,
  line,
  purpose,
  today: '2026-05-10',
  figures: PLAIN_FIGURES,
});
const code = (lot: ReturnType<typeof lotOf>, u: DrawUse, i = item()) =>
  unfitFault(i, lot, u)?.code ?? 'serves';

describe('a lot that may not serve a use', () => {
  const salt = lineOf(waxBeans, 'salt');
  const acid = lineOf(crushedTomatoes, 'lemon');
  it.each([
    [
      'vinegar of 5 %',
      lotOf({}, { strength_pct: 5 }),
      drawUse(waxBeans, lineOf(waxBeans, 'vinegar')),
      'serves',
    ],
    [
      'vinegar of 4.9 %',
      lotOf({}, { strength_pct: 4.9 }),
      drawUse(waxBeans, lineOf(waxBeans, 'vinegar')),
      'too-weak',
    ],
    ['vinegar without a label', lotOf({}), drawUse(waxBeans, lineOf(waxBeans, 'vinegar')), 'too-weak'],
    ['bottled juice as a barrier', lotOf({ juice: 'bottled' }), drawUse(crushedTomatoes, acid), 'serves'],
    ['fresh juice as a barrier', lotOf({ juice: 'fresh' }), drawUse(crushedTomatoes, acid), 'fresh-juice'],
    [
      'fresh juice in a jam of acid fruit',
      lotOf({ juice: 'fresh' }),
      drawUse(plumJam, lineOf(plumJam, 'lemon')),
      'serves',
    ],
    [
      'sound tomatoes',
      lotOf({ condition: 'sound' }),
      drawUse(crushedTomatoes, lineOf(crushedTomatoes, 'tomatoes')),
      'serves',
    ],
    [
      'tomatoes of frost-killed vines',
      lotOf({ condition: 'from dead or frost-killed vines' }),
      drawUse(crushedTomatoes, lineOf(crushedTomatoes, 'tomatoes')),
      'unfit-produce',
    ],
    [
      'mouldy plums',
      lotOf({ condition: 'mouldy' }),
      drawUse(plumJam, lineOf(plumJam, 'plums')),
      'unfit-produce',
    ],
    ['iodised salt in a brine', lotOf({ salt: 'iodised' }), drawUse(waxBeans, salt), 'cloudy-salt'],
    [
      'salt with an anti-caking agent in a brine',
      lotOf({ salt: 'with anti-caking agent' }),
      drawUse(waxBeans, salt),
      'cloudy-salt',
    ],
    ['kosher salt in a brine', lotOf({ salt: 'kosher' }), drawUse(waxBeans, salt), 'serves'],
    [
      'iodised salt where nothing must be clear',
      lotOf({ salt: 'iodised' }),
      drawUse({ ...waxBeans, method: { ...waxBeans.method, liquid: 'none' } }, salt),
      'serves',
    ],
    [
      'frozen fruit on its last day',
      lotOf({ source: 'made here' }, { bestBy: '2026-05-10' }),
      drawUse(plumJam, lineOf(plumJam, 'plums')),
      'serves',
    ],
    [
      'frozen fruit past its limit',
      lotOf({ source: 'made here' }, { bestBy: '2026-05-09' }),
      drawUse(plumJam, lineOf(plumJam, 'plums')),
      'past-limit',
    ],
    [
      'bought sugar past its best-by',
      lotOf({}, { bestBy: '2026-05-09' }),
      drawUse(plumJam, lineOf(plumJam, 'sugar')),
      'serves',
    ],
    [
      'jars that were not released, for sale',
      lotOf({ source: 'jars', released: false }),
      drawUse(plumJam, lineOf(plumJam, 'plums')),
      'jars-not-released',
    ],
    [
      'jars that were not released, for home',
      lotOf({ source: 'jars', released: false }),
      drawUse(plumJam, lineOf(plumJam, 'plums'), 'home'),
      'serves',
    ],
    [
      'released jars, for sale',
      lotOf({ source: 'jars' }),
      drawUse(plumJam, lineOf(plumJam, 'plums')),
      'serves',
    ],
  ] as const)('%s', (_, lot, u, expected) => expect(code(lot, u)).toBe(expected));

  it('juice that does not say it is bottled is no barrier', () => {
    const juice = item({ use: 'citrus juice' });
    expect(
      [null, 'fresh', 'bottled'].map(kind =>
        code(lotOf({ juice: kind as LotFacts['juice'] }), drawUse(crushedTomatoes, acid), juice),
      ),
    ).toEqual(['fresh-juice', 'fresh-juice', 'serves']);
  });

  it('an acid line takes only the acid it names: no sugar, salt or fruit drawn as juice, no powder for vinegar', () => {
    const vinegar = lineOf(waxBeans, 'vinegar');
    const of = (name: string, line: Line, lot = lotOf({}, { strength_pct: 5 }), recipe = waxBeans) =>
      code(lot, drawUse(recipe, line), item({ name, ingredientId: null }));
    for (const name of ['Sugar', 'Canning salt', 'Plums', 'Citric acid', 'Onions', '__proto__ sugar'])
      expect(of(name, acid, lotOf({ juice: 'bottled' }), crushedTomatoes), name).toBe('wrong-acid');
    for (const name of ['Sugar', 'Citric acid', 'Bottled lemon juice'])
      expect(of(name, vinegar), name).toBe('wrong-acid');
    for (const name of ['Cider vinegar', 'White vinegar, 5 %', 'Essig'])
      expect(of(name, vinegar), name).toBe('serves');
    expect(of('Bottled lime juice', acid, lotOf({ juice: 'bottled' }), crushedTomatoes)).toBe('serves');
    expect(of('Zitronensaft', acid, lotOf({ juice: 'bottled' }), crushedTomatoes)).toBe('serves');
    expect(of('Home-made vinegar', vinegar)).toBe('wrong-acid');
    // Under the name of the acid and the entry of sugar it is sugar.
    expect(
      code(
        lotOf({ juice: 'bottled' }),
        drawUse(crushedTomatoes, acid),
        item({ name: 'Bottled lemon', ingredientId: 'sugar' }),
      ),
    ).toBe('wrong-acid');
    // For set and taste of a jam of acid fruit any acid will do, and a lemon; sugar is still none.
    const taste = lineOf(plumJam, 'lemon');
    for (const name of ['Fresh lemon juice', 'Lemons', 'Citric acid', 'House squeeze'])
      expect(of(name, taste, lotOf({}), plumJam), name).toBe('serves');
    for (const name of ['Sugar', 'Salt'])
      expect(of(name, taste, lotOf({}), plumJam), name).toBe('wrong-acid');
  });

  it('serves a line only as an ingredient, and none as a jar, band or gas', () => {
    expect(code(lotOf({}), drawUse(plumJam, null))).toBe('wrong-use');
    for (const kind of ['jar', 'band', 'label', 'packaging'] as const) {
      expect(code(lotOf({}), drawUse(plumJam, lineOf(plumJam, 'plums')), item({ kind, unit: 'each' }))).toBe(
        'wrong-use',
      );
      expect(code(lotOf({}), drawUse(plumJam, null), item({ kind, unit: 'each' }))).toBe('serves');
    }
    expect(code(lotOf({}), drawUse(plumJam, null), item({ kind: 'tool', unit: 'each' }))).toBe('wrong-use');
  });

  it('every refusal says what, why and what next', () => {
    const faults = [
      unfitFault(item(), lotOf({ juice: 'fresh' }), drawUse(crushedTomatoes, acid)),
      unfitFault(item(), lotOf({ salt: 'iodised' }), drawUse(waxBeans, salt)),
      drawFault(item(), lotOf({}), drawUse(plumJam, lineOf(plumJam, 'plums')), '6', '5'),
      drawFault(
        item({ unit: 'each', unit_g: 4 }),
        lotOf({}),
        drawUse(plumJam, lineOf(plumJam, 'plums')),
        '1.5',
        '5',
      ),
      drawFault(item(), lotOf({}), drawUse(plumJam, lineOf(plumJam, 'plums')), '0', '5'),
    ];
    expect(faults.map(f => f?.code)).toEqual([
      'fresh-juice',
      'cloudy-salt',
      'more-than-lot',
      'not-whole',
      'not-positive',
    ]);
    for (const f of faults)
      for (const words of [f?.what, f?.why, f?.next]) expect(words).toMatch(/^[A-Z].*\.$/);
  });
});

describe('what a lot must say', () => {
  const faults = (use_: Item['use'], facts: Partial<LotFacts>, receivedOn = '2026-05-01') =>
    lotFaults(item({ use: use_ }), { ...lotOf(facts), receivedOn }, '2026-05-10').map(
      f => `${f.path} ${f.code}`,
    );
  it('follows from what its item is', () => {
    expect(faults('salt', {})).toEqual(['salt kind-missing']);
    expect(faults('citrus juice', {})).toEqual(['juice kind-missing']);
    expect(faults('produce', {})).toEqual(['condition condition-missing']);
    expect(faults('other', {})).toEqual([]);
    expect(faults('produce', { condition: 'ripe', pickedOn: '2026-05-02' })).toEqual([
      'pickedOn picked-late',
    ]);
    expect(faults('other', { source: 'jars' })).toEqual(['source source-made']);
    expect(faults('other', {}, '2026-05-11')).toEqual(['receivedOn future-day']);
  });
  it('is never told where it came from inside the kitchen, or that its jars were released', () => {
    const typed = typedFacts(
      plainFacts({
        released: false,
        ph: 3,
        from: [{ kind: 'jars', batchId: 'b', lotCode: '', name: '', jars: [1] }],
        salt: 'sea',
      }),
      'gift',
    );
    expect(typed).toEqual(plainFacts({ source: 'gift', salt: 'sea' }));
  });
  it('brings the package’s own contents, and the allergens of both', () => {
    const mustard = item({ subIngredients: 'seed, vinegar', allergens: ['mustard'] });
    expect(contentsOf(mustard, plainFacts())).toEqual({
      subIngredients: 'seed, vinegar',
      allergens: ['mustard'],
    });
    expect(contentsOf(mustard, plainFacts({ subIngredients: 'seed, wheat', allergens: ['wheat'] }))).toEqual({
      subIngredients: 'seed, wheat',
      allergens: ['mustard', 'wheat'],
    });
  });
  it('old items are read with what they did not say yet', () => {
    expect(
      upgradeItem({ id: 'i', kind: 'ingredient', name: 'Cider vinegar', unit: 'mL', unit_g: 1.01 }),
    ).toMatchObject({ use: 'vinegar', density_gPerMl: 1.01, version: 1, packages: [] });
    expect(upgradeItem({ id: 'i', kind: 'jar', name: 'Jar', unit: 'each' }).use).toBe('other');
  });
});

it('what a lot must say follows from what the library knows of its item', () => {
  const uses = Object.fromEntries(
    ['plum', 'bottled-lemon', 'white-vinegar', 'sugar', 'canning-salt', 'yellow-onion', 'onion'].flatMap(
      id => {
        const known = libraryOf([]).find(i => i.id === id);
        return known ? [[id, itemUseOf(known)]] : [];
      },
    ),
  );
  expect(uses).toMatchObject({
    plum: 'produce',
    'bottled-lemon': 'citrus juice',
    'white-vinegar': 'vinegar',
    sugar: 'other',
  });
  for (const salt of libraryOf([]).filter(i => i.role === 'salt')) expect(itemUseOf(salt)).toBe('salt');
  // Every vinegar of the library asks for its strength, every poured citrus juice whether it is bottled.
  for (const i of libraryOf([]).filter(x => /vinegar/i.test(x.name) && x.role === 'acid'))
    expect([i.id, itemUseOf(i)]).toEqual([i.id, 'vinegar']);
  for (const i of libraryOf([]).filter(x => /(lemon|lime) juice/i.test(x.name)))
    expect([i.id, itemUseOf(i)]).toEqual([i.id, 'citrus juice']);
});
