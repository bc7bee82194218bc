import type { Recipe, TestedFormula } from '../../recipes/index.ts';

/** One difference from the formula an authority covers. */
export interface FormulaChange {
  code: string;
  /** It takes the recipe out of its authority; otherwise it is free. */
  breaks: boolean;
  what: string;
  why: string;
  /** What would bring it back. */
  next: string;
}

/** What an authority covers: the whole of it was tested together. */
export type Formula = Pick<TestedFormula, 'product' | 'lines' | 'method' | 'setBy' | 'jarSizes'>;

/** The formula of a recipe, to take over as tested or to hold against one. */
export function formulaOf(recipe: Recipe): Formula {
  return {
    product: recipe.product,
    lines: recipe.lines,
    method: recipe.method,
    setBy: recipe.setBy,
    jarSizes: recipe.jars.map(j => j.size),
  };
}

/** A change that takes the recipe out of its authority, and what would bring it back. */
export const lost = (code: string, what: string, why: string, next: string): FormulaChange => ({
  code,
  breaks: true,
  what,
  why,
  next,
});

/** A change that its authority leaves free. */
export const free = (code: string, what: string, why: string): FormulaChange => ({
  code,
  breaks: false,
  what,
  why,
  next: '',
});

/** Text with a capital letter in front. */
export const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
