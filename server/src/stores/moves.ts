import type { BodyOf, LotRow, ParamsOf, ReplyOf, moveLot, openLot } from '@cocotte/contract';
import { Decimal, dayOf } from '@cocotte/core/measure';
import { type Lot, moreThanLot } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { once } from '../house/once.ts';
import { idTaken, notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { type NewMovement, derivedId, leavingCosts, lockLots, move, movement } from './ledger.ts';
import * as queries from './queries.ts';
import { readLot, wholeNumber } from './service.ts';

type AnyCall = Call<unknown, unknown, unknown>;

async function locked(call: AnyCall, lotId: string): Promise<LotRow> {
  const row = (await lockLots(call.trx, call.kitchenId, [lotId])).get(lotId);
  if (!row) throw notFound('That lot');
  return row;
}

const nowText = (call: AnyCall) => new Date(call.clock.now_ms()).toISOString();

/** Whether a movement of this id is there; the same change sent twice is acknowledged. */
async function moved(call: AnyCall, id: string, lotId: string): Promise<boolean> {
  const row = await call
    .trx('movements')
    .where({ kitchen_id: call.kitchenId, movement_id: id })
    .select('lot_id')
    .first();
  if (row && row.lot_id !== lotId) throw idTaken('movement');
  return row !== undefined;
}

/** Counts, losses, returns to the supplier, and containers found empty: each a movement with its reason. */
export async function moveOne(
  call: Call<ParamsOf<typeof moveLot>, unknown, BodyOf<typeof moveLot>>,
): Promise<Lot> {
  const { trx, kitchenId, params, body, person } = call;
  const row = await locked(call, params.lotId);
  if (await moved(call, body.id, row.lot.id)) return row.lot;
  const kitchen = await readKitchen(call);
  const left = new Decimal(row.lot.onHand);
  const given = new Decimal(body.quantity);
  wholeNumber(row.item, body.quantity);
  const enough = () => {
    if (!given.gt(0))
      throw problem(422, {
        code: 'not-positive',
        what: 'The quantity is zero.',
        why: 'Nothing would change.',
        next: 'Enter how much.',
        path: 'quantity',
      });
    if (given.gt(left))
      throw problem(422, {
        ...moreThanLot(row.item, row.lot, body.quantity, kitchen),
        path: 'quantity',
      });
    return given.neg();
  };
  let change: Decimal;
  let reason: NewMovement['reason'];
  let { unitCost } = row.lot;
  if (body.kind !== 'to supplier' && body.kind !== 'undo used up')
    unitCost = (await leavingCosts(trx, kitchenId, kitchen.costs.method, [row.item.id]))(row);
  switch (body.kind) {
    case 'count':
      change = given.minus(left);
      reason = 'counted';
      break;
    case 'loss':
      change = enough();
      reason = 'lost';
      break;
    case 'to supplier':
      change = enough();
      reason = 'returned to supplier';
      break;
    case 'used up':
      change = left.neg();
      reason = 'used up';
      break;
    case 'undo used up': {
      const last = await trx('movements')
        .where({ kitchen_id: kitchenId, lot_id: row.lot.id })
        .orderBy([{ column: 'at', order: 'desc' }])
        .select('reason', 'quantity', 'unit_cost')
        .first();
      if (last?.reason !== 'used up' || !left.isZero())
        throw problem(422, {
          code: 'not-used-up',
          what: 'The last thing that happened to this lot was not that it was used up.',
          why: 'Only the last can be taken back.',
          next: 'Count the lot instead.',
        });
      change = new Decimal(last.quantity).neg();
      unitCost = queries.trimmed(last.unit_cost);
      reason = 'counted';
      break;
    }
  }
  await move(
    trx,
    kitchenId,
    [
      movement({
        id: body.id,
        lotId: row.lot.id,
        quantity: change.toFixed(),
        unitCost,
        reason,
        note: body.reason,
        personId: person.id,
      }),
    ],
    nowText(call),
  );
  return readLot(call, row.lot.id);
}

/** "Opened a new one": the lot becomes the open container; what the one before still held is taken as used up. */
export async function open(
  call: Call<ParamsOf<typeof openLot>, unknown, BodyOf<typeof openLot>>,
): Promise<ReplyOf<typeof openLot>> {
  return once(call, 'lot opened', call.body.id, call.params, () => opened(call));
}

async function opened(
  call: Call<ParamsOf<typeof openLot>, unknown, BodyOf<typeof openLot>>,
): Promise<ReplyOf<typeof openLot>> {
  const { trx, kitchenId, params, body, person } = call;
  const row = await locked(call, params.lotId);
  if (new Decimal(row.lot.onHand).lte(0))
    throw problem(422, {
      code: 'empty-lot',
      what: `Lot ${row.lot.label} is empty.`,
      why: 'An empty container serves nothing.',
      next: 'Open another lot.',
    });
  const kitchen = await readKitchen(call);
  const others: { lot_id: string }[] = await trx('lots')
    .where({ kitchen_id: kitchenId, item_id: row.item.id })
    .where('on_hand', '>', 0)
    .whereNotNull('opened_on')
    .whereNot('lot_id', row.lot.id)
    .select('lot_id');
  const before = await lockLots(
    trx,
    kitchenId,
    others.map(o => o.lot_id),
  );
  const costOf = await leavingCosts(trx, kitchenId, kitchen.costs.method, [row.item.id]);
  await move(
    trx,
    kitchenId,
    [...before.values()].map((o, i) =>
      movement({
        id: i === 0 ? body.id : derivedId(body.id, i),
        lotId: o.lot.id,
        quantity: new Decimal(o.lot.onHand).neg().toFixed(),
        unitCost: costOf(o),
        reason: 'used up',
        note: `lot ${row.lot.label} was opened`,
        personId: person.id,
      }),
    ),
    nowText(call),
  );
  await queries.setOpened(trx, kitchenId, row.lot.id, dayOf(call.clock.now_ms(), kitchen.zone));
  const first = [...before.keys()][0];
  return { lot: await readLot(call, row.lot.id), closed: first ? await readLot(call, first) : null };
}
