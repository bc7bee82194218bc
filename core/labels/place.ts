import type { BatchState } from '../batches/index.ts';
import { type Kitchen, type PlaceFault, placeFault } from '../kitchen/index.ts';
import type { Day } from '../measure/index.ts';

/**
 * Why the place lets no label of this batch be printed for sale: it does not allow such food, a point was never ticked or
 * ran out. What was cooked for home, or given away, is not asked.
 *
 * @returns null where it allows it
 */
export function labelPlaceFault(
  state: BatchState,
  kitchen: Pick<Kitchen, 'jurisdiction' | 'locale'>,
  today: Day,
): PlaceFault | null {
  const { started } = state;
  if (!started || started.purpose !== 'sale') return null;
  const { foodClass, authority } = started.recipe;
  return placeFault(
    kitchen.jurisdiction,
    { foodClass, hasLetter: authority.grade === 'letter' },
    today,
    kitchen,
  );
}
