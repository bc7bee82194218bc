/** A temperature at a moment. */
export interface Degrees {
  at_ms: number;
  temp_C: number;
}

/**
 * So few points of a long curve that they can be drawn at once, and nothing that stood out is lost: of each stretch of time
 * the lowest and the highest, in their order, and the first and the last of all.
 *
 * @param points  in order of time
 * @param most  at least 4
 * @returns at most so many of the same points, in order; all of them where they are no more
 * @example
 * const climb = Array.from({ length: 1000 }, (_, i) => ({ at_ms: i * 1000, temp_C: i === 500 ? 99 : 20 }));
 * thinned(climb, 100).length <= 100 && thinned(climb, 100).some(p => p.temp_C === 99); // true
 */
export function thinned(points: readonly Degrees[], most: number): Degrees[] {
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last || points.length <= most) return [...points];
  const stretches = Math.max(1, Math.floor((most - 2) / 2));
  const width_ms = (last.at_ms - first.at_ms) / stretches;
  const out: Degrees[] = [first];
  let i = 1;
  for (let s = 0; s < stretches; s++) {
    const until_ms = s === stretches - 1 ? Infinity : first.at_ms + width_ms * (s + 1);
    let low: Degrees | null = null;
    let high: Degrees | null = null;
    for (; i < points.length - 1; i++) {
      const p = points[i] as Degrees;
      if (p.at_ms >= until_ms) break;
      if (!low || p.temp_C < low.temp_C) low = p;
      if (!high || p.temp_C > high.temp_C) high = p;
    }
    if (!low || !high) continue;
    if (low === high) out.push(low);
    else out.push(...(low.at_ms < high.at_ms ? [low, high] : [high, low]));
  }
  out.push(last);
  return out;
}
