import type { Fault } from '../../measure/index.ts';
import type { Box_mm, Drawn, Fonts } from '../../typeset/index.ts';

/** A code to scan: its dark rectangles in modules, and how many modules it has with what has to stay free around it. */
export interface CodeSymbol {
  says: string;
  bars: readonly (readonly [x: number, y: number, width: number, height: number])[];
  /** Figures beneath bars, in modules, all of one line: the middle of each, its foot and the size of its type. */
  figures: readonly { text: string; middle: number; foot: number; size: number }[];
  across: number;
  tall: number;
  /** Sizes of a module that printers and readers can be trusted with, the best first. */
  modules_mm: { sheet: readonly number[]; roll: readonly number[] };
}

/** How the codes of a part stand: which of their sizes, side by side or one above the other, beside the net contents or above. */
export interface CodesAt {
  size: number;
  stacked: boolean;
  beside: boolean;
}

const sizesOf = (code: CodeSymbol, form: 'sheet' | 'roll') => code.modules_mm[form];
const moduleOf = (code: CodeSymbol, form: 'sheet' | 'roll', size: number): number => {
  const sizes = sizesOf(code, form);
  return sizes[Math.min(size, sizes.length - 1)] as number;
};

/** Ways in which codes may stand, the best first. */
export function waysOf(codes: readonly CodeSymbol[], form: 'sheet' | 'roll', foot: boolean): CodesAt[] {
  if (codes.length === 0) return [{ size: 0, stacked: false, beside: false }];
  const sizes = Math.max(...codes.map(c => sizesOf(c, form).length));
  return Array.from({ length: sizes }, (_, size) => size).flatMap(size =>
    // Beside the net contents they take no room from the words.
    (foot ? [true, false] : [false]).flatMap(beside =>
      (codes.length > 1 ? [false, true] : [false]).map(stacked => ({ size, stacked, beside })),
    ),
  );
}

/** What stays free between a code and words to its left, mm: for the eye. Ours. */
const ASIDE_MM = 1;

/** Codes at the lower right of a box, as they are drawn, and what each keeps free. */
export function codesAt(
  codes: readonly CodeSymbol[],
  { size, stacked }: CodesAt,
  form: 'sheet' | 'roll',
  corner: { right: number; bottom: number },
  fonts: Fonts,
  ink: string,
): { items: Drawn[]; keep: Box_mm[] } {
  const items: Drawn[] = [];
  const keep: Box_mm[] = [];
  let { right, bottom } = corner;
  for (const code of codes) {
    const m = moduleOf(code, form, size);
    const left = right - code.across * m;
    const top = bottom - code.tall * m;
    items.push({
      kind: 'code',
      field: 'code',
      ink,
      says: code.says,
      bars_mm: code.bars.map(([x, y, w, h]) => [left + x * m, top + y * m, w * m, h * m] as const),
    });
    const [figure] = code.figures;
    if (figure)
      items.push({
        kind: 'text',
        field: 'code',
        ink,
        face: 'plain',
        size_mm: figure.size * m,
        y_mm: top + figure.foot * m,
        text: code.figures.map(f => f.text).join(''),
        xs_mm: code.figures.map(
          f => left + (f.middle - ((fonts.plain.glyph(f.text)?.advance ?? 0) * f.size) / 2) * m,
        ),
      });
    keep.push({ left: left - ASIDE_MM, top, right, bottom });
    if (stacked) bottom = top;
    else right = left;
  }
  return { items, keep };
}

/** Least difference of what a scanner's red light sees of ground and bars, 0 to 1. Common practice, no source. */
const RED_APART = 0.55;
const redOf = (colour: string) => Number.parseInt(colour.slice(1, 3), 16) / 255;

/** Why codes in these colours cannot be scanned; null where they can: scanners look with red light for dark on light. */
export function codeInkFault(ink: string, ground: string): Fault | null {
  if (redOf(ground) - redOf(ink) >= RED_APART) return null;
  return {
    path: 'ink',
    code: 'code-ink',
    what: 'The codes cannot be scanned in these colours.',
    why: 'A scanner looks with red light for dark bars on a light ground: red ink is no darker to it than paper.',
    next: 'Choose a darker ink, black, blue or green, or a lighter ground.',
  };
}
