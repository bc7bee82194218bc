import type { JarSizeId } from '../jars/index.ts';
import type { Fraction } from '../measure/index.ts';
import type { JarsWanted, Recipe } from '../recipes/index.ts';
import { balance } from './balance.ts';
import { DEFAULT_HEADSPACE_MM, plan } from './plan.ts';
import { netOfJars_g } from './views.ts';

/**
 * Net grams of a jar of each planned size, by the balance of the plan, for what is shared by net mass.
 *
 * @returns nothing where a line cannot be weighed yet
 */
export function plannedNets_g(
  recipe: Recipe,
  factor: Fraction,
  jars: readonly JarsWanted[],
  kitchen: { altitude_m: number; thermometerError_C: number },
): ReadonlyMap<JarSizeId, number> {
  try {
    return netOfJars_g(
      balance(
        plan(recipe, factor, jars, { ...kitchen, pot: null, pots: 1, headspace_mm: DEFAULT_HEADSPACE_MM }),
      ),
    );
  } catch (error) {
    if (error instanceof RangeError) return new Map();
    throw error;
  }
}
