import { under, UNITS } from '../measure/index.ts';
import { INGREDIENT_SOURCES, INGREDIENTS } from './data/ingredients.ts';
import type { Ingredient, IngredientSource } from './ingredient.ts';

/** The source of each kind of value, unless an ingredient names another. */
const USUAL: Partial<Record<keyof Ingredient, string>> = {
  cup_g: 'cup',
  one_g: 'piece',
  bushel_g: 'bushel',
  trim: 'trim',
  thawedYield: 'thaw',
  water_pct: 'composition',
  solids_pct: 'composition',
  ph: 'ph',
  acid: 'acid',
  safelyAcid: 'safe',
  group: 'group',
  strength_pct: 'strength',
  allergens: 'allergen',
  labelName: 'label',
  subIngredients: 'label',
  freshFactor: 'dried',
  refused: 'refusal',
};

const OWN: IngredientSource = { title: 'Measured or entered in this kitchen', fromMemory: false };

/** Where one value of an ingredient comes from. */
export function sourceOf(ingredient: Ingredient, value: keyof Ingredient): IngredientSource | null {
  const id = under(ingredient.sources as { [fact: string]: string }, value) ?? USUAL[value];
  if (id === 'own') return OWN;
  return id === undefined ? null : (INGREDIENT_SOURCES[id] ?? null);
}

const ML_PER_CUP = UNITS.cup.factor.valueOf();

/** Ways an ingredient is cut or packed whose weight is known, the usual one first. */
export function formsOf(ingredient: Ingredient): string[] {
  return Object.keys(ingredient.cup_g);
}

/**
 * Grams in a millilitre of an ingredient cut or packed one way.
 *
 * @param form  one of {@link formsOf}; the first of them when empty
 * @returns null when it was never weighed so
 */
export function densityOf(ingredient: Ingredient, form: string): number | null {
  const grams = under(ingredient.cup_g, form || (formsOf(ingredient)[0] ?? ''));
  return grams === undefined ? null : grams / ML_PER_CUP;
}

/** The usual trim yield: by knife, else whatever is known, else nothing is lost. */
export function usualTrim(ingredient: Ingredient): number {
  return ingredient.trim.knife ?? ingredient.trim.mill ?? ingredient.trim.blender ?? 1;
}

/** The library of a kitchen: what ships, with the kitchen's own entries in the place of those they override. */
export function libraryOf(own: readonly Ingredient[]): Ingredient[] {
  const mine = new Map(own.map(i => [i.id, i]));
  const shipped = INGREDIENTS.map(i => mine.get(i.id) ?? i);
  const known = new Set(INGREDIENTS.map(i => i.id));
  return [...shipped, ...own.filter(i => !known.has(i.id))];
}
