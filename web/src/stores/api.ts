import { listItems, listLots } from '@cocotte/contract';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call } from '../shell/call.ts';

export const useItems = () => useQuery({ queryKey: ['items'], queryFn: () => call(listItems) });

export const useLots = (search: string, empty: boolean) =>
  useInfiniteQuery({
    queryKey: ['lots', 'page', search, empty],
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      call(listLots, { query: { after: pageParam, search, empty: empty ? 'yes' : '' } }),
    getNextPageParam: page => page.next ?? undefined,
  });
