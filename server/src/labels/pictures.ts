import type { DotPicture } from '@cocotte/core/kitchen';
import { layOut } from '@cocotte/core/labels';
import { type Drawing, svgOf } from '@cocotte/core/typeset';
import sharp from 'sharp';
import { labelFonts, labelOutlines } from './faces.ts';
import { askOf, type Print } from './print.ts';

/** What labels are drawn from, dot by dot. */
export interface LabelPictures extends Print {
  /** The picture of its look, as JPEG; null where it has none. */
  picture: Uint8Array | null;
  dots_per_mm: number;
}

const MM_PER_INCH = 25.4;
/** What is darker becomes black. */
const HALF = 128;

/**
 * The pieces of a label dot by dot, as a label printer prints them. Codes are laid on its dots, so that all of their modules
 * are equally wide.
 *
 * @throws RangeError when the words do not fit the label: what was decided before today's rules of type
 */
export async function drawPictures(asked: LabelPictures): Promise<DotPicture[]> {
  const made = layOut(askOf(asked), labelFonts());
  if (!made.ok) throw new RangeError(`drawPictures: ${made.faults[0]?.what ?? ''}`);
  return Promise.all(made.pieces.map(p => dotted(p.drawing, asked)));
}

async function dotted(drawing: Drawing, { dots_per_mm, picture, look }: LabelPictures): Promise<DotPicture> {
  const across = Math.round(drawing.width_mm * dots_per_mm);
  const tall = Math.round(drawing.height_mm * dots_per_mm);
  const pictures = new Map<string, string>();
  if (picture && look.pictureId !== null)
    pictures.set(look.pictureId, `data:image/jpeg;base64,${Buffer.from(picture).toString('base64')}`);
  const words = { ...drawing, items: drawing.items.filter(i => i.kind !== 'code') };
  const grey = await sharp(Buffer.from(svgOf(words, labelOutlines(), pictures)), {
    density: dots_per_mm * MM_PER_INCH,
  })
    .resize(across, tall, { fit: 'fill' })
    .flatten({ background: '#FFFFFF' })
    .greyscale()
    .raw()
    .toBuffer();
  const wide = Math.ceil(across / 8);
  const rows = new Uint8Array(wide * tall);
  const black = (x: number, y: number) => {
    rows[y * wide + (x >> 3)] = (rows[y * wide + (x >> 3)] as number) | (0x80 >> (x & 7));
  };
  for (let y = 0; y < tall; y++)
    for (let x = 0; x < across; x++) if ((grey[y * across + x] as number) < HALF) black(x, y);
  const dot = (mm: number) => Math.round(mm * dots_per_mm);
  for (const item of drawing.items)
    if (item.kind === 'code')
      for (const [left, top, width, height] of item.bars_mm)
        for (let y = dot(top); y < dot(top + height); y++)
          for (let x = dot(left); x < dot(left + width); x++) black(x, y);
  return { across, tall, rows };
}
