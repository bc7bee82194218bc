import type { RecipeRow } from '@cocotte/contract';
import { type Recipe, type RecipeVersion, jarCountText } from '@cocotte/core/recipes';
import type { Trx } from '../house/database.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';

const PAGE = 50;

export async function selectRecipes(
  trx: Trx,
  kitchenId: string,
  after: string,
  search: string,
): Promise<{ recipes: RecipeRow[]; next: string | null }> {
  const query = trx('recipes as r')
    .join('recipe_versions as v', join =>
      join
        .on('v.kitchen_id', 'r.kitchen_id')
        .andOn('v.recipe_id', 'r.recipe_id')
        .andOn('v.number', 'r.version'),
    )
    .where('r.kitchen_id', kitchenId)
    .orderBy([{ column: 'r.name' }, { column: 'r.recipe_id' }])
    .limit(PAGE + 1)
    .select(
      'r.recipe_id',
      'r.name',
      'r.code',
      'r.version',
      'r.cooked',
      'r.last_cooked',
      trx.raw(
        "v.body->>'foodClass' as food_class, v.body->'authority'->>'grade' as grade, v.body->'makes' as makes",
      ),
    );
  const key = fromKey(after, 2);
  if (key) query.whereRaw('(r.name, r.recipe_id) > (?, ?::uuid)', key);
  if (search) query.whereRaw('(r.name ilike ? or r.code ilike ?)', [likeWords(search), likeWords(search)]);
  const rows = await query;
  const page = rows.slice(0, PAGE);
  return {
    recipes: page.map(r => ({
      id: r.recipe_id,
      name: r.name,
      code: r.code,
      version: r.version,
      foodClass: r.food_class,
      grade: r.grade,
      makes: jarCountText(r.makes.count, r.makes.size),
      cooked: r.cooked,
      lastCooked: r.last_cooked,
    })),
    next: rows.length > PAGE ? toKey([page[PAGE - 1].name, page[PAGE - 1].recipe_id]) : null,
  };
}

export async function selectVersion(
  trx: Trx,
  kitchenId: string,
  recipeId: string,
  number?: number,
): Promise<RecipeVersion | undefined> {
  const query = trx('recipe_versions as v')
    .where({ 'v.kitchen_id': kitchenId, 'v.recipe_id': recipeId })
    .select('v.recipe_id', 'v.number', 'v.frozen', 'v.body')
    .first();
  if (number === undefined)
    query.join('recipes as r', join =>
      join
        .on('r.kitchen_id', 'v.kitchen_id')
        .andOn('r.recipe_id', 'v.recipe_id')
        .andOn('r.version', 'v.number'),
    );
  else query.where('v.number', number);
  const row = await query;
  return row
    ? { recipeId: row.recipe_id, number: row.number, frozen: row.frozen, recipe: row.body as Recipe }
    : undefined;
}

/** Locks the recipe's row, so that its newest version stays the newest. */
export async function lockRecipe(
  trx: Trx,
  kitchenId: string,
  recipeId: string,
): Promise<{ version: number } | undefined> {
  return trx('recipes')
    .where({ kitchen_id: kitchenId, recipe_id: recipeId })
    .forUpdate()
    .select('version')
    .first();
}

export async function codeTaken(
  trx: Trx,
  kitchenId: string,
  code: string,
  exceptId: string,
): Promise<string | undefined> {
  const row = await trx('recipes')
    .where({ kitchen_id: kitchenId, code })
    .whereNot({ recipe_id: exceptId })
    .select('name')
    .first();
  return row?.name as string | undefined;
}

export async function insertRecipe(
  trx: Trx,
  kitchenId: string,
  recipeId: string,
  recipe: Recipe,
  now: string,
): Promise<void> {
  await trx('recipes').insert({
    kitchen_id: kitchenId,
    recipe_id: recipeId,
    name: recipe.name,
    code: recipe.code,
    version: 1,
    created_at: now,
  });
  await trx('recipe_versions').insert({
    kitchen_id: kitchenId,
    recipe_id: recipeId,
    number: 1,
    body: JSON.stringify(recipe),
    created_at: now,
  });
}

/** Writes the newest version: over itself while unused, as the next one when frozen. */
export async function writeVersion(
  trx: Trx,
  kitchenId: string,
  recipeId: string,
  number: number,
  recipe: Recipe,
  now: string,
): Promise<void> {
  await trx('recipe_versions')
    .insert({
      kitchen_id: kitchenId,
      recipe_id: recipeId,
      number,
      body: JSON.stringify(recipe),
      created_at: now,
    })
    .onConflict(['kitchen_id', 'recipe_id', 'number'])
    .merge({ body: JSON.stringify(recipe) });
  await trx('recipes')
    .where({ kitchen_id: kitchenId, recipe_id: recipeId })
    .update({ name: recipe.name, code: recipe.code, version: number });
}

/** Freezes a version that a batch uses, and counts the batch. */
export async function freezeVersion(
  trx: Trx,
  kitchenId: string,
  recipeId: string,
  number: number,
  day: string,
): Promise<void> {
  await trx('recipe_versions')
    .where({ kitchen_id: kitchenId, recipe_id: recipeId, number })
    .update({ frozen: true });
  await trx('recipes')
    .where({ kitchen_id: kitchenId, recipe_id: recipeId })
    .update({
      cooked: trx.raw('cooked + 1'),
      last_cooked: trx.raw('greatest(coalesce(last_cooked, ?::date), ?::date)', [day, day]),
    });
}
