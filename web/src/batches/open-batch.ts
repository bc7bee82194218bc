import { type BatchView, type FactEntry, readBatch } from '@cocotte/contract';
import {
  type BatchEvent,
  type BatchState,
  type DecisionType,
  type Entered,
  type FactType,
  type Stamp,
  complete,
} from '@cocotte/core/batches';
import type { BatchStanding } from '@cocotte/core/checks';
import type { Fault } from '@cocotte/core/measure';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useState, useSyncExternalStore } from 'react';
import { records } from '../device/index.ts';
import { assessed } from '../device/summaries.ts';
import { type Waiting, drawCount, makeStamp, outbox } from '../outbox/index.ts';
import { call, faultsOf } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import type { When } from './when.ts';

/** A fact as it is entered: its type and its body, without what goes without saying. */
export type Fact = { [K in FactType]: [K, Entered<K>] }[FactType];

type Makers = Parameters<typeof outbox.add>[2];

export interface OpenBatch {
  id: string;
  /** It is cooked dry: outside the record and the stock, and nothing of it leaves this tab. */
  rehearsal: boolean;
  view: BatchView;
  events: BatchEvent[];
  state: BatchState;
  standing: BatchStanding;
  /** Entries of this batch that have not arrived yet. */
  pending: readonly Waiting[];
  /**
   * Enters facts, now or as happened at a typed instant: kept at once, delivered when it can be. Gives their ids, or
   * null where the time cannot be read.
   */
  enter: (facts: Fact[], when?: When | number) => Promise<readonly string[] | null>;
  /**
   * Enters what its person answers for by name: as any fact where they alone use the device, else with their PIN, which
   * only the kitchen knows.
   */
  sign: (facts: Fact[], when?: When) => Promise<Fault[]>;
  /** Makes a decision at the server and takes its answer in. */
  decide: (type: DecisionType, work: (stamp: Stamp) => Promise<BatchView>, when?: When) => Promise<Fault[]>;
  busy: boolean;
}

/** A batch on this device: the server's record, and what waits here, folded by the same function as everywhere. */
export function useBatch(batchId: string): { batch: OpenBatch | null; error: unknown } {
  const { person, kitchen, shared } = useHere();
  const { held, ready } = useSyncExternalStore(records.subscribe, records.view);
  const view = held.get(batchId);
  // What this device does not hold, because it is long finished, is read and held from then on.
  const { error } = useQuery({
    queryKey: ['batch', batchId],
    queryFn: async () => {
      await records.hold(await call(readBatch, { params: { batchId } }));
      return null;
    },
    enabled: ready && !view,
  });
  const { waiting, sent } = useSyncExternalStore(outbox.subscribe, outbox.view);
  const [busy, setBusy] = useState(false);
  const pending = useMemo(() => waiting.filter(w => w.batchId === batchId && !w.refused), [waiting, batchId]);
  const folded = useMemo(() => {
    if (!view) return null;
    return assessed(view, [...sent.filter(w => w.batchId === batchId), ...pending]);
  }, [view, pending, sent, batchId]);
  const lastSeq = view?.lastSeq ?? 0;
  const makersOf = useCallback(
    async (facts: Fact[], when?: When | number): Promise<Makers | null> => {
      const at =
        typeof when === 'number' ? { typedAt_ms: when } : when ? await when.read() : { typedAt_ms: null };
      if (!at) return null;
      return facts.map(
        ([type, body]) =>
          device =>
            ({
              ...makeStamp(type, person.id, at.typedAt_ms, lastSeq, device),
              type,
              body: complete(type, body as never),
            }) as FactEntry,
      );
    },
    [person.id, lastSeq],
  );
  const enter = useCallback<OpenBatch['enter']>(
    async (facts, when) => {
      const makers = await makersOf(facts, when);
      return makers && ((await outbox.add(kitchen.id, batchId, makers))?.map(e => e.id) ?? null);
    },
    [makersOf, kitchen.id, batchId],
  );
  const sign = useCallback<OpenBatch['sign']>(
    async (facts, when) => {
      const makers = await makersOf(facts, when);
      if (!makers) return [];
      if (shared) return outbox.sign(kitchen.id, batchId, makers);
      await outbox.add(kitchen.id, batchId, makers);
      return [];
    },
    [makersOf, shared, kitchen.id, batchId],
  );
  const decide = useCallback<OpenBatch['decide']>(
    async (type, work, when) => {
      const at = when ? await when.read() : { typedAt_ms: null };
      if (!at) return [];
      setBusy(true);
      try {
        const stamp = makeStamp(type, person.id, at.typedAt_ms, lastSeq, await drawCount());
        await records.hold(await work(stamp));
        return [];
      } catch (error_) {
        return faultsOf(error_);
      } finally {
        setBusy(false);
      }
    },
    [person.id, lastSeq],
  );
  return {
    batch:
      view && folded
        ? { id: batchId, rehearsal: false, view, ...folded, pending, enter, sign, decide, busy }
        : null,
    error,
  };
}
