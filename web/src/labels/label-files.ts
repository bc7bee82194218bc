import type { LabelLook } from '@cocotte/core/batches';
import type { LabelPiece } from '@cocotte/core/labels';
import { svgOf } from '@cocotte/core/typeset';
import { pictureOf } from './LabelPreview.tsx';
import type { LabelTools } from './tools.ts';

/** Dots per inch of a label as PNG: what a good printer prints. */
const PNG_DPI = 600;

/** An address as the thing itself, so that a file stands alone. */
async function whole(address: string): Promise<string> {
  const blob = await (await fetch(address)).blob();
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.addEventListener('load', () => resolve(String(reader.result)));
    reader.addEventListener('error', () =>
      reject(reader.error ?? new Error('The picture could not be read.')),
    );
    reader.readAsDataURL(blob);
  });
}

/** One piece of a label as an SVG that stands alone. */
export async function labelSvg({ drawing }: LabelPiece, tools: LabelTools, look: LabelLook): Promise<Blob> {
  const pictures = new Map<string, string>();
  for (const [id, address] of pictureOf(look)) pictures.set(id, await whole(address));
  return new Blob([svgOf(drawing, tools.outlines, pictures)], { type: 'image/svg+xml' });
}

/**
 * One piece of a label as a PNG of {@link PNG_DPI} dots per inch.
 *
 * @throws Error where this browser cannot draw it
 */
export async function labelPng(piece: LabelPiece, tools: LabelTools, look: LabelLook): Promise<Blob> {
  const svg = await (await labelSvg(piece, tools, look)).text();
  const px = (mm: number) => Math.round((mm / 25.4) * PNG_DPI);
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await picture.decode();
  const canvas = document.createElement('canvas');
  canvas.width = px(piece.drawing.width_mm);
  canvas.height = px(piece.drawing.height_mm);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>(resolve => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('This browser cannot draw the label.');
  return blob;
}
