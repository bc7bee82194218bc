import type { Page } from '@playwright/test';

/** What has the cursor is called, as somebody who cannot see it hears: its label, or what stands in it. */
const here = (page: Page) =>
  page.evaluate(() => {
    const a = document.activeElement;
    if (!a || a === document.body) return '';
    const by = a.getAttribute('aria-labelledby')?.split(/\s+/) ?? [];
    const labelled = by.map(id => document.getElementById(id)?.textContent ?? '').join(' ');
    const labels = [...((a as HTMLInputElement).labels ?? [])].map(l => l.textContent ?? '').join(' ');
    return (a.getAttribute('aria-label') ?? (labelled || labels || a.textContent || '')).trim();
  });

/**
 * Tabs on until something of this name has the cursor.
 *
 * @throws Error with what was passed, where nothing is called so
 */
export async function tabTo(page: Page, name: RegExp, back = false): Promise<void> {
  const passed: string[] = [];
  for (let i = 0; i < 150; i++) {
    await page.keyboard.press(back ? 'Shift+Tab' : 'Tab');
    const now = await here(page);
    if (name.test(now)) return;
    passed.push(now.slice(0, 40));
  }
  throw new Error(`nothing called ${name} was reached: ${[...new Set(passed)].join(' | ')}`);
}

/** Tabs to a field and types in it. */
export async function typeIn(page: Page, name: RegExp, text: string): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
}

/** Tabs to a control and presses a key on it. */
export async function pressOn(page: Page, name: RegExp, key: 'Enter' | 'Space' = 'Enter'): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press(key);
}
