import { acidKind, countsAsBarrier, isLowAcid, PICKLING_STRENGTH_PCT } from '../ingredients/index.ts';
import { type Figures, numberText } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { GUIDE, type ReviewFault } from './finding.ts';
import { lacksProducer } from './letter.ts';
import { sauerkrautFaults } from './sauerkraut.ts';

/** What keeps a recipe from sale until it is mended: the acid that is its barrier, its salt, its ferment. */
export function mends(recipe: Recipe, figures: Figures): ReviewFault[] {
  const out: ReviewFault[] = [];
  const mend = (
    code: string,
    lineId: string | null,
    what: string,
    why: string,
    next: string,
    source: string,
  ) => out.push({ code, level: 'mend', lineId, what, why, next, source });
  const barrier =
    recipe.lines.some(l => l.where !== 'dip' && isLowAcid(l)) && recipe.product !== 'sauerkraut';
  if (barrier) {
    const counts = recipe.lines.some(countsAsBarrier);
    for (const line of recipe.lines) {
      const kind = acidKind(line);
      if (kind === 'vinegar' && line.minStrength_pct !== null && line.minStrength_pct < PICKLING_STRENGTH_PCT)
        mend(
          'weak-vinegar',
          line.id,
          `${line.name}: ${numberText(line.minStrength_pct, figures)} % acid.`,
          `Recipes are tested with vinegar of ${PICKLING_STRENGTH_PCT} % or more; a weaker one carries less acid into every piece.`,
          `Ask for ${PICKLING_STRENGTH_PCT} %.`,
          GUIDE(6),
        );
      if (kind === 'unlabelled vinegar')
        mend(
          'unlabelled-vinegar',
          line.id,
          `${line.name}: its strength is unknown.`,
          'Home-made or unlabelled vinegar is for flavour only.',
          'Use labelled vinegar of 5 % or more.',
          GUIDE(6),
        );
      if (kind === 'fresh juice' && !counts)
        mend(
          'fresh-juice',
          line.id,
          `${line.name}: fresh juice is the only acid here.`,
          'Fresh lemons differ in acid by half; where acid is the barrier only bottled juice, citric acid or labelled vinegar counts.',
          'Use bottled juice in the same amount.',
          GUIDE(3),
        );
    }
  }
  if (
    recipe.product === 'pickle' ||
    recipe.product === 'sauerkraut' ||
    recipe.method.liquid.endsWith('brine')
  )
    for (const line of recipe.lines)
      if (line.role === 'salt' && /iodi[sz]ed|table salt|anti-?caking|low-?sodium salt/i.test(line.name))
        mend(
          'cloudy-salt',
          line.id,
          `${line.name}: iodised salt or salt with anti-caking is refused for brines.`,
          'Its additives cloud the brine and can darken what is in it, and a cloudy brine hides spoilage.',
          'Use canning or pickling salt, by weight.',
          GUIDE(6),
        );
  if (lacksProducer(recipe))
    mend(
      'letter-for-nobody',
      null,
      'The letter names no producer, or no site.',
      'A process authority writes for one producer and the place they cook in; another kitchen has another water, another stove and other hands.',
      'Enter for whom and for which site it was written, as it stands in the letter.',
      'Letters of process authorities, common practice',
    );
  if (recipe.product === 'sauerkraut') out.push(...sauerkrautFaults(recipe, figures));
  return out;
}
