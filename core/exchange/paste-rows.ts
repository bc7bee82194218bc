import { readAmount } from '../measure/index.ts';
import type { TextRow } from './paste-words.ts';

/** Names of columns in a table that somebody pasted. */
const COLUMN =
  /^(?:quantity|qty|amount|amt|unit|units|measure|ingredients?|item|notes?|preparation|how|weight|what|#|no\.?|line)$/i;
/** Whether a cell is a figure, a unit or both, as they stand before the name of an ingredient. */
const isMeasure = (cell: string) => {
  const bare = cell.replace(/\s*\([^)]*\)\s*$/, '');
  return readAmount(bare, 'en-US').ok || readAmount(`1 ${bare}`, 'en-US').ok;
};

const isTable = (row: string) =>
  /\t/.test(row) || /^\s*\|.*\|\s*$/.test(row) || (row.match(/\|/g)?.length ?? 0) >= 2;

/** A row of a table as one would write it: "4 cups apricots, chopped"; empty for its heads and rules. */
function fromTable(row: string): string {
  const cells = row
    .replace(/^\s*\||\|\s*$/g, '')
    .split(/\t|\|/)
    .map(c => c.trim())
    .filter(Boolean);
  if (cells.every(c => COLUMN.test(c) || /^:?-{2,}:?$/.test(c))) return '';
  const name = cells.findIndex(c => !isMeasure(c));
  if (name <= 0) {
    // The name first: "sugar | 4 | cups".
    const [first = '', ...rest] = cells;
    const figures = rest.filter(isMeasure);
    const words = rest.filter(c => !figures.includes(c));
    return figures.some(c => /\d|[¼½¾]/.test(c))
      ? [`${figures.join(' ')} ${first}`, ...words].join(', ')
      : cells.join(', ');
  }
  return [cells.slice(0, name + 1).join(' '), ...cells.slice(name + 1)].join(', ');
}

/** Signs of a marked-up text that say nothing: stars around words, hashes before a title. */
const plain = (row: string) =>
  row
    .replaceAll(/\*\*([^*]+)\*\*|__([^_]+)__/g, (_, a: string, b: string) => a ?? b)
    .replace(/^\*(?!\s)([^*]+)\*$/, '$1')
    .replace(/^#+\s*/, '')
    .trim();

/** Words with which a row goes on that a mail program has broken. */
const GOES_ON = /^(?:[a-z(]|\d+(?:\.\d+)?\s*(?:to|-)?\s*\d*\s*(?:minutes|hours|inch|in\.|min|h)\b)/;

const HEADED =
  /^(ingredients|directions|instructions|method|procedure|preparation|to make)\s*[:.-]\s+(\S.{8,})$/i;

/** A list in one row, "24 lb tomatoes, 3 cups onions, chopped, 3/4 tsp cayenne", as its parts; null where it is none. */
function listed(row: string): string[] | null {
  const head = /^[^\d:]{3,60}:\s+(?=[\d¼½¾⅓⅔⅛])/.exec(row)?.[0] ?? '';
  const bare = row.slice(head.length);
  const parts = bare.split(/[,;]\s+(?=(?:and\s+)?(?:\d|[¼½¾⅓⅔⅛]|(?:an?|one|two|three|four|six)\s))/i);
  if (
    parts.length < 3 ||
    !parts.every(p => /^(?:and\s+)?(?:[\d¼½¾⅓⅔⅛]|an?\s|one|two|three|four|six)/i.test(p))
  )
    return null;
  // A sentence with many figures is no list.
  if (/[.!]\s+[A-Z]/.test(bare) || /\bminutes?\b|\bprocess\b/i.test(bare)) return null;
  const title = head.replace(/:\s*$/, '');
  return [
    ...(title === '' || /^(?:ingredients?|you need|take)$/i.test(title) ? [] : [title]),
    ...parts.map(p => p.replace(/^and\s+/i, '').replace(/[.,;]\s*$/, '')),
  ];
}

/**
 * Rows of a pasted text that say something, each with the number of the row it begins in: tables as written lines, rows that
 * were broken put together again, a list in one row as its parts. Empty rows stand as empty texts.
 */
export function rowsOf(text: string): TextRow[] {
  const out: TextRow[] = [];
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const number = i + 1;
    const row = isTable(raw) ? fromTable(raw) : plain(raw.trim());
    const last = out.at(-1);
    const before = last?.text ?? '';
    const broken =
      last !== undefined &&
      before !== '' &&
      row !== '' &&
      GOES_ON.test(row) &&
      !/[.!?:;]["')]?$/.test(before) &&
      (before.length >= 45 || before.endsWith(',')) &&
      (/^[a-z(]/.test(row) || /^[A-Z]?[a-z]+ .*[a-z]$/.test(before));
    if (broken) {
      last.text = `${before} ${row}`;
      return;
    }
    // "Procedure: Wash the jars": a heading and its first row.
    const [, heading, rest] = HEADED.exec(row) ?? [];
    if (heading && rest) {
      out.push({ number, text: heading });
      for (const part of listed(rest) ?? [rest]) out.push({ number, text: part });
    } else for (const part of listed(row) ?? [row]) out.push({ number, text: part });
  });
  return out;
}
