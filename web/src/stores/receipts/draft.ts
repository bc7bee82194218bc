import type { UnitId } from '@cocotte/core/measure';
import { type Item, type PricedBy, type Receipt, plainFacts } from '@cocotte/core/stores';
import { v7 } from 'uuid';
import {
  type Readings,
  type ValuesOf,
  anyWords,
  chosen,
  listed,
  orElse,
  orNone,
  type readersOf,
  readShape,
  rows,
  unasked,
  words,
  wordsOrNone,
} from '../../kit/readers.ts';
import { NO_FACTS, factReaders, factsOf } from '../FactFields.tsx';

/** A line of a receipt while nothing is typed in it. */
export const newLine = () => ({
  ...NO_FACTS,
  id: v7(),
  lotId: v7(),
  itemId: '',
  packages: '1',
  quantity: '',
  unit: '' as UnitId | '',
  price: '',
  pricedBy: 'line' as PricedBy,
  discount: '',
  taxed: true,
  label: '',
  supplierLot: '',
  bestBy: '',
  strength_pct: '',
  /** A bought mixture's own ingredients and allergens, where this package differs. */
  subIngredients: '',
  allergens: '',
});
type LineTexts = ReturnType<typeof newLine>;

/** A receipt while nothing is typed in it. */
export const newReceipt = (day: string) => ({
  id: v7(),
  supplier: '',
  day,
  number: '',
  discount: '',
  tax: '',
  delivery: '',
  lines: [newLine()],
});
export type ReceiptTexts = ReturnType<typeof newReceipt>;

/** Readers of everything that is typed into a receipt. */
export function receiptShape(read: ReturnType<typeof readersOf>) {
  const decimal = (name: string, above = false, max = 1_000_000) =>
    read.decimal({ name, min: 0, above, max }, 9);
  return {
    supplier: words('The supplier'),
    day: words('The day', 'Stock is drawn by age.', 'Enter the day on the receipt.'),
    number: anyWords,
    discount: orElse('0', decimal('The discount')),
    tax: orElse('0', decimal('The tax')),
    delivery: orElse('0', decimal('The delivery')),
    lines: rows((line: LineTexts) => ({
      ...factReaders,
      itemId: chosen<string>('The item is not chosen.', 'A purchase is of something.', 'Choose the item.'),
      unit: chosen<UnitId>(
        'The unit is not chosen.',
        'A price without a unit says nothing of what came.',
        'Choose the unit on the package.',
      ),
      packages: orElse('1', decimal('The packages', true, 100_000)),
      quantity: decimal('The quantity', true, 10_000_000),
      price: line.pricedBy === 'later' ? unasked('0') : decimal('The price'),
      discount: orElse('0', decimal('The discount')),
      label: anyWords,
      supplierLot: anyWords,
      bestBy: wordsOrNone,
      strength_pct: orNone(read.figure({ name: 'The strength', min: 0, max: 30, unit: ' %' })),
      subIngredients: anyWords,
      allergens: listed,
    })),
  };
}

/** The receipt that was read. */
export function receiptOf(
  { id, ...v }: { id: string } & ValuesOf<ReturnType<typeof receiptShape>>,
  items: readonly Item[],
): Receipt {
  return {
    ...v,
    id,
    lines: v.lines.map(l => ({
      id: l.id,
      itemId: l.itemId,
      packages: l.packages,
      quantity: l.quantity,
      unit: l.unit,
      price: l.price,
      pricedBy: l.pricedBy,
      discount: l.discount,
      taxed: l.taxed,
      lotId: l.lotId,
      label: l.label.slice(0, 40),
      bestBy: l.bestBy,
      strength_pct: items.find(x => x.id === l.itemId)?.use === 'vinegar' ? l.strength_pct : null,
      facts: plainFacts({
        ...factsOf(l),
        supplierLot: l.supplierLot,
        subIngredients: l.subIngredients,
        allergens: l.allergens,
      }),
    })),
  };
}

/**
 * Reads what was typed into a receipt.
 *
 * @returns the receipt, or every fault by its path (`lines.0.price`)
 */
export function readReceipt(
  texts: ReceiptTexts,
  items: readonly Item[],
  read: ReturnType<typeof readersOf>,
): Readings<Receipt> {
  const found = readShape(receiptShape(read), texts);
  return found.ok ? { ok: true, value: receiptOf({ id: texts.id, ...found.value }, items) } : found;
}

const KEY = 'cocotte receipt in hand';

/** What was typed and not yet recorded, kept over a reload. */
export const kept = {
  read(): ReceiptTexts | null {
    try {
      const found = JSON.parse(localStorage.getItem(KEY) ?? 'null') as ReceiptTexts | null;
      // What an older version kept may lack a field.
      return found && { ...found, lines: found.lines.map(l => ({ ...newLine(), ...l })) };
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
