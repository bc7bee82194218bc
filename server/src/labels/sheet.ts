import type { LabelContent } from '@cocotte/core/batches';
import { FIGURE_OVER_SIZE, type LabelStock, netFigures_mm } from '@cocotte/core/labels';
import type { JarSizeId } from '@cocotte/core/jars';
import { type Habits, dayText } from '@cocotte/core/measure';
import bwip from 'bwip-js/node';
import type { PDFFont, PDFPage } from 'pdf-lib';
import { INK, PT_PER_MM, newPaper, wrap } from '../house/paper.ts';

/** Least height of a lower-case letter on a label: 1/16 inch. Source: 21 CFR 101.2 (from memory). */
const SMALLEST_PT = 6.6;

/** What a sheet of like labels is drawn from. */
export interface LabelSheet {
  label: LabelContent;
  stock: LabelStock;
  /** Of the jars they go on: the net contents stand as high as its panel asks. */
  size: JarSizeId;
  /** Labels wanted; as many pages as they take. */
  count: number;
  habits: Pick<Habits, 'locale'>;
}

/**
 * Whether the text fits the label at the smallest size allowed.
 *
 * @returns false where it does not
 */
export async function fitsLabel(sheet: Omit<LabelSheet, 'count'>): Promise<boolean> {
  try {
    await drawLabels({ ...sheet, count: 1 });
    return true;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/**
 * Draws a sheet of like labels at true size.
 *
 * @returns the PDF
 * @throws RangeError when the text does not fit the label at the smallest size allowed
 */
export async function drawLabels({ label, stock, size, count, habits }: LabelSheet): Promise<Uint8Array> {
  const { pdf, faces } = await newPaper(`Labels ${label.lotCode}`);
  const width = stock.label_mm.width * PT_PER_MM;
  const height = stock.label_mm.height * PT_PER_MM;
  // One label is drawn once and placed many times: a like label costs a few bytes.
  const { pdf: single, faces: singleFaces } = await newPaper(label.lotCode);
  drawOne(single.addPage([width, height]), label, singleFaces, habits, netFigures_mm(size));
  const [stamp] = await pdf.embedPdf(await single.save());
  if (!stamp) throw new RangeError('drawLabels: nothing was drawn');
  void faces;
  const perPage = stock.columns * stock.rows;
  let page: PDFPage | null = null;
  for (let i = 0; i < count; i++) {
    if (i % perPage === 0)
      page = pdf.addPage([stock.page_mm.width * PT_PER_MM, stock.page_mm.height * PT_PER_MM]);
    const column = (i % perPage) % stock.columns;
    const row = Math.floor((i % perPage) / stock.columns);
    (page as PDFPage).drawPage(stamp, {
      x: (stock.margin_mm.left + column * stock.pitch_mm.x) * PT_PER_MM,
      y:
        (stock.page_mm.height - stock.margin_mm.top - row * stock.pitch_mm.y - stock.label_mm.height) *
        PT_PER_MM,
    });
  }
  return pdf.save();
}

interface Placed {
  text: string;
  face: PDFFont;
  size: number;
}

function drawOne(
  page: PDFPage,
  label: LabelContent,
  faces: { plain: PDFFont; bold: PDFFont; heading: PDFFont },
  habits: Pick<Habits, 'locale'>,
  figures_mm: number,
): void {
  const { width, height } = page.getSize();
  const pad = 8;
  const column = width - 2 * pad;
  const titleSize = label.statementOfIdentity.length > 26 ? 14 : 17;
  let y = height - pad;
  const line = (p: Placed, x = pad) => {
    y -= p.size * 1.18;
    page.drawText(p.text, { x, y: y + p.size * 0.2, size: p.size, font: p.face, color: INK });
  };
  for (const text of wrap(label.statementOfIdentity, faces.heading, titleSize, column))
    line({ text, face: faces.heading, size: titleSize });
  if (label.notForSale) line({ text: 'Not for sale', face: faces.bold, size: 8.5 });

  // Net contents stand lowest: beside the code where they fit on one line there, else across the whole panel beneath it.
  const netSize = (figures_mm * PT_PER_MM) / FIGURE_OVER_SIZE;
  const roomy = Math.min(62, height * 0.42);
  const beside = wrap(label.netContents, faces.bold, netSize, column - roomy - 8);
  const across = beside.length > 1;
  const code = across ? Math.min(46, height * 0.34) : roomy;
  const net = across ? wrap(label.netContents, faces.bold, netSize, column) : beside;
  const netHeight = net.length * netSize * 1.12;
  const small: Placed[] = [
    ...wrap(`${label.maker}, ${label.address}`, faces.plain, 7.2, column - code - 8).map(text => ({
      text,
      face: faces.plain,
      size: 7.2,
    })),
    { text: `Lot ${label.lotCode}`, face: faces.bold, size: 8 },
    {
      text: `Made ${dayText(label.madeOn, habits)} · Best by ${dayText(label.bestBy, habits)}`,
      face: faces.plain,
      size: 7.2,
    },
    ...(label.readyFrom
      ? [{ text: `Best from ${dayText(label.readyFrom, habits)}`, face: faces.plain, size: 7.2 }]
      : []),
  ];
  const smallHeight = small.reduce((h, p) => h + p.size * 1.2, 0);
  // The text above the foot shrinks until it fits, but never below the smallest letter allowed.
  const foot =
    pad + (across ? netHeight + Math.max(code, smallHeight) : Math.max(code, smallHeight + netHeight));
  let y2 = pad - 2 + netHeight + smallHeight;
  const space = y - foot - 2;
  const paragraphs = (size: number): Placed[] => [
    ...wrap(`Ingredients: ${label.ingredients}.`, faces.plain, size, column).map(text => ({
      text,
      face: faces.plain,
      size,
    })),
    ...(label.contains
      ? wrap(`Contains: ${label.contains}.`, faces.bold, size, column).map(text => ({
          text,
          face: faces.bold,
          size,
        }))
      : []),
    ...(label.directions
      ? wrap(label.directions, faces.plain, size, column).map(text => ({ text, face: faces.plain, size }))
      : []),
    ...(label.statement
      ? wrap(label.statement, faces.plain, size, column).map(text => ({ text, face: faces.plain, size }))
      : []),
  ];
  let size = 8.5;
  while (size > SMALLEST_PT && paragraphs(size).reduce((h, p) => h + p.size * 1.18, 0) > space) size -= 0.1;
  const body = paragraphs(size);
  if (body.reduce((h, p) => h + p.size * 1.18, 0) > space)
    throw new RangeError('drawLabels: the text does not fit this label at a legible size');
  for (const p of body) line(p);

  drawCode(page, label.lotCode, width - pad - code, foot - code - 2, code);
  for (const text of small) {
    y2 -= text.size * 1.2;
    page.drawText(text.text, {
      x: pad,
      y: y2 + text.size * 0.25,
      size: text.size,
      font: text.face,
      color: INK,
    });
  }
  // At the foot of the panel, by themselves.
  let at = pad - 2 + netHeight;
  for (const text of net) {
    at -= netSize * 1.12;
    page.drawText(text, { x: pad, y: at + netSize * 0.2, size: netSize, font: faces.bold, color: INK });
  }
}

/** The lot code as a QR symbol (ISO/IEC 18004), drawn as squares so that it prints sharp at any size. */
function drawCode(page: PDFPage, text: string, x: number, y: number, side: number): void {
  const symbol = (
    bwip as unknown as { raw: (o: object) => { pixs: number[]; pixx: number; pixy: number }[] }
  ).raw({ bcid: 'qrcode', text, eclevel: 'M' })[0];
  if (!symbol) throw new RangeError('drawCode: no symbol');
  const quiet = 4;
  const module_pt = side / (symbol.pixx + 2 * quiet);
  const path: string[] = [];
  for (let row = 0; row < symbol.pixy; row++) {
    for (let col = 0; col < symbol.pixx;) {
      if (symbol.pixs[row * symbol.pixx + col] !== 1) {
        col++;
        continue;
      }
      let end = col;
      while (end < symbol.pixx && symbol.pixs[row * symbol.pixx + end] === 1) end++;
      path.push(`M${col + quiet} ${row + quiet}H${end + quiet}V${row + quiet + 1}H${col + quiet}Z`);
      col = end;
    }
  }
  page.drawSvgPath(path.join(''), { x, y: y + side, scale: module_pt, color: INK });
}
