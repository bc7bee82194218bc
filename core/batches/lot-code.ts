import { type Day, type Fault, yearAndDay } from '../measure/index.ts';

/** What a lot code is put together of, before its check character. */
export const LOT_PARTS = ['product', 'day', 'sequence'] as const;
/** One of them. */
export type LotPart = (typeof LOT_PARTS)[number];
/** How a day stands in a lot code: the year and its day of the year, or year, month and day. */
export const LOT_DAYS = ['day of the year', 'date'] as const;
/** What stands between the parts. All of them may stand in a GS1 lot number. */
export const LOT_SEPARATORS = ['-', '.', '/', ''] as const;

/** How a kitchen puts its lot codes together. */
export interface LotPattern {
  /** In their order; day and sequence always are among them. */
  parts: LotPart[];
  day: (typeof LOT_DAYS)[number];
  separator: (typeof LOT_SEPARATORS)[number];
  /** Letters that the maker finds alike: no check character and no mark of a load is one of them. */
  leftOut: string;
  /** The load of a jar stands in its code. */
  load: boolean;
}

/** How lot codes are put together before anybody chose: `DWB-26328-2K`. */
export const USUAL_LOT_PATTERN: LotPattern = {
  parts: ['product', 'day', 'sequence'],
  day: 'day of the year',
  separator: '-',
  leftOut: 'IO',
  load: false,
};

const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ*';
const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];
/** Most letters that can be left out: marks and checks need some. */
const LEFT_OUT_MOST = 12;

/**
 * Check character of ISO/IEC 7064, MOD 37-2: catches every single substitution and every swap of neighbours.
 * Computed over letters and digits; anything else is skipped.
 *
 * @returns one of 0-9, A-Z or `*`
 */
export function checkCharacter(text: string): string {
  let product = 0;
  for (const char of text) {
    const value = ALPHABET.indexOf(char);
    if (value < 0 || value > 35) continue;
    product = ((product + value) * 2) % 37;
  }
  return ALPHABET[(38 - product) % 37] as string;
}

/** Letters and digits of a code, in capitals: what stands between them is no part of it. */
export const bareCode = (code: string): string =>
  code
    .normalize('NFKC')
    .toUpperCase()
    .replaceAll(/[^A-Z0-9]/g, '');

/** Whether the check character of a code fits: whether it was read without a slip. */
export const lotCodeFits = (code: string): boolean => {
  const bare = bareCode(code);
  return bare.length > 1 && checkCharacter(bare.slice(0, -1)) === bare.at(-1);
};

/** A body with its check; null where that would be `*` or a letter that is left out. */
function checked(body: string, leftOut: string): string | null {
  const check = checkCharacter(body);
  return check === '*' || leftOut.includes(check) ? null : body + check;
}

const dayIn = (pattern: LotPattern, day: Day): string =>
  pattern.day === 'date' ? day.replaceAll('-', '').slice(2) : yearAndDay(day);

/**
 * The lot codes of a product and a day, one after the other without end: a number whose check character would be `*` or a
 * letter that is left out is passed over.
 *
 * @param product  code of the recipe, three capital letters
 * @throws RangeError for another product
 *
 * @example
 * lotCodes(USUAL_LOT_PATTERN, 'DWB', '2026-11-24').next().value; // 'DWB-26328-1E'
 */
export function* lotCodes(pattern: LotPattern, product: string, day: Day): Generator<string, never> {
  if (!/^[A-Z]{3}$/.test(product)) throw new RangeError('lotCodes: a product is three capital letters');
  for (let number = 1; ; number++) {
    const said = { product, day: dayIn(pattern, day), sequence: String(number) };
    const code = checked(pattern.parts.map(p => said[p]).join(pattern.separator), pattern.leftOut);
    if (code !== null) yield code;
  }
}

/**
 * The code of jars of a batch: of its first filling, or of a later one of what was left over, and of a load where the pattern
 * has loads in it. Marks stand behind the body and are covered by the check; one with which the check may not stand is passed
 * over. A later filling has a letter from the second on, a load one from the first on; a load of a later filling has both.
 *
 * @param lotCode  of the batch
 * @param filling  0 for the first
 * @param load  1 for the first; null for jars that were in none
 *
 * @example
 * jarLotCode(USUAL_LOT_PATTERN, 'DWB-26328-1E', 1, null); // 'DWB-26328-1B5'
 */
export function jarLotCode(
  pattern: LotPattern,
  lotCode: string,
  filling: number,
  load: number | null,
): string {
  const by = pattern.load ? load : null;
  if (filling === 0 && by === null) return lotCode;
  const letters = LETTERS.filter(l => !pattern.leftOut.includes(l));
  const first = letters[0] as string;
  const nth = (marks: Iterable<string>, number: number): string | undefined => {
    let left = number;
    for (const mark of marks) {
      const code = checked(lotCode.slice(0, -1) + mark, pattern.leftOut);
      if (code !== null && --left === 0) return code;
    }
    return undefined;
  };
  /** Marks that begin with a letter, the short ones first. */
  function* after(own: string) {
    for (const a of letters) yield own + a;
    for (const a of letters) for (const b of letters) yield own + a + b;
  }
  function* alone(from: number) {
    yield* letters.slice(from);
    yield* after(first);
  }
  const own = letters[filling] ?? first;
  const found =
    filling === 0
      ? nth(alone(0), by ?? 1)
      : !pattern.load
        ? nth(alone(1), filling)
        : by === null
          ? nth([...after(own)].reverse(), 1)
          : nth(after(own), by);
  return found ?? lotCode;
}

/** Whether a text reads as a code of this pattern, well or with a slip in a figure or a letter. */
export function readsAsLotCode(pattern: LotPattern, text: string): boolean {
  const said: Record<LotPart, string> = {
    product: '[A-Z]{3}',
    day: pattern.day === 'date' ? String.raw`\d{6}` : String.raw`\d{5}`,
    sequence: String.raw`\d{1,4}`,
  };
  return new RegExp(`^${pattern.parts.map(p => said[p]).join('')}[A-Z]{0,3}[0-9A-Z]$`).test(bareCode(text));
}

/** What is wrong with a pattern of lot codes; none where codes by it never meet. */
export function lotPatternFaults(pattern: LotPattern): Fault[] {
  const faults: Fault[] = [];
  const twice = pattern.parts.filter((p, i) => pattern.parts.indexOf(p) < i);
  const missing = (['day', 'sequence'] as const).filter(p => !pattern.parts.includes(p));
  if (twice.length > 0)
    faults.push({
      path: 'parts',
      code: 'twice',
      what: `The ${twice[0]} stands twice in the lot code.`,
      why: 'Said twice it only makes the code longer.',
      next: 'Leave one out.',
    });
  if (missing.length > 0)
    faults.push({
      path: 'parts',
      code: 'missing',
      what: `The lot code has no ${missing.join(' and no ')}.`,
      why: 'Two batches would have the same code.',
      next: 'Put it in.',
    });
  const left = new Set(pattern.leftOut);
  if (!/^[A-Z]*$/.test(pattern.leftOut) || left.size < pattern.leftOut.length || left.size > LEFT_OUT_MOST)
    faults.push({
      path: 'leftOut',
      code: 'bad-letters',
      what: `What is left out is up to ${LEFT_OUT_MOST} letters from A to Z, each once.`,
      why: 'Figures stand for the day and cannot be left out, and check characters need letters that are left.',
      next: 'Enter the letters alone, such as IOSZ.',
    });
  return faults;
}
