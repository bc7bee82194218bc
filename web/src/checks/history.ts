import { readCheckHistory } from '@cocotte/contract';
import { worseLids } from '@cocotte/core/checks';
import { moneyText, numberText } from '@cocotte/core/measure';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../shell/call.ts';
import { useHere } from '../shell/session.tsx';
import { say } from '../words/views.ts';

/** Minutes for which the history is not fetched anew: it grows by a batch. */
const STALE_MS = 5 * 60_000;

/** What was checked of the kitchen's batches; a rehearsal asks for nothing. */
export const useCheckHistory = (asked = true) =>
  useQuery({
    enabled: asked,
    queryKey: ['check-history'],
    queryFn: () => call(readCheckHistory),
    staleTime: STALE_MS,
    retry: false,
  });

/** Lid lots that fail more often than chance, by their ids, and a plain word of each that has some left. */
export function useWorseLids(asked = true): { ids: ReadonlySet<string>; words: string[] } {
  const { kitchen } = useHere();
  const { data } = useCheckHistory(asked);
  return useMemo(() => {
    const worse = worseLids(data?.batches.flatMap(b => b.seals) ?? []);
    return {
      ids: new Set(worse.map(w => w.lidLotId)),
      words: worse.flatMap(w => {
        const lid = data?.lids.find(l => l.lotId === w.lidLotId);
        if (!lid || lid.left <= 0) return [];
        const fails = (lid.left * w.failed) / w.tried;
        return [
          say('lids.worse', {
            label: lid.label,
            failed: w.failed,
            tried: w.tried,
            othersFailed: w.othersFailed,
            othersTried: w.othersTried,
            left: lid.left,
            fails: numberText(fails, kitchen, 0),
            cost: data?.jarCost ? moneyText((fails * Number(data.jarCost)).toFixed(2), kitchen) : '',
            priced: String(Boolean(data?.jarCost)),
          }),
        ];
      }),
    };
  }, [data, kitchen]);
}
