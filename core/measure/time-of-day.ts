import { type Day, addDays, instantOf } from './day.ts';
import { unreadable, type Reading } from './fault.ts';

const WRITTEN = /^(\d{1,2})(?:[:.h ]?(\d{2}))?\s*([ap])?\.?\s*m?\.?$/i;

/**
 * Reads a time as people write it on a sheet: "7:34 PM", "734p", "19:34", "7.34". Where the kitchen's clock has twelve
 * hours, one that could be of either half of the day is asked about, and not guessed.
 *
 * @param clock  hours of the kitchen's clock
 * @returns minutes since midnight
 * @example
 * readTimeOfDay('7:34 PM', 12).value; // 1174
 */
export function readTimeOfDay(text: string, clock: 12 | 24): Reading<number> {
  const typed = text.trim();
  const found = WRITTEN.exec(typed);
  const hour = Number(found?.[1]);
  const minute = Number(found?.[2] ?? 0);
  const half = found?.[3]?.toLowerCase();
  if (!found || minute > 59 || hour > 24 || (half && (hour < 1 || hour > 12)) || (hour === 24 && minute > 0))
    return unreadable(
      'not-a-time-of-day',
      `"${typed.slice(0, 40)}" is no time of day.`,
      'Times are written as they stood on the clock.',
      clock === 12 ? 'Write it as 7:34 PM.' : 'Write it as 19:34.',
    );
  if (clock === 12 && !half && hour >= 1 && hour <= 12)
    return unreadable(
      'which-half',
      `Is ${typed} before or after noon?`,
      'Twelve hours between are twelve hours in the record.',
      `Write ${typed} AM or ${typed} PM.`,
    );
  return {
    ok: true,
    value: ((half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour % 24) * 60 + minute) % 1440,
  };
}

const DAY_MIN = 1440;

/**
 * Times of one sheet, in the order in which they stand on it, as instants. Each is the next one after the time before it: one
 * that stood earlier on the clock is of the next day.
 *
 * @param day  the day the sheet begins
 * @param times  minutes since midnight; null for a row that says no time
 * @returns milliseconds, null where no time was said
 * @example
 * const [late = 0, early = 0] = timesInOrder('2026-11-20', 'UTC', [1430, 20]);
 * ((early ?? 0) - (late ?? 0)) / 60_000; // 30
 */
export function timesInOrder(day: Day, zone: string, times: readonly (number | null)[]): (number | null)[] {
  const two = (n: number) => String(n).padStart(2, '0');
  let from = 0;
  return times.map(time => {
    if (time === null) return null;
    let at = time;
    while (at < from) at += DAY_MIN;
    from = at;
    const rest = at % DAY_MIN;
    const on = addDays(day, Math.floor(at / DAY_MIN));
    return instantOf(`${on}T${two(Math.floor(rest / 60))}:${two(rest % 60)}`, zone);
  });
}
