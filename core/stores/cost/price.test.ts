import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../../demo/recipes.ts';
import { plainCosts } from '../../kitchen/index.ts';
import { Decimal, byName } from '../../measure/index.ts';
import { factorForJars, scaleRecipe } from '../../recipes/index.ts';
import {
  type CostLine,
  type PlanFigures,
  breakEvenJars,
  compareCosts,
  costLine,
  costPerJar,
  costSheet,
  leftOf,
  mostToPay,
  plainFacts,
  plannedInput,
  priceByMargin,
  priceByMarkup,
  upgradeItem,
  whatIf,
} from '../index.ts';

describe('price', () => {
  it('by markup on the cost, by margin of the price', () => {
    expect(priceByMarkup('4.00', 150).toFixed(2)).toBe('10.00');
    expect(priceByMargin('4.00', 60).toFixed(2)).toBe('10.00');
    expect(() => priceByMargin('4', 100)).toThrow(RangeError);
  });
  it('keeps the margin it was reckoned with, to the cent', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999 }), fc.integer({ min: 0, max: 99 }), (cents, margin) => {
        const cost = new Decimal(cents).div(100);
        const price = priceByMargin(cost, margin);
        expect(leftOf(price, cost).margin_pct).toBeGreaterThanOrEqual(margin - 1e-9);
        expect(leftOf(price.minus('0.01'), cost).margin_pct ?? -1).toBeLessThan(margin + 1e-9);
      }),
    );
  });
  it('back from a market price to what is left', () => {
    expect(leftOf('9.00', '6.30')).toMatchObject({ margin_pct: 30 });
    expect(leftOf('9.00', '6.30').left.toFixed(2)).toBe('2.70');
    expect(leftOf('0', '6').margin_pct).toBeNull();
    expect(leftOf('5', '6').left.isNegative()).toBe(true);
  });
  it('breaks even at the jars that earn the fee', () => {
    expect(breakEvenJars('28.00', '9.00', '6.00')).toBe(10);
    expect(breakEvenJars('27.00', '9.00', '6.00')).toBe(9);
    expect(breakEvenJars('0', '9.00', '10.00')).toBe(0);
    expect(breakEvenJars('28.00', '6.00', '6.00')).toBeNull();
    expect(mostToPay('10', 50, '100', 10, '5')).toBeNull();
    expect(mostToPay('10', 50, '20', 10, '5')?.toFixed()).toBe('6');
  });
});

const lot = (id: string, onHand: string, unitCost: string) => ({
  id,
  itemId: id,
  label: id,
  supplier: 'S',
  receivedOn: '2026-05-01',
  bestBy: null,
  unitCost,
  onHand,
  strength_pct: null,
  openedOn: null,
  receiptId: null,
  facts: plainFacts(),
});
const shelfOf = (id: string, name: string, onHand: string, unitCost: string, over: object = {}) => ({
  item: upgradeItem({
    id,
    kind: 'ingredient',
    name,
    unit: 'g',
    unit_g: 1,
    labelName: name.toLowerCase(),
    ...over,
  }),
  lots: onHand === '0' ? [] : [lot(id, onHand, unitCost)],
  lastCost: unitCost,
  average: null,
  reserved: '0',
});
const figures = (count = 8, over: Partial<PlanFigures> = {}): PlanFigures => {
  const jars = [{ size: 'half-pint' as const, count }];
  return {
    recipe: plumJam,
    scaled: scaleRecipe(plumJam, factorForJars(plumJam, jars), jars),
    jars,
    shelf: [
      shelfOf('plums', 'Red plums', '100000', '0.003', { ingredientId: 'plum' }),
      shelfOf('sugar', 'Sugar', '500', '0.002', { ingredientId: 'sugar' }),
      shelfOf('jars', 'Jars', '100', '0.9', {
        kind: 'jar',
        unit: 'each',
        unit_g: null,
        jarSize: 'half-pint',
      }),
      shelfOf('lids', 'Lids', '100', '0.2', { kind: 'lid', unit: 'each', unit_g: null }),
    ],
    settings: plainCosts,
    locale: 'en-US',
    currency: 'USD',
    hourlyRate: '18',
    minutes: 100,
    kitchenMinutes: 20,
    burnerMinutes: 60,
    burnerId: '',
    yieldShare: 1,
    nets_g: new Map(),
    priceFactor: byName(),
    ...over,
  };
};

describe('planned cost', () => {
  it('pays for what is trimmed away, prices what is lacking at the last price, and names what has none', () => {
    const input = plannedInput(figures());
    const line = (key: string) => input.lines.find(l => l.key === key);
    const asBought = figures().scaled.lines.find(l => l.lineId === 'plums')?.asBought_g ?? 0;
    expect(Number(line('plums')?.cost)).toBeCloseTo(asBought * 0.003, 6);
    expect(line('sugar')?.detail).toContain('more is needed than there is');
    expect(line('jars')?.cost).toBe('7.2');
    expect(input.unpriced).toEqual(['Bottled lemon juice']);
  });
  it('draws gas by weight and electricity by power', () => {
    const burners = [
      { id: 'hob', name: 'Hob', kind: 'electric' as const, power_W: 2000 },
      { id: 'yard', name: 'Yard', kind: 'gas' as const, use_gPerHour: 400, itemId: null },
    ];
    const settings = { ...plainCosts, burners, electricity: '0.25' };
    const energy = (burnerId: string, shelf = figures().shelf) =>
      costSheet(plannedInput(figures(8, { settings, burnerId, shelf }))).parts.find(p => p.part === 'energy')
        ?.amount;
    expect(energy('hob')).toBe('0.50');
    expect(energy('yard')).toBe('0.00');
    expect(
      energy('yard', [...figures().shelf, shelfOf('gas', 'Gas', '9000', '0.0025', { kind: 'fuel' })]),
    ).toBe('1.00');
  });
  it('values by the average where the kitchen reckons so', () => {
    const plums = { ...shelfOf('plums', 'Red plums', '1000', '0.001', { ingredientId: 'plum' }) };
    plums.lots.push({ ...lot('dear', '99000', '0.005'), receivedOn: '2026-05-02' });
    const cost = (method: 'first in, first out' | 'weighted average') =>
      Number(
        plannedInput(figures(8, { shelf: [plums], settings: { ...plainCosts, method } })).lines[0]?.cost,
      );
    const asBought = figures().scaled.lines.find(l => l.lineId === 'plums')?.asBought_g ?? 0;
    expect(cost('first in, first out')).toBeCloseTo(1 + (asBought - 1000) * 0.005, 4);
    expect(cost('weighted average')).toBeCloseTo(asBought * 0.00496, 4);
  });
});

describe('what if', () => {
  it('turns one thing at a time, the widest first, and each by as much as it is of the cost', () => {
    const base = figures();
    const { cost, swings } = whatIf(base, { fruit_pct: 30, yield_pct: 10, minutes_pct: 25, sugar_pct: 30 }, [
      { id: 'load', title: 'One more load', words: '16 half-pints', figures: figures(16) },
      { id: 'none', title: 'Nothing', words: '', figures: null },
    ]);
    const of = (id: string) => swings.find(s => s.id === id);
    const fruit = Number(plannedInput(base).lines.find(l => l.key === 'plums')?.cost) / 8;
    expect(Number(of('fruit')?.high) - Number(cost)).toBeCloseTo(fruit * 0.3, 9);
    expect(Number(of('fruit')?.low) - Number(cost)).toBeCloseTo(-fruit * 0.3, 9);
    // 100 minutes at 18.00 over 8 jars, a quarter of it.
    expect(Number(of('minutes')?.high) - Number(cost)).toBeCloseTo((30 / 8) * 0.25, 9);
    expect(Number(of('yield')?.low)).toBeCloseTo(Number(cost) / 0.9, 9);
    expect(of('load')?.low).toBe(costPerJar(figures(16)).toFixed());
    expect(of('none')).toBeUndefined();
    expect(swings.map(s => s.spread)).toEqual(swings.map(s => s.spread).toSorted((a, b) => b - a));
  });
});

describe('the difference between two batches', () => {
  const sheet = (lines: CostLine[], count: number) =>
    costSheet({
      currency: 'USD',
      sharing: 'by jar',
      lines,
      jars: [{ size: 'pint', filled: count, sellable: count, net_g: 1 }],
      lost: [],
      unpriced: [],
    });
  const line = (key: string, quantity: string, unitCost: string, detail = '') =>
    costLine({ part: 'ingredients', name: key, key, detail, quantity, unit: 'g', unitCost });
  it('is split into price and quantity, names the purchase, and adds up', () => {
    const differences = compareCosts(
      sheet([line('plums', '1000', '0.003', 'lot A'), line('sugar', '500', '0.002')], 10),
      sheet(
        [line('plums', '1200', '0.005', 'lot B'), line('sugar', '500', '0.002'), line('rum', '10', '0.03')],
        10,
      ),
    );
    expect(differences[0]).toMatchObject({
      key: 'plums',
      byPrice: '0.24',
      byQuantity: '0.06',
      from: 'lot A',
      to: 'lot B',
    });
    expect(differences.map(d => d.key)).toEqual(['plums', 'rum']);
    expect(() => compareCosts(sheet([], 0), sheet([], 1))).toThrow(RangeError);
  });
  it('adds up to the difference of the jars, whatever the batches', () => {
    const lines = fc.array(
      fc.tuple(
        fc.constantFrom('a', 'b', 'c', 'd'),
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: 1, max: 999 }),
      ),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(
        lines,
        lines,
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 1, max: 30 }),
        (a, b, n, m) => {
          const make = (rows: typeof a, count: number) =>
            sheet(
              rows.map(([k, q, u]) => line(k, String(q), new Decimal(u).div(1000).toFixed())),
              count,
            );
          const [x, y] = [make(a, n), make(b, m)];
          const per = (s: typeof x, count: number) =>
            s.parts.reduce((sum, p) => sum.plus(p.exact), new Decimal(0)).div(count);
          const sum = compareCosts(x, y).reduce(
            (t, d) => t.plus(d.byPrice).plus(d.byQuantity),
            new Decimal(0),
          );
          expect(
            sum
              .minus(per(y, m).minus(per(x, n)))
              .abs()
              .lt('1e-25'),
          ).toBe(true);
        },
      ),
    );
  });
});
