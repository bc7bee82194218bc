import type {
  BodyOf,
  ParamsOf,
  QueryOf,
  ReplyOf,
  addRecipe,
  changeRecipe,
  listRecipes,
  readRecipe,
} from '@cocotte/contract';
import { canonicalJson } from '@cocotte/core/measure';
import { type Recipe, type RecipeVersion, recipeFaults } from '@cocotte/core/recipes';
import type { Call } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import * as queries from './queries.ts';

export async function list(
  call: Call<unknown, QueryOf<typeof listRecipes>, unknown>,
): Promise<ReplyOf<typeof listRecipes>> {
  return queries.selectRecipes(call.trx, call.kitchenId, call.query.after, call.query.search);
}

export async function read(
  call: Call<ParamsOf<typeof readRecipe>, unknown, unknown>,
): Promise<RecipeVersion> {
  const version = await queries.selectVersion(call.trx, call.kitchenId, call.params.recipeId);
  if (!version) throw notFound('This recipe');
  return version;
}

/** Adds a recipe. The same id with the same recipe is acknowledged again. */
export async function add(call: Call<unknown, unknown, BodyOf<typeof addRecipe>>): Promise<RecipeVersion> {
  const { trx, kitchenId, body } = call;
  const there = await queries.selectVersion(trx, kitchenId, body.id, 1);
  if (there) {
    if (sameRecipe(there.recipe, body.recipe)) return there;
    throw problem(
      409,
      'id-taken',
      'Another recipe has this id.',
      'An id names one thing.',
      'Reload and add it again.',
    );
  }
  await checkRecipe(call, body.id, body.recipe);
  await queries.insertRecipe(
    trx,
    kitchenId,
    body.id,
    body.recipe,
    new Date(call.clock.now_ms()).toISOString(),
  );
  return { recipeId: body.id, number: 1, frozen: false, recipe: body.recipe };
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
  if (sameRecipe(current.recipe, body.recipe)) return current;
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
  await checkRecipe(call, params.recipeId, body.recipe);
  const number = current.frozen ? current.number + 1 : current.number;
  await queries.writeVersion(
    trx,
    kitchenId,
    params.recipeId,
    number,
    body.recipe,
    new Date(call.clock.now_ms()).toISOString(),
  );
  return { recipeId: params.recipeId, number, frozen: false, recipe: body.recipe };
}

async function checkRecipe(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  recipeId: string,
  recipe: Recipe,
): Promise<void> {
  const faults = recipeFaults(recipe);
  if (!/^[A-Z]{3}$/.test(recipe.code)) {
    faults.push({
      path: 'code',
      code: 'bad-code',
      what: 'The code must be three capital letters.',
      why: 'It begins every lot code of this recipe.',
      next: 'Use letters A to Z, such as PLJ.',
    });
  }
  const taken = await queries.codeTaken(call.trx, call.kitchenId, recipe.code, recipeId);
  if (taken)
    faults.push({
      path: 'code',
      code: 'code-taken',
      what: `${taken} already has the code ${recipe.code}.`,
      why: 'Two recipes with one code would share lot codes.',
      next: 'Choose other letters.',
    });
  if (faults.length > 0)
    throw new HttpProblem(
      422,
      'invalid',
      faults.map(f => ({ ...f, path: `recipe.${f.path}` })),
    );
}

function sameRecipe(a: Recipe, b: Recipe): boolean {
  return canonicalJson(a) === canonicalJson(b);
}
