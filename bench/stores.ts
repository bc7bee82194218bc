import { byName } from '@cocotte/core/measure';
import { fork } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import {
  type Item,
  type PlanFigures,
  type Receipt,
  batchCost,
  costSheet,
  plannedInput,
  whatIf,
} from '@cocotte/core/stores';
import { plainCosts } from '@cocotte/core/kitchen';
import { factorForJars, scaleRecipe } from '@cocotte/core/recipes';
import { plumJam } from '@cocotte/demo/recipes';
import { openDatabase } from '@cocotte/server/house/database';
import { hashToken } from '@cocotte/server/house/session-cookie';
import { bareShelf } from '@cocotte/server/stores/shelf';
import { selectItems } from '@cocotte/server/stores/queries';
import { costCases, spreadsheetCost } from '@cocotte/testing/cost-spreadsheet';
import pg from 'pg';
import { type Kitchen, ROOT, serve } from './kitchens.ts';
import { call, inside } from './load.ts';
import { median, ms, percentile, ratio, say, tiny } from './say.ts';

const SESSION = `select a.id, m.kitchen_id, m.role from sessions s join accounts a on a.id = s.account_id left join memberships m on m.account_id = a.id where s.token_hash = $1`;
const KITCHEN = `select settings from kitchens where kitchen_id = $1`;
const PLANS = `select p.*, v.body from plans p join recipe_versions v on v.kitchen_id = p.kitchen_id and v.recipe_id = p.recipe_id where p.kitchen_id = $1`;
const ITEMS = `select body from items where kitchen_id = $1 order by name, item_id`;
const SHELF = [
  ITEMS,
  `select * from lots where kitchen_id = $1 and on_hand > 0 order by item_id, received_on, lot_id`,
  `select i.item_id, l.unit_cost from items i cross join lateral (select unit_cost from lots where kitchen_id = i.kitchen_id and item_id = i.item_id order by received_on desc, lot_id desc limit 1) l where i.kitchen_id = $1`,
];
const LEFT = `select item_id, sum(on_hand) from lots where kitchen_id = $1 and on_hand > 0 group by item_id`;
const NOW = `select i.*, (select sum(quantity) from item_months m where m.kitchen_id = i.kitchen_id and m.item_id = i.item_id) from items i where i.kitchen_id = $1 order by i.name limit 41`;
const PAST = `select i.*, (select sum(quantity) from item_months m where m.kitchen_id = i.kitchen_id and m.item_id = i.item_id and m.month < now() - interval '1200 days'), (select sum(quantity) from movements m where m.kitchen_id = i.kitchen_id and m.item_id = i.item_id and m.at between now() - interval '1230 days' and now() - interval '1200 days') from items i where i.kitchen_id = $1 order by i.name limit 41`;
const COUNTS = `select count(*) filter (where exists (select 1 from lots l where l.kitchen_id = i.kitchen_id and l.item_id = i.item_id and l.on_hand > 0 and l.best_by < '2030-01-01')) from items i where i.kitchen_id = $1`;
const RECORD = (k: Kitchen) =>
  `select seq, hash, content from events where kitchen_id = $1 and batch_id = '${k.batchId}' order by seq`;
const NEAR = `select batch_id, work from batches where kitchen_id = $1 order by made_on desc limit 14`;

/** The queries of one call through pg alone, in one transaction, one call after another. */
async function bare(kitchen: Kitchen, queries: string[], count: number): Promise<number[]> {
  const client = new pg.Client({ connectionString: kitchen.appUrl });
  await client.connect();
  const times: number[] = [];
  for (let i = 0; i < count + 5; i++) {
    const began = performance.now();
    await client.query('begin');
    await client.query(SESSION, [hashToken(kitchen.token)]);
    await client.query("select set_config('app.kitchen_id', $1, true)", [kitchen.kitchenId]);
    for (const sql of queries) await client.query(sql, [kitchen.kitchenId]);
    await client.query('commit');
    if (i >= 5) times.push(performance.now() - began);
  }
  await client.end();
  return times;
}

/** The shelf of ten years: the list, the balance at an instant, everything a plan is made from, what a batch cost. */
export async function storesOfYears(kitchen: Kitchen): Promise<void> {
  const server = await serve(kitchen);
  const past = new Date(Date.now() - 1200 * 86_400_000).toISOString();
  say('\nStores in the kitchen of ten years, one call after another');
  for (const [name, path, target, queries] of [
    ['stores list', inside(kitchen, '/stock'), 50, [KITCHEN, NOW, COUNTS, PLANS, ITEMS, LEFT]],
    ['balance at a past instant', inside(kitchen, `/stock?at=${past}`), 50, [KITCHEN, PAST, COUNTS]],
    ['shelf with every lot that is left', inside(kitchen, '/shelf'), 0, [...SHELF, PLANS]],
    [
      'actual cost of a batch',
      inside(kitchen, `/batches/${kitchen.batchId}/cost`),
      10,
      [RECORD(kitchen), NEAR],
    ],
  ] as const) {
    const once = () => call(server.port, kitchen.token, path);
    for (let i = 0; i < 10; i++) await once();
    const count = tiny ? 10 : 150;
    const times: number[] = [];
    const low: number[] = [];
    // Endpoint and floor take turns, so that a noisy minute falls on both.
    for (let round = 0; round < 3; round++) {
      low.push(...(await bare(kitchen, [...queries], count / 3)));
      for (let i = 0; i < count / 3; i++) times.push(await once());
    }
    say(
      `  ${name}: p95 ${ms(percentile(times, 0.95))}${target > 0 ? ` (target under ${target} ms)` : ''}, median ${ms(median(times))}; floor, its queries through pg: p95 ${ms(percentile(low, 0.95))}, median ${ms(median(low))}`,
    );
    // A cost also reads the batch's whole record, folds it and adds it up.
    ratio(`${name}, median over its floor`, median(times) / median(low), path.endsWith('/cost') ? 5 : 4);
  }
  await server.stop();
}

function timed(count: number, work: () => unknown): number[] {
  for (let i = 0; i < Math.min(count, 20); i++) work();
  return Array.from({ length: count }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
}

/** Cost sheets and what-ifs by themselves, and beside a spreadsheet. */
export async function costsInHand(): Promise<void> {
  const jars = [{ size: 'half-pint' as const, count: 8 }];
  const figures = (count: number): PlanFigures => ({
    recipe: plumJam,
    scaled: scaleRecipe(plumJam, factorForJars(plumJam, [{ size: 'half-pint', count }]), [
      { size: 'half-pint', count },
    ]),
    jars: [{ size: 'half-pint', count }],
    shelf: [],
    settings: plainCosts,
    locale: 'en-US',
    currency: 'USD',
    hourlyRate: '18',
    minutes: 120,
    kitchenMinutes: 20,
    burnerMinutes: 60,
    burnerId: '',
    yieldShare: 1,
    nets_g: new Map(),
    priceFactor: byName(),
  });
  const base = { ...figures(8), shelf: benchShelf(), jars };
  const rescaled = [
    { id: 'a', title: 'a', words: '', figures: { ...figures(16), shelf: base.shelf } },
    { id: 'b', title: 'b', words: '', figures: { ...figures(12), shelf: base.shelf } },
  ];
  const turns = { fruit_pct: 30, yield_pct: 10, minutes_pct: 25, sugar_pct: 30 };
  const one = timed(tiny ? 20 : 500, () => costSheet(plannedInput(base)));
  const swings = timed(tiny ? 20 : 300, () => whatIf(base, turns, rescaled));
  say(
    `\nWhat-if redrawn: median ${ms(median(swings))}, p95 ${ms(percentile(swings, 0.95))} (target within a frame, 16 ms); floor, one planned cost sheet: ${ms(median(one))}`,
  );
  const cases = costCases(tiny ? 10 : 200);
  const ours = timed(1, () => cases.map(c => batchCost(c.state, c.context)))[0] as number;
  const theirs = timed(1, () => cases.map(spreadsheetCost))[0] as number;
  say(
    `Cost sheets of ${cases.length} batches: ${ms(ours)}; floor, the same in a spreadsheet engine: ${ms(theirs)}`,
  );
  const [many] = costCases(1);
  if (many?.state.draws[0]) {
    const lot = many.state.draws[0].lots[0];
    if (lot) many.state.draws[0].lots = Array.from({ length: 40 }, () => lot);
    const forty = timed(tiny ? 20 : 500, () => batchCost(many.state, many.context));
    say(
      `Actual cost of 40 draws, computed: median ${ms(median(forty))}, p95 ${ms(percentile(forty, 0.95))} (target under 10 ms)`,
    );
  }
}

function benchShelf(): PlanFigures['shelf'] {
  return plumJam.lines.map((l, i) => ({
    item: {
      id: l.id,
      kind: 'ingredient',
      name: l.name,
      unit: 'g',
      unit_g: 1,
      density_gPerMl: null,
      bushel_g: null,
      ingredientId: l.ingredientId,
      use: 'other',
      jarSize: null,
      mouth: null,
      brim_mL: null,
      tare_g: null,
      labelName: l.labelName,
      subIngredients: '',
      allergens: [],
      minimum: null,
      packages: [],
      leadTime_days: 0,
      toolState: null,
      version: 1,
    },
    lots: [],
    lastCost: `0.00${i + 1}`,
    average: null,
    reserved: '0',
  }));
}

/** A file of 50,000 lines: read, sent in parts, put on the shelf whole. */
export async function fileOfReceipts(kitchen: Kitchen): Promise<void> {
  const count = tiny ? 500 : 50_000;
  const database = openDatabase(kitchen.appUrl, 2);
  const items: Item[] = await database.inKitchen(kitchen.kitchenId, trx =>
    selectItems(trx, kitchen.kitchenId),
  );
  const shelf = await database.inKitchen(kitchen.kitchenId, trx =>
    bareShelf({ trx, kitchenId: kitchen.kitchenId }),
  );
  await database.close();
  const plain = items.filter(
    i => i.kind === 'ingredient' && i.unit === 'g' && (i.use === 'other' || i.use === 'vinegar'),
  );
  const dir = mkdtempSync(join(tmpdir(), 'cocotte-csv-'));
  const file = join(dir, 'receipts.csv');
  const itemsFile = join(dir, 'items.json');
  writeFileSync(
    file,
    [
      'Date,Supplier,Receipt,Item,Qty,Unit,Price,Tax',
      ...Array.from(
        { length: count },
        (_, i) =>
          `2026-0${1 + (Math.floor(i / 5) % 9)}-${String(1 + (Math.floor(i / 5) % 28)).padStart(2, '0')},"Depot, ""the large one""",B${Math.floor(i / 5)},${plain[i % plain.length]?.name},${1 + (i % 7)},kg,${(2 + (i % 300) / 100).toFixed(2)},0.05`,
      ),
    ].join('\r\n'),
  );
  writeFileSync(itemsFile, JSON.stringify(items));
  const server = await serve(kitchen);
  const began = performance.now();
  const read = await new Promise<{ receipts: Receipt[]; faults: number; took_ms: number; most_MB: number }>(
    (resolve, reject) => {
      const child = fork(join(ROOT, 'dist/bench/csv.mjs'), [file, itemsFile], {
        stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      });
      child.once('message', m => resolve(m as never));
      child.once('exit', code => code !== 0 && reject(new Error(`the reader ended with ${code}`)));
    },
  );
  if (read.faults > 0) throw new Error(`${read.faults} lines of the file have a fault`);
  for (const r of read.receipts) {
    r.id = randomUUID();
    for (const l of r.lines) {
      l.id = randomUUID();
      l.lotId = randomUUID();
    }
  }
  const importId = randomUUID();
  const parts = Array.from({ length: Math.ceil(read.receipts.length / 120) }, (_, i) => i * 120);
  const next = async (): Promise<void> => {
    for (let from = parts.shift(); from !== undefined; from = parts.shift())
      await call(
        server.port,
        kitchen.token,
        inside(kitchen, `/receipt-imports/${importId}/parts`),
        JSON.stringify({ from, receipts: read.receipts.slice(from, from + 120) }),
      );
  };
  await Promise.all([next(), next()]);
  await call(
    server.port,
    kitchen.token,
    inside(kitchen, `/receipt-imports/${importId}/finish`),
    JSON.stringify({ count: read.receipts.length, again: false }),
  );
  const took_s = (performance.now() - began) / 1000;
  const serverMost_MB =
    Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))?.[1]) / 1024;
  await server.stop();
  rmSync(dir, { recursive: true, force: true });
  say(
    `\n${count} lines of receipts from a file, ${read.receipts.length} receipts onto a shelf of ${shelf.length} items: ${took_s.toFixed(1)} s (target under 20 s); floor, reading the lines: ${(read.took_ms / 1000).toFixed(1)} s; most memory ${read.most_MB.toFixed(0)} MB in the reader, ${serverMost_MB.toFixed(0)} MB in the server (target under 400 MB)`,
  );
}
