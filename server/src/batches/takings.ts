import type { BatchView, BodyOf, ParamsOf, takeJars } from '@cocotte/contract';
import { assess } from '@cocotte/core/checks';
import { labelContent, plainSetup } from '@cocotte/core/labels';
import { dayOf, rangesText } from '@cocotte/core/measure';
import { plainFacts } from '@cocotte/core/stores';
import type { Call } from '../house/mount.ts';
import { idTaken, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { derivedId, lockItems, move, movement } from '../stores/ledger.ts';
import { costOf } from '../stores/costs.ts';
import { insertLots, selectItem, selectLot } from '../stores/queries.ts';
import { decide } from './decide.ts';

/**
 * Takes finished jars into the kitchen as a lot of an ingredient: their lot code, ingredients, allergens, acidity and
 * cost come along. Only sealed or released jars; whether all of them were released for sale goes with the lot.
 */
export async function take(
  call: Call<ParamsOf<typeof takeJars>, unknown, BodyOf<typeof takeJars>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params, person } = call;
  return decide(call, params.batchId, body.stamp, body, 'jars.taken', async ({ state, events, at_ms }) => {
    const { standing: now } = assess(events);
    const form = new Map(now.forms.map(f => [f.number, f.form]));
    const unfit = body.jars.filter(n => !['sealed', 'released'].includes(form.get(n) ?? ''));
    if (unfit.length > 0)
      throw problem(422, {
        code: 'jars-unfit',
        what: `Jar ${rangesText(unfit)} is not a sealed jar of this batch.`,
        why: 'What is held, failed or set aside is not eaten, and not cooked with.',
        next: 'Choose among the sealed jars; those that are held say why at the gate.',
        path: 'jars',
      });
    const jars = state.jars.filter(j => body.jars.includes(j.number));
    const sizes = [...new Set(jars.map(j => j.size))];
    const size = sizes[0];
    if (!size || sizes.length > 1)
      throw problem(422, {
        code: 'sizes-mixed',
        what: 'These jars are of several sizes.',
        why: 'A lot is counted in jars of one size.',
        next: 'Take each size by itself.',
        path: 'jars',
      });
    const item = await selectItem(trx, kitchenId, body.itemId);
    if (item?.kind !== 'ingredient' || item.unit !== 'each')
      throw problem(422, {
        code: 'unknown-item',
        what: 'The jars become an ingredient that is counted in pieces.',
        why: 'Recipes draw it jar by jar.',
        next: 'Choose such an item, or add it with the net weight of one jar.',
        path: 'itemId',
      });
    if (await selectLot(trx, kitchenId, body.lotId)) throw idTaken('lot', 'lotId');
    const kitchen = await readKitchen(call);
    const label = labelContent(state, kitchen, plainSetup(''), size);
    const { sheet } = await costOf(call, params.batchId, events);
    const unitCost = sheet.bySize.find(s => s.size === size)?.exactPerJar ?? '0';
    const started = state.started as NonNullable<typeof state.started>;
    const released = new Set(now.released);
    const lines = state.draws.flatMap(d => d.lots).filter(l => l.kind === 'ingredient');
    const taken = {
      jars: [...body.jars].sort((a, b) => a - b),
      lotId: body.lotId,
      label: body.label,
      unitCost: cut(unitCost),
    };
    await lockItems(trx, kitchenId, [item.id]);
    await insertLots(trx, kitchenId, [
      {
        id: body.lotId,
        itemId: item.id,
        label: body.label,
        supplier: kitchen.name,
        receivedOn: dayOf(at_ms, kitchen.zone),
        bestBy: label.ok ? label.label.bestBy : null,
        unitCost: taken.unitCost,
        strength_pct: null,
        openedOn: null,
        receiptId: null,
        facts: plainFacts({
          source: 'jars',
          value: 'cost and work',
          subIngredients: label.ok
            ? label.label.ingredients
            : lines.map(l => l.labelName || l.name).join(', '),
          allergens: [
            ...new Set([
              ...lines.flatMap(l => l.allergens),
              ...started.recipe.lines.flatMap(l => l.allergens),
            ]),
          ],
          // What was cooked for home, as a gift or as a trial is never an ingredient for sale, released or not.
          released: started.purpose === 'sale' && taken.jars.every(n => released.has(n)),
          ph: state.readings.length > 0 ? Math.max(...state.readings.map(r => r.ph)) : null,
          from: [
            {
              kind: 'jars',
              batchId: params.batchId,
              lotCode: started.lotCode,
              name: started.recipe.name,
              jars: taken.jars,
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
          quantity: String(taken.jars.length),
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

const PLACES = 18;
const cut = (decimal: string) =>
  decimal.includes('.') ? decimal.slice(0, decimal.indexOf('.') + 1 + PLACES) : decimal;
