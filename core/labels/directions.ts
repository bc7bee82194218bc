import { numberText } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import type { LabelSetup } from './setup.ts';

/** Names of what is meant to be diluted. */
const CONCENTRATE = /\b(?:concentrated?|cordial|squash)\b/i;

/** Whether a food is one that is diluted, by its name. */
export const isConcentrate = (recipe: Pick<Recipe, 'name' | 'statementOfIdentity' | 'product'>): boolean =>
  ['juice', 'syrup'].includes(recipe.product) &&
  CONCENTRATE.test(`${recipe.name} ${recipe.statementOfIdentity}`);

/**
 * What has to be said of how a food is used and kept: what is diluted with how much water; that it is shaken where it settles,
 * which juice that is not clear does by itself; and once open, nothing but a full-sugar spread keeps by itself. Common practice
 * of the trade, no source.
 */
export function directionsFor(
  recipe: Pick<Recipe, 'foodClass' | 'product' | 'method'>,
  { shake, diluteParts }: Pick<LabelSetup, 'shake' | 'diluteParts'>,
  locale: string,
): string {
  const keeps =
    recipe.foodClass === 'fruit spread' &&
    ['jam', 'jelly', 'preserves', 'marmalade'].includes(recipe.product);
  const { strain, cut } = recipe.method;
  const settles = recipe.product === 'juice' && strain !== 'strained' && cut !== 'juice';
  return [
    ...(diluteParts === null
      ? []
      : [`Dilute one part with ${numberText(diluteParts, { locale }, 1)} parts of water.`]),
    ...(shake || settles ? ['Shake before use.'] : []),
    ...(keeps ? [] : ['Refrigerate after opening.']),
  ].join(' ');
}
