import { type Figures, massText } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import { FREE_BUTTER_G, FREE_SPICE_SHARE } from './finding.ts';

/**
 * What a cook may do freely with a line, said where it goes in: dried spices to one part in a hundred of the pot, salt of a
 * vinegar pickle, half a teaspoon of butter against foam. Common practice of the trade. Null where nothing is free, or no
 * authority asks anything.
 *
 * @param pot_g  grams of all that goes into the pot, as planned
 */
export function freeText(
  recipe: Pick<Recipe, 'authority' | 'method' | 'product'>,
  line: Pick<Line, 'role' | 'name'>,
  pot_g: number,
  figures: Figures,
): string | null {
  const { grade } = recipe.authority;
  if (grade !== 'tested publication' && grade !== 'letter') return null;
  if (line.role === 'spice')
    return `to taste: dried spices are free to ${massText(pot_g * FREE_SPICE_SHARE, figures)} of this pot, together`;
  if (line.role === 'salt' && recipe.method.liquid === 'vinegar brine')
    return 'to taste: salt is flavour here';
  if (line.role === 'fat' && /butter/i.test(line.name))
    return `free to ${massText(FREE_BUTTER_G, figures)} against foam; an allergen on the label`;
  return null;
}
