import type { Figures } from '../../measure/index.ts';
import { acidChanges } from './acid.ts';
import type { Formula, FormulaChange } from './change.ts';
import { ingredientChanges } from './ingredients.ts';
import { jarChanges, methodChanges } from './method.ts';
import { potScale } from './portions.ts';

export { type FormulaChange, formulaOf } from './change.ts';

/**
 * Every change of ingredient or method from a tested formula, and whether it takes the recipe out of its authority.
 * Scaling the whole is no change. Rules of the trade: dried spices, and salt in a vinegar pickle, are free; sugar is
 * flavour in juice, fruit pack and vinegar pickle, but belongs to a spread; salt in a ferment is the process.
 */
export function changesFrom(tested: Formula, recipe: Formula, figures: Figures): FormulaChange[] {
  const scale = potScale(tested, recipe);
  return [
    ...acidChanges(tested, recipe, scale, figures),
    ...ingredientChanges(tested, recipe, scale, figures),
    ...methodChanges(tested, recipe),
    ...jarChanges(tested, recipe),
  ];
}
