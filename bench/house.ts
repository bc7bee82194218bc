import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { hashToken } from '@cocotte/server/house/session-cookie';
import { Device } from '@cocotte/testing/device';
import pg from 'pg';
import { type Kitchen, serve } from './kitchens.ts';
import { QUERIES, SESSION, ask, inside } from './load.ts';
import { median, ms, percentile, ratio, say, tiny } from './say.ts';

const CLIENTS = 50;
const MIXED_S = tiny ? 1 : 30;
/** One call in so many is an append. */
const APPENDS = 10;

const rss_MB = (pid: number | undefined) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

/** Fifty connections, reads and appends mixed, for half a minute on the kitchen of ten years. */
export async function mixedLoad(kitchen: Kitchen): Promise<void> {
  const server = await serve(kitchen);
  const batches = await someBatches(kitchen);
  const device = new Device(kitchen.personId, Date.now());
  const reads: number[] = [];
  const appends: number[] = [];
  const statuses = new Map<number, number>();
  const one = async (i: number): Promise<void> => {
    const write = i % APPENDS === 0;
    const [, path] = QUERIES[i % QUERIES.length] as (typeof QUERIES)[number];
    const told = write
      ? await ask(
          server.port,
          kitchen.token,
          inside(kitchen, `/batches/${batches[i % batches.length]}/events`),
          JSON.stringify({ events: [device.fact(Date.now(), 'note.written', { text: 'x' })] }),
        )
      : await ask(server.port, kitchen.token, path(kitchen));
    statuses.set(told.status, (statuses.get(told.status) ?? 0) + 1);
    if (told.status === 200) (write ? appends : reads).push(told.took_ms);
  };
  let turn = 0;
  const forAWhile = async (seconds: number, work: (i: number) => Promise<void>) => {
    const until = performance.now() + seconds * 1000;
    await Promise.all(
      Array.from({ length: CLIENTS }, async () => {
        while (performance.now() < until) await work(turn++);
      }),
    );
  };
  const low: number[] = [];
  const pool = new pg.Pool({ connectionString: kitchen.appUrl, max: CLIENTS });
  const bare = async (i: number): Promise<void> => {
    const [, , sql, params] = QUERIES[i % QUERIES.length] as (typeof QUERIES)[number];
    const began = performance.now();
    const client = await pool.connect();
    await client.query('begin');
    await client.query(SESSION, [hashToken(kitchen.token), new Date().toISOString()]);
    await client.query("select set_config('app.kitchen_id', $1, true)", [kitchen.kitchenId]);
    // An append at the least: the head locked and written, and the disk's flush at commit.
    if (i % APPENDS === 0)
      await client.query('update heads set hash = hash where kitchen_id = $1', [kitchen.kitchenId]);
    else await client.query(sql, params(kitchen));
    await client.query('commit');
    client.release();
    if (i % APPENDS !== 0) low.push(performance.now() - began);
  };
  // Floor and server take turns, so that a noisy minute falls on both.
  const rounds = tiny ? 1 : 3;
  await forAWhile(tiny ? 0.2 : 2, one);
  reads.length = appends.length = 0;
  statuses.clear();
  for (let round = 0; round < rounds; round++) {
    await forAWhile(MIXED_S / rounds / 3, bare);
    await forAWhile(MIXED_S / rounds, one);
  }
  await pool.end();
  const all = [...statuses.values()].reduce((a, b) => a + b, 0);
  const away = statuses.get(503) ?? 0;
  const other = [...statuses.keys()].filter(s => s !== 200 && s !== 503);
  say(
    `\nMixed load, ${CLIENTS} connections for ${MIXED_S} s on the ten years: ${all} calls, ${away} of them 503 (limit 1 %), other than 200 and 503: ${other.join(', ') || 'none'}`,
  );
  say(
    `  reads p95 ${ms(percentile(reads, 0.95))}, median ${ms(median(reads))}; floor, the same transactions through pg: p95 ${ms(percentile(low, 0.95))}, median ${ms(median(low))}; appends p95 ${ms(percentile(appends, 0.95))}, median ${ms(median(appends))}`,
  );
  say(`  server memory afterwards ${rss_MB(server.child.pid).toFixed(0)} MB (target under 300)`);
  ratio('mixed load, share of 503, per cent', (away / all) * 100, 1);
  ratio('mixed load, calls that broke', other.length, 0);
  ratio('mixed load, reads p95 over its floor', percentile(reads, 0.95) / percentile(low, 0.95), 2);
  await server.stop();
}

async function someBatches(kitchen: Kitchen): Promise<string[]> {
  const client = new pg.Client({ connectionString: kitchen.appUrl });
  await client.connect();
  await client.query("select set_config('app.kitchen_id', $1, false)", [kitchen.kitchenId]);
  const { rows } = await client.query('select batch_id from batches order by made_on desc limit 20');
  await client.end();
  return rows.map(r => r.batch_id as string);
}

/** A record of 3,000 entries on paper, once, and ten at once beside the kitchen's other calls. */
export async function papers(kitchen: Kitchen): Promise<void> {
  const server = await serve(kitchen);
  const device = new Device(kitchen.personId, Date.now());
  const wanted = tiny ? 100 : 3000;
  for (let at = 0; at < wanted; at += 100) {
    const events = Array.from({ length: 100 }, (_, i) =>
      device.fact(Date.now(), 'temperature.read', { where: 'pot', temp_C: 90 + ((at + i) % 10) }),
    );
    const told = await ask(
      server.port,
      kitchen.token,
      inside(kitchen, `/batches/${kitchen.batchId}/events`),
      JSON.stringify({ events }),
    );
    if (told.status !== 200) throw new Error(`append answered ${told.status}`);
  }
  const paper = () =>
    ask(server.port, kitchen.token, inside(kitchen, `/batches/${kitchen.batchId}/record.pdf`));
  const other = () => ask(server.port, kitchen.token, inside(kitchen, '/today'));
  /** Other calls, one after the other, while something goes on: how long each took. */
  const beside = async (work: Promise<unknown>): Promise<number[]> => {
    const times: number[] = [];
    const over = new AbortController();
    const ended = work.finally(() => over.abort());
    while (!over.signal.aborted) times.push((await other()).took_ms);
    await ended;
    return times;
  };
  await paper();
  const one = await paper();
  const usual = await beside(new Promise(resolve => setTimeout(resolve, tiny ? 200 : 3000)));
  await held(server.port);
  const began = performance.now();
  const ten = Promise.all(Array.from({ length: 10 }, paper));
  const meanwhile = await beside(ten);
  const took = performance.now() - began;
  const statuses = (await ten).map(t => t.status);
  const heldByPapers = await held(server.port);
  say(
    `\nRecord of ${wanted} entries as PDF: ${ms(one.took_ms)} (target under 3 s), ${(one.bytes / 1000).toFixed(0)} KB; ten at once: ${ms(took)}, answered ${[...new Set(statuses)].join(', ')}`,
  );
  say(
    `  other calls: p95 ${ms(percentile(usual, 0.95))} usually, ${ms(percentile(meanwhile, 0.95))} beside ten papers (target at most twice), longest ${ms(Math.max(...usual))} and ${ms(Math.max(...meanwhile))}; memory ${rss_MB(server.child.pid).toFixed(0)} MB`,
  );
  say(`  the event loop was held ${ms(heldByPapers)} at most meanwhile (target under 50 ms)`);
  await wrongBodies(server.port, kitchen);
  ratio(
    'other calls beside ten papers, p95 over usual',
    percentile(meanwhile, 0.95) / percentile(usual, 0.95),
    2,
  );
  await server.stop();
}

/** The longest the server's event loop was held since it was last asked, ms. */
async function held(port: number): Promise<number> {
  const answer = await fetch(`http://127.0.0.1:${port}/api/health`);
  return ((await answer.json()) as { held_ms: number }).held_ms;
}

/** A megabyte of wrong body, with and without a cookie: how long it holds everybody else up. */
async function wrongBodies(port: number, kitchen: Kitchen): Promise<void> {
  const fill = (one: string) =>
    Array.from({ length: Math.floor(900_000 / (one.length + 1)) }, () => one).join(',');
  const bodies: [name: string, body: string][] = [
    ['rows of nothing', `{"events":[${fill('null')}]}`],
    ['brackets', `{"events":${'['.repeat(400_000)}${']'.repeat(400_000)}}`],
    ['names', `{${Array.from({ length: 60_000 }, (_, i) => `"k${i}":${i}`).join(',')}}`],
    [
      'a name in each row',
      `{"events":[${Array.from({ length: 19_000 }, (_, i) => `{"k${i}":1}`).join(',')}]}`,
    ],
    ['one long text', `{"events":"${'x'.repeat(900_000)}"}`],
  ];
  const path = inside(kitchen, `/batches/${kitchen.batchId}/events`);
  const most: string[] = [];
  for (const [name, body] of bodies) {
    for (let i = 0; i < 3; i++) await ask(port, kitchen.token, path, body);
    await held(port);
    for (let i = 0; i < 5; i++) {
      await ask(port, kitchen.token, path, body);
      await ask(port, 'nobody', path, body);
    }
    most.push(`${name} ${ms(await held(port))}`);
  }
  say(`  a megabyte of wrong body held it at most: ${most.join(', ')} (target under 50 ms)`);
}
