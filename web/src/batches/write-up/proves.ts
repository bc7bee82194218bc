import type { WrittenFact } from '@cocotte/core/batches';
import { type BatchEvent, complete } from '@cocotte/core/batches';
import { assess, type Condition } from '@cocotte/core/checks';
import { makeStamp } from '../../outbox/stamp.ts';
import type { OpenBatch } from '../open-batch.ts';

/** What the gate would say once these were in the record: what they show, and what they leave open. */
export function wouldProve(
  batch: OpenBatch,
  facts: readonly WrittenFact[],
  person: { id: string; signs: boolean },
  now_ms: number,
): { shown: Condition[]; open: Condition[] } {
  const at = new Date(now_ms).toISOString();
  const last = batch.view.lastSeq;
  const first = batch.events[0] as BatchEvent;
  const foreseen = facts.map(
    (f, i) =>
      ({
        ...makeStamp(f.type, person.id, f.at_ms, last, { deviceId: first.deviceId, deviceCounter: 1e6 + i }),
        kitchenId: first.kitchenId,
        batchId: batch.id,
        type: f.type,
        body: complete(f.type, f.body as never),
        receipt: { seq: last + i + 1, at, sentAt: at, signs: person.signs },
      }) as unknown as BatchEvent,
  );
  const { standing } = assess([...batch.events, ...foreseen]);
  const { conditions } = standing.gate;
  return { shown: conditions.filter(c => c.met), open: conditions.filter(c => !c.met) };
}
