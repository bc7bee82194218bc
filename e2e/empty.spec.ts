import { expect, test } from '@playwright/test';
import { House, watch } from './house.ts';

/** An empty house: the first account, a recipe, stores, and a batch, from the interface alone. */
let house: House;
test.beforeAll(async () => {
  house = await House.open('empty');
});
test.afterAll(() => house.close());

test('from the first account to the first batch', async ({ page }) => {
  const seen = watch(page);
  await page.goto(house.url);
  await expect(page.getByRole('heading', { name: 'Your kitchen' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Name of the kitchen' }).fill('New Kitchen');
  await page.getByRole('textbox', { name: 'Altitude in feet' }).fill('12000');
  await page.getByRole('textbox', { name: 'Time zone' }).fill('America/Denver');
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ona');
  await page.getByRole('textbox', { name: 'Email' }).fill('ona@new.example');
  await page.getByLabel('Password').fill('a long password');
  await page.getByRole('button', { name: 'Open the kitchen' }).click();
  await expect(page.getByText(/The altitude must be at most 10,000 ft/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Your name' })).toHaveValue('Ona');
  await page.getByRole('textbox', { name: 'Altitude in feet' }).fill('5,280');
  await page.getByRole('button', { name: 'Open the kitchen' }).click();
  await expect(page.getByText('Nothing waits.')).toBeVisible();
  for (const [stop, words] of [
    ['Recipes', 'The book is empty.'],
    ['Stores', 'The shelf is empty.'],
    ['Cook', 'Nothing is on the stove.'],
    ['Check', 'No jar waits to be checked.'],
    ['Label', 'No released jar waits'],
    ['Records', 'No batch was started yet.'],
  ] as const) {
    await page.getByRole('link', { name: stop, exact: true }).click();
    await expect(page.getByText(words)).toBeVisible();
  }

  await page.goto(`${house.url}/recipes/new`);
  // Its name and its kind first; what follows depends on them, and nothing is judged before an ingredient stands there.
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Blackberry jam');
  await page.getByRole('button', { name: 'jam', exact: true }).click();
  await expect(page.getByRole('combobox', { name: 'Packing liquid' })).toHaveCount(0);
  await expect(page.getByText('usual for jam').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Steps' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Keep the recipe' }).click();
  await expect(page.getByRole('alert').first()).toContainText('marked below');
  await expect(page.getByRole('textbox', { name: 'Code' })).toHaveValue('BJA');
  await page.getByRole('textbox', { name: 'Code' }).fill('BBJ');
  await page.getByRole('textbox', { name: 'Net contents of a half-pint' }).fill('9');
  await page.getByRole('combobox', { name: 'Published family time' }).click();
  await page.getByRole('option', { name: /^Jam without added pectin, clean jars/ }).click();
  const first = page.getByRole('group', { name: 'Ingredient 1' });
  await first.getByRole('combobox', { name: 'Ingredient' }).fill('blackb');
  await page.getByRole('option', { name: /^Blackberries/ }).click();
  await first.getByRole('textbox', { name: 'Amount' }).fill('3 smidgens');
  await page.getByRole('button', { name: 'Add an ingredient' }).click();
  const second = page.getByRole('group', { name: 'Ingredient 2' });
  // A name of one's own, not picked from the library: its facts are asked for.
  await second.getByRole('combobox', { name: 'Ingredient' }).fill('Sugar');
  await second.getByRole('textbox', { name: 'Amount' }).fill('6 c');
  await second.getByRole('combobox', { name: 'Role' }).click();
  await page.getByRole('option', { name: 'sweetener' }).click();
  await page
    .getByRole('group', { name: 'Step 1' })
    .getByRole('textbox', { name: 'What is done' })
    .fill('Boil to the gel point');
  await page.getByRole('group', { name: 'Step 1' }).getByRole('combobox', { name: 'Until' }).click();
  await page.getByRole('option', { name: 'the gel point' }).click();
  await page.getByRole('button', { name: 'Keep the recipe' }).click();
  await expect(page.getByText('"smidgens" is not a unit we know.')).toBeVisible();
  await expect(page.getByText('Sugar is measured by volume and has no density.')).toBeVisible();
  await first.getByRole('textbox', { name: 'Amount' }).fill('3 lb');
  await second.getByRole('textbox', { name: 'One mL weighs, g' }).fill('0.845');
  await page.getByRole('button', { name: 'Keep the recipe' }).click();
  await expect(page.getByRole('heading', { name: 'Blackberry jam' })).toBeVisible();
  await expect(page.getByText('may be cooked for sale')).toBeVisible();
  await expect(page.getByText('15 min', { exact: true })).toBeVisible();

  const item = async (kind: string, name: string) => {
    await page.getByRole('button', { name: 'Add an item' }).click();
    if (kind !== 'ingredient') {
      await page.getByRole('combobox', { name: 'Kind' }).click();
      await page.getByRole('option', { name: kind }).click();
    }
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
    if (kind === 'jar') {
      await page.getByRole('combobox', { name: 'Jar size' }).click();
      await page.getByRole('option', { name: 'half-pint' }).click();
    }
    await page.getByRole('button', { name: 'Add the item' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await page.getByRole('link', { name: 'Stores', exact: true }).click();
  for (const [kind, name] of [
    ['ingredient', 'Blackberries'],
    ['ingredient', 'Sugar'],
    ['jar', 'Half-pint jars'],
    ['lid', 'Lids'],
  ] as const)
    await item(kind, name);
  await page.getByRole('link', { name: 'Record a receipt' }).click();
  await page.getByRole('textbox', { name: 'Supplier' }).fill('First Depot');
  for (const [i, [name, quantity]] of (
    [
      ['Blackberries', '4000'],
      ['Sugar', '5000'],
      ['Half-pint jars', '24'],
      ['Lids', '24'],
    ] as const
  ).entries()) {
    if (i > 0) await page.getByRole('button', { name: 'Add a line' }).click();
    const line = page.getByRole('group', { name: `Line ${i + 1}`, exact: true });
    await line.getByRole('combobox', { name: 'Item' }).click();
    await page.getByRole('option', { name, exact: true }).click();
    await line.getByRole('textbox', { name: 'Of', exact: true }).fill(quantity);
    await line.getByRole('textbox', { name: /^Price/ }).fill(i === 0 ? '$12' : '12.40');
    await page
      .getByRole('group', { name: `Line ${i + 1}, its lot` })
      .getByRole('textbox', { name: 'Lot name' })
      .fill(`L-${name.slice(0, 2)}`);
  }
  // Blackberries are produce by their name: their lot says how they came.
  await page
    .getByRole('group', { name: 'Line 1, its lot' })
    .getByRole('combobox', { name: 'Condition' })
    .click();
  await page.getByRole('option', { name: 'ripe', exact: true }).click();
  await page.getByRole('button', { name: 'Record the receipt' }).click();
  await expect(page.getByText('There is a currency sign in a number field.')).toBeVisible();
  // A reload loses nothing that was typed.
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Supplier' })).toHaveValue('First Depot');
  await page
    .getByRole('group', { name: 'Line 1', exact: true })
    .getByRole('textbox', { name: /^Price/ })
    .fill('12.40');
  await page.getByRole('button', { name: 'Record the receipt' }).click();
  await expect(page.getByRole('heading', { name: 'First Depot' })).toBeVisible();
  await expect(page.getByRole('row', { name: /^Total/ })).toContainText('$49.60');
  await page.getByRole('link', { name: 'Recipes', exact: true }).click();
  await page.getByRole('link', { name: 'Blackberry jam', exact: true }).click();
  // Two keys: the page of its time, read by the owner, and a place that allows it.
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await expect(page.getByText(/Nobody has confirmed USDA Complete Guide/)).toBeVisible();
  await expect(page.getByRole('radio', { name: 'For sale' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Not now' }).click();
  await page.getByRole('button', { name: 'Confirm from the page' }).click();
  const page_ = page.getByRole('dialog', { name: 'Confirm from the open page' });
  await page_.getByRole('textbox', { name: 'Edition' }).fill('2015');
  await page_.getByRole('textbox', { name: 'Page' }).fill('7-6');
  await page_.getByRole('textbox', { name: /^Half-pints/ }).fill('10');
  await page_.getByRole('textbox', { name: /^Pints/ }).fill('15');
  await page_.getByRole('textbox', { name: 'Headspace' }).fill('1/4');
  await page_.getByRole('button', { name: 'The page says so' }).click();
  await expect(page_.getByText(/The page says 10 minutes, here stands 15/)).toBeVisible();
  await page_.getByRole('textbox', { name: /^Half-pints/ }).fill('15');
  await page_.getByRole('button', { name: 'The page says so' }).click();
  await expect(page.getByText('confirmed from the page')).toBeVisible();
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await expect(page.getByText('Nobody has said under whose rules this kitchen sells.')).toBeVisible();
  await page.getByRole('button', { name: 'Not now' }).click();
  await page.goto(`${house.url}/kitchen`);
  await page.getByRole('button', { name: 'Choose the place' }).click();
  const place = page.getByRole('dialog', { name: 'What the place allows' });
  await place.getByRole('combobox', { name: 'Place' }).click();
  await page.getByRole('option', { name: /^Ohio/ }).click();
  for (const point of [/^which kinds of food/, /^where it may be sold/, /^the sentence on the label/])
    await place.getByRole('checkbox', { name: point }).check();
  await place.getByRole('button', { name: 'Keep the place and its ticks' }).click();
  await expect(place).toHaveCount(0);
  await expect(page.getByText('not ticked yet')).toHaveCount(0);
  await page.goto(`${house.url}/recipes`);
  await page.getByRole('link', { name: 'Blackberry jam', exact: true }).click();
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await expect(page.getByRole('radio', { name: 'For sale' })).toBeChecked();
  await expect(page.getByText('the place allows it')).toBeVisible();
  await page.getByRole('button', { name: 'Start the batch' }).click();
  await page.getByRole('textbox', { name: 'Quantity of Sugar' }).fill('6000');
  await page.getByRole('button', { name: 'Draw these lots' }).click();
  await expect(
    page.getByText(/The shelf holds 5,000 g of Sugar that may serve here, not 6,000 g/),
  ).toBeVisible();
  await page.getByRole('textbox', { name: 'Quantity of Sugar' }).fill('1200');
  await page.getByRole('button', { name: 'Draw these lots' }).click();
  await expect(page.getByText(/Drawn so far/)).toBeVisible();
  // The label of this kitchen is not ready: the settings say what is missing.
  await page.goto(page.url().replace('/cook/', '/label/'));
  await expect(page.getByText('The label has no maker.')).toBeVisible();
  expect(seen.faults).toEqual([]);
});
