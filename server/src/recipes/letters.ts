import type { ReplyOf, listLettersDue } from '@cocotte/contract';
import { TOLD_AHEAD_DAYS } from '@cocotte/core/kitchen';
import { addDays, dayOf } from '@cocotte/core/measure';
import type { Call } from '../house/mount.ts';
import { readKitchen } from '../kitchen/service.ts';

const SHOWN = 100;

/** Letters of the newest versions that are to be looked at again soon, or were. */
export async function due(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof listLettersDue>> {
  const { trx, kitchenId, clock } = call;
  const { zone } = await readKitchen(call);
  const until = addDays(dayOf(clock.now_ms(), zone), TOLD_AHEAD_DAYS);
  const reviewOn = `v.body #>> '{authority,terms,reviewOn}'`;
  const rows = await trx('recipes as r')
    .join('recipe_versions as v', join =>
      join
        .on('v.kitchen_id', 'r.kitchen_id')
        .andOn('v.recipe_id', 'r.recipe_id')
        .andOn('v.number', 'r.version'),
    )
    .where('r.kitchen_id', kitchenId)
    .whereRaw(`v.body #>> '{authority,grade}' = 'letter'`)
    .whereRaw(`${reviewOn} <= ?`, [until])
    .orderByRaw(`${reviewOn}, r.recipe_id`)
    .limit(SHOWN)
    .select(
      'r.recipe_id',
      'r.name',
      trx.raw(`v.body #>> '{authority,reference}' as reference`),
      trx.raw(`${reviewOn} as review_on`),
    );
  return {
    letters: rows.map(r => ({
      recipeId: r.recipe_id as string,
      name: r.name as string,
      reference: r.reference as string,
      reviewOn: r.review_on as string,
    })),
  };
}
