import { createHash } from 'node:crypto';
import { type BatchEvent, type BatchState, type SequencedEvent, fold } from '@cocotte/core/batches';
import { type BatchSummary, standing, summarise } from '@cocotte/core/checks';
import { canonicalJson } from '@cocotte/core/measure';
import { workOf } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import { problem } from '../house/problems.ts';
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
  now_ms: number,
): Promise<SequencedEvent[]> {
  const receivedAt = new Date(now_ms).toISOString();
  let { seq, hash } = head;
  const after = [...before];
  const rows = entries.map(({ event, clientHash: client_hash }): queries.EventRow => {
    const content = canonicalJson({ ...event, receivedAt });
    const prev_hash = hash;
    hash = chainHash(prev_hash, content);
    seq += 1;
    after.push({ ...(JSON.parse(content) as BatchEvent & { receivedAt: string }), seq, hash });
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
      received_at: receivedAt,
    };
  });
  // None of the three needs another's answer: they go in one journey.
  await Promise.all([
    queries.insertEvents(trx, rows),
    queries.writeHead(trx, kitchenId, { seq, hash }),
    queries.writeBatch(trx, kitchenId, project(batchId, fold(after), seq)),
  ]);
  return after;
}

/** The projection of a batch, from its state alone. */
export function project(batchId: string, state: BatchState, lastSeq: number): queries.BatchColumns {
  if (!state.started)
    throw problem(404, {
      code: 'not-started',
      what: 'This batch was not started.',
      why: 'Its first entry is missing.',
      next: 'Start it again.',
    });
  const summary = summarise(state, standing(state));
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
    work: workOf(state),
    last_seq: lastSeq,
  };
}

/** A batch is open while anything is to be cooked, checked or labelled. */
function isOpen(summary: BatchSummary): boolean {
  return (
    summary.stage === 'cooking' ||
    summary.stage === 'checking' ||
    (summary.stage === 'released' && summary.labelled < summary.released)
  );
}
