import type { BatchView, BodyOf, ParamsOf, takeFromPot } from '@cocotte/contract';
import { allergensIn, type BatchState, lineMasses } from '@cocotte/core/batches';
import { addDays, dayOf, Decimal, massText } from '@cocotte/core/measure';
import { plainFacts, UNIT_COST_PLACES } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { idTaken, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { derivedId, lockItems, move, movement } from '../stores/ledger.ts';
import { insertLots, selectItem, selectLot } from '../stores/queries.ts';
import { decide } from './decide.ts';

/** Food that was never processed is used on the day it was taken, or on the next. */
const KEEPS_DAYS = 1;

/**
 * Takes some of the pot as a lot of an ingredient, with its share of what went in: a second product is a batch of its own
 * that draws it, under its own recipe, authority, time and lot code.
 */
export async function take(
  call: Call<ParamsOf<typeof takeFromPot>, unknown, BodyOf<typeof takeFromPot>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params, person } = call;
  return decide(call, params.batchId, body.stamp, body, 'pot.taken', async ({ state, at_ms }) => {
    const started = state.started as NonNullable<typeof state.started>;
    const pot = potOf(state);
    const there_g = pot.mass_g - state.potTaken.reduce((sum, t) => sum + t.mass_g, 0);
    const kitchen = await readKitchen(call);
    if (body.mass_g > there_g)
      throw problem(422, {
        code: 'more-than-pot',
        what: `No more than ${massText(Math.max(0, there_g), kitchen)} went into the pot.`,
        why: 'What comes out of it went in before.',
        next: 'Weigh it again, or enter what else went in.',
        path: 'mass_g',
      });
    const item = await selectItem(trx, kitchenId, body.itemId);
    if (item?.kind !== 'ingredient' || item.unit !== 'g' || (item.use !== 'other' && item.use !== 'produce'))
      throw problem(422, {
        code: 'unknown-item',
        what: 'It becomes an ingredient that is counted by weight.',
        why: 'It is weighed, and vinegar, salt and bottled juice are bought: nobody knows their strength otherwise.',
        next: 'Choose such an ingredient, or add it.',
        path: 'itemId',
      });
    if (item.ingredientId !== null && !isPlain(pot, item.ingredientId))
      throw problem(422, {
        code: 'more-than-item',
        what: `What is in this pot is not plain ${item.name}: ${pot.labels.join(', ')}.`,
        why: 'What a recipe draws as one food was tested as that food.',
        next: 'Choose an ingredient of its own, which no entry of the library stands for.',
        path: 'itemId',
      });
    if (await selectLot(trx, kitchenId, body.lotId)) throw idTaken('lot', 'lotId');
    const receivedOn = dayOf(at_ms, kitchen.zone);
    const taken = {
      mass_g: body.mass_g,
      how: body.how,
      lotId: body.lotId,
      itemId: item.id,
      name: item.name,
      label: body.label,
      unitCost: pot.unitCost,
    };
    await lockItems(trx, kitchenId, [item.id]);
    await insertLots(trx, kitchenId, [
      {
        id: body.lotId,
        itemId: item.id,
        label: body.label,
        supplier: kitchen.name,
        receivedOn,
        bestBy: addDays(receivedOn, KEEPS_DAYS),
        unitCost: taken.unitCost,
        strength_pct: null,
        openedOn: null,
        receiptId: null,
        facts: plainFacts({
          source: 'made here',
          value: 'cost of what went in',
          subIngredients: pot.labels.join(', '),
          allergens: [...allergensIn(state)].sort(),
          released: started.purpose === 'sale',
          from: [
            {
              kind: 'pot',
              batchId: params.batchId,
              lotCode: started.lotCode,
              name: started.recipe.name,
              mass_g: body.mass_g,
            },
          ],
        }),
      },
    ]);
    await move(
      trx,
      kitchenId,
      [
        movement({
          id: derivedId(body.stamp.id, 0),
          lotId: body.lotId,
          quantity: new Decimal(body.mass_g).toFixed(),
          unitCost: taken.unitCost,
          reason: 'made',
          personId: person.id,
          eventId: body.stamp.id,
          line: 0,
          batchId: params.batchId,
        }),
      ],
      new Date(at_ms).toISOString(),
    );
    return taken;
  });
}

/** Whether a pot holds nothing but one food of the library, as it is or as its juice, and water. */
const isPlain = (pot: { foods: string[]; others: number }, ingredientId: string): boolean =>
  pot.others === 0 &&
  pot.foods.length === 1 &&
  (ingredientId === pot.foods[0] || ingredientId === `${pot.foods[0]}-juice`);

/** What went into the pot: its weight, its foods, what a label says of it, and what a gram of it cost. */
function potOf(state: BatchState): {
  mass_g: number;
  foods: string[];
  /** Lines that are neither food nor water: sugar, acid, salt, spice. */
  others: number;
  labels: string[];
  unitCost: string;
} {
  const masses = lineMasses(state).filter(m => m.line.where !== 'each jar' && m.line.where !== 'dip');
  const mass_g = masses.reduce((sum, m) => sum + m.actual_g, 0);
  const inPot = new Set(masses.map(m => m.line.id));
  const back = new Map<string, Decimal>();
  for (const l of state.returns.flatMap(r => r.lots))
    back.set(l.lotId, (back.get(l.lotId) ?? new Decimal(0)).plus(l.quantity));
  const cost = state.draws
    .flatMap(d => d.lots)
    .filter(l => l.lineId !== null && inPot.has(l.lineId))
    .reduce(
      (sum, l) =>
        sum.plus(Decimal.max(0, new Decimal(l.quantity).minus(back.get(l.lotId) ?? 0)).times(l.unitCost)),
      new Decimal(0),
    );
  const foods = masses.filter(m => m.line.role === 'fruit' || m.line.role === 'low-acid produce');
  return {
    mass_g,
    foods: [...new Set(foods.map(m => m.line.ingredientId ?? m.line.name))],
    others: masses.filter(m => !foods.includes(m) && m.line.role !== 'water').length,
    labels: masses.filter(m => m.line.role !== 'water').map(m => m.line.labelName || m.line.name),
    unitCost: mass_g > 0 ? cost.div(mass_g).toDecimalPlaces(UNIT_COST_PLACES).toFixed() : '0',
  };
}
