import { type BatchState, lotsOf } from '../batches/index.ts';
import { jarCountText, type JarSizeId } from '../jars/index.ts';
import { rangesText } from '../measure/index.ts';

/** What is written on the lids of some jars. */
export interface LidLine {
  lotCode: string;
  /** Number of the load they were in last; null for jars that were in none. */
  load: number | null;
  size: JarSizeId;
  jars: number[];
}

/** What is written on each lid of a batch, by lot, load and size; jars that were set aside are left out. */
export function lidLines(state: BatchState): LidLine[] {
  const numbers = new Map(state.loads.map(l => [l.id, l.number]));
  const lines: LidLine[] = [];
  for (const { lotCode, jars } of lotsOf(state))
    for (const jar of jars) {
      if (jar.setAside) continue;
      const load = numbers.get(jar.loadIds.at(-1) ?? '') ?? null;
      const line = lines.find(l => l.lotCode === lotCode && l.load === load && l.size === jar.size);
      if (line) line.jars.push(jar.number);
      else lines.push({ lotCode, load, size: jar.size, jars: [jar.number] });
    }
  for (const line of lines) line.jars.sort((a, b) => a - b);
  return lines.sort(
    (a, b) => (a.load ?? Infinity) - (b.load ?? Infinity) || (a.jars[0] ?? 0) - (b.jars[0] ?? 0),
  );
}

/** The same as a plain text to print or to copy from: one line for what is alike. */
export function lidText(state: BatchState): string {
  const name = state.started?.recipe.name ?? '';
  const rows = lidLines(state).map(l => [
    l.lotCode,
    l.load === null ? 'no load' : `load ${l.load}`,
    jarCountText(l.jars.length, l.size),
    `jar ${rangesText(l.jars)}`,
  ]);
  const widths = [0, 1, 2].map(i => Math.max(0, ...rows.map(r => (r[i] as string).length)));
  const lines = rows.map(r =>
    r
      .map((cell, i) => cell.padEnd(widths[i] ?? 0))
      .join('   ')
      .trimEnd(),
  );
  return `${[name, '', ...lines].join('\n')}\n`;
}
