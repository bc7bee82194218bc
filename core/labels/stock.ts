import type { LabelStock } from '../batches/index.ts';
import { type Fault, PAPER_MM, type PaperSize } from '../measure/index.ts';

const INCH = 25.4;

/** A sheet of labels in rows and columns, centred on its page. */
function sheet(
  id: string,
  name: string,
  page_mm: { width: number; height: number },
  label_mm: { width: number; height: number },
  [columns, rows]: [number, number],
  gap_mm: { x: number; y: number },
  shape: LabelStock['shape'] = 'rectangle',
): LabelStock {
  const pitch_mm = { x: label_mm.width + gap_mm.x, y: label_mm.height + gap_mm.y };
  return {
    id,
    name,
    form: 'sheet',
    shape,
    page_mm,
    label_mm,
    columns,
    rows,
    margin_mm: {
      left: (page_mm.width - columns * pitch_mm.x + gap_mm.x) / 2,
      top: (page_mm.height - rows * pitch_mm.y + gap_mm.y) / 2,
    },
    pitch_mm,
  };
}
/** A roll, each label a page of its own. */
const roll = (
  id: string,
  name: string,
  label_mm: { width: number; height: number },
  shape: LabelStock['shape'] = 'rectangle',
): LabelStock => ({
  id,
  name,
  form: 'roll',
  shape,
  page_mm: label_mm,
  label_mm,
  columns: 1,
  rows: 1,
  margin_mm: { left: 0, top: 0 },
  pitch_mm: { x: label_mm.width, y: label_mm.height },
});

const LETTER = { width: 8.5 * INCH, height: 11 * INCH };
const A4 = { width: 210, height: 297 };
const inches = (width: number, height: number) => ({ width: width * INCH, height: height * INCH });

/** Blank labels by their measures alone. A kitchen adds its own. */
export const LABEL_STOCKS: readonly LabelStock[] = [
  sheet('letter-10', 'Letter sheet, ten of 4 by 2 inches', LETTER, inches(4, 2), [2, 5], {
    x: 0.1875 * INCH,
    y: 0,
  }),
  sheet('letter-6', 'Letter sheet, six of 4 by 3 1/3 inches', LETTER, inches(4, 10 / 3), [2, 3], {
    x: 0.1875 * INCH,
    y: 0,
  }),
  sheet('letter-5-strips', 'Letter sheet, five strips of 8 by 2 inches', LETTER, inches(8, 2), [1, 5], {
    x: 0,
    y: 0.1 * INCH,
  }),
  sheet(
    'letter-12-rounds',
    'Letter sheet, twelve rounds of 2 1/2 inches',
    LETTER,
    inches(2.5, 2.5),
    [3, 4],
    { x: 0.125 * INCH, y: 0.125 * INCH },
    'round',
  ),
  sheet('a4-12', 'A4 sheet, twelve of 96 by 46 mm', A4, { width: 96, height: 46 }, [2, 6], { x: 2, y: 0 }),
  sheet('a4-8', 'A4 sheet, eight of 97 by 67 mm', A4, { width: 97, height: 67 }, [2, 4], { x: 2, y: 0 }),
  sheet('a4-5-strips', 'A4 sheet, five strips of 200 by 54 mm', A4, { width: 200, height: 54 }, [1, 5], {
    x: 0,
    y: 2,
  }),
  sheet(
    'a4-12-rounds',
    'A4 sheet, twelve rounds of 63 mm',
    A4,
    { width: 63, height: 63 },
    [3, 4],
    { x: 3, y: 4 },
    'round',
  ),
  roll('roll-4x2', 'Roll, 4 by 2 inches', inches(4, 2)),
  roll('roll-100x75', 'Roll, 100 by 75 mm', { width: 100, height: 75 }),
];

/** The stock that is proposed first: one on the kitchen's paper. */
export function stockFor(paper: PaperSize): LabelStock {
  const { width } = PAPER_MM[paper];
  const found = LABEL_STOCKS.find(s => Math.abs(s.page_mm.width - width) < 1);
  return (found ?? LABEL_STOCKS[0]) as LabelStock;
}

/** What is wrong with the measures of a stock: labels that overlap or lie beyond their page. */
export function stockFaults(stock: LabelStock): Fault[] {
  const { page_mm, label_mm, columns, rows, margin_mm, pitch_mm, shape, form } = stock;
  const fault = (path: string, what: string, next: string): Fault => ({
    path,
    code: 'impossible-stock',
    what,
    why: 'Labels would be printed over each other or past the page.',
    next,
  });
  const faults: Fault[] = [];
  const near = 0.01;
  if (shape === 'round' && Math.abs(label_mm.width - label_mm.height) > near)
    faults.push(
      fault('label_mm.height', 'A round label is as high as it is wide.', 'Enter its width twice.'),
    );
  if (form === 'roll') return faults;
  if (columns > 1 && pitch_mm.x < label_mm.width - near)
    faults.push(
      fault('pitch_mm.x', 'Labels overlap from left to right.', 'Measure from one left edge to the next.'),
    );
  if (rows > 1 && pitch_mm.y < label_mm.height - near)
    faults.push(
      fault('pitch_mm.y', 'Labels overlap from top to bottom.', 'Measure from one upper edge to the next.'),
    );
  if (margin_mm.left + (columns - 1) * pitch_mm.x + label_mm.width > page_mm.width + near)
    faults.push(
      fault(
        'columns',
        'The last column lies beyond the page.',
        'Measure the left margin and the labels again.',
      ),
    );
  if (margin_mm.top + (rows - 1) * pitch_mm.y + label_mm.height > page_mm.height + near)
    faults.push(
      fault('rows', 'The last row lies beyond the page.', 'Measure the upper margin and the labels again.'),
    );
  return faults;
}

/**
 * Where each label of a print lies: its page, and its upper left corner there.
 *
 * @param count  labels wanted
 * @param start  labels of the first sheet that are gone already
 */
export function placesOn(
  stock: LabelStock,
  count: number,
  start: number,
): { page: number; x_mm: number; y_mm: number }[] {
  const each = stock.columns * stock.rows;
  return Array.from({ length: count }, (_, i) => {
    const at = i + start;
    return {
      page: Math.floor(at / each),
      x_mm: stock.margin_mm.left + (at % stock.columns) * stock.pitch_mm.x,
      y_mm: stock.margin_mm.top + Math.floor((at % each) / stock.columns) * stock.pitch_mm.y,
    };
  });
}
