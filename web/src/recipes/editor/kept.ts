import type { Draft } from './draft.ts';

/** Unsaved work, kept in this browser until it is saved or given up: a reload loses nothing. */
interface Kept {
  draft: Draft;
  /** Version of the recipe it was begun from; 0 for a new one. */
  version: number;
  recipeId: string;
}

const keyOf = (kitchenId: string, recipeId: string | null) =>
  `cocotte.draft-2.${kitchenId}.${recipeId ?? 'new'}`;

export function readKept(kitchenId: string, recipeId: string | null): Kept | null {
  try {
    const text = localStorage.getItem(keyOf(kitchenId, recipeId));
    return text === null ? null : (JSON.parse(text) as Kept);
  } catch {
    return null;
  }
}

export function keep(kitchenId: string, recipeId: string | null, kept: Kept): void {
  try {
    localStorage.setItem(keyOf(kitchenId, recipeId), JSON.stringify(kept));
  } catch {
    // A full or closed store only costs the safety net, never the work on screen.
  }
}

export function forget(kitchenId: string, recipeId: string | null): void {
  localStorage.removeItem(keyOf(kitchenId, recipeId));
}
