import { PAPER_LIMIT_BYTES, PAPER_TYPES, PICTURE_SIDE_PX } from '@cocotte/core/kitchen';
import type { Upload } from '@cocotte/contract';
import type { Fault } from '@cocotte/core/measure';
import { misread } from '../words/views.ts';

/** Smaller pictures are sent as they are: there is nothing to be gained. */
const WORTH_SHRINKING_BYTES = 1_500_000;

/**
 * A file as it is sent: a large photograph made smaller here, so that it goes through a kitchen's router in a moment.
 *
 * @returns the fault where it is of another kind, or stays too large; what the server finds is said by the server
 */
export async function readyToSend(
  file: File,
): Promise<{ ok: true; value: Upload } | { ok: false; fault: Fault }> {
  if (!(PAPER_TYPES as readonly string[]).includes(file.type)) return misread('paper-kind');
  const smaller =
    file.type !== 'application/pdf' && file.size > WORTH_SHRINKING_BYTES ? await shrunk(file) : file;
  if (smaller.size > PAPER_LIMIT_BYTES)
    return misread('paper-size', { size: Math.ceil(smaller.size / 1e6), limit: PAPER_LIMIT_BYTES / 1e6 });
  return {
    ok: true,
    value: { mediaType: smaller.type, bytes: new Uint8Array(await smaller.arrayBuffer()) },
  };
}

/** A picture drawn anew at the size it is kept in; itself where this browser cannot read it. */
async function shrunk(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const scale = Math.min(1, PICTURE_SIDE_PX / Math.max(picture.width, picture.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(picture.width * scale);
    canvas.height = Math.round(picture.height * scale);
    const pen = canvas.getContext('2d');
    if (!pen) return file;
    pen.fillStyle = '#fff';
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
    picture.close();
    const drawn = await new Promise<Blob | null>(resolve => canvas.toBlob(resolve, 'image/jpeg', 0.85));
    return drawn && drawn.size < file.size ? drawn : file;
  } catch {
    return file;
  }
}
