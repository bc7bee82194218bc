import type { Recipe } from '../recipes/index.ts';

/** What the review finds. `refused`: never started. `mend`: not for sale until mended. `note`: worth knowing. */
export interface ReviewFault {
  code: string;
  level: 'refused' | 'mend' | 'note';
  /** The line it is about, or null for the whole. */
  lineId: string | null;
  what: string;
  why: string;
  next: string;
  source: string;
}

/** A guide of the publication the rules are taken from. */
export const GUIDE = (n: number) => `USDA Complete Guide to Home Canning (2015), guide ${n} (from memory)`;

/** Half a teaspoon of butter against foam, by weight: free in any pot. */
export const FREE_BUTTER_G = 2.5;

/** Dried spices, together, that are free: a share of the pot. Common practice of the trade. */
export const FREE_SPICE_SHARE = 0.01;

/** The published entry a tested recipe follows. */
export function followedEntry(recipe: Recipe): string | null {
  const { authority } = recipe;
  return authority.grade === 'tested publication' && authority.time.kind === 'entry'
    ? authority.time.entryId
    : null;
}

/** Whether a tested publication or a letter stands behind a recipe. */
export const isCovered = (recipe: Recipe): boolean =>
  recipe.authority.grade === 'tested publication' || recipe.authority.grade === 'letter';
