import { PAPER_MM, type PaperSize } from '../measure/index.ts';

/** A sheet of blank labels, measured from its top left corner, in millimetres. */
export interface LabelStock {
  id: string;
  name: string;
  page_mm: { width: number; height: number };
  label_mm: { width: number; height: number };
  columns: number;
  rows: number;
  /** Top left corner of the first label. */
  margin_mm: { left: number; top: number };
  /** From one label's corner to the next. */
  pitch_mm: { x: number; y: number };
}

const INCH = 25.4;

/** Label sheets by their measures alone. */
export const LABEL_STOCKS: readonly LabelStock[] = [
  {
    id: 'letter-10',
    name: 'Letter sheet, ten labels of 4 by 2 inches',
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
    page_mm: { width: 210, height: 297 },
    label_mm: { width: 96, height: 46 },
    columns: 2,
    rows: 6,
    margin_mm: { left: 8, top: 10.5 },
    pitch_mm: { x: 98, y: 46 },
  },
];

/** The stock that is proposed first: one on the kitchen's paper. */
export function stockFor(paper: PaperSize): LabelStock {
  const { width } = PAPER_MM[paper];
  const found = LABEL_STOCKS.find(s => Math.abs(s.page_mm.width - width) < 1);
  return (found ?? LABEL_STOCKS[0]) as LabelStock;
}

/** The stock of that id, or undefined. */
export function labelStock(id: string): LabelStock | undefined {
  return LABEL_STOCKS.find(s => s.id === id);
}
