import { randomUUID } from 'node:crypto';
import {
  appendFacts,
  drawLots,
  listStock,
  moveLot,
  readBatch,
  readLot,
  releaseJars,
  reverseDraw,
} from '@cocotte/contract';
import type { Entered } from '@cocotte/core/batches';
import { assess } from '@cocotte/core/checks';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, waxBeans } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { moveOf, newLot } from '../../testing/stock.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { rebuildKitchen } from '../src/admin/rebuild.ts';
import { enterKitchen, openDatabase } from '../src/house/database.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

let codes = 0;
async function started(recipe = crushedTomatoes): Promise<Line> {
  const line = await Line.open(
    owner,
    { ...recipe, code: `U${String.fromCharCode(65 + Math.floor(codes / 26), 65 + (codes++ % 26))}` },
    'pint',
    2,
  );
  return line.start();
}
const left = async (lotId: string) => Number((await owner.ok(readLot, { params: { lotId } })).lot.onHand);
const use = (line: Line, key: string, quantity: number, over: Partial<Entered<'lot.used'>> = {}) =>
  line.fact('lot.used', { lotId: line.lots[key] ?? '', lineId: key, quantity, unit: 'g', ...over });
const stock = (only: '' | 'short' = '') =>
  owner.ok(listStock, { query: { after: '', search: '', kind: '', only, at: '' } });
const correct = (line: Line, replaces: string, body: Entered<'lot.used'> | null) =>
  line.fact('entry.corrected', {
    replaces,
    type: 'lot.used',
    reason: 'looked at the bag again',
    occurredAt: null,
    body,
  } as never);

describe('what was used without a connection', () => {
  it('is drawn when it arrives, with the cost and facts the lot has, once however often it is sent', async () => {
    const line = await started();
    const entry = use(line, 'tomatoes', 1200);
    await line.send([entry]);
    await line.send([entry]);
    expect(line.state.draws).toMatchObject([
      {
        used: { entryId: entry.id, short: '0' },
        lots: [{ lineId: 'tomatoes', quantity: '1200', unitCost: '0.01' }],
      },
    ]);
    expect(line.state.used).toMatchObject([{ drawn: true }]);
    expect(line.state.deviations).toEqual([]);
    expect(line.state.books).toEqual([]);
    expect(await left(line.lots.tomatoes ?? '')).toBe(498_800);
    // The kitchen made the draw, in the name of whoever used it; their clocks have no part in it.
    const draw = line.view?.events.at(-1);
    expect(draw).toMatchObject({ type: 'lot.drawn', personId: owner.personId });
    expect(draw?.deviceId).not.toBe(entry.deviceId);
  });

  it('keeps the time of what was entered after it', async () => {
    const line = await started();
    const before_ms = server.now_ms;
    const used = use(line, 'tomatoes', 10);
    line.wait(30);
    const read = line.fact('temperature.read', { where: 'pot', temp_C: 99 });
    const read_ms = server.now_ms;
    line.wait(240);
    await line.send([used, read]);
    expect(line.state.used[0]?.by.at_ms).toBe(before_ms);
    expect(line.state.temperatures[0]?.by.at_ms).toBe(read_ms);
  });

  it('goes below what the books had; the shortage is shown, and one tap settles it', async () => {
    const line = await started();
    const lotId = line.lots.tomatoes ?? '';
    await line.send([use(line, 'tomatoes', 500_300)]);
    expect(await left(lotId)).toBe(-300);
    expect(line.state.books).toMatchObject([
      {
        what: 'tomatoes, lot L-tomatoes: 300 g more was used than the books had.',
        lot: { lotId },
        settled: null,
      },
    ]);
    // It is bookkeeping: it holds no jar.
    expect(line.state.deviations).toEqual([]);
    const shelf = await stock('short');
    expect(shelf.short).toBe(1);
    expect(shelf.rows).toMatchObject([{ short: { lotId, label: 'L-tomatoes', quantity: '300' } }]);
    expect((await stock()).rows.filter(r => r.short)).toHaveLength(1);
    // Nothing more can be drawn of it by decision; more may have been used.
    const draw = { lots: [{ lotId, lineId: 'tomatoes', quantity: '1' }], stamp: line.stamp() };
    const refused = await owner.refused(drawLots, { params: { batchId: line.batchId }, body: draw });
    expect(refused.code).toBe('more-than-lot');
    await line.send([use(line, 'tomatoes', 50)]);
    expect(await left(lotId)).toBe(-350);
    expect(line.state.draws.at(-1)?.used?.short).toBe('50');
    await owner.ok(moveLot, moveOf(lotId, 'count', '0') as never);
    expect(await left(lotId)).toBe(0);
    expect((await stock('short')).rows).toEqual([]);
    await line.note('deviation.settled', {
      key: line.state.books[0]?.key ?? '',
      reason: 'It was there.',
      minutes: null,
    });
    expect(line.state.books.map(b => b.settled !== null)).toEqual([true, false]);
  });

  it('counts lids and jars too, in their unit; another unit than the lot has is not guessed', async () => {
    const line = await started();
    await line.send([use(line, 'lids', 3, { lineId: null, unit: 'each' })]);
    expect(await left(line.lots.lids ?? '')).toBe(197);
    await line.send([use(line, 'lids', 2, { lineId: null, unit: 'g' })]);
    expect(await left(line.lots.lids ?? '')).toBe(197);
    expect(line.state.books.map(b => b.what)).toEqual(['A lot was used that is not in the books.']);
    await line.send([use(line, 'lids', 1.5, { lineId: null, unit: 'each' })]);
    expect(await left(line.lots.lids ?? '')).toBe(197);
  });

  it('is drawn anew when it is corrected, and put back when it is taken back', async () => {
    const line = await started();
    const entry = use(line, 'tomatoes', 800);
    await line.send([entry]);
    const other = await newLot(
      owner,
      (await owner.ok(readLot, { params: { lotId: line.lots.tomatoes ?? '' } })).item,
      '900',
    );
    await line.send([
      correct(line, entry.id, { lotId: other.id, lineId: 'tomatoes', quantity: 900, unit: 'g' }),
    ]);
    expect(await left(line.lots.tomatoes ?? '')).toBe(500_000);
    expect(await left(other.id)).toBe(0);
    expect(line.state.draws).toMatchObject([{ lots: [{ lotId: other.id, quantity: '900' }] }]);
    // The same lot and amount once more moves nothing.
    const seq = line.view?.lastSeq ?? 0;
    await line.send([
      correct(line, entry.id, { lotId: other.id, lineId: 'tomatoes', quantity: 900, unit: 'g' }),
    ]);
    expect(line.view?.lastSeq).toBe(seq + 1);
    await line.send([correct(line, entry.id, null)]);
    expect(line.state.draws).toEqual([]);
    expect(await left(other.id)).toBe(900);
    // What was used is not put back by hand: its entry is corrected.
    await line.send([use(line, 'tomatoes', 10)]);
    const refused = await owner.refused(reverseDraw, {
      params: { batchId: line.batchId, drawId: line.state.draws[0]?.drawId ?? '' },
      body: { reason: 'It was the other batch.', stamp: line.stamp() },
    });
    expect(refused.code).toBe('was-used');
  });

  it('holds the batch where the lot may not serve what it was used for, until that is corrected', async () => {
    const line = await started(waxBeans);
    const { item } = await owner.ok(readLot, { params: { lotId: line.lots.vinegar ?? '' } });
    const weak = await newLot(owner, item, '5000', { strength_pct: 4 });
    const entry = use(line, 'vinegar', 900, { lotId: weak.id });
    await line.send([entry]);
    expect(line.state.draws).toEqual([]);
    expect(await left(weak.id)).toBe(5000);
    expect(line.state.deviations).toMatchObject([{ code: 'used_unfit', jars: null, settles: null }]);
    const gate = assess(line.view?.events ?? []).standing.gate;
    expect(gate.releasable).toEqual([]);
    for (const [lotId, lineId] of [
      [randomUUID(), 'vinegar'],
      [line.lots.vinegar ?? '', '__proto__'],
    ] as const) {
      await line.send([use(line, 'vinegar', 1, { lotId, lineId })]);
      expect(line.state.used.at(-1)?.drawn).toBe(false);
    }
    expect(line.state.deviations).toHaveLength(3);
    const own = line.lots.vinegar ?? '';
    for (const u of line.state.used)
      await line.send([
        correct(line, u.by.eventId, { lotId: own, lineId: 'vinegar', quantity: 900, unit: 'g' }),
      ]);
    expect(line.state.deviations).toEqual([]);
    expect(line.state.draws).toHaveLength(3);
  });

  it('moves nothing any more once jars were released on it', async () => {
    const line = await started();
    await line.draw();
    await line.cook(40);
    await line.readPh(4.1);
    const jars = assess(line.view?.events ?? []).standing.gate.releasable;
    expect(jars).toEqual([2]);
    line.view = await owner.ok(releaseJars, {
      params: { batchId: line.batchId },
      body: { jars, stamp: line.stamp() },
    });
    const before = await left(line.lots.tomatoes ?? '');
    await line.send([use(line, 'tomatoes', 100)]);
    expect(await left(line.lots.tomatoes ?? '')).toBe(before);
    // It is known too late to be in the books, and holds what is not proven any more.
    expect(line.state.deviations.map(d => d.code)).toContain('used_unfit');
  });

  it('is derived again from the record to the same stock', async () => {
    const dump = () =>
      server.database.inKitchen(owner.named, async trx =>
        JSON.stringify([
          await trx('movements')
            .orderBy(['lot_id', 'movement_id'])
            .select('movement_id', 'lot_id', 'quantity', 'unit_cost', 'reason', 'batch_id', 'at'),
          await trx('lots').orderBy('lot_id').select('lot_id', trx.raw('on_hand::float8 as left')),
        ]),
      );
    const before = await dump();
    const asOwner = openDatabase(server.urls.ownerUrl, 2);
    await asOwner.outside(async trx => {
      await enterKitchen(trx, owner.named);
      await rebuildKitchen(trx, owner.named);
    });
    await asOwner.close();
    expect(await dump()).toBe(before);
  });

  it('of two devices at one moment is drawn for each, also of the last of a lot', async () => {
    const line = await started();
    const { item } = await owner.ok(readLot, { params: { lotId: line.lots.tomatoes ?? '' } });
    const lot = await newLot(owner, item, '100');
    const both = [1, 2, 3].map(() => ({
      params: { batchId: line.batchId },
      body: line.delivery([use(line, 'tomatoes', 60, { lotId: lot.id })]),
    }));
    await Promise.all(both.map(d => owner.ok(appendFacts, d)));
    line.view = await owner.ok(readBatch, { params: { batchId: line.batchId } });
    expect(await left(lot.id)).toBe(-80);
    expect(line.state.draws.map(d => Number(d.used?.short)).sort((a, b) => a - b)).toEqual([0, 20, 60]);
  });
});
