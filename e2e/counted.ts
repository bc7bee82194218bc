import type { Page } from '@playwright/test';

/** Taps and fields as the page itself saw them: trusted pointers, and fields in which something was typed. */
export interface Counted {
  taps: number;
  fields: number;
}

/** Counts from now on, over every view and reload of a page. */
export async function counting(page: Page): Promise<() => Promise<Counted>> {
  await page.addInitScript(() => {
    const KEY = 'counted';
    const read = () =>
      JSON.parse(sessionStorage.getItem(KEY) ?? '{"taps":0,"fields":0}') as { taps: number; fields: number };
    const add = (what: 'taps' | 'fields') => {
      const now = read();
      now[what] += 1;
      sessionStorage.setItem(KEY, JSON.stringify(now));
    };
    let typed: EventTarget | null = null;
    addEventListener('pointerdown', e => e.isTrusted && add('taps'), { capture: true });
    addEventListener(
      'input',
      e => {
        if (e.target !== typed) add('fields');
        typed = e.target;
      },
      { capture: true },
    );
    addEventListener('focusin', e => (typed = e.target === typed ? typed : null), { capture: true });
  });
  return () =>
    page.evaluate(() => JSON.parse(sessionStorage.getItem('counted') ?? '{"taps":0,"fields":0}') as Counted);
}
