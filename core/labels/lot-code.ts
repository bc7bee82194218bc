import { type Day, yearAndDay } from '../measure/index.ts';

const ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ*';

/** Check characters no code of ours ends in. */
const PASSED_OVER = '*IO';

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

/**
 * A lot code: recipe code, year and day of the year, the batch's number that day and the check character,
 * `DWB-26328-2K`. A number whose check character would be `*`, `I` or `O`
 * is passed over, so that a code holds letters and digits only and none that looks like another.
 *
 * @param recipeCode  three capital letters
 * @param day  the day of the batch
 * @param number  1 for the first batch of that recipe that day
 * @throws RangeError for another recipe code or number
 */
export function lotCode(recipeCode: string, day: Day, number: number): string {
  if (!/^[A-Z]{3}$/.test(recipeCode)) throw new RangeError('lotCode: a recipe code is three capital letters');
  if (!Number.isInteger(number) || number < 1) throw new RangeError('lotCode: numbers start at 1');
  let passed = 0;
  for (let n = 1; ; n++) {
    const body = `${recipeCode}-${yearAndDay(day)}-${n}`;
    const check = checkCharacter(body);
    if (!PASSED_OVER.includes(check) && ++passed === number) return body + check;
  }
}

/** The lot code of the batch that a code read from a jar belongs to, without the letter of a later filling. */
export const batchCode = (code: string): string =>
  code
    .trim()
    .toUpperCase()
    .replace(/-[B-HJ-NP-Z]$/, '');

/** Whether a code read from a jar is one of ours and was read without a slip. */
export function isLotCode(code: string): boolean {
  // The letter of a later filling stands behind it, and is no part of what the check character covers.
  const text = batchCode(code);
  return /^[A-Z]{3}-\d{5}-\d+[0-9A-Z]$/.test(text) && checkCharacter(text.slice(0, -1)) === text.at(-1);
}
