import { type Browser, type Page, expect, test } from '@playwright/test';
import { axe } from './axe.ts';
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

let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

const DEMO_PASSWORD = 'wrenfold-demo-kitchen';
const tile = (page: Page, name: string) =>
  page.getByRole('group', { name: 'Who enters' }).getByRole('button', { name });
/** Somebody joins the kitchen as a cook, on a device of their own that is then put away. */
async function joins(page: Page, name: string): Promise<void> {
  const guest = await (page.context().browser() as Browser).newPage();
  await joinAs(house, page, guest, /^Cook/, name);
  await guest.close();
}
const weigh = async (page: Page, grams: string) => {
  await page.getByRole('textbox', { name: 'Grams' }).fill(grams);
  await page.getByRole('button', { name: 'Add the weight' }).click();
};
/** Signs somebody in beside whoever is signed in on the device. */
async function beside(page: Page, email: string, password: string): Promise<void> {
  await page.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await page.getByRole('menuitem', { name: 'Somebody else at this device' }).click();
  const dialog = page.getByRole('dialog', { name: 'Somebody else at this device' });
  await dialog.getByRole('textbox', { name: 'Email' }).fill(email);
  await dialog.getByLabel('Password').fill(password);
  await dialog.getByRole('button', { name: 'Sign in' }).click();
}

test('two names at the counter: a tap says who enters, without a connection too; what signs takes a PIN', async ({
  page,
}) => {
  const seen = watch(page);
  await page.setViewportSize({ width: 820, height: 1180 });
  await page.clock.install();
  await enterDemo(page, house);
  await joins(page, 'Cy');
  const url = await startAndDraw(page, house, 'Red plum jam');
  // Alone at a device there is nobody to choose.
  await expect(page.getByRole('group', { name: 'Who enters' })).toHaveCount(0);
  await beside(page, 'cy@wrenfold.example', 'not the password');
  const dialog = page.getByRole('dialog', { name: 'Somebody else at this device' });
  await expect(dialog.getByText(/do not belong together/)).toBeVisible();
  expect(await axe(page)).toEqual([]);
  await dialog.getByLabel('Password').fill('a longer password');
  await dialog.getByRole('button', { name: 'Sign in' }).click();
  await expect(dialog).toHaveCount(0);
  await page.goto(url);
  await expect(tile(page, 'Cy')).toHaveAttribute('aria-pressed', 'true');
  expect(await axe(page)).toEqual([]);

  // Each enters under their own name, the one with a tap, both without a connection.
  await page.getByRole('tab', { name: 'Steps' }).click();
  await weigh(page, '2000');
  await page.context().setOffline(true);
  await tile(page, 'Wren Hollis').click();
  await expect(tile(page, 'Wren Hollis')).toHaveAttribute('aria-pressed', 'true');
  await weigh(page, '30');
  await tile(page, 'Cy').click();
  await weigh(page, '20');
  await expect(page.getByText(/weighed so far/)).toContainText('2,050 g');
  await expect(page.getByText(/2 entries are kept on this device|entries are kept/)).toBeVisible();
  await page.context().setOffline(false);
  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  const line = (words: RegExp) => page.getByRole('row').filter({ hasText: words });
  await expect(line(/Weighed 2,000 g/)).toContainText('Cy');
  await expect(line(/Weighed 30 g/)).toContainText('Wren Hollis');
  await expect(line(/Weighed 20 g/)).toContainText('Cy');

  // A tap makes nobody an owner.
  await page.goto(url);
  await tile(page, 'Wren Hollis').click();
  await page.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await expect(page.getByRole('menuitem', { name: 'Kitchen settings' })).toBeVisible();
  await expect(page.getByRole('menuitem', { name: 'People' })).toHaveCount(0);
  await page.keyboard.press('Escape');

  // To the gate.
  await page.getByRole('textbox', { name: 'Read, °F' }).fill('216.2');
  await page.getByRole('button', { name: 'Log the temperature' }).click();
  await fillAndBoil(page, '8 half-pints', 0, 15);
  await passTime(page, house, 15.2);
  await page.getByRole('button', { name: 'Heat off' }).click();
  await passTime(page, house, 5);
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  await passTime(page, house, 14 * 60);
  await page.goto(url.replace('/cook/', '/check/'));
  await page.getByRole('button', { name: 'All 8 sealed' }).click();
  const release = page.getByRole('button', { name: 'Release 8 half-pints for sale' });
  await release.click();
  const first = page.getByRole('dialog', { name: 'A PIN for Wren Hollis' });
  expect(await axe(page)).toEqual([]);
  await first.getByLabel('Password of Wren Hollis').fill(DEMO_PASSWORD);
  await first.getByLabel('PIN', { exact: true }).fill('1111');
  await first.getByRole('button', { name: 'Set it, and sign' }).click();
  await expect(first.getByText(/one digit all along/)).toBeVisible();
  await first.getByLabel('PIN', { exact: true }).fill('4711');
  // It is left, and nothing is released; then it is asked for again.
  await first.getByRole('button', { name: 'Set it, and sign' }).click();
  await expect(page.getByText('Released: jars 1-8.')).toBeVisible();

  // Cy may not sign at all, and is not asked for a PIN: it is said.
  await page.goto(url);
  await tile(page, 'Cy').click();
  await page.goto(url.replace('/cook/', '/check/'));
  await expect(page.getByRole('button', { name: /^Release/ })).toHaveCount(0);
  expect(seen.faults).toEqual([]);
});

test('a wrong PIN is counted and said; left, nothing is signed', async ({ page }) => {
  await enterDemo(page, house);
  await joins(page, 'Eli');
  await page.goto(`${house.url}/account`);
  await page.getByLabel('Password', { exact: true }).fill(DEMO_PASSWORD);
  await page.getByLabel('PIN', { exact: true }).fill('4711');
  await page.getByRole('button', { name: 'Set the PIN' }).click();
  await expect(page.getByText(/^Set\. It is asked for/)).toBeVisible();
  await beside(page, 'eli@wrenfold.example', 'a longer password');
  await expect(page.getByRole('button', { name: /Wrenfold Kitchen/ })).toContainText('Eli');
  await beside(page, 'wren@wrenfold.example', DEMO_PASSWORD);
  await expect(page.getByRole('button', { name: /Wrenfold Kitchen/ })).toContainText('Wren Hollis');
  await page.goto(`${house.url}/kitchen/people`);
  await page.getByRole('button', { name: 'Make a link' }).click();
  const pin = page.getByRole('dialog', { name: 'PIN of Wren Hollis' });
  await pin.getByLabel('PIN', { exact: true }).fill('0815');
  await pin.getByRole('button', { name: 'Sign' }).click();
  await expect(pin.getByText('That is not your PIN. Try again: 4 more tries.')).toBeVisible();
  await pin.getByRole('button', { name: 'Not now' }).click();
  await expect(page.getByText('That is not your PIN.')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'The link, shown this once' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Make a link' }).click();
  await pin.getByLabel('PIN', { exact: true }).fill('4711');
  await pin.getByRole('button', { name: 'Sign' }).click();
  await expect(page.getByRole('textbox', { name: 'The link, shown this once' })).toBeVisible();
});

test('what a helper entered arrives in their name when they are gone, seen by nobody here', async ({
  page,
}) => {
  await enterDemo(page, house);
  await joins(page, 'Flo');
  const url = await startAndDraw(page, house, 'Red plum jam');
  await beside(page, 'flo@wrenfold.example', 'a longer password');
  await expect(page.getByRole('button', { name: /Wrenfold Kitchen/ })).toContainText('Flo');
  await page.goto(url);
  await page.route(/\/events$/, route => route.fulfill({ status: 502, body: '<html>' }));
  await page.getByRole('tab', { name: 'Steps' }).click();
  await weigh(page, '77');
  await expect(page.getByText(/One entry is kept on this device/)).toBeVisible();
  await page.getByRole('button', { name: /Wrenfold Kitchen/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await page.getByRole('button', { name: 'Sign out all the same' }).click();
  await expect(page.getByRole('button', { name: 'Enter the demo kitchen' })).toBeVisible();
  // Nobody is signed in: the device's grant delivers.
  await page.unroute(/\/events$/);
  await page.reload();
  await delivered(page);
  await page.getByRole('button', { name: 'Enter the demo kitchen' }).click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByRole('row').filter({ hasText: 'Weighed 77 g' })).toContainText('Flo');
});

test('two people end the same load on two devices: one record, and both are told', async ({
  page,
  browser,
}) => {
  const phone = await browser.newPage();
  for (const on of [page, phone]) await on.clock.install();
  await enterDemo(page, house);
  await enterDemo(phone, house);
  await joinAs(house, page, phone, /^Cook/, 'Dot');
  const url = await startAndDraw(page, house, 'Red plum jam');
  await fillAndBoil(page, '8 half-pints', 0, 15);
  await phone.goto(url);
  await expect(phone.getByRole('button', { name: 'Heat off' })).toBeVisible();
  // Neither sees the other: the phone's word is kept, the tablet's arrives.
  await phone.context().setOffline(true);
  await passTime(page, house, 15.2);
  await phone.clock.fastForward(15.2 * 60_000);
  for (const on of [page, phone]) await expect(on.getByText('Time. Heat off, lid off.')).toBeVisible();
  await phone.getByRole('button', { name: 'Heat off' }).click();
  await expect(phone.getByText(/One entry is kept on this device/)).toBeVisible();
  await page.getByRole('button', { name: 'Heat off' }).click();
  await delivered(page);
  await phone.context().setOffline(false);
  await delivered(phone);
  for (const on of [page, phone])
    await expect(
      on.getByText(/ended it at .*and .* without having seen it: the first end counts\./),
    ).toBeVisible();
  // The jars come out once.
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByText('Heat off.', { exact: true })).toHaveCount(2);
  await phone.close();
});

test('what is used without a connection is written down, drawn afterwards, and its shortage settled', async ({
  page,
}) => {
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  await page.getByRole('tab', { name: 'Lots' }).click();
  await expect(page.getByRole('button', { name: 'Draw these lots' })).toBeVisible();
  await page.context().setOffline(true);
  await expect(page.getByText('The kitchen cannot be reached.', { exact: false })).toBeVisible();
  await page.getByRole('textbox', { name: 'Quantity of Sugar' }).fill('90000');
  await page.getByRole('button', { name: 'These were used: write it down' }).click();
  await expect(page.getByText(/^Used without a connection: .* g Sugar/)).toBeVisible();
  await page.context().setOffline(false);
  await delivered(page);
  await expect(page.getByText(/^Used without a connection:/)).toHaveCount(0);
  await page.goto(`${house.url}/stores`);
  await page.getByRole('button', { name: '1 short in the books' }).click();
  await expect(page.getByRole('link', { name: /more used than was there/ })).toBeVisible();
  await page.goto(url.replace('/cook/', '/check/'));
  await expect(page.getByText(/more was used than the books had/).first()).toBeVisible();
  // One lot is short, or two where another batch drew of the first meanwhile.
  const settle = page.getByRole('button', { name: 'It was there: it is used up now' });
  for (let left = await settle.count(); left > 0; left--) {
    await settle.first().click();
    await expect(settle).toHaveCount(left - 1);
  }
  await expect(page.getByText(/more was used than the books had/)).toHaveCount(0);
  await page.goto(`${house.url}/stores`);
  await quiet(page);
  await expect(page.getByRole('button', { name: /short in the books/ })).toHaveCount(0);
});
