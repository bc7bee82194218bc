import { asManyAsItFills, type BalanceKitchen, balance, plan } from '../balance/index.ts';
import { jarSize, type JarSizeId, pintsOf } from '../jars/index.ts';
import { Fraction } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import type { SeenYield } from './correction.ts';

/**
 * Pints that a recipe makes at a scale, for "I have this much: what does it make?": by its balance as past batches correct
 * it; by what the recipe says it makes where the end of cooking is judged by eye, or where its own figures contradict the
 * balance by more than a third, which its sheet tells.
 *
 * @returns pints, to a hundredth below
 * @throws RangeError for a line that cannot be weighed, or a ratio that cannot be reckoned
 */
export function pintsMade(
  recipe: Recipe,
  factor: Fraction,
  kitchen: BalanceKitchen,
  size: JarSizeId,
  seen: SeenYield | null = null,
): Fraction {
  const said = pintsOf([recipe.makes]).mul(factor);
  const made = balance(plan(recipe, factor, asManyAsItFills([size]), kitchen));
  const { part, pints } = made.filling;
  const found = (pints + (part ? part.share * jarSize(part.size).pints.valueOf() : 0)) * (seen?.share ?? 1);
  const last = made.cooks.findLast(c => c.part === '');
  const byEye = recipe.packing === null && (!last || last.judged);
  const ratio = found / said.valueOf();
  if (byEye || made.faults.length > 0 || !(ratio > AGREES.from && ratio < AGREES.to)) return said;
  return new Fraction(Math.floor(found * 100 + 1e-6), 100);
}

/** Our bound, from no source. */
const AGREES = { from: 2 / 3, to: 4 / 3 };
