import type { BatchState } from '../batches/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { type Day, dayOf } from '../measure/index.ts';
import { eatBy } from '../review/index.ts';

/** A jar that stands in the cold, and the last day to eat it; null in the freezer, where it only loses its taste. */
export interface ColdJar {
  number: number;
  size: JarSizeId;
  place: 'refrigerator' | 'freezer';
  eatBy: Day | null;
}

/** Jars that are kept cold: part-filled ones, those that were moved there, and those whose size has no processing time. */
export function coldJars(state: BatchState): ColdJar[] {
  const { started } = state;
  if (!started) return [];
  const timed = new Set(started.times.map(t => t.jarSize));
  return state.jars.flatMap(jar => {
    const why = jar.setAside?.why ?? null;
    const place =
      why === 'freezer'
        ? 'freezer'
        : why === 'part-filled' || why === 'refrigerator' || (why === null && !timed.has(jar.size))
          ? 'refrigerator'
          : null;
    if (!place) return [];
    // It counts from the day it was filled: what stood in a canner meanwhile is no younger.
    const filledOn = dayOf(jar.filled.at_ms, started.kitchen.zone);
    return [
      {
        number: jar.number,
        size: jar.size,
        place,
        eatBy: place === 'freezer' ? null : eatBy(started.recipe, filledOn),
      },
    ];
  });
}
