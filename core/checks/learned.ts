import { type BatchState, cooked, type JarFault, type SetSeen } from '../batches/index.ts';

/** What one batch teaches the next: how long it cooked, how it set, and what was found in its jars. */
export interface Learned {
  cook_min: number | null;
  /** Water that each pot boiled off in a minute. */
  boilOff_gPerMin: number | null;
  set: SetSeen | null;
  /** Jars in which each fault was seen. */
  found: { fault: JarFault; jars: number }[];
  /** Words of those who looked, oldest first. */
  said: string[];
}

/** Of a batch that was not cooked yet, and of one that was kept before anything was learned. */
export const NOTHING_LEARNED: Learned = {
  cook_min: null,
  boilOff_gPerMin: null,
  set: null,
  found: [],
  said: [],
};

/** What a batch teaches, of what was cooked and seen so far. */
export function learnedOf(state: BatchState): Learned {
  const how = cooked(state);
  const seen = new Map<JarFault, Set<number>>();
  for (const look of state.looks)
    for (const fault of look.found) seen.set(fault, new Set([...(seen.get(fault) ?? []), ...look.jars]));
  return {
    cook_min: how && Math.round(how.minutes),
    boilOff_gPerMin: how?.boilOff_gPerMin ? Math.round(how.boilOff_gPerMin) : null,
    set: state.looks.findLast(l => l.set !== null)?.set ?? null,
    found: [...seen].map(([fault, jars]) => ({ fault, jars: jars.size })),
    said: state.looks.flatMap(l => (l.text === '' ? [] : [l.text])),
  };
}
