import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  clockOf,
  clockText,
  type Clock,
  numberText,
  plainLocale,
  usualPaper,
  weekOf,
  weekStartOf,
  type WeekStart,
  withHabits,
} from './index.ts';

const LOCALES = ['en-US', 'en-GB', 'de-DE', 'fr-CA', 'es-ES', 'ja-JP', 'ar-EG', 'sv-SE'];
const aLocale = fc.constantFrom(...LOCALES);
const aClock = fc.constantFrom<Clock>('h12', 'h23');
const aStart = fc.constantFrom<WeekStart>('mon', 'sat', 'sun');
const aDay = fc.integer({ min: 0, max: 40_000 }).map(n => addDays('1990-01-01', n));

describe('the habits of a locale', () => {
  it('are those of its place, as common practice has them', () => {
    expect(LOCALES.map(l => [l, clockOf(l), weekStartOf(l), usualPaper(l)].join(' '))).toEqual([
      'en-US h12 sun letter',
      'en-GB h23 mon A4',
      'de-DE h23 mon A4',
      'fr-CA h23 sun letter',
      'es-ES h23 mon A4',
      'ja-JP h23 sun A4',
      'ar-EG h12 sat A4',
      'sv-SE h23 mon A4',
    ]);
  });

  it('keep what was chosen, and nothing else of the locale changes by it', () => {
    fc.assert(
      fc.property(aLocale, aClock, aStart, (locale, clock, weekStart) => {
        const chosen = withHabits(locale, { clock, weekStart });
        expect([clockOf(chosen), weekStartOf(chosen), plainLocale(chosen)]).toEqual([
          clock,
          weekStart,
          locale,
        ]);
        expect(withHabits(chosen, { clock: clockOf(locale), weekStart: weekStartOf(locale) })).toBe(locale);
        expect(numberText(12_345.6, { locale: chosen })).toBe(numberText(12_345.6, { locale }));
        expect(chosen.length).toBeLessThanOrEqual(40);
      }),
    );
  });

  it('are what times are read by', () => {
    const at_ms = Date.parse('2026-11-25T00:34:00Z');
    const read = (locale: string) => clockText(at_ms, { locale, zone: 'America/New_York' });
    expect([read('en-US'), read('en-US-u-hc-h23'), read('de-DE'), read('de-DE-u-hc-h12')]).toEqual([
      '7:34\u00a0PM',
      '19:34',
      '19:34',
      '7:34\u00a0PM',
    ]);
    // Half past midnight is no 24:30.
    expect(
      clockText(Date.parse('2026-11-25T05:30:00Z'), { locale: 'en-US-u-hc-h23', zone: 'America/New_York' }),
    ).toBe('00:30');
  });

  it('say in which week a day lies: seven days, from its first', () => {
    fc.assert(
      fc.property(aLocale, aClock, aStart, aDay, (plain, clock, weekStart, day) => {
        const locale = withHabits(plain, { clock, weekStart });
        const first = weekOf(day, locale);
        expect(new Date(`${first}T00:00:00Z`).getUTCDay()).toBe({ sun: 0, mon: 1, sat: 6 }[weekStart]);
        expect(first <= day && day < addDays(first, 7)).toBe(true);
        expect(weekOf(addDays(first, 6), locale)).toBe(first);
      }),
    );
  });
});
