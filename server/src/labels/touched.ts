import { type ReplyOf, type listTouchedLots, TOUCHED_MOST } from '@cocotte/contract';
import { assess } from '@cocotte/core/checks';
import { labelContent, outOfDatePrints } from '@cocotte/core/labels';
import { selectEvents } from '../batches/queries.ts';
import type { Call } from '../house/mount.ts';
import { readKitchen } from '../kitchen/service.ts';
import { selectLabelled } from './queries.ts';
import { settingsOf, setupOf } from './setups.ts';

/** Lots whose printed labels would say something else today, the newest batches first. */
export async function touched(
  call: Call<unknown, unknown, unknown>,
): Promise<ReplyOf<typeof listTouchedLots>> {
  const { trx, kitchenId } = call;
  const kitchen = await readKitchen(call);
  const settings = await settingsOf(call);
  const lots: ReplyOf<typeof listTouchedLots>['lots'] = [];
  for (const batchId of await selectLabelled(trx, kitchenId, TOUCHED_MOST)) {
    const { state, standing } = assess(await selectEvents(trx, kitchenId, batchId));
    const { started } = state;
    if (!started) continue;
    const { setup } = await setupOf(call, started.recipeId, kitchen, settings);
    const found = outOfDatePrints(state, standing.released, (size, jars) => {
      const made = labelContent(state, kitchen, setup, size, jars);
      return made.ok ? made.label : null;
    });
    lots.push(...found.map(f => ({ ...f, batchId, name: started.recipe.name })));
  }
  return { lots };
}
