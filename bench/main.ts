import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { type LabelStock, RECORD_SHAPE, fold } from '@cocotte/core/batches';
import { gate } from '@cocotte/core/checks';
import { noPlace } from '@cocotte/core/kitchen';
import { LABEL_STOCKS, labelContent, layOut, plainSetup } from '@cocotte/core/labels';
import { measured, svgOf } from '@cocotte/core/typeset';
import { crushedTomatoes, plumJam } from '@cocotte/demo/recipes';
import { labelFonts } from '@cocotte/server/labels/faces';
import { askOf } from '@cocotte/server/labels/print';
import { drawLabels } from '@cocotte/server/labels/sheet';
import { PaperBatch } from '@cocotte/testing/builders';
import { Device } from '@cocotte/testing/device';
import { firstLoad } from '@cocotte/testing/first-load';
import { OUTLINES } from '@cocotte/testing/fonts';
import { printed, SAMPLE_LABEL } from '@cocotte/testing/labels';
import { tenYearBatch } from '@cocotte/testing/ten-years';
import pg from 'pg';
import { bookInHand, bookOfThousands } from './book.ts';
import { ADMIN_URL, type Kitchen, ROOT, at, makeKitchen, serve } from './kitchens.ts';
import { acidity } from './acidity.ts';
import { fiftyCook } from './cooking.ts';
import { curves } from './curves.ts';
import { devices } from './device.ts';
import { feeds } from './feed.ts';
import { mixedLoad, papers } from './house.ts';
import { costsInHand, fileOfReceipts, storesOfYears } from './stores.ts';
import { QUERIES, appendFloor, atOnce, call, floor, inside, steady } from './load.ts';
import { CONNECTIONS, PLAN, failures, median, ms, percentile, ratio, say, tiny } from './say.ts';

/** Rounds in which floor and endpoint, demo and ten years take turns, so that the machine's moods fall on all alike. */
const ROUNDS = tiny ? 1 : 3;

type Served = Kitchen & Awaited<ReturnType<typeof serve>> & { title: string };

async function endpoints(kitchens: Kitchen[]): Promise<void> {
  const served: Served[] = [];
  for (const [i, kitchen] of kitchens.entries()) {
    const server = await serve(kitchen);
    const title = i === 0 ? 'demo' : 'ten years';
    served.push({ ...kitchen, ...server, title });
    await steady(20, () => call(server.port, kitchen.token, inside(kitchen, '/today')));
    await new Promise(resolve => setTimeout(resolve, tiny ? 200 : 2000));
    const rest_MB =
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.child.pid}/status`, 'utf8'))?.[1]) / 1024;
    say(`${title}: server at rest ${rest_MB.toFixed(0)} MB (target under 250)`);
  }
  say(
    `\nEndpoints at ${CONNECTIONS} connections, medians of ${ROUNDS} rounds; ten years: ${PLAN.batches} batches, ${PLAN.lots} lots, ${PLAN.lots * 15} movements`,
  );
  for (const [name, path, sql, params] of QUERIES) {
    const seen = served.map(() => ({
      low: [] as number[],
      high: [] as number[],
      middle: [] as number[],
      over: [] as number[],
    }));
    for (let round = 0; round < ROUNDS; round++) {
      for (const [i, k] of served.entries()) {
        const low = percentile(await floor(k, sql, params(k)), 0.95);
        const times = await atOnce(() => call(k.port, k.token, path(k)));
        const high = percentile(times, 0.95);
        const mine = seen[i] as (typeof seen)[number];
        mine.low.push(low);
        mine.high.push(high);
        mine.middle.push(median(times));
        mine.over.push(high / low);
      }
    }
    for (const [i, k] of served.entries()) {
      const mine = seen[i] as (typeof seen)[number];
      say(
        `  ${name}, ${k.title}: p95 ${ms(median(mine.high))}, median ${ms(median(mine.middle))}; floor p95 ${ms(median(mine.low))}`,
      );
      ratio(`${name}, ${k.title}, p95 over its floor`, median(mine.over), 3);
    }
    const [demo, ten] = seen as [(typeof seen)[number], (typeof seen)[number]];
    ratio(
      `${name}, ten years over demo, medians`,
      median(ten.middle.map((t, r) => t / (demo.middle[r] as number))),
      1.5,
    );
  }
  for (const k of served) {
    await steadily(k);
    await k.stop();
  }
}

/** Reads and appends at a steady rate, and a day written up on one page. */
async function steadily(k: Served): Promise<void> {
  let turn = 0;
  const reads = await steady(100, () =>
    call(k.port, k.token, (QUERIES[turn++ % QUERIES.length] as (typeof QUERIES)[number])[1](k)),
  );
  say(
    `\n${k.title}, steady 100 a second: p95 ${ms(percentile(reads, 0.95))} (target under 50 ms), median ${ms(median(reads))}`,
  );
  const device = new Device(k.personId, Date.now());
  const appends = await steady(20, () =>
    call(
      k.port,
      k.token,
      inside(k, `/batches/${k.batchId}/events`),
      JSON.stringify({
        ...sentNow(k),
        events: [device.fact(Date.now(), 'temperature.read', { where: 'pot', temp_C: 99 })],
      }),
    ),
  );
  const least = await appendFloor(k, 20);
  say(
    `${k.title}, append at 20 a second: p95 ${ms(percentile(appends, 0.95))} (target under 20 ms), median ${ms(median(appends))}; floor, head and entries through pg: p95 ${ms(percentile(least, 0.95))}, median ${ms(median(least))}`,
  );
  // A day cooked on paper: every entry of it typed, in one delivery.
  const day = Array.from({ length: DAY_ENTRIES }, (_, i) =>
    device.fact(
      Date.now() - (DAY_ENTRIES - i) * 60_000,
      'temperature.read',
      { where: 'pot', temp_C: 99 },
      true,
    ),
  );
  const sent_ms = await call(
    k.port,
    k.token,
    inside(k, `/batches/${k.batchId}/events`),
    JSON.stringify({ ...sentNow(k), events: day }),
  );
  say(
    `${k.title}, a day of ${DAY_ENTRIES} entries written up and sent at once: ${ms(sent_ms)} (target under 1,000 ms)`,
  );
}

const DAY_ENTRIES = 80;
/** What a delivery says of itself. */
const sentNow = (k: Served) => ({
  personId: k.personId,
  kitchenId: k.kitchenId,
  sentAt: new Date().toISOString(),
  recordShape: RECORD_SHAPE,
});

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
  gateOfMany(runs);
  say(
    `\nFold of ${batch.events.length} entries: median ${ms(percentile(times, 0.5))}, p95 ${ms(percentile(times, 0.95))} (target under 1 ms); floor, parsing and sorting their instants: ${ms(percentile(parse, 0.5))}`,
  );
}

/** The gate of a batch of 500 jars in 50 loads. */
function gateOfMany(runs: number): void {
  const jars = Array.from({ length: 500 }, (_, i) => i + 1);
  const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: jars.length }]).drawAll().fill(jars);
  for (let load = 0; load < 50; load++) batch.process(load + 1, jars.slice(load * 10, load * 10 + 10), 40);
  batch.wait(13 * 60).fact('jars.pressed', { sealed: jars, failed: [] });
  batch.wait(13 * 60).readPh(4.1);
  const state = fold(batch.events);
  const timed = (work: () => void) =>
    Array.from({ length: Math.max(30, runs / 4) }, () => {
      const began = performance.now();
      work();
      return performance.now() - began;
    });
  timed(() => gate(state));
  const times = timed(() => gate(state));
  const floor = timed(() => JSON.stringify(state.jars));
  say(
    `\nGate of ${jars.length} jars: median ${ms(percentile(times, 0.5))}, p95 ${ms(percentile(times, 0.95))} (target under 5 ms); floor, writing its jars down: ${ms(percentile(floor, 0.5))}`,
  );
}

/** A kitchen whose label lacks nothing. */
const KITCHEN = {
  locale: 'en-US',
  makerName: 'Bench Kitchen',
  makerAddress: '1 Road, Town',
  jurisdiction: { ...noPlace(), statement: 'Made in a home kitchen that is not inspected.' },
};

/** An item number that stands in publications as an example (from memory). */
const BARS = { kind: 'EAN-13' as const, says: '4006381333931' };

async function labels(): Promise<void> {
  const { read: _read, ...print } = printed('half-pint');
  const scans = { ...print, stock: LABEL_STOCKS[1] as LabelStock, codes: [...print.codes, BARS] };
  const sheet = { ...scans, offset_mm: { x: 0, y: 0 }, picture: null };
  const time = async (count: number) => {
    const began = performance.now();
    const bytes = await drawLabels({ ...sheet, count });
    return { took: performance.now() - began, bytes: bytes.length };
  };
  await time(1);
  const one = await time(1);
  const before = process.memoryUsage().rss;
  const many = await time(1000);
  const grown_MB = Math.max(0, process.memoryUsage().rss - before) / 1e6;
  say(
    `1,000 labels with QR and bars as PDF: ${ms(many.took)} (target under 2 s), ${(many.bytes / 1e6).toFixed(2)} MB (under 3), ${grown_MB.toFixed(0)} MB more memory (under 250); floor, one label: ${ms(one.took)}`,
  );
  const fonts = labelFonts();
  const times: number[] = [];
  const coded: number[] = [];
  const floor: number[] = [];
  const rounds = tiny ? 20 : 400;
  for (let i = 0; i < rounds; i++) {
    // Another text each time, as while somebody types.
    const label = { ...SAMPLE_LABEL, words: 'Made from our own beans. '.slice(0, 1 + (i % 25)) };
    const ask = askOf({ ...print, label });
    let began = performance.now();
    layOut(ask, fonts);
    times.push(performance.now() - began);
    const two = askOf({ ...scans, label });
    began = performance.now();
    layOut(two, fonts);
    coded.push(performance.now() - began);
    began = performance.now();
    const text = Object.values(label).filter(v => typeof v === 'string');
    text.forEach(t => measured([{ text: t, face: 'plain' }], fonts));
    floor.push(performance.now() - began);
  }
  const jam = fold(new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).drawAll().events);
  const redrawn: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const setup = { ...plainSetup('letter-10'), words: 'Made from our own plums. '.slice(0, 1 + (i % 25)) };
    const began = performance.now();
    const said = labelContent(jam, KITCHEN, setup, 'half-pint');
    const made = said.ok ? layOut(askOf({ ...print, label: said.label }), fonts) : null;
    if (!made?.ok) throw new Error('The label of the benchmark does not fit.');
    for (const { drawing } of made.pieces) svgOf(drawing, OUTLINES);
    redrawn.push(performance.now() - began);
  }
  say(
    `A label's preview redrawn, its words, layout and SVG: median ${ms(percentile(redrawn, 0.5))}, p95 ${ms(percentile(redrawn, 0.95))} (target under 50 ms)`,
  );
  say(
    `One label laid out: median ${ms(percentile(times, 0.5))}, p95 ${ms(percentile(times, 0.95))} (target under 2 ms), with QR and bars on a larger one ${ms(percentile(coded, 0.5))}, p95 ${ms(percentile(coded, 0.95))}; floor, its words measured once: ${ms(percentile(floor, 0.5))}`,
  );
}

const stamp = `${process.pid}_${Date.now().toString(36)}`;
const names = [`cocotte_bench_demo_${stamp}`, `cocotte_bench_ten_${stamp}`];
try {
  const began = performance.now();
  // `--book` runs the recipe book alone, `--file` a file of receipts, `--papers` what is drawn, in a kitchen without the
  // ten years; `--house` the mixed load, `--feed` who hears of an
  // entry when, `--device` what a browser does by itself, `--steady` reads and appends at a steady rate.
  const bookOnly = process.argv.includes('--book');
  const fileOnly = process.argv.includes('--file');
  const papersOnly = process.argv.includes('--papers');
  const houseOnly = process.argv.includes('--house');
  const feedOnly = process.argv.includes('--feed');
  const deviceOnly = process.argv.includes('--device');
  const cookingOnly = process.argv.includes('--cooking');
  const curvesOnly = process.argv.includes('--curves');
  const acidityOnly = process.argv.includes('--acidity');
  const steadyOnly = process.argv.includes('--steady');
  const all =
    !acidityOnly &&
    !cookingOnly &&
    !curvesOnly &&
    !deviceOnly &&
    !steadyOnly &&
    !bookOnly &&
    !fileOnly &&
    !papersOnly &&
    !houseOnly &&
    !feedOnly;
  const kitchens = [
    await makeKitchen(names[0] as string, false),
    ...(all || houseOnly ? [await makeKitchen(names[1] as string, true)] : []),
  ];
  say(`Kitchens made in ${((performance.now() - began) / 1000).toFixed(1)} s`);
  if (all) await endpoints(kitchens);
  if (steadyOnly) {
    const demo = kitchens[0] as Kitchen;
    const server = await serve(demo);
    // A server that has just begun compiles as it goes: it is warm before anything is measured.
    for (const [, path] of QUERIES) await atOnce(() => call(server.port, demo.token, path(demo)));
    await steadily({ ...demo, ...server, title: 'demo' });
    await server.stop();
  }
  if (all || feedOnly) await feeds(kitchens[0] as Kitchen);
  if (all || deviceOnly) await devices(kitchens[0] as Kitchen);
  if (all || curvesOnly) await curves(kitchens[0] as Kitchen);
  if (all || acidityOnly) await acidity(kitchens[0] as Kitchen);
  if (all || cookingOnly) await fiftyCook(kitchens[0] as Kitchen);
  if (all || houseOnly) await mixedLoad(kitchens.at(-1) as Kitchen);
  if (all || papersOnly) await papers(kitchens[0] as Kitchen);
  if (all || bookOnly) {
    await bookOfThousands(kitchens[0] as Kitchen);
    bookInHand();
  }
  if (all) {
    await storesOfYears(kitchens.at(-1) as Kitchen);
    await costsInHand();
  }
  if (all || fileOnly) await fileOfReceipts(kitchens[0] as Kitchen);
  pure();
  await labels();
  const load = firstLoad(join(ROOT, 'dist/web'));
  say(
    `First load: ${(load.bytes / 1000).toFixed(1)} KB of JavaScript, gzipped (limit 280; floor, a blank shell of the stack: 236)`,
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
