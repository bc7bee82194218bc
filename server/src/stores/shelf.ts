import { type Lot, type ShelfItem, inDrawingOrder, plainFacts } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import * as queries from './queries.ts';

/** The shelf without what is planned: items, their lots in drawing order, what was last paid. */
export async function bareShelf(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
): Promise<ShelfItem[]> {
  const { trx, kitchenId } = call;
  const items = await queries.selectItems(trx, kitchenId);
  const lots = await queries.selectShelf(trx, kitchenId);
  const last = await queries.selectLastCosts(trx, kitchenId);
  const average = await queries.selectAverages(trx, kitchenId);
  const byItem = new Map<string, Lot[]>();
  for (const lot of lots) byItem.set(lot.itemId, [...(byItem.get(lot.itemId) ?? []), lot]);
  return items.map(item => ({
    item,
    lots: inDrawingOrder(byItem.get(item.id) ?? []),
    lastCost: last.get(item.id) ?? null,
    average: average.get(item.id) ?? null,
    reserved: '0',
  }));
}

/**
 * The shelf as counts alone, one lot for all that is left of an item: enough to tell which item serves which line, where
 * neither prices nor single lots matter.
 */
export async function countedShelf(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
): Promise<ShelfItem[]> {
  const { trx, kitchenId } = call;
  const items = await queries.selectItems(trx, kitchenId);
  const rows: { item_id: string; left: string }[] = await trx('lots')
    .where({ kitchen_id: kitchenId })
    .where('on_hand', '>', 0)
    .groupBy('item_id')
    .select('item_id')
    .sum({ left: 'on_hand' });
  const left = new Map(rows.map(r => [r.item_id, queries.trimmed(r.left)]));
  return items.map(item => {
    const onHand = left.get(item.id);
    const all: Lot[] = onHand
      ? [
          {
            id: item.id,
            itemId: item.id,
            label: '',
            supplier: '',
            receivedOn: '',
            bestBy: null,
            unitCost: '0',
            onHand,
            strength_pct: null,
            openedOn: null,
            receiptId: null,
            facts: plainFacts(),
          },
        ]
      : [];
    return { item, lots: all, lastCost: null, average: null, reserved: '0' };
  });
}
