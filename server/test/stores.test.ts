import { randomUUID } from 'node:crypto';
import {
  addItem,
  addReceipt,
  changeItem,
  changeKitchen,
  drawLots,
  listStock,
  mixLots,
  moveLot,
  openLot,
  prepareLot,
  readKitchen,
  readLot,
  readReceipt,
  readShelf,
  receiveLot,
  takeBackReceipt,
} from '@cocotte/contract';
import { Decimal } from '@cocotte/core/measure';
import {
  type Item,
  type LotFacts,
  type Receipt,
  type ReceiptLine,
  plainFacts,
  upgradeItem,
} from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, waxBeans } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

async function newItem(over: Partial<Item> = {}): Promise<Item> {
  return owner.ok(addItem, {
    body: upgradeItem({
      id: randomUUID(),
      kind: 'ingredient',
      name: `Item ${randomUUID().slice(0, 6)}`,
      unit: 'g',
      unit_g: 1,
      labelName: 'thing',
      ...over,
    }),
  });
}

const line = (item: Item, over: Partial<ReceiptLine> = {}): ReceiptLine => ({
  id: randomUUID(),
  itemId: item.id,
  packages: '1',
  quantity: '1000',
  unit: 'g',
  price: '10',
  pricedBy: 'line',
  discount: '0',
  taxed: true,
  lotId: randomUUID(),
  label: 'L-1',
  bestBy: null,
  strength_pct: null,
  facts: plainFacts(),
  ...over,
});
const receipt = (lines: ReceiptLine[], over: Partial<Receipt> = {}): Receipt => ({
  id: randomUUID(),
  supplier: 'Depot',
  day: '2026-11-20',
  number: randomUUID().slice(0, 8),
  lines,
  discount: '0',
  tax: '0',
  delivery: '0',
  ...over,
});
const record = (r: Receipt) => owner.ok(addReceipt, { body: { receipt: r, again: false } });
const refuse = (r: Receipt) => owner.refused(addReceipt, { body: { receipt: r, again: false } });

async function newLot(
  item: Item,
  quantity: string,
  over: {
    receivedOn?: string;
    unitCost?: string;
    label?: string;
    bestBy?: string;
    facts?: Partial<LotFacts>;
    strength_pct?: number;
  } = {},
) {
  const { facts, ...rest } = over;
  return owner.ok(receiveLot, {
    body: {
      id: randomUUID(),
      itemId: item.id,
      label: 'L',
      supplier: 'S',
      receivedOn: '2026-11-01',
      bestBy: null,
      unitCost: '0.01',
      strength_pct: null,
      facts: plainFacts(facts),
      quantity,
      ...rest,
    },
  });
}
const move = (
  lotId: string,
  kind: 'count' | 'loss' | 'used up' | 'to supplier' | 'undo used up',
  quantity = '0',
  id = randomUUID(),
) => ({
  params: { lotId },
  body: { id, kind, quantity, reason: 'a good reason' },
});

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

describe('the ledger', () => {
  it('counts, losses and returns are movements; the same one twice is one', async () => {
    const item = await newItem();
    const lot = await newLot(item, '1000');
    await owner.ok(moveLot, move(lot.id, 'loss', '120'));
    const once = move(lot.id, 'to supplier', '80');
    await owner.ok(moveLot, once);
    await owner.ok(moveLot, once);
    await owner.ok(moveLot, move(lot.id, 'count', '790'));
    const { movements, lot: after } = await owner.ok(readLot, { params: { lotId: lot.id } });
    expect(movements.map(m => [m.reason, m.quantity]).sort()).toEqual([
      ['counted', '-10'],
      ['lost', '-120'],
      ['received', '1000'],
      ['returned to supplier', '-80'],
    ]);
    expect(after.onHand).toBe('790');
    expect((await owner.refused(moveLot, move(lot.id, 'loss', '791'))).errors[0]).toMatchObject({
      code: 'more-than-lot',
      path: 'quantity',
    });
    expect((await owner.refused(moveLot, move(lot.id, 'loss', '0'))).errors[0]?.code).toBe('not-positive');
    await expect(
      server.database.inKitchen(owner.session?.kitchenId ?? '', trx =>
        trx('movements').update({ note: 'edited' }),
      ),
    ).rejects.toThrow('permission denied');
  });

  it('tells the balance at any past instant, also across months', async () => {
    const item = await newItem({ name: 'Past thing' });
    await newLot(item, '500', { receivedOn: '2026-09-10', unitCost: '0.02' });
    const lot = await newLot(item, '300', { receivedOn: '2026-11-05', unitCost: '0.05' });
    await owner.ok(moveLot, move(lot.id, 'loss', '100'));
    const at = async (instant: string) => {
      const { rows } = await owner.ok(listStock, { query: { search: 'Past thing', at: instant } });
      return [rows[0]?.quantity, rows[0]?.value];
    };
    expect(await at('2026-09-09T00:00:00Z')).toEqual(['0', '0']);
    expect(await at('2026-10-31T00:00:00Z')).toEqual(['500', '10']);
    expect(await at('2026-11-06T00:00:00Z')).toEqual(['800', '25']);
    expect(await at('')).toEqual(['700', '20']);
    expect((await owner.refused(listStock, { query: { at: '2027-01-01T00:00:00Z' } })).errors[0]?.path).toBe(
      'at',
    );
    // The sum of all movements is the balance, whichever way it is asked.
    const sums = await server.database.inKitchen(owner.session?.kitchenId ?? '', trx =>
      trx('movements').where({ item_id: item.id }).sum({ q: 'quantity' }).first(),
    );
    expect(Number(sums?.q)).toBe(700);
  });

  it('lists what is below its minimum and what spoils soon', async () => {
    const low = await newItem({ name: 'Low thing', minimum: '600' });
    await newLot(low, '500', { bestBy: '2026-12-01' });
    const { rows, below, spoiling } = await owner.ok(listStock, {
      query: { search: 'Low thing', only: 'below minimum' },
    });
    expect(rows.map(r => [r.item.name, r.belowMinimum])).toEqual([['Low thing', true]]);
    expect(below).toBeGreaterThan(0);
    expect(spoiling).toBeGreaterThan(0);
    expect(
      (await owner.ok(listStock, { query: { search: 'Low thing', only: 'spoiling soon' } })).rows,
    ).toHaveLength(1);
  });

  it('"opened a new one" makes it the open container and closes the one before, which can be taken back', async () => {
    const item = await newItem();
    const old = await newLot(item, '400', { receivedOn: '2026-10-01', label: 'OLD' });
    const next = await newLot(item, '900', { receivedOn: '2026-11-01', label: 'NEW' });
    await owner.ok(openLot, { params: { lotId: old.id }, body: { id: randomUUID() } });
    const { lot, closed } = await owner.ok(openLot, {
      params: { lotId: next.id },
      body: { id: randomUUID() },
    });
    expect([lot.openedOn, closed?.id, closed?.onHand]).toEqual(['2026-11-24', old.id, '0']);
    await owner.ok(moveLot, move(old.id, 'undo used up'));
    const { shelf } = await owner.ok(readShelf);
    expect(shelf.find(s => s.item.id === item.id)?.lots.map(l => [l.label, l.onHand])).toEqual([
      ['OLD', '400'],
      ['NEW', '900'],
    ]);
    expect((await owner.refused(moveLot, move(old.id, 'undo used up'))).code).toBe('not-used-up');
  });

  it('a unit and kind stay while there are lots, and a stale change is told', async () => {
    const item = await newItem();
    await newLot(item, '5');
    const put = (body: Item) => ({ params: { itemId: item.id }, body });
    expect((await owner.refused(changeItem, put({ ...item, unit: 'mL', unit_g: 1 }))).code).toBe('unit-kept');
    await owner.ok(changeItem, put({ ...item, name: 'Renamed' }));
    expect((await owner.refused(changeItem, put({ ...item, name: 'Mine' }))).code).toBe('stale');
    expect(
      (
        await owner.refused(addItem, {
          body: { ...upgradeItem({ id: randomUUID(), kind: 'jar', name: 'J', unit: 'each' }) },
        })
      ).errors[0]?.path,
    ).toBe('jarSize');
  });
});

describe('lots out of lots', () => {
  it('a refilled bin is a mixed lot that traces to both, as weak as the weakest', async () => {
    const vinegar = await newItem({ use: 'vinegar', unit: 'mL', unit_g: 1.01, density_gPerMl: 1.01 });
    const a = await newLot(vinegar, '1000', {
      unitCost: '0.004',
      strength_pct: 5,
      bestBy: '2027-01-01',
      facts: { allergens: ['sulphites'] },
    });
    const b = await newLot(vinegar, '3000', { unitCost: '0.002', strength_pct: 6, bestBy: '2027-06-01' });
    const mixed = await owner.ok(mixLots, {
      body: {
        lotId: randomUUID(),
        label: 'BIN',
        parts: [
          { lotId: a.id, quantity: '1000' },
          { lotId: b.id, quantity: '1000' },
        ],
      },
    });
    expect(mixed).toMatchObject({ onHand: '2000', unitCost: '0.003', strength_pct: 5, bestBy: '2027-01-01' });
    expect(mixed.facts.allergens).toEqual(['sulphites']);
    const view = await owner.ok(readLot, { params: { lotId: mixed.id } });
    expect(view.trace.from.map(r => r.lot.id).sort()).toEqual([a.id, b.id].sort());
    expect((await owner.ok(readLot, { params: { lotId: a.id } })).trace.into.map(r => r.lot.id)).toEqual([
      mixed.id,
    ]);
    const other = await newLot(await newItem(), '10');
    const wrong = {
      lotId: randomUUID(),
      label: 'X',
      parts: [
        { lotId: b.id, quantity: '1' },
        { lotId: other.id, quantity: '1' },
      ],
    };
    expect((await owner.refused(mixLots, { body: wrong })).code).toBe('other-item');
    expect(
      (
        await owner.refused(mixLots, {
          body: {
            ...wrong,
            parts: [
              { lotId: b.id, quantity: '9999' },
              { lotId: a.id, quantity: '1' },
            ],
          },
        })
      ).errors.map(e => e.path),
    ).toEqual(['parts[0].quantity', 'parts[1].quantity']);
  });

  it('a preparation has its yield, keeping limit and a value by rule', async () => {
    const fruit = await newItem();
    const frozen = await newItem();
    const lot = await newLot(fruit, '2000', { unitCost: '0.003' });
    const body = {
      lotId: randomUUID(),
      itemId: frozen.id,
      label: 'FR-1',
      how: 'frozen' as const,
      parts: [{ lotId: lot.id, quantity: '1000' }],
      quantity: '800',
      keepsUntil: '2027-08-01',
      value: 'cost of what went in' as const,
      minutes: 30,
      unitCost: '0',
      note: '',
    };
    const made = await owner.ok(prepareLot, { body });
    expect(made).toMatchObject({ onHand: '800', unitCost: '0.00375', bestBy: '2027-08-01' });
    expect(made.facts).toMatchObject({ source: 'made here', condition: 'frozen' });
    const worked = await owner.ok(prepareLot, { body: { ...body, lotId: randomUUID(), value: 'nothing' } });
    expect(worked.unitCost).toBe('0');
    // Juice made here counts as fresh however it is said to be made, and never as a barrier; vinegar has no strength.
    const lemon = await newItem({ use: 'citrus juice', unit: 'mL', unit_g: 1.03, density_gPerMl: 1.03 });
    const fruits = await newLot(fruit, '500');
    const pressed = await owner.ok(prepareLot, {
      body: {
        ...body,
        lotId: randomUUID(),
        itemId: lemon.id,
        how: 'other',
        parts: [{ lotId: fruits.id, quantity: '500' }],
      },
    });
    expect([pressed.facts.juice, pressed.strength_pct]).toEqual(['fresh', null]);
    expect(
      (await owner.refused(prepareLot, { body: { ...body, lotId: randomUUID(), keepsUntil: null } }))
        .errors[0]?.path,
    ).toBe('keepsUntil');
    expect(
      (
        await owner.refused(prepareLot, {
          body: { ...body, lotId: randomUUID(), parts: [{ lotId: lot.id, quantity: '1' }] },
        })
      ).errors[0]?.code,
    ).toBe('more-than-lot');
  });
});

describe('draws', () => {
  it('cost the weighted average of the item where the kitchen reckons so', async () => {
    const { id: _id, ...kitchen } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, {
      body: { ...kitchen, costs: { ...kitchen.costs, method: 'weighted average' } },
    });
    const l = await Line.open(owner, crushedTomatoes, 'pint', 2);
    const { lot: first, item } = await owner.ok(readLot, { params: { lotId: l.lots.tomatoes ?? '' } });
    await newLot(item, '500000', { unitCost: '0.03', receivedOn: '2026-11-02' });
    await l.start();
    await l.draw([{ lotId: first.id, lineId: 'tomatoes', quantity: '1000' }]);
    expect(l.state.draws[0]?.lots[0]?.unitCost).toBe('0.02');
    const { id: _now, ...now } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, { body: { ...now, costs: kitchen.costs } });
  });

  it('refuse what may not serve: fresh juice as a barrier, dead vines, clouding salt, a passed limit', async () => {
    const l = await Line.open(owner, waxBeans, 'pint', 2);
    await l.start();
    const tried = async (
      lineId: string,
      facts: Partial<LotFacts>,
      over: { bestBy?: string; strength_pct?: number } = {},
    ) => {
      const { item } = await owner.ok(readLot, { params: { lotId: l.lots[lineId] ?? '' } });
      const lot = await newLot(item, '1000', { facts, ...over });
      const problem = await owner.refused(drawLots, {
        params: { batchId: l.batchId },
        body: { lots: [{ lotId: lot.id, lineId, quantity: '10' }], stamp: l.stamp() },
      });
      return problem.errors[0]?.code;
    };
    expect(await tried('vinegar', { juice: 'fresh' }, { strength_pct: 5 })).toBe('fresh-juice');
    expect(await tried('vinegar', {}, { strength_pct: 4 })).toBe('too-weak');
    expect(await tried('beans', { condition: 'from dead or frost-killed vines' })).toBe('unfit-produce');
    expect(await tried('salt', { salt: 'iodised' })).toBe('cloudy-salt');
    // What was made here keeps as long as was decided; and where it came from cannot be typed.
    const { item: flakes, lot } = await owner.ok(readLot, { params: { lotId: l.lots.flakes ?? '' } });
    const dried = await owner.ok(prepareLot, {
      body: {
        lotId: randomUUID(),
        itemId: flakes.id,
        label: 'DRY',
        how: 'dried',
        parts: [{ lotId: lot.id, quantity: '10' }],
        quantity: '9',
        keepsUntil: '2026-11-24',
        value: 'nothing',
        minutes: 0,
        unitCost: '0',
        note: '',
      },
    });
    server.days(1);
    const late = await owner.refused(drawLots, {
      params: { batchId: l.batchId },
      body: { lots: [{ lotId: dried.id, lineId: 'flakes', quantity: '1' }], stamp: l.stamp() },
    });
    expect(late.errors[0]?.code).toBe('past-limit');
    server.days(-1);
    const typed = await owner.refused(receiveLot, {
      body: {
        id: randomUUID(),
        itemId: flakes.id,
        label: 'X',
        supplier: '',
        receivedOn: '2026-11-01',
        bestBy: null,
        unitCost: '0',
        strength_pct: null,
        facts: plainFacts({ source: 'jars' }),
        quantity: '1',
      },
    });
    expect(typed.errors[0]).toMatchObject({ path: 'source', code: 'source-made' });
    const forged = await newLot(flakes, '5', { facts: { released: false, ph: 2, from: dried.facts.from } });
    expect(forged.facts).toMatchObject({ from: [], released: true, ph: null });
  });

  it('of the last of a lot by two people at once: one succeeds, the other is told; any order leaves the sum', async () => {
    const cook = await server.join(owner, 'cook', 'cook2@test.example');
    const item = await newItem({ unit: 'each', unit_g: 5 });
    const lot = await newLot(item, '10');
    const take = (client: Client) => client.try(moveLot, move(lot.id, 'loss', '7') as never);
    const answers = await Promise.all([take(owner), take(cook)]);
    expect(answers.map(a => a.status).sort()).toEqual([200, 422]);
    expect(answers.find(a => a.status === 422)?.body).toMatchObject({ code: 'more-than-lot' });

    // Many at once, of several lots in different orders: nobody waits in a ring, and balance equals the movements.
    const lots = await Promise.all([1, 2, 3].map(() => newLot(item, '40')));
    const draws = Array.from({ length: 24 }, (_, i) => {
      const order = i % 2 === 0 ? lots : lots.toReversed();
      return (i % 3 === 0 ? owner : cook).try(mixLots, {
        body: {
          lotId: randomUUID(),
          label: `M${i}`,
          parts: order.slice(0, 2).map(l => ({ lotId: l.id, quantity: '3' })),
        },
      } as never);
    });
    const done = await Promise.all(draws);
    expect(done.every(a => a.status === 200 || a.status === 422)).toBe(true);
    const left = await server.database.inKitchen(owner.session?.kitchenId ?? '', async trx => ({
      lots: await trx('lots as l')
        .whereIn('l.item_id', [item.id])
        .select(
          'l.on_hand',
          trx.raw(
            '(select sum(quantity) from movements m where m.lot_id = l.lot_id and m.kitchen_id = l.kitchen_id) as moved',
          ),
        ),
      months: await trx('item_months').where({ item_id: item.id }).sum({ q: 'quantity' }).first(),
      movements: await trx('movements').where({ item_id: item.id }).sum({ q: 'quantity' }).first(),
    }));
    for (const l of left.lots) expect(Number(l.on_hand)).toBe(Number(l.moved));
    expect(left.lots.every(l => Number(l.on_hand) >= 0)).toBe(true);
    expect(Number(left.months?.q)).toBe(Number(left.movements?.q));
  });

  it('two batches that draw the last of a lot at once: one succeeds, the other is told', async () => {
    const a = await Line.open(owner, { ...crushedTomatoes, code: 'TWA' }, 'pint', 2);
    const b = await Line.open(owner, { ...crushedTomatoes, code: 'TWB' }, 'pint', 2);
    await a.start();
    await b.start();
    const { item } = await owner.ok(readLot, { params: { lotId: a.lots.tomatoes ?? '' } });
    const last = await newLot(item, '100');
    const body = (l: Line) => ({
      params: { batchId: l.batchId },
      body: { lots: [{ lotId: last.id, lineId: 'tomatoes', quantity: '80' }], stamp: l.stamp() },
    });
    const answers = await Promise.all([owner.try(drawLots, body(a)), owner.try(drawLots, body(b))]);
    expect(answers.map(x => x.status).sort()).toEqual([200, 422]);
  });
});
