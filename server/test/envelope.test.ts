import { randomUUID } from 'node:crypto';
import {
  type Delivery,
  type FactEntry,
  appendFacts,
  labelSheet,
  printLabels,
  readBatch,
  releaseJars,
  returnLots,
  reverseDraw,
  startBatch,
} from '@cocotte/contract';
import { RECORD_SHAPE } from '@cocotte/core/batches';
import { canonicalJson } from '@cocotte/core/measure';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { calibratedAt, rechecked } from '../../testing/bench.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { verifyChain } from '../src/admin/verify.ts';
import { chainHash } from '../src/batches/chain.ts';
import { toPrint } from '../../testing/labels.ts';

let server: TestServer;
let owner: Client;
let tomatoes: Line;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  tomatoes = await Line.open(owner, crushedTomatoes, 'pint', 4);
});
afterAll(() => server.close());

const paramsOf = (line: Line) => ({ batchId: line.batchId });
const fresh = async () => {
  tomatoes.batchId = randomUUID();
  return (await tomatoes.start()).draw();
};
const kitchenId = () => owner.session?.kitchenId ?? '';
const send = (line: Line, over: Partial<Delivery>, client = owner) =>
  client.try(appendFacts, { params: paramsOf(line), body: { ...line.delivery([]), ...over } });
const answersOf = (reply: { body: unknown }) =>
  (
    reply.body as {
      answers: {
        id: string;
        outcome: string;
        seq: number | null;
        faults: { code: string; path: string }[];
      }[];
    }
  ).answers;
const verdict = () => server.database.inKitchen(kitchenId(), trx => verifyChain(trx, kitchenId()));
const stored = async (sql: string, values: unknown[]) => {
  const client = new pg.Client({ connectionString: server.urls.ownerUrl });
  await client.connect();
  try {
    return (await client.query(sql, values)).rows;
  } finally {
    await client.end();
  }
};

describe('a delivery', () => {
  it('is answered entry by entry: one that is refused fails no other', async () => {
    const line = await fresh();
    const good = line.fact('note.written', { text: 'good' });
    const bad = {
      ...line.fact('jars.filled', { size: 'pint', jars: [1], jarLotId: null, lidLotId: null }),
      colour: 'red',
    };
    const worse = { ...line.fact('note.written', { text: 'x' }), body: { text: '' } };
    const twice = line.fact('jars.set_aside', { jars: [1, 1], why: 'broken' });
    const reply = await send(line, { events: [good, bad, worse, twice, 7, good] as unknown as FactEntry[] });
    // What is no object is no entry at all, and the delivery none.
    expect(reply.status).toBe(422);
    const told = answersOf(await send(line, { events: [good, bad, worse, twice, good] as FactEntry[] }));
    expect(told.map(a => [a.outcome, a.faults.map(f => `${f.path} ${f.code}`)])).toEqual([
      ['kept', []],
      ['refused', [expect.stringMatching(/unknown-key/)]],
      ['refused', ['body.text missing']],
      ['refused', ['body.jars twice']],
      ['kept', []],
    ]);
    expect(told[0]?.seq).toBe(told[4]?.seq);
    expect(told.map(a => a.id)).toEqual([good, bad, worse, twice, good].map(e => e.id));
  });

  it('names the person and the kitchen it was made for, and is kept for no other', async () => {
    const line = await fresh();
    const events = [line.fact('note.written', { text: 'mine' })];
    const other = await server.join(owner, 'cook', 'bo@test.example');
    expect((await send(line, { events, personId: randomUUID() })).status).toBe(403);
    expect((await send(line, { events, kitchenId: randomUUID() })).status).toBe(403);
    // On a device on which somebody else signed in meanwhile it waits for whom it belongs to.
    expect((await send(line, { events }, other)).status).toBe(403);
    expect(answersOf(await send(line, { events }))[0]?.outcome).toBe('kept');
  });

  it('of a page of an earlier build, which reads no answers, is kept whole or not at all', async () => {
    const line = await fresh();
    const good = line.fact('note.written', { text: 'good' });
    const bad = { ...line.fact('note.written', { text: 'x' }), body: {} } as FactEntry;
    const body = { events: [good, bad] };
    const problem = await owner.refused(appendFacts, { params: paramsOf(line), body });
    expect([problem.status, problem.errors[0]?.path]).toEqual([422, 'events[1].body.text']);
    const { events } = await owner.ok(readBatch, { params: paramsOf(line) });
    expect(events.some(e => e.id === good.id)).toBe(false);
    await owner.ok(appendFacts, { params: paramsOf(line), body: { events: [good] } });
  });

  it('with what only a newer build knows is asked for again later; without such a build it is refused', async () => {
    const line = await fresh();
    const newer = { ...line.fact('note.written', { text: 'x' }), type: 'jars.sold' } as unknown as FactEntry;
    const higher = { ...line.fact('note.written', { text: 'x' }), typeVersion: 7 } as FactEntry;
    const of = async (recordShape: number) =>
      answersOf(await send(line, { events: [newer, higher], recordShape })).map(a => a.outcome);
    expect(await of(RECORD_SHAPE + 1)).toEqual(['later', 'later']);
    expect(await of(RECORD_SHAPE)).toEqual(['refused', 'refused']);
  });

  it('of shapes from before is kept as it came, and read as of today', async () => {
    const line = await fresh();
    const filled = line.fact('jars.filled', { size: 'pint', jars: [1, 2], jarLotId: null, lidLotId: null });
    const old = {
      ...filled,
      typeVersion: 1,
      body: { size: 'pint', jars: [1, 2], jarLotId: null, lidLotId: null },
    };
    const pressed = {
      ...line.fact('jars.pressed', { sealed: [1], failed: [] }),
      typeVersion: 1,
      body: { sealed: [1], failed: [] },
    };
    const fix = line.fact('entry.corrected', {
      replaces: pressed.id,
      type: 'jars.pressed',
      body: { sealed: [2], failed: [1] },
      occurredAt: null,
      reason: 'the other one',
    });
    const { bodyVersion: _, ...correction } = fix.body as { bodyVersion: number };
    const oldFix = { ...fix, typeVersion: 1, body: { ...correction, body: { sealed: [2], failed: [1] } } };
    await line.send([old, pressed, oldFix] as unknown as FactEntry[]);
    expect(line.view?.events.find(e => e.id === old.id)).toMatchObject({ typeVersion: 1, body: old.body });
    expect(line.state.jars.map(j => [j.number, j.outletId])).toEqual([
      [1, null],
      [2, null],
    ]);
    expect(line.state.newer).toEqual([]);
    // A shape of today that says it is of before is none.
    const mixed = { ...line.fact('jars.pressed', { sealed: [1], failed: [] }), typeVersion: 1 };
    expect(answersOf(await send(line, { events: [mixed] }))[0]?.outcome).toBe('refused');
  });

  it.each([
    ['the year 9999', '9999-01-01T00:00:00.000Z', 'wallClock'],
    ['the year 0', '0000-01-01T00:00:00.000Z', 'wallClock'],
    ['a battery that ran out', '1970-01-01T00:00:10.000Z', 'wallClock'],
    ['2300, typed', '2300-01-01T00:00:00.000Z', 'occurredAt'],
  ])('by a clock that shows %s is refused beside its field', async (_, instant, field) => {
    const line = await fresh();
    const entry = { ...line.fact('note.written', { text: 'x' }), [field]: instant };
    const [told] = answersOf(await send(line, { events: [entry] }));
    expect([told?.outcome, told?.faults[0]?.path, told?.faults[0]?.code]).toEqual([
      'refused',
      field,
      'not-an-instant',
    ]);
    const start = { ...line.startBody('sale'), batchId: randomUUID() };
    const refused = await owner.refused(startBatch, {
      body: { ...start, stamp: { ...start.stamp, [field]: instant } },
    });
    expect(refused.status).toBe(422);
  });

  it('with a time in the future is refused, inside a correction too', async () => {
    const line = await fresh();
    const note = line.fact('note.written', { text: 'x' });
    await line.send([note]);
    const tomorrow = new Date(server.now_ms + 24 * 3_600_000).toISOString();
    const typed = {
      ...line.fact('note.written', { text: 'y' }),
      typedInAfterwards: true,
      occurredAt: tomorrow,
    };
    const fix = line.fact('entry.corrected', {
      replaces: note.id,
      type: 'note.written',
      body: { text: 'z' },
      occurredAt: tomorrow,
      reason: 'it is later',
    });
    const told = answersOf(await send(line, { events: [typed, fix] }));
    expect(told.map(a => [a.outcome, ...a.faults.map(f => `${f.path} ${f.code}`)])).toEqual([
      ['refused', 'occurredAt future-time'],
      ['refused', 'body.occurredAt future-time'],
    ]);
  });
});

describe('a receipt', () => {
  it('is stored and hashed with its entry: number, arrival, when it was sent, whether its maker may sign', async () => {
    const line = await fresh();
    const cook = await server.join(owner, 'cook', 'cam@test.example');
    const mine = line.fact('note.written', { text: 'mine' });
    await line.send([mine]);
    const theirs = { ...line.fact('note.written', { text: 'theirs' }), personId: cook.personId };
    await send(line, { events: [theirs], personId: cook.personId }, cook);
    const { events } = await owner.ok(readBatch, { params: paramsOf(line) });
    const of = (id: string) => events.find(e => e.id === id);
    const now = new Date(server.now_ms).toISOString();
    expect(of(mine.id)?.receipt).toMatchObject({ at: now, sentAt: now, signs: true });
    expect(of(theirs.id)?.receipt).toMatchObject({ signs: false });
    expect(events.map(e => e.receipt.seq)).toEqual(events.map((_, i) => (events[0]?.receipt.seq ?? 0) + i));
    const [row] = await stored('select content, prev_hash, hash from events where event_id = $1', [mine.id]);
    expect(JSON.parse(row.content).receipt).toEqual(of(mine.id)?.receipt);
    expect(chainHash(row.prev_hash, row.content)).toBe(row.hash);
    expect((await verdict()).fault).toBeNull();
  });

  it('never arrives before the one ahead of it, whatever the clock of the server does', async () => {
    const line = await fresh();
    await line.note('note.written', { text: 'one' });
    const one_ms = server.now_ms;
    server.now_ms -= 5 * 3_600_000;
    await line.note('note.written', { text: 'two' });
    server.now_ms = one_ms + 60_000;
    await line.note('note.written', { text: 'three' });
    const at = line.view?.events.slice(-3).map(e => e.receipt.at);
    expect(at).toEqual([one_ms, one_ms, one_ms + 60_000].map(ms => new Date(ms).toISOString()));
  });

  it('that an entry from before never got is made of what the database knows, and marked', async () => {
    const line = await fresh();
    const note = line.fact('note.written', { text: 'from before' });
    await line.send([note]);
    const [row] = await stored('select seq, content, prev_hash from events where event_id = $1', [note.id]);
    const { receipt, ...event } = JSON.parse(row.content);
    const content = canonicalJson({ ...event, receivedAt: receipt.at });
    const hash = chainHash(row.prev_hash, content);
    await stored('update events set content = $2, hash = $3 where event_id = $1', [note.id, content, hash]);
    await stored('update heads set hash = $2 where kitchen_id = $1', [kitchenId(), hash]);
    const { events } = await owner.ok(readBatch, { params: paramsOf(line) });
    expect(events.at(-1)).toMatchObject({
      id: note.id,
      hash,
      receipt: { seq: Number(row.seq), at: receipt.at, sentAt: null, signs: null },
    });
    expect(events.at(-1)).not.toHaveProperty('receivedAt');
    expect((await verdict()).fault).toBeNull();
    await line.note('note.written', { text: 'and on' });
    expect((await verdict()).fault).toBeNull();
    expect(line.state.notes.map(n => n.text)).toEqual(['from before', 'and on']);
  });
});

describe('what a later fact holds again', () => {
  const released = async () => {
    const line = await (await fresh()).cook(40);
    await line.readPh(4.1);
    line.view = await owner.ok(releaseJars, {
      params: paramsOf(line),
      body: { jars: [2, 3, 4], stamp: line.stamp() },
    });
    return line;
  };

  it('is printed on no label: not on a new sheet, nor on one that was made before', async () => {
    const line = await released();
    const body = toPrint([2, 3], 'pint', line.stamp());
    line.view = await owner.ok(printLabels, { params: paramsOf(line), body });
    const printId = line.state.labels[0]?.eventId ?? '';
    const sheet = () => owner.try(labelSheet, { params: { ...paramsOf(line), printId } });
    expect((await sheet()).status).toBe(200);
    await line.wait(5).note('jars.pressed', { sealed: [], failed: [3] });
    expect((await sheet()).status).toBe(422);
    expect(
      (await owner.refused(printLabels, { params: paramsOf(line), body: { ...body, stamp: line.stamp() } }))
        .code,
    ).toBe('not-released');
    const again = { ...body, jars: [2], stamp: line.stamp() };
    await owner.ok(printLabels, { params: paramsOf(line), body: again });
  });

  it('one jar is not labelled five hundred times', async () => {
    const line = await released();
    const body = toPrint(
      Array.from({ length: 500 }, () => 2),
      'pint',
      line.stamp(),
    );
    expect((await owner.refused(printLabels, { params: paramsOf(line), body })).errors[0]?.code).toBe(
      'twice',
    );
  });

  it('names in the signature of the release what was corrected', async () => {
    const line = await (await fresh()).cook(40);
    const calibration = calibratedAt(server.now_ms);
    const reading = line.fact('ph.read', {
      jar: 1,
      ph: 4.9,
      temp_C: 24,
      hoursSinceProcessing: 0,
      method: 'meter',
      buffers: [4.01, 7],
      reference: '',
      calibration,
    });
    await line.send([reading, line.fact('meter.rechecked', rechecked(calibration))]);
    await line.wait(10).note('entry.corrected', {
      replaces: reading.id,
      type: 'ph.read',
      body: { ...(reading.body as object), ph: 4.1 } as never,
      occurredAt: null,
      reason: 'a 1 read as a 9',
    });
    line.view = await owner.ok(releaseJars, {
      params: paramsOf(line),
      body: { jars: [2, 3, 4], stamp: line.stamp() },
    });
    expect(line.state.releases[0]?.named).toEqual(['Equilibrium pH at or below 4.6: corrected']);
  });
});

describe('stock that came back', () => {
  it('does not come back twice: part of a draw returned, and then the whole draw put back', async () => {
    const line = await fresh();
    const lot = line.state.draws[0]?.lots.find(l => l.kind === 'jar');
    const drawId = line.state.draws[0]?.drawId ?? '';
    await owner.ok(returnLots, {
      params: paramsOf(line),
      body: {
        lots: [{ lotId: lot?.lotId ?? '', quantity: '1' }],
        reason: 'one was not needed',
        stamp: line.stamp(),
      },
    });
    const again = {
      params: { ...paramsOf(line), drawId },
      body: { reason: 'all of it', stamp: line.stamp() },
    };
    expect((await owner.refused(reverseDraw, again)).code).toBe('part-returned');
  });

  it('a batch is started at a scale that belongs to its jars', async () => {
    const jam = await Line.open(owner, plumJam, 'half-pint', 4);
    for (const factor of ['20', '1/10']) {
      const body = { ...jam.startBody('sale'), batchId: randomUUID(), factor };
      expect((await owner.refused(startBatch, { body })).code).toMatch(/scale-off|bad-scale/);
    }
  });
});
