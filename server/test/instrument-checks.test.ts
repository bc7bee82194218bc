import { randomUUID } from 'node:crypto';
import {
  addPaper,
  changeKitchen,
  checkInstrument,
  listInstrumentChecks,
  readCheckHistory,
  readKitchen,
  releaseJars,
  printLabels,
  retireInstrument,
  withdrawJars,
} from '@cocotte/contract';
import { bareCalibration } from '@cocotte/core/acid';
import { boilingPoint_C } from '@cocotte/core/heat';
import { type CheckBody, JAM_THERMOMETER } from '@cocotte/core/kitchen';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { worseLids } from '@cocotte/core/checks';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { picture } from '../../testing/papers.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { toPrint } from '../../testing/labels.ts';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner('Kitchen');
});
afterAll(() => server.close());

const check = (id: string, body: CheckBody, over: object = {}) => ({
  body: { id: randomUUID(), instrument: { id, kind: body.kind, name: `The ${id}` }, body, ...over },
});
const calibration = (over: object = {}) =>
  bareCalibration({
    at: '2001-01-01T00:00:00.000Z',
    temp_C: 24,
    points: [
      { ph: 4.01, mV: 174 },
      { ph: 7, mV: -1 },
    ],
    resolution_ph: 0.01,
    ...over,
  });

describe('checks of instruments', () => {
  it('the first makes the instrument known; each is kept with who did it and when, by the kitchen’s clock', async () => {
    const asked = check('meter-1', { kind: 'ph meter', calibration: calibration() });
    const { check: kept } = await owner.ok(checkInstrument, asked);
    const now = new Date(server.now_ms).toISOString();
    expect(kept).toMatchObject({ at: now, personId: owner.personId });
    // A device says what was read, and neither when nor how good it is.
    expect(kept.body).toMatchObject({ calibration: { at: now, slope_pct: expect.closeTo(99, 0) } });
    // Sent again it is acknowledged; the same id for another check is refused.
    expect((await owner.ok(checkInstrument, asked)).check.id).toBe(kept.id);
    const other = {
      body: { ...asked.body, body: { kind: 'ph meter' as const, calibration: calibration({ temp_C: 22 }) } },
    };
    expect((await owner.try(checkInstrument, other)).status).toBe(409);
    const { instruments } = await owner.ok(listInstrumentChecks);
    expect(instruments).toMatchObject([
      { instrument: { id: 'meter-1' }, retired: false, checks: [{ id: kept.id }] },
    ]);
  });

  it('buffers swapped or alike, an impossible slope and figures no instrument shows are refused beside their field', async () => {
    const codes = async (body: CheckBody) => {
      const answer = await owner.try(checkInstrument, check(`${body.kind}-x`, body));
      return [
        answer.status,
        ...((answer.body as { errors?: { path: string; code: string }[] }).errors ?? []).map(
          e => `${e.path} ${e.code}`,
        ),
      ];
    };
    const of = (points: { ph: number; mV: number | null }[], over: object = {}) =>
      ({ kind: 'ph meter', calibration: calibration({ points, ...over }) }) as const;
    expect(
      await codes(
        of([
          { ph: 4.01, mV: -1 },
          { ph: 7, mV: 174 },
        ]),
      ),
    ).toEqual([422, 'body.calibration.points.0.mV swapped']);
    expect(
      await codes(
        of([
          { ph: 7, mV: 0 },
          { ph: 7, mV: 1 },
        ]),
      ),
    ).toEqual([422, 'body.calibration.points.1.ph same-buffer']);
    expect(
      await codes(
        of(
          [
            { ph: 4.01, mV: 174 },
            { ph: 7, mV: -1 },
          ],
          { temp_C: null },
        ),
      ),
    ).toEqual([422, 'body.calibration.temp_C no-temperature']);
    expect(await codes({ kind: 'thermometer', ice_C: 9, boils_C: 100 })).toEqual([
      422,
      'body.ice_C thermometer-off',
    ]);
    const wrong = await owner.try(checkInstrument, {
      body: {
        ...check('scale-9', { kind: 'scale', known_g: 500, shows_g: 500 }).body,
        instrument: { id: 'scale-9', kind: 'thermometer', name: 'x' },
      },
    });
    expect(wrong.status).toBe(422);
  });

  it('the jam thermometer moves the gel point; one that is taken out of use comes back with its next check', async () => {
    const { altitude_m } = await owner.ok(readKitchen);
    await owner.ok(
      checkInstrument,
      check(JAM_THERMOMETER, { kind: 'thermometer', ice_C: 0.2, boils_C: boilingPoint_C(altitude_m) + 0.7 }),
    );
    expect(await owner.ok(readKitchen)).toMatchObject({
      thermometerError_C: 0.7,
      thermometerIce_C: 0.2,
      thermometerCheckedOn: expect.any(String),
    });
    await owner.ok(retireInstrument, { body: { id: JAM_THERMOMETER, retired: true } });
    const retired = async () =>
      (await owner.ok(listInstrumentChecks)).instruments.find(i => i.instrument.id === JAM_THERMOMETER)
        ?.retired;
    expect(await retired()).toBe(true);
    await owner.ok(
      checkInstrument,
      check(JAM_THERMOMETER, { kind: 'thermometer', ice_C: null, boils_C: boilingPoint_C(altitude_m) }),
    );
    expect(await retired()).toBe(false);
    expect((await owner.try(retireInstrument, { body: { id: '__proto__', retired: true } })).status).toBe(
      404,
    );
  });

  it('a viewer reads the log and keeps no check', async () => {
    const viewer = await server.join(owner, 'viewer', 'vic@test.example');
    expect((await viewer.try(listInstrumentChecks, {})).status).toBe(200);
    expect(
      (await viewer.try(checkInstrument, check('s', { kind: 'scale', known_g: 1, shows_g: 1 }))).status,
    ).toBe(403);
  });
});

describe('what is called back', () => {
  it('is held at once, listed, and printed no more; only what was released, by somebody who may sign', async () => {
    const line = await Line.open(owner, { ...crushedTomatoes, code: 'WDT', name: 'Called back' }, 'pint', 4);
    await (await (await line.start()).draw()).cook(40);
    await line.readPh(3.9);
    const asked = (jars: number[], why = 'Glass in one of them') => ({
      params: { batchId: line.batchId },
      body: { jars, why, stamp: line.stamp() },
    });
    expect((await owner.try(withdrawJars, asked([2]))).status).toBe(422);
    line.view = await owner.ok(releaseJars, {
      params: { batchId: line.batchId },
      body: { jars: [2, 3, 4], stamp: line.stamp() },
    });
    const cook = await server.join(owner, 'cook', 'cam@test.example');
    expect((await cook.try(withdrawJars, asked([2]))).status).toBe(403);
    expect((await owner.try(withdrawJars, asked([2], 'x'))).status).toBe(422);
    line.view = await owner.ok(withdrawJars, asked([3, 2]));
    expect(line.state.jars.filter(j => j.withdrawn).map(j => j.number)).toEqual([2, 3]);
    // Twice, and of a jar nobody released.
    for (const jars of [[2], [1], [99]])
      expect((await owner.try(withdrawJars, asked(jars))).status).toBe(422);
    const printed = await owner.try(printLabels, {
      params: { batchId: line.batchId },
      body: toPrint([2], 'pint', line.stamp()),
    });
    expect(printed.status).toBe(422);
    const again = await owner.try(releaseJars, {
      params: { batchId: line.batchId },
      body: { jars: [2], stamp: line.stamp() },
    });
    expect(JSON.stringify(again.body)).toContain('was called back: Glass in one of them');
  });
});

describe('a result of a laboratory', () => {
  it('releases nothing on a paper that is not here, or is another', async () => {
    const line = await Line.open(
      owner,
      { ...crushedTomatoes, code: 'LAB', name: 'By a laboratory' },
      'pint',
      4,
    );
    await (await (await line.start()).draw()).cook(40);
    const reading = {
      jar: 1,
      ph: 3.9,
      temp_C: 24,
      hoursSinceProcessing: 0,
      method: 'laboratory' as const,
      buffers: [],
      reference: 'LAB-7',
    };
    const release = (jars: number[]) =>
      owner.try(releaseJars, { params: { batchId: line.batchId }, body: { jars, stamp: line.stamp() } });
    const kept = await owner.ok(addPaper, {
      params: { paperId: randomUUID() },
      query: { subject: `batch:${line.batchId}`, name: 'report.png' },
      body: picture(),
    });
    await line.note('ph.read', { ...reading, paper: { paperId: randomUUID(), sha256: kept.sha256 } });
    expect((await release([2])).body).toMatchObject({ code: 'paper-gone' });
    const first = line.view?.events.findLast(e => e.type === 'ph.read');
    await line.note('entry.corrected', {
      replaces: first?.id ?? '',
      type: 'ph.read',
      body: null,
      occurredAt: null,
      reason: 'Without its paper',
    });
    await line.note('ph.read', { ...reading, jar: 2, paper: { paperId: kept.id, sha256: kept.sha256 } });
    expect((await release([3])).status).toBe(200);
  });
});

describe('a lid lot that fails', () => {
  it('over three batches is worse than chance; none of them says so by itself', async () => {
    const batches = [];
    for (const code of ['LIA', 'LIB', 'LIC', 'LID']) {
      const line = await Line.open(owner, { ...plumJam, code, name: `Jam ${code}` }, 'half-pint', 9);
      batches.push(await (await line.start()).draw());
    }
    const [first] = batches;
    const bad = first?.lots.lids ?? '';
    const jars = Array.from({ length: 9 }, (_, i) => i + 1);
    const press = async (line: Line, lidLotId: string, failed: number[]) => {
      const loadId = randomUUID();
      await line.note('jars.filled', { size: 'half-pint', jars, jarLotId: null, lidLotId });
      await line.note('load.packed', { loadId, number: 1, jars, newLidLotId: null });
      await line.wait(10).note('load.boiling', { loadId });
      await line.wait(15).note('load.heat_off', { loadId });
      await line.wait(5).note('load.lifted', { loadId });
      await line
        .wait(13 * 60)
        .note('jars.pressed', { sealed: jars.filter(n => !failed.includes(n)), failed });
    };
    const worse = async () =>
      worseLids((await owner.ok(readCheckHistory)).batches.flatMap(b => b.seals)).map(w => w.lidLotId);
    await press(batches[3] as Line, batches[3]?.lots.lids ?? '', []);
    for (const line of batches.slice(0, 2)) {
      await press(line, bad, [1, 2]);
      expect(await worse()).toEqual([]);
    }
    await press(batches[2] as Line, bad, [4, 5, 6]);
    expect(await worse()).toEqual([bad]);
  });
});

describe('what was checked of batches', () => {
  it('is derived with each entry: readings, loads, seals, deviations, and what was foreseen', async () => {
    const settings = await owner.ok(readKitchen);
    const { id: _id, placed: _p, demo: _d, ...rest } = settings;
    await owner.ok(changeKitchen, { body: { ...rest, phAct: 4 } });
    const line = await Line.open(owner, crushedTomatoes, 'pint', 4);
    await (await (await line.start()).draw()).cook(40);
    await line.readPh(4.1);
    const history = async () =>
      (await owner.ok(readCheckHistory)).batches.find(b => b.batchId === line.batchId);
    const found = await history();
    expect(found).toMatchObject({
      phAct: 4,
      phForecast: { low: expect.any(Number), mid: expect.any(Number), high: expect.any(Number) },
      readings: [{ ph: 4.1, u_ph: 0.05, counts: true }],
      loads: [{ number: 1, phase: 'processed', required_s: 2400 }],
      seals: [{ tried: 4, failed: 0 }],
      deviations: [],
    });
    expect(found?.phForecast?.mid).toBeGreaterThan(3.5);
    // Above what this kitchen acts at: one jar is not enough.
    const refused = await owner.try(releaseJars, {
      params: { batchId: line.batchId },
      body: { jars: [2], stamp: line.stamp() },
    });
    expect(JSON.stringify(refused.body)).toContain('Above 4, with what it may err, one jar is not enough');
    await line.readPh(4.8);
    expect((await history())?.deviations).toMatchObject([{ kind: 'above the limit', state: 'open' }]);
    const { lids } = await owner.ok(readCheckHistory);
    expect(lids.map(l => l.lotId)).toContain(line.lots.lids);
  });
});
