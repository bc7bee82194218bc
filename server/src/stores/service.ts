import type { BodyOf, QueryOf, ReplyOf, addItem, listLots, receiveLot } from '@cocotte/contract';
import { Decimal, canonicalJson, dayOf } from '@cocotte/core/measure';
import type { Item, Lot } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import * as queries from './queries.ts';

export async function items(call: Call<unknown, unknown, unknown>): Promise<{ items: Item[] }> {
  return { items: await queries.selectItems(call.trx, call.kitchenId) };
}

export async function add(call: Call<unknown, unknown, BodyOf<typeof addItem>>): Promise<Item> {
  const item = call.body;
  const there = await queries.selectItem(call.trx, call.kitchenId, item.id);
  if (there) {
    if (canonicalJson(there) === canonicalJson(item)) return there;
    throw problem(
      409,
      'id-taken',
      'Another item has this id.',
      'An id names one thing.',
      'Reload and add it again.',
    );
  }
  if (item.kind === 'jar' && item.jarSize === null)
    throw problem(
      422,
      'size-missing',
      'A jar needs its size.',
      'Its processing time and its price follow from it.',
      'Choose the size.',
      'jarSize',
    );
  if (item.kind === 'ingredient' && item.unit_g === null)
    throw problem(
      422,
      'weight-missing',
      `One ${item.unit === 'each' ? 'piece' : item.unit} of ${item.name} needs its weight in grams.`,
      'Labels and costs go by weight.',
      'Weigh it, or count it in grams.',
      'unit_g',
    );
  if (item.kind !== 'ingredient' && item.unit !== 'each')
    throw problem(
      422,
      'unit-wrong',
      'Jars and lids are counted.',
      'A part of a jar is no jar.',
      'Set the unit to each.',
      'unit',
    );
  await queries.insertItem(call.trx, call.kitchenId, item);
  return item;
}

export async function lots(
  call: Call<unknown, QueryOf<typeof listLots>, unknown>,
): Promise<ReplyOf<typeof listLots>> {
  return queries.selectLots(
    call.trx,
    call.kitchenId,
    call.query.after,
    call.query.search,
    call.query.empty === 'yes',
  );
}

/** Records a purchase: a lot and the movement that brings it in. */
export async function receive(call: Call<unknown, unknown, BodyOf<typeof receiveLot>>): Promise<Lot> {
  const { trx, kitchenId, clock } = call;
  const { quantity, ...lot } = call.body;
  const there = await queries.selectLot(trx, kitchenId, lot.id);
  if (there) {
    if (
      there.label === lot.label &&
      there.itemId === lot.itemId &&
      new Decimal(there.unitCost).eq(lot.unitCost)
    )
      return there;
    throw problem(
      409,
      'id-taken',
      'Another lot has this id.',
      'An id names one thing.',
      'Reload and record it again.',
    );
  }
  const item = await queries.selectItem(trx, kitchenId, lot.itemId);
  if (!item) throw notFound('That item');
  if (item.unit === 'each' && !new Decimal(quantity).isInteger())
    throw problem(
      422,
      'not-whole',
      `${item.name} is counted in whole pieces.`,
      'A part of one cannot be drawn.',
      'Enter a whole number.',
      'quantity',
    );
  const kitchen = await readKitchen(call);
  if (lot.receivedOn > dayOf(clock.now_ms(), kitchen.zone))
    throw problem(
      422,
      'future-day',
      'The day it came lies in the future.',
      'Stock cannot be used before it is here.',
      'Enter the day it came.',
      'receivedOn',
    );
  await queries.insertLot(trx, kitchenId, lot);
  await queries.move(
    trx,
    kitchenId,
    [{ lotId: lot.id, quantity, reason: 'received', eventId: null, line: null }],
    new Date(clock.now_ms()).toISOString(),
  );
  return (await queries.selectLot(trx, kitchenId, lot.id)) as Lot;
}
