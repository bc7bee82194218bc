export { type RecipeRow, addRecipe, changeRecipe, listRecipes, readRecipe } from './recipes.ts';
export { recipeRule } from './recipe-rules.ts';
