import type { LabelCode, LabelContent } from '../batches/index.ts';
import { type JarSizeId, jarSize } from '../jars/index.ts';
import type { Fault } from '../measure/index.ts';
import { readItemNumber, wholeItemNumber } from './item-number.ts';
import type { CodeSymbol } from './layout/codes.ts';
import type { LabelSetup } from './setup.ts';

/** What a code writer hands over: of a square symbol its modules row by row, of bars the widths of bars and gaps in turn. */
export interface Written {
  pixs?: readonly number[];
  pixx?: number;
  pixy?: number;
  sbs?: readonly number[];
}
/** What writes a symbol: the same library on the server and in the browser. */
export type SymbolWriter = (options: { bcid: string; text: string; eclevel?: string }) => readonly Written[];

/** Modules that stay free on each side. Source: ISO/IEC 18004 and ISO/IEC 16022 (from memory). */
const QUIET = { QR: 4, 'Data Matrix': 1 } as const;
/**
 * Sizes of a module that home printers print and phones read, the best first; on a roll whole dots of 203 dpi, which is
 * eight to a millimetre. Common practice, no source.
 */
const SQUARE_MM = { sheet: [0.42], roll: [0.5, 0.375] };
/**
 * Bars at their nominal size and down to 80 % of it; on a roll three dots, since two are under 80 %.
 *
 * Source: GS1 General Specifications, EAN/UPC symbol dimensions: 0.33 mm, 80 % to 200 %, 22.85 mm high (from memory).
 */
const BARS_MM = { sheet: [0.33, 0.3, 0.264], roll: [0.375] };
/** Heights in modules, at any size: of the bars, and by how much the guards are longer. Source: the same. */
const BAR = { tall: 22.85 / 0.33, guard: 5, modules: 95 };
/** Modules that stay free above bars, for the eye. Ours. */
const ABOVE = 3;
/** What stays free to the left and right, in modules; which modules are guards; where each figure stands. Source: the same. */
const SHAPES = {
  'EAN-13': { left: 11, right: 7, long: [3, 92], groups: [-9, 3, 50], sizes: [1, 6, 6] },
  'UPC-A': { left: 9, right: 9, long: [10, 85], groups: [-8, 10, 50, 96], sizes: [1, 5, 5, 1] },
} as const;
/** Height of a line of figures beneath the bars, in modules, and from the bars to their feet. */
const FIGURES = { tall: 9.5, foot: 8.5, size: 11, module: 7 };

function squareSymbol(code: LabelCode & { kind: 'QR' | 'Data Matrix' }, made: Written): CodeSymbol {
  const { pixs = [], pixx = 0, pixy = 0 } = made;
  const quiet = QUIET[code.kind];
  const bars: [number, number, number, number][] = [];
  // Dark modules that touch in a row are one bar.
  for (let y = 0; y < pixy; y++)
    for (let x = 0; x < pixx;) {
      if (pixs[y * pixx + x] !== 1) {
        x++;
        continue;
      }
      let end = x;
      while (end < pixx && pixs[y * pixx + end] === 1) end++;
      bars.push([x + quiet, y + quiet, end - x, 1]);
      x = end;
    }
  return {
    says: code.says,
    bars,
    figures: [],
    across: pixx + 2 * quiet,
    tall: pixy + 2 * quiet,
    modules_mm: SQUARE_MM,
  };
}

function barSymbol(code: LabelCode & { kind: 'EAN-13' | 'UPC-A' }, made: Written): CodeSymbol {
  const { left, right, long, groups, sizes } = SHAPES[code.kind];
  const bars: [number, number, number, number][] = [];
  let x = 0;
  (made.sbs ?? []).forEach((width, i) => {
    const guard = x < long[0] || x >= long[1] || (x >= 45 && x < 50);
    if (i % 2 === 0) bars.push([x + left, ABOVE, width, BAR.tall + (guard ? BAR.guard : 0)]);
    x += width;
  });
  const figures: CodeSymbol['figures'][number][] = [];
  let at = 0;
  groups.forEach((from, g) => {
    const size = sizes[g] as number;
    for (let i = 0; i < size; i++)
      figures.push({
        text: code.says[at++] as string,
        middle: left + from + (i + 0.5) * FIGURES.module,
        foot: ABOVE + BAR.tall + FIGURES.foot,
        size: FIGURES.size,
      });
  });
  return {
    says: code.says,
    bars,
    figures,
    across: BAR.modules + left + right,
    tall: ABOVE + BAR.tall + FIGURES.tall,
    modules_mm: BARS_MM,
  };
}

/**
 * A code as it is drawn.
 *
 * @param write  a writer of symbols
 * @throws RangeError where the writer gives none
 */
export function codeSymbol(code: LabelCode, write: SymbolWriter): CodeSymbol {
  const bcid = { QR: 'qrcode', 'Data Matrix': 'gs1datamatrix', 'EAN-13': 'ean13', 'UPC-A': 'upca' }[
    code.kind
  ];
  const [made] = write({ bcid, text: code.says, ...(code.kind === 'QR' ? { eclevel: 'M' } : {}) });
  if (!made) throw new RangeError('codeSymbol: no symbol');
  const { kind, says } = code;
  return kind === 'QR' || kind === 'Data Matrix'
    ? squareSymbol({ kind, says }, made)
    : barSymbol({ kind, says }, made);
}

/** Year, month and day in two figures each, as GS1 identifiers write a day. */
const sixFigures = (day: string) => day.replaceAll('-', '').slice(2);

/**
 * The codes a label bears: its lot code as QR or, with the item number and best-by, as Data Matrix; and the item number in bars.
 * An item number is only printed where the producer has one.
 *
 * Source of the identifiers 01, 10 and 15: GS1 General Specifications (from memory).
 *
 * @param page  address of the lots' public pages, to which the lot code is added; null where they are not shown
 */
export function labelCodes(
  setup: LabelSetup,
  size: JarSizeId,
  { lotCode, bestBy }: Pick<LabelContent, 'lotCode' | 'bestBy'>,
  page: string | null,
): { ok: true; codes: LabelCode[] } | { ok: false; faults: Fault[] } {
  // A round label on a lid has no corner for codes.
  if (setup.design === 'jar top') return { ok: true, codes: [] };
  const typed = setup.numbers.find(n => n.size === size)?.number ?? '';
  const read = readItemNumber(typed);
  if ((setup.bars || setup.scan === 'Data Matrix') && !read.ok)
    return {
      ok: false,
      faults: [
        typed === ''
          ? {
              path: 'number',
              code: 'no-number',
              what: `Nobody has entered the item number of ${jarSize(size).plural}.`,
              why: 'Bars and Data Matrix name the food by the number that was given to its maker; nobody makes one up.',
              next: 'Enter the number you were given, or print the lot code as QR.',
            }
          : { ...read.fault, path: 'number' },
      ],
    };
  const codes: LabelCode[] = [];
  if (setup.scan === 'QR')
    codes.push({ kind: 'QR', says: page === null ? lotCode : page + lotCode.replaceAll('/', '-') });
  if (read.ok) {
    if (setup.scan === 'Data Matrix')
      codes.push({
        kind: 'Data Matrix',
        says: `(01)${wholeItemNumber(read.number)}(15)${sixFigures(bestBy)}(10)${lotCode}`,
      });
    if (setup.bars) codes.push({ kind: read.number.length === 12 ? 'UPC-A' : 'EAN-13', says: read.number });
  }
  return { ok: true, codes };
}

/** What a scanner sends between the identifiers of a GS1 symbol. */
const GS = '\u001d';
/**
 * The lot code in what was scanned or typed: the last part of an address, identifier 10 of a GS1 symbol as a scanner gives it
 * or as it is written, or the text itself.
 */
export function scannedLotCode(text: string): string {
  const words = text.trim();
  const page = /^https?:\/\/\S*\/lot\/[^/\s]+\/([^/?#\s]+)/i.exec(words);
  if (page) {
    try {
      return decodeURIComponent(page[1] as string);
    } catch {
      return page[1] as string;
    }
  }
  const written = /\(10\)([^()\s]{1,20})/.exec(words);
  if (written) return written[1] as string;
  const raw = new RegExp(`^(?:\\][a-z]\\d)?${GS}?01\\d{14}1[57]\\d{6}10([!-z]{1,20})`, 'i').exec(words);
  return raw ? (raw[1] as string) : words;
}
