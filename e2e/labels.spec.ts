import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, type Page, expect, test } from '@playwright/test';
import sharp from 'sharp';
import { axe } from './axe.ts';
import { House, enterDemo, inKitchen, watch } from './house.ts';
import { chooseStock, labelShown, readLabel } from './label-steps.ts';

/** The label of a released batch: chosen, read, printed; and screen held against paper. */
let house: House;
const dir = mkdtempSync(join(tmpdir(), 'cocotte-labels-'));
test.beforeAll(async () => {
  house = await House.open('demo');
});
test.afterAll(async () => {
  rmSync(dir, { recursive: true });
  await house.close();
});

async function openLabels(page: Page): Promise<void> {
  const answer = await page.request.get(house.url + (await inKitchen(page, '/batches')));
  const { batches } = (await answer.json()) as { batches: { id: string; summary: { stage: string } }[] };
  await page.goto(`${house.url}/label/${batches.find(b => b.summary.stage === 'released')?.id}`);
  await expect(labelShown(page, /Red plum jam/)).toBeVisible();
}

/** Dots per inch at which both are drawn: four to a pixel of CSS. */
const DPI = 384;
const MM = DPI / 25.4;

/** Greys of a region, row by row. */
interface Grey {
  wide: number;
  tall: number;
  pixels: Uint8Array;
}
async function grey(
  file: string | Buffer,
  region: { left: number; top: number; width: number; height: number },
): Promise<Grey> {
  const picture = sharp(file).flatten({ background: '#fff' });
  const { data, info } = await picture
    .extract(region)
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { wide: info.width, tall: info.height, pixels: new Uint8Array(data) };
}

/** Ink of one picture that has none of the other's within a tenth of a millimetre. */
function strays(one: Grey, other: Grey): number {
  let found = 0;
  for (let y = 2; y < Math.min(one.tall, other.tall) - 2; y++)
    for (let x = 2; x < Math.min(one.wide, other.wide) - 2; x++) {
      if ((one.pixels[y * one.wide + x] as number) > 60) continue;
      let near = false;
      // One dot in each direction: 0.066 mm, 0.094 mm aslant.
      for (let dy = -1; dy <= 1 && !near; dy++)
        for (let dx = -1; dx <= 1 && !near; dx++)
          near = (other.pixels[(y + dy) * other.wide + x + dx] as number) < 225;
      if (!near) found++;
    }
  return found;
}

/** The label as the screen draws it, alone on a page. */
async function screen(page: Page, browser: Browser, piece: number): Promise<Buffer> {
  const svg = await page
    .getByRole('img', { name: /./ })
    .and(page.locator('svg'))
    .nth(piece)
    .evaluate(e => e.outerHTML);
  const alone = await browser.newContext({
    deviceScaleFactor: DPI / 96,
    viewport: { width: 900, height: 500 },
  });
  const sheet = await alone.newPage();
  await sheet.setContent(`<body style="margin:0;background:#fff">${svg}</body>`);
  const picture = await sheet.screenshot();
  await alone.close();
  return picture;
}

/** Upper left corner of the labels of a sheet, mm, and its size. */
const PLACES = {
  'Letter sheet, six of 4 by 3 1/3 inches': {
    left: 3.96875,
    top: 12.7,
    next: 106.3625,
    wide: 101.6,
    tall: 84.667,
  },
  'Letter sheet, ten of 4 by 2 inches': { left: 3.96875, top: 12.7, next: 106.3625, wide: 101.6, tall: 50.8 },
  'Letter sheet, five strips of 8 by 2 inches': { left: 6.35, top: 7.62, next: 0, wide: 203.2, tall: 50.8 },
  'Letter sheet, twelve rounds of 2 1/2 inches': {
    left: 9.525,
    top: 7.9375,
    next: 66.675,
    wide: 63.5,
    tall: 63.5,
  },
} as const;

test('screen and paper of each design differ by less than a tenth of a millimetre', async ({
  page,
  browser,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  await openLabels(page);
  // With a code of each kind on them, which a round label has no corner for.
  await page.getByRole('textbox', { name: 'Item number of half-pints' }).fill('4006381333931');
  await page.getByRole('checkbox', { name: 'The item number in bars, for a till' }).check();
  await page.getByRole('combobox', { name: 'To scan the lot' }).click();
  await page.getByRole('option', { name: /GS1 Data Matrix/ }).click();
  for (const [design, stock] of [
    ['wrap-around', 'Letter sheet, five strips of 8 by 2 inches'],
    ['front and back', 'Letter sheet, ten of 4 by 2 inches'],
    ['jar top', 'Letter sheet, twelve rounds of 2 1/2 inches'],
    ['small jar', 'Letter sheet, six of 4 by 3 1/3 inches'],
    ['one panel', 'Letter sheet, ten of 4 by 2 inches'],
  ] as const) {
    await page.getByRole('combobox', { name: 'Design' }).click();
    await page.getByRole('option', { name: design }).click();
    await chooseStock(page, stock);
    await expect(labelShown(page, /Red plum jam/).first()).toBeVisible();
    const made = await page.getByRole('link', { name: 'Open the sheet to print' }).count();
    await page.getByRole('button', { name: 'Make 15 labels again' }).click();
    await expect(page.getByRole('link', { name: 'Open the sheet to print' })).toHaveCount(made + 1);
    const address = await page
      .getByRole('link', { name: 'Open the sheet to print' })
      .first()
      .getAttribute('href');
    const file = join(dir, `${design}.pdf`);
    writeFileSync(file, await (await page.request.get(house.url + address)).body());
    execFileSync('pdftoppm', ['-r', String(DPI), '-f', '1', '-l', '1', '-png', file, file]);
    const at = PLACES[stock];
    for (let piece = 0; piece < (design === 'front and back' ? 2 : 1); piece++) {
      const region = {
        left: Math.round((at.left + piece * at.next) * MM),
        top: Math.round(at.top * MM),
        width: Math.floor(at.wide * MM),
        height: Math.floor(at.tall * MM),
      };
      const paper = await grey(`${file}-1.png`, region);
      const shown = await grey(await screen(page, browser, piece), {
        ...region,
        left: 0,
        top: 0,
      });
      const ink = paper.pixels.filter(v => v < 90).length;
      expect(ink).toBeGreaterThan(3000);
      expect([design, strays(paper, shown), strays(shown, paper)]).toEqual([design, 0, 0]);
    }
  }
  expect(seen.faults).toEqual([]);
});

test('a label is made one’s own: words, claims, measures, colours, spares, and what was printed is out of date', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  await openLabels(page);
  // Pointing at a requirement shows where it is met.
  await page.getByRole('button', { name: 'Net contents high enough' }).hover();
  await expect(page.getByTestId('pointed')).toBeVisible();
  const words = page.getByRole('textbox', { name: 'Your own words' });
  await words.fill('Cures a cold');
  await expect(page.getByText(/Your own words make a claim that may not be made/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Make 15 labels/ })).toBeDisabled();
  await words.fill('Plum 李 jam');
  await expect(page.getByText(/"李" \(U\+674E\)/)).toBeVisible();
  await words.fill('Try it with cheese.');
  await expect(labelShown(page, /Try it with cheese/)).toBeVisible();
  // Blank labels of one's own: what is impossible is said beside its field, and nothing is lost.
  await page.getByRole('button', { name: 'Blank labels of my own, and the printer' }).click();
  const dialog = page.getByRole('dialog', { name: 'Blank labels and the printer' });
  await dialog.getByRole('textbox', { name: 'Name of these labels' }).fill('Shop roll');
  await dialog.getByRole('textbox', { name: /^Labels across/ }).fill('5');
  await dialog.getByRole('button', { name: 'Keep the measures' }).click();
  await expect(dialog.getByText(/The last column lies beyond the page/)).toBeVisible();
  await expect(dialog.getByRole('textbox', { name: 'Name of these labels' })).toHaveValue('Shop roll');
  await dialog.getByRole('textbox', { name: /^Labels across/ }).fill('2');
  await dialog.getByRole('textbox', { name: /^Too far right by/ }).fill('0.6');
  expect(await axe(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Keep the measures' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByRole('combobox', { name: 'Blank labels' })).toContainText('Shop roll');
  await page.getByText('Colours and picture').click();
  // What is no picture, or far too large a one, is told by what is wrong with it; nothing that was typed is lost.
  const picture = page.getByLabel('Choose a picture').and(page.locator('input'));
  await picture.setInputFiles({
    name: 'leaf.png',
    mimeType: 'image/png',
    buffer: Buffer.from('no picture at all'),
  });
  await expect(page.getByText(/This file is not the picture it says it is/)).toBeVisible();
  await picture.setInputFiles({
    name: 'huge.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.alloc(40_000_000, 7),
  });
  await expect(page.getByText(/40 MB/)).toBeVisible();
  await picture.setInputFiles({ name: 'a.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-') });
  await expect(page.getByText(/This is no picture\./)).toBeVisible();
  await expect(words).toHaveValue('Try it with cheese.');
  await page.getByLabel('Colour of the name').fill('#f5c9a0');
  await expect(page.getByText(/to 1 are asked for|Choose a darker ink/).first()).toBeVisible();
  await page.getByLabel('Colour of the name').fill('#224433');
  await page.getByRole('spinbutton', { name: 'Spare labels' }).fill('2');
  await page.getByRole('spinbutton', { name: 'Labels already gone from the first sheet' }).fill('3');
  // Other words are read anew before they are printed.
  await page.getByRole('button', { name: 'Make 15 labels again' }).click();
  await expect(page.getByText(/Nobody has read its identity/)).toBeVisible();
  await readLabel(page);
  await page.getByRole('button', { name: 'Make 15 labels again' }).click();
  await expect(page.getByText(/Shop roll, 2 spares/)).toBeVisible();
  await expect(page.getByText('Out of date').first()).toBeVisible();
  await expect(
    page.getByText(/your own words: was "–", is now "Try it with cheese\."/).first(),
  ).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('button', { name: 'PNG' }).click();
  const png = await sharp(await (await file).path()).metadata();
  // 4 by 2 inches at 600 dots per inch.
  expect([png.format, png.width, png.height]).toEqual(['png', 2400, 1200]);
  expect(seen.faults).toEqual([]);
});

test('the place is changed by the authority’s words; the lots it touches are told, their labels counted', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  await page.goto(`${house.url}/kitchen`);
  await page.getByRole('button', { name: 'Change the place or its ticks' }).click();
  const dialog = page.getByRole('dialog', { name: 'What the place allows' });
  await dialog.getByText('Change what it says, by the words of the authority').click();
  await dialog.getByRole('textbox', { name: 'Highest pH of acidified food' }).fill('5');
  await dialog.getByRole('textbox', { name: 'Sentence on each label' }).fill('Made at home, not inspected.');
  await dialog.getByRole('button', { name: 'Keep the place and its ticks' }).click();
  // What is refused is said beside its field, and nothing that was typed is lost.
  await expect(dialog.getByText(/must be at most 4.6/)).toBeVisible();
  await expect(dialog.getByRole('textbox', { name: 'Sentence on each label' })).toHaveValue(
    'Made at home, not inspected.',
  );
  await dialog.getByRole('textbox', { name: 'Highest pH of acidified food' }).fill('4.6');
  await dialog.getByRole('button', { name: 'Keep the place and its ticks' }).click();
  await expect(
    dialog.getByText(/the sentence on the label the place now says something else than was ticked/),
  ).toBeVisible();
  expect(await axe(page)).toEqual([]);
  const asked = dialog.getByLabel('Asked on');
  // The day of the kitchen, where it is another one than here.
  const today = new Intl.DateTimeFormat('sv-SE', { timeZone: 'America/Denver' }).format(Date.now());
  for (let i = 0; i < (await asked.count()); i++) await asked.nth(i).fill(today);
  await dialog.getByRole('button', { name: 'Keep the place and its ticks' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByText('version 3, changed by this kitchen')).toBeVisible();
  await page.getByText('Lots whose printed labels are out of date').click();
  await expect(page.getByRole('link', { name: /Red plum jam RPJ-/ }).first()).toBeVisible();
  await expect(page.getByText('the statement').first()).toBeVisible();
  await page
    .getByRole('link', { name: /Red plum jam RPJ-/ })
    .first()
    .click();
  await expect(
    page.getByText(/the statement: was ".*", is now "Made at home, not inspected\."/).first(),
  ).toBeVisible();
  // What became of them: no more than were printed.
  await page.getByRole('button', { name: 'Count them' }).first().click();
  const count = page.getByRole('dialog', { name: 'What became of these labels' });
  await count.getByRole('textbox', { name: 'Used' }).fill('400');
  await count.getByRole('button', { name: 'Keep the count' }).click();
  await expect(count.getByText(/400 are counted, and \d+ were printed/)).toBeVisible();
  await count.getByRole('textbox', { name: 'Used' }).fill('6');
  await count.getByRole('textbox', { name: 'Spoiled' }).fill('1');
  await count.getByRole('button', { name: 'Keep the count' }).click();
  await expect(page.getByText(/6 used, 1 spoiled, 0 destroyed/)).toBeVisible();
  await page.getByRole('link', { name: 'Record', exact: true }).click();
  await expect(page.getByText('Counted labels: 6 used, 1 spoiled, 0 destroyed.')).toBeVisible();
  expect(seen.faults).toEqual([]);
});
