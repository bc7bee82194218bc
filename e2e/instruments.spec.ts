import { expect, test } from '@playwright/test';
import { scale, Stove, thermometer } from '../devices/instruments.ts';
import { serve } from '../devices/serve.ts';
import { axe } from './axe.ts';
import { House, delivered, enterDemo, inKitchen, startAndDraw, watch } from './house.ts';

/** Instruments beside the stove: what they show is one tap away, and what is typed always counts. */
const stove = new Stove(97.6);
const probe = thermometer(stove, 0.4);
const weigh = scale();
let house: House;
let close: (() => Promise<void>)[] = [];
test.beforeAll(async () => {
  stove.fire(1);
  const [a, b] = await Promise.all([
    serve(probe, {
      every_ms: 200,
      tick: seconds => {
        stove.tick(seconds);
        probe.tick(seconds);
      },
    }),
    serve(weigh, { every_ms: 200 }),
  ]);
  close = [a.close, b.close];
  house = await House.open('demo');
  await house.stop();
  house.instruments = `${a.port},${b.port}`;
  await house.start();
});
test.afterAll(async () => {
  await house.close();
  await Promise.all(close.map(end => end()));
});
test.use({ viewport: { width: 820, height: 1180 } });

test('a probe and a scale: taken, followed, held; silent ones are said, and by hand always works', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Crushed tomatoes');
  await page.getByRole('tab', { name: 'Steps' }).click();
  const one = page.getByRole('group', { name: 'Probe in the pot' });
  await expect(one.getByText(/checked on Nov 1, 2026, 0\.7 °F off/)).toBeVisible();
  await one.getByRole('button', { name: 'Take the reading' }).click();
  const field = page.getByRole('textbox', { name: 'Read, °F' });
  await expect(field).not.toHaveValue('');
  // It follows what the probe shows, until it is held.
  const first = await field.inputValue();
  await expect.poll(() => field.inputValue()).not.toBe(first);
  await one.getByRole('button', { name: 'Hold it' }).click();
  expect.soft(await axe(page), 'an instrument').toEqual([]);
  await page.getByRole('button', { name: 'Log the temperature' }).click();
  await expect(field).toHaveValue('');

  const bowl = page.getByRole('group', { name: 'Kitchen scale' });
  weigh.scene('load', 1250);
  await expect(bowl.getByText(/1,250 g/)).toBeVisible();
  await expect(bowl.getByText('steady')).toBeVisible();
  await bowl.getByRole('button', { name: 'Take the reading' }).click();
  await expect(page.getByRole('textbox', { name: 'Grams' })).toHaveValue('1250');
  await bowl.getByRole('button', { name: 'Hold it' }).click();
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByText(/weighed so far/)).toContainText('1,250 g');

  // The same figure typed afterwards is no reading of the scale.
  await page.getByRole('textbox', { name: 'Grams' }).fill('1250');
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByText(/weighed so far/)).toContainText('2,500 g');
  // One that falls silent is said; what is typed counts all the same.
  await close[1]?.();
  await expect(bowl.getByText(/It has said nothing for a while/)).toBeVisible();
  await expect(bowl.getByRole('button', { name: 'Take the reading' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Grams' }).fill('500');
  await page.getByRole('button', { name: 'Add the weight' }).click();
  await expect(page.getByText(/weighed so far/)).toContainText('3,000 g');
  await delivered(page);
  const { events } = (await (
    await page.request.get(house.url + (await inKitchen(page, `/batches/${url.split('/').at(-1)}`)))
  ).json()) as { events: { type: string; body: { instrumentId?: string | null } }[] };
  expect(events.filter(e => e.type === 'temperature.read').map(e => e.body.instrumentId)).toEqual([
    'probe-1',
  ]);
  expect(events.filter(e => e.type === 'line.weighed').map(e => e.body.instrumentId)).toEqual([
    'scale-1',
    null,
    null,
  ]);
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByText(/Read .* °F in the pot/).first()).toBeVisible();
  expect(seen.faults).toEqual([]);
});

test('a cook that is followed: drawn while it goes, kept when the step is done, with every reading as a file', async ({
  page,
}) => {
  const seen = watch(page);
  await enterDemo(page, house);
  const url = await startAndDraw(page, house, 'Red plum jam', 'As a gift');
  await page.getByRole('tab', { name: 'Steps' }).click();
  const done = page.getByRole('button', { name: 'Done', exact: true }).first();
  for (let i = 0; i < 3; i++) await done.click();
  const pot = page.getByRole('group', { name: 'The pot now' });
  await pot.getByRole('button', { name: 'Follow Probe in the pot' }).click();
  await expect(pot.getByText('Probe in the pot is followed until the step is done')).toBeVisible();
  // It is followed by the kitchen, whatever becomes of this page.
  await page.reload();
  await page.getByRole('tab', { name: 'Steps' }).click();
  await expect(pot.getByText('Probe in the pot is followed until the step is done')).toBeVisible();
  await expect(pot.locator('.apexcharts-series path').first()).toBeAttached({ timeout: 30_000 });
  expect.soft(await axe(page), 'a curve').toEqual([]);
  await done.click();
  const ended = page.getByRole('dialog', { name: 'How did it end?' });
  await ended.getByText('look', { exact: true }).click();
  await ended.getByRole('button', { name: 'It is done' }).click();
  await delivered(page);
  await page.goto(url.replace('/cook/', '/records/'));
  await expect(page.getByText(/Kept the curve of probe-1: \d+ readings/)).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Every reading, as CSV' }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/\.csv$/);
  expect.soft(await axe(page), 'a kept curve').toEqual([]);
  expect(seen.faults).toEqual([]);
});
