export * from './recipes.ts';
export * from './confirmations.ts';
export { recipeRule } from './recipe-rules.ts';
export { PIECE_UNITS } from './ingredient-rules.ts';
