import { randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { signIn } from '@cocotte/contract';
import * as argon2 from '@node-rs/argon2';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { Client, TestServer, problemOf } from '../../testing/test-server.ts';
import { openDatabase } from '../src/house/database.ts';
import { type Guess, LIMITS, guessesIn } from '../src/kitchen/guesses.ts';
import { insertAccount } from '../src/kitchen/outside.ts';
import { hashPassword } from '../src/kitchen/sessions.ts';

vi.mock('@node-rs/argon2', async original => {
  const real = await original<typeof argon2>();
  return { ...real, verify: vi.fn(real.verify) };
});
const weighed = () => vi.mocked(argon2.verify).mock.calls.length;

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.open();
  await server.firstOwner();
  const password_hash = await hashPassword('a long password');
  await server.database.outside(async trx => {
    for (const name of ['eve', 'max'])
      await insertAccount(
        trx,
        { id: randomUUID(), email: `${name}@test.example`, name, password_hash, demo: false },
        server.now_ms,
      );
  });
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.database.outside(trx => trx('sign_in_counts').delete());
  vi.mocked(argon2.verify).mockClear();
});
afterEach(() => void vi.restoreAllMocks());

const ONA = 'ona@test.example';
/** A try from an address of its own. */
function tryFrom(address: string, email: string, password: string, cookie = ''): Promise<number> {
  const body = JSON.stringify({ email, password });
  return new Promise((resolve, reject) => {
    const { hostname, port } = new URL(server.origin);
    const req = request(
      {
        hostname,
        port,
        path: '/api/session',
        method: 'POST',
        localAddress: address,
        agent: false,
        headers: {
          'content-type': 'application/json',
          'content-length': Buffer.byteLength(body),
          ...(cookie ? { cookie } : {}),
        },
      },
      res => {
        res.resume();
        res.once('end', () => resolve(res.statusCode ?? 0));
      },
    );
    req.once('error', reject);
    req.end(body);
  });
}
const many = (n: number, one: (i: number) => Promise<number>) =>
  Promise.all(Array.from({ length: n }, (_, i) => one(i)));
const count = (statuses: number[], status: number) => statuses.filter(s => s === status).length;

describe('guessing', () => {
  it('sixty guesses at one moment are counted one by one: three are weighed', async () => {
    const statuses = await many(60, i => tryFrom('127.0.0.2', ONA, `guess ${i}`));
    expect([count(statuses, 401), count(statuses, 429)]).toEqual([3, 57]);
    expect(weighed()).toBe(3);
    // Nor is the right word weighed now.
    expect(await tryFrom('127.0.0.2', ONA, 'a long password')).toBe(429);
    expect(weighed()).toBe(3);
  });

  it('says how long to wait, and after that one may try again', async () => {
    const client = new Client(server);
    const wrong = () => client.try(signIn, { body: { email: ONA, password: 'not it' } });
    for (let i = 0; i < 3; i++) expect((await wrong()).status).toBe(401);
    const held = await wrong();
    const wait_s = Number(held.headers.get('retry-after'));
    expect([held.status, problemOf(held).errors[0]?.path]).toEqual([429, 'password']);
    expect(wait_s).toBeGreaterThan(50);
    const now = Date.now;
    vi.spyOn(Date, 'now').mockImplementation(() => now() + (wait_s + 1) * 1000);
    expect((await wrong()).status).toBe(401);
    expect(
      (await client.ok(signIn, { body: { email: ONA, password: 'a long password' } })).person?.email,
    ).toBe(ONA);
  });

  it('one address is counted over all accounts, known and unknown alike', async () => {
    const statuses = await many(60, i => tryFrom('127.0.0.3', `nobody${i}@test.example`, 'a guess'));
    expect([count(statuses, 401), count(statuses, 429)]).toEqual([LIMITS.address.points, 30]);
    expect(await tryFrom('127.0.0.3', ONA, 'a long password')).toBe(429);
    // Somebody elsewhere is not held up by that.
    expect(await tryFrom('127.0.0.4', ONA, 'a long password')).toBe(200);
  });

  it('an own success takes back nothing of what was guessed for others', async () => {
    for (let i = 0; i < 3; i++) expect(await tryFrom('127.0.0.5', ONA, `guess ${i}`)).toBe(401);
    expect(await tryFrom('127.0.0.5', 'eve@test.example', 'a long password')).toBe(200);
    expect(await tryFrom('127.0.0.5', ONA, 'one more')).toBe(429);
    const statuses = [];
    for (let i = 0; i < 40; i++) {
      statuses.push(await tryFrom('127.0.0.5', `nobody${i}@test.example`, 'a guess'));
      if (i % 5 === 0) await tryFrom('127.0.0.5', 'eve@test.example', 'a long password');
    }
    // Three were guessed for Ona, and one more was counted when it was turned away.
    expect(count(statuses, 401)).toBe(LIMITS.address.points - 3);
  });

  it('a device on which somebody signed in before is not held up by the failures of others', async () => {
    const own = await server.signIn(ONA);
    const device = `cocotte_device=${own.device}`;
    expect(own.device).toHaveLength(43);
    // Others guess from the same address, and from everywhere.
    for (let i = 0; i < 4; i++) await tryFrom('127.0.0.6', ONA, `guess ${i}`);
    const guesses = guessesIn(server.database);
    for (let i = 0; i < LIMITS.all.points + 1; i++)
      await guesses.count({ email: ONA, address: `a${i}`, knownDevice: null }).catch(() => undefined);
    expect(await tryFrom('127.0.0.6', ONA, 'a long password')).toBe(429);
    expect(await tryFrom('127.0.0.6', ONA, 'a long password', device)).toBe(200);
    // The device opens nothing by itself, and is known to the account of whoever signed in on it only.
    expect(await tryFrom('127.0.0.6', 'max@test.example', 'a long password', device)).toBe(429);
    const statuses = await many(20, i => tryFrom('127.0.0.6', ONA, `guess ${i}`, device));
    expect(count(statuses, 401)).toBe(LIMITS.device.points);
  });

  it('an unknown account takes what a known one takes: one password is weighed, by the same measure', async () => {
    for (const email of [ONA, 'nobody@test.example']) {
      vi.mocked(argon2.verify).mockClear();
      const answer = await new Client(server).try(signIn, { body: { email, password: 'not it' } });
      expect(problemOf(answer).errors.map(e => e.what)).toEqual([
        'That email and password do not belong together.',
      ]);
      expect(weighed()).toBe(1);
      const hash = String(vi.mocked(argon2.verify).mock.calls[0]?.[0]);
      expect(hash.split('$').slice(1, 4)).toEqual(['argon2id', 'v=19', 'm=19456,t=2,p=1']);
    }
  });

  it('counts of two servers on one database are one count', async () => {
    const other = openDatabase(server.urls.appUrl, 4);
    const guess: Guess = { email: ONA, address: 'x', knownDevice: null };
    const both = [guessesIn(server.database), guessesIn(other)];
    const outcomes = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        (both[i % 2] as (typeof both)[number]).count(guess).then(
          () => true,
          () => false,
        ),
      ),
    );
    expect(outcomes.filter(Boolean)).toHaveLength(LIMITS.minute.points);
    await other.close();
  });

  it('keeps no email of anybody in what it counts', async () => {
    await tryFrom('127.0.0.7', 'somebody@secret.example', 'x');
    const rows = await server.database.outside(trx => trx('sign_in_counts').select('key'));
    expect(rows.length).toBeGreaterThan(0);
    expect(JSON.stringify(rows)).not.toMatch(/secret|127\.0/);
  });
});
