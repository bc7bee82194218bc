import type { PastBatch, RecipeFilter, RecipeRow, Shelf, VersionRow } from '@cocotte/contract';
import { type BatchSummary, NOTHING_LEARNED } from '@cocotte/core/checks';
import { jarCountText } from '@cocotte/core/jars';
import { type Recipe, type RecipeVersion, upgradeRecipe } from '@cocotte/core/recipes';
import type { Trx } from '../house/database.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';
import { rowOf } from './kept.ts';

const PAGE = 50;

/** A page of the book, by name, filtered. */
export async function selectRecipes(
  trx: Trx,
  kitchenId: string,
  after: string,
  filter: RecipeFilter,
): Promise<{ recipes: RecipeRow[]; next: string | null }> {
  // The page is found first, by the rows alone: the bodies are read for those on it only.
  const found = trx('recipes as r')
    .where('r.kitchen_id', kitchenId)
    .orderBy([{ column: 'r.name' }, { column: 'r.recipe_id' }])
    .limit(PAGE + 1)
    .select('r.*');
  const key = fromKey(after, ['text', 'uuid']);
  if (key) found.whereRaw('(r.name, r.recipe_id) > (?, ?::uuid)', key);
  for (const word of filter.search.toLowerCase().split(/\s+/).filter(Boolean))
    found.whereRaw('r.search like ?', [likeWords(word)]);
  if (filter.family) found.where('r.family', filter.family);
  if (filter.tag) found.whereRaw('r.tags @> array[?]::text[]', [filter.tag]);
  if (filter.product) found.where('r.product', filter.product);
  // A recipe and its variants stand side by side.
  if (UUID.test(filter.variantOf))
    found.where(q => q.where('r.variant_of', filter.variantOf).orWhere('r.recipe_id', filter.variantOf));
  const rows = await trx(found.as('r'))
    .join('recipe_versions as v', join =>
      join
        .on('v.kitchen_id', 'r.kitchen_id')
        .andOn('v.recipe_id', 'r.recipe_id')
        .andOn('v.number', 'r.version'),
    )
    .orderBy([{ column: 'r.name' }, { column: 'r.recipe_id' }])
    .select(
      'r.recipe_id',
      'r.name',
      'r.code',
      'r.version',
      'r.product',
      'r.family',
      'r.tags',
      'r.variant_of',
      'r.cooked',
      'r.last_cooked',
      trx.raw(
        "v.body->>'foodClass' as food_class, v.body->'authority'->>'grade' as grade, v.body->'makes' as makes",
      ),
      trx.raw(
        `(select avg(t.rating)::float8 from tastings t
          where t.kitchen_id = r.kitchen_id and t.recipe_id = r.recipe_id) as rating`,
      ),
    );
  const page = rows.slice(0, PAGE);
  return {
    recipes: page.map(r => ({
      id: r.recipe_id,
      name: r.name,
      code: r.code,
      version: r.version,
      product: r.product,
      family: r.family,
      tags: r.tags,
      variantOf: r.variant_of,
      foodClass: r.food_class,
      grade: r.grade,
      makes: jarCountText(r.makes.count, r.makes.size),
      cooked: r.cooked,
      lastCooked: r.last_cooked,
      rating: r.rating,
    })),
    next: rows.length > PAGE ? toKey([page[PAGE - 1].name, page[PAGE - 1].recipe_id]) : null,
  };
}

const UUID = /^[0-9a-f-]{36}$/;

/** Families and tags with their counts, by name. */
export async function selectShelves(
  trx: Trx,
  kitchenId: string,
): Promise<{ families: Shelf[]; tags: Shelf[] }> {
  const families = await trx('recipes')
    .where({ kitchen_id: kitchenId })
    .whereNot({ family: '' })
    .groupBy('family')
    .orderBy('family')
    .limit(500)
    .select({ name: 'family' }, trx.raw('count(*)::int as count'));
  const tags = await trx('recipes')
    .where({ kitchen_id: kitchenId })
    .joinRaw('cross join lateral unnest(tags) as tag')
    .groupByRaw('tag')
    .orderByRaw('tag')
    .limit(500)
    .select(trx.raw('tag as name, count(*)::int as count'));
  return { families, tags };
}

/** Newest versions, whole, for an export. */
export async function selectWhole(
  trx: Trx,
  kitchenId: string,
  after: string,
  limit: number,
): Promise<{ recipes: Recipe[]; variantOf: (string | null)[]; total: number; next: string | null }> {
  const query = trx('recipes as r')
    .join('recipe_versions as v', join =>
      join
        .on('v.kitchen_id', 'r.kitchen_id')
        .andOn('v.recipe_id', 'r.recipe_id')
        .andOn('v.number', 'r.version'),
    )
    .leftJoin('recipes as o', join =>
      join.on('o.kitchen_id', 'r.kitchen_id').andOn('o.recipe_id', 'r.variant_of'),
    )
    .where('r.kitchen_id', kitchenId)
    .orderBy([{ column: 'r.name' }, { column: 'r.recipe_id' }])
    .limit(limit + 1)
    .select('r.name', 'r.recipe_id', 'v.body', 'o.code as variant_of');
  const key = fromKey(after, ['text', 'uuid']);
  if (key) query.whereRaw('(r.name, r.recipe_id) > (?, ?::uuid)', key);
  const rows = await query;
  const total = await trx('recipes').where({ kitchen_id: kitchenId }).count('* as n').first();
  const last = rows[limit - 1];
  const page = rows.slice(0, limit);
  return {
    recipes: page.map(r => upgradeRecipe(r.body as Recipe)),
    variantOf: page.map(r => r.variant_of ?? null),
    total: Number(total?.n ?? 0),
    next: rows.length > limit ? toKey([last.name, last.recipe_id]) : null,
  };
}

/** Versions of a recipe, newest first. */
export async function selectVersions(trx: Trx, kitchenId: string, recipeId: string): Promise<VersionRow[]> {
  const rows = await trx('recipe_versions')
    .where({ kitchen_id: kitchenId, recipe_id: recipeId })
    .orderBy('number', 'desc')
    .select('number', 'frozen', 'created_at');
  return rows.map(r => ({
    number: r.number,
    frozen: r.frozen,
    createdAt: new Date(r.created_at).toISOString(),
  }));
}

/** The last hundred batches of a recipe, newest first. */
export async function selectHistory(trx: Trx, kitchenId: string, recipeId: string): Promise<PastBatch[]> {
  const rows = await trx('batches')
    .where({ kitchen_id: kitchenId, recipe_id: recipeId })
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'batch_id', order: 'desc' },
    ])
    .limit(100)
    .select('batch_id', 'lot_code', 'made_on', 'recipe_version', 'summary');
  return rows.map(r => {
    const summary = r.summary as Partial<BatchSummary>;
    return {
      batchId: r.batch_id,
      lotCode: r.lot_code,
      madeOn: r.made_on,
      purpose: summary.purpose ?? '',
      version: r.recipe_version,
      stage: summary.stage ?? '',
      jars: summary.jars ?? 0,
      expected_pints: summary.yield?.expected_pints ?? null,
      foreseen: summary.yield?.foreseen ?? false,
      actual_pints: summary.yield?.actual_pints ?? null,
      reasons: summary.yield?.reasons ?? [],
      readings: summary.readings ?? [],
      learned: summary.learned ?? NOTHING_LEARNED,
    };
  });
}

/** One version of a recipe; the newest where none is named. */
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
    ? {
        recipeId: row.recipe_id,
        number: row.number,
        frozen: row.frozen,
        recipe: upgradeRecipe(row.body as Recipe),
      }
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

/** Whether another recipe has this code. */
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

/** Adds a recipe with its first version. */
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
    ...rowOf(recipe),
    variant_of: recipe.variantOf,
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
    .update({ ...rowOf(recipe), variant_of: recipe.variantOf, version: number });
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
