import type { Fault } from '@cocotte/core/measure';
import {
  type Item,
  type LandedLine,
  type Receipt,
  landReceipt,
  receiptFingerprint,
} from '@cocotte/core/stores';

/** What is laid aside of one receipt: itself, and what its lines cost in the end. */
export interface Staged {
  receipt: Receipt;
  landed: LandedLine[];
  total: string;
}
/** A part of an import after landing: every fault by its path, or what is laid aside. */
export interface LandedPart {
  faults: Fault[];
  rows: { place: number; id: string; fingerprint: string; staged: string }[];
}

/**
 * Lands a part of an import: every receipt like one that is typed.
 *
 * @param from  the place of the first receipt in its file
 */
export function landReceipts({
  receipts,
  items,
  today,
  from,
}: {
  receipts: Receipt[];
  items: Item[];
  today: string;
  from: number;
}): LandedPart {
  const byId = new Map(items.map(i => [i.id, i]));
  const out: LandedPart = { faults: [], rows: [] };
  receipts.forEach((receipt, i) => {
    const land = landReceipt(receipt, byId, today);
    if (!land.ok) {
      out.faults.push(...land.faults.map(f => ({ ...f, path: `receipts[${i}].${f.path}` })));
      return;
    }
    const staged: Staged = { receipt, landed: land.value.lines, total: land.value.total };
    out.rows.push({
      place: from + i,
      id: receipt.id,
      fingerprint: receiptFingerprint(receipt, land.value.total),
      staged: JSON.stringify(staged),
    });
  });
  return out;
}
