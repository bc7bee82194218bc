import { blankIngredient } from '../blank-ingredient.ts';
import type { Ingredient } from '../ingredient.ts';

/**
 * What is known of one ingredient; what is left out is not known. Named as in {@link Ingredient}, units in the names;
 * a bushel is given in pounds, as the trade does.
 */
export type Known = Partial<Omit<Ingredient, 'id' | 'name' | 'aliases' | 'bushel_g'>> & {
  bushel_lb?: number;
};

const GRAMS_PER_POUND = 453.592_37;

/** One entry: what it is called, other names with commas between, and the values that are known. */
export const one = (
  id: string,
  name: string,
  aliases: string,
  role: Ingredient['role'],
  { bushel_lb, ...known }: Known,
): Ingredient => ({
  ...blankIngredient(id, name, role),
  ...known,
  aliases: aliases === '' ? [] : aliases.split(', '),
  bushel_g: bushel_lb === undefined ? null : Math.round(bushel_lb * GRAMS_PER_POUND),
});

/** Fruit that is safely acid by itself; its group under 21 CFR 150.160. */
export const fruit = (
  id: string,
  name: string,
  aliases: string,
  group: Ingredient['group'],
  known: Known,
): Ingredient => one(id, name, aliases, 'fruit', { ...known, safelyAcid: true, group });

/** Fruit on the list of those that are not. */
export const mild = (
  id: string,
  name: string,
  aliases: string,
  group: Ingredient['group'],
  known: Known,
): Ingredient => one(id, name, aliases, 'fruit', { ...known, safelyAcid: false, group });

/** Vegetables and peppers: low-acid until acid is added to them. */
export const produce = (id: string, name: string, aliases: string, known: Known): Ingredient =>
  one(id, name, aliases, 'low-acid produce', known);
