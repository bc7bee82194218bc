import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { Decimal, byName } from '../measure/index.ts';
import { factorForJars, scaleRecipe } from '../recipes/index.ts';
import { plainCosts } from '../kitchen/index.ts';
import {
  type Item,
  type PlanFigures,
  type ShelfItem,
  buyOrLeave,
  inPackages,
  needsOf,
  plainFacts,
  reservedOf,
  serves,
  shoppingList,
  upgradeItem,
} from './index.ts';

const shelfItem = (
  over: Partial<Item> & Pick<Item, 'id' | 'name'>,
  onHand = '0',
  unitCost = '0.002',
): ShelfItem => ({
  item: upgradeItem({
    kind: 'ingredient',
    unit: 'g',
    unit_g: 1,
    labelName: over.name.toLowerCase(),
    ...over,
  }),
  lots:
    onHand === '0'
      ? []
      : [
          {
            id: `${over.id} lot`,
            itemId: over.id,
            label: over.id,
            supplier: 'S',
            receivedOn: '2026-05-01',
            bestBy: null,
            unitCost,
            onHand,
            strength_pct: null,
            openedOn: null,
            receiptId: null,
            facts: plainFacts(),
          },
        ],
  lastCost: unitCost,
  average: null,
  reserved: '0',
});

describe('packages', () => {
  it('hold what is missing with the least over, then the fewest', () => {
    const packs = [
      { name: 'sack', quantity: '11339' },
      { name: 'bag', quantity: '4536' },
    ];
    const in_ = (g: number) => inPackages(new Decimal(g), packs).packages.map(p => `${p.count} ${p.name}`);
    expect(in_(4000)).toEqual(['1 bag']);
    expect(in_(9000)).toEqual(['2 bag']);
    expect(in_(11_000)).toEqual(['1 sack']);
    expect(in_(15_000)).toEqual(['1 sack', '1 bag']);
    expect(inPackages(new Decimal(7), [])).toEqual({ packages: [], buy: new Decimal(7) });
  });

  it('are never fewer than needed, and no better mix of two sizes exists', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 1, max: 60 }),
        (missing, a, b) => {
          const packs = [
            { name: 'a', quantity: String(a) },
            { name: 'b', quantity: String(b) },
          ];
          const { buy } = inPackages(new Decimal(missing), packs);
          let best = Infinity;
          for (let x = 0; x * a <= missing + a; x++)
            for (let y = 0; y * b <= missing + b; y++)
              if (x * a + y * b >= missing) best = Math.min(best, x * a + y * b);
          expect(buy.gte(missing)).toBe(true);
          // Up to forty small ones are tried in place of large ones; within that nothing is better.
          if (Math.max(a, b) <= 40 * Math.min(a, b)) expect(buy.toNumber()).toBe(best);
        },
      ),
    );
  });
});

describe('the shopping list', () => {
  const shelf = [
    shelfItem({ id: 'plums', name: 'Red plums', ingredientId: 'plum' }, '1000', '0.003'),
    shelfItem(
      { id: 'sugar', name: 'Sugar', packages: [{ name: 'bag', quantity: '4536' }], leadTime_days: 2 },
      '500',
    ),
    shelfItem({ id: 'lids', name: 'Lids', kind: 'lid', unit: 'each', unit_g: null }, '100', '0.2'),
    shelfItem(
      { id: 'jars', name: 'Jars', kind: 'jar', unit: 'each', unit_g: null, jarSize: 'half-pint' },
      '5',
      '0.9',
    ),
  ];
  const jars = [{ size: 'half-pint' as const, count: 8 }];
  const plan = (id: string, day: string) => ({
    id,
    day,
    recipeId: 'jam',
    name: plumJam.name,
    factor: '1',
    jars,
  });
  const list = shoppingList(
    [plan('p2', '2026-06-20'), plan('p1', '2026-06-10')],
    new Map([['jam', plumJam]]),
    shelf,
  );
  const of = (name: string) => list.find(l => l.name === name);

  it('adds up every plan as bought, with trim loss, less stock', () => {
    const scaled = scaleRecipe(plumJam, factorForJars(plumJam, jars), jars);
    const asBought = scaled.lines.find(l => l.lineId === 'plums')?.asBought_g ?? 0;
    const prepared = scaled.lines.find(l => l.lineId === 'plums')?.mass_g ?? 0;
    expect(asBought).toBeGreaterThan(prepared);
    expect(Number(of('Red plums')?.needed)).toBeCloseTo(2 * asBought, 1);
    expect(Number(of('Red plums')?.missing)).toBeCloseTo(2 * asBought - 1000, 1);
  });

  it('serves the first plan from the shelf first, and counts back the days until it is here', () => {
    // 5 jars are there: already the first plan lacks some.
    expect(of('Jars')).toMatchObject({ needed: '16', missing: '11', orderBy: '2026-06-10', cost: '9.90' });
    expect(of('Sugar')).toMatchObject({ packages: [{ name: 'bag', count: 1 }], orderBy: '2026-06-08' });
    expect(of('Lids')).toMatchObject({ missing: '0', orderBy: null });
    expect(of('Red plums')?.uses.map(u => u.planId)).toEqual(['p1', 'p2']);
    expect(reservedOf(list).get('lids')).toBe('16');
  });

  it('names what no item stands for', () => {
    expect(of('Bottled lemon juice')).toMatchObject({ itemId: null, unit: 'g', cost: null });
  });
});

describe('what serves a line', () => {
  it('is told by the library, then by name, then by what the label calls it', () => {
    const line = { ingredientId: 'plum', name: 'Red plums', labelName: 'plums', role: 'fruit' as const };
    const yes = (over: Partial<Item>) =>
      serves(shelfItem({ id: 'x', name: 'x', labelName: '', ...over }).item, line);
    expect([
      yes({ ingredientId: 'plum' }),
      yes({ name: 'red plums' }),
      yes({ labelName: 'Plums' }),
      yes({}),
      yes({ kind: 'jar', name: 'Red plums' }),
    ]).toEqual([true, true, true, false, false]);
    // Bottled and fresh juice bear one name on the label: an acid is known by its entry or its whole name alone.
    const lemon = {
      ingredientId: 'bottled-lemon',
      name: 'Bottled lemon juice',
      labelName: 'lemon juice',
      role: 'acid' as const,
    };
    const fresh = shelfItem({ id: 'f', name: 'Fresh lemon juice', labelName: 'lemon juice' }).item;
    expect([
      serves(fresh, lemon),
      serves({ ...fresh, name: 'bottled lemon juice' }, lemon),
      serves({ ...fresh, ingredientId: 'bottled-lemon' }, lemon),
    ]).toEqual([false, true, true]);
    const shelf = [
      shelfItem({ id: 'frozen', name: 'Frozen', labelName: 'plums' }, '10'),
      shelfItem({ id: 'fresh', name: 'Plums', ingredientId: 'plum' }),
    ];
    const needs = needsOf(waxBeans.lines, new Map(), [], shelf);
    expect(needs.every(n => n.shelf === undefined)).toBe(true);
    expect(needsOf(plumJam.lines, new Map(), [], shelf).find(n => n.key === 'plums')?.shelf?.item.id).toBe(
      'fresh',
    );
  });
});

describe('buy or leave', () => {
  const jars = [{ size: 'half-pint' as const, count: 80 }];
  const figures: PlanFigures = {
    recipe: plumJam,
    scaled: scaleRecipe(plumJam, factorForJars(plumJam, jars), jars),
    jars,
    shelf: [shelfItem({ id: 'sugar', name: 'Sugar' }, '90000', '0.002')],
    settings: plainCosts,
    locale: 'en-US',
    currency: 'USD',
    hourlyRate: '18',
    minutes: 300,
    kitchenMinutes: 0,
    burnerMinutes: 0,
    burnerId: '',
    yieldShare: 1,
    nets_g: new Map(),
    priceFactor: byName(),
  };
  const ask = (paid: number, price = 6) =>
    buyOrLeave(
      figures,
      'plums',
      { paid: new Decimal(paid), quantity: new Decimal(50), price: new Decimal(price), margin_pct: 50 },
      [
        { what: 'lids', jars: 200 },
        { what: 'jars', jars: 20 },
      ],
    );
  it('says what a jar would cost, the most to pay, and what runs out first', () => {
    const at = ask(60);
    const other = new Decimal(at.perJar).times(80).minus(60);
    // 80 jars at 6.00, half of it for the cost.
    expect(new Decimal(at.mostForAll ?? 0).toFixed(6)).toBe(new Decimal(240).minus(other).toFixed(6));
    expect(new Decimal(at.mostPerUnit ?? 0).times(50).toFixed(6)).toBe(
      new Decimal(at.mostForAll ?? 0).toFixed(6),
    );
    expect(at).toMatchObject({ buy: true, jars: 80, share: 0.25 });
    expect(at.tightest?.what).toBe('jars');
  });
  it('paid the most, the margin is what was wanted; a cent more is too much', () => {
    const most = Number(ask(0).mostForAll);
    expect(ask(most).margin_pct).toBeCloseTo(50, 9);
    expect([ask(most - 0.01).buy, ask(most + 0.01).buy]).toEqual([true, false]);
    expect(ask(10, 1).mostForAll).toBeNull();
  });
});
