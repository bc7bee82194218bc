import type { JarSizeId } from './jars.ts';
import { ENTRIES } from './data/process-entries.ts';
import type { Method, Product } from './recipe.ts';

/** Where a value was published, and whether it was recalled rather than read. */
export interface ProcessSource {
  title: string;
  edition: string;
  part: string;
  fromMemory: boolean;
}

/** Minutes by altitude band: each band runs from just above the one before up to and including `upTo_ft`; null has no top. */
export type MinutesByAltitude = { upTo_ft: number | null; minutes: number }[];

/** Acid an entry wants in each jar, for a pint; other sizes in proportion. */
export interface AcidDose {
  /** Bottled lemon or lime juice, tablespoons. */
  bottledLemon_tbsp: number;
  /** Citric acid, teaspoons. */
  citricAcid_tsp: number;
  /** Vinegar of 5 %, tablespoons; null where the entry does not offer it. */
  vinegar_tbsp: number | null;
}

/** One published entry: a product packed one way, with its times. */
export interface ProcessEntry {
  id: string;
  product: string;
  /** Kinds of product it may serve. */
  products: readonly Product[];
  pack: 'hot' | 'raw';
  /** Packing liquids it covers; empty when it says nothing of one. */
  liquids: readonly Method['liquid'][];
  headspace_mm: number;
  acidInEachPint: AcidDose | null;
  /** Further conditions of the entry, in our words; empty for none. */
  conditions: string;
  rows: { id: string; jarSize: JarSizeId; byAltitude: MinutesByAltitude }[];
  source: ProcessSource;
}

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
