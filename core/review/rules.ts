import { isLowAcid } from '../ingredients/index.ts';
import { type Figures, PLAIN_FIGURES } from '../measure/index.ts';
import type { FoodClass, Recipe } from '../recipes/index.ts';
import { SPREADS } from '../times/index.ts';
import type { ReviewFault } from './finding.ts';
import { mends } from './mends.ts';
import { notes } from './notes.ts';
import { refusals } from './refusals.ts';

/** The class a recipe falls in by what is in it. The server keeps it with the recipe. */
export function classOf(recipe: Recipe): FoodClass {
  if (refusals(recipe, PLAIN_FIGURES).length > 0) return 'refused';
  if (recipe.product === 'sauerkraut') return 'fermented food';
  if (recipe.lines.some(l => l.where !== 'dip' && isLowAcid(l))) return 'acidified food';
  return SPREADS.includes(recipe.product) ? 'fruit spread' : 'acid food';
}

/**
 * Everything the review finds in a recipe: first what refuses it, then what has to be mended before sale, then notes.
 * The rules are common practice of the trade; each finding names its source.
 *
 * @param figures  whose figures its sentences are written in
 */
export function reviewFaults(recipe: Recipe, figures: Figures = PLAIN_FIGURES): ReviewFault[] {
  return [...refusals(recipe, figures), ...mends(recipe, figures), ...notes(recipe, figures)];
}
