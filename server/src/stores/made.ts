import type { BodyOf, LotRow, PartOf, mixLots, prepareLot } from '@cocotte/contract';
import type { Kitchen } from '@cocotte/core/kitchen';
import { Decimal, type Fault, dayOf } from '@cocotte/core/measure';
import {
  type Lot,
  type LotPart,
  type LotSource,
  UNIT_COST_PLACES,
  contentsOf,
  plainFacts,
  moreThanLot,
} from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { idTaken, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { type NewMovement, derivedId, leavingCosts, lockItems, lockLots, move, movement } from './ledger.ts';
import * as queries from './queries.ts';
import { bringIn, findLot, readLot, refuse, wholeNumber } from './service.ts';

type AnyCall = Call<unknown, unknown, unknown>;

const nowText = (call: AnyCall) => new Date(call.clock.now_ms()).toISOString();
const trimmedCost = (cost: Decimal) => cost.toDecimalPlaces(UNIT_COST_PLACES).toFixed();

/** The same thing made twice is acknowledged; another under its id is refused. */
function again(lot: Lot, label: string, source: LotSource): Lot {
  if (lot.label !== label || lot.facts.source !== source) throw idTaken('lot');
  return lot;
}

interface Parts {
  rows: { row: LotRow; quantity: string }[];
  value: Decimal;
  movements: NewMovement[];
}

/** Takes parts out of their lots into a new one: all of them or none. */
async function takeParts(
  call: AnyCall,
  parts: readonly PartOf[],
  kitchen: Kitchen,
  intoLot: string,
  intoItem: string,
): Promise<Parts> {
  const { trx, kitchenId, person } = call;
  const known = await queries.selectLotsById(
    trx,
    kitchenId,
    parts.map(p => p.lotId),
  );
  await lockItems(trx, kitchenId, [...known.map(k => k.item.id), intoItem]);
  const lots = await lockLots(
    trx,
    kitchenId,
    parts.map(p => p.lotId),
  );
  const costOf = await leavingCosts(
    trx,
    kitchenId,
    kitchen.costs.method,
    known.map(k => k.item.id),
  );
  const faults: Fault[] = [];
  const out: Parts = { rows: [], value: new Decimal(0), movements: [] };
  const seen = new Set<string>();
  parts.forEach((part, i) => {
    const at = `parts[${i}]`;
    const row = lots.get(part.lotId);
    if (!row || seen.has(part.lotId)) {
      faults.push({
        path: `${at}.lotId`,
        code: 'unknown-lot',
        what: row ? 'That lot is named twice.' : 'That lot is not in this kitchen.',
        why: 'What is made traces to what went in.',
        next: 'Choose another lot.',
      });
      return;
    }
    seen.add(part.lotId);
    if (new Decimal(part.quantity).gt(row.lot.onHand)) {
      faults.push({
        ...moreThanLot(row.item, row.lot, part.quantity, kitchen),
        path: `${at}.quantity`,
      });
      return;
    }
    const unitCost = costOf(row);
    out.rows.push({ row, quantity: part.quantity });
    out.value = out.value.plus(new Decimal(part.quantity).times(unitCost));
    out.movements.push(
      movement({
        id: derivedId(intoLot, 'from', part.lotId),
        lotId: row.lot.id,
        quantity: `-${part.quantity}`,
        unitCost,
        reason: 'worked up',
        personId: person.id,
        toLot: intoLot,
      }),
    );
  });
  refuse(faults);
  return out;
}

const partsOf = (rows: Parts['rows']): LotPart[] =>
  rows.map(({ row, quantity }) => ({
    kind: 'lot',
    lotId: row.lot.id,
    label: row.lot.label,
    name: row.item.name,
    quantity,
    unit: row.item.unit,
  }));

const joined = (texts: string[]) => [...new Set(texts.filter(Boolean))].join('; ').slice(0, 300);
const earliest = (days: (string | null)[]) => days.filter(d => d !== null).sort()[0] ?? null;

/** Pours lots of one item into one container: a mixed lot that is as weak as its weakest and traces to all of them. */
export async function mix(call: Call<unknown, unknown, BodyOf<typeof mixLots>>): Promise<Lot> {
  const { trx, kitchenId, body } = call;
  const there = await queries.selectLot(trx, kitchenId, body.lotId);
  if (there) return again(there.lot, body.label, 'mixed');
  if (body.parts.length < 2)
    throw problem(422, {
      code: 'one-part',
      what: 'One lot alone is not mixed.',
      why: 'A refilled bin holds two.',
      next: 'Name what was poured in, and what was there.',
      path: 'parts',
    });
  const kitchen = await readKitchen(call);
  const first = await findLot(call, (body.parts[0] as PartOf).lotId);
  const parts = await takeParts(call, body.parts, kitchen, body.lotId, first.item.id);
  if (parts.rows.some(r => r.row.item.id !== first.item.id))
    throw problem(422, {
      code: 'other-item',
      what: 'Only lots of one item are poured together.',
      why: 'The bin is drawn from as one thing.',
      next: 'Use a preparation to make something new of several.',
      path: 'parts',
    });
  const quantity = parts.rows.reduce((sum, r) => sum.plus(r.quantity), new Decimal(0));
  const all = parts.rows.map(r => r.row.lot);
  const one = <K extends 'salt' | 'juice' | 'condition'>(key: K) => {
    const kinds = [...new Set(all.map(l => l.facts[key]))];
    return kinds.length === 1 ? (kinds[0] ?? null) : null;
  };
  const today = dayOf(call.clock.now_ms(), kitchen.zone);
  const worst = all.find(l => l.facts.salt === 'with anti-caking agent' || l.facts.salt === 'iodised')?.facts
    .salt;
  const juice = all.some(l => l.facts.juice === 'fresh') ? ('fresh' as const) : one('juice');
  await move(trx, kitchenId, parts.movements, nowText(call));
  await bringIn(
    call,
    {
      id: body.lotId,
      itemId: first.item.id,
      label: body.label,
      supplier: joined(all.map(l => l.supplier)).slice(0, 80),
      receivedOn: today,
      bestBy: earliest(all.map(l => l.bestBy)),
      unitCost: trimmedCost(parts.value.div(quantity)),
      strength_pct: all.some(l => l.strength_pct === null)
        ? null
        : Math.min(...all.map(l => l.strength_pct as number)),
      openedOn: today,
      receiptId: null,
      facts: plainFacts({
        source: 'mixed',
        value: 'cost of what went in',
        salt: worst ?? one('salt'),
        juice,
        condition: one('condition'),
        pickedOn: earliest(all.map(l => l.facts.pickedOn)),
        subIngredients: joined(all.map(l => l.facts.subIngredients)),
        allergens: [...new Set(all.flatMap(l => l.facts.allergens))],
        released: all.every(l => l.facts.released),
        from: partsOf(parts.rows),
      }),
    },
    quantity.toFixed(),
    kitchen.zone,
    'made',
  );
  return readLot(call, body.lotId);
}

/** Makes a lot of an ingredient without jars, with its yield, keeping limit and a value by rule. */
export async function prepare(call: Call<unknown, unknown, BodyOf<typeof prepareLot>>): Promise<Lot> {
  const { trx, kitchenId, body, person } = call;
  const there = await queries.selectLot(trx, kitchenId, body.lotId);
  if (there) return again(there.lot, body.label, 'made here');
  const item = await queries.selectItem(trx, kitchenId, body.itemId);
  if (item?.kind !== 'ingredient')
    throw problem(422, {
      code: 'unknown-item',
      what: 'What is made must be an ingredient of this kitchen.',
      why: 'Batches draw it from its lot.',
      next: 'Choose the ingredient, or add it.',
      path: 'itemId',
    });
  wholeNumber(item, body.quantity);
  const kitchen = await readKitchen(call);
  const today = dayOf(call.clock.now_ms(), kitchen.zone);
  if (body.keepsUntil === null)
    throw problem(422, {
      code: 'limit-missing',
      what: 'How long it keeps is not said.',
      why: 'What is made here is used within its limit.',
      next: 'Enter the day until which it may be used.',
      path: 'keepsUntil',
    });
  if (body.keepsUntil < today)
    throw problem(422, {
      code: 'past-limit',
      what: 'The keeping limit has passed.',
      why: 'It could not be used at all.',
      next: 'Enter a day to come.',
      path: 'keepsUntil',
    });
  const parts = await takeParts(call, body.parts, kitchen, body.lotId, item.id);
  const rate = kitchen.costs.rates.find(r => r.personId === person.id)?.hourlyRate ?? kitchen.hourlyRate;
  const work = new Decimal(rate).times(body.minutes).div(60);
  const cost = {
    'cost of what went in': parts.value.div(body.quantity),
    'cost and work': parts.value.plus(work).div(body.quantity),
    'market value': new Decimal(body.unitCost),
    nothing: new Decimal(0),
  }[body.value];
  const contents = parts.rows.map(r => contentsOf(r.row.item, r.row.lot.facts));
  const onlyItem = parts.rows.every(r => r.row.item.id === item.id);
  await move(trx, kitchenId, parts.movements, nowText(call));
  await bringIn(
    call,
    {
      id: body.lotId,
      itemId: item.id,
      label: body.label,
      supplier: kitchen.name,
      receivedOn: today,
      bestBy: body.keepsUntil,
      unitCost: trimmedCost(cost),
      strength_pct: null,
      openedOn: null,
      receiptId: null,
      facts: plainFacts({
        source: 'made here',
        value: body.value,
        // Made here, juice is as strong as its fruit happened to be, unless all of it came out of bottles.
        juice:
          body.how === 'juice' || item.use === 'citrus juice'
            ? parts.rows.every(r => r.row.lot.facts.juice === 'bottled')
              ? 'bottled'
              : 'fresh'
            : null,
        condition: body.how === 'frozen' ? 'frozen' : null,
        pickedOn: earliest(parts.rows.map(r => r.row.lot.facts.pickedOn)),
        subIngredients: onlyItem
          ? joined(contents.map(c => c.subIngredients))
          : joined(
              parts.rows.map(
                (r, i) =>
                  `${r.row.item.labelName || r.row.item.name.toLowerCase()}${contents[i]?.subIngredients ? ` (${contents[i]?.subIngredients})` : ''}`,
              ),
            ),
        allergens: [...new Set(contents.flatMap(c => c.allergens))],
        released: parts.rows.every(r => r.row.lot.facts.released),
        from: partsOf(parts.rows),
        note: [body.how, body.note].filter(Boolean).join(': '),
      }),
    },
    body.quantity,
    kitchen.zone,
    'made',
  );
  return readLot(call, body.lotId);
}
