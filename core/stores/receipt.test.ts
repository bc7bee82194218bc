import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Decimal } from '../measure/index.ts';
import {
  type Item,
  type Receipt,
  type ReceiptLine,
  inItemUnit,
  itemFaults,
  landReceipt,
  plainFacts,
  receiptFingerprint,
  upgradeItem,
} from './index.ts';

const item = (over: Partial<Item> = {}): Item =>
  upgradeItem({ id: 'i', kind: 'ingredient', name: 'Thing', unit: 'g', unit_g: 1, ...over });
const line = (over: Partial<ReceiptLine> = {}): ReceiptLine => ({
  id: 'l',
  itemId: 'i',
  packages: '1',
  quantity: '100',
  unit: 'g',
  price: '1',
  pricedBy: 'line',
  discount: '0',
  taxed: true,
  lotId: 'lot',
  label: 'L',
  bestBy: null,
  strength_pct: null,
  facts: plainFacts(),
  ...over,
});
const receipt = (lines: ReceiptLine[], over: Partial<Receipt> = {}): Receipt => ({
  id: 'r',
  supplier: 'S',
  day: '2026-05-01',
  number: '',
  lines,
  discount: '0',
  tax: '0',
  delivery: '0',
  ...over,
});
const items = new Map([['i', item()]]);

describe('a receipt', () => {
  const cents = (most: number) =>
    fc.integer({ min: 0, max: most }).map(n => new Decimal(n).div(100).toFixed(2));
  it('lands to the cent: lines add up to goods less discount, plus tax and delivery', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(cents(90_000), fc.integer({ min: 1, max: 5000 }), fc.boolean()), {
          minLength: 1,
          maxLength: 12,
        }),
        cents(2000),
        cents(4000),
        (rows, tax, delivery) => {
          const lines = rows.map(([price, quantity, taxed], i) =>
            line({
              id: `l${i}`,
              lotId: `lot${i}`,
              price,
              quantity: String(quantity),
              taxed: taxed || i === 0,
            }),
          );
          const goods = lines.reduce((sum, l) => sum.plus(l.price), new Decimal(0));
          const discount = goods.div(10).toDecimalPlaces(2, Decimal.ROUND_DOWN).toFixed(2);
          const land = landReceipt(receipt(lines, { tax, delivery, discount }), items, '2026-05-02');
          if (!land.ok) throw new Error(JSON.stringify(land.faults));
          expect(land.value.total).toBe(goods.minus(discount).plus(tax).plus(delivery).toFixed(2));
          for (const [i, l] of land.value.lines.entries()) {
            // What is drawn of a lot gives back what was paid for it.
            expect(new Decimal(l.unitCost).times(l.quantity).minus(l.landed).abs().lt('1e-9')).toBe(true);
            expect(l.quantity).toBe(lines[i]?.quantity);
          }
        },
      ),
    );
  });

  it('prices a line by the line, the package or the unit', () => {
    const goods = (over: Partial<ReceiptLine>) => {
      const land = landReceipt(
        receipt([line({ packages: '3', quantity: '12', price: '2.50', ...over })]),
        items,
        '2026-05-02',
      );
      return land.ok ? land.value.lines[0]?.goods : land.faults;
    };
    expect(goods({ pricedBy: 'line' })).toBe('2.50');
    expect(goods({ pricedBy: 'package' })).toBe('7.50');
    expect(goods({ pricedBy: 'unit', discount: '1.00' })).toBe('89.00');
  });

  it('refuses tax that lies on no line, a discount over everything, and one lot twice', () => {
    const codes = (r: Receipt) => {
      const land = landReceipt(r, items, '2026-05-02');
      return land.ok ? [] : land.faults.map(f => `${f.path} ${f.code}`);
    };
    expect(codes(receipt([line({ taxed: false })], { tax: '1' }))).toEqual(['tax nothing-taxed']);
    expect(codes(receipt([line()], { discount: '1.01' }))).toEqual(['discount discount-too-large']);
    expect(codes(receipt([line(), line({ id: 'l2' })]))).toEqual(['lines[1].lotId lot-twice']);
    expect(codes(receipt([line()], { day: '2026-05-03' }))).toEqual(['day future-day']);
  });

  it('is known again by supplier, day, and number or total', () => {
    const print = (over: Partial<Receipt>, total = '5') => receiptFingerprint(receipt([], over), total);
    expect(print({ supplier: ' Depot ', number: 'A1' })).toBe(
      print({ supplier: 'depot', number: 'a1' }, '9'),
    );
    expect(print({ number: '' })).toBe(print({ number: ' ' }, '5.00'));
    expect(print({ number: '' })).not.toBe(print({ number: '' }, '6'));
    expect(print({ day: '2026-05-02' })).not.toBe(print({}));
  });
});

describe('units of an item', () => {
  const into = (over: Partial<Item>, quantity: string, unit: ReceiptLine['unit']) => {
    const read = inItemUnit(item(over), quantity, unit);
    return read.ok ? read.value : read.fault.code;
  };
  it.each([
    [{}, '2', 'lb', '907.18474'],
    [{ density_gPerMl: 0.845 }, '1', 'quart', '799.668239'],
    [{}, '1', 'cup', 'cannot-convert'],
    [{ bushel_g: 25_400 }, '1/2'.replace('1/2', '0.5'), 'bushel', '12700'],
    [{}, '1', 'bushel', 'cannot-convert'],
    [{ unit: 'mL', unit_g: 1.01, density_gPerMl: 1.01 }, '1', 'gallon', '3785.411784'],
    [{ unit: 'mL', unit_g: 1.01, density_gPerMl: 1.01 }, '1010', 'g', '1000'],
    [{ unit: 'each', unit_g: 50 }, '1', 'kg', '20'],
    [{ unit: 'each', unit_g: null, kind: 'lid' }, '1', 'kg', 'cannot-convert'],
    [{ unit: 'each', unit_g: null, kind: 'lid' }, '12', 'each', '12'],
    [{}, '3', 'each', 'cannot-convert'],
  ] as const)('%j: %s %s is %s', (over, quantity, unit, expected) => {
    const got = into(over, quantity, unit);
    expect(/^\d/.test(expected) ? Number(got).toFixed(6) : got).toBe(
      /^\d/.test(expected) ? Number(expected).toFixed(6) : expected,
    );
  });

  it('an item says what it lacks', () => {
    const codes = (over: Partial<Item>) => itemFaults(item(over)).map(f => f.code);
    expect(codes({ kind: 'jar', unit: 'each' })).toEqual(['size-missing']);
    expect(codes({ unit_g: null })).toEqual(['weight-missing']);
    expect(codes({ kind: 'band' })).toEqual(['unit-wrong']);
    expect(codes({ kind: 'tool', unit: 'each' })).toEqual(['state-missing']);
    expect(codes({ packages: [{ name: 'x', quantity: '0' }] })).toEqual(['not-positive']);
  });
});
