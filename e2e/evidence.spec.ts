import { expect, test } from '@playwright/test';
import { House, delivered, enterDemo, fillAndBoil, joinAs, startAndDraw, watch } from './house.ts';
import { calibrate, readBuffer, typeReading } from './bench-steps.ts';

let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

test('what the record proves: a forgotten heat off, a correction that takes a signature, the books, what is named', async ({
  page,
  browser,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const guest = await browser.newPage();
  await joinAs(house, page, guest, /^Cook/, 'Cy');
  const url = await startAndDraw(page, house, 'Crushed tomatoes');
  await fillAndBoil(page, '9 pints', 1, 40);
  await delivered(page);
  // Nobody said when the heat went off: it is asked for, and without it ten minutes are taken off.
  house.move(52);
  await page.reload();
  await page.getByRole('button', { name: 'Already lifted' }).click();
  const asked = page.getByRole('dialog', { name: 'When did the heat go off?' });
  await asked.getByRole('button', { name: 'Not known: take ten minutes off' }).click();
  await expect(page.getByText(/when the heat went off was not entered, 10 min are taken off/)).toBeVisible();
  await expect(page.getByText('processed', { exact: true })).toBeVisible();
  // A last jar that is not full goes to the refrigerator as it is filled; it takes a lid that nobody drew.
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: 'A part-filled jar, to the refrigerator' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'part-filled' })).toBeVisible();
  await delivered(page);

  house.move(27 * 60);
  const check = url.replace('/cook/', '/check/');
  await page.goto(check);
  await page.getByRole('button', { name: 'All 9 sealed' }).click();
  await calibrate(page);
  await typeReading(page, { jar: 2, ph: '4.9' });
  await expect(page.getByText(/Jar 2 was lifted 27 h ago/)).toBeVisible();
  await page.getByRole('button', { name: 'Enter the reading' }).click();
  await expect(page.getByText('Jar 2 read pH 4.9.')).toBeVisible();
  await readBuffer(page);
  await delivered(page);
  // In the books: a lid more than was drawn holds nothing, and one tap draws it.
  const note = page.getByText(/10 jars are filled, 9 lids drawn/);
  await expect(note).toBeVisible();
  await page.getByRole('button', { name: 'Draw 1 of Lids' }).click();
  await expect(note).toHaveCount(0);

  // Somebody who may not sign corrects it a while later: it stands beside the first, and does not count.
  house.move(10);
  const record = url.replace('/cook/', '/records/');
  await guest.goto(record);
  const entry = guest.getByRole('row').filter({ hasText: 'pH 4.9 in jar 2' });
  await entry.getByRole('button', { name: /^Correct entry/ }).click();
  const dialog = guest.getByRole('dialog', { name: 'Correct an entry' });
  await dialog.getByRole('textbox', { name: 'pH' }).fill('3.9');
  await dialog.getByRole('textbox', { name: 'Reason' }).fill('a 3 written like a 4');
  await dialog.getByRole('button', { name: 'Enter the correction' }).click();
  await expect(guest.getByText(/Does not count yet/)).toBeVisible();
  await delivered(guest);
  await expect(guest.getByRole('button', { name: /^Sign correction/ })).toHaveCount(0);
  await guest.close();
  await page.goto(check);
  await expect(page.getByText('Jar 2 read pH 4.9.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Release/ })).toHaveCount(0);

  // The owner signs it. Both stand in the record; the gate opens, and the signature names what was corrected.
  await page.goto(record);
  await page.getByRole('button', { name: /^Sign correction/ }).click();
  await expect(page.getByText('Signed a correction.')).toBeVisible();
  await expect(page.getByText(/Does not count yet/)).toHaveCount(0);
  await delivered(page);
  await page.goto(check);
  await expect(
    page.getByText(/You sign in the knowledge of: .*Equilibrium pH at or below 4.6: corrected/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Release 8 pints for sale' }).click();
  await expect(page.getByText('Released: jars 1, 3-9.')).toBeVisible();

  // A seal that gives way later holds its jar again, and offers it somewhere to go.
  await page
    .getByRole('region', { name: 'Press the jars' })
    .getByRole('button', { name: /^Jar 4,/ })
    .click();
  await page.getByRole('button', { name: 'All sealed but 4' }).click();
  await expect(page.getByText('Released: jars 1, 3, 5-9.')).toBeVisible();
  await page.getByRole('button', { name: 'To the refrigerator' }).click();
  await expect(page.getByText('Jar 4: where to?')).toHaveCount(0);
  await page.goto(record);
  await expect(page.getByText('Moved jar 4 to the refrigerator.')).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('a page older than the record says so: its clocks go on, and it releases nothing until it is loaded again', async ({
  page,
  browser,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  const weigh = async (grams: number) => {
    await page.getByRole('tab', { name: 'Steps' }).click();
    await page.getByRole('textbox', { name: 'Grams' }).fill(String(grams));
    await page.getByRole('button', { name: 'Add the weight' }).click();
    await delivered(page);
  };
  await weigh(1001);
  await fillAndBoil(page, '8 half-pints', 0, 15);
  await delivered(page);
  // A page elsewhere is newer than this one, and what it entered there this one has never heard of.
  const old = await browser.newPage();
  const seenOld = watch(old);
  await old.route(/\/api\/kitchens\/[^/]+\/(?:batches\/[^/?]+|events\?.*)$/, async route => {
    const response = await route.fetch();
    const reply = (await response.json()) as { events: { type: string; body: object }[] };
    for (const event of reply.events)
      if (event.type === 'line.weighed' && JSON.stringify(event.body).includes('1001'))
        Object.assign(event, { type: 'jar.blessed', body: { version: 9, jar: { deep: 1 } } });
    return route.fulfill({ response, json: reply });
  });
  await enterDemo(old, house);
  await old.goto(url);
  await expect(old.getByText('This page is older than the record.')).toBeVisible();
  await expect(old.getByText(/^.*One entry was made with a newer version/)).toBeVisible();
  await expect(old.getByRole('main').getByRole('timer')).toContainText(/^\d\d:\d\d$/);
  house.move(16);
  await page.reload();
  // Its next entry tells the other page where the kitchen's clock stands.
  await weigh(1002);
  await expect(old.getByText('Time. Heat off, lid off.')).toBeVisible({ timeout: 90_000 });
  await old.getByRole('button', { name: 'Heat off' }).click();
  await old.getByRole('button', { name: 'Jars lifted' }).click();
  await delivered(old);
  // Its entries reach the other page, which knows of nothing newer.
  await expect(page.getByText('All jars are out of the canner')).toBeVisible();

  house.move(27 * 60);
  await old.goto(url.replace('/cook/', '/check/'));
  await expect(old.getByText('This page is older than the record.')).toBeVisible();
  await expect(old.getByRole('button', { name: /^Release/ })).toHaveCount(0);
  await old.goto(url.replace('/cook/', '/records/'));
  await expect(old.getByText('This page is older than the record.')).toBeVisible();
  await old.getByRole('button', { name: 'Load the page again' }).click();
  await expect(old.getByText('This page is older than the record.')).toBeVisible();
  await old.close();
  expect([...seen.faults, ...seenOld.faults]).toEqual([]);
});
