import { Decimal } from '@cocotte/core/measure';
import { createHash } from 'node:crypto';
import type { LotRow } from '@cocotte/contract';
import type { BatchEvent } from '@cocotte/core/batches';
import type { CostingMethod } from '@cocotte/core/kitchen';
import { type Item, type MovementReason, upgradeItem } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import { type LotColumns, lotFrom, selectAverages } from './queries.ts';

/** A movement to be written. */
export interface NewMovement {
  id: string;
  lotId: string;
  /** Signed decimal text in the item's unit. */
  quantity: string;
  unitCost: string;
  reason: MovementReason;
  note: string;
  personId: string | null;
  eventId: string | null;
  line: number | null;
  batchId: string | null;
  /** The lot it went into, for what is worked up. */
  toLot: string | null;
}

const plain = { note: '', personId: null, eventId: null, line: null, batchId: null, toLot: null } as const;

/** A movement that no batch made. */
export const movement = (
  m: Pick<NewMovement, 'id' | 'lotId' | 'quantity' | 'unitCost' | 'reason'> & Partial<NewMovement>,
): NewMovement => ({ ...plain, ...m });

/** A name that is the same whenever it is derived again from what the movement is of. */
export function derivedId(...of: (string | number)[]): string {
  const hex = createHash('sha256').update(of.join(' ')).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/** The movements a batch's entry makes: draws take, reversals and returns bring back, jars taken become a lot. */
export function batchMovements(
  event: BatchEvent,
  find: (eventId: string) => BatchEvent | undefined,
): NewMovement[] {
  const of = (
    line: number,
    m: Pick<NewMovement, 'lotId' | 'quantity' | 'unitCost' | 'reason'>,
  ): NewMovement => ({
    ...plain,
    ...m,
    id: derivedId(event.id, line),
    personId: event.personId,
    eventId: event.id,
    line,
    batchId: event.batchId,
  });
  switch (event.type) {
    case 'lot.drawn':
      return event.body.lots.map((l, line) =>
        of(line, { lotId: l.lotId, quantity: `-${l.quantity}`, unitCost: l.unitCost, reason: 'drawn' }),
      );
    case 'draw.reversed': {
      const drawn = find(event.body.drawId);
      return drawn?.type === 'lot.drawn'
        ? drawn.body.lots.map((l, line) =>
            of(line, { lotId: l.lotId, quantity: l.quantity, unitCost: l.unitCost, reason: 'put back' }),
          )
        : [];
    }
    case 'lots.returned':
      return event.body.lots.map((l, line) => of(line, { ...l, reason: 'returned' }));
    case 'jars.taken':
      return [
        of(0, {
          lotId: event.body.lotId,
          quantity: String(event.body.jars.length),
          unitCost: event.body.unitCost,
          reason: 'made',
        }),
      ];
    case 'pot.taken':
      return [
        of(0, {
          lotId: event.body.lotId,
          quantity: new Decimal(event.body.mass_g).toFixed(),
          unitCost: event.body.unitCost,
          reason: 'made',
        }),
      ];
    default:
      return [];
  }
}

/**
 * Locks items in the order of their ids, so that two who move stock never wait for each other in a ring; all of the
 * kitchen's where none are named.
 */
export async function lockItems(trx: Trx, kitchenId: string, itemIds?: Iterable<string>): Promise<void> {
  const items = trx('items').where({ kitchen_id: kitchenId }).orderBy('item_id').forNoKeyUpdate();
  if (itemIds) items.whereIn('item_id', [...new Set(itemIds)].sort());
  await items.select('item_id');
}

/** Locks everything that stock hangs on, also against new items, which would wait for their kitchen's row. */
export async function lockWholeStock(trx: Trx, kitchenId: string): Promise<void> {
  await trx.raw('select 1 from items where kitchen_id = ? order by item_id for update', [kitchenId]);
  await trx.raw('select 1 from kitchens where kitchen_id = ? for update', [kitchenId]);
  // Items that came between the two.
  await trx.raw('select 1 from items where kitchen_id = ? order by item_id for update', [kitchenId]);
}

/** Locks the items of lots and reads the lots, each with what its movements leave. */
export async function lockLots(trx: Trx, kitchenId: string, lotIds: string[]): Promise<Map<string, LotRow>> {
  const ids = [...new Set(lotIds)];
  const items: { item_id: string }[] = await trx('lots')
    .where({ kitchen_id: kitchenId })
    .whereIn('lot_id', ids)
    .distinct('item_id');
  await lockItems(
    trx,
    kitchenId,
    items.map(i => i.item_id),
  );
  const rows: (LotColumns & { body: Item; moved: string | null })[] = await trx('lots as l')
    .join('items as i', join => join.on('i.kitchen_id', 'l.kitchen_id').andOn('i.item_id', 'l.item_id'))
    .where('l.kitchen_id', kitchenId)
    .whereIn('l.lot_id', ids)
    .select(
      'l.*',
      'i.body',
      // Under the lock the balance is the sum of the movements, whatever the projection says.
      trx.raw(
        '(select sum(m.quantity) from movements m where m.kitchen_id = l.kitchen_id and m.lot_id = l.lot_id) as moved',
      ),
    );
  return new Map(
    rows.map(r => [r.lot_id, { lot: lotFrom({ ...r, on_hand: r.moved ?? '0' }), item: upgradeItem(r.body) }]),
  );
}

/**
 * What one unit costs that leaves each item's stock now: by the lot, or by the average of what the item's stock is
 * worth. The caller holds the items' locks.
 */
export async function leavingCosts(
  trx: Trx,
  kitchenId: string,
  method: CostingMethod,
  itemIds: Iterable<string>,
): Promise<(row: LotRow) => string> {
  if (method === 'first in, first out') return row => row.lot.unitCost;
  const averages = await selectAverages(trx, kitchenId, itemIds);
  return row => averages.get(row.item.id) ?? row.lot.unitCost;
}

/** One instant for all movements, or one for each. */
type Instants = string | readonly string[];
const instants = (movements: readonly NewMovement[], at: Instants) =>
  typeof at === 'string' ? movements.map(() => at) : at;

/** Movements take their item from their lot, which is there before they are. */
const INSERT_MOVEMENTS = `
  insert into movements
    (kitchen_id, movement_id, lot_id, item_id, quantity, unit_cost, reason, note, person_id, event_id, line, batch_id,
     to_lot, at)
  select l.kitchen_id, m.id, m.lot_id, l.item_id, m.quantity, m.unit_cost, m.reason, m.note, m.person_id, m.event_id,
     m.line, m.batch_id, m.to_lot, m.at
  from unnest(
      ?::uuid[], ?::uuid[], ?::numeric[], ?::numeric[], ?::text[], ?::text[], ?::uuid[], ?::uuid[], ?::int[],
      ?::uuid[], ?::uuid[], ?::timestamptz[])
    as m (id, lot_id, quantity, unit_cost, reason, note, person_id, event_id, line, batch_id, to_lot, at)
  join lots l on l.kitchen_id = ? and l.lot_id = m.lot_id`;

/**
 * Writes movements and nothing else of the ledger; the projections follow. Never edits a movement.
 *
 * @param at  when it happened, or when each did
 */
export async function insertMovements(
  trx: Trx,
  kitchenId: string,
  movements: readonly NewMovement[],
  at: Instants,
): Promise<void> {
  if (movements.length === 0) return;
  const column = <T>(pick: (m: NewMovement) => T) => movements.map(pick) as never;
  await trx.raw(INSERT_MOVEMENTS, [
    column(m => m.id),
    column(m => m.lotId),
    column(m => m.quantity),
    column(m => m.unitCost),
    column(m => m.reason),
    column(m => m.note),
    column(m => m.personId),
    column(m => m.eventId),
    column(m => m.line),
    column(m => m.batchId),
    column(m => m.toLot),
    instants(movements, at) as never,
    kitchenId,
  ]);
}

/** What is left of each lot; what is drawn from for the first time is opened on that day of the kitchen. */
const MOVE_LOTS = `
  update lots l set
    on_hand = l.on_hand + s.quantity,
    opened_on = coalesce(l.opened_on, (s.drawn_at at time zone k.zone)::date)
  from (
      select lot_id, sum(quantity) as quantity,
        min(at) filter (where quantity < 0 and reason in ('drawn', 'worked up')) as drawn_at
      from unnest(?::uuid[], ?::numeric[], ?::text[], ?::timestamptz[]) as m (lot_id, quantity, reason, at)
      group by lot_id
    ) s,
    (select settings->>'zone' as zone from kitchens where kitchen_id = ?) k
  where l.kitchen_id = ? and l.lot_id = s.lot_id`;

/** Sums of each item's month, locked in the order of items, so that two movers never wait in a ring. */
const MOVE_MONTHS = `
  insert into item_months as i (kitchen_id, item_id, month, quantity, value)
  select l.kitchen_id, l.item_id, date_trunc('month', m.at at time zone 'UTC')::date,
    sum(m.quantity), sum(m.quantity * m.unit_cost)
  from unnest(?::uuid[], ?::numeric[], ?::numeric[], ?::timestamptz[]) as m (lot_id, quantity, unit_cost, at)
  join lots l on l.kitchen_id = ? and l.lot_id = m.lot_id
  group by 1, 2, 3
  order by 2, 3
  on conflict (kitchen_id, item_id, month)
    do update set quantity = i.quantity + excluded.quantity, value = i.value + excluded.value`;

/** Writes movements, and moves what is left of each lot and of each item's month by the same amounts. */
export async function move(
  trx: Trx,
  kitchenId: string,
  movements: readonly NewMovement[],
  at: Instants,
): Promise<void> {
  if (movements.length === 0) return;
  await insertMovements(trx, kitchenId, movements, at);
  const lots = movements.map(m => m.lotId);
  const quantities = movements.map(m => m.quantity);
  const when = instants(movements, at) as never;
  await trx.raw(MOVE_LOTS, [lots, quantities, movements.map(m => m.reason), when, kitchenId, kitchenId]);
  await trx.raw(MOVE_MONTHS, [lots, quantities, movements.map(m => m.unitCost), when, kitchenId]);
}

const RECOUNT_LOTS = `
  update lots l set on_hand = coalesce(
    (select sum(m.quantity) from movements m where m.kitchen_id = l.kitchen_id and m.lot_id = l.lot_id), 0)
  where l.kitchen_id = ?`;
const RECOUNT_MONTHS = `
  insert into item_months (kitchen_id, item_id, month, quantity, value)
  select kitchen_id, item_id, date_trunc('month', at at time zone 'UTC')::date,
    sum(quantity), sum(quantity * unit_cost)
  from movements where kitchen_id = ? group by 1, 2, 3`;

/** Derives again from the movements: what is left of each lot, and each item's months. */
export async function recount(trx: Trx, kitchenId: string): Promise<void> {
  await trx.raw(RECOUNT_LOTS, [kitchenId]);
  await trx('item_months').where({ kitchen_id: kitchenId }).delete();
  await trx.raw(RECOUNT_MONTHS, [kitchenId]);
}
