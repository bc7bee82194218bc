import { randomUUID } from 'node:crypto';
import { CURVE_POINTS } from '@cocotte/contract';
import { thinned } from '@cocotte/core/heat';
import { chunkHash } from '@cocotte/server/batches/curves';
import { Device } from '@cocotte/testing/device';
import { chromium, type Page } from '@playwright/test';
import pg from 'pg';
import { opening, startOne } from './device.ts';
import { at, type Kitchen, OWNER_URL, serve } from './kitchens.ts';
import { call, inside } from './load.ts';
import { median, ms, percentile, ratio, say, tiny } from './say.ts';

const HOURS = 4;
const READINGS = tiny ? 600 : HOURS * 3600;
const OPENINGS = tiny ? 1 : 9;
const IN_A_CHUNK = 600;
const POINTS = CURVE_POINTS;

/** A pot that warms, stalls and climbs, read each second. */
const cooked = (n: number, from_ms: number) =>
  Array.from({ length: n }, (_, i) => ({
    at_ms: from_ms + i * 1000,
    temp_C: Math.round((Math.min(98, 20 + i / 12) + (i / n) ** 6 * 7 + Math.sin(i) * 0.1) * 100) / 100,
  }));

/** Lays a curve beside the record as the server does, and keeps it by its own decision. */
async function kept(kitchen: Kitchen, port: number, batchId: string, readings: number): Promise<void> {
  const curveId = randomUUID();
  const owner = new pg.Client({ connectionString: at(OWNER_URL, kitchen.name) });
  await owner.connect();
  const from_ms = Date.now() - readings * 1000;
  await owner.query(
    'insert into curves (kitchen_id, curve_id, batch_id, step_id, instrument_id, name, began_at) values ($1, $2, $3, $4, $5, $6, $7)',
    [kitchen.kitchenId, curveId, batchId, 'boil', 'probe-1', 'Probe', new Date(from_ms)],
  );
  const points = cooked(readings, from_ms);
  let hash: string = curveId;
  for (let i = 0; i * IN_A_CHUNK < points.length; i++) {
    const part = points.slice(i * IN_A_CHUNK, (i + 1) * IN_A_CHUNK);
    const content = JSON.stringify(part.map(p => [p.at_ms, p.temp_C]));
    hash = chunkHash(hash, content);
    await owner.query(
      'insert into curve_chunks (kitchen_id, curve_id, number, until_ms, readings, content, hash) values ($1, $2, $3, $4, $5, $6, $7)',
      [kitchen.kitchenId, curveId, i + 1, part.at(-1)?.at_ms, part.length, content, hash],
    );
  }
  await owner.end();
  const stamp = new Device(kitchen.personId, Date.now()).stamp(Date.now(), false, 'curve.kept');
  await call(
    port,
    kitchen.token,
    inside(kitchen, `/batches/${batchId}/curves/${curveId}/keep`),
    JSON.stringify({ stamp }),
  );
}

/** From the tap on a record to the line of its curve, everything fetched before: what is left is drawing. */
async function drawn(page: Page, url: string, batchId: string): Promise<number> {
  const took: number[] = [];
  await page.goto(`${url}/records/${batchId}`);
  const line = page.locator('.apexcharts-series path').first();
  await line.waitFor({ state: 'attached' });
  for (let i = 0; i < OPENINGS; i++) {
    await page.getByRole('navigation').getByRole('link', { name: 'Records' }).first().click();
    await page.locator(`main a[href="/records/${batchId}"]`).first().waitFor();
    took.push(await opening(page, `/records/${batchId}`, '.apexcharts-series path'));
  }
  return median(took);
}

/** A cook of four hours, read each second: thinned, and drawn in a browser. */
export async function curves(kitchen: Kitchen): Promise<void> {
  const points = cooked(READINGS, 0);
  const time = (work: () => unknown) => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  const thin: number[] = [];
  const copy: number[] = [];
  for (let i = 0; i < (tiny ? 3 : 60); i++) {
    thin.push(time(() => thinned(points, POINTS)));
    copy.push(time(() => points.map(p => ({ ...p }))));
  }
  say(
    `\nA curve of ${READINGS} readings in ${POINTS} points: ${ms(median(thin))} median, ${ms(percentile(thin, 0.95))} p95; floor, copying them: ${ms(median(copy))}`,
  );
  ratio('a curve in few points over copying it, medians', median(thin) / median(copy), 10);
  const server = await serve(kitchen);
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  });
  try {
    const url = `http://127.0.0.1:${server.port}`;
    const [long, short] = [await startOne(kitchen, server.port), await startOne(kitchen, server.port)];
    await kept(kitchen, server.port, long, READINGS);
    await kept(kitchen, server.port, short, 10);
    const context = await browser.newContext();
    await context.addCookies([{ name: 'cocotte_session', value: kitchen.token, url }]);
    const page = await context.newPage();
    const all = await drawn(page, url, long);
    const few = await drawn(page, url, short);
    say(
      `A curve of ${READINGS} readings drawn in a browser with the record it stands on, from the tap: ${ms(all)}, of which ${ms(Math.max(0, all - few))} for its length (target under 50 ms); floor, one of 10 readings: ${ms(few)}`,
    );
    ratio('a long curve drawn over a short one', all / few, 3);
  } finally {
    await browser.close();
    await server.stop();
  }
}
