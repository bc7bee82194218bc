import type { CodeSymbol } from './layout/layout.ts';

/** Modules that stay free around a QR symbol. Source: ISO/IEC 18004 (from memory). */
const QR_QUIET = 4;
/** Size of a module that home printers print and phones read: three dots of 203 dpi and a little. Common practice, no source. */
const QR_MODULE_MM = 0.42;

/** What a code writer hands over of a square symbol: its modules row by row, 1 for dark. */
export interface Modules {
  pixs: readonly number[];
  pixx: number;
  pixy: number;
}

/** A square symbol with its quiet zone; dark modules that touch in a row are one bar. */
export function squareSymbol(says: string, { pixs, pixx, pixy }: Modules): CodeSymbol {
  const bars: [number, number, number, number][] = [];
  for (let y = 0; y < pixy; y++)
    for (let x = 0; x < pixx;) {
      if (pixs[y * pixx + x] !== 1) {
        x++;
        continue;
      }
      let end = x;
      while (end < pixx && pixs[y * pixx + end] === 1) end++;
      bars.push([x + QR_QUIET, y + QR_QUIET, end - x, 1]);
      x = end;
    }
  return { says, bars, across: pixx + 2 * QR_QUIET, tall: pixy + 2 * QR_QUIET, module_mm: QR_MODULE_MM };
}

/** What writes a symbol as modules: the same library on the server and in the browser. */
export type SymbolWriter = (options: { bcid: string; text: string; eclevel?: string }) => Modules[];

/**
 * The lot code as a QR symbol (ISO/IEC 18004), as it is scanned from a jar.
 *
 * @param write  a writer of symbols
 * @throws RangeError where the writer gives none
 */
export function lotSymbol(lotCode: string, write: SymbolWriter): CodeSymbol {
  const [made] = write({ bcid: 'qrcode', text: lotCode, eclevel: 'M' });
  if (!made) throw new RangeError('lotSymbol: no symbol');
  return squareSymbol(lotCode, made);
}
