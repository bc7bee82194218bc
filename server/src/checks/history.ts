import { type CheckHistory, HISTORY_SHOWN } from '@cocotte/contract';
import type { CheckedBatch } from '@cocotte/core/checks';
import type { CostSheet } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { namesOf } from '../kitchen/outside.ts';

/** Batches whose cost says what a jar costs now. */
const SHEETS_READ = 12;

/** What was checked of the kitchen's batches, with the lid lots and people it names. */
export async function history({ trx, kitchenId }: Call<unknown, unknown, unknown>): Promise<CheckHistory> {
  const rows: { batch_id: string; checked: CheckedBatch }[] = await trx('batches')
    .where({ kitchen_id: kitchenId })
    .whereNotNull('checked')
    .orderBy([
      { column: 'made_on', order: 'desc' },
      { column: 'batch_id', order: 'desc' },
    ])
    .limit(HISTORY_SHOWN)
    .select('batch_id', 'checked');
  const batches = rows.map(r => ({ ...r.checked, batchId: r.batch_id }));
  const lidIds = [...new Set(batches.flatMap(b => b.seals.flatMap(s => s.lidLotId ?? [])))];
  const people = [
    ...new Set(
      batches.flatMap(b =>
        b.deviations.flatMap(d => [
          ...d.actions.map(a => a.personId),
          ...(d.secondLook ? [d.secondLook.personId] : []),
        ]),
      ),
    ),
  ];
  const lids: { lot_id: string; label: string; name: string; on_hand: string }[] =
    lidIds.length === 0
      ? []
      : await trx('lots')
          .join('items', q =>
            q.on('items.kitchen_id', 'lots.kitchen_id').andOn('items.item_id', 'lots.item_id'),
          )
          .where('lots.kitchen_id', kitchenId)
          .whereIn('lots.lot_id', lidIds)
          .select('lots.lot_id', 'lots.label', 'items.name', 'lots.on_hand');
  // The newest sheets that were kept say what a jar costs now.
  const sheets: { sheet: CostSheet }[] = await trx('cost_sheets')
    .where({ kitchen_id: kitchenId })
    .orderBy('kept_at', 'desc')
    .limit(SHEETS_READ)
    .select('sheet');
  const costs = sheets.flatMap(({ sheet }) =>
    sheet.bySize.filter(b => b.count > 0).map(b => Number(b.perJar)),
  );
  return {
    jarCost: costs.length === 0 ? null : (costs.reduce((a, b) => a + b, 0) / costs.length).toFixed(2),
    batches,
    lids: lids.map(l => ({ lotId: l.lot_id, label: l.label, name: l.name, left: Number(l.on_hand) })),
    people: await namesOf(trx, people),
  };
}
