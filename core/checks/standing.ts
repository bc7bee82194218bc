import type { Gate } from './gate.ts';

/** The form a jar is drawn in. State is a form, never only a colour. */
export type JarForm =
  'empty' | 'filled' | 'in the canner' | 'cooling' | 'sealed' | 'failed' | 'held' | 'released' | 'set aside';

/** Where a batch is on its way: *closed* when all its jars were set aside. */
export type Stage = 'cooking' | 'checking' | 'released' | 'closed';

/** The jars of a batch with their forms, and its gate. */
export interface BatchStanding {
  gate: Gate;
  forms: { number: number; form: JarForm }[];
  stage: Stage;
  /** Jars that were released, and against which nothing has come up since. */
  released: number[];
  /**
   * What today's rules ask of released jars beyond what they asked then: it takes no release back, and is worth
   * knowing.
   */
  asksMore: string[];
}
