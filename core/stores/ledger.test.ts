import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Decimal } from '../measure/index.ts';
import { averageCost, balanceOf, costOfDraw, inDrawingOrder, planDraw } from './index.ts';

const lot = (
  id: string,
  receivedOn: string,
  onHand: string,
  unitCost: string,
  openedOn: string | null = null,
) => ({
  id,
  receivedOn,
  openedOn,
  onHand,
  unitCost,
});

/**
 * The periodic figures every accounting textbook works through: opening stock and two purchases, then a sale out of
 * them. Source: the standard textbook first-in-first-out and weighted-average example, as in "Horngren's Financial &
 * Managerial Accounting", chapter on merchandise inventory; figures set here, method from memory.
 */
const TEXTBOOK = [
  lot('a', '2026-01-01', '100', '10'),
  lot('b', '2026-02-10', '200', '12'),
  lot('c', '2026-03-15', '150', '14'),
];

describe('costing', () => {
  it('first in, first out: 220 of 100 at 10, 200 at 12, 150 at 14 cost 2440, and 3060 are left', () => {
    const sold = costOfDraw(TEXTBOOK, new Decimal(220), 'first in, first out', null);
    expect(sold.cost.toFixed()).toBe('2440');
    const all = costOfDraw(TEXTBOOK, new Decimal(450), 'first in, first out', null);
    expect(all.cost.minus(sold.cost).toFixed()).toBe('3060');
  });

  it('weighted average: the same goods cost 12.2222 each', () => {
    const each = averageCost({
      quantity: new Decimal(450),
      value: new Decimal(100 * 10 + 200 * 12 + 150 * 14),
    });
    expect(each?.toFixed(4)).toBe('12.2222');
    const sold = costOfDraw(TEXTBOOK, new Decimal(220), 'weighted average', null);
    expect(sold.cost.toFixed(2)).toBe('2688.89');
  });

  it('the moving average follows purchases and issues as they come', () => {
    // 100 at 10, 100 at 12: average 11. 50 leave at 11. 100 at 14 come: (150 x 11 + 1400) / 250 = 12.20.
    const moves = [
      { quantity: '100', unitCost: '10', at: '1' },
      { quantity: '100', unitCost: '12', at: '2' },
      { quantity: '-50', unitCost: '11', at: '3' },
      { quantity: '100', unitCost: '14', at: '4' },
    ];
    expect(averageCost(balanceOf(moves, '2'))?.toFixed()).toBe('11');
    expect(averageCost(balanceOf(moves))?.toFixed()).toBe('12.2');
    expect(averageCost({ quantity: new Decimal(0), value: new Decimal(0) })).toBeNull();
  });

  it('what is lacking costs what was last paid, and has no price where nothing was', () => {
    expect(costOfDraw(TEXTBOOK, new Decimal(460), 'first in, first out', '15').cost.toFixed()).toBe('5650');
    expect(costOfDraw([], new Decimal(1), 'first in, first out', null)).toMatchObject({ priced: false });
  });
});

const lots = fc.array(
  fc.record({
    id: fc.uuid(),
    receivedOn: fc.integer({ min: 1, max: 28 }).map(d => `2026-05-${String(d).padStart(2, '0')}`),
    openedOn: fc.constantFrom(null, '2026-06-01'),
    onHand: fc.integer({ min: 0, max: 500 }).map(String),
    unitCost: fc.integer({ min: 0, max: 900 }).map(n => new Decimal(n).div(100).toFixed()),
  }),
  { maxLength: 12 },
);

describe('drawing', () => {
  it('never draws a later lot before an earlier one that is open', () => {
    fc.assert(
      fc.property(lots, fc.integer({ min: 0, max: 3000 }), (list, wanted) => {
        const { draws } = planDraw(list, new Decimal(wanted));
        for (const d of draws) {
          const takenFrom = (id: string) => draws.find(x => x.lot.id === id)?.quantity ?? '0';
          const earlierOpen = list.filter(
            l =>
              l.openedOn !== null &&
              l.id !== d.lot.id &&
              (d.lot.openedOn === null || l.receivedOn < d.lot.receivedOn),
          );
          // Whatever is open and earlier is emptied before this lot gives anything.
          for (const l of earlierOpen) expect(takenFrom(l.id)).toBe(l.onHand);
        }
      }),
    );
  });

  it('takes what was wanted or says what is lacking, and never more than a lot holds', () => {
    fc.assert(
      fc.property(lots, fc.integer({ min: 0, max: 3000 }), (list, wanted) => {
        const { draws, short } = planDraw(list, new Decimal(wanted));
        const drawn = draws.reduce((sum, d) => sum.plus(d.quantity), new Decimal(0));
        expect(drawn.plus(short).toNumber()).toBe(wanted);
        for (const d of draws) expect(new Decimal(d.quantity).lte(d.lot.onHand)).toBe(true);
      }),
    );
  });

  it('orders open before closed and old before new', () => {
    const order = inDrawingOrder([
      lot('new', '2026-05-03', '1', '1'),
      lot('open late', '2026-05-02', '1', '1', '2026-05-09'),
      lot('old', '2026-05-01', '1', '1'),
    ]);
    expect(order.map(l => l.id)).toEqual(['open late', 'old', 'new']);
  });

  it('a balance at an instant is the sum of the movements until then, in whatever order they are written', () => {
    const moves = fc.array(
      fc.record({
        quantity: fc.integer({ min: -50, max: 90 }).map(String),
        unitCost: fc.integer({ min: 0, max: 99 }).map(String),
        at: fc.integer({ min: 1000, max: 9999 }).map(String),
      }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(moves, fc.integer({ min: 1000, max: 9999 }).map(String), (list, at) => {
        const expected = list.filter(m => m.at <= at).reduce((n, m) => n + Number(m.quantity), 0);
        expect(balanceOf(list.toReversed(), at).quantity.toNumber()).toBe(expected);
      }),
    );
  });
});
