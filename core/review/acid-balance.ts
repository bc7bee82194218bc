import {
  type Balance,
  type BalanceKitchen,
  type Contents,
  DEFAULT_HEADSPACE_MM,
  acidIn,
  asWritten,
  balance,
  reachedJars_g,
} from '../balance/index.ts';
import { isLowAcid } from '../ingredients/index.ts';
import type { Recipe } from '../recipes/index.ts';

/** What the review goes by, in grams that reach the jars; dried produce as the fresh it came from. */
export interface AcidBalance {
  /** Fruit that is acid by itself. */
  acidFruit_g: number;
  /** Low-acid produce, and fruit that is not safely acid. */
  lowAcid_g: number;
  /** Low-acid produce as a share of all fruit and produce, 0 to 1. */
  lowAcidShare: number;
  /** Acid that counts as the barrier, as grams of acetic acid. */
  barrier_g: number;
  /** Barrier acid for 100 g of low-acid food; null where there is none of that. */
  barrierPer100_g: number | null;
}

/** Nobody's kitchen: shares do not hang on where it is cooked. */
export const ANYWHERE: BalanceKitchen = {
  altitude_m: 0,
  thermometerError_C: 0,
  pot: null,
  pots: 1,
  headspace_mm: DEFAULT_HEADSPACE_MM,
};

/**
 * Weighs the low-acid against the acid of a recipe as written, in what reaches its jars: brine that is left in the pot and
 * soaks that are poured away are no acid of theirs.
 */
export function acidBalance(recipe: Recipe): AcidBalance {
  const process = asWritten(recipe, ANYWHERE);
  const made = balance(process);
  // Nothing is filled yet where no weight is known: then all that there is counts.
  const filled: Pick<Balance, 'vessels'> = made.jars.length > 0 ? made : everything(made);
  const reached = reachedJars_g(filled);
  let acidFruit_g = 0;
  let lowAcid_g = 0;
  for (const { line } of process.lines) {
    const mass_g = reached.get(line.id) ?? 0;
    if (isLowAcid(line)) lowAcid_g += mass_g * line.freshFactor;
    else if (line.role === 'fruit') acidFruit_g += mass_g;
  }
  const { barrier_g } = acidIn(process, filled.vessels.get('jars') ?? new Map());
  const all = acidFruit_g + lowAcid_g;
  return {
    acidFruit_g,
    lowAcid_g,
    lowAcidShare: all === 0 ? 0 : lowAcid_g / all,
    barrier_g,
    barrierPer100_g: lowAcid_g === 0 ? null : (barrier_g / lowAcid_g) * 100,
  };
}

/** All that was not thrown away, as if it stood in jars. */
function everything(made: Balance): Pick<Balance, 'vessels'> {
  const all: Contents = new Map();
  for (const id of ['left over', 'spare brine'] as const)
    for (const [line, parts] of made.vessels.get(id) ?? new Map()) all.set(line, parts);
  return { vessels: new Map([['jars', all]]) };
}
