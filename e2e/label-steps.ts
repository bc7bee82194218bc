import { type Page, expect } from '@playwright/test';

/** What is read side by side before the first label of a lot. */
export async function readLabel(page: Page): Promise<void> {
  for (const name of ['identity', 'allergens', 'net contents', 'dates'])
    await page.getByRole('checkbox', { name, exact: true }).check();
}

/** Chooses blank labels of another size. */
export async function chooseStock(page: Page, stock: string): Promise<void> {
  await page.getByRole('combobox', { name: 'Blank labels' }).click();
  await page.getByRole('option', { name: stock }).click();
}

/** The label that is shown, by the words on it. */
export const labelShown = (page: Page, words: RegExp) => page.getByRole('img', { name: words });

/** Reads the first label and makes as many. */
export async function makeLabels(page: Page, count: number): Promise<void> {
  await readLabel(page);
  await page.getByRole('button', { name: `Make ${count} labels`, exact: true }).click();
  await expect(page.getByRole('link', { name: 'Open the sheet to print' }).first()).toBeVisible();
}
