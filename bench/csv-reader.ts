import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import {
  type Item,
  decodeText,
  emptyMapping,
  guessColumns,
  readTable,
  toReceipts,
} from '@cocotte/core/stores';

/**
 * Reads a file of receipts in a process of its own, as a browser does in a worker: what it takes, and the most memory it
 * had. Takes the path of the file and of the items; tells its parent the receipts and both figures.
 */
const [, , path = '', itemsPath = ''] = process.argv;
const items = JSON.parse(readFileSync(itemsPath, 'utf8')) as Item[];
const began = performance.now();
const table = readTable(decodeText(readFileSync(path)).text);
let n = 0;
const id = () => `00000000-0000-4000-8000-${String(n++).padStart(12, '0')}`;
const { receipts, faults } = toReceipts(
  table,
  { ...emptyMapping, columns: guessColumns(table.headings) },
  items,
  new Date().toISOString().slice(0, 10),
  id,
);
const took_ms = performance.now() - began;
process.send?.({ receipts, faults: faults.length, took_ms, most_MB: process.resourceUsage().maxRSS / 1024 });
