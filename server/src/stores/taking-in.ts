import type { BodyOf, ParamsOf, ReplyOf, priceLot, takeIn } from '@cocotte/contract';
import { Decimal, type Fault, dayOf } from '@cocotte/core/measure';
import {
  inItemUnit,
  type Item,
  itemFaults,
  type Lot,
  lotFaults,
  typedFacts,
  UNIT_COST_PLACES,
} from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { derivedId, lockLots, lockWholeStock, move, movement } from './ledger.ts';
import { nameLots } from './lot-names.ts';
import * as queries from './queries.ts';
import { findLot, refuse } from './service.ts';

/** What an item is known by, so that two people who set up at once make it once. */
const keysOf = (item: Item): string[] => [
  ...(item.ingredientId === null ? [] : [`${item.kind} ${item.ingredientId}`]),
  `${item.kind} ${item.jarSize ?? ''} ${item.name.toLowerCase()}`,
  // Whoever says no mouth means any jars of the size; wide ones are no regular ones.
  ...(item.kind === 'jar' ? [`jar ${item.jarSize} ${item.mouth ?? ''}`] : []),
];
/** Under what an item that is kept is found. */
const namesOf = (item: Item): string[] => [
  ...keysOf(item),
  ...(item.kind === 'jar' ? [`jar ${item.jarSize} `] : []),
];

/** Makes items and puts lots on the shelf: all or nothing, and the same twice is the same. */
export async function take(
  call: Call<unknown, unknown, BodyOf<typeof takeIn>>,
): Promise<ReplyOf<typeof takeIn>> {
  const { trx, kitchenId, body, clock, person } = call;
  // Two who make the same item at once wait for each other.
  await lockWholeStock(trx, kitchenId);
  const kept = new Map((await queries.selectItems(trx, kitchenId)).flatMap(i => namesOf(i).map(k => [k, i])));
  const byId = new Map((await queries.selectItems(trx, kitchenId)).map(i => [i.id, i]));
  /** Of each id that was sent, the item it stands for. */
  const stands = new Map<string, Item>();
  for (const sent of body.items) {
    const there =
      byId.get(sent.id) ??
      keysOf(sent)
        .map(k => kept.get(k))
        .find(Boolean);
    if (there) {
      stands.set(sent.id, there);
      continue;
    }
    const item = { ...sent, version: 1 };
    refuse(itemFaults(item).map(f => ({ ...f, path: `items[${body.items.indexOf(sent)}].${f.path}` })));
    // oxlint-disable-next-line no-await-in-loop -- a dozen at most
    await queries.insertItem(trx, kitchenId, item);
    for (const key of namesOf(item)) kept.set(key, item);
    byId.set(item.id, item);
    stands.set(sent.id, item);
  }
  const { zone, locale } = await readKitchen(call);
  const today = dayOf(clock.now_ms(), zone);
  const faults: Fault[] = [];
  const there = await lockLots(
    trx,
    kitchenId,
    body.lots.map(l => l.id),
  );
  const fresh = body.lots.flatMap((lot, i) => {
    const at = `lots[${i}]`;
    const item = stands.get(lot.itemId) ?? byId.get(lot.itemId);
    if (there.has(lot.id)) return [];
    if (!item) {
      faults.push({
        path: `${at}.itemId`,
        code: 'unknown-item',
        what: 'That item is not in this kitchen.',
        why: 'A lot is of something.',
        next: 'Choose the item, or send it along.',
      });
      return [];
    }
    const quantity = inItemUnit(item, lot.quantity, lot.unit);
    if (!quantity.ok) {
      faults.push({ ...quantity.fault, path: `${at}.unit` });
      return [];
    }
    const whole = new Decimal(quantity.value);
    if (!whole.gt(0) || (item.unit === 'each' && !whole.isInteger())) {
      faults.push({
        path: `${at}.quantity`,
        code: 'not-whole',
        what: `${item.name} is counted in whole pieces.`,
        why: 'A part of one cannot be drawn.',
        next: 'Enter a whole number above zero.',
      });
      return [];
    }
    const taken = {
      id: lot.id,
      itemId: item.id,
      label: lot.label,
      supplier: '',
      receivedOn: today,
      bestBy: lot.bestBy,
      unitCost: '0',
      strength_pct: item.use === 'vinegar' ? lot.strength_pct : null,
      openedOn: null,
      receiptId: null,
      facts: { ...typedFacts(lot.facts, 'purchase'), value: 'price to come' as const },
    };
    faults.push(...lotFaults(item, taken, today).map(f => ({ ...f, path: `${at}.${f.path}` })));
    if (item.use === 'vinegar' && taken.strength_pct === null)
      faults.push({
        path: `${at}.strength_pct`,
        code: 'strength-missing',
        what: `The strength of ${item.name} is not said.`,
        why: 'Vinegar under 5 % does not make a pickle safe, and what no label says nobody knows.',
        next: 'Read it on the bottle.',
      });
    return [{ lot: taken, quantity: whole.toFixed(), name: item.name }];
  });
  refuse(faults);
  const named = await nameLots(
    trx,
    kitchenId,
    fresh.map(f => ({ ...f.lot, name: f.name })),
    { locale },
  );
  await queries.insertLots(trx, kitchenId, named);
  await move(
    trx,
    kitchenId,
    fresh.map(({ lot, quantity }) =>
      movement({
        id: derivedId(lot.id, 'received'),
        lotId: lot.id,
        quantity,
        unitCost: '0',
        reason: 'received',
        personId: person.id,
      }),
    ),
    new Date(clock.now_ms()).toISOString(),
  );
  const lots = await lockLots(
    trx,
    kitchenId,
    body.lots.map(l => l.id),
  );
  return {
    items: body.items.map(i => stands.get(i.id) as Item),
    lots: body.lots.map(l => lots.get(l.id)?.lot as Lot),
  };
}

/** Gives a lot its price: what is left goes out without one and comes in with it. */
export async function price(
  call: Call<ParamsOf<typeof priceLot>, unknown, BodyOf<typeof priceLot>>,
): Promise<Lot> {
  const { trx, kitchenId, params, body, clock, person } = call;
  await findLot(call, params.lotId);
  const row = (await lockLots(trx, kitchenId, [params.lotId])).get(params.lotId);
  if (!row) throw problem(404, { code: 'not-found', what: 'That lot is not there.', why: '', next: '' });
  const { lot } = row;
  const came: { quantity: string } | undefined = await trx('movements')
    .where({ kitchen_id: kitchenId, lot_id: lot.id, reason: 'received' })
    .first('quantity');
  const unitCost = new Decimal(body.price)
    .div(came?.quantity ?? '1')
    .toDecimalPlaces(UNIT_COST_PLACES)
    .toFixed();
  if (lot.facts.value !== 'price to come') {
    // The same price told twice: the first answer may have been lost.
    if (new Decimal(lot.unitCost).eq(unitCost)) return lot;
    throw problem(422, {
      code: 'has-price',
      what: `Lot ${lot.label} has a price already.`,
      why: 'What left it was reckoned with that price.',
      next: 'Take its receipt back, or leave it.',
      path: 'price',
    });
  }
  const at = new Date(clock.now_ms()).toISOString();
  const left = new Decimal(lot.onHand);
  const moved = (id: string, quantity: Decimal, unit: string) =>
    move(
      trx,
      kitchenId,
      [
        movement({
          id: derivedId(lot.id, id),
          lotId: lot.id,
          quantity: quantity.toFixed(),
          unitCost: unit,
          reason: 'priced',
          personId: person.id,
        }),
      ],
      at,
    );
  await moved('priced, out', left.neg(), '0');
  await moved('priced, in', left, unitCost);
  await trx('lots')
    .where({ kitchen_id: kitchenId, lot_id: lot.id })
    .update({ unit_cost: unitCost, facts: JSON.stringify({ ...lot.facts, value: 'paid' }) });
  return { ...lot, unitCost, facts: { ...lot.facts, value: 'paid' } };
}
