import type { Recipe, RecipeVersion } from '@cocotte/core/recipes';
import { endpoint } from '../endpoint.ts';
import { figure, flag, list, maybe, shape, text, uuid } from '../rules.ts';
import { recipeRule } from './recipe-rules.ts';

export interface RecipeRow {
  id: string;
  name: string;
  code: string;
  version: number;
  foodClass: string;
  grade: string;
  makes: string;
  cooked: number;
  lastCooked: string | null;
}
const row = shape<RecipeRow>({
  id: uuid,
  name: text({ max: 80 }),
  code: text({ max: 3 }),
  version: figure({ min: 1, max: 1e6, name: 'The version' }),
  foodClass: text({ max: 40 }),
  grade: text({ max: 40 }),
  makes: text({ max: 40 }),
  cooked: figure({ min: 0, max: 1e9, name: 'The batches' }),
  lastCooked: maybe(text({ max: 10 })),
});

const version = shape<RecipeVersion>({
  recipeId: uuid,
  number: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
  frozen: flag,
  recipe: recipeRule,
});
const recipeParams = shape<{ recipeId: string }>({ recipeId: uuid });

export const listRecipes = endpoint({
  name: 'recipes.list',
  method: 'GET',
  path: '/api/recipes',
  who: 'viewer',
  summary: 'The recipe book, by name; 50 a page after the name and id given',
  query: shape<{ after: string; search: string }>({ after: text({ max: 200 }), search: text({ max: 100 }) }),
  reply: shape<{ recipes: RecipeRow[]; next: string | null }>({
    recipes: list(row, { max: 50 }),
    next: maybe(text({ max: 200 })),
  }),
});
export const readRecipe = endpoint({
  name: 'recipes.read',
  method: 'GET',
  path: '/api/recipes/:recipeId',
  who: 'viewer',
  summary: 'A recipe, its newest version',
  params: recipeParams,
  reply: version,
});
export const addRecipe = endpoint({
  name: 'recipes.add',
  method: 'POST',
  path: '/api/recipes',
  who: 'cook',
  summary: 'Add a recipe',
  body: shape<{ id: string; recipe: Recipe }>({ id: uuid, recipe: recipeRule }),
  reply: version,
});
export const changeRecipe = endpoint({
  name: 'recipes.change',
  method: 'PUT',
  path: '/api/recipes/:recipeId',
  who: 'cook',
  summary:
    'Change a recipe; a version that a batch has used stays as it is and the change becomes the next one',
  params: recipeParams,
  body: shape<{ version: number; recipe: Recipe }>({
    version: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
    recipe: recipeRule,
  }),
  reply: version,
});
