import { randomUUID } from 'node:crypto';
import {
  changeKitchen,
  drawLots,
  mixLots,
  moveLot,
  prepareLot,
  readKitchen,
  readLot,
  readShelf,
  receiveLot,
} from '@cocotte/contract';
import { Decimal } from '@cocotte/core/measure';
import { type Item, type LotFacts, costOfDraw, plainFacts } from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, waxBeans } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { moveOf as move, newItem as itemFor, newLot as lotFor } from '../../testing/stock.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());
const newItem = (over: Partial<Item> = {}) => itemFor(owner, over);
type Rest = Parameters<typeof lotFor> extends [unknown, ...infer R] ? R : never;
const newLot = (...given: Rest) => lotFor(owner, ...given);

describe('draws', () => {
  it('cost the weighted average of the item where the kitchen reckons so', async () => {
    const { id: _id, placed: _placed, demo: _demo, ...kitchen } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, {
      body: { ...kitchen, costs: { ...kitchen.costs, method: 'weighted average' } },
    });
    const l = await Line.open(owner, crushedTomatoes, 'pint', 2);
    const { lot: first, item } = await owner.ok(readLot, { params: { lotId: l.lots.tomatoes ?? '' } });
    await newLot(item, '500000', { unitCost: '0.03', receivedOn: '2026-11-02' });
    await l.start();
    await l.draw([{ lotId: first.id, lineId: 'tomatoes', quantity: '1000' }]);
    expect(l.state.draws[0]?.lots[0]?.unitCost).toBe('0.02');
    // Of the first lot is left what cost 0.01, yet the stock is worth the average: the plan reckons as the ledger does.
    const { shelf } = await owner.ok(readShelf);
    expect(shelf.find(s => s.item.id === item.id)?.average).toBe('0.02');
    await l.draw([{ lotId: first.id, lineId: 'tomatoes', quantity: '499000' }]);
    const after = (await owner.ok(readShelf)).shelf.find(s => s.item.id === item.id);
    expect(after?.lots.map(lot => lot.unitCost)).toEqual(['0.03']);
    expect(after?.average).toBe('0.02');
    expect(
      costOfDraw(
        after?.lots ?? [],
        new Decimal(1000),
        'weighted average',
        null,
        after?.average ?? null,
      ).cost.toFixed(2),
    ).toBe('20.00');
    const { id: _now, placed: _here, demo: _there, ...now } = await owner.ok(readKitchen);
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
