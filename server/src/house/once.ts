import { createHash } from 'node:crypto';
import { canonicalJson } from '@cocotte/core/measure';
import type { Call } from './mount.ts';
import { problem } from './problems.ts';

/**
 * Does something once for an id of the caller's, and answers the same id with the same reply: for what leaves nothing
 * behind by which it could be known again.
 *
 * @param kind  what is done
 * @param id  the caller's id of it
 * @param sent  what it is done with; the same id with something else is refused
 * @throws HttpProblem 409 when the id was used for something else
 */
export async function once<R>(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'clock'>,
  kind: string,
  id: string,
  sent: unknown,
  work: () => Promise<R>,
): Promise<R> {
  const { trx, kitchenId, clock } = call;
  const digest = createHash('sha256').update(canonicalJson(sent)).digest('hex');
  // Of two at once the second waits here for what the first did.
  await trx.raw('select pg_advisory_xact_lock(hashtextextended(?, 1))', [`${kitchenId} ${kind} ${id}`]);
  const there = await trx('done_calls').where({ kitchen_id: kitchenId, call_id: id }).first();
  if (there) {
    if (there.kind === kind && there.digest === digest) return there.reply as R;
    throw problem(409, {
      code: 'id-other-content',
      what: 'This id was used for something else.',
      why: 'An id names one thing.',
      next: 'Reload and do it again.',
      path: 'id',
    });
  }
  const reply = await work();
  await trx('done_calls').insert({
    kitchen_id: kitchenId,
    call_id: id,
    kind,
    digest,
    reply: JSON.stringify(reply),
    at: new Date(clock.now_ms()).toISOString(),
  });
  return reply;
}
