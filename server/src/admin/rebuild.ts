import type { SequencedEvent } from '@cocotte/core/batches';
import { assess } from '@cocotte/core/checks';
import { project } from '../batches/chain.ts';
import * as batchQueries from '../batches/queries.ts';
import type { Trx } from '../house/database.ts';
import { batchMovements, insertMovements, lockWholeStock, recount } from '../stores/ledger.ts';

/**
 * Derives again, from events alone: the batches' projection, the movements that batches made, what is left of each
 * lot, and how often each recipe was cooked. Runs as the owner, for movements are otherwise never taken away.
 *
 * @returns how many batches were rebuilt
 */
export async function rebuildKitchen(trx: Trx, kitchenId: string): Promise<number> {
  // Whoever moves stock holds the head or the items: none does until this is done, and none is lost.
  await batchQueries.lockHead(trx, kitchenId);
  await lockWholeStock(trx, kitchenId);
  await trx('movements').where({ kitchen_id: kitchenId }).whereNotNull('event_id').delete();
  const ids: { batch_id: string }[] = await trx('events')
    .where({ kitchen_id: kitchenId })
    .distinct('batch_id')
    .orderBy('batch_id');
  await trx('recipes').where({ kitchen_id: kitchenId }).update({ cooked: 0, last_cooked: null });
  for (const { batch_id } of ids) {
    const events = await batchQueries.selectEvents(trx, kitchenId, batch_id);
    await batchQueries.writeBatch(
      trx,
      kitchenId,
      project(batch_id, assess(events), (events.at(-1) as SequencedEvent).receipt.seq),
    );
    for (const event of events) {
      await insertMovements(
        trx,
        kitchenId,
        batchMovements(event, id => events.find(e => e.id === id)),
        event.receipt.at,
      );
      if (event.type === 'batch.started') {
        await trx('recipes')
          .where({ kitchen_id: kitchenId, recipe_id: event.body.recipeId })
          .update({
            cooked: trx.raw('cooked + 1'),
            last_cooked: trx.raw('greatest(coalesce(last_cooked, ?::date), ?::date)', [
              event.body.madeOn,
              event.body.madeOn,
            ]),
          });
      }
    }
  }
  await recount(trx, kitchenId);
  return ids.length;
}

/**
 * Derives again the rows of batches that older rules derived: where a batch stands, and what is due, follow from its
 * entries by the rules of today.
 *
 * @returns how many were
 */
export async function renewProjections(trx: Trx, kitchenId: string): Promise<number> {
  await batchQueries.lockHead(trx, kitchenId);
  const ids = await batchQueries.selectOutdated(trx, kitchenId);
  for (const id of ids) {
    const events = await batchQueries.selectEvents(trx, kitchenId, id);
    const last = events.at(-1) as SequencedEvent;
    await batchQueries.writeBatch(trx, kitchenId, project(id, assess(events), last.receipt.seq));
  }
  return ids.length;
}
