import { type RecipeRow, listRecipes, readRecipe } from '@cocotte/contract';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { call } from '../shell/call.ts';

export const useRecipes = (search: string) =>
  useInfiniteQuery({
    queryKey: ['recipes', search],
    initialPageParam: '',
    queryFn: ({ pageParam }) => call(listRecipes, { query: { after: pageParam, search } }),
    getNextPageParam: page => page.next ?? undefined,
  });

export const useRecipe = (recipeId: string | undefined) =>
  useQuery({
    queryKey: ['recipe', recipeId],
    enabled: recipeId !== undefined,
    queryFn: () => call(readRecipe, { params: { recipeId: recipeId as string } }),
  });

export type { RecipeRow };
