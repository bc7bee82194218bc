import { Agent, request } from 'node:http';
import { performance } from 'node:perf_hooks';
import { hashToken } from '@cocotte/server/house/session-cookie';
import pg from 'pg';
import type { Kitchen } from './kitchens.ts';
import { CONNECTIONS, SECONDS, STEADY_SECONDS } from './say.ts';

const agent = new Agent({ keepAlive: true, maxSockets: 80 });

/** An address in a kitchen, such as `/batches`. */
export const inside = (k: Pick<Kitchen, 'kitchenId'>, path: string): string =>
  `/api/kitchens/${k.kitchenId}${path}`;

/** What came of a call. */
export interface Told {
  status: number;
  took_ms: number;
  bytes: number;
}

/** One call, and whatever is answered. */
export function ask(port: number, token: string, path: string, body?: string): Promise<Told> {
  const began = performance.now();
  return new Promise((resolve, reject) => {
    const req = request(
      {
        host: '127.0.0.1',
        port,
        path,
        agent,
        method: body ? 'POST' : 'GET',
        headers: {
          cookie: `cocotte_session=${token}`,
          ...(body ? { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) } : {}),
        },
      },
      res => {
        let bytes = 0;
        res.on('data', (d: Buffer) => {
          bytes += d.length;
        });
        res.once('end', () =>
          resolve({ status: res.statusCode ?? 0, took_ms: performance.now() - began, bytes }),
        );
      },
    );
    req.once('error', reject);
    req.end(body);
  });
}

/** One call that has to succeed; how long it took, in ms. */
export async function call(port: number, token: string, path: string, body?: string): Promise<number> {
  const { status, took_ms } = await ask(port, token, path, body);
  if (status !== 200) throw new Error(`${path}: ${status}`);
  return took_ms;
}

/** As many as fit at a number of connections, for a while. */
export async function atOnce(one: () => Promise<number>): Promise<number[]> {
  const times: number[] = [];
  const until = performance.now() + SECONDS * 1000;
  await Promise.all(
    Array.from({ length: CONNECTIONS }, async () => {
      await one();
      while (performance.now() < until) times.push(await one());
    }),
  );
  return times;
}

/** At a steady rate, whatever the answers take. */
export async function steady(
  perSecond: number,
  one: () => Promise<number>,
  seconds = STEADY_SECONDS,
): Promise<number[]> {
  const times: number[] = [];
  const all: Promise<void>[] = [];
  const count = Math.ceil(perSecond * seconds);
  const began = performance.now();
  for (let i = 0; i < count; i++) {
    const wait = began + (i * 1000) / perSecond - performance.now();
    if (wait > 0) await new Promise(resolve => setTimeout(resolve, wait));
    all.push(
      one().then(t => {
        times.push(t);
      }),
    );
  }
  await Promise.all(all);
  return times;
}

/** What each endpoint asks of the database, through pg alone. */
export const SESSION = `select a.id, a.name, a.email, a.demo, m.kitchen_id, m.role from sessions s join accounts a on a.id = s.account_id left join memberships m on m.account_id = a.id and m.kitchen_id = s.kitchen_id where s.token_hash = $1 and s.expires_at > $2`;
export const QUERIES: [
  name: string,
  path: (k: Kitchen) => string,
  sql: string,
  params: (k: Kitchen) => unknown[],
][] = [
  [
    'batches',
    k => inside(k, '/batches'),
    `select batch_id, made_on, summary, last_seq from batches where kitchen_id = $1 order by made_on desc, batch_id desc limit 51`,
    k => [k.kitchenId],
  ],
  [
    'recipes',
    k => inside(k, '/recipes'),
    `select r.recipe_id, r.name, r.code, r.version, r.product, r.family, r.tags, r.variant_of, r.cooked, r.last_cooked, v.body->>'foodClass', v.body->'authority'->>'grade', v.body->'makes', (select avg(t.rating)::float8 from tastings t where t.kitchen_id = r.kitchen_id and t.recipe_id = r.recipe_id) from recipes r join recipe_versions v on v.kitchen_id = r.kitchen_id and v.recipe_id = r.recipe_id and v.number = r.version where r.kitchen_id = $1 order by r.name, r.recipe_id limit 51`,
    k => [k.kitchenId],
  ],
  [
    'lots',
    k => inside(k, '/lots'),
    `select l.*, i.body from lots l join items i on i.kitchen_id = l.kitchen_id and i.item_id = l.item_id where l.kitchen_id = $1 and l.on_hand > 0 order by l.received_on desc, l.lot_id desc limit 51`,
    k => [k.kitchenId],
  ],
  [
    'one batch',
    k => inside(k, `/batches/${k.batchId}`),
    `select seq, hash, content from events where kitchen_id = $1 and batch_id = $2 order by seq`,
    k => [k.kitchenId, k.batchId],
  ],
  [
    'today',
    k => inside(k, '/today'),
    `select batch_id, summary, last_seq from batches where kitchen_id = $1 and open = true order by made_on desc, batch_id desc limit 201`,
    k => [k.kitchenId],
  ],
];

/** Begins a transaction as every call does: the session read, the kitchen entered. */
async function enter(client: pg.PoolClient, kitchen: Kitchen): Promise<void> {
  await client.query('begin');
  await client.query(SESSION, [hashToken(kitchen.token), new Date().toISOString()]);
  await client.query("select set_config('app.kitchen_id', $1, true)", [kitchen.kitchenId]);
}

/** What an append asks of the database at the least, through pg alone: the head locked, the batch's entries read, the head written, the disk's flush. */
export async function appendFloor(kitchen: Kitchen, perSecond: number): Promise<number[]> {
  const pool = new pg.Pool({ connectionString: kitchen.appUrl, max: 4 });
  const one = async (): Promise<number> => {
    const began = performance.now();
    const client = await pool.connect();
    await enter(client, kitchen);
    await client.query('select seq, hash from heads where kitchen_id = $1 for update', [kitchen.kitchenId]);
    await client.query(
      'select seq, hash, content from events where kitchen_id = $1 and batch_id = $2 order by seq',
      [kitchen.kitchenId, kitchen.batchId],
    );
    await client.query('update heads set hash = hash where kitchen_id = $1', [kitchen.kitchenId]);
    await client.query('commit');
    client.release();
    return performance.now() - began;
  };
  const times = await steady(perSecond, one);
  await pool.end();
  return times;
}

/** The same transaction through pg alone: session read, kitchen set, query. */
export async function floor(kitchen: Kitchen, sql: string, params: unknown[]): Promise<number[]> {
  const pool = new pg.Pool({ connectionString: kitchen.appUrl, max: CONNECTIONS });
  const one = async (): Promise<number> => {
    const began = performance.now();
    const client = await pool.connect();
    await enter(client, kitchen);
    await client.query(sql, params);
    await client.query('commit');
    client.release();
    return performance.now() - began;
  };
  const times = await atOnce(one);
  await pool.end();
  return times;
}
