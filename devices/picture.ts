import { PNG } from 'pngjs';
import type { PrintedPicture } from './printer.ts';

/** What a printer printed, as a PNG: each dot a pixel. */
export function pngOf({ across, tall, rows }: PrintedPicture): Uint8Array {
  const png = new PNG({ width: across, height: tall, colorType: 0 });
  const wide = Math.ceil(across / 8);
  for (let y = 0; y < tall; y++)
    for (let x = 0; x < across; x++) {
      const black = ((rows[y * wide + (x >> 3)] as number) & (0x80 >> (x & 7))) !== 0;
      png.data.fill(black ? 0 : 255, (y * across + x) * 4, (y * across + x) * 4 + 3);
      png.data[(y * across + x) * 4 + 3] = 255;
    }
  return new Uint8Array(PNG.sync.write(png, { colorType: 0 }));
}
