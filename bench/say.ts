/** What this run is, and how it says its figures. Absolute times are targets to report; only ratios fail. */
export const tiny = process.argv.includes('--tiny');
export const CONNECTIONS = 32;
export const SECONDS = tiny ? 0.4 : 1.5;
/** At a steady rate, long enough that one answer in twenty is a figure. */
export const STEADY_SECONDS = tiny ? 0.4 : 12;
export const PLAN = tiny ? { batches: 40, lots: 200 } : { batches: 5000, lots: 20_000 };
export const failures: string[] = [];

export const say = (line: string) => console.log(line);
export const ms = (n: number) => `${n < 10 ? n.toFixed(2) : n.toFixed(1)} ms`;
export const percentile = (list: number[], p: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * p))] ?? Number.NaN;
export const median = (list: number[]) => percentile(list, 0.5);

/** Holds a ratio to its limit; a tiny run only prints it, for it measures nothing. */
export function ratio(name: string, value: number, limit: number): void {
  say(`  ${value <= limit ? 'within' : 'OVER'} ${name}: ${value.toFixed(2)} (at most ${limit})`);
  if (!tiny && value > limit) failures.push(name);
}
