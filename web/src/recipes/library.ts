import { listIngredients } from '@cocotte/contract';
import { type Ingredient, type NameIndex, libraryOf, nameIndex } from '@cocotte/core/ingredients';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call } from '../shell/call.ts';

/** The kitchen's own ingredients and overrides. */
export const useOwnIngredients = () =>
  useQuery({ queryKey: ['ingredients'], queryFn: () => call(listIngredients) });

export interface Library {
  all: Ingredient[];
  byId: ReadonlyMap<string, Ingredient>;
  index: NameIndex;
}

/** What ships, with the kitchen's own entries in front. */
export function useLibrary(): Library {
  const { data } = useOwnIngredients();
  return useMemo(() => {
    const all = libraryOf(data?.ingredients.map(o => o.ingredient) ?? []);
    return { all, byId: new Map(all.map(i => [i.id, i])), index: nameIndex(all) };
  }, [data]);
}
