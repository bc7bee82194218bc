import type { ParamsOf, PastCost, ReplyOf, readCost, recipeCosts } from '@cocotte/contract';
import { type BatchState, type SequencedEvent, fold } from '@cocotte/core/batches';
import { type CostSheet, batchCost } from '@cocotte/core/stores';
import { selectEvents } from '../batches/queries.ts';
import type { Call } from '../house/mount.ts';
import { notFound } from '../house/problems.ts';
import { type AnyCall, contextOf, freeLots } from './cost-context.ts';
import { keptSheets } from './kept-sheets.ts';

/** What a batch cost, with what other batches say that bears on it. */
export async function costOf(
  call: AnyCall,
  batchId: string,
  events: SequencedEvent[],
): Promise<{ sheet: CostSheet; minutes: number; lotCode: string; madeOn: string }> {
  const state = fold(events);
  if (!state.started) throw notFound('This batch');
  const kept = (await keptSheets(call.trx, call.kitchenId, [batchId])).get(batchId);
  return {
    sheet: kept ?? (await sheetNow(call, batchId, state)),
    minutes: state.minutes.filter(m => m.kind === 'batch').reduce((n, m) => n + m.minutes, 0),
    lotCode: state.started.lotCode,
    madeOn: state.started.madeOn,
  };
}

/** What a batch costs as it stands. */
async function sheetNow(call: AnyCall, batchId: string, state: BatchState): Promise<CostSheet> {
  const context = await contextOf(
    call,
    batchId,
    state.started?.madeOn ?? '',
    state.minutes.map(m => m.by.personId),
    freeLots(state),
  );
  return batchCost(state, context) as CostSheet;
}

/** What a batch cost, from its record. */
export async function batch(
  call: Call<ParamsOf<typeof readCost>, unknown, unknown>,
): Promise<ReplyOf<typeof readCost>> {
  const events = await selectEvents(call.trx, call.kitchenId, call.params.batchId);
  if (events.length === 0) throw notFound('This batch');
  return (await costOf(call, call.params.batchId, events)).sheet;
}

const HISTORY = 24;

/** What past batches of a recipe cost. */
export async function history(
  call: Call<ParamsOf<typeof recipeCosts>, unknown, unknown>,
): Promise<ReplyOf<typeof recipeCosts>> {
  const { trx, kitchenId, params } = call;
  const rows: { batch_id: string }[] = await trx('batches')
    .where({ kitchen_id: kitchenId, recipe_id: params.recipeId })
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'batch_id', order: 'desc' },
    ])
    .limit(HISTORY)
    .select('batch_id');
  const batches: PastCost[] = [];
  for (const { batch_id } of rows.reverse()) {
    const events = await selectEvents(trx, kitchenId, batch_id);
    batches.push({ batchId: batch_id, ...(await costOf(call, batch_id, events)) });
  }
  return { batches: batches.filter(b => b.sheet.bySize.length > 0) };
}
