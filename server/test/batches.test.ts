import { randomUUID } from 'node:crypto';
import {
  type FactEntry,
  appendFacts,
  drawLots,
  listLots,
  printLabels,
  readBatch,
  readToday,
  releaseJars,
  reverseDraw,
  startBatch,
  addRecipe,
  changeRecipe,
  readRecipe,
  find,
  receiveLot,
} from '@cocotte/contract';
import { plainFacts } from '@cocotte/core/stores';
import { Decimal } from '@cocotte/core/measure';
import fc from 'fast-check';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { Device } from '../../testing/device.ts';
import { confirmAs } from '../../testing/open-page.ts';
import { toPrint } from '../../testing/labels.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { rebuildKitchen } from '../src/admin/rebuild.ts';
import { verifyChain } from '../src/admin/verify.ts';
import { enterKitchen, openDatabase } from '../src/house/database.ts';

let server: TestServer;
let owner: Client;
let tomatoes: Line;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  tomatoes = await Line.open(owner, crushedTomatoes, 'pint', 4);
});
afterAll(() => server.close());

const batchOf = (line: Line) => ({ batchId: line.batchId });
const fresh = async (line = tomatoes) => {
  line.batchId = randomUUID();
  return (await line.start()).draw();
};
const verdict = () =>
  server.database.inKitchen(owner.session?.kitchenId ?? '', trx =>
    verifyChain(trx, owner.session?.kitchenId ?? ''),
  );
const onHand = async (lotId: string) =>
  (await owner.ok(listLots, { query: { empty: 'yes' } })).lots.find(l => l.lot.id === lotId)?.lot.onHand;

describe('entries', () => {
  it('are accepted once, however often and late they come, and shown in their place', async () => {
    const line = await fresh();
    const early = line.fact('note.written', { text: 'first' });
    line.wait(10);
    const late = line.fact('note.written', { text: 'second' });
    const one = await owner.ok(appendFacts, { params: batchOf(line), body: { events: [late] } });
    const two = await owner.ok(appendFacts, {
      params: batchOf(line),
      body: { events: [early, late, early] },
    });
    expect(two.answers.find(a => a.id === late.id)?.seq).toBe(one.answers[0]?.seq);
    await line.send([early]);
    expect(line.view?.events.filter(e => e.type === 'note.written')).toHaveLength(2);
    expect(line.state.notes.map(n => n.text)).toEqual(['first', 'second']);
  });

  it('with the same id and other content are a 409, and change nothing', async () => {
    const line = await fresh();
    const entry = line.fact('note.written', { text: 'as it was' });
    await line.send([entry]);
    const problem = await owner.refused(appendFacts, {
      params: batchOf(line),
      body: { events: [{ ...entry, body: { text: 'as it was not' } } as FactEntry] },
    });
    expect([problem.status, problem.code]).toEqual([409, 'id-other-content']);
    const pair = line.fact('note.written', { text: 'a' });
    expect(
      (
        await owner.refused(appendFacts, {
          params: batchOf(line),
          body: { events: [pair, { ...pair, body: { text: 'b' } } as FactEntry] },
        })
      ).status,
    ).toBe(409);
    const start = line.startBody();
    expect(
      (
        await owner.refused(startBatch, {
          body: {
            ...start,
            stamp: line.view?.events[0] ? { ...start.stamp, id: line.view.events[0].id } : start.stamp,
          },
        })
      ).status,
    ).toBe(409);
  });

  it('deliveries in any order, doubled, from two devices at once, give the same state and a whole chain', async () => {
    const line = await fresh();
    const other = new Device(owner.personId, server.now_ms, 1500);
    const facts: FactEntry[] = [];
    for (let i = 0; i < 12; i++) {
      line.wait(1);
      facts.push(
        line.fact('line.weighed', { lineId: 'tomatoes', mass_g: 100 + i }),
        other.fact(server.now_ms, 'note.written', { text: `n${i}` }),
      );
    }
    await fc.assert(
      fc.asyncProperty(fc.shuffledSubarray(facts, { minLength: facts.length }), async order => {
        line.batchId = randomUUID();
        await line.start();
        const mine = order.map(f => ({ ...f, id: randomUUID() }));
        await Promise.all(
          [mine.slice(0, 12), mine.slice(12), mine.slice(6, 18)].map(events =>
            owner.ok(appendFacts, { params: batchOf(line), body: { events } }),
          ),
        );
        line.view = await owner.ok(readBatch, { params: batchOf(line) });
        expect(line.state.weighed.tomatoes?.mass_g).toBe(
          facts.filter(f => f.type === 'line.weighed').length * 100 + 66,
        );
        expect(line.state.notes.map(n => n.text)).toEqual(Array.from({ length: 12 }, (_, i) => `n${i}`));
      }),
      { numRuns: 5 },
    );
    expect((await verdict()).fault).toBeNull();
  });

  it.each([
    [
      'a pH above 14',
      {
        type: 'ph.read',
        body: {
          jar: 1,
          ph: 14.1,
          temp_C: 24,
          hoursSinceProcessing: 24,
          method: 'meter',
          buffers: [],
          reference: '',
        },
      },
      'events[0].body.ph',
    ],
    [
      'a pH below 0',
      {
        type: 'ph.read',
        body: {
          jar: 1,
          ph: -1,
          temp_C: 24,
          hoursSinceProcessing: 24,
          method: 'meter',
          buffers: [],
          reference: '',
        },
      },
      'events[0].body.ph',
    ],
    [
      'a weight of zero',
      { type: 'line.weighed', body: { lineId: 'tomatoes', mass_g: 0 } },
      'events[0].body.mass_g',
    ],
    [
      'a negative weight',
      { type: 'line.weighed', body: { lineId: 'tomatoes', mass_g: -4 } },
      'events[0].body.mass_g',
    ],
    [
      'an absurd weight',
      { type: 'line.weighed', body: { lineId: 'tomatoes', mass_g: 1e9 } },
      'events[0].body.mass_g',
    ],
    [
      'a weight in words',
      { type: 'line.weighed', body: { lineId: 'tomatoes', mass_g: 'much' } },
      'events[0].body.mass_g',
    ],
    [
      'a pot hotter than sugar',
      { type: 'temperature.read', body: { where: 'pot', temp_C: 131 } },
      'events[0].body.temp_C',
    ],
    [
      'a canner hotter than water',
      { type: 'temperature.read', body: { where: 'canner', temp_C: 106 } },
      'events[0].body.temp_C',
    ],
    [
      'a place that is none',
      { type: 'temperature.read', body: { where: 'oven', temp_C: 90 } },
      'events[0].body',
    ],
    [
      'a jar number of zero',
      { type: 'jars.pressed', body: { sealed: [0], failed: [] } },
      'events[0].body.sealed[0]',
    ],
    ['an unknown kind', { type: 'jars.sold', body: {} }, 'events[0]'],
    ['an unknown key', { type: 'note.written', body: { text: 'x', colour: 'red' } }, 'events[0].body'],
  ])('%s is refused beside its field', async (_, part, path) => {
    const line = await fresh();
    const problem = await owner.refused(appendFacts, {
      params: batchOf(line),
      body: { events: [{ ...line.fact('note.written', { text: 'x' }), ...part }] },
    });
    expect(problem.status).toBe(422);
    expect(problem.errors.map(e => e.path)).toContain(path);
  });

  it('typed for the future, or in the name of another, are refused', async () => {
    const line = await fresh();
    const future = line.device.fact(server.now_ms + 3_600_000, 'note.written', { text: 'x' }, true);
    expect(
      (await owner.refused(appendFacts, { params: batchOf(line), body: { events: [future] } })).errors[0],
    ).toMatchObject({ path: 'events[0].occurredAt', code: 'future-time' });
    expect(
      (
        await owner.refused(appendFacts, {
          params: batchOf(line),
          body: { events: [{ ...line.fact('note.written', { text: 'x' }), personId: randomUUID() }] },
        })
      ).code,
    ).toBe('other-person');
  });

  it('correct facts, never decisions', async () => {
    const line = await fresh();
    const draw = line.view?.events.find(e => e.type === 'lot.drawn');
    const problem = await owner.refused(appendFacts, {
      params: batchOf(line),
      body: {
        events: [
          line.fact('entry.corrected', {
            replaces: draw?.id ?? '',
            type: 'note.written',
            body: null,
            occurredAt: null,
            reason: 'away with it',
          }),
        ],
      },
    });
    expect(problem.code).toBe('not-correctable');
  });
});

describe('the chain', () => {
  it('shows a change, a gap and a moved head', async () => {
    const line = await fresh();
    await line.note('note.written', { text: 'true' });
    expect((await verdict()).fault).toBeNull();
    const thief = new pg.Client({ connectionString: server.urls.ownerUrl });
    await thief.connect();
    const last = (await thief.query('select seq, content, hash from events order by seq desc limit 1'))
      .rows[0];
    await thief.query('update events set content = $1 where seq = $2', [
      last.content.replace('"true"', '"false"'),
      last.seq,
    ]);
    expect((await verdict()).fault).toMatch(/was changed/);
    await thief.query('update events set content = $1, batch_id = $3 where seq = $2', [
      last.content,
      last.seq,
      randomUUID(),
    ]);
    expect((await verdict()).fault).toMatch(/columns/);
    await thief.query('update events set batch_id = $2 where seq = $1', [last.seq, line.batchId]);
    await thief.query('update heads set seq = seq + 1');
    expect((await verdict()).fault).toMatch(/head/);
    await thief.query('update heads set seq = seq - 1');
    expect((await verdict()).fault).toBeNull();
    await thief.end();
  });
});

describe('drawing', () => {
  it('takes what is there, at its cost, and refuses more, an unknown lot, an unknown line', async () => {
    const line = await fresh();
    const lots = line.drawLines();
    const problem = await owner.refused(drawLots, {
      params: batchOf(line),
      body: {
        lots: [
          { ...lots[0], quantity: '999999' },
          { ...lots[1], lotId: randomUUID() },
          { ...lots[1], lineId: 'gone' },
        ],
        stamp: line.stamp(),
      },
    });
    expect(problem.errors.map(e => [e.path, e.code])).toEqual([
      ['lots[0].quantity', 'more-than-lot'],
      ['lots[1].lotId', 'unknown-lot'],
      ['lots[2].lineId', 'unknown-line'],
    ]);
    expect(
      (
        await owner.refused(drawLots, {
          params: batchOf(line),
          body: { lots: [{ ...lots[0], quantity: '0' }], stamp: line.stamp() },
        })
      ).errors[0]?.path,
    ).toBe('lots[0].quantity');
  });

  it('is all or none, and a refused draw moves nothing', async () => {
    const line = await fresh();
    const before = await onHand(line.lots.tomatoes ?? '');
    const lots = line.drawLines();
    await owner.refused(drawLots, {
      params: batchOf(line),
      body: { lots: [lots[0], { ...lots[1], quantity: '999999' }], stamp: line.stamp() },
    });
    expect(await onHand(line.lots.tomatoes ?? '')).toBe(before);
  });

  it('refuses weak vinegar where vinegar is the barrier', async () => {
    const beans = await Line.open(owner, waxBeans, 'pint', 4);
    const id = randomUUID();
    const { lots } = await owner.ok(listLots, { query: { search: 'vinegar' } });
    await owner.ok(receiveLot, {
      body: {
        id,
        itemId: lots[0]?.item.id ?? '',
        label: 'WEAK',
        supplier: '',
        receivedOn: '2026-11-01',
        bestBy: null,
        unitCost: '0.001',
        strength_pct: 4,
        facts: plainFacts(),
        quantity: '5000',
      },
    });
    await beans.start();
    const problem = await owner.refused(drawLots, {
      params: batchOf(beans),
      body: { lots: [{ lotId: id, lineId: 'vinegar', quantity: '500' }], stamp: beans.stamp() },
    });
    expect(problem.errors[0]).toMatchObject({ code: 'too-weak', path: 'lots[0].quantity' });
  });

  it('of the last of a lot by two at once: one succeeds, the other is told', async () => {
    const line = await fresh();
    const left = await onHand(line.lots.lids ?? '');
    const attempt = () =>
      owner.try(drawLots, {
        params: batchOf(line),
        body: {
          lots: [{ lotId: line.lots.lids ?? '', lineId: null, quantity: left ?? '' }],
          stamp: line.stamp(),
        },
      });
    const answers = await Promise.all([attempt(), attempt(), attempt()]);
    expect(answers.map(a => a.status).sort()).toEqual([200, 422, 422]);
    expect(await onHand(line.lots.lids ?? '')).toBe('0');
    const draw = (await owner.ok(readBatch, { params: batchOf(line) })).events.findLast(
      e => e.type === 'lot.drawn',
    );
    await owner.ok(reverseDraw, {
      params: { ...batchOf(line), drawId: draw?.id ?? '' },
      body: { reason: 'they were counted wrong', stamp: line.stamp() },
    });
    expect(await onHand(line.lots.lids ?? '')).toBe(left);
    expect(
      (
        await owner.refused(reverseDraw, {
          params: { ...batchOf(line), drawId: draw?.id ?? '' },
          body: { reason: 'once more', stamp: line.stamp() },
        })
      ).code,
    ).toBe('no-such-draw');
  });

  it('sent twice is drawn once', async () => {
    const line = await fresh();
    const before = await onHand(line.lots.tomatoes ?? '');
    const body = { lots: line.drawLines().slice(0, 1), stamp: line.stamp() };
    await owner.ok(drawLots, { params: batchOf(line), body });
    await owner.ok(drawLots, { params: batchOf(line), body });
    expect(new Decimal(before ?? 0).minus((await onHand(line.lots.tomatoes ?? '')) ?? 0).toFixed()).toBe(
      '6000',
    );
  });
});

describe('starting', () => {
  it('refuses a jar with no time, a size the recipe has not, a scale that is a slip, and sale without an authority', async () => {
    const body = () => ({ ...tomatoes.startBody(), batchId: randomUUID() });
    expect(
      (await owner.refused(startBatch, { body: { ...body(), jars: [{ size: 'half-pint', count: 4 }] } }))
        .code,
    ).toBe('size-not-listed');
    expect((await owner.refused(startBatch, { body: { ...body(), factor: '900' } })).code).toBe('bad-scale');
    expect((await owner.refused(startBatch, { body: { ...body(), factor: 'x' } })).code).toBe('bad-scale');
    expect(
      (await owner.refused(startBatch, { body: { ...body(), jars: [{ size: 'pint', count: 0 }] } })).code,
    ).toBe('bad-scale');
    const id = randomUUID();
    await owner.ok(addRecipe, {
      body: {
        id,
        recipe: {
          ...crushedTomatoes,
          name: 'Own tomatoes',
          code: 'OWN',
          authority: { grade: 'own', entryId: null },
        },
      },
    });
    expect((await owner.refused(startBatch, { body: { ...body(), recipeId: id } })).code).toBe('no-route');
    expect(
      (await owner.refused(startBatch, { body: { ...body(), recipeId: id, purpose: 'home' } })).code,
    ).toBe('no-time');
    await owner.ok(startBatch, { body: { ...body(), recipeId: id, purpose: 'trial' } });
    const quarts = randomUUID();
    await owner.ok(addRecipe, {
      body: {
        id: quarts,
        recipe: {
          ...waxBeans,
          name: 'Quart beans',
          code: 'QRT',
          jars: [...waxBeans.jars, { size: 'quart', net: { kind: 'volume', floz: 32 } }],
        },
      },
    });
    const problem = await owner.refused(startBatch, {
      body: { ...body(), recipeId: quarts, jars: [{ size: 'quart', count: 2 }] },
    });
    expect(problem.errors[0]?.why).toContain('goes up to pints');
  });

  it('freezes the version it uses: a later change becomes the next one', async () => {
    const id = randomUUID();
    await owner.ok(addRecipe, { body: { id, recipe: { ...plumJam, code: 'FRZ' } } });
    expect(
      (
        await owner.ok(changeRecipe, {
          params: { recipeId: id },
          body: { version: 1, recipe: { ...plumJam, code: 'FRZ', notes: 'a' } },
        })
      ).number,
    ).toBe(1);
    await confirmAs(owner, id, plumJam);
    await owner.ok(startBatch, {
      body: {
        ...tomatoes.startBody(),
        batchId: randomUUID(),
        recipeId: id,
        jars: [{ size: 'half-pint', count: 8 }],
        factor: '1',
      },
    });
    expect(
      (
        await owner.ok(changeRecipe, {
          params: { recipeId: id },
          body: { version: 1, recipe: { ...plumJam, code: 'FRZ', notes: 'b' } },
        })
      ).number,
    ).toBe(2);
    expect(
      (
        await owner.refused(changeRecipe, {
          params: { recipeId: id },
          body: { version: 1, recipe: { ...plumJam, code: 'FRZ', notes: 'c' } },
        })
      ).status,
    ).toBe(409);
    expect((await owner.ok(readRecipe, { params: { recipeId: id } })).recipe.notes).toBe('b');
    expect(
      (await owner.refused(addRecipe, { body: { id: randomUUID(), recipe: { ...plumJam, code: 'FRZ' } } }))
        .errors[0],
    ).toMatchObject({ path: 'recipe.code', code: 'code-taken' });
  });

  it('has a time ready for an odd jar of any other size that its authority covers, and for no other', async () => {
    const line = await fresh();
    const { times, jars } = line.state.started ?? { times: [], jars: [] };
    // What was planned stands first; quarts are in the entry, and smaller jars take the next row up.
    expect(jars.map(j => j.size)).toEqual(['pint']);
    expect(times[0]?.jarSize).toBe('pint');
    expect(times.map(t => t.jarSize)).toContain('quart');
    expect(times.map(t => t.jarSize)).not.toContain('half-gallon');
    expect(times.find(t => t.jarSize === 'quart')?.minutes).toBeGreaterThan(times[0]?.minutes ?? 99);
    const loadId = randomUUID();
    const filled = (size: 'pint' | 'quart', numbers: number[]) =>
      line.note('jars.filled', {
        size,
        jars: numbers,
        jarLotId: null,
        lidLotId: line.lots.lids ?? null,
      });
    await filled('pint', [1, 2, 3]);
    await filled('quart', [4]);
    await line.note('dose.given', { lineId: 'lemon', jars: [1, 2, 3, 4] });
    await line.note('load.packed', { loadId, number: 1, jars: [1, 2, 3, 4], newLidLotId: null });
    // The load runs for the longest of its jars' times.
    const quart_s = (times.find(t => t.jarSize === 'quart')?.minutes ?? 0) * 60;
    expect(line.state.loads[0]?.required_s).toBe(quart_s);
    expect(line.state.deviations).toEqual([]);
  });

  it('gives each batch of a day its own lot code, and finds it by a code with a slip told', async () => {
    const codes = new Set<string>();
    for (let i = 0; i < 3; i++) codes.add((await fresh()).state.started?.lotCode ?? '');
    expect(codes.size).toBe(3);
    const code = [...codes][0] ?? '';
    expect((await owner.ok(find, { query: { words: code } })).found[0]).toMatchObject({
      kind: 'batch',
      title: code,
    });
    const slip = code.slice(0, -1) + (code.endsWith('A') ? 'B' : 'A');
    const read = await owner.ok(find, { query: { words: slip } });
    expect(read.slip).toMatch(/^No lot has this code\..*misread/);
    expect(read.found.find(f => f.title === code)).toMatchObject({
      kind: 'batch',
      detail: expect.stringMatching(/was read as "[AB]", character \d+\.$/),
    });
    // Typed without its dashes, two characters changed places; and one that leads nowhere is said to be none.
    const bare = code.replaceAll('-', '');
    const swapped = `${bare.slice(0, 5)}${bare[6]}${bare[5]}${bare.slice(7)}`;
    if (bare[5] !== bare[6])
      expect((await owner.ok(find, { query: { words: swapped } })).found.map(f => f.title)).toContain(code);
    expect((await owner.ok(find, { query: { words: 'XQZ-99001-9X' } })).slip).toContain('check character');
    expect((await owner.ok(find, { query: { words: code } })).slip).toBe('');
  });
});

describe('release, through the API', () => {
  const release = (line: Line, jars = [2, 3, 4]) => ({
    params: batchOf(line),
    body: { jars, stamp: line.stamp() },
  });

  it('is refused with every open condition, and open when all are met', async () => {
    const line = await (await fresh()).cook(40);
    const problem = await owner.refused(releaseJars, release(line));
    expect([problem.status, problem.code, problem.errors.map(e => e.code)]).toEqual([
      422,
      'gate-closed',
      ['ph-evidence'],
    ]);
    await line.readPh(4.1);
    line.view = await owner.ok(releaseJars, release(line));
    expect(line.state.releases[0]?.evidence.map(e => e.code)).toContain('ph-evidence');
  });

  it('is never given above 4.6, by anyone, for any purpose', async () => {
    for (const purpose of ['sale', 'home', 'gift', 'trial'] as const) {
      tomatoes.batchId = randomUUID();
      const line = await (await (await tomatoes.start(purpose)).draw()).cook(40);
      await line.readPh(4.1);
      await line.readPh(4.61);
      expect((await owner.refused(releaseJars, release(line))).errors.map(e => e.code)).toContain('ph-limit');
    }
  });

  it('is refused for a short load, a jar that is not there, and a trial', async () => {
    const short = await (await fresh()).cook(39);
    await short.readPh(4.1);
    expect((await owner.refused(releaseJars, release(short))).errors.map(e => e.code)).toEqual(
      expect.arrayContaining(['processed']),
    );
    const good = await (await fresh()).cook(40);
    await good.readPh(4.1);
    expect((await owner.refused(releaseJars, release(good, [1, 99]))).status).toBe(422);
  });

  it('falls back to held when a late fact arrives, and labels are refused then', async () => {
    const line = await (await fresh()).cook(40);
    await line.readPh(4.1);
    line.view = await owner.ok(releaseJars, release(line));
    const lateDevice = new Device(owner.personId, server.now_ms - 3_600_000);
    const late = lateDevice.fact(server.now_ms - 1_800_000, 'ph.read', {
      jar: 3,
      ph: 4.9,
      temp_C: 24,
      hoursSinceProcessing: 30,
      method: 'meter',
      buffers: [4.01, 7],
      reference: '',
    });
    await line.send([late]);
    const problem = await owner.refused(printLabels, {
      params: batchOf(line),
      body: toPrint([1], 'pint', line.stamp()),
    });
    expect(problem.code).toBe('not-released');
    const row = (await owner.ok(readToday)).batches.find(b => b.id === line.batchId);
    expect(row?.summary).toMatchObject({ stage: 'checking', released: 0 });
  });
});

describe('rebuilding', () => {
  it('derives the same projections and movements again from the events', async () => {
    const kitchenId = owner.session?.kitchenId ?? '';
    const tables = ['batches', 'movements', 'lots', 'recipes'];
    const read = () =>
      server.database.inKitchen(kitchenId, async trx =>
        Promise.all(tables.map(t => trx(t).orderByRaw('1, 2'))),
      );
    const before = await read();
    const asOwner = openDatabase(server.urls.ownerUrl, 2);
    await asOwner.outside(async trx => {
      await enterKitchen(trx, kitchenId);
      await trx('batches').update({ stage: 'closed', open: false, summary: '{}' });
      await trx('lots').update({ on_hand: 1 });
      await rebuildKitchen(trx, kitchenId);
    });
    await asOwner.close();
    expect(await read()).toEqual(before);
  });
});
