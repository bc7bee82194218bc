import type { BatchState } from './state.ts';

/** Allergens that what went into a batch brings: of its lines, and of the lots that were drawn for them. */
export function allergensIn(state: Pick<BatchState, 'started' | 'draws'>): Set<string> {
  return new Set([
    ...(state.started?.recipe.lines ?? []).flatMap(l => l.allergens),
    ...state.draws.flatMap(d => d.lots.flatMap(l => l.allergens)),
  ]);
}

/** What was in the pot before. */
export interface PotBefore {
  /** The recipes that were cooked in it, the last one first. */
  names: string[];
  /** Allergens of theirs that this batch does not have. */
  allergens: string[];
}

/**
 * Allergens that were in the pot earlier the same day, and that this batch does not have: then it is asked whether the pot
 * was washed. A pot that nobody named may have been any.
 *
 * @param others  other batches of the kitchen, in whatever order
 * @returns null where there is nothing to ask, or it was answered
 */
export function potBefore(
  state: Pick<BatchState, 'started' | 'draws' | 'washed'>,
  others: readonly Pick<BatchState, 'started' | 'draws'>[],
): PotBefore | null {
  const { started } = state;
  if (!started || state.washed.length > 0) return null;
  const own = allergensIn(state);
  const before = others
    .flatMap(o => (o.started ? [{ started: o.started, allergens: allergensIn(o) }] : []))
    .filter(
      o =>
        o.started.madeOn === started.madeOn &&
        o.started.by.at_ms < started.by.at_ms &&
        (o.started.potId === null || started.potId === null || o.started.potId === started.potId),
    )
    .sort((a, b) => b.started.by.at_ms - a.started.by.at_ms)
    .filter(o => [...o.allergens].some(a => !own.has(a)));
  const allergens = [...new Set(before.flatMap(o => [...o.allergens]))].filter(a => !own.has(a));
  return allergens.length === 0
    ? null
    : { names: [...new Set(before.map(o => o.started.recipe.name))], allergens };
}

/** Allergens that a pot brought along which was not washed. */
export const unwashedAllergens = (state: Pick<BatchState, 'washed'>): string[] => {
  const last = state.washed.at(-1);
  return last && !last.washed ? last.allergens : [];
};
