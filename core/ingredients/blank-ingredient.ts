import type { Ingredient } from './ingredient.ts';

/** An ingredient of which nothing is known but what it is called and what it is for. */
export function blankIngredient(id: string, name: string, role: Ingredient['role']): Ingredient {
  return {
    id,
    name,
    aliases: [],
    role,
    cup_g: {},
    one_g: {},
    bushel_g: null,
    trim: {},
    thawedYield: null,
    water_pct: 0,
    solids_pct: 0,
    ph: null,
    acid: null,
    safelyAcid: false,
    group: null,
    strength_pct: null,
    allergens: [],
    labelName: name.toLowerCase(),
    subIngredients: '',
    freshFactor: 1,
    set: null,
    liquid: false,
    dryPint: false,
    refused: null,
    notes: '',
    sources: {},
  };
}
