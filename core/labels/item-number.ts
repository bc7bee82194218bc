import type { Fault } from '../measure/index.ts';

/**
 * The check digit of an item number: weights of 3 and 1 from the right.
 *
 * Source: GS1 General Specifications, check digit calculations (from memory).
 *
 * @param body  the figures before it
 */
export function checkDigit(body: string): number {
  let sum = 0;
  [...body].reverse().forEach((figure, i) => (sum += Number(figure) * (i % 2 === 0 ? 3 : 1)));
  return (10 - (sum % 10)) % 10;
}

/** An item number as it is read: its 12 or 13 figures, whatever stands between them; else what is wrong with it. */
export function readItemNumber(text: string): { ok: true; number: string } | { ok: false; fault: Fault } {
  const number = text.normalize('NFKC').replaceAll(/[\s-]/g, '');
  const fault = (code: string, what: string, next: string) => ({
    ok: false as const,
    fault: {
      path: '',
      code,
      what,
      why: 'A scanner at a till finds the food by this number alone.',
      next,
    },
  });
  if (!/^\d*$/.test(number))
    return fault('not-figures', 'An item number has figures only.', 'Enter it as it was given to you.');
  if (number.length !== 12 && number.length !== 13)
    return fault(
      'bad-length',
      `An item number has 12 figures (UPC-A) or 13 (EAN-13), and this has ${number.length}.`,
      'Enter it whole, with its check digit at the end.',
    );
  if (checkDigit(number.slice(0, -1)) !== Number(number.at(-1)))
    return fault(
      'wrong-check-digit',
      `The check digit ${number.at(-1)} at the end does not fit the figures before it.`,
      'One of them was misread or swapped: hold it against the paper it was given to you on.',
    );
  return { ok: true, number };
}

/** An item number with zeros before it, as GS1 identifiers and comparisons want it. */
export const wholeItemNumber = (number: string): string => number.padStart(14, '0');
