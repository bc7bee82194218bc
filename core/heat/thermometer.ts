import { boilingPoint_C } from './boiling.ts';

/** One that is further off is replaced rather than reckoned with. */
export const MOST_ERROR_C = 5;

/**
 * What a thermometer reads above the truth, from what it showed in boiling water.
 *
 * @param read_C  what it showed
 * @example Math.abs(thermometerError_C(101, 0) - 1) < 0.1 // true
 */
export function thermometerError_C(read_C: number, altitude_m: number): number {
  return read_C - boilingPoint_C(altitude_m);
}
