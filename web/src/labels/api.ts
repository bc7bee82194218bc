import { readLabelSettings, readLabelSetup } from '@cocotte/contract';
import { useQuery } from '@tanstack/react-query';
import { call } from '../shell/call.ts';

/** How the labels of a recipe are made. */
export const useLabelSetup = (recipeId: string) =>
  useQuery({
    queryKey: ['label setup', recipeId],
    queryFn: () => call(readLabelSetup, { params: { recipeId } }),
  });

/** What this kitchen prints labels on. */
export const useLabelSettings = () =>
  useQuery({ queryKey: ['label settings'], queryFn: () => call(readLabelSettings) });
