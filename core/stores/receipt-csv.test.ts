import { describe, expect, it } from 'vitest';
import {
  type CsvMapping,
  type FileAnswers,
  type Item,
  decodeText,
  emptyMapping,
  guessColumns,
  readTable,
  toReceipts,
  upgradeItem,
} from './index.ts';

const items: Item[] = [
  upgradeItem({ id: 'sugar', kind: 'ingredient', name: 'Sugar', unit: 'g', unit_g: 1 }),
  upgradeItem({ id: 'salt', kind: 'ingredient', name: 'Salt', unit: 'g', unit_g: 1, use: 'salt' }),
  upgradeItem({ id: 'plums', kind: 'ingredient', name: 'Plums', unit: 'g', unit_g: 1, use: 'produce' }),
  upgradeItem({ id: 'lids', kind: 'lid', name: 'Lids', unit: 'each' }),
];
let n = 0;
const read = (text: string, over: Partial<CsvMapping> = {}, answers: FileAnswers = {}) => {
  const table = readTable(text);
  return toReceipts(
    table,
    { ...emptyMapping, columns: guessColumns(table.headings), ...over },
    items,
    '2026-11-25',
    () => `id${n++}`,
    undefined,
    answers,
  );
};

describe('a file of receipts', () => {
  it('is read in the encoding it is in', () => {
    expect(decodeText(new TextEncoder().encode('Käse'))).toEqual({ text: 'Käse', encoding: 'UTF-8' });
    expect(decodeText(Uint8Array.from([0x4b, 0xe4, 0x73, 0x65]))).toEqual({
      text: 'Käse',
      encoding: 'Windows-1252',
    });
    expect(decodeText(Uint8Array.from([0xff, 0xfe, 0x4b, 0, 0xe4, 0]))).toEqual({
      text: 'Kä',
      encoding: 'UTF-16',
    });
    expect(decodeText(Uint8Array.from([0xef, 0xbb, 0xbf, 0x41])).text).toBe('A');
  });

  it.each([
    [',', 'Date,Supplier,Item,Qty,Unit,Price'],
    [';', 'Date;Supplier;Item;Qty;Unit;Price'],
    ['\t', 'Date\tSupplier\tItem\tQty\tUnit\tPrice'],
    ['|', 'Date|Supplier|Item|Qty|Unit|Price'],
  ])('tells the delimiter %j', (mark, heading) => {
    const table = readTable(`${heading}\r\n${['2026-11-01', 'A', 'Sugar', '1', 'kg', '2'].join(mark)}\r\n`);
    expect([table.delimiter, table.headings.length, table.rows.length]).toEqual([mark, 6, 1]);
  });

  it('keeps the line numbers of the file, also after quoted line breaks and empty lines', () => {
    const table = readTable('Date,Item,Note\n2026-11-01,Sugar,"two\nlines"\n\n2026-11-02,"Su""gar",x\n');
    expect(table.lines).toEqual([2, 5]);
    expect(table.rows[0]?.[2]).toBe('two\nlines');
    expect(table.rows[1]?.[1]).toBe('Su"gar');
    expect(readTable('Date,Item\n2026-11-01,"Sugar\n').faults[0]).toMatchObject({
      code: 'open-quote',
      line: 2,
    });
  });

  it('puts lines of one supplier, day and number into one receipt, with its tax and delivery', () => {
    const got = read(
      [
        'Date,Supplier,Receipt,Item,Packs,Qty,Unit,Price,Tax,Delivery,Lot',
        '2026-11-01,A,7,Sugar,2,5,lb,4.10,0.20,3,',
        '2026-11-01,a,7,Lids,,60,each,9,0.40,,LD',
        '2026-11-02,A,,Sugar,1,5,lb,4.10,,,',
      ].join('\n'),
    );
    expect(got.faults).toEqual([]);
    expect(got.receipts.map(r => [r.number, r.lines.length, r.tax, r.delivery])).toEqual([
      ['7', 2, '0.6', '3'],
      ['', 1, '0', '0'],
    ]);
    expect(got.receipts[0]?.lines.map(l => [l.itemId, l.packages, l.quantity, l.unit, l.label])).toEqual([
      ['sugar', '2', '5', 'lb', 'row 2'],
      ['lids', '1', '60', 'each', 'LD'],
    ]);
    expect(got.linesOf).toEqual([[2, 3], [4]]);
  });

  it('says what is wrong by line and field, and leaves a receipt out whole', () => {
    const got = read(
      [
        'Date,Supplier,Item,Qty,Unit,Price,Kind',
        '2026-11-31,A,Sugar,1,kg,2,',
        '2026-12-24,B,Sugar,1,kg,2,',
        '2026-11-03,C,Honey,1,kg,2,',
        '2026-11-04,D,Sugar,0,kg,2,',
        '2026-11-05,E,Sugar,1,,2,',
        '2026-11-06,F,Sugar,1,smidgens,2,',
        '2026-11-07,G,Sugar,1,kg,$2,',
        '2026-11-08,H,Salt,1,kg,2,',
        '2026-11-08,H,Sugar,1,kg,2,',
        '2026-11-09,I,Salt,1,kg,2,canning',
        '2026-11-10,J,Sugar,"1,5",kg,2,',
      ].join('\n'),
    );
    expect(got.faults.map(f => `${f.line} ${f.field} ${f.code}`)).toEqual([
      '2 day not-a-day',
      '3 day future-day',
      '4 item unknown-item',
      '5 quantity too-small',
      '6 unit missing',
      '7 unit unknown-unit',
      '8 price currency-sign',
      '9 kind kind-missing',
      '12 quantity ambiguous-number',
    ]);
    expect(got.receipts.map(r => r.supplier)).toEqual(['I']);
    expect(got.leftOut).toBe(1);
    expect(got.unknownNames).toEqual(['Honey']);
    expect(got.receipts[0]?.lines[0]?.facts.salt).toBe('canning');
  });

  it('reads days in their order, decimals by their mark, and names that were mapped', () => {
    const got = read('Date;Item;Qty;Unit;Price\n03.10.2026;Zucker;1,5;kg;2,10', {
      dayOrder: 'day first',
      decimalMark: ',',
      names: { zucker: 'sugar' },
      supplier: 'Depot',
    });
    expect(got.receipts[0]).toMatchObject({ day: '2026-10-03', supplier: 'Depot' });
    expect(got.receipts[0]?.lines[0]).toMatchObject({ quantity: '1.5', price: '2.1', itemId: 'sugar' });
    expect(
      read('Date,Item,Qty,Unit,Price\n10/03/26,Sugar,1,kg,2', { dayOrder: 'month first' }).receipts[0]?.day,
    ).toBe('2026-10-03');
  });

  it('takes 50,000 lines and tells how far it is', () => {
    const rows = Array.from(
      { length: 50_000 },
      (_, i) =>
        `2026-10-${String((i % 28) + 1).padStart(2, '0')},Depot,R${Math.floor(i / 5)},Sugar,1,kg,2.00`,
    );
    const table = readTable(['Date,Supplier,Receipt,Item,Qty,Unit,Price', ...rows].join('\r\n'));
    const told: number[] = [];
    const got = toReceipts(
      table,
      { ...emptyMapping, columns: guessColumns(table.headings) },
      items,
      '2026-11-25',
      () => 'x',
      done => told.push(done),
    );
    expect(got.receipts.reduce((sum, r) => sum + r.lines.length, 0)).toBe(50_000);
    expect(told.at(-1)).toBe(50_000);
    expect(told.length).toBeGreaterThan(20);
    expect(table.lines.at(-1)).toBe(50_001);
  });

  it('one column for each meaning is guessed from the headings', () => {
    expect(
      guessColumns([
        'Receipt Date',
        'Vendor',
        'Description',
        'Supplier Lot',
        'Best Before',
        'Amount',
        'UoM',
        'Line total',
        'VAT',
      ]),
    ).toEqual({
      day: 'Receipt Date',
      supplier: 'Vendor',
      item: 'Description',
      'supplier lot': 'Supplier Lot',
      'best by': 'Best Before',
      quantity: 'Amount',
      unit: 'UoM',
      price: 'Line total',
      tax: 'VAT',
    });
  });

  it('asks once for all lines that say nothing of produce or salt, and an answer never speaks over a line', () => {
    const text = [
      'Date,Supplier,Number,Item,Qty,Unit,Price,Kind',
      '2026-11-01,A,1,Plums,2,kg,5,',
      '2026-11-01,A,2,Plums,3,kg,5,mouldy',
      '2026-11-01,A,3,Plums,3,kg,5,lovely',
      '2026-11-02,A,4,Salt,1,kg,2,',
    ].join('\n');
    const silent = read(text);
    expect(silent.unsaid).toEqual(['salt', 'produce']);
    expect(silent.faults.map(f => [f.line, f.code])).toEqual([
      [2, 'kind-missing'],
      [4, 'kind-missing'],
      [5, 'kind-missing'],
    ]);
    const told = read(text, {}, { produce: 'sound', salt: 'canning' });
    expect(told.unsaid).toEqual([]);
    expect(told.receipts.map(r => r.lines[0]?.facts.condition ?? r.lines[0]?.facts.salt)).toEqual([
      'sound',
      'mouldy',
      'canning',
    ]);
    expect(told.faults.map(f => [f.line, f.code])).toEqual([[4, 'kind-missing']]);
    // An answer that is none, and one for another use, say nothing.
    expect(read(text, {}, { produce: '__proto__', salt: 'sound' }).unsaid).toEqual(['salt', 'produce']);
  });
});
