import { randomUUID } from 'node:crypto';
import {
  addItem,
  changeKitchen,
  drawLots,
  dropPlan,
  listPlans,
  putPlan,
  readCost,
  readKitchen,
  readLot,
  readShelf,
  readShopping,
  recipeCosts,
  releaseJars,
  returnLots,
  startBatch,
  takeFromPot,
  takeJars,
} from '@cocotte/contract';
import { upgradeItem } from '@cocotte/core/stores';
import { Decimal } from '@cocotte/core/measure';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { rebuildKitchen } from '../src/admin/rebuild.ts';
import { enterKitchen, openDatabase } from '../src/house/database.ts';
import { keepOldSheets } from '../src/stores/kept-sheets.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());
const kitchenId = () => owner.session?.kitchenId ?? '';
let code = 0;
/** A jam of its own, cooked to pressed jars. */
const cooked = async () => {
  const line = await Line.open(
    owner,
    { ...plumJam, code: `C${String.fromCharCode(65 + Math.floor(code / 26), 65 + (code++ % 26))}` },
    'half-pint',
    4,
  );
  await (await (await line.start()).draw()).cook(20);
  return line;
};

describe('the cost of a batch', () => {
  it('is read with what other batches of the day say, and adds up', async () => {
    const one = await cooked();
    const before = await owner.ok(readCost, { params: { batchId: one.batchId } });
    const sum = before.parts.reduce((a, p) => a.plus(p.amount), new Decimal(0)).toFixed(2);
    expect(sum).toBe(before.total);
    await one.note('kitchen.worked', { minutes: 40 });
    // A second batch of the same day shares the opened kitchen, and minutes that were worked on both.
    server.now_ms -= 26 * 3_600_000;
    const two = await Line.open(owner, { ...crushedTomatoes, code: 'DAY' }, 'pint', 2);
    await (await two.start()).draw();
    await two.note('minutes.shared', { minutes: 60, with: [one.batchId] });
    server.now_ms += 26 * 3_600_000;
    const part = (sheet: typeof before, name: string) => sheet.parts.find(p => p.part === name)?.amount;
    const shared = await owner.ok(readCost, { params: { batchId: one.batchId } });
    const sameDay = two.state.started?.madeOn === one.state.started?.madeOn;
    expect(sameDay).toBe(true);
    // 40 minutes at 18.00 over the batches of that day; half of the hour.
    expect(part(shared, 'opening and cleaning')).toBe('6.00');
    expect(part(shared, 'work')).toBe('9.00');
    expect(part(await owner.ok(readCost, { params: { batchId: two.batchId } }), 'opening and cleaning')).toBe(
      '6.00',
    );
  });

  it('keeps the rates of the day it was started', async () => {
    const line = await cooked();
    await line.note('minutes.worked', { minutes: 60 });
    const { id: _id, placed: _placed, demo: _demo, ...kitchen } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, { body: { ...kitchen, hourlyRate: '99.00' } });
    const sheet = await owner.ok(readCost, { params: { batchId: line.batchId } });
    expect(sheet.parts.find(p => p.part === 'work')?.amount).toBe('18.00');
    const { id: _now, placed: _here, demo: _there, ...now } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, { body: { ...now, hourlyRate: '18.00' } });
  });

  it('is told over time by recipe', async () => {
    const line = await cooked();
    const { batches } = await owner.ok(recipeCosts, { params: { recipeId: line.recipeId } });
    expect(batches).toHaveLength(1);
    expect(batches[0]?.sheet.bySize[0]?.size).toBe('half-pint');
    expect((await owner.refused(readCost, { params: { batchId: randomUUID() } })).status).toBe(404);
  });
});

describe('the sheet of a batch that is released', () => {
  const sheetOf = (line: Line) => owner.ok(readCost, { params: { batchId: line.batchId } });
  const release = (line: Line, jars: number[]) =>
    owner.ok(releaseJars, { params: { batchId: line.batchId }, body: { jars, stamp: line.stamp() } });

  it('is stored when its last jar is released or gone, with its overhead, and changes no more', async () => {
    const line = await cooked();
    await line.note('minutes.worked', { minutes: 60 });
    await release(line, [1, 2]);
    expect((await sheetOf(line)).keptAt).toBeNull();
    await line.note('jars.set_aside', { jars: [3], why: 'broken' });
    await release(line, [4]);
    const kept = await sheetOf(line);
    expect(kept).toMatchObject({ sharing: 'by jar' });
    expect(kept.keptAt).not.toBeNull();
    expect(kept.bySize[0]).toMatchObject({ count: 3 });
    // Whatever is entered afterwards, in it or in another batch of the month, leaves it as it is.
    await line.note('minutes.worked', { minutes: 600 });
    await line.note('jars.set_aside', { jars: [1, 2], why: 'sampled' });
    await cooked();
    expect(await sheetOf(line)).toEqual(kept);
    const { batches } = await owner.ok(recipeCosts, { params: { recipeId: line.recipeId } });
    expect(batches[0]?.sheet).toEqual(kept);
    // A rebuild derives what can be derived, and this cannot.
    const asOwner = openDatabase(server.urls.ownerUrl, 2);
    await asOwner.outside(async trx => {
      await enterKitchen(trx, kitchenId());
      await rebuildKitchen(trx, kitchenId());
    });
    expect(await sheetOf(line)).toEqual(kept);
    // The application may not change what it stored.
    await expect(
      server.database.inKitchen(kitchenId(), trx => trx('cost_sheets').update({ sheet: '{}' })),
    ).rejects.toThrow(/permission denied/);
    await asOwner.close();
  });

  it('of a batch that was closed before sheets were kept is stored as it stood then', async () => {
    const line = await cooked();
    await release(line, [1, 2, 3, 4]);
    const asOwner = openDatabase(server.urls.ownerUrl, 2);
    const kept = await asOwner.outside(async trx => {
      await enterKitchen(trx, kitchenId());
      await trx('cost_sheets').where({ batch_id: line.batchId }).delete();
      await keepOldSheets(trx, kitchenId(), server.now_ms);
      // Twice is once.
      return keepOldSheets(trx, kitchenId(), server.now_ms + 1000);
    });
    await asOwner.close();
    expect(kept).toBeGreaterThan(0);
    expect(await sheetOf(line)).toMatchObject({
      sharing: 'by net mass',
      keptAt: new Date(server.now_ms).toISOString(),
    });
  });
});

describe('what comes back', () => {
  it('bands return to their lot; lids, food and more than was drawn do not', async () => {
    const line = await cooked();
    const back = (lotId: string, quantity: string) => ({
      params: { batchId: line.batchId },
      body: { lots: [{ lotId, quantity }], reason: 'From jars kept at home.', stamp: line.stamp() },
    });
    const left = async () =>
      (await owner.ok(readLot, { params: { lotId: line.lots.jars ?? '' } })).lot.onHand;
    const before = Number(await left());
    await owner.ok(returnLots, back(line.lots.jars ?? '', '1'));
    expect(Number(await left())).toBe(before + 1);
    expect((await owner.refused(returnLots, back(line.lots.jars ?? '', '4'))).errors[0]).toMatchObject({
      code: 'more-than-drawn',
      path: 'lots[0].quantity',
    });
    expect((await owner.refused(returnLots, back(line.lots.lids ?? '', '1'))).errors[0]?.code).toBe(
      'used-once',
    );
    // A lid that was drawn and never stood on a jar goes back.
    const more = { lotId: line.lots.lids ?? '', lineId: null, quantity: '2' };
    await owner.ok(drawLots, {
      params: { batchId: line.batchId },
      body: { lots: [more], stamp: line.stamp() },
    });
    expect((await owner.refused(returnLots, back(line.lots.lids ?? '', '3'))).errors[0]).toMatchObject({
      code: 'used-once',
      what: 'Lids are used once: 2 of that lot are left over.',
    });
    await owner.ok(returnLots, back(line.lots.lids ?? '', '2'));
    expect((await owner.refused(returnLots, back(line.lots.lids ?? '', '1'))).errors[0]?.code).toBe(
      'used-once',
    );
    expect((await owner.refused(returnLots, back(line.lots.plums ?? '', '1'))).errors[0]?.code).toBe(
      'food-used',
    );
    expect((await owner.refused(returnLots, back(randomUUID(), '1'))).errors[0]?.code).toBe('not-drawn');
    expect(
      (await owner.ok(readCost, { params: { batchId: line.batchId } })).parts.find(p => p.part === 'jars')
        ?.amount,
    ).toBe('0.03');
  });
});

describe('what is taken from the pot', () => {
  it('is a lot with its share of the cost, its allergens and a day; never more than went in, never what its food is not', async () => {
    const line = await cooked();
    const { batchId } = line;
    const made = await owner.ok(addItem, {
      body: upgradeItem({
        id: randomUUID(),
        kind: 'ingredient',
        name: 'Plum juice, own',
        unit: 'g',
        unit_g: 1,
        labelName: 'plum juice',
        allergens: [],
      }),
    });
    const before = await owner.ok(readCost, { params: { batchId } });
    const take = (mass_g: number, over: object = {}) => ({
      params: { batchId },
      body: {
        mass_g,
        how: 'as it stands' as const,
        lotId: randomUUID(),
        itemId: made.id,
        label: 'JUICE',
        stamp: line.stamp(),
        ...over,
      },
    });
    const first = take(500);
    await owner.ok(takeFromPot, first);
    // The same again is acknowledged; another under its id is not.
    await owner.ok(takeFromPot, first);
    expect((await owner.refused(takeFromPot, take(5, { lotId: first.body.lotId }))).code).toBe('id-taken');
    expect((await owner.refused(takeFromPot, take(900_000))).errors[0]?.path).toBe('mass_g');
    expect((await owner.refused(takeFromPot, take(5, { itemId: randomUUID() }))).errors[0]?.path).toBe(
      'itemId',
    );
    // What recipes draw as one food of the library is not a pot of several.
    for (const over of [
      { name: 'Vinegar, made here', use: 'vinegar' as const },
      // A jam is no plain plum, and no tomato at all.
      { name: 'Plums, from a pot', use: 'produce' as const, ingredientId: 'plum' },
      { name: 'Tomatoes, from a pot', use: 'produce' as const, ingredientId: 'tomato' },
    ]) {
      const other = await owner.ok(addItem, {
        body: upgradeItem({ id: randomUUID(), kind: 'ingredient', unit: 'g', unit_g: 1, ...over }),
      });
      expect((await owner.refused(takeFromPot, take(5, { itemId: other.id }))).errors[0]?.path).toBe(
        'itemId',
      );
    }

    const { lot, trace } = await owner.ok(readLot, { params: { lotId: first.body.lotId } });
    expect(lot.facts).toMatchObject({ source: 'made here', released: true });
    expect(lot.facts.subIngredients).toContain('plums');
    expect(lot.facts.from).toEqual([
      expect.objectContaining({ kind: 'pot', lotCode: line.state.started?.lotCode, mass_g: 500 }),
    ]);
    expect(lot.onHand).toBe('500');
    expect(trace.from).toEqual([]);
    // What it cost has left the batch: the two together are what there was.
    const after = await owner.ok(readCost, { params: { batchId } });
    const total = (sheet: typeof before) =>
      sheet.parts.reduce((sum, p) => sum.plus(p.amount), new Decimal(0));
    expect(
      total(before).minus(total(after)).minus(new Decimal(lot.unitCost).times(500)).abs().toNumber(),
    ).toBeLessThan(0.02);
    expect(new Decimal(lot.unitCost).gt(0)).toBe(true);
  });
});

describe('finished jars', () => {
  it('become a lot with their code, contents, allergens and cost; only released ones may be sold inside another batch', async () => {
    const line = await cooked();
    const item = await owner.ok(addItem, {
      body: upgradeItem({
        id: randomUUID(),
        kind: 'ingredient',
        name: 'Plum jam, own',
        unit: 'each',
        unit_g: 280,
        labelName: 'plum jam',
      }),
    });
    const take = (jars: number[], lotId = randomUUID()) => ({
      params: { batchId: line.batchId },
      body: { jars, lotId, itemId: item.id, label: 'JAM', stamp: line.stamp() },
    });
    const held = take([1]);
    await owner.ok(takeJars, held);
    const perJar = (await owner.ok(readCost, { params: { batchId: line.batchId } })).bySize[0];
    const { lot, trace, movements } = await owner.ok(readLot, { params: { lotId: held.body.lotId } });
    expect(lot.facts).toMatchObject({ source: 'jars', released: false });
    expect(lot.facts.subIngredients).toContain('plums');
    expect(lot.facts.from[0]).toMatchObject({
      kind: 'jars',
      lotCode: line.state.started?.lotCode,
      jars: [1],
    });
    expect(new Decimal(lot.unitCost).toFixed(6)).toBe(new Decimal(perJar?.exactPerJar ?? 0).toFixed(6));
    expect(trace.from).toEqual([]);
    expect(movements.map(m => [m.reason, m.quantity])).toEqual([['made', '1']]);
    // The same decision again is acknowledged; the jar is gone.
    await owner.ok(takeJars, held);
    expect((await owner.refused(takeJars, take([1, 2]))).errors[0]?.code).toBe('jars-unfit');
    expect(
      (await owner.refused(takeJars, { ...take([2]), body: { ...take([2]).body, itemId: randomUUID() } }))
        .errors[0]?.path,
    ).toBe('itemId');
    // Released, it may go into what is sold; it brings its contents along.
    await owner.ok(releaseJars, {
      params: { batchId: line.batchId },
      body: { jars: [2], stamp: line.stamp() },
    });
    const free = take([2]);
    await owner.ok(takeJars, free);
    const next = await Line.open(
      owner,
      {
        ...plumJam,
        code: 'NXT',
        lines: plumJam.lines.map(l => (l.id === 'sugar' ? { ...l, allergens: [] } : l)),
      },
      'half-pint',
      2,
    );
    await next.start();
    const draw = (lotId: string) => ({
      params: { batchId: next.batchId },
      body: { lots: [{ lotId, lineId: 'plums', quantity: '1' }], stamp: next.stamp() },
    });
    expect((await owner.refused(drawLots, draw(held.body.lotId))).errors[0]?.code).toBe('jars-not-released');
    await next.draw([{ lotId: free.body.lotId, lineId: 'plums', quantity: '1' }]);
    expect(next.state.draws[0]?.lots[0]?.subIngredients).toContain('sugar');
  });

  it('rebuild derives the same stock from the record', async () => {
    const dump = () =>
      server.database.inKitchen(kitchenId(), async trx =>
        JSON.stringify([
          await trx('movements')
            .orderBy(['lot_id', 'movement_id'])
            .select('movement_id', 'lot_id', 'item_id', 'quantity', 'unit_cost', 'reason', 'batch_id', 'at'),
          await trx('lots').orderBy('lot_id').select('lot_id', trx.raw('on_hand::float8 as left')),
          (await trx('item_months').orderBy(['item_id', 'month'])).map(m => [
            m.item_id,
            m.month,
            Number(m.quantity),
            Number(m.value).toFixed(6),
          ]),
        ]),
      );
    const before = await dump();
    const asOwner = openDatabase(server.urls.ownerUrl, 2);
    await asOwner.outside(async trx => {
      await enterKitchen(trx, kitchenId());
      await rebuildKitchen(trx, kitchenId());
    });
    await asOwner.close();
    expect(await dump()).toBe(before);
  });
});

describe('plans and the shopping list', () => {
  it('keep what they need, list what is missing in packages, and end when the batch is started', async () => {
    const line = await Line.open(
      owner,
      {
        ...plumJam,
        code: 'PLN',
        lines: plumJam.lines.map(l => ({
          ...l,
          ingredientId: null,
          name: `${l.name} pln`,
          labelName: `${l.labelName} pln`,
        })),
      },
      'half-pint',
      4,
    );
    const lids = await owner.ok(addItem, {
      body: upgradeItem({
        id: randomUUID(),
        kind: 'band',
        name: 'Bands pln',
        unit: 'each',
        packages: [{ name: 'box of 12', quantity: '12' }],
        leadTime_days: 4,
      }),
    });
    const plan = (over: object = {}) => {
      const id = line.batchId;
      return {
        params: { planId: id },
        body: {
          id,
          day: '2026-12-20',
          recipeId: line.recipeId,
          factor: '2',
          jars: [{ size: 'half-pint' as const, count: 16 }],
          ...over,
        },
      };
    };
    expect((await owner.refused(putPlan, plan({ day: '2026-01-01' }))).errors[0]?.path).toBe('day');
    expect(
      (await owner.refused(putPlan, plan({ jars: [{ size: 'half-pint', count: 0 }] }))).errors[0]?.path,
    ).toBe('jars');
    await owner.ok(putPlan, plan());
    await owner.ok(putPlan, plan({ day: '2026-12-21' }));
    expect((await owner.ok(listPlans)).plans.map(p => p.day)).toEqual(['2026-12-21']);
    const list = await owner.ok(readShopping);
    expect(list.lines.find(l => l.itemId === lids.id)).toMatchObject({
      needed: '16',
      missing: '16',
      packages: [{ name: 'box of 12', count: 2 }],
      buy: '24',
      orderBy: '2026-12-17',
    });
    const plums = list.lines.find(l => l.name === 'plums');
    expect(plums?.missing ?? '0').toBe('0');
    const reserved = (await owner.ok(readShelf)).shelf.find(s => s.item.id === lids.id)?.reserved;
    expect(reserved).toBe('16');
    // Started under the plan's id, it is planned no more.
    await owner.ok(startBatch, { body: line.startBody() });
    expect((await owner.ok(listPlans)).plans).toEqual([]);
    expect((await owner.ok(dropPlan, { params: { planId: randomUUID() } })).removed).toBe(false);
  });
});
