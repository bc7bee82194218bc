import { type Fault, type UnitId, readDecimal, readNumber } from '@cocotte/core/measure';
import {
  type Item,
  type LotFacts,
  type PricedBy,
  type Receipt,
  type ReceiptLine,
  plainFacts,
} from '@cocotte/core/stores';
import { v7 } from 'uuid';

/** A line of a receipt while it is typed. */
export interface LineTexts {
  id: string;
  lotId: string;
  itemId: string;
  packages: string;
  quantity: string;
  unit: UnitId | '';
  price: string;
  pricedBy: PricedBy;
  discount: string;
  taxed: boolean;
  label: string;
  supplierLot: string;
  bestBy: string;
  strength: string;
  /** A bought mixture's own ingredients and allergens, where this package differs. */
  subIngredients: string;
  allergens: string;
  facts: Pick<LotFacts, 'salt' | 'juice' | 'condition' | 'pickedOn'>;
}
export interface ReceiptTexts {
  id: string;
  supplier: string;
  day: string;
  number: string;
  discount: string;
  tax: string;
  delivery: string;
  lines: LineTexts[];
}

export const newLine = (): LineTexts => ({
  id: v7(),
  lotId: v7(),
  itemId: '',
  packages: '1',
  quantity: '',
  unit: '',
  price: '',
  pricedBy: 'line',
  discount: '',
  taxed: true,
  label: '',
  supplierLot: '',
  bestBy: '',
  strength: '',
  subIngredients: '',
  allergens: '',
  facts: { salt: null, juice: null, condition: null, pickedOn: null },
});

export const newReceipt = (day: string): ReceiptTexts => ({
  id: v7(),
  supplier: '',
  day,
  number: '',
  discount: '',
  tax: '',
  delivery: '',
  lines: [newLine()],
});

/**
 * Reads what was typed into a receipt.
 *
 * @returns the receipt, or every fault by its path (`lines[0].price`)
 */
export function readReceipt(
  texts: ReceiptTexts,
  items: readonly Item[],
  locale: string,
): { ok: true; value: Receipt } | { ok: false; faults: Fault[] } {
  const faults: Fault[] = [];
  const fault = (path: string, code: string, what: string, why: string, next: string) => {
    faults.push({ path, code, what, why, next });
    return '';
  };
  const decimal = (
    path: string,
    text: string,
    name: string,
    fallback: string | null,
    above = false,
    max = 1_000_000,
  ) => {
    if (text.trim() === '' && fallback !== null) return fallback;
    const read = readDecimal(text, locale, { name, min: 0, above, max }, 9);
    if (read.ok) return read.value;
    faults.push({ ...read.fault, path });
    return '0';
  };
  const must = (path: string, text: string, what: string) =>
    text.trim() || fault(path, 'missing', `${what} is empty.`, 'It is needed to go on.', 'Fill it in.');
  const lines = texts.lines.map((l, i): ReceiptLine => {
    const at = `lines[${i}]`;
    const item = items.find(x => x.id === l.itemId);
    if (!item)
      fault(
        `${at}.itemId`,
        'missing',
        'The item is not chosen.',
        'A purchase is of something.',
        'Choose the item.',
      );
    if (l.unit === '')
      fault(
        `${at}.unit`,
        'missing',
        'The unit is not chosen.',
        'A price without a unit says nothing of what came.',
        'Choose the unit on the package.',
      );
    const strength =
      l.strength.trim() === ''
        ? null
        : readNumber(l.strength, locale, { name: 'The strength', min: 0, max: 30, unit: ' %' });
    if (strength && !strength.ok) faults.push({ ...strength.fault, path: `${at}.strength_pct` });
    return {
      id: l.id,
      itemId: l.itemId,
      packages: decimal(`${at}.packages`, l.packages, 'The packages', '1', true, 100_000),
      quantity: decimal(`${at}.quantity`, l.quantity, 'The quantity', null, true, 10_000_000),
      unit: l.unit || 'g',
      price: decimal(`${at}.price`, l.price, 'The price', null),
      pricedBy: l.pricedBy,
      discount: decimal(`${at}.discount`, l.discount, 'The discount', '0'),
      taxed: l.taxed,
      lotId: l.lotId,
      label: must(`${at}.label`, l.label, 'The lot name').slice(0, 40),
      bestBy: l.bestBy || null,
      strength_pct: strength?.ok && item?.use === 'vinegar' ? strength.value : null,
      facts: plainFacts({
        ...l.facts,
        supplierLot: l.supplierLot.trim(),
        subIngredients: l.subIngredients.trim(),
        allergens: l.allergens
          .split(',')
          .map(a => a.trim())
          .filter(Boolean),
      }),
    };
  });
  const value: Receipt = {
    id: texts.id,
    supplier: must('supplier', texts.supplier, 'The supplier'),
    day:
      texts.day ||
      fault('day', 'missing', 'The day is empty.', 'Stock is drawn by age.', 'Enter the day on the receipt.'),
    number: texts.number.trim(),
    lines,
    discount: decimal('discount', texts.discount, 'The discount', '0'),
    tax: decimal('tax', texts.tax, 'The tax', '0'),
    delivery: decimal('delivery', texts.delivery, 'The delivery', '0'),
  };
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value };
}

const KEY = 'cocotte receipt in hand';

/** What was typed and not yet recorded, kept over a reload. */
export const kept = {
  read(): ReceiptTexts | null {
    try {
      return JSON.parse(localStorage.getItem(KEY) ?? 'null') as ReceiptTexts | null;
    } catch {
      return null;
    }
  },
  write(texts: ReceiptTexts): void {
    localStorage.setItem(KEY, JSON.stringify(texts));
  },
  drop(): void {
    localStorage.removeItem(KEY);
  },
};
