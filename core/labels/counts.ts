import type { BatchState } from '../batches/index.ts';

/** Labels of one print, and what became of them. */
export interface LabelCount {
  printId: string;
  printed: number;
  used: number;
  spoiled: number;
  destroyed: number;
  /** Not counted under any of them: still on the roll or the sheet, or gone nobody knows where. */
  left: number;
  /** Jars of it that may not go out. */
  held: number[];
  /** Labels of held jars that are to be brought back and destroyed. */
  askedBack: number;
}

/**
 * Labels reconciled with jars: each that was printed is used, spoiled, destroyed or left.
 *
 * @param released  jars that may go out
 */
export function labelCounts(state: Pick<BatchState, 'labels'>, released: readonly number[]): LabelCount[] {
  return state.labels.map(({ eventId, jars, spares, counted }) => {
    const { used = 0, spoiled = 0, destroyed = 0 } = counted ?? {};
    const printed = jars.length + spares;
    const held = jars.filter(n => !released.includes(n));
    return {
      printId: eventId,
      printed,
      used,
      spoiled,
      destroyed,
      left: Math.max(0, printed - used - spoiled - destroyed),
      held,
      askedBack: Math.max(0, held.length - destroyed),
    };
  });
}
