import {
  listItems,
  listLots,
  listMappings,
  listPlans,
  listReceipts,
  listStock,
  readCost,
  readLot,
  readReceipt,
  readShelf,
  recipeCosts,
} from '@cocotte/contract';
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { call } from '../shell/call.ts';

export const useItems = () => useQuery({ queryKey: ['items'], queryFn: () => call(listItems) });

export const useShelf = () => useQuery({ queryKey: ['shelf'], queryFn: () => call(readShelf) });

export interface StockFilter {
  search: string;
  kind: string;
  only: string;
  at: string;
}
export const useStock = (filter: StockFilter) =>
  useInfiniteQuery({
    queryKey: ['stock', filter],
    initialPageParam: '',
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => call(listStock, { query: { after: pageParam, ...filter } }),
    getNextPageParam: page => page.next ?? undefined,
  });

export const useLotsOf = (itemId: string, empty: boolean) =>
  useInfiniteQuery({
    queryKey: ['lots', itemId, empty],
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      call(listLots, { query: { after: pageParam, search: '', itemId, empty: empty ? 'yes' : '' } }),
    getNextPageParam: page => page.next ?? undefined,
  });

export const useLot = (lotId: string) =>
  useQuery({ queryKey: ['lot', lotId], queryFn: () => call(readLot, { params: { lotId } }) });

export const useReceipts = (search: string) =>
  useInfiniteQuery({
    queryKey: ['receipts', search],
    initialPageParam: '',
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => call(listReceipts, { query: { after: pageParam, search } }),
    getNextPageParam: page => page.next ?? undefined,
  });

export const useReceipt = (receiptId: string) =>
  useQuery({ queryKey: ['receipt', receiptId], queryFn: () => call(readReceipt, { params: { receiptId } }) });

export const useMappings = () => useQuery({ queryKey: ['mappings'], queryFn: () => call(listMappings) });

export const usePlans = () => useQuery({ queryKey: ['plans'], queryFn: () => call(listPlans) });

export const useBatchCost = (batchId: string, seq: number) =>
  useQuery({
    queryKey: ['cost', batchId, seq],
    placeholderData: keepPreviousData,
    queryFn: () => call(readCost, { params: { batchId } }),
  });

export const useRecipeCosts = (recipeId: string) =>
  useQuery({ queryKey: ['costs', recipeId], queryFn: () => call(recipeCosts, { params: { recipeId } }) });

/** Everything that hangs on stock is asked for again. */
export function useStockChanged(): () => Promise<void> {
  const client = useQueryClient();
  return useCallback(async () => {
    await Promise.all(
      [
        'items',
        'stock',
        'shelf',
        'lots',
        'lot',
        'receipts',
        'receipt',
        'plans',
        'shopping',
        'costs',
        'cost',
      ].map(key => client.invalidateQueries({ queryKey: [key] })),
    );
  }, [client]);
}
