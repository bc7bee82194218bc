import { type BrowserContext, type Page, expect, test } from '@playwright/test';
import { House, delivered, enterDemo, fillAndBoil, joinAs, quiet, startAndDraw, watch } from './house.ts';

let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

const rail = (page: Page) => page.getByRole('complementary', { name: 'Stove rail' });
const load = (page: Page) => rail(page).getByRole('listitem').filter({ hasText: 'Canner, load 1' });
const kept = (page: Page) =>
  page.evaluate(async () =>
    (await indexedDB.databases()).flatMap(d =>
      d.name?.startsWith('cocotte-kept') && !d.name.endsWith('here') ? [d.name] : [],
    ),
  );
/** Waits until the application itself is kept, so that its pages open without the kitchen. */
async function keptForGood(page: Page): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
}

test('two devices: one clock, one record, without a connection too', async ({ browser }) => {
  const tablet: BrowserContext = await browser.newContext({
    serviceWorkers: 'allow',
    viewport: { width: 820, height: 1180 },
  });
  const page = await tablet.newPage();
  const seen = watch(page);
  await enterDemo(page, house);
  await keptForGood(page);
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await joinAs(house, page, phone, /^Cook/, 'Cy');
  const url = await startAndDraw(page, house, 'Red plum jam');
  await fillAndBoil(page, '8 half-pints', 0, 15);

  // What one device enters the other shows by itself, and both show the same second.
  await expect(load(phone)).toBeVisible();
  const shown = async (on: Page) => {
    const [min = 0, s = 0] = (await load(on).getByRole('timer').innerText()).split(':').map(Number);
    return min * 60 + s;
  };
  const [there, here] = await Promise.all([shown(phone), shown(page)]);
  expect(Math.abs(there - here)).toBeLessThanOrEqual(1);

  // The boil is lost on the phone; the rail of the tablet, on another view, is right by itself.
  await page.goto(`${house.url}/recipes`);
  await expect(load(page)).toBeVisible();
  await phone.goto(url);
  await phone.getByRole('button', { name: 'The boil was lost' }).click();
  await expect(load(page)).toHaveCount(0);
  await phone.getByRole('button', { name: 'Start the 15 minutes' }).click();
  await expect(load(page)).toBeVisible();
  await delivered(phone);

  // The router dies. The tablet's page is closed, opened again, and goes on; so does the phone.
  await tablet.setOffline(true);
  await page.close();
  const again = await tablet.newPage();
  const seenAgain = watch(again);
  await again.goto(url);
  await expect(again.getByRole('main').getByRole('timer')).toContainText(/^\d\d:\d\d$/);
  await expect(again.getByText('kept here')).toBeVisible();
  await again.getByRole('button', { name: 'A jar broke or leaks' }).click();
  const broken = again.getByRole('dialog');
  await broken.getByRole('textbox', { name: 'Jar numbers' }).fill('3');
  await broken.getByRole('button', { name: 'Set it aside' }).click();
  await expect(again.getByText(/One entry is kept on this device/)).toBeVisible();
  await again.goto(`${house.url}/recipes`);
  await expect(again.getByRole('link', { name: 'Red plum jam', exact: true })).toBeVisible();
  await phone.getByRole('tab', { name: 'Jars and loads' }).click();
  await phone.getByRole('button', { name: 'A part-filled jar, to the refrigerator' }).click();
  await delivered(phone);

  // Back again: nothing lost, nothing doubled, the same on both.
  await tablet.setOffline(false);
  await delivered(again);
  await expect(again.getByText('kept here')).toHaveCount(0);
  for (const on of [again, phone]) {
    await on.goto(url.replace('/cook/', '/records/'));
    await expect(on.getByText(/Set aside jar 3/)).toHaveCount(1);
    await expect(on.getByText(/Set aside jar 9/)).toHaveCount(1);
    await expect(on.getByText('Full boil: the clock started.')).toHaveCount(2);
  }
  expect([...seen.faults, ...seenAgain.faults]).toEqual([]);
  await tablet.close();
  await phone.close();
});

test('tabs of one device show the same; the one that is closed takes nothing along', async ({ browser }) => {
  const context = await browser.newContext();
  const one = await context.newPage();
  await enterDemo(one, house);
  const url = await startAndDraw(one, house, 'Red plum jam');
  const other = await context.newPage();
  await other.goto(url);
  await fillAndBoil(other, '8 half-pints', 0, 15);
  await expect(one.getByRole('main').getByRole('timer')).toContainText(/^\d\d:\d\d$/);
  // The tab that led is gone; the other takes the lead and hears of what a third device does.
  await other.close();
  const phone = await browser.newPage();
  await enterDemo(phone, house);
  await phone.goto(url);
  await phone.getByRole('button', { name: 'The boil was lost' }).click();
  await expect(one.getByRole('heading', { name: 'Bring it back to a full boil' })).toBeVisible();
  await phone.close();
  await context.close();
});

test('signing out asks where entries have not arrived, leaves nothing for others, and is told to every tab', async ({
  browser,
}) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  const beside = await context.newPage();
  await beside.goto(house.url);
  await expect(beside.getByRole('heading', { name: 'Today' })).toBeVisible();
  expect((await kept(page)).length).toBe(1);
  // The kitchen takes calls, but no entries: they wait.
  await context.route(/\/events$/, route => route.fulfill({ status: 502, body: '<html>' }));
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: '8 half-pints filled' }).click();
  await expect(page.getByText(/One entry is kept on this device/)).toBeVisible();
  await page.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  const asked = page.getByRole('dialog', { name: 'One entry has not arrived at the kitchen yet' });
  await asked.getByRole('button', { name: 'Stay signed in' }).click();
  await expect(asked).toHaveCount(0);
  await page.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await asked.getByRole('button', { name: 'Sign out all the same' }).click();
  for (const tab of [page, beside])
    await expect(tab.getByRole('button', { name: 'Enter the demo kitchen' })).toBeVisible();
  expect(await kept(page)).toEqual([]);
  // Nor is it known any more who was here.
  expect(
    await page.evaluate(async () =>
      (await indexedDB.databases()).flatMap(d => d.name ?? []).filter(n => n.includes('here')),
    ),
  ).toEqual([]);
  // Its person is back: it is delivered.
  await context.unroute(/\/events$/);
  await page.getByRole('button', { name: 'Enter the demo kitchen' }).click();
  await expect(page.getByRole('button', { name: /Wrenfold Kitchen/ })).toBeVisible();
  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByText(/Filled jars? 1-8/)).toHaveCount(1);
  await context.close();
});

test('where a session was ended elsewhere, what was entered meanwhile waits for its person', async ({
  browser,
}) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await enterDemo(page, house);
  await startAndDraw(page, house, 'Red plum jam');
  const laptop = await browser.newPage();
  await enterDemo(laptop, house);
  await laptop.goto(`${house.url}/account`);
  await context.route(/\/events$/, route => route.abort());
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: '8 half-pints filled' }).click();
  await expect(page.getByText(/One entry is kept on this device/)).toBeVisible();
  // Every other session of this person ends.
  const ends = laptop.getByRole('button', { name: /^End/ });
  while ((await ends.count()) > 0) {
    await ends.first().click();
    await quiet(laptop);
  }
  await context.unroute(/\/events$/);
  await page.reload();
  await expect(page.getByRole('button', { name: 'Enter the demo kitchen' })).toBeVisible();
  await page.getByRole('button', { name: 'Enter the demo kitchen' }).click();
  await delivered(page);
  await laptop.close();
  await context.close();
});
