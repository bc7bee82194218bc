import type { BatchView, BodyOf, ParamsOf, labelSheet, printLabels } from '@cocotte/contract';
import { standing } from '@cocotte/core/checks';
import { labelContent, labelStock } from '@cocotte/core/labels';
import { rangesText } from '@cocotte/core/measure';
import { jarSize } from '@cocotte/core/recipes';
import { decide, view } from '../batches/decide.ts';
import type { Call } from '../house/mount.ts';
import { HttpProblem, notFound, problem } from '../house/problems.ts';
import { readKitchen } from '../kitchen/service.ts';
import { drawLabels } from './sheet.ts';

/** Decides what is printed on released jars. The words are stored, so that the same sheet can be printed again. */
export async function print(
  call: Call<ParamsOf<typeof printLabels>, unknown, BodyOf<typeof printLabels>>,
): Promise<BatchView> {
  const { body } = call;
  const kitchen = await readKitchen(call);
  return decide(call, call.params.batchId, body.stamp, body, 'labels.printed', async state => {
    const released = new Set(standing(state).released);
    const held = body.jars.filter(n => !released.has(n));
    if (held.length > 0) {
      throw problem(
        422,
        'not-released',
        `Jar ${rangesText(held)} is not released.`,
        'Labels are printed for released jars only.',
        'Release it first, or leave it out.',
        'jars',
      );
    }
    const other = body.jars.filter(n => state.jars.find(j => j.number === n)?.size !== body.size);
    if (other.length > 0) {
      throw problem(
        422,
        'other-size',
        `Jar ${rangesText(other)} is no ${jarSize(body.size).name}.`,
        'Net contents differ by size.',
        'Print each size by itself.',
        'jars',
      );
    }
    const content = labelContent(state, kitchen, body.size);
    if (!content.ok) throw new HttpProblem(422, 'label-incomplete', content.faults);
    const stock = labelStock(body.stock);
    if (!stock)
      throw problem(
        422,
        'unknown-stock',
        'That label sheet is not known.',
        'Its measures are needed.',
        'Choose another.',
        'stock',
      );
    // Drawn once here, so that a text that does not fit is refused before it is recorded as printed.
    await drawLabels(content.label, stock, 1, kitchen).catch((error: unknown) => {
      if (!(error instanceof RangeError)) throw error;
      throw problem(
        422,
        'does-not-fit',
        'The text does not fit this label at a legible size.',
        'Letters below 1/16 inch are not allowed (21 CFR 101.2, from memory).',
        'Choose a larger label, or shorten the statement.',
        'stock',
      );
    });
    return {
      jars: [...body.jars].sort((a, b) => a - b),
      size: body.size,
      stock: stock.id,
      label: content.label,
    };
  });
}

/** The sheet of a print that was decided. */
export async function sheet(call: Call<ParamsOf<typeof labelSheet>, unknown, unknown>): Promise<Uint8Array> {
  const { events } = await view(call, call.params.batchId);
  const event = events.find(e => e.id === call.params.printId);
  if (event?.type !== 'labels.printed') throw notFound('This sheet');
  const stock = labelStock(event.body.stock);
  if (!stock) throw notFound('The label stock of this sheet');
  return drawLabels(event.body.label, stock, event.body.jars.length, await readKitchen(call));
}
