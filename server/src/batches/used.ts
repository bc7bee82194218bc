import {
  type BatchEvent,
  type DecisionType,
  type EventBodies,
  type SequencedEvent,
  VERSIONS,
  fold,
} from '@cocotte/core/batches';
import { Decimal } from '@cocotte/core/measure';
import { countMoves } from '../house/feed.ts';
import type { Call } from '../house/mount.ts';
import { batchMovements, derivedId, lockLots, move } from '../stores/ledger.ts';
import { append, clientHash } from './chain.ts';
import { serve } from './draws.ts';

type InKitchen = Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'clock'>;

/**
 * Brings the books to what was used without a connection: each *lot used* entry that stands gets its draw, also beyond
 * what the books have of the lot; one that was corrected gets another in its place, one that was taken back gets none.
 * What may not serve its line is not drawn, and holds the batch. Once jars were released on it nothing is moved any more.
 * The caller holds the kitchen's head.
 *
 * @param record  the batch's entries, the new ones among them
 * @returns the batch's entries with the draws at their end
 */
export async function drawUsed(
  call: InKitchen,
  batchId: string,
  record: readonly SequencedEvent[],
): Promise<readonly SequencedEvent[]> {
  const { trx, kitchenId } = call;
  let after = record;
  const state = fold(after);
  if (state.releases.length > 0) return after;
  const drawnFor = new Map(state.draws.flatMap(d => (d.used ? [[d.used.entryId, d] as const] : [])));
  const decideFor = async <K extends DecisionType>(of: SequencedEvent, type: K, body: EventBodies[K]) => {
    const { head, event } = decisionFor(call, batchId, after, of, type, body);
    const find = (id: string) => after.find(e => e.id === id);
    await move(trx, kitchenId, batchMovements(event, find), head.last_at.toISOString());
    after = await append(
      trx,
      kitchenId,
      batchId,
      head,
      after,
      [{ event, clientHash: clientHash({ type, batchId, body }) }],
      { sentAt: null, signs: false },
      call.clock.now_ms(),
    );
  };
  const entry = (id: string) => after.find(e => e.id === id) as SequencedEvent;
  for (const [entryId, draw] of drawnFor) {
    const use = state.used.find(u => u.by.eventId === entryId);
    const [lot] = draw.lots;
    if (
      use?.lotId === lot?.lotId &&
      use?.lineId === lot?.lineId &&
      new Decimal(use?.quantity ?? 0).eq(lot?.quantity ?? 0)
    )
      continue;
    await lockLots(
      trx,
      kitchenId,
      draw.lots.map(l => l.lotId),
    );
    const reason = use ? 'What was used was corrected.' : 'What was used was taken back.';
    await decideFor(entry(entryId), 'draw.reversed', { drawId: draw.drawId, reason });
    drawnFor.delete(entryId);
  }
  for (const use of state.used) {
    if (drawnFor.has(use.by.eventId)) continue;
    const quantity = new Decimal(use.quantity).toFixed();
    const wanted = [{ lotId: use.lotId, lineId: use.lineId, quantity }];
    const { drawn, faults, short } = await serve(call, state, wanted, headOf(after).last_at.getTime(), true);
    if (faults.length > 0 || drawn.some(l => l.unit !== use.unit)) continue;
    await decideFor(entry(use.by.eventId), 'lot.drawn', {
      lots: drawn,
      used: { entryId: use.by.eventId, short: short.toFixed() },
    });
  }
  if (after !== record) await countMoves(trx, kitchenId, ['stock']);
  return after;
}

/** The end of the kitchen's record, which the last entry just written is. */
function headOf(after: readonly SequencedEvent[]) {
  const { receipt, hash } = after.at(-1) as SequencedEvent;
  return { seq: receipt.seq, hash, last_at: new Date(receipt.at) };
}

/**
 * A decision that the kitchen makes by itself, in the name of whoever entered the fact it follows from. Its device is
 * the kitchen: the clocks of whoever delivered have no part in it.
 */
function decisionFor<K extends DecisionType>(
  { kitchenId }: InKitchen,
  batchId: string,
  after: readonly SequencedEvent[],
  of: SequencedEvent,
  type: K,
  body: EventBodies[K],
) {
  const head = headOf(after);
  const at = head.last_at.toISOString();
  const event = {
    id: derivedId(of.id, type, head.seq),
    typeVersion: VERSIONS[type],
    kitchenId,
    batchId,
    personId: of.personId,
    deviceId: derivedId(kitchenId, 'kitchen'),
    deviceCounter: head.seq + 1,
    wallClock: at,
    monotonic_ms: 0,
    pageSessionId: derivedId(kitchenId, 'kitchen'),
    clockOffset_ms: 0,
    clockOffsetAge_ms: 0,
    occurredAt: at,
    typedInAfterwards: false,
    basedOnSeq: head.seq,
    type,
    body,
    receipt: null,
  } as unknown as BatchEvent;
  return { head, event };
}
