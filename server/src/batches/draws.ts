import type { BatchView, BodyOf, ParamsOf, drawLots, reverseDraw } from '@cocotte/contract';
import { type DrawnLot } from '@cocotte/core/batches';
import { Decimal, type Fault } from '@cocotte/core/measure';
import { drawFault } from '@cocotte/core/stores';
import { type Call } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import { lockLots, move } from '../stores/queries.ts';
import { decide } from './decide.ts';

/** Draws lots: all lines or none, each with the cost and facts it has now, and the movement in the same transaction. */
export async function draw(
  call: Call<ParamsOf<typeof drawLots>, unknown, BodyOf<typeof drawLots>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params, clock } = call;
  return decide(call, params.batchId, body.stamp, body, 'lot.drawn', async state => {
    const lines = state.started?.recipe.lines ?? [];
    const lots = await lockLots(
      trx,
      kitchenId,
      body.lots.map(l => l.lotId),
    );
    const faults: Fault[] = [];
    const taken = new Map<string, Decimal>();
    const drawn = body.lots.flatMap((wanted, i): DrawnLot[] => {
      const at = `lots[${i}]`;
      const row = lots.get(wanted.lotId);
      if (!row) {
        faults.push({
          path: `${at}.lotId`,
          code: 'unknown-lot',
          what: 'That lot is not in this kitchen.',
          why: 'A jar must be traced to where its contents came from.',
          next: 'Choose a lot, or record the purchase first.',
        });
        return [];
      }
      const line = wanted.lineId === null ? null : (lines.find(l => l.id === wanted.lineId) ?? undefined);
      if (line === undefined) {
        faults.push({
          path: `${at}.lineId`,
          code: 'unknown-line',
          what: 'The recipe of this batch has no such line.',
          why: 'The label follows from what serves which line.',
          next: 'Choose a line of the recipe.',
        });
        return [];
      }
      const { lot, item } = row;
      const left = new Decimal(lot.onHand).minus(taken.get(lot.id) ?? 0);
      const fault = drawFault(item, lot, line, wanted.quantity, left.toFixed());
      if (fault) {
        faults.push({ ...fault, path: `${at}.quantity` });
        return [];
      }
      taken.set(lot.id, (taken.get(lot.id) ?? new Decimal(0)).plus(wanted.quantity));
      return [
        {
          lotId: lot.id,
          itemId: item.id,
          kind: item.kind,
          name: item.name,
          lotLabel: lot.label,
          lineId: wanted.lineId,
          jarSize: item.jarSize,
          quantity: wanted.quantity,
          unit: item.unit,
          unitCost: lot.unitCost,
          mass_g: item.unit_g === null ? null : new Decimal(wanted.quantity).times(item.unit_g).toNumber(),
          labelName: item.labelName,
          subIngredients: item.subIngredients,
          allergens: item.allergens,
        },
      ];
    });
    if (faults.length > 0) throw new HttpProblem(422, faults[0]?.code ?? 'refused', faults);
    await move(
      trx,
      kitchenId,
      drawn.map((d, line) => ({
        lotId: d.lotId,
        quantity: `-${d.quantity}`,
        reason: 'drawn',
        eventId: body.stamp.id,
        line,
      })),
      new Date(clock.now_ms()).toISOString(),
    );
    return { lots: drawn };
  });
}

/** Puts a draw back: a movement the other way for each line, and the reason. */
export async function undraw(
  call: Call<ParamsOf<typeof reverseDraw>, unknown, BodyOf<typeof reverseDraw>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params, clock } = call;
  return decide(
    call,
    params.batchId,
    body.stamp,
    { ...body, drawId: params.drawId },
    'draw.reversed',
    async state => {
      const target = state.draws.find(d => d.drawId === params.drawId);
      if (!target)
        throw problem(
          422,
          'no-such-draw',
          'That draw is not there, or was put back already.',
          'Stock comes back once.',
          'Look at the batch again.',
          'drawId',
        );
      if (state.releases.length > 0)
        throw problem(
          422,
          'released',
          'Jars of this batch were released on this draw.',
          'Their label and trace rest on it.',
          'Record a note instead.',
          'drawId',
        );
      await lockLots(
        trx,
        kitchenId,
        target.lots.map(l => l.lotId),
      );
      await move(
        trx,
        kitchenId,
        target.lots.map((l, line) => ({
          lotId: l.lotId,
          quantity: l.quantity,
          reason: 'put back',
          eventId: body.stamp.id,
          line,
        })),
        new Date(clock.now_ms()).toISOString(),
      );
      return { drawId: params.drawId, reason: body.reason };
    },
  );
}
