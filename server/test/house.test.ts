import { ENDPOINTS } from '@cocotte/contract/table';
import { openApi } from '@cocotte/contract/openapi';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { makeApp } from '../src/house/app.ts';
import { clockFromEnvironment } from '../src/house/clock.ts';
import { assertSafeRole, openDatabase } from '../src/house/database.ts';
import { guessesIn } from '../src/kitchen/guesses.ts';
import { openFeed } from '../src/house/feed.ts';
import { migrate, pendingMigrations } from '../src/house/migrate.ts';
import { Client, TestServer, problemOf } from '../../testing/test-server.ts';
import { readKitchen, changeKitchen } from '@cocotte/contract';

let server: TestServer;
let owner: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
});
afterAll(() => server.close());

const post = (path: string, body: string, headers: Record<string, string> = {}) =>
  owner.raw('POST', path, { body, headers: { 'content-type': 'application/json', ...headers } });

describe('what cannot be read', () => {
  it.each([
    [
      'a body over 1 MB',
      () => post(owner.at('/recipes'), JSON.stringify({ x: 'y'.repeat(1_000_001) })),
      413,
      'too-large',
    ],
    ['malformed JSON', () => post(owner.at('/recipes'), '{"x":'), 400, 'malformed-json'],
    [
      'no JSON at all',
      () =>
        owner.raw('POST', owner.at('/recipes'), {
          body: 'x=1',
          headers: { 'content-type': 'application/x-www-form-urlencoded' },
        }),
      415,
      'not-json',
    ],
    ['an unknown route', () => owner.raw('GET', '/api/pans'), 404, 'unknown-route'],
    ['a method that is not there', () => owner.raw('DELETE', owner.at('/recipes')), 404, 'unknown-route'],
    ['an unknown key in the query', () => owner.raw('GET', owner.at('/recipes?colour=red')), 422, 'invalid'],
    ['an id that is none', () => owner.raw('GET', owner.at('/batches/1')), 422, 'invalid'],
    ['an array for an object', () => post('/api/session', '[]'), 422, 'invalid'],
    ['null for an object', () => post('/api/session', 'null'), 400, 'malformed-json'],
    [
      'an address that does not decode',
      () => owner.raw('GET', owner.at('/batches/%E0%A4%A')),
      400,
      'bad-request',
    ],
  ] as const)('%s', async (_, send, status, code) => {
    const answer = await send();
    expect(answer.status).toBe(status);
    expect(problemOf(answer).code).toBe(code);
  });

  it('names an unknown key and the path of each fault', async () => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    const problem = await owner.refused(changeKitchen, {
      body: {
        ...settings,
        colour: 'red',
        jurisdiction: { ...settings.jurisdiction, statement: 7 },
        altitude_m: 'high',
      },
    });
    expect(problem.errors.map(e => e.path).sort()).toEqual(['', 'altitude_m', 'jurisdiction.statement']);
    expect(problem.errors.find(e => e.path === '')?.what).toContain('colour');
  });

  it('refuses figures that are not finite', async () => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    const answer = await owner.raw('PUT', owner.at(''), {
      body: JSON.stringify({ ...settings, altitude_m: 0 }).replace('"altitude_m":0', '"altitude_m":1e999'),
      headers: { 'content-type': 'application/json' },
    });
    expect(answer.status).toBe(422);
  });
});

describe('the door', () => {
  it('refuses a change that comes from another site', async () => {
    for (const headers of [
      { origin: 'https://elsewhere.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
    ]) {
      const answer = await post(
        '/api/session',
        '{"email":"a@b.example","password":"x"}',
        headers as unknown as Record<string, string>,
      );
      expect([answer.status, problemOf(answer).code]).toEqual([403, 'other-origin']);
    }
    expect(
      (
        await post('/api/session', '{"email":"ona@test.example","password":"a long password"}', {
          origin: server.origin,
          'sec-fetch-site': 'same-origin',
        })
      ).status,
    ).toBe(200);
  });

  it('sends the content security policy, the number of the request and the time', async () => {
    const { headers } = await owner.raw('GET', '/api/session');
    const policy = headers.get('content-security-policy') ?? '';
    for (const part of [
      "script-src 'self'",
      "object-src 'none'",
      "base-uri 'none'",
      "frame-ancestors 'none'",
    ])
      expect(policy).toContain(part);
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(headers.get('request-id')).toMatch(/^[0-9a-f-]{36}$/);
    expect(Number(headers.get('server-time-ms'))).toBe(server.now_ms);
  });

  it('takes nobody who is not signed in', async () => {
    const stranger = new Client(server);
    for (const e of ENDPOINTS.filter(x => x.who !== 'anyone')) {
      const path = e.path.replaceAll(/:\w+/g, '00000000-0000-7000-8000-000000000000');
      const query = e.name === 'records.find' ? '?words=x' : '';
      const answer = await stranger.raw(
        e.method,
        path + query,
        e.method === 'GET' || e.method === 'DELETE'
          ? {}
          : { body: '{}', headers: { 'content-type': 'application/json' } },
      );
      expect([e.name, answer.status === 401]).toEqual([e.name, true]);
    }
  });
});

describe('the table of endpoints', () => {
  it('is printed whole as OpenAPI', async () => {
    const answer = await owner.raw('GET', '/api/openapi.json');
    const document = answer.body as {
      openapi: string;
      paths: Record<string, Record<string, { operationId: string }>>;
    };
    expect(document).toEqual(JSON.parse(JSON.stringify(openApi())));
    const ids = Object.values(document.paths).flatMap(p => Object.values(p).map(o => o.operationId));
    expect(ids.sort()).toEqual(ENDPOINTS.map(e => e.name).sort());
  });
  it('lacks no handler', () =>
    expect(() =>
      makeApp(
        {
          database: server.database,
          clock: { now_ms: () => 0 },
          secure: false,
          guesses: guessesIn(server.database),
          held_ms: () => 0,
          feed: openFeed(server.database, null),
          names: [],
        },
        null,
      ),
    ).not.toThrow());
});

describe('the database', () => {
  it('is up to date, and a second migration does nothing', async () => {
    expect(await pendingMigrations(server.urls.appUrl)).toEqual([]);
    expect(await migrate(server.urls.ownerUrl, 'cocotte_app')).toEqual([]);
  });
  it('runs a migration that was interrupted, though its lock was left behind', async () => {
    const database = openDatabase(server.urls.ownerUrl, 1);
    await database.outside(trx => trx('knex_migrations_lock').update({ is_locked: 1 }));
    await database.close();
    expect(await migrate(server.urls.ownerUrl, 'cocotte_app')).toEqual([]);
  });
  it('refuses a role that owns the tables, for row security would not hold it', async () => {
    const database = openDatabase(server.urls.ownerUrl, 1);
    await expect(assertSafeRole(database)).rejects.toThrow('owns the tables');
    await database.close();
    await expect(assertSafeRole(server.database)).resolves.toBeUndefined();
  });
  it('lets nobody change or take away an event or a movement', async () => {
    for (const sql of [
      'update events set content = content',
      'delete from events',
      'truncate events',
      'update movements set quantity = 0',
      'delete from movements',
    ]) {
      await expect(server.database.outside(trx => trx.raw(sql))).rejects.toThrow('permission denied');
    }
  });
  it('refuses a test clock on a database that is not the private cluster', () => {
    expect(() => clockFromEnvironment({ COCOTTE_TEST_CLOCK_FILE: '/tmp/x' })).toThrow('refused');
    expect(clockFromEnvironment({}).now_ms()).toBeGreaterThan(0);
  });
});
