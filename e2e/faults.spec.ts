import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '@cocotte/server/house/database';
import { migrate } from '@cocotte/server/house/migrate';
import { seedDemo } from '@cocotte/demo/seed';
import { expect, test } from '@playwright/test';
// @ts-expect-error -- plain JavaScript, without types
import { openCluster } from '../scripts/lib/cluster.mjs';
import { House, delivered, enterDemo, fillAndBoil, inKitchen, joinAs, startAndDraw } from './house.ts';

interface Cluster {
  appUrl: string;
  ownerUrl: string;
  stop: () => void;
}

/** How often the database is killed; more by hand: `COCOTTE_DB_KILLS=20 npm test`. */
const DB_KILLS = Number(process.env.COCOTTE_DB_KILLS ?? 2);

/** PostgreSQL goes away in the middle of a batch: this file has a cluster of its own to kill. */
let home = '';
let cluster: Cluster;
let house: House;
test.beforeAll(async () => {
  home = mkdtempSync(join(tmpdir(), 'cocotte-home-'));
  // The account PostgreSQL runs as is to reach it; else the cluster would be the one of `npm start`.
  chmodSync(home, 0o755);
  process.env.COCOTTE_HOME = home;
  cluster = await openCluster();
  await migrate(cluster.ownerUrl, 'cocotte_app');
  const database = openDatabase(cluster.appUrl, 2, 60_000);
  await seedDemo(database, Date.now());
  await database.close();
  house = await House.on(cluster.appUrl);
});
test.afterAll(async () => {
  await house?.close();
  cluster?.stop();
  rmSync(home, { recursive: true, force: true });
  delete process.env.COCOTTE_HOME;
});

test('the interface says so, keeps what was entered, and goes on when the database is back', async ({
  page,
}) => {
  await page.setViewportSize({ width: 820, height: 1180 });
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  const { port } = new URL(cluster.appUrl);
  const address = await inKitchen(page, '/today');
  cluster.stop();

  // The API: 503, soon, as a problem.
  const answer = await page.request.get(house.url + address, { timeout: 15_000 });
  expect(answer.status()).toBe(503);
  expect((await answer.json()).errors[0]).toMatchObject({ code: 'database-away' });

  // Entries go on: kept, shown, and counted.
  await fillAndBoil(page, '8 half-pints', 0, 15);
  await expect(page.getByText("The kitchen's book cannot be reached.")).toBeVisible();
  await expect(page.getByText(/3 entries are kept on this device/)).toBeVisible();
  // A decision needs the server, and says so without losing anything.
  await page.getByRole('tab', { name: 'Lots' }).click();
  await expect(page.getByRole('main').getByRole('timer')).toBeVisible();

  // Away through a reload too: the record and the entries lie in this device, and the clock goes on.
  await page.reload();
  await expect(page.getByRole('main').getByRole('timer')).toBeVisible();
  await expect(page.getByText(/3 entries are kept on this device/)).toBeVisible();
  await page.goto(`${house.url}/recipes`);
  await expect(
    page.getByRole('complementary', { name: 'Stove rail' }).getByRole('timer').first(),
  ).toBeVisible();
  await page.goto(url);
  cluster = await openCluster(Number(port));
  expect(new URL(cluster.appUrl).port).toBe(port);
  await expect(page.getByRole('main').getByRole('timer')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText("The kitchen's book cannot be reached.")).toHaveCount(0, { timeout: 20_000 });
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByText('Full boil: the clock started.')).toHaveCount(1);
  await expect(page.getByText('on its way')).toHaveCount(0);
});

test('the database is killed again and again while two devices cook: nothing is lost, nothing doubled', async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000 + DB_KILLS * 30_000);
  await enterDemo(page, house);
  const phone = await browser.newPage();
  await joinAs(house, page, phone, /^Cook/, 'Gus');
  const url = await startAndDraw(page, house, 'Red plum jam');
  await phone.goto(url);
  const devices = [page, phone];
  for (const on of devices) await on.getByRole('tab', { name: 'Steps' }).click();
  const { port } = new URL(cluster.appUrl);
  for (let n = 1; n <= DB_KILLS; n++) {
    const pid = Number(readFileSync(join(home, 'data/postmaster.pid'), 'utf8').split('\n')[0]);
    // One enters as it falls, the other while it lies there.
    await page.getByRole('textbox', { name: 'Grams' }).fill(String(1000 + n));
    await page.getByRole('button', { name: 'Add the weight' }).click();
    process.kill(pid, 'SIGKILL');
    await phone.getByRole('textbox', { name: 'Grams' }).fill(String(2000 + n));
    await phone.getByRole('button', { name: 'Add the weight' }).click();
    cluster = await openCluster(Number(port));
  }
  for (const on of devices) await delivered(on);
  for (const on of devices) {
    await on.goto(url.replace('/cook/', '/records/'));
    await expect(on.getByText(/Weighed/).first()).toBeVisible();
    await expect(on.getByText('on its way')).toHaveCount(0);
    for (let n = 1; n <= DB_KILLS; n++)
      for (const grams of [1000 + n, 2000 + n])
        await expect(on.getByText(`Weighed ${grams.toLocaleString('en-US')} g`)).toHaveCount(1);
  }
  await phone.close();
});
