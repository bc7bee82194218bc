import { byName } from '../measure/index.ts';
import Papa from 'papaparse';

/** What a column of a file can mean. */
export const CSV_FIELDS = [
  'day',
  'supplier',
  'number',
  'item',
  'packages',
  'quantity',
  'unit',
  'price',
  'discount',
  'tax',
  'delivery',
  'lot',
  'supplier lot',
  'best by',
  'strength',
  'kind',
] as const;
/** What a column of a receipt file can be. */
export type CsvField = (typeof CSV_FIELDS)[number];

/** A line that was not taken, by its number in the file (the heading is line 1) and the field at fault. */
export interface CsvFault {
  line: number;
  field: CsvField | '';
  code: string;
  what: string;
  next: string;
}

/**
 * The text of a file, by its byte order mark, else UTF-8 where it is valid, else Windows-1252.
 *
 * @returns the text, and which encoding it was read in
 */
export function decodeText(bytes: Uint8Array): { text: string; encoding: string } {
  const read = (encoding: string, fatal = false) => new TextDecoder(encoding, { fatal }).decode(bytes);
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return { text: read('utf-16le'), encoding: 'UTF-16' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return { text: read('utf-16be'), encoding: 'UTF-16' };
  try {
    return { text: read('utf-8', true), encoding: 'UTF-8' };
  } catch {
    return { text: read('windows-1252'), encoding: 'Windows-1252' };
  }
}

/** A file as a table of texts, before anything in it is understood. */
export interface CsvTable {
  headings: string[];
  rows: string[][];
  /** Line of the file on which each row begins. */
  lines: number[];
  delimiter: string;
  faults: CsvFault[];
}

/** Rows of a delimited file: commas, semicolons, tabs or bars are told apart; quoted fields may hold line breaks. */
export function readTable(text: string): CsvTable {
  const body = text.replace(/^\ufeff/, '');
  const rows: string[][] = [];
  const lines: number[] = [];
  const faults: CsvFault[] = [];
  let cursor = 0;
  let line = 1;
  let delimiter = ',';
  Papa.parse<string[]>(body, {
    delimitersToGuess: [',', ';', '\t', '|'],
    step: result => {
      delimiter = result.meta.delimiter;
      const start = line;
      for (let i = cursor; i < result.meta.cursor; i++) if (body.charCodeAt(i) === 10) line++;
      cursor = result.meta.cursor;
      for (const e of result.errors)
        if (e.code === 'MissingQuotes' || e.code === 'InvalidQuotes')
          faults.push({
            line: start,
            field: '',
            code: 'open-quote',
            what: 'A quotation mark is opened and not closed.',
            next: 'Close it, or double it where it belongs to the text.',
          });
      if (result.data.length === 1 && (result.data[0] ?? '').trim() === '') return;
      rows.push(result.data);
      lines.push(start);
    },
  });
  const headings = (rows.shift() ?? []).map(h => h.trim());
  lines.shift();
  return { headings, rows, lines, delimiter, faults };
}

const GUESSES: Record<CsvField, RegExp> = {
  day: /^(date|day|purchased|bought|receipt date)/i,
  supplier: /^(supplier|vendor|shop|store|from|seller)/i,
  number: /^(receipt|invoice|number|no\.?$|order|document)/i,
  item: /^(item|product|article|description|name|ingredient)/i,
  packages: /^(packages?|packs?|count|units bought|pcs)/i,
  quantity: /^(quantity|qty|amount|size|content|weight|volume)/i,
  unit: /^(unit|uom|measure)/i,
  price: /^(price|cost|paid|total|line total|sum)/i,
  discount: /^(discount|off|rebate)/i,
  tax: /^(tax|vat|gst)/i,
  delivery: /^(delivery|shipping|freight)/i,
  lot: /^(lot|our lot|lot name)/i,
  'supplier lot': /^(supplier('s)? lot|batch|lot code|vendor lot)/i,
  'best by': /^(best by|best before|expiry|expires|use by)/i,
  strength: /^(strength|acidity|percent)/i,
  kind: /^(kind|condition|type)/i,
};

/** The columns a file's headings suggest; each heading is used once. */
export function guessColumns(headings: readonly string[]): Partial<Record<CsvField, string>> {
  const columns: Partial<Record<CsvField, string>> = byName() as Partial<Record<CsvField, string>>;
  const free = [...headings];
  for (const field of ['supplier lot', ...CSV_FIELDS] as const) {
    if (columns[field]) continue;
    const at = free.findIndex(h => GUESSES[field].test(h));
    if (at >= 0) columns[field] = free.splice(at, 1)[0] as string;
  }
  return columns;
}
