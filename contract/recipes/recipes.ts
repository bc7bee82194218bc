import type { Learned } from '@cocotte/core/checks';
import type { Ingredient } from '@cocotte/core/ingredients';
import type { Recipe, RecipeVersion } from '@cocotte/core/recipes';
import type { TrialReading } from '@cocotte/core/review';
import { PRODUCTS } from '@cocotte/core/times';
import { endpoint } from '../endpoint.ts';
import { choice, day, figure, flag, instant, list, maybe, shape, text, uuid } from '../rules.ts';
import { ingredientRule } from './ingredient-rules.ts';
import { learnedRule, trialReading } from './past-rules.ts';
import { recipeRule } from './recipe-rules.ts';

/** A recipe as the book lists it. */
export interface RecipeRow {
  id: string;
  name: string;
  code: string;
  version: number;
  product: string;
  family: string;
  tags: string[];
  variantOf: string | null;
  foodClass: string;
  grade: string;
  makes: string;
  cooked: number;
  lastCooked: string | null;
  /** Mean of its tastings, 1 to 5; null before the first. */
  rating: number | null;
}
const row = shape<RecipeRow>({
  id: uuid,
  name: text({ max: 80 }),
  code: text({ max: 3 }),
  version: figure({ min: 1, max: 1e6, name: 'The version' }),
  product: text({ max: 40 }),
  family: text({ max: 40 }),
  tags: list(text({ max: 30 }), { max: 20 }),
  variantOf: maybe(uuid),
  foodClass: text({ max: 40 }),
  grade: text({ max: 40 }),
  makes: text({ max: 40 }),
  cooked: figure({ min: 0, max: 1e9, name: 'The batches' }),
  lastCooked: maybe(text({ max: 10 })),
  rating: maybe(figure({ min: 1, max: 5, name: 'The rating' })),
});

const version = shape<RecipeVersion>({
  recipeId: uuid,
  number: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
  frozen: flag,
  recipe: recipeRule,
});
const recipeParams = shape<{ recipeId: string }>({ recipeId: uuid });

/** What of the book is shown; empty texts choose nothing. */
export interface RecipeFilter {
  search: string;
  family: string;
  tag: string;
  product: string;
  variantOf: string;
}
/** The recipe book, by name; 50 a page after the key given; by words anywhere in it, family, tag, kind of product, or the recipe they are variants of. */
export const listRecipes = endpoint({
  name: 'recipes.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes',
  who: 'viewer',
  summary:
    'The recipe book, by name; 50 a page after the key given; by words anywhere in it, family, tag, kind of product, or the recipe they are variants of',
  query: shape<RecipeFilter & { after: string }>({
    after: text({ max: 400 }),
    search: text({ max: 100 }),
    family: text({ max: 40 }),
    tag: text({ max: 30 }),
    product: choice(['', ...PRODUCTS]) as never,
    variantOf: text({ max: 36 }),
  }),
  reply: shape<{ recipes: RecipeRow[]; next: string | null }>({
    recipes: list(row, { max: 50 }),
    next: maybe(text({ max: 400 })),
  }),
});

/** A family or tag, and how many recipes bear it. */
export interface Shelf {
  name: string;
  count: number;
}
const shelf = shape<Shelf>({
  name: text({ max: 40 }),
  count: figure({ min: 0, max: 1e9, whole: true, name: 'The count' }),
});
/** Families and tags of the recipe book, with their counts. */
export const listShelves = endpoint({
  name: 'recipes.shelves',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipe-shelves',
  who: 'viewer',
  summary: 'Families and tags of the recipe book, with their counts',
  reply: shape<{ families: Shelf[]; tags: Shelf[] }>({
    families: list(shelf, { max: 500 }),
    tags: list(shelf, { max: 500 }),
  }),
});
/** A recipe, its newest version. */
export const readRecipe = endpoint({
  name: 'recipes.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId',
  who: 'viewer',
  summary: 'A recipe, its newest version',
  params: recipeParams,
  reply: version,
});
/** Add a recipe. */
export const addRecipe = endpoint({
  name: 'recipes.add',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/recipes',
  who: 'cook',
  summary: 'Add a recipe',
  body: shape<{ id: string; recipe: Recipe }>({ id: uuid, recipe: recipeRule }),
  reply: version,
});
/** Change a recipe; a version that a batch has used stays as it is and the change becomes the next one. */
export const changeRecipe = endpoint({
  name: 'recipes.change',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId',
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

/** One version of a recipe, and whether a batch has used it. */
export interface VersionRow {
  number: number;
  frozen: boolean;
  createdAt: string;
}
/** Every version of a recipe, newest first. */
export const listVersions = endpoint({
  name: 'recipes.versions',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/versions',
  who: 'viewer',
  summary: 'Every version of a recipe, newest first',
  params: recipeParams,
  reply: shape<{ versions: VersionRow[] }>({
    versions: list(
      shape<VersionRow>({
        number: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
        frozen: flag,
        createdAt: instant,
      }),
      { max: 10_000 },
    ),
  }),
});
/** One version of a recipe. */
export const readVersion = endpoint({
  name: 'recipes.version',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/versions/:number',
  who: 'viewer',
  summary: 'One version of a recipe',
  params: shape<{ recipeId: string; number: string }>({ recipeId: uuid, number: text({ min: 1, max: 7 }) }),
  reply: version,
});

/** What a batch of a recipe was foreseen to give, and gave. */
export interface PastBatch {
  batchId: string;
  lotCode: string;
  madeOn: string;
  purpose: string;
  version: number;
  stage: string;
  jars: number;
  expected_pints: number | null;
  /** Expected by a forecast, which it can be held against; otherwise only wanted. */
  foreseen: boolean;
  actual_pints: number | null;
  reasons: string[];
  /** Acidity that was read, oldest first. */
  readings: TrialReading[];
  learned: Learned;
}
const pints = maybe(figure({ min: 0, max: 1e6, name: 'The pints' }));
/** The last hundred batches of a recipe: what was foreseen, what came out, and why. */
export const recipeHistory = endpoint({
  name: 'recipes.history',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/history',
  who: 'viewer',
  summary: 'The last hundred batches of a recipe: what was foreseen, what came out, and why',
  params: recipeParams,
  reply: shape<{ batches: PastBatch[] }>({
    batches: list(
      shape<PastBatch>({
        batchId: uuid,
        lotCode: text({ max: 40 }),
        madeOn: day,
        purpose: text({ max: 10 }),
        version: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
        stage: text({ max: 20 }),
        jars: figure({ min: 0, max: 1e6, whole: true, name: 'The jars' }),
        expected_pints: pints,
        foreseen: flag,
        actual_pints: pints,
        reasons: list(text({ max: 400 }), { max: 100 }),
        readings: list(trialReading, { max: 1000 }),
        learned: learnedRule,
      }),
      { max: 100 },
    ),
  }),
});

/** A rating with its notes. */
export interface Tasting {
  id: string;
  day: string;
  rating: number;
  notes: string;
  person: string;
  /** Lot that was tasted, or empty. */
  lotCode: string;
}
/** A tasting as it is entered. */
export interface AddTasting {
  id: string;
  rating: number;
  notes: string;
  lotCode: string;
}
const rating = figure({ min: 1, max: 5, whole: true, name: 'The rating', why: 'It runs from 1 to 5.' });
const lotCode = text({ max: 40 });
/** Notes and ratings after tasting, newest first. */
export const listTastings = endpoint({
  name: 'recipes.tastings',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/tastings',
  who: 'viewer',
  summary: 'Notes and ratings after tasting, newest first',
  params: recipeParams,
  reply: shape<{ tastings: Tasting[] }>({
    tastings: list(
      shape<Tasting>({
        id: uuid,
        day,
        rating,
        notes: text({ max: 2000 }),
        person: text({ max: 80 }),
        lotCode,
      }),
      { max: 500 },
    ),
  }),
});
/** Note and rate a recipe after tasting; the same id is acknowledged again. */
export const addTasting = endpoint({
  name: 'recipes.taste',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/tastings',
  who: 'cook',
  summary: 'Note and rate a recipe after tasting; the same id is acknowledged again',
  params: recipeParams,
  body: shape<AddTasting>({ id: uuid, rating, notes: text({ max: 2000, name: 'The notes' }), lotCode }),
  reply: shape<{ id: string }>({ id: uuid }),
});

/** Whole recipes, newest versions, 100 a page after the key given, each with the code of the recipe it is a variant of: what an export file is written from. */
export const exportRecipes = endpoint({
  name: 'recipes.export',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipe-export',
  who: 'viewer',
  summary:
    'Whole recipes, newest versions, 100 a page after the key given, each with the code of the recipe it is a variant of: what an export file is written from',
  query: shape<{ after: string }>({ after: text({ max: 400 }) }),
  reply: shape<{ recipes: Recipe[]; variantOf: (string | null)[]; total: number; next: string | null }>({
    recipes: list(recipeRule, { max: 100 }),
    variantOf: list(maybe(text({ max: 3 })), { max: 100 }),
    total: figure({ min: 0, max: 1e9, whole: true, name: 'The total' }),
    next: maybe(text({ max: 400 })),
  }),
});

/** Most recipes that one part of an import carries. */
export const IMPORT_PART = 100;
/** A part of an import, with the place of its first recipe. */
export interface ImportPart {
  from: number;
  recipes: Recipe[];
  /** For each of them, the code of the recipe it is a variant of: one in the file, else one in the book. */
  variantOf: (string | null)[];
}
/** Lay aside a part of an import, with the code of the recipe that each is a variant of; each recipe is checked, and nothing is in the book before the import is finished. */
export const importPart = endpoint({
  name: 'recipes.importPart',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/recipe-imports/:importId/parts',
  who: 'cook',
  summary:
    'Lay aside a part of an import, with the code of the recipe that each is a variant of; each recipe is checked, and nothing is in the book before the import is finished',
  params: shape<{ importId: string }>({ importId: uuid }),
  body: shape<ImportPart>({
    from: figure({ min: 0, max: 1e6, whole: true, name: 'The place of the first recipe' }),
    recipes: list(recipeRule, { min: 1, max: IMPORT_PART }),
    variantOf: list(maybe(text({ min: 3, max: 3 })), { min: 1, max: IMPORT_PART }),
  }),
  reply: shape<{ kept: number }>({ kept: figure({ min: 0, max: 1e6, name: 'The count' }) }),
});
/** Put every recipe of an import into the book, or none; a code that is taken is refused, or replaced where asked. */
export const finishImport = endpoint({
  name: 'recipes.finishImport',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/recipe-imports/:importId/finish',
  who: 'cook',
  summary:
    'Put every recipe of an import into the book, or none; a code that is taken is refused, or replaced where asked',
  params: shape<{ importId: string }>({ importId: uuid }),
  body: shape<{ count: number; newCodes: boolean }>({
    count: figure({ min: 1, max: 1e6, whole: true, name: 'The count' }),
    newCodes: flag,
  }),
  reply: shape<{ added: number; recoded: number }>({
    added: figure({ min: 0, max: 1e6, name: 'The count' }),
    recoded: figure({ min: 0, max: 1e6, name: 'The count' }),
  }),
});

/** A kitchen's own ingredient, or its own figures for a shipped one. */
export interface OwnIngredient {
  ingredient: Ingredient;
  version: number;
}
const own = shape<OwnIngredient>({
  ingredient: ingredientRule,
  version: figure({ min: 1, max: 1e9, whole: true, name: 'The version' }),
});
const ingredientParams = shape<{ ingredientId: string }>({ ingredientId: text({ min: 1, max: 60 }) });
/** The kitchen's own ingredients and overrides; the shipped library is read from the application. */
export const listIngredients = endpoint({
  name: 'ingredients.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/ingredients',
  who: 'viewer',
  summary: "The kitchen's own ingredients and overrides; the shipped library is read from the application",
  reply: shape<{ ingredients: OwnIngredient[] }>({ ingredients: list(own, { max: 2000 }) }),
});
/** Add an ingredient, or override a shipped one in this kitchen; version 0 is a new one, a stale one is refused. */
export const putIngredient = endpoint({
  name: 'ingredients.put',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/ingredients/:ingredientId',
  who: 'cook',
  summary:
    'Add an ingredient, or override a shipped one in this kitchen; version 0 is a new one, a stale one is refused',
  params: ingredientParams,
  body: shape<{ version: number; ingredient: Ingredient }>({
    version: figure({ min: 0, max: 1e9, whole: true, name: 'The version' }),
    ingredient: ingredientRule,
  }),
  reply: own,
});
/** Take back an override, or remove an own ingredient; recipes keep the facts they hold. */
export const removeIngredient = endpoint({
  name: 'ingredients.remove',
  method: 'DELETE',
  path: '/api/kitchens/:kitchenId/ingredients/:ingredientId',
  who: 'cook',
  summary: 'Take back an override, or remove an own ingredient; recipes keep the facts they hold',
  params: ingredientParams,
  reply: shape<{ removed: boolean }>({ removed: flag }),
});
