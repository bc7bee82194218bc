import {
  type RecipeFilter,
  listConfirmations,
  listRecipes,
  listShelves,
  listTastings,
  listVersions,
  readRecipe,
  readVersion,
  recipeHistory,
} from '@cocotte/contract';
import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call } from '../shell/call.ts';

export const NO_FILTER: RecipeFilter = { search: '', family: '', tag: '', product: '', variantOf: '' };

export const useRecipes = (filter: RecipeFilter) =>
  useInfiniteQuery({
    queryKey: ['recipes', filter],
    initialPageParam: '',
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => call(listRecipes, { query: { after: pageParam, ...filter } }),
    getNextPageParam: page => page.next ?? undefined,
  });

export const useShelves = () =>
  useQuery({ queryKey: ['recipes', 'shelves'], queryFn: () => call(listShelves) });

export const useRecipe = (recipeId: string | undefined) =>
  useQuery({
    queryKey: ['recipe', recipeId],
    enabled: recipeId !== undefined && recipeId !== '',
    queryFn: () => call(readRecipe, { params: { recipeId: recipeId as string } }),
  });

export const useVersions = (recipeId: string) =>
  useQuery({
    queryKey: ['recipe', recipeId, 'versions'],
    queryFn: () => call(listVersions, { params: { recipeId } }),
  });

export const useVersion = (recipeId: string, number: number | null) =>
  useQuery({
    queryKey: ['recipe', recipeId, 'version', number],
    enabled: number !== null,
    queryFn: () => call(readVersion, { params: { recipeId, number: String(number) } }),
  });

export const useHistory = (recipeId: string) =>
  useQuery({
    queryKey: ['recipe', recipeId, 'history'],
    queryFn: () => call(recipeHistory, { params: { recipeId } }),
  });

export const useTastings = (recipeId: string) =>
  useQuery({
    queryKey: ['recipe', recipeId, 'tastings'],
    queryFn: () => call(listTastings, { params: { recipeId } }),
  });

/** What the owners of this kitchen confirmed from the open page. */
export const useConfirmations = () =>
  useQuery({ queryKey: ['confirmations'], queryFn: () => call(listConfirmations) });
