import type { BatchEvent } from '@cocotte/core/batches';
import { chainHash } from '../batches/chain.ts';
import { chunkHash, selectChunks } from '../batches/curves.ts';
import type { Trx } from '../house/database.ts';
import { genesisHash } from '../kitchen/queries.ts';

/** What a walk along the chain found: how many entries, and the first that does not hold. */
export interface Verdict {
  kitchenId: string;
  entries: number;
  headHash: string;
  fault: string | null;
}

const CHUNK = 2000;

/**
 * Walks one kitchen's chain from its first entry: numbers without a gap, each hash over the one before and the entry's
 * own text, columns that say what the text says, and the head at the end.
 */
export async function verifyChain(trx: Trx, kitchenId: string): Promise<Verdict> {
  let hash = genesisHash(kitchenId);
  let seq = 0;
  const verdict = (fault: string | null): Verdict => ({ kitchenId, entries: seq, headHash: hash, fault });
  for (;;) {
    const rows = await trx('events')
      .where({ kitchen_id: kitchenId })
      .where('seq', '>', seq)
      .orderBy('seq')
      .limit(CHUNK);
    if (rows.length === 0) break;
    for (const row of rows) {
      if (Number(row.seq) !== seq + 1) return verdict(`entry ${seq + 1} is missing`);
      const event = JSON.parse(row.content) as BatchEvent;
      if (row.prev_hash !== hash) return verdict(`entry ${row.seq} does not follow the one before it`);
      if (chainHash(row.prev_hash, row.content) !== row.hash) return verdict(`entry ${row.seq} was changed`);
      if (
        event.id !== row.event_id ||
        event.batchId !== row.batch_id ||
        event.type !== row.type ||
        event.kitchenId !== kitchenId
      )
        return verdict(`the columns of entry ${row.seq} do not say what its text says`);
      if (event.type === 'curve.kept') {
        const fault = await curveFault(trx, kitchenId, event as BatchEvent<'curve.kept'>);
        if (fault) return verdict(`${fault} of entry ${row.seq}`);
      }
      hash = row.hash;
      seq += 1;
    }
  }
  const head = await trx('heads').where({ kitchen_id: kitchenId }).first();
  if (Number(head?.seq ?? 0) !== seq || (head && head.hash !== hash))
    return verdict(`the head says entry ${head?.seq}, the chain ends at ${seq}`);
  return verdict(null);
}

/** What does not hold of the chunks that an entry names; null where they are what they were. */
async function curveFault(
  trx: Trx,
  kitchenId: string,
  { body }: BatchEvent<'curve.kept'>,
): Promise<string | null> {
  const chunks = await selectChunks(trx, kitchenId, body.curveId);
  if (chunks.length !== body.chunks) return 'a chunk is missing from the curve';
  let hash = body.curveId;
  for (const chunk of chunks) {
    hash = chunkHash(hash, chunk.content);
    if (hash !== chunk.hash) return `chunk ${chunk.number} was changed in the curve`;
  }
  return hash === body.hash ? null : 'the chunks are not those of the curve';
}
