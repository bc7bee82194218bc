import { cpSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type BrowserContext, type Page, chromium, expect, test } from '@playwright/test';
import {
  House,
  delivered,
  enterDemo,
  fillAndBoil,
  joinAs,
  passTime,
  quiet,
  startAndDraw,
  watch,
} from './house.ts';

/** What a device keeps, and how: a whole day without a connection, a browser that dies, a full disk, a new build. */
let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

const weigh = async (page: Page, grams: number) => {
  await page.getByRole('textbox', { name: 'Grams' }).fill(String(grams));
  await page.getByRole('button', { name: 'Add the weight' }).click();
};
const weighed = (page: Page, grams: number) =>
  page.getByText(`Weighed ${grams.toLocaleString('en-US')} g`, { exact: false });
/** Waits until the application itself is kept, so that its pages open without the kitchen. */
async function keptForGood(page: Page): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
}

test('a day without a connection on two devices that both act ends in one state, nothing lost or doubled', async ({
  browser,
}) => {
  test.setTimeout(240_000);
  const contexts: BrowserContext[] = [];
  const pages: Page[] = [];
  for (const viewport of [
    { width: 820, height: 1180 },
    { width: 390, height: 844 },
  ]) {
    const context = await browser.newContext({ serviceWorkers: 'allow', viewport });
    contexts.push(context);
    pages.push(await context.newPage());
  }
  const [tablet, phone] = pages as [Page, Page];
  const seen = pages.map(watch);
  await enterDemo(tablet, house);
  await keptForGood(tablet);
  await joinAs(house, tablet, phone, /^Cook/, 'Hal');
  await keptForGood(phone);
  const jam = await startAndDraw(tablet, house, 'Red plum jam');
  const other = await startAndDraw(tablet, house, 'Red plum jam');
  // Both have seen both batches when the router dies.
  await phone.goto(jam);
  await expect(phone.getByRole('tab', { name: 'Steps' })).toBeVisible();
  await quiet(phone);
  for (const context of contexts) await context.setOffline(true);

  /** Jars of one batch, from the pot to the next day's press, by one device alone. */
  const cook = async (page: Page, url: string, first: number) => {
    await page.goto(url);
    await page.getByRole('tab', { name: 'Steps' }).click();
    await weigh(page, first);
    await page.getByRole('textbox', { name: 'Read, °F' }).fill('216.2');
    await page.getByRole('button', { name: 'Log the temperature' }).click();
    await fillAndBoil(page, '8 half-pints', 0, 15);
  };
  for (const page of pages) await page.clock.install();
  const pass = async (minutes: number) => {
    house.move(minutes);
    for (const page of pages) await page.clock.fastForward(minutes * 60_000);
  };
  await cook(tablet, jam, 2001);
  await cook(phone, other, 2002);
  await pass(15.3);
  for (const page of pages) await page.getByRole('button', { name: 'Heat off' }).click();
  await pass(6);
  for (const page of pages) await page.getByRole('button', { name: 'Jars lifted' }).click();
  // Each also enters something of the batch the other cooks, which it does not see.
  await tablet.goto(other);
  await tablet.getByRole('tab', { name: 'Steps' }).click();
  await weigh(tablet, 51);
  await phone.goto(jam);
  await phone.getByRole('tab', { name: 'Steps' }).click();
  await weigh(phone, 52);
  // A reload, in the afternoon: all of it is there.
  await tablet.goto(jam);
  await tablet.reload();
  await expect(tablet.getByText(/entries are kept on this device/)).toBeVisible();
  await pass(14 * 60);
  await tablet.goto(jam.replace('/cook/', '/check/'));
  await tablet.getByRole('button', { name: 'All 8 sealed' }).click();
  await phone.goto(other.replace('/cook/', '/check/'));
  await phone.getByRole('button', { name: /^Jar 5,/ }).click();
  await phone.getByRole('button', { name: 'All sealed but 5' }).click();

  // Back, the one that began last first.
  await contexts[1]?.setOffline(false);
  await delivered(phone);
  await contexts[0]?.setOffline(false);
  await delivered(tablet);
  const told = async (page: Page, url: string) => {
    await page.goto(url.replace('/cook/', '/records/'));
    await expect(page.getByText('Jars lifted.')).toHaveCount(1);
    await expect(page.getByText('on its way')).toHaveCount(0);
    return page.getByRole('table').first().getByRole('row').allInnerTexts();
  };
  for (const [url, grams] of [
    [jam, [2001, 52]],
    [other, [2002, 51]],
  ] as const) {
    await expect
      .poll(async () => (await told(tablet, url)).join() === (await told(phone, url)).join())
      .toBe(true);
    for (const page of pages) for (const g of grams) await expect(weighed(page, g)).toHaveCount(1);
    // The loads' clocks ran without the kitchen and prove their time.
    await tablet.goto(url);
    await tablet.getByRole('tab', { name: 'Jars and loads' }).click();
    await expect(tablet.getByText('processed', { exact: true })).toBeVisible();
  }
  expect(seen.flatMap(s => s.faults)).toEqual([]);
  for (const context of contexts) await context.close();
});

test('a browser that is killed in the middle of an entry has it whole or not at all, and loses none before', async () => {
  test.setTimeout(180_000);
  const dir = mkdtempSync(join(tmpdir(), 'cocotte-browser-'));
  const open = () =>
    chromium.launchPersistentContext(dir, {
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-gpu'],
      serviceWorkers: 'allow',
    });
  /** The processes of this browser: those that were started with its folder. */
  const killed = () => {
    for (const pid of readdirSync('/proc').filter(p => /^\d+$/.test(p)))
      try {
        if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(dir)) process.kill(Number(pid), 'SIGKILL');
      } catch {
        // It is gone.
      }
  };
  let context = await open();
  let page = await context.newPage();
  await enterDemo(page, house);
  await keptForGood(page);
  const url = await startAndDraw(page, house, 'Red plum jam');
  await quiet(page);
  const shown: number[] = [];
  const cut: number[] = [];
  for (let n = 1; n <= 3; n++) {
    await context.setOffline(true);
    await page.goto(url);
    await page.getByRole('tab', { name: 'Steps' }).click();
    await weigh(page, 100 + n);
    await expect(page.getByText(/(One entry is|entries are) kept on this device/)).toBeVisible();
    await page.goto(url.replace('/cook/', '/records/'));
    await expect(weighed(page, 100 + n)).toHaveCount(1);
    shown.push(100 + n);
    await page.goto(url);
    await page.getByRole('tab', { name: 'Steps' }).click();
    await page.getByRole('textbox', { name: 'Grams' }).fill(String(200 + n));
    cut.push(200 + n);
    // The tap and the end of the browser at one moment.
    const tap = page
      .getByRole('button', { name: 'Add the weight' })
      .click()
      .catch(() => undefined);
    await new Promise(resolve => setTimeout(resolve, 15 * n));
    killed();
    await tap;
    await context.close().catch(() => undefined);
    context = await open();
    page = await context.newPage();
  }
  // The browser writes its cookies down now and then: killed so soon, it has forgotten who was signed in. Nothing waits less.
  await page.goto(house.url);
  const door = page.getByRole('button', { name: 'Enter the demo kitchen' });
  await expect(door.or(page.getByRole('heading', { name: 'Today' }))).toBeVisible();
  if (await door.isVisible()) await enterDemo(page, house);
  await page.goto(url.replace('/cook/', '/records/'));
  for (const grams of shown) await expect(weighed(page, grams)).toHaveCount(1);
  await delivered(page);
  await page.reload();
  for (const grams of shown) await expect(weighed(page, grams)).toHaveCount(1);
  for (const grams of cut) expect(await weighed(page, grams).count()).toBeLessThanOrEqual(1);
  await context.close();
  rmSync(dir, { recursive: true, force: true });
});

test('a full disk: what is entered goes straight to the kitchen, and is said to be lost where it cannot', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const writes = IDBObjectStore.prototype;
    for (const name of ['add', 'put'] as const) {
      const write = writes[name];
      writes[name] = function (this: IDBObjectStore, ...given: [unknown, IDBValidKey?]) {
        const asked = write.apply(this, given);
        if (document.documentElement.hasAttribute('data-full')) this.transaction.abort();
        return asked;
      };
    }
  });
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  await page.getByRole('tab', { name: 'Steps' }).click();
  await quiet(page);
  // No switch of this browser fills its disk: what it does then, it is made to do. Every write ends in an abort.
  const full = (is: boolean) =>
    page.evaluate(now => document.documentElement.toggleAttribute('data-full', now), is);
  await full(true);
  await weigh(page, 301);
  await expect(page.getByText(/weighed so far/)).toContainText('301 g');
  await page.context().setOffline(true);
  await weigh(page, 302);
  await expect(
    page.getByRole('alert').filter({ hasText: 'What was just entered was not taken.' }),
  ).toBeVisible();
  await expect(page.getByText(/store is full or switched off/).first()).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'I have read it' }).click();
  // Room again: it goes on as before.
  await full(false);
  await weigh(page, 303);
  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(weighed(page, 301)).toHaveCount(1);
  await expect(weighed(page, 302)).toHaveCount(0);
  await expect(weighed(page, 303)).toHaveCount(1);
});

test('a new version comes while the stove is on: nothing is loaded anew until somebody says so, after the load', async ({
  browser,
}) => {
  const web = mkdtempSync(join(tmpdir(), 'cocotte-build-'));
  cpSync(house.web, web, { recursive: true });
  house.web = web;
  await house.stop();
  await house.start();
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await context.newPage();
  await page.clock.install();
  await enterDemo(page, house);
  await keptForGood(page);
  await startAndDraw(page, house, 'Red plum jam');
  await fillAndBoil(page, '8 half-pints', 0, 15);
  await delivered(page);
  await page.evaluate(() => document.body.setAttribute('data-page', 'the same'));
  // The next build: another page, and a service worker that says so.
  const index = join(web, 'index.html');
  writeFileSync(
    index,
    readFileSync(index, 'utf8').replace('</head>', '<meta name="build" content="next"></head>'),
  );
  const worker = join(web, 'sw.js');
  writeFileSync(
    worker,
    readFileSync(worker, 'utf8').replace(/(index\.html",revision:")[0-9a-f]+/, '$1' + 'f'.repeat(32)),
  );
  await house.stop();
  await house.start();
  await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.update());
  await expect
    .poll(() =>
      page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.waiting !== null),
    )
    .toBe(true);
  const offer = page.getByText('A newer version of this program is here.', { exact: false });
  await expect(page.getByRole('main').getByRole('timer')).toContainText(/^\d\d:\d\d$/);
  await expect(offer).toHaveCount(0);
  await passTime(page, house, 15.2);
  await page.getByRole('button', { name: 'Heat off' }).click();
  await expect(offer).toHaveCount(0);
  await passTime(page, house, 5.2);
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  await expect(offer).toBeVisible();
  expect(await page.getAttribute('body', 'data-page')).toBe('the same');
  await delivered(page);
  await page.getByRole('button', { name: 'Load it' }).click();
  await expect(page.locator('meta[name="build"]')).toHaveAttribute('content', 'next');
  await expect(page.getByText('processed', { exact: true })).toBeVisible();
  await context.close();
  rmSync(web, { recursive: true, force: true });
});
