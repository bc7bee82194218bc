import type { LabelStock } from './label.ts';

const INCH = 25.4;

/** The stocks that labels named by their id alone, before a print kept its stock: as they were then. */
const OLD_STOCKS: readonly LabelStock[] = [
  {
    id: 'letter-10',
    name: 'Letter sheet, ten labels of 4 by 2 inches',
    form: 'sheet',
    shape: 'rectangle',
    page_mm: { width: 8.5 * INCH, height: 11 * INCH },
    label_mm: { width: 4 * INCH, height: 2 * INCH },
    columns: 2,
    rows: 5,
    margin_mm: { left: 0.15625 * INCH, top: 0.5 * INCH },
    pitch_mm: { x: 4.1875 * INCH, y: 2 * INCH },
  },
  {
    id: 'a4-12',
    name: 'A4 sheet, twelve labels of 96 by 46 mm',
    form: 'sheet',
    shape: 'rectangle',
    page_mm: { width: 210, height: 297 },
    label_mm: { width: 96, height: 46 },
    columns: 2,
    rows: 6,
    margin_mm: { left: 8, top: 10.5 },
    pitch_mm: { x: 98, y: 46 },
  },
];

/** The stock that an old print named; the first one where it named none that there was. */
export const oldStock = (id: unknown): LabelStock =>
  (OLD_STOCKS.find(s => s.id === id) ?? OLD_STOCKS[0]) as LabelStock;
