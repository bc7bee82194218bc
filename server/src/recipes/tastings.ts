import type { BodyOf, ParamsOf, ReplyOf, addTasting, listTastings } from '@cocotte/contract';
import { dayOf } from '@cocotte/core/measure';
import type { Call } from '../house/mount.ts';
import { idTaken } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { readKitchen } from '../kitchen/service.ts';
import { read } from './service.ts';

const SHOWN = 500;

/** Tastings of a recipe, newest first. */
export async function list(
  call: Call<ParamsOf<typeof listTastings>, unknown, unknown>,
): Promise<ReplyOf<typeof listTastings>> {
  const { trx, kitchenId, params } = call;
  await read(call);
  const rows = await trx('tastings')
    .where({ kitchen_id: kitchenId, recipe_id: params.recipeId })
    .orderBy([
      { column: 'created_at', order: 'desc' },
      { column: 'tasting_id', order: 'desc' },
    ])
    .limit(SHOWN)
    .select('tasting_id', 'day', 'rating', 'notes', 'person_id', 'lot_code');
  const names = await namesOf(trx, [...new Set(rows.map(r => r.person_id as string))]);
  return {
    tastings: rows.map(r => ({
      id: r.tasting_id,
      day: r.day,
      rating: r.rating,
      notes: r.notes,
      person: names[r.person_id as string] ?? '',
      lotCode: r.lot_code,
    })),
  };
}

/** Notes a tasting. The same id with the same words is acknowledged again. */
export async function add(
  call: Call<ParamsOf<typeof addTasting>, unknown, BodyOf<typeof addTasting>>,
): Promise<ReplyOf<typeof addTasting>> {
  const { trx, kitchenId, params, body, person, clock } = call;
  await read(call);
  const there = await trx('tastings').where({ kitchen_id: kitchenId, tasting_id: body.id }).first();
  if (there) {
    const same =
      there.recipe_id === params.recipeId &&
      there.rating === body.rating &&
      there.notes === body.notes &&
      there.lot_code === body.lotCode;
    if (same) return { id: body.id };
    throw idTaken('tasting');
  }
  await trx('tastings').insert({
    kitchen_id: kitchenId,
    tasting_id: body.id,
    recipe_id: params.recipeId,
    day: dayOf(clock.now_ms(), (await readKitchen(call)).zone),
    rating: body.rating,
    notes: body.notes,
    person_id: person.id,
    lot_code: body.lotCode,
    created_at: new Date(clock.now_ms()).toISOString(),
  });
  return { id: body.id };
}
