import { type Day, Decimal, type Fault, type UnitId, allocate } from '../measure/index.ts';
import { type Item, inItemUnit } from './items.ts';
import { type LotFacts, lotFaults } from './lots.ts';

/** What a price on a receipt may be for. */
export const PRICED_BY = ['line', 'unit', 'package', 'later'] as const;
/** Whether a price is for all of the line, for one of its units, for one package, or still to come. */
export type PricedBy = (typeof PRICED_BY)[number];

/** One line of a receipt: so many packages of so much of an item, at a price. */
export interface ReceiptLine {
  id: string;
  itemId: string;
  /** Packages of `quantity` each, decimal text; 1 for loose goods. */
  packages: string;
  /** Decimal text in `unit`. */
  quantity: string;
  unit: UnitId;
  /** Decimal text, in the kitchen's currency. */
  price: string;
  pricedBy: PricedBy;
  /** Off this line alone, decimal text. */
  discount: string;
  /** Whether the receipt's tax is on it. */
  taxed: boolean;
  lotId: string;
  label: string;
  bestBy: Day | null;
  strength_pct: number | null;
  facts: LotFacts;
}

/** A receipt as it was handed over. */
export interface Receipt {
  id: string;
  supplier: string;
  day: Day;
  /** What the supplier calls it; empty where it has no number. */
  number: string;
  lines: ReceiptLine[];
  /** Off the whole, decimal text. */
  discount: string;
  tax: string;
  delivery: string;
}

/** A line with what it cost after everything was spread, and what came in. */
export interface LandedLine {
  lineId: string;
  /** In the item's unit, decimal text. */
  quantity: string;
  /** Before anything was spread. */
  goods: string;
  /** After discount, tax and delivery; the lines' sum is the receipt's total. */
  landed: string;
  /** Money for one of the item's unit, decimal text of up to 18 places. */
  unitCost: string;
}

/** Most lines of one receipt. */
export const MOST_LINES = 500;

/** Decimals of a stored unit cost: enough that a lot drawn to its end gives back what was paid to the cent. */
export const UNIT_COST_PLACES = 18;
const CENT = 2;
const sum = (list: Decimal[]) => list.reduce((a, b) => a.plus(b), new Decimal(0));

/** What a line's goods cost before anything is spread, rounded to the cent as a shop rounds a line. */
export function lineGoods(
  line: Pick<ReceiptLine, 'packages' | 'quantity' | 'price' | 'pricedBy' | 'discount'>,
): Decimal {
  if (line.pricedBy === 'later') return new Decimal(0);
  const price = new Decimal(line.price);
  const all =
    line.pricedBy === 'line'
      ? price
      : line.pricedBy === 'package'
        ? price.times(line.packages)
        : price.times(line.packages).times(line.quantity);
  return all.toDecimalPlaces(CENT, Decimal.ROUND_HALF_UP).minus(line.discount);
}

/** An amount over lines by what each weighs, to the cent; nothing is spread quickly. */
function spread(amount: string, weights: Decimal[]): Decimal[] {
  const all = new Decimal(amount);
  return all.isZero() ? weights.map(() => all) : allocate(all, weights, CENT);
}

/** A receipt with its discount, tax and delivery spread over its lines, to the cent. */
export interface LandedReceipt {
  lines: LandedLine[];
  /** Sum of the lines, less discount, plus tax and delivery. */
  total: string;
}

/**
 * Spreads discount and delivery over all lines and tax over the taxed ones, each by what the goods cost, to the cent.
 *
 * @param items  by id
 * @returns the landed lines, or every fault with its path in the receipt
 * @example
 * const sugar = upgradeItem({ id: 's', kind: 'ingredient', name: 'Sugar', unit: 'g', unit_g: 1 });
 * const line = { id: 'l', itemId: 's', packages: '2', quantity: '1', unit: 'kg', price: '3.00', pricedBy: 'line', discount: '0', taxed: true, lotId: 'a', label: 'A', bestBy: null, strength_pct: null, facts: plainFacts() };
 * const receipt = { id: 'r', supplier: 'Depot', day: '2026-05-01', number: '', lines: [line], discount: '0', tax: '0.30', delivery: '0' };
 * landReceipt(receipt, new Map([['s', sugar]]), '2026-05-02').value.lines[0].landed; // '3.30'
 */
export function landReceipt(
  receipt: Receipt,
  items: ReadonlyMap<string, Item>,
  today: Day,
): { ok: true; value: LandedReceipt } | { ok: false; faults: Fault[] } {
  const faults: Fault[] = [];
  const fault = (path: string, code: string, what: string, why: string, next: string) =>
    faults.push({ path, code, what, why, next });
  if (receipt.day > today)
    fault(
      'day',
      'future-day',
      'The receipt is dated in the future.',
      'Stock cannot be used before it is here.',
      'Enter the day on the receipt.',
    );
  const seen = new Set<string>();
  const rows = receipt.lines.map((line, i) => {
    const at = `lines[${i}]`;
    const item = items.get(line.itemId);
    if (seen.has(line.lotId))
      fault(
        `${at}.lotId`,
        'lot-twice',
        'Two lines name the same lot.',
        'A lot came in once.',
        'Give each line its own lot.',
      );
    seen.add(line.lotId);
    if (!item) {
      fault(
        `${at}.itemId`,
        'unknown-item',
        'That item is not in this kitchen.',
        'A purchase is of something.',
        'Choose the item, or add it first.',
      );
      return null;
    }
    const quantity = inItemUnit(item, new Decimal(line.quantity).times(line.packages).toFixed(), line.unit);
    if (!quantity.ok)
      fault(`${at}.unit`, quantity.fault.code, quantity.fault.what, quantity.fault.why, quantity.fault.next);
    else if (!new Decimal(quantity.value).gt(0))
      fault(
        `${at}.quantity`,
        'not-positive',
        'The quantity is zero.',
        'A purchase of nothing costs nothing.',
        'Enter what came.',
      );
    else if (item.unit === 'each' && !new Decimal(quantity.value).isInteger())
      fault(
        `${at}.quantity`,
        'not-whole',
        `${item.name} is counted in whole pieces.`,
        'A part of one cannot be drawn.',
        'Enter a whole number.',
      );
    const goods = lineGoods(line);
    if (goods.isNegative())
      fault(
        `${at}.discount`,
        'discount-too-large',
        'The discount is more than the line costs.',
        'A lot would cost less than nothing.',
        'Check the discount.',
      );
    for (const f of lotFaults(item, { ...line, receivedOn: receipt.day }, receipt.day)) {
      if (f.path === 'receivedOn') continue;
      faults.push({ ...f, path: `${at}.${f.path}` });
    }
    return { line, goods, quantity: quantity.ok ? quantity.value : '0' };
  });
  const known = rows.filter(r => r !== null);
  const goods = known.map(r => r.goods);
  const all = sum(goods);
  if (new Decimal(receipt.discount).gt(all))
    fault(
      'discount',
      'discount-too-large',
      'The discount is more than the goods cost.',
      'A lot would cost less than nothing.',
      'Check the discount.',
    );
  const taxed = known.map(r => (r.line.taxed ? r.goods : new Decimal(0)));
  if (new Decimal(receipt.tax).gt(0) && known.length > 0 && known.every(r => !r.line.taxed))
    fault(
      'tax',
      'nothing-taxed',
      'There is tax, and no line is taxed.',
      'Tax is spread over the lines it is on.',
      'Mark the lines that are taxed.',
    );
  if (faults.length > 0 || known.length === 0) return { ok: false, faults };
  const off = spread(receipt.discount, goods);
  const tax = spread(receipt.tax, taxed.every(t => t.isZero()) ? goods : taxed);
  const delivery = spread(receipt.delivery, goods);
  const lines = known.map((r, i): LandedLine => {
    const landed = r.goods
      .minus(off[i] as Decimal)
      .plus(tax[i] as Decimal)
      .plus(delivery[i] as Decimal);
    return {
      lineId: r.line.id,
      quantity: r.quantity,
      goods: r.goods.toFixed(CENT),
      landed: landed.toFixed(CENT),
      unitCost: landed.div(r.quantity).toDecimalPlaces(UNIT_COST_PLACES).toFixed(),
    };
  });
  return { ok: true, value: { lines, total: sum(lines.map(l => new Decimal(l.landed))).toFixed(CENT) } };
}

/** What two receipts share when they are the same one: supplier, day, and number or else the total. */
export function receiptFingerprint(
  receipt: Pick<Receipt, 'supplier' | 'day' | 'number'>,
  total: string,
): string {
  const supplier = receipt.supplier.trim().toLowerCase();
  const number = receipt.number.trim().toLowerCase();
  return `${supplier}|${receipt.day}|${number === '' ? `total ${new Decimal(total).toFixed(CENT)}` : `no ${number}`}`;
}

/** Units that goods are bought in, by what they measure. */
export const BUYING_UNITS = [
  'g',
  'kg',
  'oz',
  'lb',
  'mL',
  'L',
  'floz',
  'cup',
  'pint',
  'quart',
  'gallon',
  'bushel',
  'peck',
  'dry pint',
  'dry quart',
  'each',
] as const satisfies readonly UnitId[];
