import { layOut, placesOn } from '@cocotte/core/labels';
import type { LabelStock } from '@cocotte/core/batches';
import { byName, numberText } from '@cocotte/core/measure';
import { type Drawing, type Drawn, FACES, type FaceId, type OfFaces, ofFaces } from '@cocotte/core/typeset';
import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, type PDFEmbeddedPage, type PDFFont, type PDFImage, type PDFPage, rgb } from 'pdf-lib';
import { PT_PER_MM } from '../house/paper.ts';
import { faceFile, labelFonts } from './faces.ts';
import { askOf, type Print } from './print.ts';

/** What a sheet of labels is drawn from. */
export interface LabelSheet extends Print {
  /** Jars they go on. */
  count: number;
  /** How far the printer is off, to the right and downwards. */
  offset_mm: { x: number; y: number };
  /** The picture of its look, as JPEG; null where it has none. */
  picture: Uint8Array | null;
}

/** What a font may exchange or move glyphs for: nothing of it, since the layout counts on each glyph as it is. */
const SHAPING =
  'rvrn ltra ltrm frac numr dnom ccmp locl rlig mark mkmk calt clig liga dlig rclt curs kern'.split(' ');

/** An empty PDF with the faces of labels: nothing joined, nothing pulled together. */
async function newSheet(title: string): Promise<{ pdf: PDFDocument; faces: OfFaces<PDFFont> }> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  pdf.setTitle(title);
  pdf.setCreator('Cocotte');
  const features = byName(SHAPING.map(name => [name, false]));
  const made = new Map<FaceId, PDFFont>();
  for (const face of FACES) made.set(face, await pdf.embedFont(faceFile(face), { subset: true, features }));
  return { pdf, faces: ofFaces(face => made.get(face) as PDFFont) };
}

const inkOf = (colour: string) => {
  const [r, g, b] = [1, 3, 5].map(i => Number.parseInt(colour.slice(i, i + 2), 16) / 255) as [
    number,
    number,
    number,
  ];
  return rgb(r, g, b);
};
const WHITE = '#FFFFFF';

/** How far a glyph may lie from where the one before it ends, mm. */
const APART_MM = 0.001;

/** Parts of a run in which each glyph stands where the one before it ends: what the paper sets as one. */
function runsOf(item: Drawn & { kind: 'text' }): { text: string; x_mm: number }[] {
  const runs: { text: string; x_mm: number }[] = [];
  let end_mm = Number.NaN;
  [...item.text].forEach((c, i) => {
    const x_mm = item.xs_mm[i] as number;
    const last = runs.at(-1);
    if (c !== ' ') {
      if (last && Math.abs(x_mm - end_mm) < APART_MM) last.text += c;
      else runs.push({ text: c, x_mm });
    }
    end_mm = c === ' ' ? Number.NaN : x_mm + (labelFonts()[item.face].glyph(c)?.advance ?? 0) * item.size_mm;
  });
  return runs;
}

/** Draws a drawing on a page of its size: a word where it stands, so that nothing adds up. */
function draw(page: PDFPage, drawing: Drawing, faces: OfFaces<PDFFont>, picture: PDFImage | null): void {
  const down = (y_mm: number) => (drawing.height_mm - y_mm) * PT_PER_MM;
  if (drawing.ground.toUpperCase() !== WHITE) {
    const color = inkOf(drawing.ground);
    if (drawing.round)
      page.drawCircle({
        x: (drawing.width_mm / 2) * PT_PER_MM,
        y: down(drawing.height_mm / 2),
        size: (drawing.width_mm / 2) * PT_PER_MM,
        color,
      });
    else page.drawRectangle({ x: 0, y: 0, ...page.getSize(), color });
  }
  for (const item of drawing.items) {
    const color = inkOf(item.ink);
    if (item.kind === 'text') {
      for (const { text, x_mm } of runsOf(item))
        page.drawText(text, {
          x: x_mm * PT_PER_MM,
          y: down(item.y_mm),
          size: item.size_mm * PT_PER_MM,
          font: faces[item.face],
          color,
        });
    } else if (item.kind === 'code') {
      const path = item.bars_mm.map(([x, y, w, h]) => `M${x} ${y}h${w}v${h}h${-w}z`).join('');
      page.drawSvgPath(path, { x: 0, y: down(0), scale: PT_PER_MM, color });
    } else {
      const box = {
        x: item.x_mm * PT_PER_MM,
        y: down(item.y_mm + item.height_mm),
        width: item.width_mm * PT_PER_MM,
        height: item.height_mm * PT_PER_MM,
      };
      if (item.kind === 'block') page.drawRectangle({ ...box, color });
      else if (picture) page.drawImage(picture, box);
    }
  }
}

/**
 * Draws labels at true size where the layout says: one for each jar, and spares.
 *
 * @returns the PDF
 * @throws RangeError when the words do not fit the label: what was decided before today's rules of type
 */
export async function drawLabels(sheet: LabelSheet): Promise<Uint8Array> {
  const made = layOut(askOf(sheet), labelFonts());
  if (!made.ok) throw new RangeError(`drawLabels: ${made.faults[0]?.what ?? ''}`);
  const { stock } = sheet;
  const { pdf, faces: _faces } = await newSheet(`Labels ${sheet.label.lotCode}`);
  // One label is drawn once and placed many times: a like label costs a few bytes.
  const { pdf: single, faces } = await newSheet(sheet.label.lotCode);
  const picture = sheet.picture ? await single.embedJpg(sheet.picture) : null;
  for (const { drawing } of made.pieces)
    draw(
      single.addPage([drawing.width_mm * PT_PER_MM, drawing.height_mm * PT_PER_MM]),
      drawing,
      faces,
      picture,
    );
  const stamps: PDFEmbeddedPage[] = await pdf.embedPdf(
    await single.save(),
    made.pieces.map((_, i) => i),
  );
  let page: PDFPage | null = null;
  let number = -1;
  const wanted = (sheet.count + sheet.spares) * stamps.length;
  for (const [i, place] of placesOn(stock, wanted, sheet.start).entries()) {
    if (place.page !== number) {
      page = pdf.addPage([stock.page_mm.width * PT_PER_MM, stock.page_mm.height * PT_PER_MM]);
      number = place.page;
    }
    page?.drawPage(stamps[i % stamps.length] as PDFEmbeddedPage, {
      x: (place.x_mm + sheet.offset_mm.x) * PT_PER_MM,
      y: (stock.page_mm.height - place.y_mm - sheet.offset_mm.y - stock.label_mm.height) * PT_PER_MM,
    });
  }
  return pdf.save();
}

/** Half the length of a cross, and the step of the rulers, on a page that checks a printer. */
const CROSS_MM = 3;
const RULER_MM = 10;

/**
 * A page that shows how far a printer is off: the edges of each label, a cross at its corner, and rulers that tell by how much.
 *
 * @returns the PDF
 */
export async function drawCheckPage({
  stock,
  offset_mm,
  locale,
}: {
  stock: LabelStock;
  offset_mm: { x: number; y: number };
  locale: string;
}): Promise<Uint8Array> {
  const { pdf, faces } = await newSheet(`Printer check: ${stock.name}`);
  const page = pdf.addPage([stock.page_mm.width * PT_PER_MM, stock.page_mm.height * PT_PER_MM]);
  const x = (mm: number) => (mm + offset_mm.x) * PT_PER_MM;
  const y = (mm: number) => (stock.page_mm.height - mm - offset_mm.y) * PT_PER_MM;
  const line = (x1: number, y1: number, x2: number, y2: number, thickness = 0.3) =>
    page.drawLine({ start: { x: x(x1), y: y(y1) }, end: { x: x(x2), y: y(y2) }, thickness });
  const { width, height } = stock.label_mm;
  for (const { x_mm, y_mm } of placesOn(stock, stock.columns * stock.rows, 0)) {
    if (stock.shape === 'round')
      page.drawCircle({
        x: x(x_mm + width / 2),
        y: y(y_mm + height / 2),
        size: (width / 2) * PT_PER_MM,
        borderWidth: 0.3,
      });
    else
      page.drawRectangle({
        x: x(x_mm),
        y: y(y_mm + height),
        width: width * PT_PER_MM,
        height: height * PT_PER_MM,
        borderWidth: 0.3,
      });
    line(x_mm - CROSS_MM, y_mm, x_mm + CROSS_MM, y_mm);
    line(x_mm, y_mm - CROSS_MM, x_mm, y_mm + CROSS_MM);
  }
  // Rulers from the corner of the first label, a tick every millimetre.
  const { left, top } = stock.margin_mm;
  const inside = Math.min(width, height) / 2;
  for (let mm = -RULER_MM; mm <= RULER_MM; mm++) {
    const long = mm % 5 === 0 ? 2 : 1;
    line(left + inside + mm, top, left + inside + mm, top + long, 0.2);
    line(left, top + inside + mm, left + long, top + inside + mm, 0.2);
  }
  const words = [
    stock.name,
    'Print at 100 %, hold it behind a blank sheet against the light.',
    'Measure how far an edge lies to the right of, and below, the blank label, and enter both.',
    `Now entered: ${numberText(offset_mm.x, { locale }, 1)} mm to the right, ${numberText(offset_mm.y, { locale }, 1)} mm down.`,
  ];
  const size = Math.min(9, (width * PT_PER_MM) / 34);
  words.forEach((text, i) =>
    page.drawText(text, {
      x: x(left + 4),
      y: y(top + 5 + i * size * 0.5),
      size,
      font: faces.plain,
      maxWidth: (width - 8) * PT_PER_MM,
      lineHeight: size * 1.2,
    }),
  );
  return pdf.save();
}
