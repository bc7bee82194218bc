import { type BatchRow, readToday } from '@cocotte/contract';
import type { SequencedEvent } from '@cocotte/core/batches';
import type { Running } from '@cocotte/core/checks';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { outbox } from '../outbox/index.ts';
import { call } from './call.ts';

/** Every batch that is not finished, asked again every few seconds so that a second device sees the same clocks. */
export const useToday = (enabled = true) =>
  useQuery({ queryKey: ['today'], queryFn: () => call(readToday), enabled, refetchInterval: 5000 });

export interface RailTile extends Running {
  batchId: string;
}

type RunningOf = (typeof import('./rail-fold.ts'))['runningOf'];

/**
 * The fold, once something waits here: the first page does without it. A device that holds a batch's record has opened
 * the batch, and so has the fold already, connection or not.
 */
function useRunningOf(wanted: boolean): RunningOf | null {
  const [folding, setFolding] = useState<{ runningOf: RunningOf } | null>(null);
  useEffect(() => {
    if (wanted && !folding) void import('./rail-fold.ts').then(setFolding, () => undefined);
  }, [wanted, folding]);
  return folding?.runningOf ?? null;
}

/**
 * What runs, in the order in which it will call. A batch whose record this device holds is folded here, with the
 * entries that still wait in the outbox, so that the clock starts at the tap and not at the answer.
 */
export function useRail(): RailTile[] {
  const { data } = useToday();
  const client = useQueryClient();
  const { waiting, sent } = useSyncExternalStore(outbox.subscribe, outbox.view);
  const own = [...sent, ...waiting.filter(w => !w.refused)];
  const runningOf = useRunningOf(own.length > 0);
  const tiles = (data?.batches ?? []).flatMap((row: BatchRow): RailTile[] => {
    const here = own.filter(w => w.batchId === row.id);
    const held =
      here.length > 0 ? client.getQueryData<{ events: SequencedEvent[] }>(['batch', row.id]) : undefined;
    const running = held && runningOf ? runningOf(held.events, here) : row.summary.running;
    return running.map(r => ({ ...r, batchId: row.id }));
  });
  return tiles.sort((a, b) => a.until_ms - b.until_ms);
}
