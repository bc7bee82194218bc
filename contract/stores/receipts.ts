import type { CsvMapping, LandedLine, Receipt, ReceiptLine } from '@cocotte/core/stores';
import { BUYING_UNITS, MOST_LINES, PRICED_BY } from '@cocotte/core/stores';
import { UNITS, type UnitId } from '@cocotte/core/measure';
import { endpoint } from '../endpoint.ts';
import { choice, day, decimal, dictionary, figure, flag, list, maybe, shape, text, uuid } from '../rules.ts';
import { factsRule, unitCostRule } from './item-rules.ts';

const money = (name: string) => decimal({ min: 0, max: 1_000_000, name });
const lineRule = shape<ReceiptLine>({
  id: uuid,
  itemId: uuid,
  packages: decimal({ min: 0, above: true, max: 100_000, name: 'The packages' }),
  quantity: decimal({ min: 0, above: true, max: 10_000_000, name: 'The quantity' }),
  unit: choice(Object.keys(UNITS) as UnitId[]),
  price: decimal({ min: 0, max: 1_000_000, name: 'The price' }),
  pricedBy: choice(PRICED_BY),
  discount: money('The discount'),
  taxed: flag,
  lotId: uuid,
  /** Empty for a name that the kitchen gives it. */
  label: text({ max: 40, name: 'The lot name' }),
  bestBy: maybe(day),
  strength_pct: maybe(figure({ min: 0, max: 30, name: 'The strength in percent' })),
  facts: factsRule,
});
const receiptFields = {
  id: uuid,
  supplier: text({ min: 1, max: 80, name: 'The supplier' }),
  day,
  number: text({ max: 40 }),
  lines: list(lineRule, { min: 1, max: MOST_LINES }),
  discount: money('The discount'),
  tax: money('The tax'),
  delivery: money('The delivery'),
};
const receiptRule = shape<Receipt>(receiptFields);
const params = shape<{ receiptId: string }>({ receiptId: uuid });

/** A receipt as a list shows it. */
export interface ReceiptRow {
  id: string;
  supplier: string;
  day: string;
  number: string;
  lines: number;
  total: string;
  takenBack: boolean;
}
/** A receipt with what each line cost in the end. */
export interface ReceiptView {
  receipt: Receipt;
  landed: LandedLine[];
  total: string;
  /** Why it was taken back; empty while it stands. */
  takenBack: string;
}
const total = decimal({ min: 0, max: 1e9, name: 'The total' });
const view = shape<ReceiptView>({
  receipt: receiptRule,
  landed: list(
    shape<LandedLine>({
      lineId: uuid,
      quantity: decimal({ min: 0, max: 1e12, name: 'The quantity' }),
      goods: total,
      landed: total,
      unitCost: unitCostRule,
    }),
    { max: MOST_LINES },
  ),
  total,
  takenBack: text({ max: 300 }),
});

/** Record a receipt: discount, tax and delivery are spread over its lines, each line becomes a lot. One that is there already is refused unless `again` is true. */
export const addReceipt = endpoint({
  name: 'receipts.add',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/receipts',
  who: 'cook',
  summary:
    'Record a receipt: discount, tax and delivery are spread over its lines, each line becomes a lot. One that is there already is refused unless `again` is true',
  body: shape<{ receipt: Receipt; again: boolean }>({ receipt: receiptRule, again: flag }),
  reply: view,
});
/** Receipts, newest first, 40 a page; by words in supplier and number. */
export const listReceipts = endpoint({
  name: 'receipts.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/receipts',
  who: 'viewer',
  summary: 'Receipts, newest first, 40 a page; by words in supplier and number',
  query: shape<{ after: string; search: string }>({ after: text({ max: 200 }), search: text({ max: 100 }) }),
  reply: shape<{ receipts: ReceiptRow[]; next: string | null }>({
    receipts: list(
      shape<ReceiptRow>({
        id: uuid,
        supplier: text({ max: 80 }),
        day,
        number: text({ max: 40 }),
        lines: figure({ min: 0, max: 1e6, whole: true, name: 'The lines' }),
        total,
        takenBack: flag,
      }),
      { max: 40 },
    ),
    next: maybe(text({ max: 200 })),
  }),
});
/** A receipt with what each line cost in the end. */
export const readReceipt = endpoint({
  name: 'receipts.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/receipts/:receiptId',
  who: 'viewer',
  summary: 'A receipt with what each line cost in the end',
  params,
  reply: view,
});
/** Take a receipt back that was entered wrongly, with the reason; refused once anything of it was used. */
export const takeBackReceipt = endpoint({
  name: 'receipts.takeBack',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/receipts/:receiptId/reversal',
  who: 'cook',
  summary:
    'Take a receipt back that was entered wrongly, with the reason; refused once anything of it was used',
  params,
  body: shape<{ reason: string }>({ reason: text({ min: 3, max: 300, name: 'The reason' }) }),
  reply: view,
});

/** Most receipts, and most lines of them, that one part of an import carries. */
export const RECEIPT_PART = { receipts: 200, lines: 800 };
/** Lay aside a part of an import of receipts; each is checked, and nothing is on the shelf before the import is finished. */
export const receiptImportPart = endpoint({
  name: 'receipts.importPart',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/receipt-imports/:importId/parts',
  who: 'cook',
  summary:
    'Lay aside a part of an import of receipts; each is checked, and nothing is on the shelf before the import is finished',
  params: shape<{ importId: string }>({ importId: uuid }),
  body: shape<{ from: number; receipts: Receipt[] }>({
    from: figure({ min: 0, max: 1e6, whole: true, name: 'The place of the first receipt' }),
    receipts: list(shape<Receipt>({ ...receiptFields, supplier: text({ max: 80 }) }), {
      min: 1,
      max: RECEIPT_PART.receipts,
    }),
  }),
  reply: shape<{ kept: number; known: number[] }>({
    kept: figure({ min: 0, max: 1e6, name: 'The count' }),
    known: list(figure({ min: 0, max: 1e6, whole: true, name: 'The place' }), { max: 1000 }),
  }),
});
/** Put every receipt of an import on the shelf, or none; those that are there already are left out, or taken again where asked. */
export const finishReceiptImport = endpoint({
  name: 'receipts.finishImport',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/receipt-imports/:importId/finish',
  who: 'cook',
  summary:
    'Put every receipt of an import on the shelf, or none; those that are there already are left out, or taken again where asked',
  params: shape<{ importId: string }>({ importId: uuid }),
  body: shape<{ count: number; again: boolean }>({
    count: figure({ min: 1, max: 1e6, whole: true, name: 'The count' }),
    again: flag,
  }),
  reply: shape<{ receipts: number; lots: number; known: number }>({
    receipts: figure({ min: 0, max: 1e6, name: 'The count' }),
    lots: figure({ min: 0, max: 1e6, name: 'The count' }),
    known: figure({ min: 0, max: 1e6, name: 'The count' }),
  }),
});

/** A kept reading of files: what their columns mean. */
export interface SavedMapping {
  id: string;
  name: string;
  mapping: CsvMapping;
}
const columnName = text({ max: 120 });
const mapping = shape<SavedMapping>({
  id: uuid,
  name: text({ min: 1, max: 60, name: 'The name' }),
  mapping: shape<CsvMapping>({
    columns: dictionary(columnName) as never,
    dayOrder: choice(['year first', 'month first', 'day first'] as const),
    decimalMark: choice(['.', ','] as const),
    pricedBy: choice(PRICED_BY),
    unit: choice(['', ...BUYING_UNITS] as const),
    supplier: text({ max: 80 }),
    names: dictionary(uuid),
  }),
});
/** Saved ways of reading a file of receipts. */
export const listMappings = endpoint({
  name: 'receipts.mappings',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/receipt-mappings',
  who: 'viewer',
  summary: 'Saved ways of reading a file of receipts',
  reply: shape<{ mappings: SavedMapping[] }>({ mappings: list(mapping, { max: 100 }) }),
});
/** Save a way of reading a file of receipts. */
export const putMapping = endpoint({
  name: 'receipts.putMapping',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/receipt-mappings/:mappingId',
  who: 'cook',
  summary: 'Save a way of reading a file of receipts',
  params: shape<{ mappingId: string }>({ mappingId: uuid }),
  body: mapping,
  reply: mapping,
});
/** Forget a saved way of reading a file. */
export const removeMapping = endpoint({
  name: 'receipts.removeMapping',
  method: 'DELETE',
  path: '/api/kitchens/:kitchenId/receipt-mappings/:mappingId',
  who: 'cook',
  summary: 'Forget a saved way of reading a file',
  params: shape<{ mappingId: string }>({ mappingId: uuid }),
  reply: shape<{ removed: boolean }>({ removed: flag }),
});
