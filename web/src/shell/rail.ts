import { type BatchRow, readToday } from '@cocotte/contract';
import { type SequencedEvent, fold } from '@cocotte/core/batches';
import { type Running, summarise } from '@cocotte/core/checks';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { outbox } from '../outbox/index.ts';
import { call } from './call.ts';

/** Every batch that is not finished, asked again every few seconds so that a second device sees the same clocks. */
export const useToday = (enabled = true) =>
  useQuery({ queryKey: ['today'], queryFn: () => call(readToday), enabled, refetchInterval: 5000 });

export interface RailTile extends Running {
  batchId: string;
}

/**
 * What runs, in the order in which it will call. A batch whose record this device holds is folded here, with the
 * entries that still wait in the outbox, so that the clock starts at the tap and not at the answer.
 */
export function useRail(): RailTile[] {
  const { data } = useToday();
  const client = useQueryClient();
  const { waiting, sent } = useSyncExternalStore(outbox.subscribe, outbox.view);
  const tiles = (data?.batches ?? []).flatMap((row: BatchRow): RailTile[] => {
    const held = [...sent, ...waiting].some(w => w.batchId === row.id)
      ? client.getQueryData<{ events: SequencedEvent[] }>(['batch', row.id])
      : undefined;
    const running = held
      ? summarise(
          fold([
            ...held.events,
            ...[...sent, ...waiting.filter(w => !w.refused)]
              .filter(w => w.batchId === row.id)
              .map(w => ({ ...w.entry, kitchenId: w.kitchenId, batchId: w.batchId })),
          ]),
        ).running
      : row.summary.running;
    return running.map(r => ({ ...r, batchId: row.id }));
  });
  return tiles.sort((a, b) => a.until_ms - b.until_ms);
}
