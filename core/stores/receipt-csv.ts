import {
  type Day,
  Decimal,
  isDay,
  readDecimal,
  unitNamed,
  type UnitId,
  type Names,
  byName,
  under,
} from '../measure/index.ts';
import { type CsvFault, type CsvField, type CsvTable, CSV_FIELDS } from './csv-table.ts';
import type { Item, ItemUse } from './items.ts';
import { CONDITIONS, JUICE_KINDS, type LotFacts, SALT_KINDS, plainFacts } from './lots.ts';
import { factsByName } from './wanted.ts';
import { MOST_LINES, type PricedBy, type Receipt, type ReceiptLine } from './receipt.ts';

/** How a supplier's or a spreadsheet's file is read; can be saved. */
export interface CsvMapping {
  /** Heading of the column that holds each field. */
  columns: Partial<Record<CsvField, string>>;
  dayOrder: 'year first' | 'month first' | 'day first';
  decimalMark: '.' | ',';
  pricedBy: PricedBy;
  /** The unit where the file has no column for it, or the cell is empty; empty for none. */
  unit: UnitId | '';
  /** Where the file has no column for it. */
  supplier: string;
  /** Names in the file that stand for an item: name in lower case → item id. */
  names: { readonly [name: string]: string };
}

/** A mapping that says nothing yet of the columns. */
export const emptyMapping: CsvMapping = {
  columns: {},
  dayOrder: 'year first',
  decimalMark: '.',
  pricedBy: 'line',
  unit: '',
  supplier: '',
  names: {},
};

function readDay(text: string, order: CsvMapping['dayOrder']): Day | null {
  const parts = /^(\d{1,4})[-/. ](\d{1,2})[-/. ](\d{1,4})$/.exec(text.trim());
  if (!parts) return null;
  const [, a, b, c] = parts as unknown as [string, string, string, string];
  const [y, m, d] =
    a.length === 4 || order === 'year first' ? [a, b, c] : order === 'month first' ? [c, a, b] : [c, b, a];
  const year = y.length === 2 ? `20${y}` : y;
  const day = `${year}-${m.padStart(2, '0')}-${d.padStart(2, '0')}`;
  return isDay(day) ? day : null;
}

/** A use whose lots must say a kind: of salt, of juice, how produce came. */
export type KindUse = Extract<ItemUse, 'salt' | 'citrus juice' | 'produce'>;
/** What one answer says of all lines of a file that say nothing themselves. It is of that file alone: the next may be otherwise. */
export type FileAnswers = Partial<Record<KindUse, string>>;

/** Receipts read from a file, with the lines they stand on, and every fault. */
export interface CsvReceipts {
  receipts: Receipt[];
  /** Line of the file for each line of each receipt, to place what the server says. */
  linesOf: number[][];
  faults: CsvFault[];
  /** Names in the file that stand for no item yet. */
  unknownNames: string[];
  /** Uses of which the file says no kind, salt, juice or condition, and nobody has answered for them yet. */
  unsaid: KindUse[];
  /** Rows that were read. */
  rows: number;
  /** Rows whose receipt was left out because another of its lines has a fault. */
  leftOut: number;
}

/**
 * Puts rows into receipts: one for each supplier, day and number. A receipt with a faulty line is left out whole, so
 * that nothing is taken by halves.
 *
 * @param newId  makes an id
 * @param progress  called now and then with the rows done
 * @param answers  what was answered for all lines that say no kind themselves
 */
export function toReceipts(
  table: CsvTable,
  mapping: CsvMapping,
  items: readonly Item[],
  today: Day,
  newId: () => string,
  progress: (done: number, of: number) => void = () => undefined,
  answers: FileAnswers = {},
): CsvReceipts {
  const at = new Map(table.headings.map((h, i) => [h, i]));
  const column = byName(
    CSV_FIELDS.map(f => {
      const heading = under(mapping.columns, f);
      return [f, heading === undefined ? -1 : (at.get(heading) ?? -1)] as const;
    }),
  ) as Names<number> & Record<CsvField, number>;
  const itemByName = new Map(items.map(i => [i.name.trim().toLowerCase(), i]));
  const byId = new Map(items.map(i => [i.id, i]));
  for (const [name, id] of Object.entries(mapping.names)) {
    const item = byId.get(id);
    if (item) itemByName.set(name, item);
  }
  const locale = mapping.decimalMark === '.' ? 'en-US' : 'de-DE';
  const faults: CsvFault[] = [...table.faults];
  const unknown = new Map<string, string>();
  const unsaid = new Set<KindUse>();
  const groups = new Map<
    string,
    { receipt: Receipt; lines: number[]; faulty: boolean; tax: Decimal; delivery: Decimal }
  >();
  const badRows = new Set(table.faults.map(f => f.line));
  table.rows.forEach((row, r) => {
    if (r % 2000 === 0) progress(r, table.rows.length);
    const line = table.lines[r] as number;
    let bad = badRows.has(line);
    const cell = (field: CsvField) => (column[field] < 0 ? '' : (row[column[field]] ?? '').trim());
    const fault = (field: CsvField, code: string, what: string, next: string) => {
      bad = true;
      faults.push({ line, field, code, what, next });
    };
    const decimal = (field: CsvField, fallback: string | null, name: string, above = false): string => {
      const text = cell(field);
      if (text === '' && fallback !== null) return fallback;
      const read = readDecimal(text, locale, { name, min: 0, above, max: 10_000_000 }, 9);
      if (read.ok) return read.value;
      fault(field, read.fault.code, read.fault.what, read.fault.next);
      return '0';
    };
    const dayText = cell('day');
    const day = readDay(dayText, mapping.dayOrder);
    if (day === null)
      fault(
        'day',
        'not-a-day',
        dayText === '' ? 'The day is empty.' : `"${dayText}" is not a day ${mapping.dayOrder}.`,
        'Correct the day, or choose another order of day, month and year.',
      );
    else if (day > today) fault('day', 'future-day', `${dayText} lies in the future.`, 'Correct the day.');
    const name = cell('item');
    const item = itemByName.get(name.toLowerCase());
    if (name === '') fault('item', 'missing', 'The item is empty.', 'Name what was bought.');
    else if (!item) {
      unknown.set(name.toLowerCase(), name);
      fault('item', 'unknown-item', `No item is called "${name}".`, 'Say which item it is, or add it.');
    }
    const quantity = decimal('quantity', null, 'The quantity', true);
    const packages = decimal('packages', '1', 'The packages', true);
    const unitText = cell('unit');
    const unit = unitText === '' ? mapping.unit : unitNamed(unitText.toLowerCase())?.id;
    if (!unit)
      fault(
        'unit',
        unitText === '' ? 'missing' : 'unknown-unit',
        unitText === ''
          ? 'The price has no unit: it is not said what the quantity is in.'
          : `"${unitText}" is not a unit.`,
        'Write a unit such as lb, kg, L or each.',
      );
    const price = decimal('price', null, 'The price');
    const discount = decimal('discount', '0', 'The discount');
    const tax = decimal('tax', '0', 'The tax');
    const delivery = decimal('delivery', '0', 'The delivery');
    const bestText = cell('best by');
    const bestBy = bestText === '' ? null : readDay(bestText, mapping.dayOrder);
    if (bestText !== '' && bestBy === null)
      fault('best by', 'not-a-day', `"${bestText}" is not a day ${mapping.dayOrder}.`, 'Correct the day.');
    const strength =
      cell('strength') === '' ? null : Number(decimal('strength', '0', 'The strength').valueOf());
    if (strength !== null && strength > 30)
      fault('strength', 'too-large', 'The strength must be at most 30 %.', 'Read it on the bottle.');
    const facts = item ? kindFacts(item, cell('kind'), answers) : {};
    if (item && facts === null) {
      if (cell('kind') === '' && isKindUse(item.use)) unsaid.add(item.use);
      fault(
        'kind',
        'kind-missing',
        cell('kind') === ''
          ? `${item.name} must say its kind.`
          : `"${cell('kind')}" is no kind of ${item.name}.`,
        `Write one of: ${kindsOf(item.use).join(', ')}.`,
      );
    }
    const supplier = cell('supplier') || mapping.supplier;
    const number = cell('number');
    const key = `${supplier.toLowerCase()}|${day ?? dayText}|${number.toLowerCase()}`;
    const group = groups.get(key) ?? {
      receipt: {
        id: newId(),
        supplier: supplier.slice(0, 80),
        day: day ?? today,
        number: number.slice(0, 40),
        lines: [],
        discount: '0',
        tax: '0',
        delivery: '0',
      },
      lines: [],
      faulty: false,
      tax: new Decimal(0),
      delivery: new Decimal(0),
    };
    groups.set(key, group);
    if (group.lines.length >= MOST_LINES)
      fault(
        'number',
        'too-many',
        `This receipt has more than ${MOST_LINES} lines.`,
        'Number the receipts, or split the file.',
      );
    group.faulty ||= bad;
    group.lines.push(line);
    if (bad || !item || !unit) return;
    group.tax = group.tax.plus(tax);
    group.delivery = group.delivery.plus(delivery);
    group.receipt.lines.push(
      csvLine(newId, item, {
        quantity,
        packages,
        unit,
        price,
        discount,
        bestBy,
        strength,
        pricedBy: mapping.pricedBy,
        label: cell('lot'),
        supplierLot: cell('supplier lot'),
        line,
        facts: facts ?? {},
      }),
    );
  });
  progress(table.rows.length, table.rows.length);
  const kept = [...groups.values()].filter(g => !g.faulty);
  const left = [...groups.values()].filter(g => g.faulty);
  return {
    receipts: kept.map(g => ({ ...g.receipt, tax: g.tax.toFixed(), delivery: g.delivery.toFixed() })),
    linesOf: kept.map(g => g.lines),
    faults: faults.sort((a, b) => a.line - b.line),
    unknownNames: [...unknown.values()].sort(),
    unsaid: KIND_USES.filter(u => unsaid.has(u)),
    rows: table.rows.length,
    leftOut: left.reduce((n, g) => n + g.lines.length, 0) - new Set(faults.map(f => f.line)).size,
  };
}

/** What a lot must say of itself: the kind of salt, bottled or fresh juice, the condition of produce; what the item's name says stands where the file says nothing. */
function kindFacts(item: Item, text: string, answers: FileAnswers): Partial<LotFacts> | null {
  const { use } = item;
  const byName = factsByName(item);
  const word = (
    text ||
    (use === 'salt' ? byName.salt : use === 'citrus juice' ? byName.juice : null) ||
    (isKindUse(use) ? answers[use] : '') ||
    ''
  ).toLowerCase();
  const one = <T extends string>(words: readonly T[]) => words.find(w => w === word);
  if (use === 'salt') return one(SALT_KINDS) ? { salt: one(SALT_KINDS) as LotFacts['salt'] } : null;
  if (use === 'citrus juice')
    return one(JUICE_KINDS) ? { juice: one(JUICE_KINDS) as LotFacts['juice'] } : null;
  if (use === 'produce')
    return one(CONDITIONS) ? { condition: one(CONDITIONS) as LotFacts['condition'] } : null;
  return {};
}
/** What a lot of each use may be. */
export const FILE_KINDS: Readonly<Record<KindUse, readonly string[]>> = {
  salt: SALT_KINDS,
  'citrus juice': JUICE_KINDS,
  produce: CONDITIONS,
};
const KIND_USES = ['salt', 'citrus juice', 'produce'] as const satisfies readonly KindUse[];
const isKindUse = (use: ItemUse): use is KindUse => KIND_USES.includes(use as KindUse);
const kindsOf = (use: ItemUse): readonly string[] => (isKindUse(use) ? FILE_KINDS[use] : []);

function csvLine(
  newId: () => string,
  item: Item,
  c: {
    quantity: string;
    packages: string;
    unit: UnitId;
    price: string;
    discount: string;
    bestBy: Day | null;
    strength: number | null;
    pricedBy: PricedBy;
    label: string;
    supplierLot: string;
    line: number;
    facts: Partial<LotFacts>;
  },
): ReceiptLine {
  return {
    id: newId(),
    itemId: item.id,
    packages: c.packages,
    quantity: c.quantity,
    unit: c.unit,
    price: c.price,
    pricedBy: c.pricedBy,
    discount: c.discount,
    taxed: true,
    lotId: newId(),
    label: (c.label || c.supplierLot || `row ${c.line}`).slice(0, 40),
    bestBy: c.bestBy,
    strength_pct: c.strength,
    facts: plainFacts({ ...c.facts, supplierLot: c.supplierLot.slice(0, 60) }),
  };
}
