import { byName } from '../../measure/index.ts';
import type { Ingredient, IngredientSource } from '../ingredient.ts';
import { FRUITS } from './fruits.ts';
import { HERBS, SPICES } from './herbs-spices.ts';
import { ACIDS, OTHERS, SALTS, SETS, SWEETENERS } from './pantry.ts';
import { VEGETABLES } from './vegetables.ts';

/**
 * The shipped library of ingredients. Weights are of one US cup (236.588 mL) or of one piece; percentages by mass.
 * Nothing was read from the publications named in SOURCES: what is marked "from memory" is to be held against them.
 */
export const INGREDIENT_SOURCES = byName<IngredientSource>({
  composition: {
    title: 'USDA FoodData Central, SR Legacy: water; soluble solids rounded from sugars and acids',
    fromMemory: true,
  },
  cup: { title: 'Weight of one measured cup, common kitchen practice', fromMemory: true },
  units: { title: 'GNU units, definitions.units: kitchen densities', fromMemory: false },
  piece: { title: 'Weight of one, medium unless said, common practice', fromMemory: true },
  trim: { title: 'What trimming leaves of what was bought, common practice', fromMemory: true },
  thaw: { title: 'What draining leaves of thawed fruit, common practice', fromMemory: true },
  bushel: {
    title: 'Customary bushel weights by commodity; USDA Agricultural Handbook 697',
    fromMemory: true,
  },
  ph: { title: 'FDA, Approximate pH of Foods and Food Products', fromMemory: true },
  acid: { title: 'Main acid and titratable acidity, common food-chemistry tables', fromMemory: true },
  safe: {
    title: "The trade's list of fruit that is not safely acid by itself; 4.6 of 21 CFR 114",
    fromMemory: true,
  },
  group: { title: '21 CFR 150.160(b), fruit groups of jam and preserves', fromMemory: true },
  allergen: {
    title: 'FALCPA and the FASTER Act: major allergens; sulphites by 21 CFR 101.100',
    fromMemory: true,
  },
  label: { title: 'Common or usual name, 21 CFR 101.4', fromMemory: true },
  dried: { title: 'Grams fresh that one gram dried came from, common practice', fromMemory: true },
  refusal: {
    title: 'What the trade refuses for boiling water; see the rules of the review',
    fromMemory: true,
  },
  strength: { title: 'Acid by weight as labelled, common practice', fromMemory: true },
});

/** Every shipped ingredient. */
export const INGREDIENTS: readonly Ingredient[] = [
  ...FRUITS,
  ...VEGETABLES,
  ...HERBS,
  ...SPICES,
  ...SWEETENERS,
  ...ACIDS,
  ...SALTS,
  ...SETS,
  ...OTHERS,
];
