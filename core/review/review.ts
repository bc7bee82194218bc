import { PH_LIMIT } from '../acid/index.ts';
import { type Figures, numberText } from '../measure/index.ts';
import type { FoodClass, Recipe } from '../recipes/index.ts';
import { type AcidBalance, acidBalance } from './acid-balance.ts';
import { formulaChanges, routeToSale, type RouteToSale } from './authority.ts';
import type { FormulaChange } from './changes/change.ts';
import type { ReviewFault } from './finding.ts';
import { namesFor, type NamesFound, writtenFigures } from './names.ts';
import { classOf, reviewFaults } from './rules.ts';

/** Everything that stands beside a recipe in review. */
export interface Review {
  foodClass: FoodClass;
  /** Why it falls in that class, in one sentence. */
  classWhy: string;
  faults: ReviewFault[];
  balance: AcidBalance;
  changes: FormulaChange[];
  names: NamesFound;
  route: RouteToSale;
}

const classWhy = (figures: Figures): Record<FoodClass, string> => ({
  refused:
    'No boiling-water process was ever tested for it. It may be written down; no batch of it is started.',
  'fruit spread': 'All of it is fruit that is acid by itself, set with sugar.',
  'acid food': `All of it is acid by itself: pH ${numberText(PH_LIMIT, figures)} or below without adding acid.`,
  'acidified food': `It holds low-acid produce, or fruit that is not safely acid: added acid has to bring it to pH ${numberText(PH_LIMIT, figures)} or below, and a reading has to show it.`,
  'fermented food': 'Its own lactic acid is the barrier, by the published sauerkraut entry only.',
});

/**
 * Reviews a recipe: its class, what is refused, what has to be mended, changes from the formula its authority covers,
 * which names it may bear, and whether it may be cooked for sale.
 *
 * @param figures  whose figures its sentences are written in
 * @param finishedSolids_pct  soluble solids foreseen or read, for the name check
 * @example
 * review(plumJam, { locale: 'en-US' }).route.open; // true
 */
export function review(recipe: Recipe, figures: Figures, finishedSolids_pct: number | null = null): Review {
  const faults = reviewFaults(recipe, figures);
  const foodClass = classOf(recipe);
  return {
    foodClass,
    classWhy: classWhy(figures)[foodClass],
    faults,
    balance: acidBalance(recipe),
    changes: formulaChanges(recipe, figures),
    names: namesFor(recipe, figures, {
      ...writtenFigures(recipe),
      ...(finishedSolids_pct !== null && { solids_pct: finishedSolids_pct }),
    }),
    route: routeToSale(recipe, figures),
  };
}
