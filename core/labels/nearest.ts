import type { Container, LabelStock } from '../batches/index.ts';
import type { Fault } from '../measure/index.ts';
import type { Fonts } from '../typeset/index.ts';
import { type LabelAsk, layOut } from './layout/layout.ts';
import { LABEL_STOCKS } from './stock.ts';

const area = (s: LabelStock) => s.label_mm.width * s.label_mm.height;
// A printer that holds letter paper seldom holds the other one too.
const paperOf = (s: LabelStock) => (s.form === 'roll' ? 'roll' : Math.round(s.page_mm.width));

/** Whether a blank label lies flat on a jar: no taller than its body, no wider than its girth, or within its lid. */
export const fitsJar = (
  { shape, label_mm }: LabelStock,
  { across_mm, tall_mm, lid_mm }: Container,
): boolean =>
  shape === 'round'
    ? label_mm.width <= lid_mm
    : label_mm.height <= tall_mm && label_mm.width <= Math.PI * across_mm;

/**
 * Faults of a label that cannot be laid out, with the nearest stock on which it can and that lies flat on the jar: of the
 * same paper first, then of the nearest size.
 *
 * @param stock  what it was tried on
 * @param others  stocks of the kitchen, beside those that ship
 */
export function withNearest(
  faults: readonly Fault[],
  ask: LabelAsk,
  stock: LabelStock,
  others: readonly LabelStock[],
  fonts: Fonts,
): Fault[] {
  if (!faults.some(f => f.code === 'does-not-fit')) return [...faults];
  const fits = [...others, ...LABEL_STOCKS]
    .filter(s => s.id !== stock.id && s.shape === stock.shape && fitsJar(s, ask.container))
    .map(s => ({ s, other: paperOf(s) === paperOf(stock) ? 0 : 1, off: Math.abs(area(s) - area(stock)) }))
    .sort((a, b) => a.other - b.other || a.off - b.off)
    .find(({ s }) => layOut({ ...ask, size_mm: s.label_mm, form: s.form }, fonts).ok);
  return faults.map(f =>
    f.code === 'does-not-fit' && fits ? { ...f, next: `It fits on "${fits.s.name}". ${f.next}` } : f,
  );
}
