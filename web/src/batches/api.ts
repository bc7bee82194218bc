import { listBatches } from '@cocotte/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { call } from '../shell/call.ts';

export const useBatches = (stage: string, search = '') =>
  useInfiniteQuery({
    queryKey: ['batches', stage, search],
    initialPageParam: '',
    queryFn: ({ pageParam }) => call(listBatches, { query: { after: pageParam, stage, search } as never }),
    getNextPageParam: page => page.next ?? undefined,
  });
