import type {
  BodyOf,
  ParamsOf,
  QueryOf,
  ReplyOf,
  addRecipe,
  changeRecipe,
  exportRecipes,
  listRecipes,
  listShelves,
  listVersions,
  readRecipe,
  readVersion,
  recipeHistory,
} from '@cocotte/contract';
import { canonicalJson, dayOf } from '@cocotte/core/measure';
import type { Recipe, RecipeVersion } from '@cocotte/core/recipes';
import type { Call } from '../house/mount.ts';
import { HttpProblem, idTaken, notFound } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { asKept, codeFault, faultsOf } from './kept.ts';
import * as queries from './queries.ts';

/** A page of the book. */
export async function list(
  call: Call<unknown, QueryOf<typeof listRecipes>, unknown>,
): Promise<ReplyOf<typeof listRecipes>> {
  const { after, ...filter } = call.query;
  return queries.selectRecipes(call.trx, call.kitchenId, after, filter);
}

/** Families and tags there are, with how many recipes each. */
export async function shelves(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof listShelves>> {
  return queries.selectShelves(call.trx, call.kitchenId);
}

/** The newest version of a recipe. */
export async function read(
  call: Call<ParamsOf<typeof readRecipe>, unknown, unknown>,
): Promise<RecipeVersion> {
  const version = await queries.selectVersion(call.trx, call.kitchenId, call.params.recipeId);
  if (!version) throw notFound('This recipe');
  return version;
}

/** Its versions. */
export async function versions(
  call: Call<ParamsOf<typeof listVersions>, unknown, unknown>,
): Promise<ReplyOf<typeof listVersions>> {
  const rows = await queries.selectVersions(call.trx, call.kitchenId, call.params.recipeId);
  if (rows.length === 0) throw notFound('This recipe');
  return { versions: rows };
}

/** One of them. */
export async function version(
  call: Call<ParamsOf<typeof readVersion>, unknown, unknown>,
): Promise<RecipeVersion> {
  const { recipeId, number } = call.params;
  const found = /^[1-9]\d*$/.test(number)
    ? await queries.selectVersion(call.trx, call.kitchenId, recipeId, Number(number))
    : undefined;
  if (!found) throw notFound('This version of the recipe');
  return found;
}

/** Past batches of a recipe: what was foreseen and what came. */
export async function history(
  call: Call<ParamsOf<typeof recipeHistory>, unknown, unknown>,
): Promise<ReplyOf<typeof recipeHistory>> {
  await read(call);
  return { batches: await queries.selectHistory(call.trx, call.kitchenId, call.params.recipeId) };
}

const EXPORT_PAGE = 100;

/** A page of the book as it is taken out: the newest version of each. */
export async function exportPage(
  call: Call<unknown, QueryOf<typeof exportRecipes>, unknown>,
): Promise<ReplyOf<typeof exportRecipes>> {
  return queries.selectWhole(call.trx, call.kitchenId, call.query.after, EXPORT_PAGE);
}

/** Adds a recipe. The same id with the same recipe is acknowledged again. */
export async function add(call: Call<unknown, unknown, BodyOf<typeof addRecipe>>): Promise<RecipeVersion> {
  const { trx, kitchenId, body } = call;
  const recipe = asKept(body.recipe, await today(call));
  const there = await queries.selectVersion(trx, kitchenId, body.id, 1);
  if (there) {
    if (sameRecipe(there.recipe, recipe)) return there;
    throw idTaken('recipe');
  }
  await checkRecipe(call, body.id, recipe);
  await queries.insertRecipe(trx, kitchenId, body.id, recipe, new Date(call.clock.now_ms()).toISOString());
  return { recipeId: body.id, number: 1, frozen: false, recipe };
}

/** Changes a recipe: in place while no batch has used the version, else as the next version. */
export async function change(
  call: Call<ParamsOf<typeof changeRecipe>, unknown, BodyOf<typeof changeRecipe>>,
): Promise<RecipeVersion> {
  const { trx, kitchenId, body, params } = call;
  const locked = await queries.lockRecipe(trx, kitchenId, params.recipeId);
  if (!locked) throw notFound('This recipe');
  const current = (await queries.selectVersion(
    trx,
    kitchenId,
    params.recipeId,
    locked.version,
  )) as RecipeVersion;
  const recipe = asKept(body.recipe, await today(call));
  if (sameRecipe(current.recipe, recipe)) return current;
  if (locked.version !== body.version) {
    throw new HttpProblem(
      409,
      'stale',
      [
        {
          path: '',
          code: 'stale',
          what: 'Somebody changed this recipe meanwhile.',
          why: 'Saving would undo what they did.',
          next: 'Look at both and choose.',
        },
      ],
      current,
    );
  }
  await checkRecipe(call, params.recipeId, recipe);
  const number = current.frozen ? current.number + 1 : current.number;
  await queries.writeVersion(
    trx,
    kitchenId,
    params.recipeId,
    number,
    recipe,
    new Date(call.clock.now_ms()).toISOString(),
  );
  return { recipeId: params.recipeId, number, frozen: false, recipe };
}

type InKitchen = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'clock'>;

async function today(call: InKitchen): Promise<string> {
  return dayOf(call.clock.now_ms(), (await readKitchen(call)).zone);
}

async function checkRecipe(call: InKitchen, recipeId: string, recipe: Recipe): Promise<void> {
  const faults = faultsOf(recipe, await today(call));
  const taken = await queries.codeTaken(call.trx, call.kitchenId, recipe.code, recipeId);
  if (taken) faults.push(codeFault(taken, recipe.code));
  if (recipe.variantOf === recipeId || (recipe.variantOf && !(await isRoot(call, recipe.variantOf))))
    faults.push({
      path: 'variantOf',
      code: 'no-such-recipe',
      what: 'The recipe this is a variant of is not in the book, or is itself a variant.',
      why: 'Variants stand side by side with the recipe they vary.',
      next: 'Choose a recipe that is no variant.',
    });
  if (faults.length > 0)
    throw new HttpProblem(
      422,
      'invalid',
      faults.map(f => ({ ...f, path: `recipe.${f.path}` })),
    );
}

async function isRoot(call: InKitchen, recipeId: string): Promise<boolean> {
  const version = await queries.selectVersion(call.trx, call.kitchenId, recipeId);
  return version !== undefined && version.recipe.variantOf === null;
}

function sameRecipe(a: Recipe, b: Recipe): boolean {
  return canonicalJson(a) === canonicalJson(b);
}
