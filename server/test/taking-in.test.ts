import { randomUUID } from 'node:crypto';
import {
  addReceipt,
  listItems,
  listStock,
  priceLot,
  readCost,
  readLot,
  readReceipt,
  readShelf,
  type TakenLot,
  takeIn,
} from '@cocotte/contract';
import { libraryOf } from '@cocotte/core/ingredients';
import { factsByName, type Item, itemOf, jarsInUse, plainFacts, upgradeItem } from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { newItem, receiptLine, receiptOf } from '../../testing/stock.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

const LIBRARY = new Map(libraryOf([]).map(i => [i.id, i]));
const known = (ingredientId: string) => {
  const found = LIBRARY.get(ingredientId);
  if (!found) throw new Error(ingredientId);
  return itemOf(randomUUID(), found.name, found);
};
const lotOf = (item: Item, over: Partial<TakenLot> = {}): TakenLot => ({
  id: randomUUID(),
  itemId: item.id,
  label: '',
  bestBy: null,
  strength_pct: null,
  quantity: '2000',
  unit: 'g',
  facts: factsByName(item),
  ...over,
});
const take = (items: Item[], lots: TakenLot[]) => owner.ok(takeIn, { body: { items, lots } });

describe('jars and lids in use', () => {
  it('are made once, whoever ticks them; wide ones are no regular ones, and a batch that names no mouth means either', async () => {
    const ids = new Set(['pint regular', 'pint wide']);
    const [mine, theirs] = await Promise.all([
      take(jarsInUse(ids, randomUUID), []),
      take(jarsInUse(ids, randomUUID), []),
    ]);
    expect(mine.items.map(i => [i.name, i.mouth])).toEqual([
      ['Pint jars, regular mouth', 'regular'],
      ['Pint jars, wide mouth', 'wide'],
      ['Lids, regular mouth', 'regular'],
      ['Lids, wide mouth', 'wide'],
    ]);
    expect(theirs.items).toEqual(mine.items);
    const any = upgradeItem({
      id: randomUUID(),
      kind: 'jar',
      name: 'Pint jars',
      unit: 'each',
      jarSize: 'pint',
    });
    const found = await take([any], [lotOf(any, { quantity: '6', unit: 'each' })]);
    expect(mine.items.map(i => i.id)).toContain(found.items[0]?.id);
    expect(found.lots[0]?.itemId).toBe(found.items[0]?.id);
  });
});

describe('what a batch needs, as bought today, price later', () => {
  it('is made from the library with kind and unit, and stands on the shelf without a price', async () => {
    const plums = known('plum');
    const jars = upgradeItem({
      id: randomUUID(),
      kind: 'jar',
      name: 'Half-pint jars',
      unit: 'each',
      jarSize: 'half-pint',
    });
    const facts = { ...factsByName(plums), condition: 'ripe' as const };
    const body = {
      items: [plums, jars],
      lots: [lotOf(plums, { facts }), lotOf(jars, { quantity: '12', unit: 'each' })],
    };
    const made = await owner.ok(takeIn, { body });
    expect(made.items.map(i => [i.name, i.unit, i.ingredientId, i.use])).toEqual([
      ['Plums', 'g', 'plum', 'produce'],
      ['Half-pint jars', 'each', null, 'other'],
    ]);
    expect(made.lots.map(l => [l.onHand, l.facts.value, l.unitCost])).toEqual([
      ['2000', 'price to come', '0'],
      ['12', 'price to come', '0'],
    ]);
    expect(made.lots[0]?.label).toMatch(/^Plums .*\d/);
    // Sent again it is the same; by somebody else, of the same things, no item is made twice.
    expect(await owner.ok(takeIn, { body })).toEqual(made);
    const other = await take(
      [
        { ...known('plum'), name: 'Red plums' },
        { ...jars, id: randomUUID() },
      ],
      [],
    );
    expect(other.items.map(i => i.id)).toEqual(made.items.map(i => i.id));
    const { shelf } = await owner.ok(readShelf);
    expect(shelf.find(s => s.item.id === plums.id)?.lastCost).toBeNull();
  });

  it('two people at once make each item once', async () => {
    const sent = Array.from({ length: 6 }, () => [known('strawberry'), known('sugar')]);
    const back = await Promise.all(sent.map(items => take(items, [])));
    expect(new Set(back.map(b => b.items.map(i => i.id).join())).size).toBe(1);
    const { items } = await owner.ok(listItems);
    expect(items.filter(i => i.ingredientId === 'strawberry')).toHaveLength(1);
  });

  it('what a use hangs on is asked, not believed: strength, condition, salt, juice', async () => {
    const items = ['white-vinegar', 'fig', 'salt', 'bottled-lemon', 'canning-salt'].map(known);
    const { errors } = await owner.refused(takeIn, {
      body: { items, lots: items.map(i => lotOf(i)) },
    });
    expect(errors.map(f => f.path)).toEqual(['lots[0].strength_pct', 'lots[1].condition', 'lots[2].salt']);
    const { items: there } = await owner.ok(listItems);
    expect(there.some(i => i.ingredientId === 'fig')).toBe(false);
  });

  it('lots get names by themselves, each its own', async () => {
    const sugar = known('brown-sugar');
    const { lots } = await take([sugar], [lotOf(sugar), lotOf(sugar), lotOf(sugar, { label: 'MINE' })]);
    const labels = lots.map(l => l.label);
    expect(labels[1]).toBe(`${labels[0]} b`);
    expect(labels[2]).toBe('MINE');
    const item = await newItem(owner, { name: 'Cloves' });
    const receipt = receiptOf([receiptLine(item, { label: '' })]);
    const view = await owner.ok(addReceipt, { body: { receipt, again: false } });
    expect(view.receipt.lines[0]?.label).toMatch(/^Cloves .*20/);
    // The receipt sent again is the same one.
    expect(await owner.ok(addReceipt, { body: { receipt, again: false } })).toEqual(view);
    expect(await owner.ok(readReceipt, { params: { receiptId: receipt.id } })).toEqual(view);
  });

  it('a price told later is that of what is left; the value of the shelf follows, and a second price is refused', async () => {
    const item = known('honey');
    const { lots } = await take([item], [lotOf(item, { quantity: '1000', unit: 'mL' })]);
    const [lot] = lots;
    if (!lot) throw new Error('no lot');
    const value = async () =>
      (await owner.ok(listStock, { query: { after: '', search: 'Honey', kind: '', only: '', at: '' } }))
        .rows[0]?.value;
    expect(Number(await value())).toBe(0);
    const params = { lotId: lot.id };
    const priced = await owner.ok(priceLot, { params, body: { price: '12.40' } });
    expect(priced.facts.value).toBe('paid');
    expect(Number(await value())).toBeCloseTo(12.4, 6);
    expect((await owner.ok(priceLot, { params, body: { price: '12.40' } })).unitCost).toBe(priced.unitCost);
    expect((await owner.refused(priceLot, { params, body: { price: '13' } })).code).toBe('has-price');
    const { movements } = await owner.ok(readLot, { params });
    expect(movements.map(m => m.reason).toSorted()).toEqual(['priced', 'priced', 'received']);
    // A price to come can be on a receipt too.
    const later = await newItem(owner, { name: 'Cardamom' });
    const view = await owner.ok(addReceipt, {
      body: {
        receipt: receiptOf([receiptLine(later, { pricedBy: 'later', price: '0', lotId: randomUUID() })]),
        again: false,
      },
    });
    expect(view.total).toBe('0');
    const { lot: bought } = await owner.ok(readLot, {
      params: { lotId: view.receipt.lines[0]?.lotId ?? '' },
    });
    expect(bought.facts.value).toBe('price to come');
  });

  it('a batch that drew it is reckoned without a price, and with it once it is told', async () => {
    const line = await Line.open(owner, { ...plumJam, code: 'UNP' }, 'half-pint', 4);
    await (await line.start()).draw();
    const before = await owner.ok(readCost, { params: { batchId: line.batchId } });
    const honey = { ...itemOf(randomUUID(), 'Honey of the market', null), ingredientId: null };
    const { lots } = await take([honey], [lotOf(honey, { quantity: '400' })]);
    const lotId = lots[0]?.id ?? '';
    await line.draw([{ lotId, lineId: 'sugar', quantity: '100' }]);
    const open = await owner.ok(readCost, { params: { batchId: line.batchId } });
    expect(open.unpriced.some(u => u.startsWith('Honey of the market'))).toBe(true);
    expect(open.total).toBe(before.total);
    await owner.ok(priceLot, { params: { lotId }, body: { price: '8.00' } });
    const known = await owner.ok(readCost, { params: { batchId: line.batchId } });
    expect(known.unpriced).toEqual(before.unpriced);
    // 100 of 400 g at 8.00.
    expect((Number(known.total) - Number(before.total)).toFixed(2)).toBe('2.00');
    // What is left is worth the rest.
    const { lot } = await owner.ok(readLot, { params: { lotId } });
    expect(Number(lot.onHand) * Number(lot.unitCost)).toBeCloseTo(6, 9);
  });

  it('a line is drawn from what is ready as it is, with its own waste', async () => {
    const line = await Line.open(owner, { ...plumJam, code: 'FRZ' }, 'half-pint', 4);
    await line.start();
    const frozen = known('plum');
    const made = await take(
      [frozen],
      [lotOf(frozen, { facts: { ...factsByName(frozen), condition: 'frozen' } })],
    );
    await line.draw([{ lotId: made.lots[0]?.id ?? '', lineId: 'plums', quantity: '500' }]);
    const drawn = line.state.draws.flatMap(d => d.lots).find(l => l.lineId === 'plums');
    expect(drawn).toMatchObject({ mass_g: 500, trimYield: 1 });
  });

  it('a viewer takes nothing in, and another kitchen sees nothing of it', async () => {
    const viewer = await server.join(owner, 'viewer', 'vi@test.example');
    const sugar = known('sugar');
    expect((await viewer.refused(takeIn, { body: { items: [sugar], lots: [] } })).status).toBe(403);
    expect(plainFacts().value).toBe('paid');
  });
});
