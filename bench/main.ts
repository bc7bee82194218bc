import { type ChildProcess, fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { fold } from '@cocotte/core/batches';
import { LABEL_STOCKS, type LabelStock } from '@cocotte/core/labels';
import { seedDemo } from '@cocotte/demo/seed';
import { crushedTomatoes, plumJam, waxBeans } from '@cocotte/demo/recipes';
import { openDatabase } from '@cocotte/server/house/database';
import { migrate } from '@cocotte/server/house/migrate';
import { hashToken } from '@cocotte/server/house/session-cookie';
import { insertSession } from '@cocotte/server/kitchen/outside';
import { drawLabels } from '@cocotte/server/labels/sheet';
import { Device } from '@cocotte/testing/device';
import { firstLoad } from '@cocotte/testing/first-load';
import { fillTenYears, tenYearBatch } from '@cocotte/testing/ten-years';
import pg from 'pg';

/** Each figure beside a floor from the same run. Absolute times are targets to report; only ratios fail. */
const tiny = process.argv.includes('--tiny');
const CONNECTIONS = 32;
const SECONDS = tiny ? 0.6 : 4;
const PLAN = tiny ? { batches: 40, lots: 200 } : { batches: 5000, lots: 20_000 };
const { ADMIN_URL = '', OWNER_URL = '', APP_URL = '', ROOT = '' } = process.env;
const failures: string[] = [];
const rows: string[] = [];

const say = (line: string) => {
  rows.push(line);
  console.log(line);
};
const at = (url: string, name: string) => Object.assign(new URL(url), { pathname: `/${name}` }).href;
const ms = (n: number) => `${n < 10 ? n.toFixed(2) : n.toFixed(1)} ms`;
const percentile = (list: number[], p: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * p))] ?? Number.NaN;

/** Holds a ratio to its limit; a tiny run only prints it, for it measures nothing. */
function ratio(name: string, value: number, limit: number): void {
  say(`  ${value <= limit ? 'within' : 'OVER'} ${name}: ${value.toFixed(2)} (at most ${limit})`);
  if (!tiny && value > limit) failures.push(name);
}

interface Kitchen {
  name: string;
  appUrl: string;
  kitchenId: string;
  personId: string;
  token: string;
  batchId: string;
  recipes: string[];
}

async function makeKitchen(name: string, ten: boolean): Promise<Kitchen> {
  const admin = new pg.Client({ connectionString: at(ADMIN_URL, 'postgres') });
  await admin.connect();
  await admin.query(`create database ${name} owner cocotte_owner`);
  await admin.end();
  await migrate(at(OWNER_URL, name), 'cocotte_app');
  const appUrl = at(APP_URL, name);
  const database = openDatabase(appUrl, 4, 600_000);
  await seedDemo(database, Date.now());
  const who = await database.outside(
    async trx =>
      (await trx('memberships').where({ role: 'owner' }).first()) as {
        account_id: string;
        kitchen_id: string;
      },
  );
  const token = randomUUID();
  await database.outside(trx =>
    insertSession(trx, hashToken(token), who.account_id, who.kitchen_id, Date.now()),
  );
  const known = new Map([plumJam, waxBeans, crushedTomatoes].map(r => [r.code, r]));
  const recipes = await database.inKitchen(who.kitchen_id, async trx =>
    (await trx('recipes')).map(r => ({ id: r.recipe_id as string, recipe: known.get(r.code) ?? plumJam })),
  );
  if (ten)
    await fillTenYears(database, {
      ...PLAN,
      recipes,
      personId: who.account_id,
      kitchenId: who.kitchen_id,
      today: new Date().toISOString().slice(0, 10),
    });
  const batchId = await database.inKitchen(
    who.kitchen_id,
    async trx =>
      (await trx('batches').where({ stage: 'released' }).orderBy('made_on').first()).batch_id as string,
  );
  await database.close();
  const owner = new pg.Client({ connectionString: at(OWNER_URL, name) });
  await owner.connect();
  await owner.query('vacuum analyze');
  await owner.end();
  return {
    name,
    appUrl,
    kitchenId: who.kitchen_id,
    personId: who.account_id,
    token,
    batchId,
    recipes: recipes.map(r => r.id),
  };
}

async function serve(
  kitchen: Kitchen,
): Promise<{ port: number; child: ChildProcess; stop: () => Promise<void> }> {
  const port = 20_000 + Math.floor(Math.random() * 20_000);
  const child = fork(join(ROOT, 'dist/server/main.mjs'), [], {
    env: { ...process.env, DATABASE_URL: kitchen.appUrl, PORT: String(port), NODE_ENV: 'production' },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  await new Promise<void>((resolve, reject) => {
    child.once('message', () => resolve());
    child.once('exit', code => reject(new Error(`the server ended with ${code}`)));
  });
  return {
    port,
    child,
    stop: () =>
      new Promise(resolve => {
        child.once('exit', () => resolve());
        child.kill('SIGTERM');
      }),
  };
}

const agent = new Agent({ keepAlive: true, maxSockets: 64 });

function call(port: number, token: string, path: string, body?: string): Promise<number> {
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
        res.resume();
        res.once('end', () =>
          res.statusCode === 200
            ? resolve(performance.now() - began)
            : reject(new Error(`${path}: ${res.statusCode}`)),
        );
      },
    );
    req.once('error', reject);
    req.end(body);
  });
}

/** As many as fit at a number of connections, for a while. */
async function atOnce(one: () => Promise<number>): Promise<number[]> {
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
async function steady(perSecond: number, one: () => Promise<number>): Promise<number[]> {
  const times: number[] = [];
  const all: Promise<void>[] = [];
  const count = Math.ceil(perSecond * SECONDS);
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
const SESSION = `select a.id, a.name, a.email, a.demo, m.kitchen_id, m.role from sessions s join accounts a on a.id = s.account_id left join memberships m on m.account_id = a.id and m.kitchen_id = s.kitchen_id where s.token_hash = $1 and s.expires_at > $2`;
const QUERIES: [
  name: string,
  path: (k: Kitchen) => string,
  sql: string,
  params: (k: Kitchen) => unknown[],
][] = [
  [
    'batches',
    () => '/api/batches',
    `select batch_id, made_on, summary, last_seq from batches where kitchen_id = $1 order by made_on desc, batch_id desc limit 51`,
    k => [k.kitchenId],
  ],
  [
    'recipes',
    () => '/api/recipes',
    `select r.recipe_id, r.name, r.code, r.version, r.cooked, r.last_cooked, v.body->>'foodClass', v.body->'authority'->>'grade', v.body->'makes' from recipes r join recipe_versions v on v.kitchen_id = r.kitchen_id and v.recipe_id = r.recipe_id and v.number = r.version where r.kitchen_id = $1 order by r.name, r.recipe_id limit 51`,
    k => [k.kitchenId],
  ],
  [
    'lots',
    () => '/api/lots',
    `select l.*, i.body from lots l join items i on i.kitchen_id = l.kitchen_id and i.item_id = l.item_id where l.kitchen_id = $1 and l.on_hand > 0 order by l.received_on desc, l.lot_id desc limit 51`,
    k => [k.kitchenId],
  ],
  [
    'one batch',
    k => `/api/batches/${k.batchId}`,
    `select seq, hash, content from events where kitchen_id = $1 and batch_id = $2 order by seq`,
    k => [k.kitchenId, k.batchId],
  ],
  [
    'today',
    () => '/api/today',
    `select batch_id, summary, last_seq from batches where kitchen_id = $1 and open = true order by made_on desc, batch_id desc limit 201`,
    k => [k.kitchenId],
  ],
];

async function floor(kitchen: Kitchen, sql: string, params: unknown[]): Promise<number[]> {
  const pool = new pg.Pool({ connectionString: kitchen.appUrl, max: CONNECTIONS });
  const one = async (): Promise<number> => {
    const began = performance.now();
    const client = await pool.connect();
    await client.query('begin');
    await client.query(SESSION, [hashToken(kitchen.token), new Date().toISOString()]);
    await client.query("select set_config('app.kitchen_id', $1, true)", [kitchen.kitchenId]);
    await client.query(sql, params);
    await client.query('commit');
    client.release();
    return performance.now() - began;
  };
  const times = await atOnce(one);
  await pool.end();
  return times;
}

async function endpoints(kitchens: Kitchen[]): Promise<void> {
  const p95 = new Map<string, number>();
  const p50 = new Map<string, number>();
  for (const kitchen of kitchens) {
    const server = await serve(kitchen);
    await steady(20, () => call(server.port, kitchen.token, '/api/today'));
    await new Promise(resolve => setTimeout(resolve, tiny ? 200 : 2000));
    const rest_MB =
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))?.[1]) / 1024;
    say(
      `\n${kitchen.name.includes('ten') ? `Ten-year kitchen (${PLAN.batches} batches, ${PLAN.lots} lots)` : 'Demo kitchen'}; server at rest ${rest_MB.toFixed(0)} MB (target under 250)`,
    );
    for (const [name, path, sql, params] of QUERIES) {
      const low = percentile(await floor(kitchen, sql, params(kitchen)), 0.95);
      const times = await atOnce(() => call(server.port, kitchen.token, path(kitchen)));
      const high = percentile(times, 0.95);
      p95.set(`${kitchen.name} ${name}`, high);
      p50.set(`${kitchen.name} ${name}`, percentile(times, 0.5));
      say(
        `  ${name}: p95 ${ms(high)}, median ${ms(percentile(times, 0.5))} at ${CONNECTIONS} connections; floor p95 ${ms(low)}; ${Math.round(times.length / SECONDS)} a second`,
      );
      ratio(`${name} over its floor`, high / low, 3);
    }
    let turn = 0;
    const reads = await steady(100, () =>
      call(
        server.port,
        kitchen.token,
        (QUERIES[turn++ % QUERIES.length] as (typeof QUERIES)[number])[1](kitchen),
      ),
    );
    say(
      `  steady 100 a second: p95 ${ms(percentile(reads, 0.95))} (target under 50 ms), median ${ms(percentile(reads, 0.5))}`,
    );
    const device = new Device(kitchen.personId, Date.now());
    const append = () =>
      call(
        server.port,
        kitchen.token,
        `/api/batches/${kitchen.batchId}/events`,
        JSON.stringify({
          events: [device.fact(Date.now(), 'temperature.read', { where: 'pot', temp_C: 99 })],
        }),
      );
    const appends = await steady(20, append);
    say(
      `  append at 20 a second: p95 ${ms(percentile(appends, 0.95))} (target under 20 ms), median ${ms(percentile(appends, 0.5))}`,
    );
    await server.stop();
  }
  const [demo, ten] = kitchens as [Kitchen, Kitchen];
  say('\nTen-year kitchen over the demo, medians at 32 connections');
  for (const [name] of QUERIES)
    ratio(
      `${name}, ten years over demo`,
      (p50.get(`${ten.name} ${name}`) ?? 0) / (p50.get(`${demo.name} ${name}`) ?? 1),
      1.5,
    );
}

function pure(): void {
  const batch = tenYearBatch(plumJam, {});
  while (batch.events.length < 500)
    batch.wait(1).fact('temperature.read', { where: 'pot', temp_C: 90 + (batch.events.length % 10) });
  // As they come from the database and over the wire.
  const events = JSON.parse(JSON.stringify(batch.events)) as typeof batch.events;
  const runs = tiny ? 30 : 2000;
  for (let i = 0; i < runs; i++) fold(events);
  const times = Array.from({ length: runs }, () => {
    const began = performance.now();
    fold(events);
    return performance.now() - began;
  });
  const parse = Array.from({ length: Math.min(runs, 200) }, () => {
    const began = performance.now();
    for (const e of events) Date.parse(e.wallClock);
    return performance.now() - began;
  });
  say(
    `\nFold of ${batch.events.length} entries: median ${ms(percentile(times, 0.5))}, p95 ${ms(percentile(times, 0.95))} (target under 1 ms); floor, parsing and sorting their instants: ${ms(percentile(parse, 0.5))}`,
  );
}

async function labels(): Promise<void> {
  const label = {
    statementOfIdentity: 'Red plum jam',
    ingredients: 'plums, sugar, water, lemon juice (lemon juice from concentrate, sulphites)',
    contains: 'sulphites',
    netContents: 'Net Wt 10 oz 283 g',
    maker: 'Wrenfold Kitchen',
    address: '12 Mill Lane, Alder Crossing',
    lotCode: 'RPJ-26328-1N',
    madeOn: '2026-11-24',
    bestBy: '2027-11-24',
    readyFrom: null,
    statement: 'Made in a home kitchen that is not inspected.',
    notForSale: false,
  };
  const stock = LABEL_STOCKS[0] as LabelStock;
  const time = async (count: number) => {
    const began = performance.now();
    const bytes = await drawLabels(label, stock, count, { locale: 'en-US' });
    return { took: performance.now() - began, bytes: bytes.length };
  };
  await time(1);
  const one = await time(1);
  const many = await time(300);
  say(
    `300 labels as PDF: ${ms(many.took)} (target under 1 s), ${(many.bytes / 1000).toFixed(0)} KB; floor, one label: ${ms(one.took)}`,
  );
}

const stamp = `${process.pid}_${Date.now().toString(36)}`;
const names = [`cocotte_bench_demo_${stamp}`, `cocotte_bench_ten_${stamp}`];
try {
  const began = performance.now();
  const kitchens = [
    await makeKitchen(names[0] as string, false),
    await makeKitchen(names[1] as string, true),
  ];
  say(`Kitchens made in ${((performance.now() - began) / 1000).toFixed(1)} s`);
  await endpoints(kitchens);
  pure();
  await labels();
  const load = firstLoad(join(ROOT, 'dist/web'));
  say(
    `First load: ${(load.bytes / 1000).toFixed(1)} KB of JavaScript, gzipped (limit 290; floor, a blank shell of the stack: 236)`,
  );
} finally {
  const admin = new pg.Client({ connectionString: at(ADMIN_URL, 'postgres') });
  await admin.connect();
  for (const name of names) await admin.query(`drop database if exists ${name} with (force)`);
  await admin.end();
}
say(
  failures.length === 0
    ? `\nEvery ratio is within its limit${tiny ? ' or was not held to it: this run is tiny' : ''}.`
    : `\nOver their limits: ${failures.join('; ')}`,
);
process.exit(failures.length > 0 ? 1 : 0);
