import { acidKind, asCitric_g, countsAsBarrier, isLowAcid } from '../ingredients/index.ts';
import { knownMasses_g, type Recipe } from '../recipes/index.ts';

/** What the review goes by, in grams that stay in the food; dried produce as the fresh it came from. */
export interface AcidBalance {
  /** Fruit that is acid by itself. */
  acidFruit_g: number;
  /** Low-acid produce, and fruit that is not safely acid. */
  lowAcid_g: number;
  /** Low-acid produce as a share of all fruit and produce, 0 to 1. */
  lowAcidShare: number;
  /** Acid that counts as the barrier, as grams of citric acid. */
  barrier_g: number;
  /** Barrier acid in 100 g of low-acid food; null where there is none of that. */
  barrierPer100_g: number | null;
}

/** Weighs the low-acid against the acid of a recipe as written. */
export function acidBalance(recipe: Recipe): AcidBalance {
  const masses = knownMasses_g(recipe);
  let acidFruit_g = 0;
  let lowAcid_g = 0;
  let barrier_g = 0;
  for (const line of recipe.lines) {
    if (line.where === 'dip') continue;
    const mass = (masses.get(line.id) ?? 0) * line.keptShare;
    if (isLowAcid(line)) lowAcid_g += mass * line.freshFactor;
    else if (line.role === 'fruit') acidFruit_g += mass;
    const kind = acidKind(line);
    if (kind && countsAsBarrier(line)) barrier_g += asCitric_g(kind, mass, line.minStrength_pct);
  }
  const all = acidFruit_g + lowAcid_g;
  return {
    acidFruit_g,
    lowAcid_g,
    lowAcidShare: all === 0 ? 0 : lowAcid_g / all,
    barrier_g,
    barrierPer100_g: lowAcid_g === 0 ? null : (barrier_g / lowAcid_g) * 100,
  };
}
