import { bareCode } from './lot-code.ts';

/** A code that a misread one may have been, and what was wrong in the reading. */
export interface Misread {
  code: string;
  said: string;
}

/** What turns a code into what was read of it, in one slip; null where it takes more. Both are bare. */
function slipBetween(read: string, code: string): string | null {
  if (read === code) return '';
  let at = 0;
  while (at < read.length && at < code.length && read[at] === code[at]) at++;
  const [r, c] = [read[at] ?? '', code[at] ?? ''];
  const place = `character ${at + 1}`;
  if (read.length === code.length) {
    if (read.slice(at + 1) === code.slice(at + 1)) return `"${c}" was read as "${r}", ${place}.`;
    const swapped = read[at + 1] === c && code[at + 1] === r && read.slice(at + 2) === code.slice(at + 2);
    return swapped ? `"${c}" and "${r}" changed places, ${place}.` : null;
  }
  if (read.length === code.length - 1 && read.slice(at) === code.slice(at + 1))
    return `"${c}" is missing, ${place}.`;
  if (read.length === code.length + 1 && read.slice(at + 1) === code.slice(at))
    return `"${r}" is one too many, ${place}.`;
  return null;
}

/**
 * Codes that one slip in reading or typing leads away from: a wrong character, two that changed places, one missing or too
 * many. All of them, since nobody but whoever holds the jar can tell which.
 *
 * @param known  codes that there are
 * @returns none for a code that is known, or is further from all of them
 */
export function misreadOf(read: string, known: Iterable<string>): Misread[] {
  const bare = bareCode(read);
  const found: Misread[] = [];
  for (const code of known) {
    const said = slipBetween(bare, bareCode(code));
    if (said === '') return [];
    if (said !== null) found.push({ code, said });
  }
  return found.sort((a, b) => (a.code < b.code ? -1 : 1));
}
