import { expect, test } from '@playwright/test';
import {
  House,
  delivered,
  enterDemo,
  fillAndBoil,
  heatOffAndLift,
  joinAs,
  startAndDraw,
  watch,
} from './house.ts';

/** How often the server is killed; more by hand: `COCOTTE_KILLS=200 npm test`. */
const KILLS = Number(process.env.COCOTTE_KILLS ?? 20);

let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

const secondsOf = (text: string) => {
  const [min = 0, s = 0] = text.split(':').map(Number);
  return min * 60 + s;
};

test('somebody sets the clock of the device while a load boils: its countdown goes on', async ({ page }) => {
  await page.clock.install();
  await enterDemo(page, house);
  await startAndDraw(page, house, 'Red plum jam');
  await fillAndBoil(page, '8 half-pints', 0, 15);
  const timer = page.getByRole('main').getByRole('timer');
  const left = async () => secondsOf(await timer.innerText());
  for (const hours of [1, -1]) {
    const before = await left();
    await page.clock.setSystemTime(Date.now() + hours * 3_600_000);
    // Asked at once, the kitchen's clock says what is true, to a second or so.
    await expect
      .poll(async () => {
        const gone_s = before - (await left());
        return gone_s > 0 && gone_s < 60;
      })
      .toBe(true);
  }
  await expect(page.getByText(/This device slept/)).toHaveCount(0);
});

test('a device that slept through the end says when it was, and its load is not doubted', async ({
  page,
}) => {
  const seen = watch(page);
  await page.clock.install();
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  await fillAndBoil(page, '8 half-pints', 0, 15);
  await delivered(page);
  // Twenty minutes pass, in which the page's own clock stands still.
  house.move(20);
  await page.clock.setSystemTime(Date.now() + 20 * 60_000);
  await expect(page.getByText('Time. Heat off, lid off.')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/time was up at/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Heat off' }).click();
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  await delivered(page);
  await page.goto(url.replace('/cook/', '/check/'));
  await expect(page.getByText(/unverified|doubtful/i)).toHaveCount(0);
  expect(seen.faults).toEqual([]);
});

test('a net that loses every third answer after the kitchen took the entry doubles nothing', async ({
  page,
}) => {
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  let calls = 0;
  await page.route(/\/events$/, async route => {
    calls += 1;
    if (calls % 3 !== 1) return route.continue();
    await route.fetch();
    return route.abort();
  });
  await fillAndBoil(page, '8 half-pints', 0, 15);
  house.move(16);
  await heatOffAndLift(page);
  await delivered(page);
  expect(calls).toBeGreaterThan(3);
  await page.goto(url.replace('/cook/', '/records/'));
  for (const words of ['Full boil: the clock started.', 'Jars lifted.', /^Filled jars 1-8/])
    await expect(page.getByText(words)).toHaveCount(1);
});

test('the server is killed again and again while two devices cook: nothing is lost, nothing doubled', async ({
  page,
  browser,
}) => {
  test.setTimeout(120_000 + KILLS * 12_000);
  await enterDemo(page, house);
  const phone = await browser.newPage();
  await joinAs(house, page, phone, /^Cook/, 'Cy');
  const url = await startAndDraw(page, house, 'Red plum jam');
  await phone.goto(url);
  const devices = [page, phone];
  for (const on of devices) await on.getByRole('tab', { name: 'Steps' }).click();
  const enter = async (n: number) => {
    for (const [i, on] of devices.entries()) {
      await on.getByRole('textbox', { name: 'Grams' }).fill(String(10 * n + i + 1));
      await on.getByRole('button', { name: 'Add the weight' }).click();
    }
  };
  for (let n = 1; n <= KILLS; n++) {
    await enter(n);
    await house.kill();
  }
  for (const on of devices) await delivered(on);
  for (const on of devices) {
    await on.goto(url.replace('/cook/', '/records/'));
    await expect(on.getByText(/weighed/i).first()).toBeVisible();
    await expect(on.getByText('on its way')).toHaveCount(0);
    for (let n = 1; n <= KILLS; n++)
      for (const i of [1, 2]) await expect(on.getByText(new RegExp(`\\b${10 * n + i} g\\b`))).toHaveCount(1);
  }
  await phone.close();
});
