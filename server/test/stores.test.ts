import { randomUUID } from 'node:crypto';
import {
  addItem,
  changeItem,
  listStock,
  mixLots,
  moveLot,
  openLot,
  prepareLot,
  readLot,
  readShelf,
} from '@cocotte/contract';
import { type Item, upgradeItem } from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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
