import { randomUUID } from 'node:crypto';
import {
  type EventsPage,
  type Moved,
  addItem,
  addRecipe,
  addTasting,
  appendFacts,
  changeKitchen,
  endSession,
  inKitchen,
  listSessions,
  readBatch,
  readEvents,
  readKitchen,
  removePerson,
} from '@cocotte/contract';
import pg from 'pg';
import { afterAll, afterEach, beforeAll, describe, expect, inject, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { Listener } from '../../testing/listener.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { ROUTES } from '../src/house/app.ts';
import { openFeed } from '../src/house/feed.ts';

let server: TestServer;
let owner: Client;
let line: Line;
const listening: Listener[] = [];
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  line = await Line.open(owner, plumJam, 'half-pint', 4);
  await line.start();
});
afterEach(() => {
  for (const listener of listening.splice(0)) listener.stop();
});
afterAll(() => server.close());

const follow = async (client = owner, at = client.server) => {
  const listener = await Listener.open(at.origin + client.at('/feed'), client.cookie);
  listening.push(listener);
  await listener.until(l => l.told.length > 0);
  return listener;
};
const note = async (client = owner) => {
  const fact = line.fact('note.written', { text: 'a word' });
  const body = { ...line.delivery([fact]), personId: client.personId };
  return (await client.ok(appendFacts, { params: { batchId: line.batchId }, body })).lastSeq;
};
const last = (listener: Listener) => listener.told.at(-1) as Moved;
const renameKitchen = async (name: string) => {
  const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
  await owner.ok(changeKitchen, { body: { ...settings, name } });
};

describe('the feed', () => {
  it('tells at once how far the kitchen has come, and again when its record grows', async () => {
    const one = await follow();
    const other = await follow();
    const seq = await note();
    for (const listener of [one, other]) {
      await listener.until(l => last(l).seq === seq);
      expect(listener.told.map(m => m.seq)).toEqual(listener.told.map(m => m.seq).sort((a, b) => a - b));
      expect(Object.keys(last(listener)).sort()).toEqual(['recipes', 'seq', 'settings', 'stock']);
    }
  });

  it('counts what else was changed, each by itself', async () => {
    const listener = await follow();
    const before = last(listener);
    await owner.ok(addRecipe, {
      body: { id: randomUUID(), recipe: { ...plumJam, name: 'Another jam', code: 'AAJ' } },
    });
    await listener.until(l => last(l).recipes === before.recipes + 1);
    await renameKitchen('Moved Kitchen');
    await listener.until(l => last(l).settings === before.settings + 1);
    // A draw is in the record and on the shelf.
    await line.draw();
    await listener.until(l => last(l).stock === before.stock + 1 && last(l).seq > before.seq);
    expect(last(listener)).toMatchObject({ recipes: before.recipes + 1, settings: before.settings + 1 });
  });

  it('counts nothing for what was refused', async () => {
    const listener = await follow();
    const before = last(listener);
    await owner.refused(addItem, { body: { id: randomUUID() } as never });
    const seq = await note();
    await listener.until(l => last(l).seq === seq);
    expect(last(listener)).toEqual({ ...before, seq });
  });

  it('hears of what another server wrote', async () => {
    const other = await server.beside();
    try {
      const there = await Listener.open(other.origin + owner.at('/feed'), owner.cookie);
      listening.push(there);
      await there.until(l => l.told.length > 0);
      const seq = await note();
      await there.until(l => last(l).seq === seq);
      await renameKitchen('Told Kitchen');
      await there.until(l => last(l).settings > (l.told[0] as Moved).settings);
    } finally {
      await other.close();
    }
  });

  it('a word that was lost is made up for, and so is a standing connection that was cut', async () => {
    const listener = await follow();
    const admin = new pg.Client({ connectionString: server.urls.ownerUrl });
    await admin.connect();
    // Somebody who tells nobody: the record grows behind the server's back.
    await admin.query('update revisions set stock = stock + 1 where kitchen_id = $1', [owner.named]);
    const { stock } = last(listener);
    await listener.until(l => last(l).stock === stock + 1);
    await admin.end();
    const other = await server.beside();
    const there = await Listener.open(other.origin + owner.at('/feed'), owner.cookie);
    listening.push(there);
    const keeper = new pg.Client({ connectionString: inject('adminUrl') });
    await keeper.connect();
    await keeper.query(
      "select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'cocotte server' and datname = $1",
      [new URL(server.urls.appUrl).pathname.slice(1)],
    );
    await keeper.end();
    const seq = await note();
    await listener.until(l => last(l).seq === seq);
    await there.until(l => last(l).seq === seq);
    await other.close();
  });

  it('shows that it lives, and is not packed', async () => {
    const listener = await follow();
    await listener.until(l => l.beats > 1);
    const answer = await fetch(server.origin + owner.at('/feed'), {
      headers: { cookie: owner.cookie, 'accept-encoding': 'gzip' },
    });
    expect(answer.headers.get('content-type')).toBe('text/event-stream');
    expect(answer.headers.get('content-encoding')).toBeNull();
    expect(answer.headers.get('cache-control')).toContain('no-store');
    await answer.body?.cancel();
  });

  it('is for those of the kitchen: others are told why, and whoever is no longer one hears nothing more', async () => {
    expect((await owner.raw('GET', '/api/kitchens/not-a-kitchen/feed')).status).toBe(403);
    const nobody = await fetch(server.origin + owner.at('/feed'));
    expect(nobody.status).toBe(401);
    await nobody.body?.cancel();
    const cook = await server.join(owner, 'cook', 'gone@test.example');
    const theirs = await follow(cook);
    await owner.ok(removePerson, { params: { personId: cook.personId } });
    await theirs.over;
    expect((await cook.raw('GET', owner.at('/feed'))).status).toBe(403);
    const tablet = await server.signIn('ona@test.example');
    const its = await follow(tablet);
    const { sessions } = await tablet.ok(listSessions);
    await owner.ok(endSession, { params: { sessionId: sessions.find(s => s.present)?.id ?? '' } });
    await its.over;
    expect((await tablet.raw('GET', owner.at('/feed'))).status).toBe(401);
  });

  it('forgets those who left', async () => {
    const made = openFeed(server.database, null);
    const stops = Array.from({ length: 5 }, () => made.listen(owner.named, () => undefined));
    expect(made.listeners()).toBe(5);
    for (const stop of stops) stop();
    for (const stop of stops) stop();
    expect(made.listeners()).toBe(0);
  });

  it('every call that changes something tells', () => {
    // A part of a file is nothing yet, a curve is told of once it is kept, and what a printer prints changes no book.
    const silent = new Set([
      'recipes.importPart',
      'receipts.importPart',
      'curves.follow',
      'curves.lay',
      'batches.lidMarks',
      'labels.roll',
    ]);
    const mounted = ROUTES.filter(m => inKitchen(m.endpoint));
    const changing = mounted.filter(m => m.endpoint.method !== 'GET' && !silent.has(m.endpoint.name));
    expect(changing.length).toBeGreaterThan(30);
    expect(changing.filter(m => !m.tells).map(m => m.endpoint.name)).toEqual([]);
    expect(mounted.filter(m => m.tells && m.endpoint.method === 'GET')).toEqual([]);
  });
});

describe('what the record has after a number', () => {
  it('is the record, in its order, of all batches, with the names in it', async () => {
    const other = await Line.open(owner, { ...plumJam, name: 'Second jam', code: 'SEJ' }, 'half-pint', 2);
    await other.start();
    const whole = await owner.ok(readEvents, { query: { after: '' } });
    expect(whole.events.map(e => e.receipt.seq)).toEqual(whole.events.map((_, i) => i + 1));
    expect(whole.more).toBe(false);
    expect(whole.moved.seq).toBe(whole.events.length);
    expect(Object.values(whole.people)).toContain('Ona');
    const one = await owner.ok(readBatch, { params: { batchId: other.batchId } });
    expect(whole.events.filter(e => e.batchId === other.batchId)).toEqual(one.events);
    const after = await owner.ok(readEvents, { query: { after: String(whole.events.length - 2) } });
    expect(after.events).toEqual(whole.events.slice(-2));
    expect((await owner.ok(readEvents, { query: { after: '999999' } })).events).toEqual([]);
  });

  it('comes by pages: put together they are the whole', async () => {
    for (let i = 0; i < 6; i++) {
      const facts = Array.from({ length: 100 }, () => line.fact('note.written', { text: 'x' }));
      await owner.ok(appendFacts, { params: { batchId: line.batchId }, body: line.delivery(facts) });
    }
    const seen: number[] = [];
    let page: EventsPage;
    do {
      page = await owner.ok(readEvents, { query: { after: String(seen.at(-1) ?? '') } });
      seen.push(...page.events.map(e => e.receipt.seq));
    } while (page.more);
    expect(seen).toEqual(seen.map((_, i) => i + 1));
    expect(seen).toHaveLength(page.moved.seq);
  });

  it.each(['-1', '1.5', 'x', '1e3'])('%s is no number of an entry', async after => {
    expect((await owner.refused(readEvents, { query: { after } })).code).toBe('bad-page-key');
  });

  it('is not for another kitchen', async () => {
    const cook = await server.join(owner, 'viewer', 'looks@test.example');
    cook.kitchenId = randomUUID();
    expect((await cook.refused(readEvents, { query: { after: '' } })).status).toBe(403);
    expect((await cook.refused(addTasting, { params: { recipeId: line.recipeId } as never })).status).toBe(
      403,
    );
  });
});
