import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { upgradeItem } from '@cocotte/core/stores';
import { type Page, expect, test } from '@playwright/test';
import { picture } from '../testing/papers.ts';
import { axe } from './axe.ts';
import { layoutFaults } from './layout.ts';
import { House, delivered, enterDemo, inKitchen, passTime, quiet, startAndDraw, watch } from './house.ts';

/** A day at the counter, with wet hands, on a tablet: what the steps, the jars and the canner ask and answer. */
let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());
test.use({ viewport: { width: 820, height: 1180 } });

const pageIsWhole = async (page: Page, where: string) => {
  expect.soft(await axe(page), where).toEqual([]);
  for (const width of [360, 820]) {
    await page.setViewportSize({ width, height: 1180 });
    await quiet(page);
    await expect.soft
      .poll(() => layoutFaults(page), { message: `${where}, ${width} px`, timeout: 5000 })
      .toEqual([]);
  }
};

test('tomatoes: a step before its turn, a change that is answered, doses by row held against the bottle, a full canner, low water, what is left', async ({
  page,
}) => {
  const seen = watch(page);
  await page.clock.install();
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Crushed tomatoes');

  // Out of order is possible, with a reason that stays beside the step.
  await page.getByRole('tab', { name: 'Steps' }).click();
  await page.getByRole('button', { name: 'Done: step 2' }).click();
  const why = page.getByRole('dialog', { name: 'Step 2 before its turn: why?' });
  await why.getByRole('button', { name: 'It is done' }).click();
  await expect(why.locator('[aria-invalid="true"]')).toHaveCount(1);
  await why.getByRole('textbox', { name: 'Reason' }).fill('Peeled last night');
  await why.getByRole('button', { name: 'It is done' }).click();
  await expect(page.getByText('· before its turn: Peeled last night')).toBeVisible();

  // A change is answered before it goes in.
  await page.getByRole('button', { name: 'More, less, or something else goes in' }).click();
  const change = page.getByRole('dialog', { name: 'What would it do?' });
  await change.getByRole('radio', { name: 'something else instead' }).check();
  await change.getByRole('combobox', { name: 'What instead' }).fill('Zucchini');
  await page.keyboard.press('Escape');
  await expect(change.getByText('It costs the authority')).toBeVisible();
  expect.soft(await axe(page), 'a change at the pot').toEqual([]);
  await change.getByRole('radio', { name: 'more or less of it' }).check();
  await change.getByRole('textbox', { name: 'How much goes in altogether' }).fill('lots');
  await change.getByRole('button', { name: 'It went in so' }).click();
  await expect(change.locator('[aria-invalid="true"]')).toHaveCount(1);
  await change.getByRole('textbox', { name: 'How much goes in altogether' }).fill('5 kg');
  await expect(change.getByText(/Covered as it is|Free to do/)).toBeVisible();
  await change.getByRole('button', { name: 'It went in so' }).click();
  await expect(change).toHaveCount(0);

  // Nine jars, one of them with too much room above.
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: 'One jar fewer' }).click();
  await page.getByRole('button', { name: '8 pints filled' }).click();
  await page.getByRole('combobox', { name: 'Headspace' }).click();
  await page.getByRole('option', { name: '1 in', exact: true }).click();
  await expect(page.getByText(/More than asked: air may stay in/)).toBeVisible();
  await page.getByRole('button', { name: '1 pint filled' }).click();

  // One row for the juice: all nine, then the bottle against them.
  const juice = page.getByRole('region', { name: 'Bottled lemon juice in each jar' });
  await expect(juice.getByRole('img', { name: /^Poured/ })).toBeVisible();
  await juice.getByRole('button', { name: 'Jar by jar' }).click();
  await juice.getByRole('button', { name: 'Jar 1, filled' }).click();
  await expect(juice.getByText('1 given')).toBeVisible();
  await juice.getByRole('button', { name: 'Given to 8 jars' }).click();
  await juice.getByRole('textbox', { name: 'What left the bottle, mL' }).fill('a cup');
  await juice.getByRole('button', { name: 'Hold it against the jars' }).click();
  await expect(juice.locator('[aria-invalid="true"]')).toHaveCount(1);
  await juice.getByRole('textbox', { name: 'What left the bottle, mL' }).fill('118');
  await juice.getByRole('button', { name: 'Hold it against the jars' }).click();
  await expect(juice.getByText(/the dose of a jar is missing/)).toBeVisible();
  await juice.getByRole('button', { name: 'Undo' }).click();
  await juice.getByRole('textbox', { name: 'What left the bottle, mL' }).fill('135');
  await juice.getByRole('button', { name: 'Hold it against the jars' }).click();
  await expect(juice.getByText(/That is what these jars take/)).toBeVisible();

  // What is left is asked once.
  const left = page.getByRole('region', { name: 'What is left?' });
  await left.getByRole('button', { name: 'It was eaten' }).click();
  await expect(left.getByRole('button', { name: 'It was thrown away' })).toHaveCount(0);
  const along = page.getByRole('region', { name: 'Jars that go along' });
  await along.getByRole('textbox', { name: 'Jar numbers' }).fill('12');
  await along.getByRole('button', { name: 'Mark them' }).click();
  await expect(along.locator('[aria-invalid="true"]')).toHaveCount(1);
  await along.getByRole('textbox', { name: 'Jar numbers' }).fill('9');
  await along.getByRole('button', { name: 'Mark them' }).click();
  await expect(along.getByText('For the reading: 9')).toBeVisible();

  const load = page.getByRole('region', { name: 'Load 1', exact: true });
  await expect(load.getByRole('img', { name: 'Canner with 9 jars' })).toBeVisible();
  await expect(load.getByText('All 9 jars go in')).toBeVisible();
  await expect(load.getByText(/Begin with about .* quarts at 180 °F/)).toBeVisible();
  await pageIsWhole(page, 'jars and loads');
  await load.getByRole('button', { name: '9 jars in, load 1' }).click();

  // Water that sank: covered goes on, bare begins anew.
  await page.getByRole('button', { name: 'Start the 40 minutes' }).click();
  await expect(page.getByRole('main').getByRole('timer')).toContainText('39:');
  await page.clock.fastForward(2000);
  await page.getByRole('button', { name: 'The water is low' }).click();
  const trouble = page.getByRole('dialog', { name: 'Are the lids still under water?' });
  expect.soft(await axe(page), 'low water').toEqual([]);
  await trouble.getByRole('button', { name: /^Covered all the time/ }).click();
  await expect(page.getByRole('main').getByRole('timer')).toContainText('39:');
  await page.getByRole('button', { name: 'The water is low' }).click();
  await trouble.getByRole('button', { name: /^Lids were bare/ }).click();
  await expect(page.getByText('Bring it back to a full boil')).toBeVisible();
  await page.clock.fastForward(2000);
  await page.getByRole('button', { name: 'Start the 40 minutes' }).click();
  await delivered(page);
  await passTime(page, house, 46);
  await page.getByRole('button', { name: 'Heat off' }).click();
  await expect(page.getByText('As they come out, mark each lid:')).toBeVisible();
  await page.clock.fastForward(2000);
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  await expect(page.getByText(/6 min .*longer than asked|min longer than asked/)).toBeVisible();

  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  for (const words of [
    /Before its turn: Peeled last night/,
    /with 1 in headspace/,
    /of Bottled lemon juice left the bottle/,
    /Left of the pot: eaten\./,
    /to be opened for the reading/,
    /The water went below the lids: the time so far is void\./,
    /water was low and was topped up boiling/,
  ])
    await expect(page.getByText(words).first()).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('twenty quarts and two canners: what stands in one goes in, the next canner takes the next, no third is offered', async ({
  page,
}) => {
  const seen = watch(page);
  await page.clock.install();
  await enterDemo(page, house);
  await page.goto(`${house.url}/recipes`);
  await page.getByRole('link', { name: 'Crushed tomatoes', exact: true }).click();
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await page.getByRole('radio', { name: 'For home' }).check();
  await page.getByRole('button', { name: 'Start the batch' }).click();
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: '9 pints filled' }).click();
  await page.getByRole('button', { name: 'All that was planned is filled: fill one more' }).click();
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'One jar more' }).click();
  await page.getByRole('button', { name: '5 pints more filled' }).click();
  await page.getByRole('button', { name: 'Given to 14 jars' }).click();
  const load = (n: number) => page.getByRole('region', { name: `Load ${n}`, exact: true });
  await expect(load(1).getByText(/jars go in now, of 14 that wait/)).toBeVisible();
  const canner = load(1).getByRole('combobox', { name: 'Canner' });
  const before = await canner.textContent();
  await load(1)
    .getByRole('button', { name: /jars in, load 1$/ })
    .click();
  await expect(load(2).getByRole('combobox', { name: 'Canner' })).not.toHaveText(before ?? '');
  await pageIsWhole(page, 'the second load');
  await load(2).getByRole('combobox', { name: 'Canner' }).click();
  await page.getByRole('option', { name: /in use$/ }).click();
  await expect(load(2).getByText(/These jars wait hot until it is lifted/)).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('pictures: of another kind, without a connection, of an entry; on paper with the record', async ({
  page,
  context,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam');
  await delivered(page);
  const record = url.replace('/cook/', '/records/');
  await page.goto(record);
  const pictures = page.getByRole('region', { name: 'Pictures' });
  const file = pictures.locator('input[type=file]');
  await file.setInputFiles({ name: 'page.html', mimeType: 'text/html', buffer: Buffer.from('<p>') });
  await expect(pictures.getByText(/neither a picture nor a PDF/)).toBeVisible();
  await file.setInputFiles({ name: 'half.png', mimeType: 'image/png', buffer: Buffer.from('<p>') });
  await expect(pictures.getByText(/not the picture it says it is/)).toBeVisible();

  await page
    .getByRole('button', { name: /^Picture of entry/ })
    .first()
    .click();
  await expect(pictures.getByText(/The next picture is of:/)).toBeVisible();
  await pictures.getByRole('textbox', { name: 'What it shows' }).fill('The scale before the sugar');
  const png = Buffer.from(picture({ width: 640, height: 480 }).bytes);
  await file.setInputFiles({ name: 'scale.png', mimeType: 'image/png', buffer: png });
  await expect(pictures.getByRole('img', { name: 'The scale before the sugar' })).toBeVisible();
  expect.soft(await axe(page), 'pictures').toEqual([]);

  // Without a connection it waits here, through leaving the view, and goes when the kitchen is back.
  await context.setOffline(true);
  await pictures.getByRole('textbox', { name: 'What it shows' }).fill('The set on a cold plate');
  await file.setInputFiles({ name: 'plate.png', mimeType: 'image/png', buffer: png });
  await expect(
    pictures.getByText('One picture waits on this device until the kitchen is reached'),
  ).toBeVisible();
  await context.setOffline(false);
  await expect(pictures.getByRole('img', { name: 'The set on a cold plate' })).toBeVisible();
  await expect(pictures.getByText(/waits on this device/)).toHaveCount(0);
  await delivered(page);
  await expect(page.getByText('Kept a picture: The set on a cold plate')).toHaveCount(1);
  const sheet = await page.request.get(
    house.url + (await page.getByRole('link', { name: 'Record as PDF' }).getAttribute('href')),
  );
  expect(sheet.status()).toBe(200);
  const images = spawnSync('pdfimages', ['-list', '-'], { input: await sheet.body(), encoding: 'utf8' });
  expect(images.stdout.split('\n').filter(l => l.includes('jpeg'))).toHaveLength(2);
  expect(seen.faults.filter(f => !f.includes('ERR_INTERNET_DISCONNECTED'))).toEqual([]);
});

test('one pot, two products: what is taken is a lot with its cost; what is left over comes back as a lot of its own', async ({
  page,
}) => {
  const seen = watch(page);
  await page.clock.install();
  await enterDemo(page, house);
  const added = await page.request.post(house.url + (await inKitchen(page, '/items')), {
    data: upgradeItem({
      id: randomUUID(),
      kind: 'ingredient',
      name: 'Tomato juice, drained here',
      unit: 'g',
      unit_g: 1,
      labelName: 'tomato juice',
    }),
  });
  expect(added.status()).toBe(200);
  const url = await startAndDraw(page, house, 'Crushed tomatoes');
  await page.getByRole('tab', { name: 'Steps' }).click();
  const other = page.getByRole('region', { name: 'Another product from this pot' });
  await other.getByRole('button', { name: 'Take some of it' }).click();
  await other.getByRole('textbox', { name: 'Weighed, g' }).fill('900000');
  await other.getByRole('button', { name: 'It is out of the pot' }).click();
  await expect(other.getByText(/Which ingredient it becomes is not chosen/)).toBeVisible();
  await other.getByRole('combobox', { name: 'As which ingredient' }).click();
  await page.getByRole('option', { name: 'Tomato juice, drained here' }).click();
  await other.getByRole('button', { name: 'It is out of the pot' }).click();
  await expect(other.getByText(/No more than .* went into the pot/)).toBeVisible();
  await other.getByRole('textbox', { name: 'Weighed, g' }).fill('600');
  await other.getByRole('radio', { name: 'liquid drained off' }).check();
  expect.soft(await axe(page), 'another product').toEqual([]);
  await other.getByRole('button', { name: 'It is out of the pot' }).click();
  await expect(other.getByText(/600 g as Tomato juice, drained here/)).toBeVisible();

  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: '9 pints filled' }).click();
  await page.getByRole('button', { name: 'Given to 9 jars' }).click();
  const left = page.getByRole('region', { name: 'What is left?' });
  await left.getByRole('button', { name: 'Into the refrigerator, to be filled tomorrow' }).click();
  await page.getByRole('button', { name: '9 jars in, load 1' }).click();
  await page.clock.fastForward(2000);
  await page.getByRole('button', { name: 'Start the 40 minutes' }).click();
  await expect(page.getByText('What was left comes back')).toHaveCount(0);
  await delivered(page);
  await passTime(page, house, 41);
  await page.getByRole('button', { name: 'Heat off' }).click();
  await page.clock.fastForward(2000);
  await page.getByRole('button', { name: 'Jars lifted' }).click();
  const back = page.getByRole('region', { name: 'What was left comes back' });
  await expect(back.getByText(/bear lot CRT-\d{5}-\d+[B-Z][0-9A-Z]/)).toBeVisible();
  await back.getByRole('button', { name: 'It is back in the pot' }).click();
  await expect(back.locator('[aria-invalid="true"]')).toHaveCount(1);
  await pageIsWhole(page, 'what was left comes back');
  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByText(/Took 600 g out of the pot, drained off/)).toBeVisible();
  await page.goto(`${house.url}/stores`);
  await page.getByRole('link', { name: 'Tomato juice, drained here' }).first().click();
  await expect(page.getByText(/600/).first()).toBeVisible();
  expect(seen.faults.filter(f => !/422/.test(f))).toEqual([]);
});

test('a day typed in from its sheet: twelve hours are asked about, what it shows stands there before it is sent', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Crushed tomatoes');
  house.move(36 * 60);
  await page.reload();
  await page.getByRole('link', { name: 'Type a sheet in' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^From the sheet/ })).toBeVisible();
  await page.getByRole('button', { name: 'See what this shows' }).click();
  await expect(page.getByText(/Nothing is filled in/)).toBeVisible();
  await pageIsWhole(page, 'the sheet');
  await page.setViewportSize({ width: 1280, height: 900 });

  const box = (name: string | RegExp, nth = 0) => page.getByRole('textbox', { name }).nth(nth);
  await box('Weighed, g').fill('5000');
  for (const [i, time] of ['4:10', '4:40 PM', '5:10 PM', '5:30p'].entries())
    await box('Done at', i).fill(time);
  await box(/^Filled$/).fill('9');
  await page.getByRole('checkbox', { name: 'Bottled lemon juice in every jar' }).check();
  await box(/^Jars$/).fill('1-10');
  await box('Full boil at').fill('6:00 PM');
  await box('Heat off at').fill('6:45 PM');
  await box('Lifted at').fill('6:50 PM');
  await box('Pressed at').fill('9:00 AM');
  await box('Minutes worked').fill('150');
  await page.getByRole('button', { name: 'See what this shows' }).click();
  await expect(page.getByText(/Is 4:10 before or after noon/)).toBeVisible();
  await box('Done at').fill('4:10 PM');
  await page.getByRole('button', { name: 'See what this shows' }).click();
  await expect(page.getByText(/Jar 10 was not filled/)).toBeVisible();
  await expect(box(/^Jars$/)).toHaveValue('1-10');
  await box(/^Jars$/).fill('1-9');
  await page.getByRole('button', { name: 'See what this shows' }).click();
  const proves = page.getByRole('dialog', { name: /entries from this sheet/ });
  await expect(proves.getByText('It leaves open')).toBeVisible();
  await expect(proves.getByText(/Equilibrium pH at or below/)).toBeVisible();
  expect.soft(await axe(page), 'what it shows').toEqual([]);
  await proves.getByRole('button', { name: 'Enter the day' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^Record/ })).toBeVisible();
  await delivered(page);
  await expect(page.getByText('written up', { exact: true }).first()).toBeVisible();
  await expect(page.getByText('Full boil: the clock started.')).toHaveCount(1);
  await page.goto(url.replace('/cook/', '/check/'));
  await expect(page.getByText(/Sealed, pressed after cooling/).first()).toBeVisible();
  expect(seen.faults).toEqual([]);
});
