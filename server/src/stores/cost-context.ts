import { addDays } from '@cocotte/core/measure';
import type { CostContext, Work } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { namesOf } from '../kitchen/outside.ts';

export type AnyCall = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>;
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
