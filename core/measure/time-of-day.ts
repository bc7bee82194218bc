import { type Day, addDays, instantOf } from './day.ts';
import { unreadable, type Reading } from './fault.ts';

/** A time as it stands on a kitchen clock: minutes since midnight; *both* where the half of the day was not said. */
export interface TimeOfDay {
  minutes: number;
  /** It was written with am or pm, or past noon: there is nothing to guess. */
  sure: boolean;
}

const WRITTEN = /^(\d{1,2})(?:[:.h ]?(\d{2}))?\s*(a|p)?\.?\s*m?\.?$/i;

/**
 * Reads a time as people write it on a sheet: "7:34", "19:34", "7.34 pm", "734p", "7 PM".
 *
 * @example
 * readTimeOfDay('7:34 PM').value.minutes; // 1174
 */
export function readTimeOfDay(text: string): Reading<TimeOfDay> {
  const typed = text.trim();
  // "734p" is 7:34, as it is said.
  const packed = /^(\d{1,2})(\d{2})\s*([ap])?\.?m?\.?$/i.exec(typed);
  const found = WRITTEN.exec(packed ? `${packed[1]}:${packed[2]}${packed[3] ?? ''}` : typed);
  const hour = Number(found?.[1]);
  const minute = Number(found?.[2] ?? 0);
  const half = found?.[3]?.toLowerCase();
  if (!found || minute > 59 || hour > 24 || (half && (hour < 1 || hour > 12)) || (hour === 24 && minute > 0))
    return {
      ok: false,
      fault: unreadable('not-a-time-of-day', `"${typed}" is no time of day.`, 'Times are written as on the clock.', 'Write it as 7:34 PM or 19:34.'),
    };
  const minutes = ((half ? (hour % 12) + (half === 'p' ? 12 : 0) : hour % 24) * 60 + minute) % 1440;
  return { ok: true, value: { minutes, sure: half !== undefined || hour > 12 || hour === 0 } };
}

const DAY_MIN = 1440;

/**
 * Times of one sheet, in the order in which they stand on it, as instants. Each is the next one after the time before it: one
 * that was written earlier on the clock is of the next day, and where the half of the day was not said it is the half that
 * comes next.
 *
 * @param day  the day the sheet begins
 * @param times  null for a row that says no time
 * @returns milliseconds, null where no time was said
 * @example
 * const [a, b] = timesInOrder('2026-11-20', 'UTC', [{ minutes: 1430, sure: true }, { minutes: 20, sure: true }]);
 * (b - a) / 60_000; // 30
 */
export function timesInOrder(day: Day, zone: string, times: readonly (TimeOfDay | null)[]): (number | null)[] {
  let from = 0;
  return times.map(time => {
    if (time === null) return null;
    const step = time.sure ? DAY_MIN : DAY_MIN / 2;
    let at = time.minutes;
    while (at < from) at += step;
    from = at;
    const on = addDays(day, Math.floor(at / DAY_MIN));
    const rest = at % DAY_MIN;
    const two = (n: number) => String(n).padStart(2, '0');
    return instantOf(`${on}T${two(Math.floor(rest / 60))}:${two(rest % 60)}`, zone);
  });
}
