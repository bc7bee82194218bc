import { numberFormat, timeFormat } from './intl.ts';
import type { Day } from './day.ts';
import { Decimal } from './exact.ts';
import type { PaperSize } from './habits.ts';
import { mixedText } from './kitchen-measures.ts';
import { fahrenheit, feetFromMetres, MM_PER_INCH } from './units.ts';

/** What decides how a kitchen reads figures. */
export interface Habits {
  /** BCP 47 locale for numbers and dates; a clock and a first day of the week of the kitchen's own go with it (`withHabits`). */
  locale: string;
  /** ISO 4217. */
  currency: string;
  /** IANA time zone. */
  zone: string;
  temperature: 'F' | 'C';
  altitude: 'ft' | 'm';
  /** In what lengths, volumes and weights are asked for: inches, quarts and pounds, or centimetres, litres and kilograms. */
  measures: 'US' | 'metric';
  /** On what is printed. */
  paper: PaperSize;
}

/** In which locale figures are written: a kitchen's, as a rule. */
export type Figures = Pick<Habits, 'locale'>;

/** For who asks for no sentence, or has no kitchen. */
export const PLAIN_FIGURES: Figures = { locale: 'en-US' };

/** The same with measures, for what is kept without a kitchen. */
export const PLAIN_MEASURES: Pick<Habits, 'locale' | 'measures'> = { ...PLAIN_FIGURES, measures: 'US' };

/** A share as a percentage, "12 %"; below a tenth with one decimal. */
export function shareText(share: number, figures: Figures): string {
  return `${numberText(share * 100, figures, share < 0.1 ? 1 : 0)} %`;
}

/** A number with the locale's marks; `places` fixes the decimals, else up to two. */
export function numberText(value: number, habits: Figures, places?: number): string {
  return numberFormat(habits.locale, {
    minimumFractionDigits: places ?? 0,
    maximumFractionDigits: places ?? 2,
  }).format(value);
}

/** A figure as it stands in a field to be typed over: the locale's decimal mark, no grouping, up to so many places. */
export function fieldText(value: number, locale: string, places = 4): string {
  return numberFormat(locale, { useGrouping: false, maximumFractionDigits: places }).format(value);
}

/** Money from a decimal, rounded half-even to the currency's places here and nowhere before. */
export function moneyText(amount: Decimal | string, habits: Pick<Habits, 'locale' | 'currency'>): string {
  const format = numberFormat(habits.locale, { style: 'currency', currency: habits.currency });
  const places = format.resolvedOptions().maximumFractionDigits ?? 2;
  // NumberFormat takes a decimal string without passing through a double.
  return format.format(new Decimal(amount).toFixed(places) as unknown as number);
}

/** A temperature in the kitchen's scale with one decimal, "215.7 °F". */
export function temperatureText(temp_C: number, habits: Pick<Habits, 'locale' | 'temperature'>): string {
  const shown = habits.temperature === 'F' ? fahrenheit(temp_C) : temp_C;
  return `${numberText(shown, habits, 1)} °${habits.temperature}`;
}

/** About how warm, to the nearest ten degrees of the kitchen's scale, "180 °F": for what is judged by hand. */
export function warmthText(temp_C: number, habits: Pick<Habits, 'locale' | 'temperature'>): string {
  const shown = habits.temperature === 'F' ? fahrenheit(temp_C) : temp_C;
  return `${numberText(Math.round(shown / 10) * 10, habits, 0)} °${habits.temperature}`;
}

/** A small depth or height in the kitchen's measures, "1/4 in", "6 mm": a headspace, the water over the lids. */
export function depthText(depth_mm: number, habits: Pick<Habits, 'locale' | 'measures'>): string {
  return habits.measures === 'US'
    ? `${mixedText(depth_mm / MM_PER_INCH, true)} in`
    : `${numberText(depth_mm, habits, 0)} mm`;
}

/** An altitude in the kitchen's unit, "2,350 ft". */
export function altitudeText(altitude_m: number, habits: Pick<Habits, 'locale' | 'altitude'>): string {
  const shown = habits.altitude === 'ft' ? feetFromMetres(altitude_m) : altitude_m;
  return `${numberText(Math.round(shown), habits, 0)} ${habits.altitude}`;
}

/** Grams with grouping, kilograms from 10 kg up: "2,960 g", "12.4 kg"; below 10 g one decimal. */
export function massText(mass_g: number, habits: Figures): string {
  if (mass_g >= 10_000) return `${numberText(mass_g / 1000, habits, 2)} kg`;
  return `${numberText(mass_g, habits, mass_g < 10 ? 1 : 0)} g`;
}

/** A day in words short enough for a table, "Nov 24, 2026". */
export function dayText(day: Day, habits: Figures): string {
  return timeFormat(habits.locale, {
    timeZone: 'UTC',
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  }).format(Date.parse(`${day}T00:00:00Z`));
}

/**
 * Clock time of an instant in the kitchen's zone, the way its locale reads it: "2:15 PM", "14:15".
 *
 * The space before PM does not break, and is one that every font of ours has.
 */
export function clockText(
  instant_ms: number,
  habits: Pick<Habits, 'locale' | 'zone'>,
  seconds = false,
): string {
  const fields: Intl.DateTimeFormatOptions = {
    timeZone: habits.zone,
    hour: 'numeric',
    minute: '2-digit',
    ...(seconds ? { second: '2-digit' } : {}),
  };
  const format = timeFormat(habits.locale, fields);
  // Where the day has 24 hours the hour keeps its nought, so that times stand in line below one another.
  const twelve = format.resolvedOptions().hour12;
  return (twelve ? format : timeFormat(habits.locale, { ...fields, hour: '2-digit' }))
    .format(instant_ms)
    .replaceAll(/\s/g, '\u00a0');
}

/** Day and clock time of an instant, "Nov 24, 2:15 PM". */
export function instantText(
  instant_ms: number,
  habits: Pick<Habits, 'locale' | 'zone'>,
  seconds = false,
): string {
  const day = timeFormat(habits.locale, {
    timeZone: habits.zone,
    day: 'numeric',
    month: 'short',
  }).format(instant_ms);
  return `${day}, ${clockText(instant_ms, habits, seconds)}`;
}

/** A countdown: "06:42" under an hour, "1 h 10" under two days, "3 d 4 h" beyond. Negative counts as zero. */
export function countdownText(left_s: number): string {
  const s = Math.max(0, Math.ceil(left_s));
  if (s < 3600) return `${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}`;
  const h = Math.floor(s / 3600);
  if (h < 48) return `${h} h ${String(Math.floor((s % 3600) / 60)).padStart(2, '0')}`;
  return `${Math.floor(h / 24)} d ${h % 24} h`;
}

/** Minutes and seconds in words: "14 min 58 s". */
export function durationText(time_s: number): string {
  const s = Math.max(0, Math.floor(time_s));
  const min = Math.floor(s / 60);
  return s % 60 === 0 ? `${min} min` : `${min} min ${s % 60} s`;
}

/** Jar numbers as people say them: "1-4, 7, 9-12". */
export function rangesText(numbers: readonly number[]): string {
  const sorted = [...new Set(numbers)].sort((a, b) => a - b);
  const out: string[] = [];
  for (let i = 0; i < sorted.length;) {
    let j = i;
    while (j + 1 < sorted.length && sorted[j + 1] === (sorted[j] as number) + 1) j++;
    out.push(j - i >= 2 ? `${sorted[i]}-${sorted[j]}` : sorted.slice(i, j + 1).join(', '));
    i = j + 1;
  }
  return out.join(', ');
}

/**
 * Reads jar numbers as typed, "1-4, 7".
 *
 * @returns sorted numbers without repeats, or null when the text is something else or a range runs backwards or past 2,000
 */
export function readRanges(text: string): number[] | null {
  const out = new Set<number>();
  for (const part of text.split(/[,;\s]+/).filter(Boolean)) {
    const match = /^(\d{1,4})(?:-(\d{1,4}))?$/.exec(part);
    if (!match) return null;
    const from = Number(match[1]);
    const to = Number(match[2] ?? match[1]);
    if (from < 1 || to < from || to > 2000) return null;
    for (let n = from; n <= to; n++) out.add(n);
  }
  return [...out].sort((a, b) => a - b);
}
