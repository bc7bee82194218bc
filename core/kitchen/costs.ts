/** How what leaves stock is valued. */
export const COSTING_METHODS = ['first in, first out', 'weighted average'] as const;
/** Which cost leaves the shelf with what is drawn. */
export type CostingMethod = (typeof COSTING_METHODS)[number];

/** A burner: electric by its power, gas by what it burns in an hour. */
export type Burner =
  | { id: string; name: string; kind: 'electric'; power_W: number }
  | { id: string; name: string; kind: 'gas'; use_gPerHour: number; itemId: string | null };

/** What a kitchen reckons its costs with. A batch keeps those of the day it was started. */
export interface CostSettings {
  method: CostingMethod;
  /** Money an hour for each person whose rate differs from the kitchen's. */
  rates: { personId: string; hourlyRate: string }[];
  burners: Burner[];
  /** Money for a kilowatt-hour. */
  electricity: string;
  overhead: { perBatch: string; perJar: string; perMonth: string; batchesPerMonth: number };
  /** Stall fee of one market, and the jars it usually sells. */
  market: { fee: string; jars: number };
  /** What the price is reckoned with unless it is set otherwise. */
  pricing: { markup_pct: number; margin_pct: number; wholesale_pct: number };
}

/** Settings of a kitchen that has said nothing of its costs yet. */
export const plainCosts: CostSettings = {
  method: 'first in, first out',
  rates: [],
  burners: [],
  electricity: '0',
  overhead: { perBatch: '0', perJar: '0', perMonth: '0', batchesPerMonth: 8 },
  market: { fee: '0', jars: 40 },
  pricing: { markup_pct: 150, margin_pct: 60, wholesale_pct: 60 },
};
