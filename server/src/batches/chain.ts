import { createHash } from 'node:crypto';
import { type BatchEvent, lotsOf, type Receipt, type SequencedEvent } from '@cocotte/core/batches';
import { type Assessment, assess, checkedOf, isOpen, summarise } from '@cocotte/core/checks';
import { canonicalJson } from '@cocotte/core/measure';
import { workOf } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import { problem } from '../house/problems.ts';
import { keepSheet } from '../stores/kept-sheets.ts';
import * as queries from './queries.ts';

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex');

/** The hash that ties an entry to the one before it. */
export function chainHash(prevHash: string, content: string): string {
  return sha256(`${prevHash}\n${content}`);
}

/** What a client sent, so that the same id with other content is found. */
export function clientHash(sent: unknown): string {
  return sha256(canonicalJson(sent));
}

/** A new entry, and what the client sent of it. */
export interface NewEntry {
  event: BatchEvent;
  clientHash: string;
}

/** When what comes now arrives: whatever this machine's clock does, never before the entry ahead of it. */
export const arrival_ms = (head: queries.Head, now_ms: number): number =>
  Math.max(now_ms, head.last_at?.getTime() ?? now_ms);

/** What the server knows of a delivery: when the device says it sent it, and whether who sent it may sign. */
export type Sent = Pick<Receipt, 'sentAt' | 'signs'>;

/**
 * Appends entries of one batch to the kitchen's chain: the caller holds the head's lock. Gives each the next gapless
 * number, ties it to the one before, folds the batch and keeps its projection.
 *
 * @param before  the batch's entries so far
 * @returns the batch's entries with the new ones at their end
 */
export async function append(
  trx: Trx,
  kitchenId: string,
  batchId: string,
  head: queries.Head,
  before: readonly SequencedEvent[],
  entries: NewEntry[],
  sent: Sent,
  now_ms: number,
): Promise<SequencedEvent[]> {
  const arrived = new Date(arrival_ms(head, now_ms));
  const at = arrived.toISOString();
  let { seq, hash } = head;
  const after = [...before];
  const rows = entries.map(({ event, clientHash: client_hash }): queries.EventRow => {
    seq += 1;
    const content = canonicalJson({ ...event, receipt: { seq, at, ...sent } satisfies Receipt });
    const prev_hash = hash;
    hash = chainHash(prev_hash, content);
    after.push({ ...(JSON.parse(content) as SequencedEvent), hash });
    return {
      kitchen_id: kitchenId,
      seq,
      event_id: event.id,
      batch_id: batchId,
      type: event.type,
      content,
      client_hash,
      prev_hash,
      hash,
      received_at: at,
    };
  });
  // None of the three needs another's answer: they go in one journey.
  const batch = assess(after);
  await Promise.all([
    queries.insertEvents(trx, rows),
    queries.writeHead(trx, kitchenId, { seq, hash, last_at: arrived }),
    queries.writeBatch(trx, kitchenId, project(batchId, batch, seq)),
  ]);
  const { stage } = batch.standing;
  if (stage === 'released' || stage === 'closed')
    await keepSheet(trx, kitchenId, batchId, batch.state, arrived.getTime());
  return after;
}

/** The projection of a batch, from what its entries make of it. */
export function project(batchId: string, batch: Assessment, lastSeq: number): queries.BatchColumns {
  const { state } = batch;
  if (!state.started)
    throw problem(404, {
      code: 'not-started',
      what: 'This batch was not started.',
      why: 'Its first entry is missing.',
      next: 'Start it again.',
    });
  const summary = summarise(batch);
  return {
    batch_id: batchId,
    lot_code: summary.lotCode,
    recipe_id: state.started.recipeId,
    recipe_version: state.started.recipeVersion,
    name: summary.name,
    made_on: summary.madeOn,
    stage: summary.stage,
    open: isOpen(summary),
    summary,
    checked: checkedOf(state),
    lots: lotsOf(state).map(l => ({ lotCode: l.lotCode, load: l.load, jars: l.jars.map(j => j.number) })),
    work: workOf(state),
    last_seq: lastSeq,
  };
}
