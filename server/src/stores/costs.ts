import type { ParamsOf, PastCost, ReplyOf, readCost, recipeCosts } from '@cocotte/contract';
import { type SequencedEvent, fold } from '@cocotte/core/batches';
import { addDays } from '@cocotte/core/measure';
import { type CostContext, type CostSheet, type Work, batchCost } from '@cocotte/core/stores';
import { selectEvents } from '../batches/queries.ts';
import type { Call } from '../house/mount.ts';
import { notFound } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';

type AnyCall = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>;
/** Batches that share minutes are begun within so many days of each other. */
const NEAR_DAYS = 3;

/** What other batches say that bears on the cost of one. */
export async function contextOf(
  call: AnyCall,
  batchId: string,
  madeOn: string,
  ownPeople: readonly string[],
): Promise<CostContext> {
  const { trx, kitchenId } = call;
  const near: { batch_id: string; made_on: string; work: Work[]; month: string }[] = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .whereBetween('made_on', [addDays(madeOn, -NEAR_DAYS), addDays(madeOn, NEAR_DAYS)])
    .select(
      'batch_id',
      'made_on',
      'work',
      trx.raw('(select count(*) from batches where kitchen_id = ? and made_on between ? and ?) as month', [
        kitchenId,
        `${madeOn.slice(0, 7)}-01`,
        addDays(`${nextMonth(madeOn)}-01`, -1),
      ]),
    );
  const day = near.filter(b => b.made_on === madeOn);
  const work = (rows: typeof near) => rows.flatMap(b => b.work);
  const context = {
    batchId,
    dayBatches: day.length,
    kitchenWork: work(day).filter(w => w.kind === 'kitchen'),
    sharedWork: work(near.filter(b => b.batch_id !== batchId)).filter(w => w.with.includes(batchId)),
    monthBatches: Number(near[0]?.month ?? 1),
  };
  const ids = [...ownPeople, ...[...context.kitchenWork, ...context.sharedWork].map(w => w.personId)];
  return { ...context, people: await namesOf(trx, [...new Set(ids)]) };
}

const nextMonth = (day: string) => addDays(`${day.slice(0, 7)}-28`, 4).slice(0, 7);

/** What a batch cost, with what other batches say that bears on it. */
export async function costOf(
  call: AnyCall,
  batchId: string,
  events: SequencedEvent[],
): Promise<{ sheet: CostSheet; minutes: number; lotCode: string; madeOn: string }> {
  const state = fold(events);
  if (!state.started) throw notFound('This batch');
  const context = await contextOf(
    call,
    batchId,
    state.started.madeOn,
    state.minutes.map(m => m.by.personId),
  );
  const sheet = batchCost(state, context) as CostSheet;
  return {
    sheet,
    minutes: state.minutes.filter(m => m.kind === 'batch').reduce((n, m) => n + m.minutes, 0),
    lotCode: state.started.lotCode,
    madeOn: state.started.madeOn,
  };
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
