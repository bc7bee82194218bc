import type { Page } from '@playwright/test';

/**
 * What is wrong with how the page is laid out: controls that lie over one another, and names of fields that are cut
 * short. What is scrolled out of a list is no fault, nor what a dialog covers.
 */
export function layoutFaults(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const faults: string[] = [];
    const nameOf = (e: Element) =>
      (
        e.querySelector('[aria-label]')?.getAttribute('aria-label') ??
        e.parentElement?.textContent ??
        ''
      ).slice(0, 60);
    const controls = [
      ...document.querySelectorAll('main .MuiInputBase-root, main button, main .MuiButton-root'),
    ]
      .filter(
        e =>
          !e.parentElement?.closest('.MuiInputBase-root') && e.checkVisibility({ visibilityProperty: true }),
      )
      .map(e => ({ e, box: e.getBoundingClientRect() }))
      .filter(c => c.box.width > 0 && c.box.height > 0);
    controls.forEach((a, i) => {
      for (const b of controls.slice(i + 1)) {
        const across = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
        const down = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
        if (across > 2 && down > 2 && !a.e.contains(b.e) && !b.e.contains(a.e))
          faults.push(`"${nameOf(a.e)}" lies over "${nameOf(b.e)}"`);
      }
    });
    for (const label of document.querySelectorAll('main .MuiInputLabel-shrink'))
      if (label.scrollWidth > label.clientWidth + 1)
        faults.push(`the name "${label.textContent}" is cut short`);
    return faults;
  });
}
