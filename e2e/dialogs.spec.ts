import { type Page, expect, test } from '@playwright/test';
import { axe } from './axe.ts';
import { tabTo } from './by-keys.ts';
import { House, delivered, enterDemo, fillAndBoil, startAndDraw, watch } from './house.ts';
import { calibrate, readJar } from './bench-steps.ts';

let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name }).first();
const press = (name: string | RegExp) => (page: Page) => button(page, name).click();
const choose = (name: string) => (page: Page) => page.getByRole('combobox', { name }).first().click();
const openRecipe = (page: Page) =>
  page.getByRole('link', { name: 'Red plum jam', exact: true }).first().click();

/** Everything that opens over a view: where, and how it is opened. */
const OPENED: [name: string, path: string, ...steps: ((page: Page) => Promise<unknown>)[]][] = [
  ['the menu of the kitchen', '/', press(/Wrenfold Kitchen/)],
  ['finding', '/', page => page.keyboard.press('/')],
  ['the keys', '/', page => page.keyboard.press('?')],
  ['more of the book', '/recipes', press('More')],
  [
    'cook first',
    '/recipes',
    press('More'),
    page => page.getByRole('menuitem', { name: /Cook first/ }).click(),
  ],
  ['a list to choose from', '/recipes', choose('Kind')],
  ['starting a batch', '/recipes', openRecipe, press('Start a batch')],
  ['planning a batch', '/recipes', openRecipe, press('Plan')],
  ['what this needs', '/recipes', openRecipe, press('What this needs')],
  [
    'what a text follows',
    '/recipes/paste',
    page =>
      page
        .getByRole('textbox', { name: 'Pasted recipe' })
        .fill('Plum jam\n4 lb plums\n7 c sugar\n\nBoil 10 minutes.'),
    choose('It follows'),
  ],
  [
    'an ingredient by its name',
    '/recipes/new',
    async page => {
      const kind = page.getByRole('button', { name: 'jam', exact: true });
      if (await kind.isVisible()) await kind.click();
      await page.getByRole('combobox', { name: 'Ingredient' }).fill('plum');
    },
  ],
  ['an ingredient', '/recipes/ingredients', press(/^Open /)],
  ['a new ingredient', '/recipes/ingredients', press('Add an ingredient')],
  ['an item', '/stores', press('Add an item')],
  ['an item with its faults', '/stores', press('Add an item'), press(/^Add the item/)],
  ['a lot', '/stores', press('Add a lot without receipt')],
  ...(['Change it', 'Make a lot of it', 'Poured together', 'Add a lot'] as const).map(
    (name): (typeof OPENED)[number] => [
      name,
      '/stores',
      async page => {
        await page.getByRole('link', { name: 'Sugar', exact: true }).click();
        // The shelf has a button that is named alike.
        await expect(page.getByRole('heading', { name: 'Sugar', level: 1 })).toBeVisible();
      },
      press(name),
    ],
  ),
  [
    'taking a receipt back',
    '/stores/receipts',
    page => page.getByRole('table', { name: 'Receipts' }).getByRole('link').first().click(),
    press('Take it back'),
  ],
  [
    'putting a draw back',
    '/cook',
    openRecipe,
    page => page.getByRole('tab', { name: 'Lots' }).click(),
    press('Put back'),
  ],
  [
    'what came back',
    '/cook',
    openRecipe,
    page => page.getByRole('tab', { name: 'Lots' }).click(),
    press('Something came back'),
  ],
  [
    'correcting an entry',
    '/records',
    page => page.getByRole('table', { name: 'Batches' }).getByRole('link').first().click(),
    press(/^Correct entry/),
  ],
];

for (const scheme of ['light', 'dark'] as const)
  test(`axe finds nothing in what opens over a view, by ${scheme === 'light' ? 'day' : 'night'}`, async ({
    browser,
  }) => {
    test.setTimeout(240_000);
    const page = await browser.newPage({
      colorScheme: scheme,
      viewport: { width: 1280, height: 800 },
      reducedMotion: 'reduce',
    });
    const seen = watch(page);
    await enterDemo(page, house);
    for (const [name, path, ...steps] of OPENED) {
      await page.goto(house.url + path);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      for (const step of steps) await step(page);
      await expect(
        page.getByRole('dialog').or(page.getByRole('menu')).or(page.getByRole('listbox')),
      ).toBeVisible();
      expect.soft(await axe(page, { popup: true }), name).toEqual([]);
    }
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(house.url);
    await button(page, 'All stops').click();
    await expect(page.getByRole('menu')).toBeVisible();
    expect.soft(await axe(page, { popup: true }), 'the stops on a phone').toEqual([]);
    expect(seen.faults).toEqual([]);
    await page.close();
  });

test('what was typed is asked about before it is lost: a tap beside it, a stray key, another view', async ({
  page,
}) => {
  await enterDemo(page, house);
  await page.goto(`${house.url}/stores`);
  await button(page, 'Add an item').click();
  // Nothing was typed: it closes at once.
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await button(page, 'Add an item').click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Vinegar mother');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Leave what you typed?')).toBeVisible();
  await button(page, 'Go on typing').click();
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Vinegar mother');
  await page.mouse.click(12, 400);
  await expect(page.getByText('Leave what you typed?')).toBeVisible();
  await button(page, 'Leave it').click();
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await page.goto(`${house.url}/kitchen`);
  await page.getByRole('textbox', { name: 'Maker' }).fill('Wrenfold and daughters');
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await expect(page.getByRole('dialog', { name: 'Leave what you typed?' })).toBeVisible();
  await button(page, 'Go on typing').click();
  await expect(page.getByRole('textbox', { name: 'Maker' })).toHaveValue('Wrenfold and daughters');
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await button(page, 'Leave it').click();
  await expect(page.getByRole('heading', { name: 'Recipes', level: 1 })).toBeVisible();
});

test('two windows on the settings: both are offered, nothing typed is lost, and "Saved." is seen', async ({
  page,
  context,
}) => {
  await enterDemo(page, house);
  await page.goto(`${house.url}/kitchen`);
  const other = await context.newPage();
  await other.goto(`${house.url}/kitchen`);
  const maker = (p: Page) => p.getByRole('textbox', { name: 'Maker' });
  await maker(page).fill('Mine');
  await maker(other).fill('Theirs');
  await button(other, 'Save the settings').click();
  await expect(other.getByText('Saved.')).toBeInViewport();
  await button(page, 'Save the settings').click();
  await expect(page.getByText('Somebody changed this meanwhile.')).toBeVisible();
  await expect(maker(page)).toHaveValue('Mine');
  await button(page, 'Keep mine').click();
  await button(page, 'Save the settings').click();
  await expect(page.getByText('Saved.')).toBeInViewport();

  // Where nothing was typed what is new is there by itself; where something was, both are offered before it is saved.
  await expect(maker(other)).toHaveValue('Mine');
  await maker(other).fill('Theirs again');
  await maker(page).fill('Mine again');
  await button(page, 'Save the settings').click();
  await expect(other.getByText('It is now: Wrenfold Kitchen, Mine again')).toBeVisible();
  await expect(maker(other)).toHaveValue('Theirs again');
  await button(other, 'Take theirs').click();
  await expect(maker(other)).toHaveValue('Mine again');
  await other.close();
});

test('the buttons of a clock: one tap is one entry; a count that was one too many is undone', async ({
  page,
}) => {
  await enterDemo(page, house);
  await startAndDraw(page, house, 'Red plum jam');
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await button(page, '8 half-pints filled').click();
  await expect(page.getByText('8 of 8 filled')).toBeVisible();
  await button(page, 'Undo').click();
  await expect(page.getByText('0 of 8 filled')).toBeVisible();
  await page.getByRole('tab', { name: 'Steps' }).click();
  await fillAndBoil(page, '8 half-pints', 0, 15);
  // The button that came under the thumb takes no tap yet, though a hurried one is made.
  const lost = button(page, 'The boil was lost');
  await expect(lost).toHaveAttribute('aria-disabled', 'false');
  await lost.dblclick();
  const again = button(page, 'Start the 15 minutes');
  await expect(again).toHaveAttribute('aria-disabled', 'true');
  await again.dispatchEvent('click');
  await expect(page.getByText('Bring it back to a full boil')).toBeVisible();
  await again.click();
  await button(page, 'Heat off').dispatchEvent('click');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await delivered(page);
  await page.getByRole('link', { name: 'Record', exact: true }).click();
  const entries = page.getByRole('table', { name: 'Every entry' });
  await expect(entries.getByRole('row', { name: /full boil/i })).toHaveCount(2);
  await expect(entries.getByRole('row', { name: /boil was lost|boil lost/i })).toHaveCount(1);
  await expect(entries).toContainText('Tapped by mistake, undone at once.');
});

test('a list is put in order by its heads and walked with the arrow keys; a new view is begun at its heading', async ({
  page,
}) => {
  await enterDemo(page, house);
  await page.getByRole('link', { name: 'Stores', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Stores', level: 1 })).toBeFocused();
  const shelf = page.getByRole('table', { name: 'The shelf' });
  const names = async () => shelf.getByRole('link').allInnerTexts();
  await expect(shelf.getByRole('link').first()).toBeVisible();
  const first = await names();
  await shelf.getByRole('button', { name: 'Item' }).click();
  await shelf.getByRole('button', { name: 'Item' }).click();
  await expect(shelf.getByRole('columnheader', { name: 'Item' })).toHaveAttribute('aria-sort', 'descending');
  expect(await names()).toEqual(first.toReversed());
  await shelf.getByRole('link').first().focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowUp');
  await expect(shelf.getByRole('link').nth(1)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: first.toReversed()[1] ?? '', level: 1 })).toBeFocused();
  // A lot that was found is opened.
  await page.keyboard.press('/');
  await page.getByRole('searchbox', { name: 'Lot code, recipe or lot' }).fill('SU-08');
  await page.getByRole('dialog').getByText('SU-08').first().click();
  await expect(page.getByRole('heading', { name: 'Lot SU-08', level: 1 })).toBeFocused();
});

test('from the sign-in to a started batch, by keys alone', async ({ page }) => {
  await page.goto(house.url);
  await expect(page.getByRole('textbox', { name: 'Email' })).toBeFocused();
  await page.keyboard.type('wren@wrenfold.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('wrenfold-demo-kitchen');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { name: 'Recipes', level: 1 })).toBeFocused();
  await tabTo(page, /^Red plum jam$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Red plum jam', level: 1 })).toBeFocused();
  await tabTo(page, /^Start a batch$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await tabTo(page, /^For sale$/);
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('radio', { name: 'For home' })).toBeChecked();
  await page.keyboard.press('ArrowUp');
  await tabTo(page, /^Start the batch$/);
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/cook\//);
  await expect(page.getByRole('heading', { name: 'Red plum jam', level: 1 })).toBeFocused();
});

test('a kitchen that reads commas is refused none of its own figures', async ({ page }) => {
  await enterDemo(page, house);
  await page.goto(`${house.url}/kitchen`);
  const pick = async (label: string, option: string) => {
    await page.getByRole('combobox', { name: label, exact: true }).click();
    await page.getByRole('option', { name: option }).click();
  };
  await page.getByRole('textbox', { name: 'Locale' }).fill('de-DE');
  await pick('Temperature', 'Celsius');
  await pick('Lengths, volumes, weights', 'Centimetres, litres, kilograms');
  await button(page, 'Save the settings').click();
  await expect(page.getByText('Saved.')).toBeVisible();
  // Every setting stands there in its own marks, and is taken as it stands.
  await expect(page.getByRole('textbox', { name: 'Holds, L' }).first()).toHaveValue('9');
  await expect(page.getByRole('textbox', { name: 'Jam thermometer reads high by, °C' })).toHaveValue('0,2');
  await button(page, 'Save the settings').click();
  await expect(page.locator('[aria-invalid="true"]')).toHaveCount(0);

  await page.goto(`${house.url}/check`);
  await page.getByRole('link', { name: 'Dilled wax beans' }).first().click();
  await calibrate(page, '173,5', '-1,5');
  await expect(page.getByText(/4,01, 7,00; slope 99,1 %/)).toBeVisible();
  await readJar(page, { jar: 2, ph: '3,85' });
  await expect(page.getByText(/pH 3,85 ± 0,05/)).toBeVisible();

  await startAndDraw(page, house, 'Red plum jam');
  await expect(page.getByText(/drawn: [\d.]+(,\d)? g from PL-/)).toBeVisible();
  await page.goto(`${house.url}/stores/offer`);
  await page.getByRole('combobox', { name: 'For which recipe' }).click();
  await page.getByRole('option', { name: 'Red plum jam' }).click();
  await expect(page.getByRole('combobox', { name: 'Unit' })).toContainText('kilo');
});
