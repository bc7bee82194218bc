import type {
  BodyOf,
  ParamsOf,
  ReplyOf,
  dropPlan,
  listPlans,
  putPlan,
  readShopping,
} from '@cocotte/contract';
import { Fraction, dayOf } from '@cocotte/core/measure';
import { type Recipe, upgradeRecipe } from '@cocotte/core/recipes';
import { type PlannedBatch, type ShelfItem, type ShoppingLine, shoppingList } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { selectVersion } from '../recipes/queries.ts';
import { bareShelf } from './shelf.ts';

type AnyCall = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>;

/** Planned batches that were not started: a batch is started under the id of its plan. */
async function selectPlans(call: AnyCall): Promise<(PlannedBatch & { recipe: Recipe })[]> {
  const { rows } = await call.trx.raw<{
    rows: {
      plan_id: string;
      day: string;
      recipe_id: string;
      factor: string;
      jars: PlannedBatch['jars'];
      body: Recipe;
    }[];
  }>(
    `select p.*, v.body from plans p
     join recipes r on r.kitchen_id = p.kitchen_id and r.recipe_id = p.recipe_id
     join recipe_versions v on v.kitchen_id = r.kitchen_id and v.recipe_id = r.recipe_id and v.number = r.version
     where p.kitchen_id = ? and not exists (select 1 from batches b where b.kitchen_id = p.kitchen_id and b.batch_id = p.plan_id)
     order by p.day, p.plan_id limit 500`,
    [call.kitchenId],
  );
  return rows.map(r => {
    const recipe = upgradeRecipe(r.body);
    return {
      id: r.plan_id,
      day: r.day,
      recipeId: r.recipe_id,
      name: recipe.name,
      factor: r.factor,
      jars: r.jars,
      recipe,
    };
  });
}

/** Planned batches, soonest first. */
export async function list(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof listPlans>> {
  return { plans: (await selectPlans(call)).map(({ recipe: _recipe, ...plan }) => plan) };
}

/** Plans a batch, or changes the plan. */
export async function put(
  call: Call<ParamsOf<typeof putPlan>, unknown, BodyOf<typeof putPlan>>,
): Promise<ReplyOf<typeof putPlan>> {
  const { trx, kitchenId, body, params } = call;
  if (params.planId !== body.id)
    throw problem(422, {
      code: 'ids-differ',
      what: 'The plan names another id.',
      why: 'An id names one thing.',
      next: 'Send the same id in both places.',
      path: 'id',
    });
  const version = await selectVersion(trx, kitchenId, body.recipeId);
  if (!version) throw notFound('This recipe');
  const factor = new Fraction(body.factor);
  if (factor.valueOf() <= 0 || body.jars.every(j => j.count === 0))
    throw problem(422, {
      code: 'bad-scale',
      what: 'No jar is planned.',
      why: 'The list follows from it.',
      next: 'Choose how many jars.',
      path: 'jars',
    });
  if (version.recipe.sketch)
    throw problem(422, {
      code: 'no-lines',
      what: 'This recipe has no lines yet.',
      why: 'What it needs is not known.',
      next: 'Cook it first, then plan it.',
      path: 'recipeId',
    });
  const { zone } = await readKitchen(call);
  if (body.day < dayOf(call.clock.now_ms(), zone))
    throw problem(422, {
      code: 'past-day',
      what: 'That day has passed.',
      why: 'A plan is for a day to come.',
      next: 'Choose today or later.',
      path: 'day',
    });
  const jars = body.jars.filter(j => j.count > 0);
  await trx('plans')
    .insert({
      kitchen_id: kitchenId,
      plan_id: body.id,
      day: body.day,
      recipe_id: body.recipeId,
      factor: body.factor,
      jars: JSON.stringify(jars),
    })
    .onConflict(['kitchen_id', 'plan_id'])
    .merge(['day', 'recipe_id', 'factor', 'jars']);
  return { ...body, jars, name: version.recipe.name };
}

/** Gives a plan up: what was kept for it is free again. */
export async function drop(
  call: Call<ParamsOf<typeof dropPlan>, unknown, unknown>,
): Promise<{ removed: boolean }> {
  const n = await call
    .trx('plans')
    .where({ kitchen_id: call.kitchenId, plan_id: call.params.planId })
    .delete();
  return { removed: n > 0 };
}

/**
 * The list for everything that is planned.
 *
 * @param shelf  reads the shelf; not called while nothing is planned
 */
export async function shoppingFor(
  call: AnyCall,
  shelf: () => Promise<ShelfItem[]> = () => bareShelf(call),
): Promise<ShoppingLine[]> {
  const plans = await selectPlans(call);
  if (plans.length === 0) return [];
  const recipes = new Map(plans.map(p => [p.recipeId, p.recipe]));
  return shoppingList(plans, recipes, await shelf());
}

/** What to buy for every plan, in packages. */
export async function shopping(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof readShopping>> {
  const { zone } = await readKitchen(call);
  return { lines: await shoppingFor(call), day: dayOf(call.clock.now_ms(), zone) };
}
