import { byName } from './names.ts';
import { Decimal, Fraction } from './exact.ts';
import type { Reading } from './fault.ts';
import { numberFormat } from './intl.ts';
import { misread, sayOfFigures } from './words.ts';

/** What a figure is called and between which bounds it is taken; both go into the words when it is not. */
export interface NumberLimits {
  /** What is being asked for, to begin the sentence: "The pH". */
  name: string;
  /** Smallest value taken. */
  min?: number;
  /** Largest value taken. */
  max?: number;
  /** The smallest value itself is refused. */
  above?: boolean;
  whole?: boolean;
  /** Shown after figures in the message, with its space: " g". */
  unit?: string;
  /** Why the limits are what they are. */
  why?: string;
}

const VULGAR = byName<string>({
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
});

/** Fraction characters and the fraction slash spelled out: "1½" becomes "1 1/2". */
export function spellFractions(text: string): string {
  return text
    .replace(/\s*([¼½¾⅓⅔⅛⅜⅝⅞])/g, (_, c: string) => ` ${VULGAR[c]}`)
    .replaceAll('\u2044', '/')
    .trimStart();
}

const known = new Map<string, { decimal: string; group: string }>();

/** The decimal and grouping marks of a locale, as Intl writes them; asked of it once. */
export function marksOf(locale: string): { decimal: string; group: string } {
  const found = known.get(locale);
  if (found) return found;
  const parts = new Intl.NumberFormat(locale, { useGrouping: true }).formatToParts(1234567.8);
  const marks = {
    decimal: parts.find(p => p.type === 'decimal')?.value ?? '.',
    group: parts.find(p => p.type === 'group')?.value ?? ',',
  };
  known.set(locale, marks);
  return marks;
}

const shapes = new Map<string, { grouped: RegExp; plain: RegExp }>();

/** How numbers look with these marks: with groups of thousands, and without. */
function shapesOf({ decimal, group }: { decimal: string; group: string }): {
  grouped: RegExp;
  plain: RegExp;
} {
  const key = decimal + group;
  const found = shapes.get(key);
  if (found) return found;
  const made = {
    grouped: new RegExp(`^[-+]?\\d{1,3}(\\${group}\\d{3})+(\\${decimal}\\d+)?$`),
    plain: new RegExp(`^[-+]?(\\d+(\\${decimal}\\d*)?|\\${decimal}\\d+)$`),
  };
  shapes.set(key, made);
  return made;
}

/**
 * Reads a number as people type it in this locale: "2.5", "1,250", "2 1/2", "1½", "3/4".
 * Something that two locales would read differently ("1,5" where the comma groups) is asked about, never guessed.
 *
 * @param text  what was typed
 * @param locale  BCP 47, the kitchen's
 * @returns an exact rational
 */
export function readRational(text: string, locale: string): Reading<Fraction> {
  const trimmed = text.trim().replace(/[\u00a0\u202f]/g, ' ');
  if (trimmed === '') return misread('missing', locale);
  if (/[$€£¥]/.test(trimmed)) return misread('currency-sign', locale);
  const spelled = spellFractions(trimmed).trim();
  const mixed = /^(?:(\d+)\s+)?(\d+)\/(\d+)$/.exec(spelled);
  if (mixed) {
    const [, whole, top, bottom] = mixed as unknown as [string, string | undefined, string, string];
    if (Number(bottom) === 0) return misread('divided-by-nothing', locale, { text }, 'not-a-number');
    return { ok: true, value: new Fraction(`${top}/${bottom}`).add(whole ?? 0) };
  }
  const { decimal, group } = marksOf(locale);
  const { grouped, plain } = shapesOf({ decimal, group });
  if (grouped.test(spelled) || plain.test(spelled)) {
    const canonical = spelled.replaceAll(group, '').replace(decimal, '.').replace(/\.$/, '');
    return { ok: true, value: new Fraction(canonical) };
  }
  return /^[-+]?\d+[.,]\d+$/.test(spelled)
    ? misread('ambiguous-number', locale, { text, decimal, group })
    : misread('not-a-number', locale, { text, sample: 2.5 });
}

/**
 * Reads a number within limits, as a double (for physics).
 *
 * @returns the value, or a fault that says what, why and what next
 * @example
 * readNumber('2,5', 'de-DE', { name: 'The weight' }).value; // 2.5
 * readNumber('12', 'en-US', { name: 'The pH', max: 14 }).ok; // true
 * readNumber('15', 'en-US', { name: 'The pH', max: 14 }).fault.what; // 'The pH must be at most 14.'
 */
export function readNumber(text: string, locale: string, limits: NumberLimits): Reading<number> {
  const rational = readRational(text, locale);
  if (!rational.ok) return rational;
  return within(rational.value.valueOf(), locale, limits);
}

/**
 * Reads a decimal within limits, exactly (for stock and money).
 *
 * @returns the decimal as plain text, as it crosses the wire
 */
export function readDecimal(text: string, locale: string, limits: NumberLimits, places = 6): Reading<string> {
  const rational = readRational(text, locale);
  if (!rational.ok) return rational;
  const { n, d, s } = rational.value;
  const value = new Decimal(String(n)).times(Number(s)).div(String(d)).toDecimalPlaces(places);
  const checked = within(value.toNumber(), locale, limits);
  return checked.ok ? { ok: true, value: value.toFixed() } : checked;
}

/** Checks a number against limits; the message names the limit that was passed, as this locale writes it. */
function within(value: number, locale: string, limits: NumberLimits): Reading<number> {
  const { name, min, max, above, whole, unit = '' } = limits;
  const shown = (limit: number) =>
    `${numberFormat(locale, { maximumFractionDigits: 9 }).format(limit)}${unit}`;
  const values = { name, why: limits.why ?? sayOfFigures('limits.why') };
  if (!Number.isFinite(value)) return misread('not-finite', locale, values, 'not-a-number');
  if (whole && !Number.isInteger(value)) return misread('not-whole', locale, values);
  if (min !== undefined && (above ? value <= min : value < min))
    return misread('too-small', locale, { ...values, itself: above ? 'no' : 'yes', limit: shown(min) });
  if (max !== undefined && value > max) return misread('too-large', locale, { ...values, limit: shown(max) });
  return { ok: true, value };
}
