import type {
  BatchView,
  BodyOf,
  DrawLine,
  ParamsOf,
  drawLots,
  returnLots,
  reverseDraw,
} from '@cocotte/contract';
import type {
  BatchEvent,
  BatchState,
  DecisionType,
  DrawnLot,
  EventBodies,
  ReturnedLot,
  Stamp,
} from '@cocotte/core/batches';
import { unusedOf } from '@cocotte/core/batches';
import { Decimal, type Fault, dayOf, fieldText } from '@cocotte/core/measure';
import { contentsOf, drawFault, ownYield } from '@cocotte/core/stores';
import { type Call } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import { batchMovements, leavingCosts, lockLots, move } from '../stores/ledger.ts';
import { readKitchen } from '../kitchen/service.ts';
import { decide } from './decide.ts';

/** Draws lots: all lines or none, each with the cost and facts it has now, and the movement in the same transaction. */
export async function draw(
  call: Call<ParamsOf<typeof drawLots>, unknown, BodyOf<typeof drawLots>>,
): Promise<BatchView> {
  const { body, params } = call;
  return decide(call, params.batchId, body.stamp, body, 'lot.drawn', async ({ state, at_ms }) => {
    const { drawn, faults } = await serve(call, state, body.lots, at_ms);
    if (faults.length > 0) throw new HttpProblem(422, faults[0]?.code ?? 'refused', faults);
    const made = { lots: drawn, used: null };
    await moveFor(call, params.batchId, 'lot.drawn', made, at_ms);
    return made;
  });
}

/**
 * What each lot gives, with the cost and facts it has now; the lots are locked.
 *
 * @param beyond  it was used already, whatever the books had of it
 * @returns the lots drawn, what is wrong with the others, and what the books lack in all, in the unit of the lot
 */
export async function serve(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
  state: BatchState,
  wanted: readonly DrawLine[],
  at_ms: number,
  beyond = false,
): Promise<{ drawn: DrawnLot[]; faults: Fault[]; short: Decimal }> {
  const { trx, kitchenId } = call;
  const lines = state.started?.recipe.lines ?? [];
  const lots = await lockLots(
    trx,
    kitchenId,
    wanted.map(l => l.lotId),
  );
  const kitchen = await readKitchen(call);
  const costOf = await leavingCosts(
    trx,
    kitchenId,
    kitchen.costs.method,
    [...lots.values()].map(r => r.item.id),
  );
  const today = dayOf(at_ms, kitchen.zone);
  const recipe = state.started?.recipe ?? null;
  const purpose = state.started?.purpose ?? null;
  const faults: Fault[] = [];
  const taken = new Map<string, Decimal>();
  let short = new Decimal(0);
  const drawn = wanted.flatMap((want, i): DrawnLot[] => {
    const at = `lots[${i}]`;
    const row = lots.get(want.lotId);
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
    const line = want.lineId === null ? null : (lines.find(l => l.id === want.lineId) ?? undefined);
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
    const lacks = Decimal.max(new Decimal(want.quantity).minus(Decimal.max(left, 0)), 0);
    const fault = drawFault(
      item,
      lot,
      { line, recipe, purpose, today, figures: kitchen },
      want.quantity,
      beyond ? want.quantity : left.toFixed(),
    );
    if (fault) {
      faults.push({ ...fault, path: `${at}.quantity` });
      return [];
    }
    short = short.plus(lacks);
    taken.set(lot.id, (taken.get(lot.id) ?? new Decimal(0)).plus(want.quantity));
    return [
      {
        lotId: lot.id,
        itemId: item.id,
        kind: item.kind,
        name: item.name,
        lotLabel: lot.label,
        lineId: want.lineId,
        jarSize: item.jarSize,
        quantity: want.quantity,
        unit: item.unit,
        unitCost: costOf(row),
        mass_g: item.unit_g === null ? null : new Decimal(want.quantity).times(item.unit_g).toNumber(),
        trimYield: ownYield(item, lot, line),
        labelName: item.labelName,
        ...contentsOf(item, lot.facts),
      },
    ];
  });
  return { drawn, faults, short };
}

/** Puts a draw back: a movement the other way for each line, and the reason. */
export async function undraw(
  call: Call<ParamsOf<typeof reverseDraw>, unknown, BodyOf<typeof reverseDraw>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params } = call;
  return decide(
    call,
    params.batchId,
    body.stamp,
    { ...body, drawId: params.drawId },
    'draw.reversed',
    async ({ state, at_ms }) => {
      const target = state.draws.find(d => d.drawId === params.drawId);
      if (!target)
        throw problem(422, {
          code: 'no-such-draw',
          what: 'That draw is not there, or was put back already.',
          why: 'Stock comes back once.',
          next: 'Look at the batch again.',
          path: 'drawId',
        });
      if (target.used)
        throw problem(422, {
          code: 'was-used',
          what: 'This was used, and so it is drawn.',
          why: 'The kitchen drew what somebody entered as used without a connection.',
          next: 'If it was not used, or not so, correct that entry in the record: the draw follows.',
          path: 'drawId',
        });
      if (state.releases.length > 0)
        throw problem(422, {
          code: 'released',
          what: 'Jars of this batch were released on this draw.',
          why: 'Their label and trace rest on it.',
          next: 'Record a note instead.',
          path: 'drawId',
        });
      const back = new Set(state.returns.flatMap(r => r.lots.map(l => l.lotId)));
      if (target.lots.some(l => back.has(l.lotId)))
        throw problem(422, {
          code: 'part-returned',
          what: 'Part of that draw came back already.',
          why: 'Put back whole, it would come back twice.',
          next: 'Bring the rest back in the same way.',
          path: 'drawId',
        });
      await lockLots(
        trx,
        kitchenId,
        target.lots.map(l => l.lotId),
      );
      await move(
        trx,
        kitchenId,
        batchMovements(
          entryOf(call, params.batchId, 'draw.reversed', { drawId: params.drawId, reason: body.reason }),
          () => entryOf(call, params.batchId, 'lot.drawn', { lots: target.lots, used: null }),
        ),
        new Date(at_ms).toISOString(),
      );
      return { drawId: params.drawId, reason: body.reason };
    },
  );
}

type Stamped = Call<unknown, unknown, { stamp: Stamp }>;

/** The entry that a decision will be, as far as its movements hang on it. */
function entryOf<K extends DecisionType>(
  call: Stamped,
  batchId: string,
  type: K,
  body: EventBodies[K],
): BatchEvent {
  return { ...call.body.stamp, kitchenId: call.kitchenId, batchId, type, body } as unknown as BatchEvent;
}

/** Writes the movements that a decision makes, in its transaction. */
async function moveFor<K extends DecisionType>(
  call: Stamped,
  batchId: string,
  type: K,
  body: EventBodies[K],
  at_ms: number,
): Promise<void> {
  await move(
    call.trx,
    call.kitchenId,
    batchMovements(entryOf(call, batchId, type, body), () => undefined),
    new Date(at_ms).toISOString(),
  );
}

/** Brings part of what was drawn back to its lots: bands of jars kept at home, a bag that was not opened. */
export async function giveBack(
  call: Call<ParamsOf<typeof returnLots>, unknown, BodyOf<typeof returnLots>>,
): Promise<BatchView> {
  const { trx, kitchenId, body, params } = call;
  return decide(call, params.batchId, body.stamp, body, 'lots.returned', async ({ state, at_ms }) => {
    await lockLots(
      trx,
      kitchenId,
      body.lots.map(l => l.lotId),
    );
    const { locale } = await readKitchen(call);
    const figure = (quantity: Decimal | string) => fieldText(Number(quantity), locale, 6);
    const faults: Fault[] = [];
    const fault = (path: string, code: string, what: string, why: string, next: string) =>
      faults.push({ path, code, what, why, next });
    const lots = body.lots.map((wanted, i): ReturnedLot => {
      const drawn = state.draws.flatMap(d => d.lots).filter(l => l.lotId === wanted.lotId);
      const first = drawn[0];
      if (!first) {
        fault(
          `lots[${i}].lotId`,
          'not-drawn',
          'This batch drew nothing of that lot.',
          'Only what was drawn can come back.',
          'Choose a lot that was drawn.',
        );
        return { ...wanted, unitCost: '0' };
      }
      const unused = unusedOf(state).find(u => u.lotId === wanted.lotId)?.count ?? 0;
      if (first.kind === 'lid' && new Decimal(wanted.quantity).gt(unused))
        fault(
          `lots[${i}].lotId`,
          'used-once',
          unused === 0
            ? 'Lids are used once, and none of that lot is left over.'
            : `Lids are used once: ${figure(String(unused))} of that lot are left over.`,
          'A lid that was in the canner does not seal again.',
          'Put back only what was never on a jar.',
        );
      else if (first.kind === 'ingredient')
        fault(
          `lots[${i}].lotId`,
          'food-used',
          `${first.name} went into the pot.`,
          'Food does not come back; the label rests on the draw.',
          'Put the draw back and draw again what was used.',
        );
      const total = (list: { lotId: string; quantity: string }[]) =>
        list.filter(l => l.lotId === wanted.lotId).reduce((sum, l) => sum.plus(l.quantity), new Decimal(0));
      const out = total(drawn).minus(total(state.returns.flatMap(r => r.lots)));
      if (new Decimal(wanted.quantity).gt(out))
        fault(
          `lots[${i}].quantity`,
          'more-than-drawn',
          `${figure(out)} of that lot are out, not ${figure(wanted.quantity)}.`,
          'More cannot come back than went.',
          'Enter what came back.',
        );
      return { ...wanted, unitCost: first.unitCost };
    });
    if (faults.length > 0) throw new HttpProblem(422, faults[0]?.code ?? 'refused', faults);
    const returned = { lots, reason: body.reason };
    await moveFor(call, params.batchId, 'lots.returned', returned, at_ms);
    return returned;
  });
}
