import { type Day, type Figures, addDays, dayText } from '../measure/index.ts';
import { type JarSizeId, jarSize } from '../jars/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { isCovered } from './finding.ts';
import { classOf } from './rules.ts';

/**
 * Days that food without a processing time keeps in the refrigerator, by what keeps it: sugar, acid that was tested, its own
 * acid, or nothing. Common practice of the trade, from memory; four days are what leftovers are given.
 */
const KEEPS_DAYS = { sugar: 21, testedAcid: 14, acid: 7, nothing: 4 } as const;

/** Days that a recipe keeps in the refrigerator without a processing time. */
export function coldDays(recipe: Recipe): number {
  switch (classOf(recipe)) {
    case 'fruit spread':
      return KEEPS_DAYS.sugar;
    case 'acidified food':
      // How acid an own mixture comes out, nobody has measured yet.
      return isCovered(recipe) ? KEEPS_DAYS.testedAcid : KEEPS_DAYS.acid;
    case 'acid food':
      return KEEPS_DAYS.acid;
    case 'fermented food':
    case 'refused':
      return KEEPS_DAYS.nothing;
  }
}

/** Last day to eat what was filled on a day and stands in the refrigerator. */
export const eatBy = (recipe: Recipe, filledOn: Day): Day => addDays(filledOn, coldDays(recipe));

/** What becomes of jars that have no time: they are kept cold, and eaten by a day. */
export const coldText = (
  recipe: Recipe,
  sizes: readonly JarSizeId[],
  filledOn: Day,
  figures: Figures,
): string =>
  `There is no processing time for ${sizes.map(s => jarSize(s).plural).join(', ')}: they go into the refrigerator and are eaten by ${dayText(eatBy(recipe, filledOn), figures)}, or into the freezer; they are never released.`;
