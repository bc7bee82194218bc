import { RECEIPT_PART } from '@cocotte/contract';
import type { CsvReceipts, Receipt } from '@cocotte/core/stores';

/** Receipts in parts that one request may carry. */
export function partsOf(receipts: Receipt[]): { from: number; receipts: Receipt[] }[] {
  const parts: { from: number; receipts: Receipt[]; lines: number }[] = [];
  receipts.forEach((r, i) => {
    const last = parts.at(-1);
    if (
      last &&
      last.receipts.length < RECEIPT_PART.receipts &&
      last.lines + r.lines.length <= RECEIPT_PART.lines
    ) {
      last.receipts.push(r);
      last.lines += r.lines.length;
    } else parts.push({ from: i, receipts: [r], lines: r.lines.length });
  });
  return parts.map(({ from, receipts: list }) => ({ from, receipts: list }));
}

/** "Line 12: ", for a fault the server placed in a part. */
export function lineWords(path: string, from: number, reading: CsvReceipts): string {
  const at = /^receipts\[(\d+)\](?:\.lines\[(\d+)\])?/.exec(path);
  if (!at) return '';
  const line = reading.linesOf[from + Number(at[1])]?.[Number(at[2] ?? 0)];
  return line === undefined ? '' : `Line ${line}: `;
}
