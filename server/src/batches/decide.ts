import type { BatchView } from '@cocotte/contract';
import {
  type BatchEvent,
  type BatchState,
  type DecisionType,
  type EventBodies,
  type SequencedEvent,
  type Stamp,
  correctedInstant_ms,
  fold,
} from '@cocotte/core/batches';
import type { Call } from '../house/mount.ts';
import { notFound, problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { append, clientHash } from './chain.ts';
import * as queries from './queries.ts';

type InKitchen = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'clock' | 'person'>;

/** A time typed in afterwards may run ahead of the server by this much, for clocks that differ. */
const AHEAD_MS = 120_000;

/** The stamp's own rules: the person is who is signed in, and a typed time is not in the future. */
export function checkStamp(call: InKitchen, stamp: Stamp, path: string): void {
  if (stamp.personId !== call.person.id) {
    throw problem(403, {
      code: 'other-person',
      what: 'This entry carries another person.',
      why: 'The record says who did what.',
      next: 'Sign in as the person who made it.',
      path: `${path}.personId`,
    });
  }
  if (stamp.typedInAfterwards && correctedInstant_ms(stamp) > call.clock.now_ms() + AHEAD_MS) {
    throw problem(422, {
      code: 'future-time',
      what: 'That time lies in the future.',
      why: 'What is written down afterwards has already happened.',
      next: 'Enter the time it happened.',
      path: `${path}.occurredAt`,
    });
  }
}

/**
 * Makes a decision: under the kitchen's lock, from the batch as it stands, in one transaction. The same decision sent
 * twice is acknowledged; the same id with other content is refused.
 *
 * @param sent  all the client sent, to tell a repeat from a clash
 * @param decide  what the event says; may throw a refusal, and may write what goes with it (movements)
 */
export async function decide<K extends DecisionType>(
  call: InKitchen,
  batchId: string,
  stamp: Stamp,
  sent: unknown,
  type: K,
  work: (state: BatchState, events: SequencedEvent[]) => Promise<EventBodies[K]>,
): Promise<BatchView> {
  const { trx, kitchenId } = call;
  checkStamp(call, stamp, 'stamp');
  const hash = clientHash({ type, batchId, sent });
  const { head, events: before, ...record } = await queries.lockRecord(trx, kitchenId, batchId, [stamp.id]);
  const known = record.known.get(stamp.id);
  if (known) {
    if (known.clientHash !== hash) throw clash('stamp.id');
    return view(call, batchId);
  }
  if (type === 'batch.started') {
    if (before.length > 0)
      throw problem(409, {
        code: 'id-taken',
        what: 'Another batch has this id.',
        why: 'An id names one thing.',
        next: 'Reload and start again.',
        path: 'batchId',
      });
  } else if (before.length === 0) throw notFound('This batch');
  const body = await work(fold(before), before);
  const event = { ...stamp, kitchenId, batchId, type, body } as unknown as BatchEvent;
  return viewOf(
    call,
    batchId,
    await append(trx, kitchenId, batchId, head, before, [{ event, clientHash: hash }], call.clock.now_ms()),
  );
}

/** The problem of an id that is taken by something else. */
export function clash(path: string) {
  return problem(409, {
    code: 'id-other-content',
    what: 'This id was used for something else.',
    why: 'An entry is never replaced by another under the same id.',
    next: 'Make a new entry, or a correction of the first.',
    path,
  });
}

/** A batch as the interface gets it: its record, and the names in it. */
export async function view(call: Pick<InKitchen, 'trx' | 'kitchenId'>, batchId: string): Promise<BatchView> {
  return viewOf(call, batchId, await queries.selectEvents(call.trx, call.kitchenId, batchId));
}

async function viewOf(
  call: Pick<InKitchen, 'trx' | 'kitchenId'>,
  batchId: string,
  events: SequencedEvent[],
): Promise<BatchView> {
  if (events.length === 0) throw notFound('This batch');
  const people = await namesOf(call.trx, [...new Set(events.map(e => e.personId))]);
  return { id: batchId, events, people, lastSeq: (events.at(-1) as SequencedEvent).seq };
}
