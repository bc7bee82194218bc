import type { BatchView, BodyOf, ParamsOf, labelSheet, printLabels } from '@cocotte/contract';
import { fillingOf, type SequencedEvent } from '@cocotte/core/batches';
import { type BatchStanding, assess } from '@cocotte/core/checks';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type LabelStock, labelContent, labelStock } from '@cocotte/core/labels';
import { canonicalJson, rangesText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/jars';
import { decide, view } from '../batches/decide.ts';
import { selectEvents } from '../batches/queries.ts';
import { heavy } from '../heavy/pool.ts';
import { Afterwards, type Call } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';

type Print = BodyOf<typeof printLabels>;

/** Labels go on jars that were released, and against which nothing has come up since. */
function refuseHeld({ released }: BatchStanding, jars: readonly number[]): void {
  const held = jars.filter(n => !released.includes(n));
  if (held.length > 0)
    throw problem(422, {
      code: 'not-released',
      what: `Jar ${rangesText(held)} is not released.`,
      why: 'Labels are printed for released jars only.',
      next: 'See at the gate what holds it, or leave it out.',
      path: 'jars',
    });
}

/** The words of a label as the batch stands now, or the refusal: for released jars of one size only. */
function content(events: readonly SequencedEvent[], kitchen: Kitchen, body: Print, stock: LabelStock) {
  const { state, standing } = assess(events);
  refuseHeld(standing, body.jars);
  const other = body.jars.filter(n => state.jars.find(j => j.number === n)?.size !== body.size);
  if (other.length > 0) {
    throw problem(422, {
      code: 'other-size',
      what: `Jar ${rangesText(other)} is no ${jarSize(body.size).name}.`,
      why: 'Net contents differ by size.',
      next: 'Print each size by itself.',
      path: 'jars',
    });
  }
  const lots = new Set(body.jars.map(n => fillingOf(state, n)?.lotCode));
  if (lots.size > 1)
    throw problem(422, {
      code: 'other-lot',
      what: `These jars are of several lots: ${[...lots].join(', ')}.`,
      why: 'A lot code on a jar leads to the filling it came from.',
      next: 'Print each lot by itself.',
      path: 'jars',
    });
  const words = labelContent(state, kitchen, body.size, body.jars);
  if (!words.ok) throw new HttpProblem(422, 'label-incomplete', words.faults);
  return { label: words.label, stock, size: body.size };
}

/** Decides what is printed on released jars. The words are stored, so that the same sheet can be printed again. */
export async function print(call: Call<ParamsOf<typeof printLabels>, unknown, Print>): Promise<BatchView> {
  const { body, params } = call;
  const kitchen = await readKitchen(call);
  const stock = labelStock(body.stock);
  if (!stock)
    throw problem(422, {
      code: 'unknown-stock',
      what: 'That label sheet is not known.',
      why: 'Its measures are needed.',
      next: 'Choose another.',
      path: 'stock',
    });
  // Whether the text fits is tried before the kitchen's record is locked: fonts are measured for that, which takes time.
  const before = await selectEvents(call.trx, call.kitchenId, params.batchId);
  const tried = before.length > 0 ? tryContent(before, kitchen, body, stock) : null;
  const fits = tried ? await heavy('label fits', { ...tried, habits: { locale: kitchen.locale } }) : true;
  return decide(call, params.batchId, body.stamp, body, 'labels.printed', async ({ events }) => {
    const { label } = content(events, kitchen, body, stock);
    if (tried && canonicalJson(tried.label) !== canonicalJson(label))
      throw problem(409, {
        code: 'batch-changed',
        what: 'The batch changed while its labels were laid out.',
        why: 'The label must say what is in the jar.',
        next: 'Look at the label again, then print it.',
      });
    if (!fits)
      throw problem(422, {
        code: 'does-not-fit',
        what: 'The text does not fit this label at a legible size.',
        why: 'Letters below 1/16 inch are not allowed (21 CFR 101.2, from memory).',
        next: 'Choose a larger label, or shorten the statement.',
        path: 'stock',
      });
    return {
      jars: [...body.jars].sort((a, b) => a - b),
      size: body.size,
      stock: stock.id,
      label,
    };
  });
}

/** What would be printed, or null where that is refused: the decision itself says why, or knows the print already. */
function tryContent(events: readonly SequencedEvent[], kitchen: Kitchen, body: Print, stock: LabelStock) {
  try {
    return content(events, kitchen, body, stock);
  } catch (error) {
    if (error instanceof HttpProblem) return null;
    throw error;
  }
}

/** The sheet of a print that was decided; not for jars that are held again since. */
export async function sheet(
  call: Call<ParamsOf<typeof labelSheet>, unknown, unknown>,
): Promise<Afterwards<Uint8Array>> {
  const { events } = await view(call, call.params.batchId);
  const event = events.find(e => e.id === call.params.printId);
  if (event?.type !== 'labels.printed') throw notFound('This sheet');
  const { label, jars, size } = event.body;
  refuseHeld(assess(events).standing, jars);
  const stock = labelStock(event.body.stock);
  if (!stock) throw notFound('The label stock of this sheet');
  const { locale } = await readKitchen(call);
  return new Afterwards(() =>
    heavy('label sheet', { label, stock, size, count: jars.length, habits: { locale } }),
  );
}
