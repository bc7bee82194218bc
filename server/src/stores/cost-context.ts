import type { BatchState } from '@cocotte/core/batches';
import { addDays, byName } from '@cocotte/core/measure';
import type { CostContext, Work } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { trimmed } from './queries.ts';
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
  lotIds: readonly string[],
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
  return {
    ...context,
    people: await namesOf(trx, [...new Set(ids)]),
    laterPrices: await laterPrices(call, lotIds),
  };
}

/** What lots cost that were drawn before they had a price; null for those that have none yet. */
async function laterPrices(
  { trx, kitchenId }: AnyCall,
  lotIds: readonly string[],
): Promise<CostContext['laterPrices']> {
  if (lotIds.length === 0) return {};
  const rows: { lot_id: string; unit_cost: string; value: string | null; priced: boolean }[] = await trx(
    'lots as l',
  )
    .where({ 'l.kitchen_id': kitchenId })
    .whereIn('l.lot_id', [...new Set(lotIds)])
    .select(
      'l.lot_id',
      'l.unit_cost',
      trx.raw("l.facts->>'value' as value"),
      trx.raw(
        "exists (select from movements m where m.kitchen_id = l.kitchen_id and m.lot_id = l.lot_id and m.reason = 'priced') as priced",
      ),
    );
  return byName<string | null>(
    rows.flatMap((r): [string, string | null][] =>
      r.value === 'price to come' ? [[r.lot_id, null]] : r.priced ? [[r.lot_id, trimmed(r.unit_cost)]] : [],
    ),
  );
}

/** Lots a batch drew for nothing: only of those a price may be to come. */
export const freeLots = (state: BatchState): string[] =>
  state.draws.flatMap(d => d.lots.filter(l => Number(l.unitCost) === 0).map(l => l.lotId));

const nextMonth = (day: string) => addDays(`${day.slice(0, 7)}-28`, 4).slice(0, 7);
