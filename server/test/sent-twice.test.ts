import { randomUUID } from 'node:crypto';
import {
  type AnyEndpoint,
  addItem,
  addReceipt,
  addRecipe,
  addTasting,
  appendFacts,
  changeItem,
  changeKitchen,
  drawLots,
  dropPlan,
  finishImport,
  importPart,
  mixLots,
  moveLot,
  openLot,
  prepareLot,
  putMapping,
  putPlan,
  readKitchen,
  readLot,
  receiveLot,
  releaseJars,
  returnLots,
  reverseDraw,
  startBatch,
  takeBackReceipt,
} from '@cocotte/contract';
import { emptyMapping, plainFacts, upgradeItem } from '@cocotte/core/stores';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { newItem, newLot, receiptLine, receiptOf } from '../../testing/stock.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { rebuildKitchen } from '../src/admin/rebuild.ts';
import { enterKitchen, openDatabase } from '../src/house/database.ts';
import { lockLots, move, movement } from '../src/stores/ledger.ts';
import { closeHeavy } from '../src/heavy/pool.ts';

/**
 * The interface sends a call again by itself when its answer was lost, under the same ids: each call that changes
 * something does so once, sent again later or at the same moment.
 */
let server: TestServer;
let owner: Client;
let line: Line;
let kitchenId: string;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  kitchenId = owner.session?.kitchenId ?? '';
  line = await (await (await Line.open(owner, plumJam, 'half-pint', 4)).start()).draw();
  await line.cook(15);
});
afterAll(async () => {
  await server.close();
  await closeHeavy();
});

/** How many rows there are of everything that a call may add. */
async function rows(): Promise<string> {
  return server.database.inKitchen(kitchenId, async trx => {
    const out: unknown[] = [];
    for (const table of [
      'recipes',
      'recipe_versions',
      'items',
      'lots',
      'movements',
      'events',
      'receipts',
      'tastings',
      'plans',
      'receipt_mappings',
      'batches',
    ])
      out.push(table, (await trx(table).count('* as n').first()).n);
    out.push(await trx('lots').sum('on_hand as n').first());
    return JSON.stringify(out);
  });
}

let codes = 0;
const freshCode = () =>
  `Z${String.fromCharCode(65 + Math.floor(codes / 26))}${String.fromCharCode(65 + (codes++ % 26))}`;

type Input = { params?: object; query?: object; body?: object };
const cases: [name: string, endpoint: AnyEndpoint, input: () => Promise<Input> | Input][] = [
  [
    'an item',
    addItem,
    () => ({ body: upgradeItem({ id: randomUUID(), kind: 'lid', name: 'Lid', unit: 'each' }) }),
  ],
  [
    'a change of an item',
    changeItem,
    async () => {
      const item = await newItem(owner);
      return { params: { itemId: item.id }, body: { ...item, name: 'Changed' } };
    },
  ],
  [
    'settings',
    changeKitchen,
    async () => {
      const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
      return { body: { ...settings, makerName: `Maker ${settings.version}` } };
    },
  ],
  [
    'a lot',
    receiveLot,
    async () => ({
      body: {
        id: randomUUID(),
        itemId: (await newItem(owner)).id,
        label: 'L',
        supplier: '',
        receivedOn: '2026-11-20',
        bestBy: null,
        unitCost: '1',
        strength_pct: null,
        facts: plainFacts(),
        quantity: '5',
      },
    }),
  ],
  [
    'a loss',
    moveLot,
    async () => {
      const lot = await newLot(owner, await newItem(owner), '100');
      return {
        params: { lotId: lot.id },
        body: { id: randomUUID(), kind: 'loss', quantity: '7', reason: 'spilled' },
      };
    },
  ],
  [
    'an opened lot',
    openLot,
    async () => {
      const item = await newItem(owner);
      const [first, second] = [await newLot(owner, item, '100'), await newLot(owner, item, '200')];
      await owner.ok(openLot, { params: { lotId: first.id }, body: { id: randomUUID() } });
      return { params: { lotId: second.id }, body: { id: randomUUID() } };
    },
  ],
  [
    'a mix',
    mixLots,
    async () => {
      const item = await newItem(owner);
      const lots = [await newLot(owner, item, '100'), await newLot(owner, item, '200')];
      return {
        body: { lotId: randomUUID(), label: 'BIN', parts: lots.map(l => ({ lotId: l.id, quantity: '10' })) },
      };
    },
  ],
  [
    'a preparation',
    prepareLot,
    async () => {
      const lot = await newLot(owner, await newItem(owner), '100');
      return {
        body: {
          lotId: randomUUID(),
          itemId: (await newItem(owner)).id,
          label: 'DRY',
          how: 'dried',
          parts: [{ lotId: lot.id, quantity: '10' }],
          quantity: '9',
          keepsUntil: '2027-11-24',
          value: 'nothing',
          minutes: 0,
          unitCost: '0',
          note: '',
        },
      };
    },
  ],
  [
    'a receipt',
    addReceipt,
    async () => ({ body: { receipt: receiptOf([receiptLine(await newItem(owner))]), again: false } }),
  ],
  [
    'a receipt taken back',
    takeBackReceipt,
    async () => {
      const receipt = receiptOf([receiptLine(await newItem(owner))]);
      await owner.ok(addReceipt, { body: { receipt, again: false } });
      return { params: { receiptId: receipt.id }, body: { reason: 'wrong shop' } };
    },
  ],
  [
    'a way of reading files',
    putMapping,
    () => {
      const id = randomUUID();
      return { params: { mappingId: id }, body: { id, name: 'M', mapping: emptyMapping } };
    },
  ],
  ['a recipe', addRecipe, () => ({ body: { id: randomUUID(), recipe: { ...waxBeans, code: freshCode() } } })],
  [
    'a tasting',
    addTasting,
    () => ({
      params: { recipeId: line.recipeId },
      body: { id: randomUUID(), rating: 4, notes: '', lotCode: '' },
    }),
  ],
  [
    'a file of recipes',
    finishImport,
    async () => {
      const importId = randomUUID();
      await owner.ok(importPart, {
        params: { importId },
        body: { from: 0, recipes: [{ ...waxBeans, code: 'FIL' }], variantOf: [null] },
      });
      return { params: { importId }, body: { count: 1, newCodes: true } };
    },
  ],
  [
    'a plan',
    putPlan,
    () => {
      const id = randomUUID();
      return {
        params: { planId: id },
        body: {
          id,
          day: '2026-12-24',
          recipeId: line.recipeId,
          factor: '1',
          jars: [{ size: 'half-pint', count: 2 }],
        },
      };
    },
  ],
  ['a plan dropped', dropPlan, () => ({ params: { planId: randomUUID() } })],
  ['a batch', startBatch, () => ({ body: { ...line.startBody(), batchId: randomUUID() } })],
  [
    'facts',
    appendFacts,
    () => ({
      params: { batchId: line.batchId },
      body: {
        events: [line.fact('note.written', { text: 'once' }), line.fact('minutes.worked', { minutes: 5 })],
      },
    }),
  ],
  [
    'a draw',
    drawLots,
    () => ({
      params: { batchId: line.batchId },
      body: { lots: [{ lotId: line.lots.sugar, lineId: 'sugar', quantity: '10' }], stamp: line.stamp() },
    }),
  ],
  [
    'a draw put back',
    reverseDraw,
    async () => {
      const fresh = await (await Line.open(owner, { ...plumJam, code: freshCode() }, 'half-pint', 4)).start();
      await fresh.draw();
      const drawId = fresh.view?.events.at(-1)?.id;
      return {
        params: { batchId: fresh.batchId, drawId },
        body: { reason: 'too much', stamp: fresh.wait(1).stamp() },
      };
    },
  ],
  [
    'a return',
    returnLots,
    () => ({
      params: { batchId: line.batchId },
      body: { lots: [{ lotId: line.lots.jars, quantity: '1' }], reason: 'not used', stamp: line.stamp() },
    }),
  ],
  [
    'a release',
    releaseJars,
    () => ({ params: { batchId: line.batchId }, body: { jars: [1, 2], stamp: line.stamp() } }),
  ],
];

describe('sent again', () => {
  it.each(cases)('%s is done once', async (_name, endpoint, input) => {
    const given = (await input()) as never;
    const first = await owner.try(endpoint, given);
    expect([first.status, JSON.stringify(first.body).slice(0, 400)]).toEqual([200, expect.anything()]);
    const after = await rows();
    const second = await owner.try(endpoint, given);
    expect(second.status).toBe(200);
    expect(await rows()).toBe(after);
  });

  it.each(cases)('%s is done once, by three at the same moment', async (_name, endpoint, input) => {
    const given = (await input()) as never;
    // On a machine that is busy one of them may be asked to come again, and does, as the interface does by itself.
    const sent = async () => {
      for (;;) {
        const answer = await owner.try(endpoint, given);
        if (answer.status !== 503) return answer;
      }
    };
    const answers = await Promise.all([sent(), sent(), sent()]);
    expect(
      answers.map(a => [a.status, a.status === 200 ? '' : JSON.stringify(a.body).slice(0, 300)]),
    ).toEqual(answers.map(() => [200, '']));
    const after = await rows();
    expect((await owner.try(endpoint, given)).status).toBe(200);
    expect(await rows()).toBe(after);
  });

  it('a container opened by two is opened as each said, though the first is told again afterwards', async () => {
    const item = await newItem(owner);
    const [a, b] = [await newLot(owner, item, '100'), await newLot(owner, item, '200')];
    const openA = { params: { lotId: a.id }, body: { id: randomUUID() } };
    const openB = { params: { lotId: b.id }, body: { id: randomUUID() } };
    await owner.ok(openLot, openA);
    await owner.ok(openLot, openB);
    // The answer to the first was lost and it is sent again: the second stays open.
    await owner.ok(openLot, openA);
    const left = async (lotId: string) => (await owner.ok(readLot, { params: { lotId } })).lot.onHand;
    expect([await left(a.id), await left(b.id)]).toEqual(['0', '200']);
    expect((await owner.refused(openLot, { ...openB, body: openA.body })).code).toBe('id-other-content');
  });
});

describe('what is derived again beside a kitchen that works', () => {
  const rebuild = async () => {
    const admin = openDatabase(server.urls.ownerUrl, 2, 60_000);
    await admin.outside(async trx => {
      await enterKitchen(trx, kitchenId);
      await rebuildKitchen(trx, kitchenId);
    });
    await admin.close();
  };

  it('waits for what is being moved, and counts it', async () => {
    const item = await newItem(owner);
    const lot = await newLot(owner, item, '1000');
    let end: () => void = () => undefined;
    const held = new Promise<void>(resolve => {
      end = resolve;
    });
    let begun: () => void = () => undefined;
    const moved = new Promise<void>(resolve => {
      begun = resolve;
    });
    const moving = server.database.inKitchen(kitchenId, async trx => {
      await lockLots(trx, kitchenId, [lot.id]);
      const one = {
        id: randomUUID(),
        lotId: lot.id,
        quantity: '-7',
        unitCost: '0.01',
        reason: 'lost',
      } as const;
      await move(trx, kitchenId, [movement(one)], new Date(server.now_ms).toISOString());
      begun();
      await held;
    });
    await moved;
    const rebuilding = rebuild();
    await new Promise(resolve => setTimeout(resolve, 700));
    end();
    await Promise.all([moving, rebuilding]);
    expect((await owner.ok(readLot, { params: { lotId: lot.id } })).lot.onHand).toBe('993');
    const month = await server.database.inKitchen(kitchenId, trx =>
      trx('item_months').where({ item_id: item.id }).sum('quantity as n').first(),
    );
    expect(Number(month.n)).toBe(993);
  });

  it('loses nothing that is moved meanwhile', async () => {
    const item = await newItem(owner);
    const lots = await Promise.all(Array.from({ length: 6 }, () => newLot(owner, item, '100000')));
    const stop = new AbortController();
    const moving = lots.map(async lot => {
      let moved = 0;
      while (!stop.signal.aborted) {
        const answer = await owner.try(moveLot, {
          params: { lotId: lot.id },
          body: { id: randomUUID(), kind: 'loss', quantity: '1', reason: 'spilled' },
        });
        expect([200, 503]).toContain(answer.status);
        if (answer.status === 200) moved += 1;
      }
      return moved;
    });
    for (let i = 0; i < 8; i++) {
      await rebuild();
      // A new item and its first lot, in the middle of it.
      await newLot(owner, await newItem(owner), '5');
    }
    stop.abort();
    const moved = await Promise.all(moving);
    for (const [i, lot] of lots.entries())
      expect((await owner.ok(readLot, { params: { lotId: lot.id } })).lot.onHand).toBe(
        String(100000 - (moved[i] as number)),
      );
    const { rows: wrong } = await server.database.inKitchen(kitchenId, trx =>
      trx.raw(
        `select m.item_id from (select item_id, sum(quantity) q, sum(quantity * unit_cost) v from movements where kitchen_id = ? group by 1) m
        full join (select item_id, sum(quantity) q, sum(value) v from item_months where kitchen_id = ? group by 1) s using (item_id)
        where m.q is distinct from s.q or m.v is distinct from s.v`,
        [kitchenId, kitchenId],
      ),
    );
    expect(wrong).toEqual([]);
  });
});
