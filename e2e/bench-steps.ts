import { type Page, expect } from '@playwright/test';

/** Calibrates the meter in 4.01 and 7.00, as today's: with a sound slope unless other millivolts are given. */
export async function calibrate(page: Page, acid_mV = '173', neutral_mV = '-1'): Promise<void> {
  await page.getByRole('button', { name: /^Calibrate (it again|the meter)$/ }).click();
  const dialog = page.getByRole('dialog');
  const name = dialog.getByRole('textbox', { name: 'What it is called' });
  if (await name.count()) await name.fill('Bench meter');
  await dialog.getByRole('textbox', { name: 'In the 1st, mV' }).fill(acid_mV);
  await dialog.getByRole('textbox', { name: 'In the 2nd, mV' }).fill(neutral_mV);
  await dialog.getByRole('button', { name: 'Keep the calibration' }).click();
  await expect(dialog).toHaveCount(0);
}

/** Chooses what is read, and types it; the reading is not entered yet. */
export async function typeReading(
  page: Page,
  { jar, ph, sample, tightest = false }: { jar: number; ph: string; sample?: string; tightest?: boolean },
): Promise<void> {
  await page.getByRole('combobox', { name: 'Jar', exact: true }).click();
  await page.getByRole('option', { name: new RegExp(`^jar ${jar}( of load|, in)`) }).click();
  if (sample) await page.getByRole('radio', { name: sample }).check();
  const tight = page.getByRole('checkbox', { name: 'It is the tightest jar there is' });
  if (await tight.count()) await tight.setChecked(tightest);
  await page.getByRole('textbox', { name: 'pH', exact: true }).fill(ph);
}

/** Reads a finished jar on the meter. */
export async function readJar(page: Page, of: Parameters<typeof typeReading>[1]): Promise<void> {
  await typeReading(page, of);
  await page.getByRole('button', { name: 'Enter the reading' }).click();
  await expect(page.getByRole('textbox', { name: 'pH', exact: true })).toHaveValue('');
}

/** Reads the buffer again at the end. */
export async function readBuffer(page: Page, reads = '4.01'): Promise<void> {
  await page.getByRole('textbox', { name: 'The buffer reads' }).fill(reads);
  await page.getByRole('button', { name: 'Enter the buffer' }).click();
  await expect(page.getByRole('textbox', { name: 'The buffer reads' })).toHaveCount(0);
}
