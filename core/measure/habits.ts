import { addDays, type Day } from './day.ts';
import { timeFormat } from './intl.ts';

/** The 12-hour clock ("7:34 PM") or the 24-hour one ("19:34"), by its name in a locale (Unicode, UTS 35, key `hc`). */
export type Clock = 'h12' | 'h23';
/** The day on which a week begins, by its name in a locale (Unicode, UTS 35, key `fw`). */
export type WeekStart = 'mon' | 'sat' | 'sun';
/** Size of the sheets that are printed. */
export type PaperSize = 'letter' | 'A4';

/** The sheets, in millimetres. US Letter is 8 1/2 by 11 inches; A4 is ISO 216. */
export const PAPER_MM: Readonly<Record<PaperSize, { width: number; height: number }>> = {
  letter: { width: 215.9, height: 279.4 },
  A4: { width: 210, height: 297 },
};

/** Where sheets are US Letter: regions of CLDR's `paperSize` supplement; from memory. */
const LETTER_REGIONS = new Set('BZ CA CL CO CR GT MX NI PA PH PR SV US VE'.split(' '));

/**
 * The clock by which a locale reads times, its own or the one that was chosen with it.
 *
 * @throws RangeError for a text that is no locale
 * @example clockOf('en-US-u-hc-h23') // 'h23'
 */
export function clockOf(locale: string): Clock {
  return timeFormat(locale, { hour: 'numeric' }).resolvedOptions().hour12 ? 'h12' : 'h23';
}

/**
 * The day on which a week begins in a locale, its own or the one that was chosen with it; Monday (ISO 8601) where the
 * platform does not know.
 *
 * @throws RangeError for a text that is no locale
 * @example weekStartOf('en-US') // 'sun'
 */
export function weekStartOf(locale: string): WeekStart {
  const tag = new Intl.Locale(locale);
  const chosen = /-u-(?:.*-)?fw-(mon|sat|sun)/.exec(tag.toString())?.[1];
  if (chosen) return chosen as WeekStart;
  // Some platforms have it as a method, some as a property, some not at all.
  const known = tag as { getWeekInfo?: () => { firstDay: number }; weekInfo?: { firstDay: number } };
  const first = known.getWeekInfo?.().firstDay ?? known.weekInfo?.firstDay ?? 1;
  return first === 7 ? 'sun' : first === 6 ? 'sat' : 'mon';
}

/**
 * A locale with a clock and a first day of the week of one's own; what it has by itself is not said twice.
 *
 * @throws RangeError for a text that is no locale
 * @example withHabits('de-DE', { clock: 'h12', weekStart: 'mon' }) // 'de-DE-u-hc-h12'
 */
export function withHabits(locale: string, own: { clock: Clock; weekStart: WeekStart }): string {
  const { baseName } = new Intl.Locale(locale);
  const keys = [
    ...(weekStartOf(baseName) === own.weekStart ? [] : [`fw-${own.weekStart}`]),
    ...(clockOf(baseName) === own.clock ? [] : [`hc-${own.clock}`]),
  ];
  return keys.length === 0 ? baseName : `${baseName}-u-${keys.join('-')}`;
}

/**
 * A locale without what was chosen with it.
 *
 * @throws RangeError for a text that is no locale
 * @example plainLocale('en-US-u-hc-h23') // 'en-US'
 */
export function plainLocale(locale: string): string {
  return new Intl.Locale(locale).baseName;
}

/**
 * The sheets that are usual where a locale is spoken.
 *
 * @throws RangeError for a text that is no locale
 */
export const usualPaper = (locale: string): PaperSize =>
  LETTER_REGIONS.has(new Intl.Locale(locale).maximize().region ?? '') ? 'letter' : 'A4';

/**
 * The first day of the week in which a day lies.
 *
 * @example weekOf('2026-11-25', 'en-US') // '2026-11-22'
 */
export function weekOf(day: Day, locale: string): Day {
  const first = { sun: 0, mon: 1, sat: 6 }[weekStartOf(locale)];
  const weekday = new Date(`${day}T00:00:00Z`).getUTCDay();
  return addDays(day, -((weekday - first + 7) % 7));
}
