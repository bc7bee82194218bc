import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from '@playwright/test';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/**
 * What axe finds, in words, once colours have stopped moving: half-way between two of them none has its contrast. The
 * text inside a disabled control is not held to contrast by WCAG.
 *
 * @param popup  a menu or a list is open: it belongs to no landmark, since it lies over all of them
 */
export async function axe(page: Page, { popup = false } = {}): Promise<string[]> {
  // A page that was just opened anew has its heading once its view has come.
  await page.locator('h1').first().waitFor({ state: 'attached' });
  await page.evaluate(async () => {
    const ends = document.getAnimations().filter(a => a.effect?.getComputedTiming().endTime !== Infinity);
    await Promise.allSettled(ends.map(a => a.finished));
  });
  await page.evaluate(source);
  return page.evaluate(
    async rules => {
      const { violations } = await (
        window as unknown as {
          axe: {
            run: (
              o: object,
            ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>;
          };
        }
      ).axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'best-practice'], rules });
      return violations.flatMap(v =>
        v.nodes.map(n => `${v.id}: ${n.html.slice(0, 140)} ${n.failureSummary.slice(0, 160)}`),
      );
    },
    { region: { enabled: !popup } },
  );
}
