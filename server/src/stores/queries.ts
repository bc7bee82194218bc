import { createHash, randomUUID } from 'node:crypto';
import type { LotRow } from '@cocotte/contract';
import type { BatchEvent } from '@cocotte/core/batches';
import type { Item, Lot } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';

const PAGE = 30;

interface LotColumns {
  lot_id: string;
  item_id: string;
  label: string;
  supplier: string;
  received_on: string;
  best_by: string | null;
  unit_cost: string;
  on_hand: string;
  strength_pct: string | null;
}

function lotFrom(row: LotColumns): Lot {
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
  };
}

/** PostgreSQL's numeric as plain text without trailing noughts. */
function trimmed(numeric: string): string {
  return numeric.includes('.') ? numeric.replace(/\.?0+$/, '') : numeric;
}

export async function selectItems(trx: Trx, kitchenId: string): Promise<Item[]> {
  const rows = await trx('items')
    .where({ kitchen_id: kitchenId })
    .orderBy(['name', 'item_id'])
    .select('body')
    .limit(2000);
  return rows.map(r => r.body as Item);
}

export async function selectItem(trx: Trx, kitchenId: string, itemId: string): Promise<Item | undefined> {
  const row = await trx('items').where({ kitchen_id: kitchenId, item_id: itemId }).select('body').first();
  return row?.body as Item | undefined;
}

export async function insertItem(trx: Trx, kitchenId: string, item: Item): Promise<void> {
  await trx('items').insert({
    kitchen_id: kitchenId,
    item_id: item.id,
    kind: item.kind,
    name: item.name,
    body: JSON.stringify(item),
  });
}

export async function selectLots(
  trx: Trx,
  kitchenId: string,
  after: string,
  search: string,
  withEmpty: boolean,
): Promise<{ lots: LotRow[]; next: string | null }> {
  const query = trx('lots as l')
    .join('items as i', join => join.on('i.kitchen_id', 'l.kitchen_id').andOn('i.item_id', 'l.item_id'))
    .where('l.kitchen_id', kitchenId)
    .orderBy([
      { column: 'l.received_on', order: 'desc' },
      { column: 'l.lot_id', order: 'desc' },
    ])
    .limit(PAGE + 1)
    .select('l.*', 'i.body');
  if (!withEmpty) query.where('l.on_hand', '>', 0);
  const key = fromKey(after, 2);
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
    lots: page.map(r => ({ lot: lotFrom(r), item: r.body as Item })),
    next: rows.length > PAGE && last ? toKey([last.received_on, last.lot_id]) : null,
  };
}

/** Locks lots in the order of their ids, so that two draws never wait for each other, and reads them with their items. */
export async function lockLots(trx: Trx, kitchenId: string, lotIds: string[]): Promise<Map<string, LotRow>> {
  const ids = [...new Set(lotIds)].sort();
  const rows = await trx('lots')
    .where({ kitchen_id: kitchenId })
    .whereIn('lot_id', ids)
    .orderBy('lot_id')
    .forUpdate()
    .select('*');
  // Under the lock the balance is the sum of the movements, whatever the projection says.
  const sums = await trx('movements')
    .where({ kitchen_id: kitchenId })
    .whereIn('lot_id', ids)
    .groupBy('lot_id')
    .select('lot_id')
    .sum('quantity as left');
  const left = new Map(sums.map(s => [s.lot_id as string, s.left as string]));
  const items = await trx('items')
    .where({ kitchen_id: kitchenId })
    .whereIn(
      'item_id',
      rows.map(r => r.item_id),
    )
    .select('item_id', 'body');
  const byId = new Map(items.map(i => [i.item_id as string, i.body as Item]));
  return new Map(
    rows.map(r => [
      r.lot_id as string,
      { lot: lotFrom({ ...r, on_hand: left.get(r.lot_id) ?? '0' }), item: byId.get(r.item_id) as Item },
    ]),
  );
}

export async function selectLot(trx: Trx, kitchenId: string, lotId: string): Promise<Lot | undefined> {
  const row = await trx('lots').where({ kitchen_id: kitchenId, lot_id: lotId }).first();
  return row ? lotFrom(row) : undefined;
}

export async function insertLot(trx: Trx, kitchenId: string, lot: Omit<Lot, 'onHand'>): Promise<void> {
  await trx('lots').insert({
    kitchen_id: kitchenId,
    lot_id: lot.id,
    item_id: lot.itemId,
    label: lot.label,
    supplier: lot.supplier,
    received_on: lot.receivedOn,
    best_by: lot.bestBy,
    unit_cost: lot.unitCost,
    strength_pct: lot.strength_pct,
  });
}

export interface Movement {
  lotId: string;
  quantity: string;
  reason: 'received' | 'drawn' | 'put back';
  eventId: string | null;
  line: number | null;
}

/** The movements a batch's entry makes: a draw takes its lots, a reversal brings those of the draw back. */
export function batchMovements(
  event: BatchEvent,
  find: (eventId: string) => BatchEvent | undefined,
): Movement[] {
  if (event.type === 'lot.drawn') {
    return event.body.lots.map((l, line) => ({
      lotId: l.lotId,
      quantity: `-${l.quantity}`,
      reason: 'drawn',
      eventId: event.id,
      line,
    }));
  }
  if (event.type === 'draw.reversed') {
    const drawn = find(event.body.drawId);
    return drawn?.type === 'lot.drawn'
      ? drawn.body.lots.map((l, line) => ({
          lotId: l.lotId,
          quantity: l.quantity,
          reason: 'put back',
          eventId: event.id,
          line,
        }))
      : [];
  }
  return [];
}

/** A batch's movement is named by its event and line, so that it is the same when derived again. */
function movementId(m: Movement): string {
  if (m.eventId === null) return randomUUID();
  const hex = createHash('sha256').update(`${m.eventId} ${m.line}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

export async function insertMovements(
  trx: Trx,
  kitchenId: string,
  movements: Movement[],
  now: string,
): Promise<void> {
  if (movements.length === 0) return;
  await trx('movements').insert(
    movements.map(m => ({
      kitchen_id: kitchenId,
      movement_id: movementId(m),
      lot_id: m.lotId,
      quantity: m.quantity,
      reason: m.reason,
      event_id: m.eventId,
      line: m.line,
      at: now,
    })),
  );
}

/** Writes movements and moves the projection of what is left by the same amounts. Never edits a movement. */
export async function move(trx: Trx, kitchenId: string, movements: Movement[], now: string): Promise<void> {
  await insertMovements(trx, kitchenId, movements, now);
  for (const m of movements) {
    await trx('lots')
      .where({ kitchen_id: kitchenId, lot_id: m.lotId })
      .update({ on_hand: trx.raw('on_hand + ?::numeric', [m.quantity]) });
  }
}

/** Sets what is left of every lot to the sum of its movements. */
export async function recount(trx: Trx, kitchenId: string): Promise<void> {
  await trx.raw(
    'update lots l set on_hand = coalesce((select sum(m.quantity) from movements m where m.kitchen_id = l.kitchen_id and m.lot_id = l.lot_id), 0) where l.kitchen_id = ?',
    [kitchenId],
  );
}
