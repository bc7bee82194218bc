import { Fraction } from './exact.ts';
import { type Reading, unreadable } from './fault.ts';
import { readRational } from './read.ts';
import { UNITS, type UnitId, unitNamed } from './units.ts';

/** An amount as a recipe holds it: what was typed, its unit, and the exact rational ("5/2"). */
export interface Amount {
  text: string;
  unit: UnitId;
  /** Exact value as `n` or `n/d`. */
  value: string;
}

/**
 * Reads one amount with its unit, "2 1/2 c", "1½ lb", "250 g", "8" (a count).
 *
 * @param text  as typed
 * @param locale  the kitchen's
 * @returns the amount above zero, or a fault naming the part that could not be read
 */
export function readAmount(text: string, locale: string): Reading<Amount> {
  const match = /^\s*([-+]?[\d.,/\s¼½¾⅓⅔⅛⅜⅝⅞]+)\s*([A-Za-z. ]*)$/.exec(text);
  if (!match) {
    return unreadable(
      'no-amount',
      `"${text}" has no amount at its start.`,
      'Scaling and weighing need a figure and a unit.',
      'Type it like 2 1/2 c, 250 g or 8.',
    );
  }
  const value = readRational(match[1] as string, locale);
  if (!value.ok) return value;
  if (value.value.compare(0) <= 0) {
    return unreadable(
      'not-positive',
      'An amount must be above zero.',
      'A line with nothing in it cannot be scaled.',
      'Type the amount, or remove the line.',
    );
  }
  const word = (match[2] as string).trim();
  const unit = word === '' ? UNITS.each : unitNamed(word);
  if (!unit) {
    return unreadable(
      'unknown-unit',
      `"${word}" is not a unit we know.`,
      'Without a known unit the amount cannot be weighed or scaled.',
      'Use g, kg, oz, lb, tsp, Tbsp, c, pt, qt, mL, L or a count.',
    );
  }
  return { ok: true, value: { text: text.trim(), unit: unit.id, value: value.value.toFraction() } };
}

/** What one amount of an ingredient weighs needs one of these, unless it is already a weight. */
export interface Weighing {
  /** Grams in a millilitre, as cut or packed in this line. */
  density_gPerMl?: number | null;
  /** Grams of one piece. */
  each_g?: number | null;
}

/**
 * The weight of an amount in grams.
 *
 * @param factor  scale, 1 for the amount as written
 * @throws RangeError when a volume has no density or a count no weight of one
 */
export function amount_g(amount: Amount, weighing: Weighing, factor: Fraction = new Fraction(1)): number {
  const unit = UNITS[amount.unit];
  const base = new Fraction(amount.value).mul(unit.factor).mul(factor).valueOf();
  if (unit.dimension === 'mass') return base;
  if (unit.dimension === 'volume') {
    if (!weighing.density_gPerMl) throw new RangeError('amount_g: a volume needs a density');
    return base * weighing.density_gPerMl;
  }
  if (!weighing.each_g) throw new RangeError('amount_g: a count needs the weight of one');
  return base * weighing.each_g;
}

/**
 * "12 1/2" from 12.5: whole, then the nearest of eighths or thirds (with `eighths` false, quarters or thirds). Plain
 * figures: whoever shows it sets the fraction by the face's `frac` feature.
 */
export function mixedText(value: number, eighths: boolean): string {
  const whole = Math.floor(value + 1e-9);
  const rest = value - whole;
  const step = eighths ? 8 : 4;
  const byStep = new Fraction(Math.round(rest * step), step);
  const byThird = new Fraction(Math.round(rest * 3), 3);
  const useThird = Math.abs(byThird.valueOf() - rest) < Math.abs(byStep.valueOf() - rest) - 1e-9;
  const near = (useThird ? byThird : byStep).add(whole);
  const units = near.floor();
  const part = near.sub(units);
  if (part.compare(0) === 0) return units.toFraction();
  return units.compare(0) === 0 ? part.toFraction() : `${units.toFraction()} ${part.toFraction()}`;
}

/**
 * A volume in the measures a kitchen has: cups from a quarter cup up, tablespoons, teaspoons down to an eighth.
 *
 * @param volume_mL  exact volume
 * @returns text such as "2 1/2 c" and the rounding error as a share of the volume (signed)
 */
export function kitchenVolume(volume_mL: number): { text: string; error: number } {
  const cup = UNITS.cup.factor.valueOf();
  const tbsp = UNITS.tbsp.factor.valueOf();
  const tsp = UNITS.tsp.factor.valueOf();
  const choose = (size_mL: number, symbol: string, eighths: boolean) => {
    const text = mixedText(volume_mL / size_mL, eighths);
    return { text: `${text} ${symbol}`, shown_mL: mixedValue(text) * size_mL };
  };
  const best =
    volume_mL >= cup / 4 - 1e-6
      ? choose(cup, 'c', false)
      : volume_mL >= tbsp - 1e-6
        ? choose(tbsp, 'Tbsp', false)
        : choose(tsp, 'tsp', true);
  return { text: best.text, error: volume_mL === 0 ? 0 : (best.shown_mL - volume_mL) / volume_mL };
}

function mixedValue(text: string): number {
  return text
    .split(' ')
    .reduce((sum, part) => sum.add(part), new Fraction(0))
    .valueOf();
}

/** "7 lb 3 oz" from grams: pounds and whole ounces, ounces to a quarter below one pound. */
export function kitchenWeight(mass_g: number): string {
  const oz = UNITS.oz.factor.valueOf();
  const total_oz = mass_g / oz;
  if (total_oz < 16) return `${mixedText(Math.round(total_oz * 4) / 4, false)} oz`;
  const rounded = Math.round(total_oz);
  const lb = Math.floor(rounded / 16);
  return rounded % 16 === 0 ? `${lb} lb` : `${lb} lb ${rounded % 16} oz`;
}
