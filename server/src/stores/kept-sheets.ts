import { type BatchState, type SequencedEvent, fold } from '@cocotte/core/batches';
import { type CostSheet, type Sharing, batchCost } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import * as batchQueries from '../batches/queries.ts';
import { contextOf, freeLots } from './cost-context.ts';

/** Sheets that were stored when their batches were released, by batch: they change no more. */
export async function keptSheets(
  trx: Trx,
  kitchenId: string,
  batchIds: readonly string[],
): Promise<Map<string, CostSheet>> {
  const rows: { batch_id: string; sheet: CostSheet; kept_at: Date }[] = await trx('cost_sheets')
    .where({ kitchen_id: kitchenId })
    .whereIn('batch_id', batchIds)
    .select('batch_id', 'sheet', 'kept_at');
  return new Map(rows.map(r => [r.batch_id, { ...r.sheet, keptAt: r.kept_at.toISOString() }]));
}

/**
 * Stores what a batch cost, with its overhead, once all of its jars are released or gone. What was stored stays.
 *
 * @param sharing  as batches are shared today; as they were before, for those that were closed then
 */
export async function keepSheet(
  trx: Trx,
  kitchenId: string,
  batchId: string,
  state: BatchState,
  now_ms: number,
  sharing: Sharing = 'by jar',
): Promise<void> {
  if (!state.started) return;
  const there = await trx('cost_sheets')
    .where({ kitchen_id: kitchenId, batch_id: batchId })
    .first('batch_id');
  if (there) return;
  const context = await contextOf(
    { trx, kitchenId },
    batchId,
    state.started.madeOn,
    state.minutes.map(m => m.by.personId),
    freeLots(state),
  );
  // A price that is to come would never come into a sheet that is stored.
  if (Object.values(context.laterPrices).includes(null)) return;
  const sheet = batchCost(state, context, sharing) as CostSheet;
  await trx('cost_sheets')
    .insert({
      kitchen_id: kitchenId,
      batch_id: batchId,
      sheet: JSON.stringify(sheet),
      kept_at: new Date(now_ms),
    })
    .onConflict(['kitchen_id', 'batch_id'])
    .ignore();
}

/**
 * Stores the sheets of batches that were closed before sheets were kept, as they stood then. Done once, when the table
 * is made.
 *
 * @returns how many
 */
export async function keepOldSheets(trx: Trx, kitchenId: string, now_ms: number): Promise<number> {
  const rows: { batch_id: string }[] = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .whereIn('stage', ['released', 'closed'])
    .select('batch_id');
  for (const { batch_id } of rows) {
    // oxlint-disable-next-line no-await-in-loop -- one batch after the other: a kitchen may have thousands
    const events: SequencedEvent[] = await batchQueries.selectEvents(trx, kitchenId, batch_id);
    // oxlint-disable-next-line no-await-in-loop
    await keepSheet(trx, kitchenId, batch_id, fold(events), now_ms, 'by net mass');
  }
  return rows.length;
}
