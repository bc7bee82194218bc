import { randomUUID } from 'node:crypto';
import { waxBeans } from '@cocotte/demo/recipes';
import { noTerms, type Recipe } from '@cocotte/core/recipes';
import { expect, test } from '@playwright/test';
import { pdfOf, picture } from '@cocotte/testing/papers';
import { axe } from './axe.ts';
import { House, enterDemo, inKitchen, startAndDraw, watch } from './house.ts';

/** The two keys before the pot is lit: a letter that is attached and read back, and what a name, a scale and the cold say. */
let empty: House;
let demo: House;
test.beforeAll(async () => {
  empty = await House.open('empty');
  demo = await House.open('demo');
});
test.afterAll(async () => {
  await empty.close();
  await demo.close();
});

const letter: Recipe = {
  ...waxBeans,
  name: 'Beans by letter',
  authority: {
    ...(waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>),
    demo: false,
    reference: 'AC-7',
    limits: '',
    terms: {
      ...noTerms(),
      producer: 'New Kitchen',
      site: '3 Mill Lane',
      pieceSize_mm: 101.6,
      lines: [{ lineId: 'beans', least_pct: null, most_pct: 60 }],
      closure: 'two-piece lids',
      reviewOn: '2031-02-10',
    },
  },
};

test('a letter is attached, then read back term by term; what is misread is said beside it', async ({
  page,
  context,
}) => {
  const seen = watch(page);
  await page.goto(empty.url);
  for (const [field, text] of [
    ['Name of the kitchen', 'New Kitchen'],
    ['Altitude in feet', '2,350'],
    ['Time zone', 'America/Denver'],
    ['Your name', 'Ona'],
    ['Email', 'ona@new.example'],
  ] as const)
    await page.getByRole('textbox', { name: field }).fill(text);
  await page.getByLabel('Password').fill('a long password');
  await page.getByRole('button', { name: 'Open the kitchen' }).click();
  await expect(page.getByText('Nothing waits.')).toBeVisible();
  const recipeId = randomUUID();
  const added = await page.request.post(`${empty.url}${await inKitchen(page, '/recipes')}`, {
    data: { id: recipeId, recipe: letter },
  });
  expect(added.status()).toBe(200);
  await page.goto(`${empty.url}/recipes/${recipeId}`);
  const authority = page.getByRole('region', { name: 'Authority' });
  await expect(authority).toContainText('written for New Kitchen, 3 Mill Lane');
  await expect(authority).toContainText('Yellow wax beans 60 % at most of all that goes in');
  await expect(authority).toContainText('The letter itself lies beside what was typed of it');

  const confirm = page.getByRole('dialog', { name: 'Confirm from the open page' });
  const fill = async (minutes: string) => {
    await page.getByRole('button', { name: 'Confirm from the page' }).click();
    for (const [field, text] of [
      ['Edition', 'as sent'],
      ['Page', '1'],
      ['Pints, 1,001 to 6,000 ft', minutes],
      ['Headspace', '1/2'],
      ['White vinegar, 5 %', '6'],
      ['Water', '4'],
      ['Dill heads in each pint', '1'],
      ['Garlic cloves in each pint', '1'],
      ['Highest pH', '4.4'],
      ['Yellow wax beans, at most', '60'],
      ['Pieces, at most', '4'],
    ] as const)
      await confirm.getByRole('textbox', { name: new RegExp(`^${field}`) }).fill(text);
    for (const words of [
      'Producer: New Kitchen',
      'Site: 3 Mill Lane',
      'Closure: two-piece lids',
      'To be looked at again by: Feb 10, 2031',
    ])
      await confirm.getByRole('checkbox', { name: words }).check();
  };
  await fill('15');
  await confirm.getByRole('button', { name: 'The page says so' }).click();
  await expect(confirm.getByRole('alert')).toContainText('itself is not here');
  await confirm.getByRole('button', { name: 'Not now' }).click();

  const file = authority.locator('input[type=file]');
  await file.setInputFiles({ name: 'letter.html', mimeType: 'text/html', buffer: Buffer.from('<p>') });
  await expect(authority.getByRole('alert')).toContainText('This is neither a picture nor a PDF.');
  await file.setInputFiles({ name: 'letter.png', mimeType: 'image/png', buffer: Buffer.from('<p>') });
  await expect(authority.getByRole('alert')).toContainText('This file is not the picture it says it is.');
  const photo = picture({ width: 1200, height: 900 });
  await file.setInputFiles({
    name: 'letter.png',
    mimeType: photo.mediaType,
    buffer: Buffer.from(photo.bytes),
  });
  await expect(authority.getByRole('link', { name: 'letter.png' })).toBeVisible();
  await expect(authority.getByRole('alert')).toHaveCount(0);
  const pdf = await pdfOf(2);
  // Without a connection it is kept at hand, and sent once more by a tap.
  await context.setOffline(true);
  await file.setInputFiles({ name: 'annex.pdf', mimeType: pdf.mediaType, buffer: Buffer.from(pdf.bytes) });
  const again = authority.getByRole('button', { name: 'Attach annex.pdf once more' });
  await expect(again).toBeVisible();
  await context.setOffline(false);
  await again.click();
  await expect(again).toHaveCount(0);
  await expect(authority.getByRole('link', { name: 'annex.pdf' })).toBeVisible();
  await authority.getByRole('button', { name: 'Take out annex.pdf' }).click();
  await expect(authority.getByRole('link', { name: 'annex.pdf' })).toHaveCount(0);
  const [opened] = await Promise.all([
    context.waitForEvent('page'),
    authority.getByRole('link', { name: 'letter.png' }).click(),
  ]);
  await expect(opened.locator('img')).toBeVisible();
  await opened.close();

  await fill('10');
  await confirm.getByRole('checkbox', { name: 'Site: 3 Mill Lane' }).uncheck();
  await confirm.getByRole('button', { name: 'The page says so' }).click();
  await expect(confirm.getByText('The letter says so, or it says something else.')).toBeVisible();
  await confirm.getByRole('checkbox', { name: 'Site: 3 Mill Lane' }).check();
  await confirm.getByRole('button', { name: 'The page says so' }).click();
  await expect(confirm.getByText('The page says 10 minutes, here stands 15.')).toBeVisible();
  expect(await axe(page, { popup: true })).toEqual([]);
  await confirm.getByRole('textbox', { name: 'Pints, 1,001 to 6,000 ft' }).fill('15');
  await confirm.getByRole('button', { name: 'The page says so' }).click();
  await expect(authority).toContainText('confirmed from the page');
  // What was confirmed rests on its paper.
  await authority.getByRole('button', { name: 'Take out letter.png' }).click();
  await expect(authority.getByRole('alert')).toContainText(
    'Something was confirmed with this paper beside it.',
  );
  // The first key turns; the second does not yet.
  await page.getByRole('button', { name: 'Start a batch' }).click();
  await expect(page.getByRole('dialog')).toContainText(
    'Nobody has said under whose rules this kitchen sells.',
  );
  expect(seen.faults).toEqual([]);
});

test('a name is chosen before cooking; three filled jars prove solids; what is left is eaten by a day', async ({
  page,
}) => {
  await enterDemo(page, demo);
  await page.goto(`${demo.url}/recipes`);
  await page.getByRole('link', { name: 'Red plum jam', exact: true }).click();
  await page.getByRole('link', { name: 'Change it' }).click();
  await expect(page.getByRole('heading', { name: 'May be called jam' })).toBeVisible();
  await page.getByRole('button', { name: 'topping', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Statement of identity' })).toHaveValue('Red plum topping');
  await page.getByText('Every name, with its figure').click();
  await expect(page.getByText(/^jelly no: A jelly is made of strained juice/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep the recipe' }).click();
  await expect(page.getByRole('heading', { name: 'Red plum jam' })).toBeVisible();

  await startAndDraw(page, demo, 'Red plum jam');
  await page.getByRole('tab', { name: 'Jars and loads' }).click();
  await page.getByRole('button', { name: '8 half-pints filled' }).click();
  await page.getByRole('button', { name: /part-filled/ }).click();
  await expect(page.getByRole('region', { name: 'In the cold' })).toContainText(/Jar 9, half-pint: eat by /);
  const scale = page.getByRole('region', { name: 'Weigh three filled jars' });
  const rows = [
    ['1', '180', '470'],
    ['5', '182', '150'],
    ['8', '181', '472'],
  ] as const;
  for (const [i, [jar, bare, full]] of rows.entries()) {
    await scale.getByRole('textbox', { name: 'Jar', exact: true }).nth(i).fill(jar);
    await scale.getByRole('textbox', { name: 'Empty' }).nth(i).fill(bare);
    await scale.getByRole('textbox', { name: 'Filled' }).nth(i).fill(full);
  }
  await scale.getByRole('textbox', { name: 'Left beside full jars, such as a part-filled jar' }).fill('60');
  await scale.getByRole('button', { name: 'Enter the weights' }).click();
  await expect(scale.getByText('The filled jar is no heavier than the empty one.')).toBeVisible();
  await scale.getByRole('textbox', { name: 'Filled' }).nth(1).fill('473');
  expect(await axe(page)).toEqual([]);
  await scale.getByRole('button', { name: 'Enter the weights' }).click();
  await expect(scale).toContainText(
    /By what went in and what 3 filled jars weigh \(290 g, 291 g, 291 g\) it has \d\d\.\d % of solids/,
  );
});
