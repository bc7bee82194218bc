import type {
  BodyOf,
  OwnIngredient,
  ParamsOf,
  ReplyOf,
  listIngredients,
  putIngredient,
  removeIngredient,
} from '@cocotte/contract';
import { canonicalJson } from '@cocotte/core/measure';
import type { Ingredient } from '@cocotte/core/ingredients';
import type { Call } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';

/** Most ingredients a kitchen keeps of its own. */
const LIMIT = 2000;

const fromRow = (row: { body: Ingredient; version: number }): OwnIngredient => ({
  ingredient: row.body,
  version: row.version,
});

/** The kitchen's own ingredients and figures. */
export async function list(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof listIngredients>> {
  const rows = await call
    .trx('ingredients')
    .where({ kitchen_id: call.kitchenId })
    .orderBy('ingredient_id')
    .limit(LIMIT);
  return { ingredients: rows.map(fromRow) };
}

/** Adds or changes one; the shipped library is never touched, an override stands in front of it. */
export async function put(
  call: Call<ParamsOf<typeof putIngredient>, unknown, BodyOf<typeof putIngredient>>,
): Promise<OwnIngredient> {
  const { trx, kitchenId, params, body } = call;
  const { ingredient, version } = body;
  if (ingredient.id !== params.ingredientId)
    throw problem(422, {
      code: 'id-differs',
      what: 'The id in the path and in the ingredient differ.',
      why: 'One of them would be lost.',
      next: 'Send the same id twice.',
      path: 'ingredient.id',
    });
  const key = { kitchen_id: kitchenId, ingredient_id: ingredient.id };
  const current = await trx('ingredients').where(key).forUpdate().first();
  if (current && canonicalJson(current.body) === canonicalJson(ingredient)) return fromRow(current);
  if ((current?.version ?? 0) !== version)
    throw new HttpProblem(
      409,
      'stale',
      [
        {
          path: '',
          code: 'stale',
          what: 'Somebody changed this ingredient meanwhile.',
          why: 'Saving would undo what they did.',
          next: 'Look at both and choose.',
        },
      ],
      current ? fromRow(current) : undefined,
    );
  if (!current) {
    const count = await trx('ingredients').where({ kitchen_id: kitchenId }).count('* as n').first();
    if (Number(count?.n) >= LIMIT)
      throw problem(422, {
        code: 'too-many',
        what: `There are ${LIMIT} own ingredients already.`,
        why: 'The whole library is held in the browser.',
        next: 'Remove some that are not used.',
      });
    await trx('ingredients').insert({ ...key, body: JSON.stringify(ingredient), version: 1 });
    return { ingredient, version: 1 };
  }
  await trx('ingredients')
    .where(key)
    .update({ body: JSON.stringify(ingredient), version: version + 1 });
  return { ingredient, version: version + 1 };
}

/** Takes back an override or an own ingredient. Recipes hold their own facts and keep them. */
export async function remove(
  call: Call<ParamsOf<typeof removeIngredient>, unknown, unknown>,
): Promise<ReplyOf<typeof removeIngredient>> {
  const removed = await call
    .trx('ingredients')
    .where({ kitchen_id: call.kitchenId, ingredient_id: call.params.ingredientId })
    .delete();
  return { removed: removed > 0 };
}
