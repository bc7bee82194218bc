import { type Lot, type ShelfItem, inDrawingOrder } from '@cocotte/core/stores';
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
  const byItem = new Map<string, Lot[]>();
  for (const lot of lots) byItem.set(lot.itemId, [...(byItem.get(lot.itemId) ?? []), lot]);
  return items.map(item => ({
    item,
    lots: inDrawingOrder(byItem.get(item.id) ?? []),
    lastCost: last.get(item.id) ?? null,
    reserved: '0',
  }));
}
