import { readFileSync } from 'node:fs';
import { type Page, expect, test } from '@playwright/test';
import sharp from 'sharp';
import { pngOf } from '../devices/picture.ts';
import { labelPrinter } from '../devices/printer.ts';
import { serve } from '../devices/serve.ts';
import { scanned } from '../testing/scan.ts';
import { axe } from './axe.ts';
import { House, enterDemo, inKitchen, watch } from './house.ts';
import { chooseStock, labelShown, readLabel } from './label-steps.ts';

/** Lot codes of one's own, codes on labels, a label printer, the list for lids, and the page of a lot. */
// One day of one kitchen, test after test.
test.describe.configure({ mode: 'serial' });
let house: House;
let printer: ReturnType<typeof labelPrinter>;
let served: Awaited<ReturnType<typeof serve>>;
test.beforeAll(async () => {
  printer = labelPrinter(20);
  served = await serve(printer, { every_ms: 200 });
  house = await House.open('demo');
  await house.stop();
  house.instruments = String(served.port);
  await house.start();
});
test.afterAll(async () => {
  await house.close();
  await served.close();
});

const released = async (page: Page): Promise<{ id: string; lotCode: string }> => {
  const answer = await page.request.get(house.url + (await inKitchen(page, '/batches')));
  const { batches } = (await answer.json()) as {
    batches: { id: string; summary: { stage: string; lotCode: string } }[];
  };
  const found = batches.find(b => b.summary.stage === 'released');
  return { id: found?.id ?? '', lotCode: found?.summary.lotCode ?? '' };
};

test('a lot code of one’s own: what cannot be is said beside its field, and the next batch has it', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  await page.goto(`${house.url}/label`);
  await page.getByRole('button', { name: 'Lot codes and pages' }).click();
  const dialog = page.getByRole('dialog', { name: 'Lot codes and pages of lots' });
  await dialog.getByRole('combobox', { name: 'What stands in it' }).click();
  await page.getByRole('option', { name: 'day, product, number of that day' }).click();
  await dialog.getByRole('combobox', { name: 'The day' }).click();
  await page.getByRole('option', { name: 'Year, month, day' }).click();
  await dialog.getByRole('checkbox', { name: 'The load in the code' }).check();
  const letters = dialog.getByRole('textbox', { name: 'Letters you find alike' });
  await letters.fill('io5');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText(/up to 12 letters from A to Z/)).toBeVisible();
  await letters.fill('iosz');
  await expect(dialog.getByRole('status').filter({ hasText: 'for a product RPJ' })).toContainText(
    /\d{6}-RPJ-\d+[A-Z][0-9A-Z], of load 2 \d{6}-RPJ-\d+[A-Z][0-9A-Z]/,
  );
  // A page wants an address that leads here from outside.
  await dialog.getByRole('checkbox', { name: 'Anybody may read them' }).check();
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText(/Address of this server from outside is empty/)).toBeVisible();
  await dialog
    .getByRole('textbox', { name: 'Address of this server from outside' })
    .fill('jars.example/shop');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog.getByText(/This is no address of a server/)).toBeVisible();
  await expect(letters).toHaveValue('iosz');
  expect(await axe(page)).toEqual([]);
  await dialog
    .getByRole('textbox', { name: 'Address of this server from outside' })
    .fill('https://jars.example');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  // The next batch has it.
  await page.goto(`${house.url}/recipes`);
  await page.getByRole('main').getByRole('link', { name: 'Red plum jam' }).first().click();
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await page.getByRole('button', { name: 'Start the batch' }).click();
  await expect(page.getByText(/^Lot \d{6}-RPJ-\d+[0-9A-Z]/).first()).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('codes on a label: only by a number that is one, read back from the printer’s picture; the list for lids', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const { id, lotCode } = await released(page);
  await page.goto(`${house.url}/label/${id}`);
  await expect(labelShown(page, /Red plum jam/)).toBeVisible();
  await page.getByRole('checkbox', { name: 'The item number in bars, for a till' }).check();
  // Nobody makes a number up: without one there is no label with bars.
  await expect(page.getByText('Nobody has entered the item number of half-pints.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Make 15 labels/ })).toBeDisabled();
  const number = page.getByRole('textbox', { name: 'Item number of half-pints' });
  await number.fill('4006381333932');
  await expect(page.getByText(/The check digit 2 at the end does not fit/).first()).toBeVisible();
  await expect(number).toHaveValue('4006381333932');
  await expect(page.getByRole('button', { name: /^Make 15 labels/ })).toBeDisabled();
  await number.fill('4006381333931');
  await chooseStock(page, 'Roll, 100 by 75 mm');
  await page.getByRole('combobox', { name: 'To scan the lot' }).click();
  await page.getByRole('option', { name: /GS1 Data Matrix/ }).click();
  await expect(labelShown(page, /4006381333931/)).toBeVisible();
  expect(await axe(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make 15 labels again' }).click();
  await page.getByRole('button', { name: 'Print 15 labels on Label printer' }).click();
  await expect(page.getByText('15 labels were printed.')).toBeVisible();
  const [label] = printer.printed;
  expect(label?.copies).toBe(15);
  const picture = await sharp(pngOf(label!.picture!))
    .extend({ top: 20, bottom: 20, left: 20, right: 20, background: '#fff' })
    .png()
    .toBuffer();
  const codes = (await scanned(picture)).map(c => c.text).sort();
  expect(codes).toHaveLength(2);
  expect(codes[0]).toMatch(new RegExp(`^\\(01\\)04006381333931\\(15\\)\\d{6}\\(10\\)${lotCode}$`));
  expect(codes[1]).toBe('4006381333931');
  // Fifteen are gone of twenty: the printer says what is left, and nothing is claimed to be printed.
  await page.getByRole('button', { name: 'Print 15 labels on Label printer' }).click();
  await expect(page.getByText(/only 5 labels are left on the roll/)).toBeVisible();
  // For the lids: a plain text, one line for what is alike.
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as text' }).click();
  const text = readFileSync(await (await file).path(), 'utf8');
  expect(text).toContain(`${lotCode}   load 1   8 half-pints   jar 1-8`);
  expect(seen.faults).toEqual([]);
});

test('the page of a lot: what stands on its label, for whoever scans the jar; what was scanned finds the jars', async ({
  page,
  browser,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const { id, lotCode } = await released(page);
  const settings = await page.request.get(house.url + (await inKitchen(page, '/label-settings')));
  const { page: address } = (await settings.json()) as { page: string };
  await page.goto(`${house.url}/label/${id}`);
  await page.getByRole('combobox', { name: 'To scan the lot' }).click();
  await page.getByRole('option', { name: 'QR that opens the page of the lot' }).click();
  await chooseStock(page, 'Letter sheet, ten of 4 by 2 inches');
  const png = page.waitForEvent('download');
  await page.getByRole('button', { name: 'PNG' }).click();
  const codes = await scanned(readFileSync(await (await png).path()), ['QRCode']);
  expect(codes.map(c => c.text)).toEqual([address + lotCode]);
  // Somebody with a telephone, who has no account and runs no script of ours.
  const other = await browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: true });
  const phone = await other.newPage();
  const answer = await phone.goto(house.url + new URL(address + lotCode).pathname);
  expect(answer?.headers()['content-security-policy']).toContain("script-src 'self'");
  await expect(phone.getByRole('heading', { name: 'Red plum jam' })).toBeVisible();
  await expect(phone.getByText(`Lot ${lotCode}`)).toBeVisible();
  expect(await phone.evaluate(() => document.scripts.length)).toBe(0);
  expect(await axe(phone)).toEqual([]);
  await phone.goto(house.url + new URL(`${address}NONE-1`).pathname);
  await expect(phone.getByRole('heading', { name: 'There is no page for this lot' })).toBeVisible();
  await other.close();
  // What the scanner gives is what is looked for.
  await page.goto(house.url);
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('searchbox', { name: 'Lot code, recipe or lot' }).fill(address + lotCode);
  const found = page.getByRole('dialog').getByText(/Red plum jam, jar 1-\d+/);
  await expect(found).toBeVisible();
  await found.click();
  await expect(page.getByText(lotCode).first()).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('labels asked for again are read anew where their words changed, and not for their codes', async ({
  page,
}) => {
  await enterDemo(page, house);
  const { id } = await released(page);
  await page.goto(`${house.url}/label/${id}`);
  await page.getByRole('combobox', { name: 'To scan the lot' }).click();
  await page.getByRole('option', { name: 'Nothing to scan' }).click();
  await page.getByRole('checkbox', { name: 'The item number in bars, for a till' }).uncheck();
  await page.getByRole('button', { name: 'Make 15 labels again' }).click();
  await expect(page.getByText('Nobody has read')).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Your own words' }).fill('With plums from one tree.');
  await page.getByRole('button', { name: 'Make 15 labels again' }).click();
  await expect(page.getByText(/Nobody has read its identity/)).toBeVisible();
  await readLabel(page);
  await page.getByRole('button', { name: 'Make 15 labels again' }).click();
  await expect(page.getByText('Out of date').first()).toBeVisible();
});
