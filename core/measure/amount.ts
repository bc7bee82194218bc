import { byName } from './names.ts';
import { Fraction } from './exact.ts';
import type { Fault } from './fault.ts';
import { misread } from './words.ts';
import { readRational, spellFractions } from './read.ts';
import { UNITS, type Unit, type UnitId, unitNamed } from './units.ts';
import { HELD, mixedText } from './kitchen-measures.ts';

/** An amount as a recipe holds it: what was typed, its unit, and the exact rational ("5/2"), or two for a range. */
export interface Amount {
  text: string;
  unit: UnitId;
  /** Exact value as `n` or `n/d`; of a range its lower end. */
  value: string;
  /** Upper end of a range, else null. */
  upTo: string | null;
  /** Settled by tasting within the range, then weighed. */
  toTaste: boolean;
}

/** Two readings of one text, for the person to choose between. */
export interface AmountQuestion {
  what: string;
  choices: { label: string; amount: Amount }[];
}

/** An amount read, perhaps with a question; or why it could not be read. */
export type AmountReading =
  { ok: true; value: Amount; ask: AmountQuestion | null } | { ok: false; fault: Fault };

/** What is known of the ingredient, to notice a unit that means two things for it. */
export interface AmountHint {
  /** Poured: its ounces may be by weight or fluid. */
  liquid?: boolean;
  /** Sold by the dry pint, such as berries. */
  dryPint?: boolean;
}

const WORD_NUMBERS = byName<string>({
  a: '1',
  an: '1',
  one: '1',
  two: '2',
  three: '3',
  four: '4',
  five: '5',
  six: '6',
  seven: '7',
  eight: '8',
  nine: '9',
  ten: '10',
  twelve: '12',
  half: '1/2',
  quarter: '1/4',
  dozen: '12',
});
const WORD_NUMBER = new RegExp(
  `^(${Object.keys(WORD_NUMBERS).join('|')})\\b\\s*(?:of\\s+)?(?:an?\\b\\s*)?`,
  'i',
);
const LOOSE =
  /^(?:about|approximately|approx\.?|around|roughly|generous|scant|heaping|heaped|level|rounded|packed|lightly packed|firmly packed|full|good)\s+/i;
const NUMBERS = '\\d+\\s*[- ]\\s*\\d+/\\d+|\\d+/\\d+|\\d[\\d.,\u00a0\u202f]*\\d|\\d|[.,]\\d+';
const NUMBER = new RegExp(`^(?:${NUMBERS})`);
const RANGE = /^\s*(?:-|to\b|or\b)\s*/i;

interface Scanned<T> {
  value: T;
  rest: string;
}

/** One number at the start of the text; `null` when there is none. A mixed number may be joined by a hyphen, "1-1/2". */
function scanNumber(text: string, locale: string): Scanned<Fraction> | { fault: Fault } | null {
  const part = /^(?:an?|one)\s+(half|quarter|third)\b\s*(?:of\s+)?(?:an?\b\s*)?/i.exec(text);
  if (part) {
    const name = (part[1] as string).toLowerCase();
    return {
      value: new Fraction(name === 'third' ? '1/3' : (WORD_NUMBERS[name] as string)),
      rest: text.slice(part[0].length),
    };
  }
  const word = WORD_NUMBER.exec(text);
  if (word) {
    const value = new Fraction(WORD_NUMBERS[(word[1] as string).toLowerCase()] as string);
    const rest = text.slice(word[0].length);
    const dozen = /^dozen\b\s*/i.exec(rest);
    return dozen ? { value: value.mul(12), rest: rest.slice(dozen[0].length) } : { value, rest };
  }
  const match = NUMBER.exec(text)?.[0];
  if (!match) return null;
  const mixed = /^(\d+)\s*[- ]\s*(\d+\/\d+)$/.exec(match);
  const read = readRational(mixed ? `${mixed[1]} ${mixed[2]}` : match, locale);
  if (!read.ok) return { fault: read.fault };
  const rest = text.slice(match.length);
  const dozen = /^\s*dozen\b\s*/i.exec(rest);
  return dozen
    ? { value: read.value.mul(12), rest: rest.slice(dozen[0].length) }
    : { value: read.value, rest };
}

/** The longest unit name at the start of the text. */
function scanUnit(text: string): Scanned<Unit> | null {
  const words = /^\s*((?:[A-Za-z]+\.?)(?:\s+[A-Za-z]+\.?){0,2})/.exec(text);
  if (!words) return null;
  const parts = (words[1] as string).split(/(\s+)/);
  for (let n = parts.length; n > 0; n -= 2) {
    const name = parts.slice(0, n).join('');
    const found = unitNamed(name);
    if (found) return { value: found, rest: text.slice(text.indexOf(name) + name.length) };
  }
  return null;
}

interface Quantity {
  low: Fraction;
  high: Fraction | null;
  unit: Unit;
  /** Words that soften the figure, "scant"; they stay with the line. */
  loose: string;
}

/** A number or a range, with its unit. A bare number counts pieces. */
function scanQuantity(text: string, locale: string): Scanned<Quantity> | { fault: Fault } | null {
  let at = text.trimStart();
  let loose = '';
  const softened = () => {
    for (let match = LOOSE.exec(at); match; match = LOOSE.exec(at)) {
      loose = `${loose} ${match[0].trim()}`.trim();
      at = at.slice(match[0].length);
    }
  };
  softened();
  const first = scanNumber(at, locale);
  if (!first || 'fault' in first) return first;
  at = first.rest;
  let high: Fraction | null = null;
  const dash = RANGE.exec(at);
  const second = dash ? scanNumber(at.slice(dash[0].length), locale) : null;
  if (second && 'fault' in second) return second;
  if (dash && second) {
    if (second.value.compare(first.value) <= 0) return misread('range-backwards', locale);
    high = second.value;
    at = second.rest;
  }
  // "1 (1.75 oz) box" and "1 15-ounce can": so many of a stated size.
  const sized = /^\s*(?:\(\s*([^()]+?)\s*\)|(\d[\d.,/]*[\s-][A-Za-z]+\.?))\s*/.exec(at);
  if (sized && !high) {
    const inner = scanQuantity(
      (sized[1] ?? sized[2] ?? '').replace(/(\d)-([A-Za-z])/, '$1 $2').replace(/^(?:each|about)\s+/i, ''),
      locale,
    );
    const container = scanUnit(at.slice(sized[0].length));
    if (inner && !('fault' in inner) && inner.rest.trim() === '' && container?.value.id === 'package') {
      return {
        value: { low: first.value.mul(inner.value.low), high: null, unit: inner.value.unit, loose },
        rest: container.rest,
      };
    }
  }
  at = at.replace(/^-(?=[A-Za-z])/, ' ').trimStart();
  softened();
  const unit = scanUnit(at);
  const size = unit && ['small', 'large'].includes(unit.value.id) ? scanUnit(unit.rest) : null;
  // "2 large cloves": the piece is the unit, its size a word that stays with the line.
  if (unit && size && size.value.dimension === 'count' && size.value.id !== 'package')
    return {
      value: { low: first.value, high, unit: size.value, loose: `${loose} ${unit.value.id}`.trim() },
      rest: size.rest,
    };
  return {
    value: { low: first.value, high, unit: unit?.value ?? UNITS.each, loose },
    rest: unit ? unit.rest : at,
  };
}

const TO_TASTE = /,?\s*\(?\bto taste\b\)?/i;
const JOINED = /^\s*(?:\+|&|,?\s*plus\b|,?\s*and\b|,)?\s*/i;

/** Another part of the same amount at the start of the text, in its unit; null when there is none. */
function nextPart(text: string, unit: Unit, locale: string): { low: Fraction; rest: string } | null {
  const joint = JOINED.exec(text)?.[0] ?? '';
  const next = scanQuantity(text.slice(joint.length), locale);
  if (!next || 'fault' in next || next.value.unit.dimension !== unit.dimension || next.value.high)
    return null;
  return { low: next.value.low.mul(next.value.unit.factor).div(unit.factor), rest: next.rest };
}

/**
 * Reads the amount at the start of a line and leaves the rest: "2 1/2 c sugar", "5 lb 4 oz plums", "half a bushel".
 *
 * @param text  as typed or pasted
 * @param locale  the kitchen's
 * @param hint  what is known of the ingredient
 * @returns the amount and the text after it, with words such as "scant" in `loose`; a fault when a figure is there that
 *   cannot be read; null when there is none
 */
export function scanAmount(
  text: string,
  locale: string,
  hint: AmountHint = {},
): { value: Amount; ask: AmountQuestion | null; rest: string; loose: string } | { fault: Fault } | null {
  const plain = spellFractions(text)
    .replaceAll(/[\u2010-\u2015\u2212]/g, '-')
    // "1 and 1/2 cups" is one figure, "3# plums" pounds.
    .replaceAll(/(\d)\s+(?:and|&)\s+(\d+\/\d+)/gi, '$1 $2')
    .replaceAll(/(\d)\s*#(?=\s|$)/g, '$1 lb');
  const toTaste = TO_TASTE.test(plain);
  const whole = plain.replace(TO_TASTE, '').trim();
  const first = scanQuantity(whole, locale);
  if (!first || 'fault' in first) return first;
  const { unit, loose, high } = first.value;
  let { low } = first.value;
  let { rest } = first;
  // "5 lb 4 oz", "3 qt + 1 pt": parts of one amount, in a unit of the same kind.
  const joins = high === null && (unit.dimension === 'mass' || unit.dimension === 'volume');
  for (let next = joins ? nextPart(rest, unit, locale) : null; next; next = nextPart(rest, unit, locale)) {
    low = low.add(next.low);
    rest = next.rest;
  }
  if (low.compare(0) <= 0) return misread('not-positive', locale);
  const read = whole.slice(0, whole.length - rest.length).trim();
  const value: Amount = {
    text: toTaste ? `${read}, to taste` : read,
    unit: unit.id,
    value: low.toFraction(),
    upTo: high?.toFraction() ?? null,
    toTaste,
  };
  return { value, ask: questionOf(value, hint), rest: rest.trim(), loose };
}

function questionOf(amount: Amount, hint: AmountHint): AmountQuestion | null {
  const as = (unit: UnitId, label: string) => ({ label, amount: { ...amount, unit } });
  if (hint.liquid && amount.unit === 'oz')
    return {
      what: 'Ounces of a liquid may be by weight or fluid.',
      choices: [as('floz', 'fluid ounces'), as('oz', 'ounces by weight')],
    };
  if (hint.dryPint && amount.unit === 'pint')
    return {
      what: 'A pint of this is sold dry and measured liquid; the dry pint is a sixth larger.',
      choices: [as('dry pint', 'dry pints, as sold'), as('pint', 'liquid pints, as measured')],
    };
  if (hint.dryPint && amount.unit === 'quart')
    return {
      what: 'A quart of this is sold dry and measured liquid; the dry quart is a sixth larger.',
      choices: [as('dry quart', 'dry quarts, as sold'), as('quart', 'liquid quarts, as measured')],
    };
  return null;
}

/**
 * Reads one amount with its unit and nothing after it: "2 1/2 c", "1½ lb", "3 qt + 1 pt", "6-7 cups", "250 g", "8".
 *
 * @param text  as typed
 * @param locale  the kitchen's
 * @param hint  what is known of the ingredient
 * @returns the amount above zero with its question if it can mean two things, or a fault naming what could not be read
 * @example
 * readAmount('1 1/2 c', 'en-US').value.value; // '3/2'
 * readAmount('12 oz', 'en-US', { liquid: true }).ask.choices.length; // 2
 */
export function readAmount(text: string, locale: string, hint: AmountHint = {}): AmountReading {
  if (/^\s*to taste\s*$/i.test(text)) return misread('to-taste-bare', locale);
  if (/^\s*-\s*\d/.test(text)) return misread('not-positive', locale);
  const scanned = scanAmount(text, locale, hint);
  if (!scanned) return misread('no-amount', locale, { text });
  if ('fault' in scanned) return { ok: false, fault: scanned.fault };
  if (scanned.rest !== '') {
    return misread('unknown-unit', locale, { text: scanned.rest });
  }
  return { ok: true, value: { ...scanned.value, text: text.trim() }, ask: scanned.ask };
}

/** The exact middle of an amount: itself, or half-way through its range. What planning reckons with. */
export function amountMiddle(amount: Amount): Fraction {
  const low = new Fraction(amount.value);
  return amount.upTo === null ? low : low.add(amount.upTo).div(2);
}

/** An amount in its own unit as it would be typed, "2 1/2 c", "3 lb"; read back it gives the same value to an eighth. */
export function amountText(value: Fraction, unit: UnitId): string {
  const near = mixedText(value.valueOf(), true);
  const shown = near.split(' ').reduce((sum, part) => sum.add(part), new Fraction(0));
  const error = shown.sub(value).div(value.equals(0) ? 1 : value);
  // A sixteenth is no eighth, and no nothing.
  const figures = error.abs().compare(HELD) > 0 ? value.toFraction(true) : near;
  return `${figures} ${UNITS[unit].symbol}`.trim();
}

/** What one amount of an ingredient weighs needs one of these, unless it is already a weight. */
export interface Weighing {
  /** Grams in a millilitre, as cut or packed in this line. */
  density_gPerMl?: number | null;
  /** Grams of one piece, as the amount counts them. */
  each_g?: number | null;
  /** Grams of a bushel of this commodity. */
  bushel_g?: number | null;
}

/**
 * The weight of an amount in grams; of a range its middle.
 *
 * @param factor  scale, 1 for the amount as written
 * @throws RangeError when a volume has no density, a count no weight of one, or a bushel no weight
 */
export function amount_g(amount: Amount, weighing: Weighing, factor: Fraction = new Fraction(1)): number {
  const unit = UNITS[amount.unit];
  const base = amountMiddle(amount).mul(unit.factor).mul(factor).valueOf();
  if (unit.dimension === 'mass') return base;
  if (unit.dimension === 'volume') {
    if (!weighing.density_gPerMl) throw new RangeError('amount_g: a volume needs a density');
    return base * weighing.density_gPerMl;
  }
  if (unit.dimension === 'produce') {
    if (!weighing.bushel_g) throw new RangeError('amount_g: a bushel needs its weight for this commodity');
    return base * weighing.bushel_g;
  }
  if (!weighing.each_g) throw new RangeError('amount_g: a count needs the weight of one');
  return base * weighing.each_g;
}
