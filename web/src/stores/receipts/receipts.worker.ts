import {
  type CsvMapping,
  type FileAnswers,
  type CsvReceipts,
  type CsvTable,
  type Item,
  decodeText,
  guessColumns,
  readTable,
  toReceipts,
} from '@cocotte/core/stores';
import * as comlink from 'comlink';
import { v7 } from 'uuid';

/** What a file looks like before it is mapped. */
export interface CsvGlance {
  encoding: string;
  delimiter: string;
  headings: string[];
  /** First rows, to see what the columns hold. */
  sample: string[][];
  rows: number;
  columns: CsvMapping['columns'];
}

let table: CsvTable | null = null;

/** Reading files of receipts, away from the page. */
const reader = {
  open(bytes: Uint8Array): CsvGlance {
    const { text, encoding } = decodeText(bytes);
    table = readTable(text);
    return {
      encoding,
      delimiter: table.delimiter,
      headings: table.headings,
      sample: table.rows.slice(0, 4),
      rows: table.rows.length,
      columns: guessColumns(table.headings),
    };
  },
  read(
    mapping: CsvMapping,
    items: Item[],
    today: string,
    answers: FileAnswers,
    progress: (done: number, of: number) => void,
  ): CsvReceipts {
    if (!table) throw new RangeError('open a file first');
    return toReceipts(table, mapping, items, today, v7, progress, answers);
  },
};
export type ReceiptReader = typeof reader;

comlink.expose(reader);
