import type {
  LotTrace,
  LotView,
  MovementRow,
  ParamsOf,
  QueryOf,
  ReplyOf,
  StockRow,
  listStock,
  readLot,
  readShelf,
} from '@cocotte/contract';
import { addDays, dayOf } from '@cocotte/core/measure';
import { type Item, type LotPart, reservedOf, upgradeItem } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { fromKey, likeWords, toKey } from '../house/paging.ts';
import { problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { readKitchen } from '../kitchen/service.ts';
import { shoppingFor } from './plans.ts';
import * as queries from './queries.ts';
import { findLot } from './service.ts';
import { bareShelf, countedShelf } from './shelf.ts';

const PAGE = 40;
/** Days ahead in which something counts as spoiling soon. */
const SOON_DAYS = 21;

const BELOW = `i.minimum is not null and i.minimum > coalesce((select sum(l.on_hand) from lots l
  where l.kitchen_id = i.kitchen_id and l.item_id = i.item_id and l.on_hand > 0), 0)`;
const SPOILING = `exists (select 1 from lots l where l.kitchen_id = i.kitchen_id and l.item_id = i.item_id
  and l.on_hand > 0 and l.best_by <= ?)`;

const SHORT = `exists (select 1 from lots l where l.kitchen_id = i.kitchen_id and l.item_id = i.item_id
  and l.on_hand < 0)`;

const COUNTS = `
  select count(*) filter (where ${BELOW}) as below, count(*) filter (where ${SPOILING}) as spoiling,
    count(*) filter (where ${SHORT}) as short
  from items i where i.kitchen_id = ?`;

/** What there is of an item `p` now: what is left stands at its lots, what it is worth in its months. */
const FIGURES_NOW = `
  select coalesce(min(m.q), 0) as quantity, coalesce(min(m.v), 0) as value, count(l.lot_id)::int as lots,
    min(l.best_by) as best_by,
    coalesce(
      (array_agg(l.label order by l.received_on, l.lot_id) filter (where l.opened_on is not null))[1], '') as open,
    (select jsonb_build_object('lotId', s.lot_id, 'label', s.label, 'quantity', trim_scale(-s.on_hand)::text) from lots s
      where s.kitchen_id = p.kitchen_id and s.item_id = p.item_id and s.on_hand < 0
      order by s.received_on, s.lot_id limit 1) as short
  from (
      select sum(quantity) q, sum(value) v from item_months
      where kitchen_id = p.kitchen_id and item_id = p.item_id
    ) m
  left join lots l on l.kitchen_id = p.kitchen_id and l.item_id = p.item_id and l.on_hand > 0`;

/** What there was of it at an instant: the sum of whole months, and of the movements of the month it lies in. */
const FIGURES_AT = `
  select coalesce(m.q, 0) + coalesce(d.q, 0) as quantity, coalesce(m.v, 0) + coalesce(d.v, 0) as value,
    0 as lots, null::date as best_by, '' as open, null::jsonb as short
  from (
      select sum(quantity) q, sum(value) v from item_months
      where kitchen_id = p.kitchen_id and item_id = p.item_id
        and month < date_trunc('month', ?::timestamptz at time zone 'UTC')::date
    ) m,
    (
      select sum(quantity) q, sum(quantity * unit_cost) v from movements
      where kitchen_id = p.kitchen_id and item_id = p.item_id
        and at >= date_trunc('month', ?::timestamptz at time zone 'UTC') at time zone 'UTC'
        and at <= ?::timestamptz
    ) d`;

/**
 * What is on the shelf by item, now or at a past instant: whole months from their sums, the month of the instant from
 * its movements.
 */
export async function stock(
  call: Call<unknown, QueryOf<typeof listStock>, unknown>,
): Promise<ReplyOf<typeof listStock>> {
  const { trx, kitchenId, query, clock } = call;
  const past = query.at !== '';
  if (past && (Number.isNaN(Date.parse(query.at)) || Date.parse(query.at) > clock.now_ms() + 60_000))
    throw problem(422, {
      code: 'not-past',
      what: 'That is no instant of the past.',
      why: 'What will be is not known.',
      next: 'Enter a day and time that has been.',
      path: 'at',
    });
  const at = past ? new Date(query.at).toISOString() : new Date(clock.now_ms()).toISOString();
  const { zone } = await readKitchen(call);
  const soon = addDays(dayOf(clock.now_ms(), zone), SOON_DAYS);
  const page = trx('items as i')
    .where('i.kitchen_id', kitchenId)
    .orderBy(['i.name', 'i.item_id'])
    .limit(PAGE + 1)
    .select('i.*');
  if (query.kind) page.where('i.kind', query.kind);
  if (query.search) page.where('i.name', 'ilike', likeWords(query.search));
  if (query.only === 'below minimum') page.whereRaw(BELOW);
  if (query.only === 'spoiling soon') page.whereRaw(SPOILING, [soon]);
  if (query.only === 'short') page.whereRaw(SHORT);
  const key = fromKey(query.after, ['text', 'uuid']);
  if (key) page.whereRaw('(i.name, i.item_id) > (?, ?::uuid)', key);
  const { rows } = await trx.raw<{
    rows: {
      item_id: string;
      name: string;
      minimum: string | null;
      body: Item;
      quantity: string;
      value: string;
      lots: number;
      best_by: string | null;
      open: string;
      short: StockRow['short'];
    }[];
  }>(
    `select p.*, f.* from ? p cross join lateral (${past ? FIGURES_AT : FIGURES_NOW}) f order by p.name, p.item_id`,
    [page, ...(past ? [at, at, at] : [])],
  );
  const counts = await trx.raw<{ rows: { below: string; spoiling: string; short: string }[] }>(COUNTS, [
    soon,
    kitchenId,
  ]);
  const reserved = past
    ? new Map<string, string>()
    : reservedOf(await shoppingFor(call, () => countedShelf(call)));
  const shown = rows.slice(0, PAGE);
  const last = shown.at(-1);
  return {
    rows: shown.map((r): StockRow => {
      const item = upgradeItem(r.body);
      return {
        item,
        quantity: queries.trimmed(r.quantity),
        value: queries.trimmed(r.value),
        reserved: reserved.get(item.id) ?? '0',
        lots: r.lots,
        open: r.open,
        soonestBestBy: r.best_by,
        belowMinimum: r.minimum !== null && Number(r.quantity) < Number(r.minimum),
        short: r.short,
      };
    }),
    next: rows.length > PAGE && last ? toKey([last.name, last.item_id]) : null,
    below: Number(counts.rows[0]?.below ?? 0),
    spoiling: Number(counts.rows[0]?.spoiling ?? 0),
    short: Number(counts.rows[0]?.short ?? 0),
  };
}

/** Every item with its lots that have something left, and what is kept for plans. */
export async function shelf(call: Call<unknown, unknown, unknown>): Promise<ReplyOf<typeof readShelf>> {
  const bare = await bareShelf(call);
  const reserved = reservedOf(await shoppingFor(call, async () => bare));
  return { shelf: bare.map(s => ({ ...s, reserved: reserved.get(s.item.id) ?? '0' })) };
}

const MOVEMENTS_SHOWN = 300;
const GENERATIONS = 6;

/** A lot with its movements and its trace both ways. */
export async function lotView(call: Call<ParamsOf<typeof readLot>, unknown, unknown>): Promise<LotView> {
  const { trx, kitchenId, params } = call;
  const row = await findLot(call, params.lotId);
  const rows = await trx('movements as m')
    .leftJoin('batches as b', join =>
      join.on('b.kitchen_id', 'm.kitchen_id').andOn('b.batch_id', 'm.batch_id'),
    )
    .where({ 'm.kitchen_id': kitchenId, 'm.lot_id': row.lot.id })
    .orderBy([{ column: 'm.at', order: 'desc' }, { column: 'm.movement_id' }])
    .limit(MOVEMENTS_SHOWN)
    .select('m.*', 'b.lot_code', 'b.name as batch_name');
  const people = await namesOf(trx, [...new Set(rows.flatMap(r => (r.person_id as string | null) ?? []))]);
  const movements = rows.map((r): MovementRow => ({
    id: r.movement_id,
    lotId: r.lot_id,
    quantity: queries.trimmed(r.quantity),
    unitCost: queries.trimmed(r.unit_cost),
    reason: r.reason,
    note: r.note,
    at: new Date(r.at).toISOString(),
    person: people[r.person_id] ?? '',
    batchId: r.batch_id,
    lotCode: r.lot_code ?? '',
  }));
  const intoIds: { to_lot: string }[] = await trx('movements')
    .where({ kitchen_id: kitchenId, lot_id: row.lot.id })
    .whereNotNull('to_lot')
    .distinct('to_lot');
  const batches: LotTrace['batches'] = (
    await trx('movements as m')
      .join('batches as b', join => join.on('b.kitchen_id', 'm.kitchen_id').andOn('b.batch_id', 'm.batch_id'))
      .where({ 'm.kitchen_id': kitchenId, 'm.lot_id': row.lot.id })
      .where('m.reason', '<>', 'made')
      .groupBy('b.batch_id', 'b.lot_code', 'b.name', 'b.made_on')
      .orderBy('b.made_on', 'desc')
      .limit(500)
      .select('b.batch_id', 'b.lot_code', 'b.name', trx.raw('-sum(m.quantity) as quantity'))
  )
    .filter(r => Number(r.quantity) !== 0)
    .map(r => ({
      batchId: r.batch_id,
      lotCode: r.lot_code,
      name: r.name,
      quantity: queries.trimmed(r.quantity),
    }));
  return {
    ...row,
    movements,
    trace: {
      from: await ancestors(call, row.lot.facts.from),
      into: await queries.selectLotsById(
        trx,
        kitchenId,
        intoIds.map(i => i.to_lot),
      ),
      batches,
    },
  };
}

/** Lots that a lot came out of, and those they came out of, nearest first. */
async function ancestors(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  from: LotPart[],
): Promise<LotTrace['from']> {
  const found: LotTrace['from'] = [];
  const seen = new Set<string>();
  let next = from;
  for (let depth = 0; depth < GENERATIONS && next.length > 0; depth++) {
    const ids = next.flatMap(p => (p.kind === 'lot' && !seen.has(p.lotId) ? [p.lotId] : []));
    for (const id of ids) seen.add(id);
    const rows = await queries.selectLotsById(call.trx, call.kitchenId, ids);
    found.push(...rows);
    next = rows.flatMap(r => r.lot.facts.from);
  }
  return found.slice(0, 200);
}
