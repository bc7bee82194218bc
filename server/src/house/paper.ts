import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { PAPER_MM, type PaperSize } from '@cocotte/core/measure';
import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, type PDFFont, PDFHexString, type PDFPage, rgb } from 'pdf-lib';

const require = createRequire(import.meta.url);
const fontFile = (name: string) => readFileSync(require.resolve(name));
const cache = new Map<string, Buffer>();

function font(name: string): Buffer {
  const there = cache.get(name);
  if (there) return there;
  const bytes = fontFile(name);
  cache.set(name, bytes);
  return bytes;
}

/** The faces of a paper, embedded. */
export interface Faces {
  plain: PDFFont;
  bold: PDFFont;
  heading: PDFFont;
}

/** A new PDF with our three faces: static TTF, one a weight. */
export async function newPaper(title: string): Promise<{ pdf: PDFDocument; faces: Faces }> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  pdf.setTitle(title);
  pdf.setCreator('Cocotte');
  const next = '@expo-google-fonts/atkinson-hyperlegible-next';
  const faces = {
    plain: await pdf.embedFont(font(`${next}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`), {
      subset: true,
    }),
    bold: await pdf.embedFont(font(`${next}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`), { subset: true }),
    heading: await pdf.embedFont(font('@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf'), {
      subset: true,
    }),
  };
  for (const face of Object.values(faces)) rememberWords(face);
  return { pdf, faces };
}

/**
 * Lays each word out once for a paper: a record says the same few words thousands of times, and laying out is most of
 * the work of drawing. The code of a text is the codes of its words, one after the other.
 */
function rememberWords(face: PDFFont): void {
  const encode = face.encodeText.bind(face);
  const known = new Map<string, string>();
  const codeOf = (word: string): string => {
    let code = known.get(word);
    if (code === undefined) known.set(word, (code = encode(word).asString()));
    return code;
  };
  face.encodeText = text => PDFHexString.of(text.split(/( )/).map(codeOf).join(''));
}

/** Points in a millimetre. */
export const PT_PER_MM = 72 / 25.4;
/** Colour of text. */
export const INK = rgb(0.16, 0.13, 0.11);
/** Colour of what is said beside. */
export const SOFT = rgb(0.42, 0.36, 0.31);
/** Colour of rules and boxes. */
export const RULE = rgb(0.8, 0.73, 0.62);

/** Widths of words at size 1, by face: measuring a word anew costs more than drawing it. */
const widths = new WeakMap<PDFFont, Map<string, number>>();

function widthOf(word: string, face: PDFFont, size: number): number {
  let known = widths.get(face);
  if (!known) widths.set(face, (known = new Map()));
  let width = known.get(word);
  if (width === undefined) known.set(word, (width = face.widthOfTextAtSize(word, 1)));
  return width * size;
}

/** Breaks text into lines no wider than `width_pt`. A word that is wider than the line stands alone. */
export function wrap(text: string, face: PDFFont, size: number, width_pt: number): string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    let wide = 0;
    const space = widthOf(' ', face, size);
    for (const word of paragraph.split(/\s+/)) {
      const more = widthOf(word, face, size);
      if (line !== '' && wide + space + more > width_pt) {
        lines.push(line);
        line = word;
        wide = more;
      } else {
        wide += (line === '' ? 0 : space) + more;
        line = line === '' ? word : `${line} ${word}`;
      }
    }
    lines.push(line);
  }
  return lines;
}

/** How wide the text of a page is, whatever its paper: rows keep their places. */
const WRITTEN_PT = 516;

/** Side of a box to tick. */
const BOX_PT = 9;

/** Text that flows down the pages of a kitchen's paper, with a foot on each. */
export class Flow {
  private page!: PDFPage;
  private y = 0;
  private readonly margin: number;
  private readonly width: number;
  private readonly height: number;

  constructor(
    private readonly pdf: PDFDocument,
    private readonly faces: Faces,
    private readonly foot: string,
    paper: PaperSize,
  ) {
    this.width = PAPER_MM[paper].width * PT_PER_MM;
    this.height = PAPER_MM[paper].height * PT_PER_MM;
    this.margin = (this.width - WRITTEN_PT) / 2;
    this.turn();
  }

  private turn(): void {
    this.page = this.pdf.addPage([this.width, this.height]);
    this.y = this.height - this.margin;
    const lines = wrap(this.foot, this.faces.plain, 7.5, this.width - 2 * this.margin);
    lines.forEach((line, i) =>
      this.page.drawText(line, {
        x: this.margin,
        y: 30 - i * 9,
        size: 7.5,
        font: this.faces.plain,
        color: SOFT,
      }),
    );
  }

  private room(height: number): void {
    if (this.y - height < 52) this.turn();
  }

  heading(text: string, size = 15): void {
    this.room(size * 2.6);
    this.y -= size * 1.1;
    for (const line of wrap(text, this.faces.heading, size, this.width - 2 * this.margin)) {
      this.page.drawText(line, { x: this.margin, y: this.y, size, font: this.faces.heading, color: INK });
      this.y -= size * 1.25;
    }
  }

  text(text: string, options: { bold?: boolean; soft?: boolean; indent?: number; size?: number } = {}): void {
    const size = options.size ?? 10;
    const face = options.bold ? this.faces.bold : this.faces.plain;
    const x = this.margin + (options.indent ?? 0);
    for (const line of wrap(text, face, size, this.width - this.margin - x)) {
      this.room(size * 1.4);
      this.page.drawText(line, { x, y: this.y - size, size, font: face, color: options.soft ? SOFT : INK });
      this.y -= size * 1.4;
    }
  }

  /** One row: cells at fixed places, each wrapped in its own width; a rule below. */
  row(
    cells: {
      text: string;
      x: number;
      width: number;
      bold?: boolean;
      soft?: boolean;
      right?: boolean;
      /** An empty box to tick stands before its text. */
      box?: boolean;
    }[],
    least = 0,
  ): void {
    const size = 9.5;
    const wrapped = cells.map(c => wrap(c.text, c.bold ? this.faces.bold : this.faces.plain, size, c.width));
    const height = Math.max(least, Math.max(...wrapped.map(w => w.length)) * size * 1.35 + 5);
    this.room(height);
    cells.forEach((cell, i) => {
      const indent = cell.box ? BOX_PT + 5 : 0;
      if (cell.box)
        this.page.drawRectangle({
          x: this.margin + cell.x,
          y: this.y - BOX_PT - 2,
          width: BOX_PT,
          height: BOX_PT,
          borderColor: SOFT,
          borderWidth: 0.8,
        });
      const face = cell.bold ? this.faces.bold : this.faces.plain;
      (wrapped[i] as string[]).forEach((line, k) => {
        const x =
          this.margin + cell.x + indent + (cell.right ? cell.width - face.widthOfTextAtSize(line, size) : 0);
        this.page.drawText(line, {
          x,
          y: this.y - size - 1 - k * size * 1.35,
          size,
          font: face,
          color: cell.soft ? SOFT : INK,
        });
      });
    });
    this.y -= height;
    this.page.drawLine({
      start: { x: this.margin, y: this.y },
      end: { x: this.width - this.margin, y: this.y },
      thickness: 0.5,
      color: RULE,
    });
  }

  /** A picture with its words beneath, as wide as half of the text. */
  async picture(jpeg: Uint8Array, words: string): Promise<void> {
    const image = await this.pdf.embedJpg(jpeg);
    const wide = WRITTEN_PT / 2;
    const high = Math.min(wide * 1.3, (image.height / image.width) * wide);
    const width = (image.width / image.height) * high;
    this.room(high + 24);
    this.page.drawImage(image, { x: this.margin, y: this.y - high, width, height: high });
    this.y -= high + 4;
    this.text(words, { soft: true });
    this.gap(6);
  }

  /** An empty line to write on after a label. */
  blank(label: string, width = 220): void {
    this.room(24);
    this.page.drawText(label, {
      x: this.margin,
      y: this.y - 14,
      size: 10,
      font: this.faces.plain,
      color: INK,
    });
    const x = this.margin + width;
    this.page.drawLine({
      start: { x, y: this.y - 16 },
      end: { x: this.width - this.margin, y: this.y - 16 },
      thickness: 0.6,
      color: SOFT,
    });
    this.y -= 24;
  }

  gap(height = 8): void {
    this.y -= height;
  }
}
