/** Longest line of a small label, in characters, as every printer of the protocol takes it. */
const LABEL_LINE = 40;
/** Most copies that are asked for at once. */
const COPIES_MOST = 9999;

/** A label dot by dot, as a printer prints it: rows from the top, eight dots a byte, the left one highest; a set one is black. */
export interface DotPicture {
  across: number;
  tall: number;
  rows: Uint8Array;
}

function copiesWord(copies: number): string {
  if (!Number.isInteger(copies) || copies < 1 || copies > COPIES_MOST)
    throw new RangeError('printing: 1 to 9,999 copies');
  return `PRINT ${copies}`;
}

/**
 * What a printer of small labels is told, word by word: only plain characters ever go down a line, none that would end it.
 *
 * @param lines  of the label, at most 4
 * @param copies  1 to 9,999
 * @throws RangeError where there is nothing to print, or more than a label holds
 * @example
 * printWords(['PLM-26331-K', 'load 1'], 8); // ['LINE PLM-26331-K', 'LINE load 1', 'PRINT 8']
 */
export function printWords(lines: readonly string[], copies: number): string[] {
  if (lines.length < 1 || lines.length > 4)
    throw new RangeError('printWords: a small label has 1 to 4 lines');
  const plain = (text: string) =>
    text
      .normalize('NFKD')
      .replaceAll(/[^\u0020-\u007e]/g, '')
      .slice(0, LABEL_LINE);
  return [...lines.map(line => `LINE ${plain(line)}`), copiesWord(copies)];
}

/**
 * What a printer is told to print a label dot by dot: its page, and of it the rows that are not white; rows that are alike and
 * follow each other are told once.
 *
 * @throws RangeError for another number of dots than the page has, or of copies
 */
export function pictureWords({ across, tall, rows }: DotPicture, copies: number): string[] {
  const wide = Math.ceil(across / 8);
  if (rows.length !== wide * tall) throw new RangeError('pictureWords: rows and page differ');
  const words = [`PAGE ${across} ${tall}`];
  const textOf = (y: number) => String.fromCharCode(...rows.subarray(y * wide, (y + 1) * wide));
  const white = '\0'.repeat(wide);
  for (let first = 0; first < tall;) {
    const text = textOf(first);
    let next = first + 1;
    while (next < tall && textOf(next) === text) next++;
    if (text !== white) words.push(`ROWS ${first} ${next - 1} ${btoa(text)}`);
    first = next;
  }
  return [...words, copiesWord(copies)];
}
