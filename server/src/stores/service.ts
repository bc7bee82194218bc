import type {
  BodyOf,
  ParamsOf,
  QueryOf,
  ReplyOf,
  addItem,
  changeItem,
  listLots,
  receiveLot,
} from '@cocotte/contract';
import { Decimal, type Fault, canonicalJson, dayOf, instantOf } from '@cocotte/core/measure';
import { type Item, type Lot, itemFaults, lotFaults, typedFacts } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { HttpProblem, idTaken, notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { derivedId, lockItems, move, movement } from './ledger.ts';
import { nameLots } from './lot-names.ts';
import * as queries from './queries.ts';

type AnyCall = Call<unknown, unknown, unknown>;

/** Every item of the kitchen. */
export async function items(call: AnyCall): Promise<{ items: Item[] }> {
  return { items: await queries.selectItems(call.trx, call.kitchenId) };
}

/** Adds an item; the same twice is the same. */
export async function add(call: Call<unknown, unknown, BodyOf<typeof addItem>>): Promise<Item> {
  const item = { ...call.body, version: 1 };
  const there = await queries.selectItem(call.trx, call.kitchenId, item.id);
  if (there) {
    if (canonicalJson(there) === canonicalJson(item)) return there;
    throw idTaken('item');
  }
  refuse(itemFaults(item));
  await queries.insertItem(call.trx, call.kitchenId, item);
  return item;
}

/** Changes an item, unless somebody else did meanwhile; its unit stays while it has lots. */
export async function change(
  call: Call<ParamsOf<typeof changeItem>, unknown, BodyOf<typeof changeItem>>,
): Promise<Item> {
  const { trx, kitchenId, body } = call;
  const there = await queries.selectItem(trx, kitchenId, call.params.itemId);
  if (!there || there.id !== body.id) throw notFound('That item');
  refuse(itemFaults(body));
  if (
    (there.unit !== body.unit || there.kind !== body.kind) &&
    (await queries.hasLots(trx, kitchenId, body.id))
  )
    throw problem(422, {
      code: 'unit-kept',
      what: 'What this item is, and the unit it is counted in, stay.',
      why: 'Its lots and their movements are counted in it.',
      next: 'Add another item.',
      path: 'unit',
    });
  // The same change sent twice: the first answer may have been lost.
  const sentBefore = { ...body, version: body.version + 1 };
  if (canonicalJson(there) === canonicalJson(sentBefore)) return there;
  const item = { ...body, version: there.version + 1 };
  if (there.version !== body.version || !(await queries.updateItem(trx, kitchenId, item, there.version))) {
    const newer = await queries.selectItem(trx, kitchenId, item.id);
    if (canonicalJson(newer) === canonicalJson(sentBefore)) return item;
    throw Object.assign(
      problem(409, {
        code: 'stale',
        what: 'Somebody changed this item meanwhile.',
        why: 'One change would undo the other.',
        next: 'Look at theirs, then change it again.',
      }),
      { newer: newer ?? there },
    );
  }
  return item;
}

/** A page of lots. */
export async function lots(
  call: Call<unknown, QueryOf<typeof listLots>, unknown>,
): Promise<ReplyOf<typeof listLots>> {
  const { after, search, empty, itemId } = call.query;
  return queries.selectLots(call.trx, call.kitchenId, { after, search, withEmpty: empty === 'yes', itemId });
}

/** Records a lot that came without a receipt, and the movement that brings it in. */
export async function receive(call: Call<unknown, unknown, BodyOf<typeof receiveLot>>): Promise<Lot> {
  const { trx, kitchenId, clock } = call;
  const { quantity, ...lot } = call.body;
  const there = await queries.selectLot(trx, kitchenId, lot.id);
  if (there) {
    if (
      (lot.label.trim() === '' || there.lot.label === lot.label) &&
      there.lot.itemId === lot.itemId &&
      new Decimal(there.lot.unitCost).eq(lot.unitCost)
    )
      return there.lot;
    throw idTaken('lot');
  }
  const item = await queries.selectItem(trx, kitchenId, lot.itemId);
  if (!item) throw notFound('That item');
  wholeNumber(item, quantity);
  const { zone } = await readKitchen(call);
  refuse(lotFaults(item, lot, dayOf(clock.now_ms(), zone)));
  await lockItems(trx, kitchenId, [item.id]);
  await bringIn(
    call,
    { ...lot, facts: typedFacts(lot.facts), openedOn: null, receiptId: null },
    quantity,
    zone,
    'received',
  );
  return readLot(call, lot.id);
}

/** Puts a new lot on the shelf with the movement that brings it in, on the day it came. */
export async function bringIn(
  call: AnyCall,
  lot: queries.NewLot,
  quantity: string,
  zone: string,
  reason: 'received' | 'made',
): Promise<void> {
  const { trx, kitchenId, person } = call;
  const names = lot.label.trim() === '' ? await queries.itemNames(trx, kitchenId, [lot.itemId]) : new Map();
  const { locale } = await readKitchen(call);
  await queries.insertLots(
    trx,
    kitchenId,
    await nameLots(trx, kitchenId, [{ ...lot, name: names.get(lot.itemId) ?? '' }], { locale }),
  );
  await move(
    trx,
    kitchenId,
    [
      movement({
        id: derivedId(lot.id, reason),
        lotId: lot.id,
        quantity,
        unitCost: lot.unitCost,
        reason,
        personId: person.id,
      }),
    ],
    arrivalOf(lot.receivedOn, call.clock.now_ms(), zone),
  );
}

/** When something came: now if it is of today, else the beginning of its day. */
export function arrivalOf(day: string, now_ms: number, zone: string): string {
  return new Date(day === dayOf(now_ms, zone) ? now_ms : instantOf(`${day}T00:00`, zone)).toISOString();
}

/**
 * A lot by its id.
 *
 * @throws HttpProblem 404 where there is none
 */
export async function readLot(call: Pick<AnyCall, 'trx' | 'kitchenId'>, lotId: string): Promise<Lot> {
  return (await findLot(call, lotId)).lot;
}

/**
 * A lot with its item.
 *
 * @throws HttpProblem 404 where there is none
 */
export async function findLot(call: Pick<AnyCall, 'trx' | 'kitchenId'>, lotId: string) {
  const row = await queries.selectLot(call.trx, call.kitchenId, lotId);
  if (!row) throw notFound('That lot');
  return row;
}

/**
 * Refuses what has faults.
 *
 * @throws HttpProblem 422 with all of them, where there are any
 */
export function refuse(faults: Fault[]): void {
  if (faults.length > 0) throw new HttpProblem(422, faults[0]?.code ?? 'refused', faults);
}

/**
 * Refuses parts of what is counted in pieces.
 *
 * @throws HttpProblem 422
 */
export function wholeNumber(item: Item, quantity: string): void {
  if (item.unit === 'each' && !new Decimal(quantity).isInteger())
    throw problem(422, {
      code: 'not-whole',
      what: `${item.name} is counted in whole pieces.`,
      why: 'A part of one cannot be drawn.',
      next: 'Enter a whole number.',
      path: 'quantity',
    });
}
