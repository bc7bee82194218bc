import { jarSize } from '../jars/index.ts';
import type { ScheduledTime } from './scheduled.ts';

/** Longest time an atmospheric steam canner may run, after the altitude addition. Source: university research on steam canning; from memory. */
export const STEAM_LIMIT_MIN = 45;

/** What of a time says whether steam covers it. */
type Steamed = Pick<ScheduledTime, 'method' | 'minutes' | 'jarSize'>;

/**
 * Whether a time may be run in an atmospheric steam canner instead of boiling water; if not, why. Tested from half-pints to
 * quarts; a quarter-pint takes the half-pint's time. Source: university research on steam canning; from memory.
 */
export function steamFault(time: Steamed): string | null {
  if (time.method !== 'boiling water') return 'The letter sets a hot fill and hold, no canner.';
  if (jarSize(time.jarSize).pints.compare(jarSize('quart').pints) > 0)
    return 'Steam was tested up to quarts.';
  if (time.minutes > STEAM_LIMIT_MIN)
    return `${time.minutes} minutes is over the ${STEAM_LIMIT_MIN} that steam was tested for: the water would boil away.`;
  return null;
}

/** The same for one load, which runs for the longest of its jars' times. */
export const steamLoadFault = (times: readonly Steamed[]): string | null =>
  times.map(steamFault).find(fault => fault !== null) ?? null;
