import { byName } from '../measure/index.ts';
import { balance } from './balance.ts';
import type { Balance } from './made.ts';
import type { Process } from './process.ts';

/** A figure with the range it falls in eight times out of ten. */
export interface Range {
  mid: number;
  low: number;
  high: number;
}

/**
 * Figures of a process with their ranges of 80 %: each uncertain figure is moved towards its tenth and its ninetieth
 * part by itself, and what it moves is added up by squares, up and down apart. What goes wrong together is not foreseen.
 *
 * @param asks  figures that are read off a balance
 * @returns a range for each
 * @example
 * const kitchen = { altitude_m: 0, thermometerError_C: 0, pot: null, pots: 1, headspace_mm: 6.35 };
 * const process = plan(plumJam, new Fraction(1), asManyAsItFills(['half-pint']), kitchen);
 * const [pints] = spread(process, [b => b.filling.pints]);
 * pints.low <= pints.mid && pints.mid <= pints.high; // true
 */
export function spread(process: Process, asks: readonly ((of: Balance) => number)[]): Range[] {
  const middle = balance(process);
  const mids = asks.map(ask => ask(middle));
  const down = asks.map(() => 0);
  const up = asks.map(() => 0);
  for (const { id, mid, low, high } of process.uncertain) {
    // Moved to its farther end; to the nearer one in proportion, since what it moves is nearly straight.
    const far = high - mid >= mid - low ? high : low;
    const near = far === high ? low : high;
    if (far === mid) continue;
    const moved = balance(process, byName([[id, far]]));
    asks.forEach((ask, i) => {
      const by = ask(moved) - (mids[i] as number);
      for (const part of [by, (by * (near - mid)) / (far - mid)])
        if (part < 0) down[i] = (down[i] as number) + part ** 2;
        else up[i] = (up[i] as number) + part ** 2;
    });
  }
  return mids.map((mid, i) => ({
    mid,
    low: mid - Math.sqrt(down[i] as number),
    high: mid + Math.sqrt(up[i] as number),
  }));
}
