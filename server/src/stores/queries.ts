import type { LotRow } from '@cocotte/contract';
import { Decimal } from '@cocotte/core/measure';
import {
  type Item,
  type Lot,
  type LotFacts,
  UNIT_COST_PLACES,
  averageCost,
  plainFacts,
  upgradeItem,
} from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';

const PAGE = 30;

/** A lot as it is stored. */
export interface LotColumns {
  lot_id: string;
  item_id: string;
  label: string;
  supplier: string;
  received_on: string;
  best_by: string | null;
  unit_cost: string;
  on_hand: string;
  strength_pct: string | null;
  opened_on: string | null;
  receipt_id: string | null;
  facts: LotFacts | null;
}

/** A lot, out of its columns. */
export function lotFrom(row: LotColumns): Lot {
  return {
    id: row.lot_id,
    itemId: row.item_id,
    label: row.label,
    supplier: row.supplier,
    receivedOn: row.received_on,
    bestBy: row.best_by,
    unitCost: trimmed(row.unit_cost),
    onHand: trimmed(row.on_hand),
    strength_pct: row.strength_pct === null ? null : Number(row.strength_pct),
    openedOn: row.opened_on,
    receiptId: row.receipt_id,
    // Lots from before these facts were kept say nothing of themselves.
    facts: plainFacts(row.facts ?? {}),
  };
}

/** PostgreSQL's numeric as plain text without trailing noughts. */
export function trimmed(numeric: string): string {
  return numeric.includes('.') ? numeric.replace(/\.?0+$/, '') : numeric;
}

/** Every item of the kitchen, by name. */
export async function selectItems(trx: Trx, kitchenId: string): Promise<Item[]> {
  const rows = await trx('items')
    .where({ kitchen_id: kitchenId })
    .orderBy(['name', 'item_id'])
    .select('body')
    .limit(2000);
  return rows.map(r => upgradeItem(r.body));
}

/** Items by id; all of the kitchen's, for receipts and imports of many lines. */
export async function itemsById(trx: Trx, kitchenId: string): Promise<Map<string, Item>> {
  return new Map((await selectItems(trx, kitchenId)).map(i => [i.id, i]));
}

/** One item, or nothing. */
export async function selectItem(trx: Trx, kitchenId: string, itemId: string): Promise<Item | undefined> {
  const row = await trx('items').where({ kitchen_id: kitchenId, item_id: itemId }).select('body').first();
  return row && upgradeItem(row.body);
}

/** Adds an item. */
export async function insertItem(trx: Trx, kitchenId: string, item: Item): Promise<void> {
  await trx('items').insert({ kitchen_id: kitchenId, item_id: item.id, ...itemColumns(item) });
}

/** Changes an item if its version is still the one that was read. */
export async function updateItem(trx: Trx, kitchenId: string, item: Item, version: number): Promise<boolean> {
  const changed = await trx('items')
    .where({ kitchen_id: kitchenId, item_id: item.id, version })
    .update(itemColumns(item));
  return changed === 1;
}

const itemColumns = (item: Item) => ({
  kind: item.kind,
  name: item.name,
  minimum: item.minimum,
  version: item.version,
  body: JSON.stringify(item),
});

/** Whether an item ever had a lot: then its unit stays. */
export async function hasLots(trx: Trx, kitchenId: string, itemId: string): Promise<boolean> {
  return (
    (await trx('lots').where({ kitchen_id: kitchenId, item_id: itemId }).select('lot_id').first()) !==
    undefined
  );
}

const lotsWithItems = (trx: Trx, kitchenId: string) =>
  trx('lots as l')
    .join('items as i', join => join.on('i.kitchen_id', 'l.kitchen_id').andOn('i.item_id', 'l.item_id'))
    .where('l.kitchen_id', kitchenId)
    .select('l.*', 'i.body');

/** A lot with its item, out of their columns. */
export const lotRowFrom = (r: LotColumns & { body: Item }): LotRow => ({
  lot: lotFrom(r),
  item: upgradeItem(r.body),
});

/** A page of lots, by item and words. */
export async function selectLots(
  trx: Trx,
  kitchenId: string,
  filter: { after: string; search: string; withEmpty: boolean; itemId: string },
): Promise<{ lots: LotRow[]; next: string | null }> {
  const { search } = filter;
  const query = lotsWithItems(trx, kitchenId)
    .orderBy([
      { column: 'l.received_on', order: 'desc' },
      { column: 'l.lot_id', order: 'desc' },
    ])
    .limit(PAGE + 1);
  if (filter.itemId) query.where('l.item_id', filter.itemId);
  if (!filter.withEmpty) query.whereNot('l.on_hand', 0);
  const key = fromKey(filter.after, ['day', 'uuid']);
  if (key) query.whereRaw('(l.received_on, l.lot_id) < (?::date, ?::uuid)', key);
  if (search)
    query.whereRaw('(i.name ilike ? or l.label ilike ? or l.supplier ilike ?)', [
      likeWords(search),
      likeWords(search),
      likeWords(search),
    ]);
  const rows = await query;
  const page = rows.slice(0, PAGE);
  const last = page.at(-1);
  return {
    lots: page.map(lotRowFrom),
    next: rows.length > PAGE && last ? toKey([last.received_on, last.lot_id]) : null,
  };
}

/** One lot with its item, or nothing. */
export async function selectLot(trx: Trx, kitchenId: string, lotId: string): Promise<LotRow | undefined> {
  const row = await lotsWithItems(trx, kitchenId).where('l.lot_id', lotId).first();
  return row && lotRowFrom(row);
}

/** Lots by their ids, each with its item. */
export async function selectLotsById(trx: Trx, kitchenId: string, ids: string[]): Promise<LotRow[]> {
  return (await lotsWithItems(trx, kitchenId).whereIn('l.lot_id', ids)).map(lotRowFrom);
}

/** Lots with something left, by item, in the order they came. */
export async function selectShelf(trx: Trx, kitchenId: string): Promise<Lot[]> {
  const rows: LotColumns[] = await trx('lots')
    .where({ kitchen_id: kitchenId })
    .where('on_hand', '>', 0)
    .orderBy(['item_id', 'received_on', 'lot_id'])
    .limit(5000);
  return rows.map(lotFrom);
}

/** Cost of one unit of the newest lot of each item. */
export async function selectLastCosts(trx: Trx, kitchenId: string): Promise<Map<string, string>> {
  const { rows } = await trx.raw<{ rows: { item_id: string; unit_cost: string }[] }>(
    `select i.item_id, l.unit_cost from items i cross join lateral (
       select unit_cost from lots where kitchen_id = i.kitchen_id and item_id = i.item_id
         and coalesce(facts->>'value', '') <> 'price to come'
       order by received_on desc, lot_id desc limit 1) l where i.kitchen_id = ?`,
    [kitchenId],
  );
  return new Map(rows.map(r => [r.item_id, trimmed(r.unit_cost)]));
}

/** What items are called, by their ids. */
export async function itemNames(
  trx: Trx,
  kitchenId: string,
  itemIds: readonly string[],
): Promise<Map<string, string>> {
  const rows: { item_id: string; name: string }[] = await trx('items')
    .where({ kitchen_id: kitchenId })
    .whereIn('item_id', [...new Set(itemIds)])
    .select('item_id', trx.raw("body->>'name' as name"));
  return new Map(rows.map(r => [r.item_id, r.name]));
}

/** A lot that is to be added. */
export type NewLot = Omit<Lot, 'onHand'>;

/** As many lots as there are, by arrays: a statement has no room for the values of thousands one by one. */
const INSERT_LOTS = `
  insert into lots
    (kitchen_id, lot_id, item_id, label, supplier, received_on, best_by, unit_cost, strength_pct, opened_on,
     receipt_id, facts)
  select ?, t.*
  from unnest(
    ?::uuid[], ?::uuid[], ?::text[], ?::text[], ?::date[], ?::date[], ?::numeric[], ?::numeric[], ?::date[],
    ?::uuid[], ?::jsonb[]) t`;

/** Adds lots with nothing on hand: what comes in is a movement. */
export async function insertLots(trx: Trx, kitchenId: string, lots: readonly NewLot[]): Promise<void> {
  if (lots.length === 0) return;
  const column = <T>(pick: (lot: NewLot) => T) => lots.map(pick) as never;
  await trx.raw(INSERT_LOTS, [
    kitchenId,
    column(l => l.id),
    column(l => l.itemId),
    column(l => l.label),
    column(l => l.supplier),
    column(l => l.receivedOn),
    column(l => l.bestBy),
    column(l => l.unitCost),
    column(l => l.strength_pct),
    column(l => l.openedOn),
    column(l => l.receiptId),
    column(l => JSON.stringify(l.facts)),
  ]);
}

/** Notes on which day a lot was opened, or that it is closed. */
export async function setOpened(
  trx: Trx,
  kitchenId: string,
  lotId: string,
  day: string | null,
): Promise<void> {
  await trx('lots').where({ kitchen_id: kitchenId, lot_id: lotId }).update({ opened_on: day });
}

/** What one unit of each item's stock is worth, from the sums of its months; all items where none are named. */
export async function selectAverages(
  trx: Trx,
  kitchenId: string,
  itemIds?: Iterable<string>,
): Promise<Map<string, string>> {
  const sums = trx('item_months')
    .where({ kitchen_id: kitchenId })
    .groupBy('item_id')
    .select('item_id')
    .sum({ quantity: 'quantity', value: 'value' });
  if (itemIds) sums.whereIn('item_id', [...new Set(itemIds)]);
  const rows: { item_id: string; quantity: string; value: string }[] = await sums;
  return new Map(
    rows.flatMap(r => {
      const one = averageCost({ quantity: new Decimal(r.quantity), value: new Decimal(r.value) });
      return one ? [[r.item_id, one.toDecimalPlaces(UNIT_COST_PLACES).toFixed()] as const] : [];
    }),
  );
}
