import { expect, type Locator, type Page, test } from '@playwright/test';
import { axe } from './axe.ts';
import { House, enterDemo, inKitchen, watch } from './house.ts';
import { layoutFaults } from './layout.ts';

/** A recipe cooked dry, with something that goes wrong: outside the record, and looked back at. */
let house: House;
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(() => house.close());
test.use({ viewport: { width: 820, height: 1180 } });

const fire = (page: Page, under: 'pot' | 'canner', how: string) =>
  page
    .getByRole('group', { name: `Fire under the ${under}` })
    .getByRole('button', { name: how })
    .click();

/** Lets the played kitchen live on until something shows: its minutes are seconds here, and its seconds nothing. */
async function until(page: Page, there: Locator): Promise<void> {
  for (let i = 0; i < 120 && !(await there.isVisible()); i++) await page.clock.runFor(1000);
  await expect(there).toBeVisible();
}

async function begin(page: Page, recipe: string, wrong: string): Promise<void> {
  await page.goto(`${house.url}/recipes`);
  await page.getByRole('link', { name: recipe, exact: true }).click();
  await page.getByRole('link', { name: 'Rehearse it' }).click();
  await page.getByRole('combobox', { name: 'What goes wrong' }).click();
  await page.getByRole('option', { name: wrong }).click();
  await page.getByRole('button', { name: '60 ×' }).click();
  await page.getByRole('button', { name: 'Begin the rehearsal' }).click();
  await expect(page.getByRole('region', { name: 'Rehearsal' })).toContainText('nothing is kept');
}

test('a rehearsal gone wrong: the boil is lost, seen and brought back; nothing of it leaves the page', async ({
  page,
}) => {
  const seen = watch(page);
  await page.clock.install();
  await enterDemo(page, house);
  const batches = async () =>
    (await (await page.request.get(house.url + (await inKitchen(page, '/batches')))).json()) as {
      batches: unknown[];
    };
  const before = (await batches()).batches.length;
  const sent: string[] = [];
  page.on('request', r => r.method() !== 'GET' && sent.push(`${r.method()} ${r.url()}`));
  await begin(page, 'Red plum jam', 'The canner loses its boil');
  expect.soft(await axe(page), 'a rehearsal').toEqual([]);
  for (const width of [360, 820]) {
    await page.setViewportSize({ width, height: 1180 });
    await expect.soft
      .poll(() => layoutFaults(page), { message: `a rehearsal, ${width} px`, timeout: 5000 })
      .toEqual([]);
  }

  // The bowl is on the scale, and what it shows goes into the field.
  await page.getByRole('button', { name: 'Done', exact: true }).first().click();
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: '+500 g' }).click();
  const scale = page.getByRole('group', { name: 'Kitchen scale' });
  await until(page, scale.getByText(/2,000 g/));
  await until(page, scale.getByText('steady'));
  await scale.getByRole('button', { name: 'Take the reading' }).click();
  await scale.getByRole('button', { name: 'Hold it' }).click();
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByText(/weighed so far/)).toBeVisible();

  // The pot, by its probe.
  const done = page.getByRole('button', { name: 'Done', exact: true }).first();
  await done.click();
  await done.click();
  await fire(page, 'pot', 'full');
  await done.click();
  const ended = page.getByRole('dialog', { name: 'How did it end?' });
  await ended.getByText('look', { exact: true }).click();
  await ended.getByRole('button', { name: 'It is done' }).click();
  await page.getByRole('button', { name: 'Begin', exact: true }).first().click();
  const probe = page.getByRole('group', { name: 'Probe in the pot' });
  await until(page, probe.getByText(/21[2-9]\.\d °F/));
  await probe.getByRole('button', { name: 'Take the reading' }).click();
  await probe.getByRole('button', { name: 'Hold it' }).click();
  await page.getByRole('button', { name: 'Log the temperature' }).click();
  await fire(page, 'pot', 'off');

  // A load, whose boil goes in the sixth minute.
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: /^8 half-pints filled/ }).click();
  const load = page.getByRole('region', { name: 'Load 1', exact: true });
  await load.getByRole('button', { name: /jars in, load 1$/ }).click();
  await fire(page, 'canner', 'full');
  const canner = page.getByRole('group', { name: 'The canner', exact: true });
  await until(page, canner.getByText(/a full boil/));
  await page.getByRole('button', { name: /^Start the \d+ minutes/ }).click();
  await until(page, canner.getByText(/its fire is out/));
  await page.getByRole('button', { name: 'The boil was lost' }).click();
  await fire(page, 'canner', 'full');
  await until(page, canner.getByText(/a full boil/));
  await page.getByRole('button', { name: /^Start the \d+ minutes/ }).click();
  await until(page, page.getByRole('button', { name: 'Already lifted' }));
  await page.getByRole('button', { name: 'Heat off' }).click();
  await page.clock.runFor(2000);
  await page.getByRole('button', { name: 'Jars lifted' }).click();

  await page.getByRole('button', { name: 'End and look back' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /missed/ })).toBeVisible();
  await expect(page.getByText('What was made to go wrong: The canner loses its boil.')).toBeVisible();
  await expect(page.getByText(/The boil was lost at .*; it was entered/)).toBeVisible();
  await expect(page.getByText('The clock of load 1 was started at the full boil.')).toBeVisible();
  await expect(page.getByText(/never brought back/)).toHaveCount(0);
  expect.soft(await axe(page), 'looking back').toEqual([]);
  // It can be gone on with, also after something else was looked at.
  await page.getByRole('link', { name: 'Back to the recipe' }).click();
  await page.getByRole('link', { name: 'Rehearse it' }).click();
  await page.getByRole('button', { name: 'Go on cooking' }).click();
  await expect(page.getByRole('tab', { name: 'Jars and loads' })).toBeVisible();

  expect(sent).toEqual([]);
  expect((await batches()).batches).toHaveLength(before);
  expect(seen.faults).toEqual([]);
});

test('whoever looks away has it said: a clock before the boil, a load whose boil was lost unseen', async ({
  page,
}) => {
  await enterDemo(page, house);
  await begin(page, 'Crushed tomatoes', 'The canner loses its boil');
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: '9 pints filled' }).click();
  await page.getByRole('button', { name: 'Given to 9 jars' }).click();
  await page.getByRole('button', { name: '9 jars in, load 1' }).click();
  await fire(page, 'canner', 'full');
  await page.getByRole('button', { name: 'Start the 40 minutes' }).click();
  await page.getByRole('button', { name: 'An hour passes' }).click();
  await page.getByRole('button', { name: 'Heat off' }).click();
  await page.getByRole('button', { name: 'End and look back' }).click();
  await expect(page.getByText(/was started at .*; it boiled at/)).toBeVisible();
  await expect(page.getByText(/The boil was lost at .*, and nobody entered it/)).toBeVisible();
  await expect(page.getByText(/its jars would have gone to the shelf/)).toBeVisible();
});
