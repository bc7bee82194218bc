import { expect, test } from '@playwright/test';
import { axe } from './axe.ts';
import { layoutFaults } from './layout.ts';
import { House, enterDemo, inKitchen, passTime, quiet, watch } from './house.ts';

/** At the stove, on a tablet: a wait, a pot that cooks down, bowls on a scale. */
let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());
test.use({ viewport: { width: 820, height: 1180 } });

test('a wait is a band with now on it; a pot says what is left and when, and each reading corrects it', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const { batches } = (await (
    await page.request.get(house.url + (await inKitchen(page, '/batches')))
  ).json()) as {
    batches: { id: string; summary: { stage: string } }[];
  };
  const cooking = batches.find(b => b.summary.stage === 'cooking')?.id ?? '';
  await page.goto(`${house.url}/cook/${cooking}`);
  const steps = page.getByRole('tab', { name: 'Steps' });
  await steps.click();
  await expect(page.getByText(/to go: not before/)).toBeVisible();

  // Bowls on a scale: the empty bowl comes off, and stays in its field for the next.
  await page.getByRole('combobox', { name: 'Ingredient' }).click();
  await page.getByRole('option', { name: 'Sugar' }).click();
  await page.getByRole('textbox', { name: 'Empty bowl' }).fill('400');
  await page.getByRole('textbox', { name: 'Grams' }).fill('380');
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByText('The bowl alone weighs 400 g.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Grams' }).fill('1400');
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByRole('img', { name: /^1,000 g of .* weighed$/ })).toBeVisible();
  await expect(page.getByText(/weighed so far 1,000 g/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Empty bowl' })).toHaveValue('400');

  // The last entry can be taken back at once, whatever it was; the record keeps both.
  await page.getByRole('textbox', { name: 'Grams' }).fill('500');
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Weighed 100 g of Sugar.' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText(/weighed so far 1,000 g/)).toBeVisible();

  const done = page.getByRole('button', { name: 'Done', exact: true });
  await done.click();
  const soon = page.getByRole('dialog', { name: /^Not before/ });
  await soon.getByRole('textbox', { name: 'Reason' }).fill('Cut small, they are juicy already');
  await soon.getByRole('button', { name: 'It is done' }).click();
  const pot = page.getByRole('group', { name: 'The pot now' });
  await expect(pot.getByText('Done when it looks so')).toBeVisible();
  await expect(
    pot.getByRole('img', { name: /^A pot from the side: it began .* deep and stands/ }),
  ).toBeVisible();
  await done.click();
  await page.getByRole('button', { name: 'It is done' }).click();
  // Where nobody tapped it the step begins with the end of the one before.
  await expect(pot.getByText('ready at about')).toBeVisible();
  await expect(pot.getByText(/minutes more, .* of water to go/)).toBeVisible();
  await expect(pot.getByText(/as this pot is set/)).toBeVisible();
  expect.soft(await axe(page), 'the pot').toEqual([]);

  await pot.getByRole('button', { name: 'Level in the pot' }).click();
  const level = page.getByRole('dialog', { name: 'Level in the pot' });
  await level.getByText('What this pot holds at each depth').click();
  // A pan of 9 L, 38 cm wide: half an inch of it holds 1.44 L, a quart and a half.
  await expect(level.getByRole('row', { name: /^1\/2 in 1\.5 quarts$/ })).toBeVisible();
  await level.getByRole('textbox', { name: 'Depth, inches' }).fill('12');
  await level.getByRole('button', { name: 'Keep it' }).click();
  await expect(level.getByText(/That is above the rim/)).toBeVisible();
  expect.soft(await axe(page), 'the level').toEqual([]);
  await level.getByRole('textbox', { name: 'Depth, inches' }).fill('0.75');
  await level.getByRole('button', { name: 'Keep it' }).click();
  await expect(level).toHaveCount(0);
  await expect(pot.getByRole('img', { name: /stands 3\/4 in deep/ })).toBeVisible();

  // Two readings are a curve, and what it shows decides what is left.
  for (const temp of ['213', '215']) {
    await page.getByRole('textbox', { name: 'Read, °F' }).fill(temp);
    await page.getByRole('button', { name: 'Log the temperature' }).click();
  }
  await expect(pot.getByText('2 readings')).toBeVisible();
  await expect(pot.getByText(/It climbs fast from here/)).toBeVisible();
  for (const width of [360, 390, 820, 1280]) {
    await page.setViewportSize({ width, height: 1180 });
    await quiet(page);
    expect
      .soft(
        await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        ),
      )
      .toBe(0);
    await expect.soft.poll(() => layoutFaults(page), { message: `${width} px`, timeout: 5000 }).toEqual([]);
  }
  await page.setViewportSize({ width: 820, height: 1180 });
  await page.getByRole('textbox', { name: 'Read, °F' }).fill('216');
  await page.getByRole('button', { name: 'Log the temperature' }).click();
  await expect(pot.getByText(/^It should be there|^Past its end/)).toBeVisible();

  // The record has the level as it was read.
  await page.goto(`${house.url}/records/${cooking}`);
  await expect(page.getByText(/In the pot: 19 mm deep\./)).toBeVisible();
  await expect(page.getByText(/Taken back: Tapped by mistake, undone at once\./)).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('a timer for anything: named, on every view, made longer, stopped, rung on time', async ({ page }) => {
  const seen = watch(page);
  await page.clock.install();
  await enterDemo(page, house);
  await page.goto(`${house.url}/cook`);
  await page.getByRole('button', { name: 'A timer' }).click();
  const dialog = page.getByRole('dialog', { name: 'A timer' });
  await dialog.getByRole('button', { name: 'Start it' }).click();
  await expect(dialog.locator('[aria-invalid="true"]')).toHaveCount(2);
  await dialog.getByRole('textbox', { name: 'For what' }).fill('Toast the mustard seeds');
  await dialog.getByRole('textbox', { name: 'Minutes' }).fill('-3');
  await dialog.getByRole('button', { name: 'Start it' }).click();
  await expect(dialog.getByText(/The minutes must be more than 0|must be above 0/i)).toBeVisible();
  expect.soft(await axe(page), 'a new timer').toEqual([]);
  await dialog.getByRole('textbox', { name: 'Minutes' }).fill('4');
  await dialog.getByRole('button', { name: 'Start it' }).click();
  await expect(dialog).toHaveCount(0);
  const rail = page.getByRole('complementary', { name: 'Stove rail' });
  const tile = rail.getByRole('button', { name: /Toast the mustard seeds/ });
  await expect(tile.getByRole('timer')).toHaveText(/^0[34]:\d\d$/);
  await page.getByRole('link', { name: 'Stores', exact: true }).click();
  await expect(tile).toBeVisible();
  // It outlives a reload, and is made longer where it stands.
  await page.reload();
  await tile.click();
  const change = page.getByRole('dialog', { name: 'The timer' });
  expect.soft(await axe(page), 'a timer that runs').toEqual([]);
  await change.getByRole('button', { name: '5 minutes more' }).click();
  await expect(tile.getByRole('timer')).toHaveText(/^0[89]:\d\d$/);
  await passTime(page, house, 10);
  await expect(rail.getByText('Toast the mustard seeds: time')).toBeAttached();
  await expect(tile.getByRole('timer')).toHaveText(/^\+/);
  await tile.click();
  await change.getByRole('button', { name: 'Stop it' }).click();
  await expect(tile).toHaveCount(0);
  expect(seen.faults).toEqual([]);
});

test('the thermometer in boiling water, and jars against the light: asked on Today, gone when done', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  await page.getByRole('button', { name: 'Check it' }).click();
  const shows = page.getByRole('textbox', { name: 'What it shows at the boil' });
  for (const typed of ['', '2O8', '180']) {
    await shows.fill(typed);
    await page.getByRole('button', { name: 'Keep the check' }).click();
    await expect(page.getByRole('dialog').locator('[aria-invalid="true"]')).toHaveCount(1);
    await expect(shows).toHaveValue(typed);
  }
  await expect(page.getByRole('dialog').getByText(/more than 5 °C/)).toBeVisible();
  const ice = page.getByRole('textbox', { name: 'What it shows in ice' });
  await shows.fill('208.7');
  await ice.fill('50');
  await page.getByRole('button', { name: 'Keep the check' }).click();
  await expect(page.getByRole('dialog').getByText(/more than 5 °C/)).toBeVisible();
  await ice.fill('33');
  await page.getByRole('button', { name: 'Keep the check' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Check it' })).toHaveCount(0);

  const look = page.getByRole('link', { name: 'Look: Dilled wax beans' });
  await look.click();
  const panel = page.getByRole('region', { name: 'Look at the jars' });
  await panel.getByRole('checkbox', { name: 'Floating' }).check();
  await panel.getByRole('textbox', { name: 'In which jars' }).fill('99');
  await panel.getByRole('button', { name: 'Keep what was seen' }).click();
  await expect(panel.locator('[aria-invalid="true"]')).toHaveCount(1);
  await panel.getByRole('textbox', { name: 'In which jars' }).fill('2-3');
  await panel.getByRole('button', { name: 'Keep what was seen' }).click();
  await expect(panel.getByText('looked at once')).toBeVisible();
  await expect(panel.getByText('Last seen: Floating.')).toBeVisible();
  await page.getByRole('link', { name: 'Today', exact: true }).click();
  await expect(page.getByRole('link', { name: /^Read: Dilled wax beans/ })).toBeVisible();
  await expect(look).toHaveCount(0);
  expect(seen.faults).toEqual([]);
});
