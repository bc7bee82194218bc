export {
  type AcidKind,
  acidKind,
  acidVolume_mL,
  asBottledLemon_mL,
  BOTTLED_JUICE_PCT,
  countsAsBarrier,
  PICKLING_STRENGTH_PCT,
  replaceAcid,
  type Replacement,
} from './acids.ts';
export { blankIngredient } from './blank-ingredient.ts';
export {
  type FruitGroup,
  type Ingredient,
  type IngredientSource,
  LINE_ROLES,
  type NamedIngredient,
  type LineRole,
  type SetKind,
} from './ingredient.ts';
export { densityOf, formsOf, libraryOf, sourceOf, usualTrim } from './library.ts';
export { type Found, type NameIndex, nameIndex, strengthIn } from './naming.ts';
export { acidsNamed, isLowAcid, isLowAcidByLibrary, shippedAs } from './low-acid.ts';
export { type Composition, COMPOSITIONS } from './data/composition.ts';
