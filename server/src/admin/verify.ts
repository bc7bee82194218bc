import type { BatchEvent } from '@cocotte/core/batches';
import { chainHash } from '../batches/chain.ts';
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
      hash = row.hash;
      seq += 1;
    }
  }
  const head = await trx('heads').where({ kitchen_id: kitchenId }).first();
  if (Number(head?.seq ?? 0) !== seq || (head && head.hash !== hash))
    return verdict(`the head says entry ${head?.seq}, the chain ends at ${seq}`);
  return verdict(null);
}
