/** What is in a serving, or in 100 g, before it is rounded. */
export interface Nutrients {
  energy_kcal: number;
  fat_g: number;
  saturated_g: number;
  carbohydrate_g: number;
  fibre_g: number;
  sugars_g: number;
  addedSugars_g: number;
  protein_g: number;
  sodium_mg: number;
}

/** To the nearest step. */
const to = (value: number, step: number) => Math.round(value / step) * step;

/** Calories: under 5 none, up to 50 to the nearest 5, above to the nearest 10. Source: 21 CFR 101.9(c)(1) (from memory). */
export const roundedCalories = (kcal: number): number =>
  kcal < 5 ? 0 : kcal <= 50 ? to(kcal, 5) : to(kcal, 10);
/** Fat: under 0.5 g none, under 5 g to the nearest half, above to the nearest gram. Source: 21 CFR 101.9(c)(2) (from memory). */
export const roundedFat = (g: number): number => (g < 0.5 ? 0 : g < 5 ? to(g, 0.5) : to(g, 1));
/** Sodium: under 5 mg none, up to 140 to the nearest 5, above to the nearest 10. Source: 21 CFR 101.9(c)(4) (from memory). */
export const roundedSodium = (mg: number): number => (mg < 5 ? 0 : mg <= 140 ? to(mg, 5) : to(mg, 10));
/** Carbohydrate, fibre, sugars, protein: under 0.5 g none, under 1 g "less than 1 g", above to the nearest gram. Source: 21 CFR 101.9(c)(6) and (7) (from memory). */
export const roundedGrams = (g: number): string => (g < 0.5 ? '0g' : g < 1 ? 'less than 1g' : `${to(g, 1)}g`);

/** Reference for a day: what a per cent is reckoned on. Source: 21 CFR 101.9(c)(8) and (9) (from memory). */
const DAILY = {
  fat_g: 78,
  saturated_g: 20,
  sodium_mg: 2300,
  carbohydrate_g: 275,
  fibre_g: 28,
  addedSugars_g: 50,
};
const percent = (value: number, daily: number) => `${Math.round((value / daily) * 100)}% DV`;

/** A serving, as it is said and in grams. */
export interface Serving {
  says: string;
  grams: number;
}

/**
 * Nutrition facts in a line, as small packages may have them.
 *
 * @param per100_g  what is in 100 g
 * @param calculated  reckoned from what went in, and so marked
 * @source 21 CFR 101.9(c) and (j)(13)(ii)(A) (from memory)
 */
export function nutritionLine(
  per100_g: Nutrients,
  serving: Serving,
  net_g: number,
  calculated: boolean,
): string {
  const of = (value: number) => (value * serving.grams) / 100;
  const n = {
    kcal: of(per100_g.energy_kcal),
    fat: of(per100_g.fat_g),
    saturated: of(per100_g.saturated_g),
    carbohydrate: of(per100_g.carbohydrate_g),
    fibre: of(per100_g.fibre_g),
    sugars: of(per100_g.sugars_g),
    added: of(per100_g.addedSugars_g),
    protein: of(per100_g.protein_g),
    sodium: of(per100_g.sodium_mg),
  };
  const servings = Math.max(1, Math.round(net_g / serving.grams));
  return (
    [
      `Nutrition Facts${calculated ? ' (calculated)' : ''}`,
      `Servings: about ${servings}, Serv. size: ${serving.says} (${Math.round(serving.grams)}g), Amount per serving: Calories ${roundedCalories(n.kcal)}`,
      `Total Fat ${roundedFat(n.fat)}g (${percent(n.fat, DAILY.fat_g)})`,
      `Sat. Fat ${roundedFat(n.saturated)}g (${percent(n.saturated, DAILY.saturated_g)})`,
      'Trans Fat 0g',
      `Sodium ${roundedSodium(n.sodium)}mg (${percent(n.sodium, DAILY.sodium_mg)})`,
      `Total Carb. ${roundedGrams(n.carbohydrate)} (${percent(n.carbohydrate, DAILY.carbohydrate_g)})`,
      `Fiber ${roundedGrams(n.fibre)} (${percent(n.fibre, DAILY.fibre_g)})`,
      `Total Sugars ${roundedGrams(n.sugars)} (Incl. ${roundedGrams(n.added)} Added Sugars, ${percent(n.added, DAILY.addedSugars_g)})`,
      `Protein ${roundedGrams(n.protein)}`,
    ]
      .join(', ')
      .replace(', Servings', ' Servings') + '.'
  );
}

/** Energy as it is reckoned, kcal in a gram. Source: 21 CFR 101.9(c)(1)(i)(B), Atwater's factors (from memory). */
const KCAL_PER_G = { carbohydrate: 4, protein: 4, fat: 9 };
/** Grams of sodium in a gram of salt: of their atomic masses. */
const SODIUM_IN_SALT = 22.99 / 58.44;

/** What is in 100 g of a food, reckoned from what went in: sugar and salt that were added, what produce has that dissolves and that does not. */
export function calculatedNutrients(in100_g: {
  sugar_g: number;
  salt_g: number;
  soluble_g: number;
  insoluble_g: number;
  acid_g: number;
}): Nutrients {
  const sugars_g = in100_g.sugar_g + in100_g.soluble_g;
  const carbohydrate_g = sugars_g + in100_g.insoluble_g + in100_g.acid_g;
  return {
    // Fibre is counted as carbohydrate and gives next to no energy.
    energy_kcal: (sugars_g + in100_g.acid_g) * KCAL_PER_G.carbohydrate,
    fat_g: 0,
    saturated_g: 0,
    carbohydrate_g,
    fibre_g: in100_g.insoluble_g,
    sugars_g,
    addedSugars_g: in100_g.sugar_g,
    protein_g: 0,
    sodium_mg: in100_g.salt_g * SODIUM_IN_SALT * 1000,
  };
}
