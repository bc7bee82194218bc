/** Rows of a table that stand open beneath their chart; more are folded away. */
export const FEW = 40;
/** Points a chart draws: more lie upon each other, and take seconds. */
const DRAWN = 400;

/** What is drawn of many points, in their order: each that matters, and of the others as many as there is room for, evenly picked. */
export function drawnOf<P>(points: readonly P[], matters: (point: P) => boolean): P[] {
  if (points.length <= DRAWN) return [...points];
  const others = points.filter(p => !matters(p));
  const room = Math.max(0, DRAWN - (points.length - others.length));
  const kept = new Set(
    Array.from(
      { length: Math.min(room, others.length) },
      (_, i) => others[Math.floor((i * others.length) / room)],
    ),
  );
  return points.filter(p => matters(p) || kept.has(p));
}
