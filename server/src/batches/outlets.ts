import type { BatchView, BodyOf, ParamsOf, openOutlet } from '@cocotte/contract';
import { PH_LIMIT } from '@cocotte/core/acid';
import { lotCode } from '@cocotte/core/labels';
import { processByEntry } from '@cocotte/core/times';
import type { Call } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import { decide } from './decide.ts';

/** Outlets of one batch are numbered from here on, apart from the batches of the day. */
const OUTLETS_FROM = 1000;

/** Opens an outlet of a batch as a lot of its own: its code, times, limit and name are settled now and kept in the event. */
export async function open(
  call: Call<ParamsOf<typeof openOutlet>, unknown, BodyOf<typeof openOutlet>>,
): Promise<BatchView> {
  const { body, params } = call;
  return decide(call, params.batchId, body.stamp, body, 'outlet.opened', async ({ state }) => {
    const started = state.started as NonNullable<typeof state.started>;
    if (state.outlets.some(o => o.outletId === body.outletId))
      throw problem(409, {
        code: 'id-taken',
        what: 'Another outlet has this id.',
        why: 'An id names one thing.',
        next: 'Reload and open it again.',
        path: 'outletId',
      });
    const answer = processByEntry(body.entryId, body.jarSize, started.kitchen.altitude_m);
    if (!answer.ok)
      throw problem(422, {
        code: 'no-time',
        what: answer.what,
        why: answer.why,
        next: answer.next,
        path: 'entryId',
      });
    // The number of its batch that day, and the outlet's own within it: no other lot has both.
    const batchNumber = Number(/-(\d+).$/.exec(started.lotCode)?.[1] ?? 1);
    const number = OUTLETS_FROM * batchNumber + state.outlets.length + 1;
    return {
      outletId: body.outletId,
      name: body.name,
      lotCode: lotCode(started.recipe.code, started.madeOn, number),
      times: [answer.time],
      phLimit: Math.min(PH_LIMIT, started.phLimit),
      statementOfIdentity: body.name,
    };
  });
}
