import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { prepareZXingModule, type ReaderOptions, readBarcodes } from 'zxing-wasm/reader';

let ready = false;
/** The reader's own binary from its package: it would be fetched from elsewhere otherwise. */
function prepare(): void {
  if (ready) return;
  const wasm = readFileSync(
    join(import.meta.dirname, '../node_modules/zxing-wasm/dist/reader/zxing_reader.wasm'),
  );
  prepareZXingModule({
    overrides: {
      wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.byteLength) as ArrayBuffer,
    },
  });
  ready = true;
}

/** What a reader written by others finds in a picture (PNG or JPEG): kind and text of each code, in no order. */
export async function scanned(
  picture: Uint8Array,
  formats: NonNullable<ReaderOptions['formats']> = [],
): Promise<{ format: string; text: string }[]> {
  prepare();
  const found = await readBarcodes(new Blob([new Uint8Array(picture)]), {
    formats,
    maxNumberOfSymbols: 40,
    // As a till does, bars are believed where several lines of them say the same.
    minLineCount: 6,
    // The picture is read as finely as it is printed.
    tryDownscale: false,
  });
  return found.map(({ format, text }) => ({ format, text }));
}
