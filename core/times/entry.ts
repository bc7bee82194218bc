import type { MinutesByAltitude } from '../heat/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Method, Product } from './product.ts';

/** Where a value was published, and whether it was recalled rather than read. */
export interface ProcessSource {
  title: string;
  edition: string;
  part: string;
  fromMemory: boolean;
}

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
  /** The five-minute entry for sterile jars that this is the clean-jar form of, or null. */
  cleanFormOf: string | null;
  rows: { id: string; jarSize: JarSizeId; byAltitude: MinutesByAltitude }[];
  source: ProcessSource;
}
