import type { BodyOf, ParamsOf, printLidMarks as endpoint, ReplyOf } from '@cocotte/contract';
import { lotOf, fold } from '@cocotte/core/batches';
import { printWords } from '@cocotte/core/kitchen';
import { Afterwards, type Call } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { print } from '../kitchen/instruments.ts';
import { selectEvents } from './queries.ts';

/** Prints lot and load for the lid of each jar of a load; the printer is spoken to once nothing is held any more. */
export async function printLidMarks(
  call: Call<ParamsOf<typeof endpoint>, unknown, BodyOf<typeof endpoint>>,
): Promise<Afterwards<ReplyOf<typeof endpoint>>> {
  const { params, body } = call;
  const state = fold(await selectEvents(call.trx, call.kitchenId, params.batchId));
  const load = state.loads.find(l => l.id === params.loadId);
  if (!state.started || !load) throw notFound('This load');
  const first = state.jars.find(j => load.jars.includes(j.number));
  const lot = (first && lotOf(state, first.number)?.lotCode) ?? state.started.lotCode;
  const words = printWords([lot, `load ${load.number}`], load.jars.length);
  return new Afterwards(async () => {
    const why = await print(body.printerId, words);
    if (why !== '')
      throw problem(422, {
        code: 'not-printed',
        what: `The label printer printed nothing: ${why}.`,
        why: 'A jar without a mark is told from another by nobody.',
        next: 'Look after it and print again, or write lot and load on the lids.',
        path: 'printerId',
      });
    return { printed: load.jars.length };
  });
}
