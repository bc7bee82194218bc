import { expect, type Page, test } from '@playwright/test';
import { pressOn, tabTo, typeIn } from './by-keys.ts';
import { counting } from './counted.ts';
import { axe } from './axe.ts';
import { House, quiet, watch } from './house.ts';
import { layoutFaults } from './layout.ts';

/** The first evening: a producer who has never seen it, from an empty house to the first batch, with every tap counted. */
let house: House;
test.beforeEach(async () => {
  house = await House.open('empty');
});
test.afterEach(() => house.close());

/** At most so many taps from nothing to the first batch; each field that is typed in counts as one. */
const MOST = 60;

/** The door of an empty house. */
async function enter(page: Page): Promise<void> {
  await page.getByRole('textbox', { name: 'Name of the kitchen' }).fill('First Kitchen');
  await page.getByRole('textbox', { name: 'Altitude in feet' }).fill('2350');
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ona');
  await page.getByRole('textbox', { name: 'Email' }).fill('ona@new.example');
  await page.getByLabel('Password').fill('a long password');
  await page.getByRole('button', { name: 'Open the kitchen' }).click();
}

async function open(page: Page): Promise<void> {
  await page.goto(house.url);
  await enter(page);
  // The first steps stand beside the work: pots and canners from a list of the usual ones.
  await page.getByRole('button', { name: 'Choose them' }).click();
  await page.getByRole('checkbox', { name: 'Pot, 8 quarts' }).check();
  await page.getByRole('checkbox', { name: /^Boiling-water canner/ }).check();
  await page.getByRole('button', { name: 'These are here' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** A recipe from a published entry: what is open is read off the publication and typed. */
async function fromEntry(
  page: Page,
  search: string,
  entry: RegExp,
  amounts: Readonly<Record<number, string>>,
  makes: string,
) {
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await page.getByRole('link', { name: 'Add a recipe' }).click();
  await page.getByRole('searchbox', { name: 'What do you want to make?' }).fill(search);
  await page
    .getByRole('group', { name: 'Published entries' })
    .getByRole('button', { name: entry })
    .first()
    .click();
  for (const [n, amount] of Object.entries(amounts))
    await page
      .getByRole('group', { name: `Ingredient ${n}`, exact: true })
      .getByRole('textbox', { name: 'Amount' })
      .fill(amount);
  await page.getByRole('textbox', { name: 'As written it makes' }).fill(makes);
  await page.getByRole('button', { name: 'Keep the recipe' }).click();
  await expect(page.getByRole('button', { name: 'What this needs' })).toBeVisible();
}

/** Everything the batch needs, put on the shelf in one go. */
async function takeIn(page: Page, strength = false) {
  await page.getByRole('button', { name: 'What this needs' }).click();
  const dialog = page.getByRole('dialog', { name: 'What is not on the shelf yet' });
  if (strength) await dialog.getByRole('textbox', { name: 'Strength on its label' }).fill('5');
  // How produce came is asked of each, beside it, and believed of none.
  await dialog.getByRole('button', { name: 'On the shelf, price later' }).click();
  await expect(dialog.getByText(/The condition of the produce is not said/).first()).toBeVisible();
  const came = dialog.getByRole('combobox', { name: 'How it came' });
  for (let i = 0; i < (await came.count()); i++) {
    await came.nth(i).click();
    await page.getByRole('option', { name: 'sound' }).click();
  }
  await dialog.getByRole('button', { name: 'On the shelf, price later' }).click();
  await expect(dialog).toHaveCount(0);
}

async function startAndDraw(page: Page, purpose: RegExp) {
  await page.getByRole('button', { name: 'Start a batch' }).click();
  const dialog = page.getByRole('dialog');
  const radio = dialog.getByRole('radio', { name: purpose });
  if (!(await radio.isChecked())) await radio.check();
  await dialog.getByRole('button', { name: 'Start the batch' }).click();
  await page.getByRole('button', { name: 'Draw these lots' }).click();
  await expect(page.getByText(/drawn:/).first()).toBeVisible();
}

test('a jam for sale: the kitchen, the place, the recipe, its page, what it needs, and the batch', async ({
  page,
}) => {
  const count = await counting(page);
  const seen = watch(page);
  await open(page);
  await fromEntry(page, 'strawberry jam', /no pectin|without/i, { 1: '3 lb', 2: '6 c' }, '6');
  await page.getByRole('button', { name: 'Confirm from the page' }).click();
  const read = page.getByRole('dialog', { name: 'Confirm from the open page' });
  await read.getByRole('textbox', { name: 'Edition' }).fill('2015');
  await read.getByRole('textbox', { name: 'Page' }).fill('7-6');
  for (const size of [/^Half-pints/, /^Pints/]) await read.getByRole('textbox', { name: size }).fill('15');
  await read.getByRole('textbox', { name: 'Headspace' }).fill('1/4');
  await read.getByRole('button', { name: 'The page says so' }).click();
  await expect(page.getByText('confirmed from the page')).toBeVisible();
  await takeIn(page);
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await page.getByRole('link', { name: 'Choose the place' }).click();
  await page.getByRole('button', { name: 'Choose the place' }).click();
  const place = page.getByRole('dialog', { name: 'What the place allows' });
  await place.getByRole('combobox', { name: 'Place' }).click();
  await page.getByRole('option', { name: /^Ohio/ }).click();
  for (const point of [/^which kinds of food/, /^where it may be sold/, /^the sentence on the label/])
    await place.getByRole('checkbox', { name: point }).check();
  await place.getByRole('button', { name: 'Keep the place and its ticks' }).click();
  await expect(place).toHaveCount(0);
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await page
    .getByRole('link', { name: /strawberry jam/i })
    .first()
    .click();
  await startAndDraw(page, /^For sale/);
  const { taps, fields } = await count();
  console.log(`from nothing to the first batch for sale: ${taps} taps, ${fields} fields`);
  expect(taps + fields).toBeLessThanOrEqual(MOST);
  expect(seen.faults).toEqual([]);
});

for (const [what, search, entry, amounts, makes, vinegar] of [
  ['a pickle', 'dilly beans', /^Dilled beans/, { 3: '8 heads', 6: '1/2 c' }, '8', true],
  ['a tomato sauce', 'tomato sauce', /^Standard tomato sauce/, { 1: '46 lb' }, '14', false],
  ['a syrup', 'blackberry syrup', /^Berry syrup/, { 1: '6 1/2 c', 2: '6 3/4 c' }, '9', false],
  ['a pie filling', 'apple pie filling', /^Apple pie filling/, { 4: '5 1/2 c' }, '14', false],
] as const)
  test(`${what} for home, from an empty kitchen`, async ({ page }) => {
    const count = await counting(page);
    const seen = watch(page);
    await open(page);
    await fromEntry(page, search, entry, amounts, makes);
    await takeIn(page, vinegar);
    await startAndDraw(page, /^For home/);
    await page.getByRole('link', { name: 'Today', exact: true }).click();
    await expect(page.getByText('Start the first batch · done')).toBeVisible();
    const { taps, fields } = await count();
    console.log(`${what}: ${taps} taps, ${fields} fields`);
    expect(taps + fields).toBeLessThanOrEqual(MOST);
    expect(seen.faults).toEqual([]);
  });

test('by keys alone: the kitchen, its equipment and jars, a recipe, what it needs, the batch and its draw', async ({
  page,
}) => {
  const seen = watch(page);
  await page.goto(house.url);
  await expect(page.getByRole('textbox', { name: 'Name of the kitchen' })).toBeFocused();
  await page.keyboard.type('By keys');
  // A clock of 24 hours, chosen from its list.
  await pressOn(page, /^Clock/);
  await page.getByRole('option', { name: '19:34' }).waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await typeIn(page, /^Altitude in feet/, '2350');
  await typeIn(page, /^Your name/, 'Ona');
  await typeIn(page, /^Email/, 'ona@new.example');
  await typeIn(page, /^Password/, 'a long password');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await pressOn(page, /^Choose them/);
  for (const thing of [/^Pot, 8 quarts/, /^Boiling-water canner/, /^Pint jars, regular mouth/])
    await pressOn(page, thing, 'Space');
  await pressOn(page, /^These are here/);
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByText('Your pots, canners and jars · done')).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByRole('heading', { name: 'Recipes', level: 1 })).toBeFocused();
  await pressOn(page, /^Add a recipe/);
  await typeIn(page, /^What do you want to make/, 'blackberry syrup');
  await pressOn(page, /^Berry syrup/);
  await expect(page.getByRole('button', { name: 'Keep the recipe' })).toBeVisible();
  for (const amount of ['6 1/2 c', '6 3/4 c']) await typeIn(page, /^Amount/, amount);
  await typeIn(page, /^As written it makes/, '9');
  await page.keyboard.press('ControlOrMeta+Enter');
  await expect(page.getByRole('button', { name: 'What this needs' })).toBeVisible();
  await pressOn(page, /^What this needs/);
  const dialog = page.getByRole('dialog', { name: 'What is not on the shelf yet' });
  // The jars in use are the ones it asks for.
  await expect(dialog.getByText('Pint jars, regular mouth', { exact: true })).toBeVisible();
  const came = await dialog.getByRole('combobox', { name: 'How it came' }).count();
  for (let i = 0; i < came; i++) {
    await tabTo(page, /^How it came/);
    await page.keyboard.press('Enter');
    await page.getByRole('option', { name: 'sound' }).waitFor();
    await page.keyboard.type('sound');
    await page.keyboard.press('Enter');
  }
  await pressOn(page, /^On the shelf, price later/);
  await expect(dialog).toHaveCount(0);
  await pressOn(page, /^Start a batch/);
  await tabTo(page, /^For (sale|home)/);
  while (!(await page.getByRole('radio', { name: 'For home' }).isChecked()))
    await page.keyboard.press('ArrowDown');
  await pressOn(page, /^Start the batch/);
  await expect(page).toHaveURL(/\/cook\//);
  await pressOn(page, /^Draw these lots/);
  await expect(page.getByText(/drawn:/).first()).toBeVisible();
  // Times are read by the clock that was chosen.
  await page.keyboard.press('8');
  await expect(page.getByRole('heading', { name: 'Records', level: 1 })).toBeFocused();
  await page.keyboard.press('1');
  await expect(page.getByText(/\b[AP]M\b/)).toHaveCount(0);
  expect(seen.faults).toEqual([]);
});

for (const scheme of ['light', 'dark'] as const)
  test(`the door and what stands beside the first work, by ${scheme === 'light' ? 'day' : 'night'}, down to 360 px`, async ({
    browser,
  }) => {
    const page = await browser.newPage({
      colorScheme: scheme,
      viewport: { width: 1280, height: 800 },
      reducedMotion: 'reduce',
    });
    const seen = watch(page);
    /** Axe at both widths, and nothing beyond the edge. */
    const sound = async (name: string) => {
      for (const width of [1280, 360]) {
        await page.setViewportSize({ width, height: 844 });
        await quiet(page);
        expect.soft(await axe(page), `${name} at ${width} px`).toEqual([]);
        await expect
          .soft(page.locator('html'), `${name} at ${width} px`)
          .toHaveJSProperty('scrollWidth', await page.evaluate(() => document.documentElement.clientWidth));
        await expect.soft
          .poll(() => layoutFaults(page), { message: `${name} at ${width} px`, timeout: 5000 })
          .toEqual([]);
      }
      await page.setViewportSize({ width: 1280, height: 800 });
    };
    await page.goto(house.url);
    await expect(page.getByRole('heading', { name: 'Your kitchen' })).toBeVisible();
    await sound('the door');
    await page.getByRole('button', { name: 'Open the kitchen' }).click();
    await expect(page.locator('[aria-invalid="true"]').first()).toBeVisible();
    await sound('the door with its faults');
    await enter(page);
    await expect(page.getByRole('button', { name: 'Choose them' })).toBeVisible();
    await sound('the first steps');
    await page.getByRole('button', { name: 'Choose them' }).click();
    await expect(page.getByRole('dialog', { name: 'Pots, canners and burners' })).toBeVisible();
    await sound('usual things');
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Choose the place' }).click();
    await page.getByRole('button', { name: 'Choose the place' }).click();
    await expect(page.getByRole('dialog', { name: 'What the place allows' })).toBeVisible();
    await sound('the place');
    expect(seen.faults).toEqual([]);
    await page.close();
  });
