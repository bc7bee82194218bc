import { randomUUID } from 'node:crypto';
import {
  type Curve,
  CURVE_POINTS,
  curveTable,
  followCurve,
  keepCurve,
  layCurve,
  listCurves,
  readCurve,
  readBatch,
} from '@cocotte/contract';
import { fold } from '@cocotte/core/batches';
import { boilingPoint_C } from '@cocotte/core/heat';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { Stove, thermometer } from '../../devices/instruments.ts';
import { serve } from '../../devices/serve.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer, problemOf } from '../../testing/test-server.ts';
import { verifyChain } from '../src/admin/verify.ts';
import { chunkHash } from '../src/batches/curves.ts';
import { connectInstruments, heldSince } from '../src/kitchen/instruments.ts';

/** Instruments live this much faster here: a test does not wait for a pot. */
const FAST = 100;
let server: TestServer;
let owner: Client;
let viewer: Client;
let line: Line;
let stop: () => Promise<void>;

beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  viewer = await server.join(owner, 'viewer', 'vi@test.example', false);
  line = await Line.open(owner, plumJam, 'half-pint', 8);
  await line.start('trial');
  const stove = new Stove(boilingPoint_C(716));
  stove.fire(1);
  const probe = thermometer(stove);
  const served = await serve(probe, {
    every_ms: 10,
    tick: s => {
      stove.tick(s * FAST);
      probe.tick(s * FAST);
    },
  });
  stop = served.close;
  connectInstruments([served.port], () => performance.now() * FAST);
});
afterAll(async () => {
  connectInstruments([]);
  await stop();
  await server.close();
});

const params = (curveId: string) => ({ batchId: line.batchId, curveId });
const follow = (over: Partial<Parameters<typeof body>[0]> = {}, who = owner) =>
  who.try(followCurve, { params: { batchId: line.batchId }, body: body(over) });
const body = (over: { curveId?: string; stepId?: string; instrumentId?: string }) => ({
  curveId: randomUUID(),
  stepId: 'boil',
  potId: null,
  instrumentId: 'probe-1',
  ...over,
});
/** Lets so many seconds of the pot pass, for the kitchen's clock as for the instrument. */
async function cook(seconds: number): Promise<void> {
  const before = heldSince('probe-1', Infinity).length;
  await expect.poll(() => heldSince('probe-1', Infinity).length, { timeout: 60_000 }).toBeGreaterThan(before);
  await new Promise(resolve => setTimeout(resolve, (seconds / FAST) * 1000));
  server.now_ms += seconds * 1000;
}
const keep = (curveId: string, stamp = line.device.stamp(server.now_ms)) =>
  owner.try(keepCurve, { params: params(curveId), body: { stamp } });
const verdict = () =>
  server.database.inKitchen(owner.session?.kitchenId ?? '', trx =>
    verifyChain(trx, owner.session?.kitchenId ?? ''),
  );

describe('a curve beside the record', () => {
  it('is followed once, by who may cook, of a thermometer that is there and a step of the batch', async () => {
    await expect.poll(() => heldSince('probe-1', Infinity).length).toBeGreaterThan(0);
    expect((await follow({}, viewer)).status).toBe(403);
    expect(problemOf(await follow({ stepId: '__proto__' })).errors[0]).toMatchObject({ path: 'stepId' });
    expect(problemOf(await follow({ instrumentId: 'probe-9' })).errors[0]).toMatchObject({
      code: 'no-instrument',
    });
    const curveId = randomUUID();
    const [one, again] = [await follow({ curveId }), await follow({ curveId })];
    expect([one.status, again.status]).toEqual([200, 200]);
    expect((one.body as Curve).checked).toEqual({ at: '2026-11-01T09:00:00.000Z', off: 0.4 });
    const { curves } = await viewer.ok(listCurves, { params: { batchId: line.batchId } });
    expect(curves.map(c => c.curveId)).toEqual([curveId]);
    // Kept before it showed anything: there is nothing to keep, and the record says nothing of it.
    expect(problemOf(await keep(curveId)).errors[0]).toMatchObject({ code: 'empty-curve' });
  });

  it('is laid down in chunks whose hashes are chained, drawn in few points, kept as one small entry', async () => {
    const curveId = randomUUID();
    await follow({ curveId });
    await cook(60);
    const first = await owner.ok(layCurve, { params: params(curveId) });
    expect(first.readings).toBeGreaterThan(3);
    // Nothing is laid twice: two tablets may ask at once.
    const [a, b] = await Promise.all([
      owner.ok(layCurve, { params: params(curveId) }),
      owner.ok(layCurve, { params: params(curveId) }),
    ]);
    expect(Math.max(a.readings, b.readings) - first.readings).toBeLessThan(FAST);
    await cook(60);
    const seen = await viewer.ok(readCurve, { params: params(curveId) });
    expect(seen.points.length).toBeGreaterThan(first.readings);
    expect(seen.points.length).toBeLessThanOrEqual(CURVE_POINTS);
    const times = seen.points.map(p => p.at_ms);
    expect(times).toEqual(times.toSorted((x, y) => x - y));
    expect(new Set(times).size).toBe(times.length);

    const stamp = line.device.stamp(server.now_ms);
    const [kept, twice] = [await keep(curveId, stamp), await keep(curveId, stamp)];
    expect([kept.status, twice.status]).toEqual([200, 200]);
    expect(problemOf(await keep(curveId)).errors[0]).toMatchObject({ code: 'curve-kept' });
    const view = await viewer.ok(readBatch, { params: { batchId: line.batchId } });
    const [entry, ...more] = view.events.filter(e => e.type === 'curve.kept');
    expect(more).toEqual([]);
    expect(JSON.stringify(entry).length).toBeLessThan(2000);
    const { curves } = fold(view.events);
    expect(curves[0]).toMatchObject({ curveId, instrumentId: 'probe-1', stepId: 'boil' });

    // What lies there is what the entry names, reading by reading.
    const answer = await viewer.try(curveTable, { params: params(curveId) });
    const rows = new TextDecoder()
      .decode(answer.body as Uint8Array)
      .trim()
      .split('\r\n');
    expect(rows[0]).toBe('instant,temperature_C');
    expect(rows.length - 1).toBe(curves[0]?.readings);
    const temps = rows.slice(1).map(r => Number(r.split(',')[1]));
    expect(Math.max(...temps)).toBe(curves[0]?.highest_C);
    expect(Math.min(...temps)).toBe(curves[0]?.lowest_C);
    // What the instrument shows afterwards is not of this curve any more.
    await cook(30);
    const after = await owner.ok(layCurve, { params: params(curveId) });
    expect(after.readings).toBe(curves[0]?.readings);
    expect((await verdict()).fault).toBeNull();
  });

  it('that was changed beside the record is found by verify', async () => {
    const thief = new pg.Client({ connectionString: server.urls.ownerUrl });
    await thief.connect();
    await thief.query(
      `update curve_chunks set content = replace(content, ',', ', ') where number = 1 and curve_id =
       (select curve_id from curves where kept_at is not null limit 1)`,
    );
    await thief.end();
    expect((await verdict()).fault).toMatch(/chunk 1 was changed in the curve of entry \d+/);
    expect(chunkHash('a', 'b')).not.toBe(chunkHash('b', 'a'));
  });
});
