import { randomUUID } from 'node:crypto';
import {
  addReceipt,
  finishReceiptImport,
  listMappings,
  listReceipts,
  moveLot,
  putMapping,
  readLot,
  readReceipt,
  readShelf,
  receiptImportPart,
  removeMapping,
  takeBackReceipt,
} from '@cocotte/contract';
import { Decimal } from '@cocotte/core/measure';
import { type Item, type Receipt, emptyMapping, plainFacts } from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  moveOf as move,
  newItem as itemFor,
  receiptLine as line,
  receiptOf as receipt,
} from '../../testing/stock.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());
const newItem = (over: Partial<Item> = {}) => itemFor(owner, over);
const kitchenId = () => owner.session?.kitchenId ?? '';
const record = (r: Receipt) => owner.ok(addReceipt, { body: { receipt: r, again: false } });
const refuse = (r: Receipt) => owner.refused(addReceipt, { body: { receipt: r, again: false } });

describe('receipts', () => {
  it('spread discount, tax and delivery over the lines to the cent, and bring each line in as a lot', async () => {
    const sugar = await newItem({ density_gPerMl: 0.85 });
    const jars = await newItem({ kind: 'jar', unit: 'each', unit_g: null, jarSize: 'pint' });
    const r = receipt(
      [
        line(sugar, { packages: '2', quantity: '5', unit: 'lb', price: '4.99', pricedBy: 'package' }),
        line(jars, { quantity: '12', unit: 'each', price: '0.95', pricedBy: 'unit', taxed: false }),
      ],
      { discount: '1.00', tax: '0.83', delivery: '5.00' },
    );
    const view = await record(r);
    // 9.98 and 11.40; 1.00 off and 5.00 delivery by value, tax on the first alone.
    expect(view.landed.map(l => [l.goods, l.landed])).toEqual([
      ['9.98', '12.67'],
      ['11.40', '13.54'],
    ]);
    expect(view.total).toBe('26.21');
    const { lot, movements } = await owner.ok(readLot, { params: { lotId: r.lines[0]?.lotId ?? '' } });
    expect(lot).toMatchObject({ onHand: '4535.9237', receiptId: r.id, supplier: 'Depot' });
    // The lot drawn to its end gives back what was paid.
    expect(new Decimal(lot.unitCost).times(lot.onHand).toFixed(6)).toBe('12.670000');
    expect(movements.map(m => m.reason)).toEqual(['received']);
    expect(await record(r)).toEqual(view);
  });

  it('are refused by line and field: unit, quantity, day, item, and what a lot must say', async () => {
    const salt = await newItem({ use: 'salt' });
    const lids = await newItem({ kind: 'lid', unit: 'each', unit_g: null });
    const faults = await refuse(
      receipt(
        [
          line(salt, { quantity: '2', unit: 'cup', facts: plainFacts() }),
          line(lids, { quantity: '2', unit: 'lb' }),
          line(lids, { quantity: '2.5', unit: 'each' }),
          line(salt, { itemId: randomUUID() }),
          line(salt, { discount: '11', facts: plainFacts({ salt: 'sea' }) }),
        ],
        { day: '2026-11-25' },
      ),
    );
    expect(faults.errors.map(e => [e.path, e.code])).toEqual([
      ['day', 'future-day'],
      ['lines[0].unit', 'cannot-convert'],
      ['lines[0].salt', 'kind-missing'],
      ['lines[1].unit', 'cannot-convert'],
      ['lines[2].quantity', 'not-whole'],
      ['lines[3].itemId', 'unknown-item'],
      ['lines[4].discount', 'discount-too-large'],
    ]);
    const zero = await refuse(receipt([line(salt, { quantity: '0', price: '$4' })]));
    expect(zero.errors.map(e => e.path)).toEqual(['receipt.lines[0].quantity', 'receipt.lines[0].price']);
  });

  it('are found when they come twice, and taken again only when that is said', async () => {
    const item = await newItem();
    const first = receipt([line(item)], { number: 'A-77' });
    await record(first);
    const twin = receipt([line(item)], { number: ' a-77', supplier: 'DEPOT' });
    expect((await refuse(twin)).code).toBe('same-receipt');
    // Without a number, day, supplier and total tell.
    await record(receipt([line(item, { price: '3.10' })], { number: '' }));
    expect((await refuse(receipt([line(item, { price: '3.10' })], { number: '' }))).code).toBe(
      'same-receipt',
    );
    await owner.ok(addReceipt, { body: { receipt: twin, again: true } });
  });

  it('are taken back whole while nothing of them was used', async () => {
    const item = await newItem();
    const r = receipt([line(item), line(item, { label: 'L-2' })]);
    await record(r);
    await owner.ok(moveLot, move(r.lines[0]?.lotId ?? '', 'loss', '10'));
    const back = { params: { receiptId: r.id }, body: { reason: 'Entered for the wrong kitchen.' } };
    expect((await owner.refused(takeBackReceipt, back)).code).toBe('already-used');
    await owner.ok(moveLot, move(r.lines[0]?.lotId ?? '', 'count', '1000'));
    await owner.ok(takeBackReceipt, back);
    expect((await owner.ok(readReceipt, { params: { receiptId: r.id } })).takenBack).toBe(back.body.reason);
    expect((await owner.ok(readLot, { params: { lotId: r.lines[1]?.lotId ?? '' } })).lot.onHand).toBe('0');
    // Taken back, it may be recorded again.
    await record({
      ...r,
      id: randomUUID(),
      lines: r.lines.map(l => ({ ...l, id: randomUUID(), lotId: randomUUID() })),
    });
  });
});

describe('receipts from a file', () => {
  const receipts = (item: Item, n: number, from = 0): Receipt[] =>
    Array.from({ length: n }, (_, i) => ({
      id: randomUUID(),
      supplier: 'File Depot',
      day: '2026-10-05',
      number: `F-${from + i}`,
      discount: '0',
      tax: '0.50',
      delivery: '0',
      lines: [0, 1].map(k => ({
        id: randomUUID(),
        itemId: item.id,
        packages: '1',
        quantity: '500',
        unit: 'g',
        price: '2.00',
        pricedBy: 'line',
        discount: '0',
        taxed: true,
        lotId: randomUUID(),
        label: `F${from + i}-${k}`,
        bestBy: null,
        strength_pct: null,
        facts: plainFacts(),
      })),
    }));
  it('are put on the shelf whole or not at all; known ones are left out', async () => {
    const item = await newItem();
    const importId = randomUUID();
    const list = receipts(item, 6);
    await owner.ok(addReceipt, {
      body: {
        receipt: {
          ...list[0],
          id: randomUUID(),
          lines: list[0]?.lines.map(l => ({ ...l, id: randomUUID(), lotId: randomUUID() })) ?? [],
        } as Receipt,
        again: false,
      },
    });
    const part = (from: number, some: Receipt[]) =>
      owner.ok(receiptImportPart, { params: { importId }, body: { from, receipts: some } });
    expect((await part(0, list.slice(0, 4))).known).toEqual([0]);
    const finish = { params: { importId }, body: { count: 6, again: false } };
    expect((await owner.refused(finishReceiptImport, finish)).code).toBe('parts-missing');
    await part(4, list.slice(4));
    await part(4, list.slice(4));
    expect(await owner.ok(finishReceiptImport, finish)).toEqual({ receipts: 5, lots: 10, known: 1 });
    // The same end sent twice says the same: its answer may have been lost.
    expect(await owner.ok(finishReceiptImport, finish)).toEqual({ receipts: 5, lots: 10, known: 1 });
    const twice = { params: { importId }, body: { count: 6, again: true } };
    expect((await owner.refused(finishReceiptImport, twice)).code).toBe('id-other-content');
    // Sent once more as another import under the same ids, nothing comes in twice, not even when that is asked for.
    const other = { params: { importId: randomUUID() }, body: { count: 6, again: true } };
    await owner.ok(receiptImportPart, { params: other.params, body: { from: 0, receipts: list } });
    expect((await owner.refused(finishReceiptImport, other)).code).toBe('id-taken');
    const { shelf } = await owner.ok(readShelf);
    const stock = shelf.find(s => s.item.id === item.id);
    expect(stock?.lots).toHaveLength(12);
    expect(stock?.lots[0]?.unitCost).toBe('0.0045');
    const found = await owner.ok(listReceipts, { query: { search: 'File Depot' } });
    expect(found.receipts).toHaveLength(6);
    const sums = await server.database.inKitchen(kitchenId(), async trx => ({
      months: await trx('item_months').where({ item_id: item.id }).sum({ q: 'quantity', v: 'value' }).first(),
      moved: await trx('movements').where({ item_id: item.id }).sum({ q: 'quantity' }).first(),
    }));
    expect([Number(sums.months?.q), Number(sums.months?.v), Number(sums.moved?.q)]).toEqual([6000, 27, 6000]);
  });

  it('with a fault are refused by receipt, line and field, and nothing is kept of that part', async () => {
    const item = await newItem();
    const [good, bad] = receipts(item, 2, 50) as [Receipt, Receipt];
    const importId = randomUUID();
    const problem = await owner.refused(receiptImportPart, {
      params: { importId },
      body: {
        from: 0,
        receipts: [
          good,
          { ...bad, day: '2027-01-01', lines: bad.lines.map(l => ({ ...l, unit: 'cup' as const })) },
        ],
      },
    });
    expect(problem.errors.map(e => e.path)).toEqual([
      'receipts[1].day',
      'receipts[1].lines[0].unit',
      'receipts[1].lines[1].unit',
    ]);
    expect(
      (await owner.refused(finishReceiptImport, { params: { importId }, body: { count: 1, again: false } }))
        .code,
    ).toBe('parts-missing');
  });

  it('are read by a saved mapping, which can be changed and forgotten', async () => {
    const id = randomUUID();
    const mapping = { ...emptyMapping, columns: { item: 'Artikel' }, decimalMark: ',' as const };
    await owner.ok(putMapping, { params: { mappingId: id }, body: { id, name: 'Depot file', mapping } });
    await owner.ok(putMapping, { params: { mappingId: id }, body: { id, name: 'Depot', mapping } });
    expect((await owner.ok(listMappings)).mappings).toEqual([{ id, name: 'Depot', mapping }]);
    expect((await owner.ok(removeMapping, { params: { mappingId: id } })).removed).toBe(true);
  });
});
