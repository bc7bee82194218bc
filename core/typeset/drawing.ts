import type { FaceId, Fonts, Outlines } from './font.ts';

/** A colour: #rrggbb. */
export type Colour = string;

/** Something with a place in a drawing; y goes downwards from its top left corner. */
interface Placed {
  /** What of the label it belongs to. */
  field: string;
  ink: Colour;
}
/** Characters of one face on one line; `xs_mm` is where the origin of each lies. */
export interface TextRun extends Placed {
  kind: 'text';
  face: FaceId;
  size_mm: number;
  y_mm: number;
  text: string;
  xs_mm: number[];
}
/** A filled rectangle: a rule, a ground. */
export interface Block extends Placed {
  kind: 'block';
  x_mm: number;
  y_mm: number;
  width_mm: number;
  height_mm: number;
}
/** A code to scan, as its filled rectangles; `says` is what it holds. */
export interface CodeBars extends Placed {
  kind: 'code';
  says: string;
  bars_mm: readonly (readonly [x: number, y: number, width: number, height: number])[];
}
/** A picture, by its id. */
export interface PictureBox extends Placed {
  kind: 'picture';
  id: string;
  x_mm: number;
  y_mm: number;
  width_mm: number;
  height_mm: number;
}
/** One thing that is drawn. */
export type Drawn = TextRun | Block | CodeBars | PictureBox;

/** What screen, picture and paper draw, and nothing else: measures in millimetres, y downwards. */
export interface Drawing {
  width_mm: number;
  height_mm: number;
  round: boolean;
  ground: Colour;
  items: Drawn[];
}

/** A box in a drawing. */
export interface Box_mm {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The box of the ink of one item. */
export function inkOf(item: Drawn, fonts: Fonts): Box_mm {
  if (item.kind === 'text') {
    const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
    [...item.text].forEach((c, i) => {
      const glyph = fonts[item.face].glyph(c);
      if (!glyph || glyph.right <= glyph.left) return;
      const x = item.xs_mm[i] as number;
      box.left = Math.min(box.left, x + glyph.left * item.size_mm);
      box.right = Math.max(box.right, x + glyph.right * item.size_mm);
      box.top = Math.min(box.top, item.y_mm - glyph.top * item.size_mm);
      box.bottom = Math.max(box.bottom, item.y_mm - glyph.bottom * item.size_mm);
    });
    return box;
  }
  if (item.kind === 'code') {
    const [xs, ys] = [0, 1].map(k => item.bars_mm.map(b => b[k] as number)) as [number[], number[]];
    return {
      left: Math.min(...xs),
      top: Math.min(...ys),
      right: Math.max(...item.bars_mm.map(b => b[0] + b[2])),
      bottom: Math.max(...item.bars_mm.map(b => b[1] + b[3])),
    };
  }
  return {
    left: item.x_mm,
    top: item.y_mm,
    right: item.x_mm + item.width_mm,
    bottom: item.y_mm + item.height_mm,
  };
}

/** The box of everything of a field, or null where it is not drawn. */
export function fieldBox(drawing: Drawing, field: string, fonts: Fonts): Box_mm | null {
  const boxes = drawing.items.filter(i => i.field === field).map(i => inkOf(i, fonts));
  if (boxes.length === 0) return null;
  return {
    left: Math.min(...boxes.map(b => b.left)),
    top: Math.min(...boxes.map(b => b.top)),
    right: Math.max(...boxes.map(b => b.right)),
    bottom: Math.max(...boxes.map(b => b.bottom)),
  };
}

const short = (v: number) => String(Number(v.toFixed(4)));
const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/**
 * A drawing as SVG at its true size: glyphs by their outlines, so that it looks the same wherever it is opened.
 *
 * @param pictures  address of each picture, by its id
 */
export function svgOf(
  drawing: Drawing,
  outlines: Outlines,
  pictures: ReadonlyMap<string, string> = new Map(),
): string {
  const { width_mm, height_mm } = drawing;
  const parts: string[] = [];
  for (const item of drawing.items) {
    if (item.kind === 'text') {
      const paths = [...item.text].map((c, i) => {
        const d = outlines[item.face](c);
        return d === ''
          ? ''
          : `<path transform="translate(${short(item.xs_mm[i] as number)} ${short(item.y_mm)}) scale(${short(item.size_mm)})" d="${d}"/>`;
      });
      parts.push(`<g fill="${item.ink}" data-field="${item.field}">${paths.join('')}</g>`);
    } else if (item.kind === 'code') {
      const d = item.bars_mm.map(
        ([x, y, w, h]) => `M${short(x)} ${short(y)}h${short(w)}v${short(h)}h${short(-w)}z`,
      );
      parts.push(
        `<path fill="${item.ink}" shape-rendering="crispEdges" data-field="${item.field}" d="${d.join('')}"/>`,
      );
    } else if (item.kind === 'block') {
      parts.push(
        `<rect fill="${item.ink}" data-field="${item.field}" x="${short(item.x_mm)}" y="${short(item.y_mm)}" width="${short(item.width_mm)}" height="${short(item.height_mm)}"/>`,
      );
    } else {
      const href = pictures.get(item.id);
      if (href)
        parts.push(
          `<image href="${escaped(href)}" x="${short(item.x_mm)}" y="${short(item.y_mm)}" width="${short(item.width_mm)}" height="${short(item.height_mm)}" preserveAspectRatio="xMidYMid meet"/>`,
        );
    }
  }
  const ground = drawing.round
    ? `<circle cx="${short(width_mm / 2)}" cy="${short(height_mm / 2)}" r="${short(width_mm / 2)}" fill="${drawing.ground}"/>`
    : `<rect width="${short(width_mm)}" height="${short(height_mm)}" fill="${drawing.ground}"/>`;
  const words = drawing.items.flatMap(i => (i.kind === 'text' ? [i.text] : [])).join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${short(width_mm)}mm" height="${short(height_mm)}mm" viewBox="0 0 ${short(width_mm)} ${short(height_mm)}" role="img"><title>${escaped(words)}</title>${ground}${parts.join('')}</svg>`;
}

/** Luminance of a colour, 0 to 1. Source: WCAG 2. */
function luminance(colour: Colour): number {
  const [r, g, b] = [1, 3, 5].map(i => {
    const v = Number.parseInt(colour.slice(i, i + 2), 16) / 255;
    return v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
/** Contrast of two colours, 1 to 21. Source: WCAG 2. */
export function contrast(a: Colour, b: Colour): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}
