import type { BatchView } from '@cocotte/contract';
import {
  type BatchEvent,
  type BatchState,
  type DecisionType,
  type EventBodies,
  type SequencedEvent,
  type Stamp,
  VERSIONS,
  fold,
} from '@cocotte/core/batches';
import { type Fault, instantMs } from '@cocotte/core/measure';
import type { Call } from '../house/mount.ts';
import { idTaken, notFound, problem } from '../house/problems.ts';
import { namesOf } from '../kitchen/outside.ts';
import { append, arrival_ms, clientHash } from './chain.ts';
import * as queries from './queries.ts';

type InKitchen = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'clock' | 'person' | 'maySign'>;

/** A time typed in afterwards may run ahead of the server by this much, for clocks that differ. */
const AHEAD_MS = 120_000;

/**
 * The stamp's own rules: the person is who is signed in, and a typed time is not in the future.
 *
 * @returns what is wrong, with the path of its field inside the stamp
 */
export function stampFault(call: Pick<InKitchen, 'person' | 'clock'>, stamp: Stamp): Fault | null {
  if (stamp.personId !== call.person.id)
    return {
      path: 'personId',
      code: 'other-person',
      what: 'This entry carries another person.',
      why: 'The record says who did what.',
      next: 'Sign in as the person who made it.',
    };
  if (stamp.typedInAfterwards) return futureFault(call.clock, stamp.occurredAt, 'occurredAt');
  return null;
}

/** What is wrong with a typed time that lies in the future; null where it does not. */
export function futureFault(clock: InKitchen['clock'], instant: string, path: string): Fault | null {
  if (instantMs(instant) <= clock.now_ms() + AHEAD_MS) return null;
  return {
    path,
    code: 'future-time',
    what: 'That time lies in the future.',
    why: 'What is written down afterwards has already happened.',
    next: 'Enter the time it happened.',
  };
}

/** What a decision is made from. */
export interface Deciding {
  /** The batch as it stands. */
  state: BatchState;
  events: SequencedEvent[];
  /** When the decision arrives in the record: what goes with it happens then. */
  at_ms: number;
}

/** When a decision was made: now, or the time it was typed in for. */
export const decidedAt_ms = (call: Pick<InKitchen, 'clock'>, stamp: Stamp): number =>
  stamp.typedInAfterwards ? instantMs(stamp.occurredAt) : call.clock.now_ms();

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
  work: (at: Deciding) => Promise<EventBodies[K]>,
): Promise<BatchView> {
  const { trx, kitchenId } = call;
  const fault = stampFault(call, stamp);
  if (fault)
    throw problem(fault.code === 'other-person' ? 403 : 422, { ...fault, path: `stamp.${fault.path}` });
  const hash = clientHash({ type, batchId, sent });
  const { head, events: before, ...record } = await queries.lockRecord(trx, kitchenId, batchId, [stamp.id]);
  const known = record.known.get(stamp.id);
  if (known) {
    if (known.clientHash !== hash) throw problem(409, clashFault('stamp.id'));
    return view(call, batchId);
  }
  if (type === 'batch.started') {
    if (before.length > 0) throw idTaken('batch', 'batchId');
  } else if (before.length === 0) throw notFound('This batch');
  const at_ms = arrival_ms(head, call.clock.now_ms());
  const body = await work({ state: fold(before), events: before, at_ms });
  // The body is of this build's making, whatever shape the device that asked for it knows.
  const event = {
    ...stamp,
    typeVersion: VERSIONS[type],
    kitchenId,
    batchId,
    type,
    body,
    receipt: null,
  } as unknown as BatchEvent;
  return viewOf(
    call,
    batchId,
    await append(
      trx,
      kitchenId,
      batchId,
      head,
      before,
      [{ event, clientHash: hash }],
      { sentAt: stamp.wallClock, signs: call.maySign },
      call.clock.now_ms(),
    ),
  );
}

/** What is wrong where an id is taken by something else. */
export const clashFault = (path: string): Fault => ({
  path,
  code: 'id-other-content',
  what: 'This id was used for something else.',
  why: 'An entry is never replaced by another under the same id.',
  next: 'Make a new entry, or a correction of the first.',
});

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
  return { id: batchId, events, people, lastSeq: (events.at(-1) as SequencedEvent).receipt.seq };
}
