import { ENTRIES } from './data/process-entries.ts';
import type { ProcessEntry } from './entry.ts';
import type { Product } from './product.ts';

/** Published boiling-water entries. Every row carries its source and says that it comes from memory. */
export const PROCESS_ENTRIES: readonly ProcessEntry[] = ENTRIES;

const BY_ID = new Map(ENTRIES.map(e => [e.id, e]));

/** The entry of that id, or undefined. */
export function processEntry(id: string): ProcessEntry | undefined {
  return BY_ID.get(id);
}

/** The entries that may serve a product. */
export function entriesFor(product: Product): ProcessEntry[] {
  return ENTRIES.filter(e => e.products.includes(product));
}
