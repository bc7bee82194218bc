import { Fraction } from './exact.ts';
import { UNITS } from './units.ts';

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

/** Above this share a rounding is split over two measures. */
const FINE = 0.02;
/** What no measure of a kitchen holds within this share is written in a finer unit: never "0 oz". */
export const HELD = 0.05;
/** Within this share a small amount is written. */
const SMALL_WITHIN = 0.02;

/** A small amount as whole and fraction, "1 1/2", "1/10": the same in every locale, and read back by ours. */
function small(value: number): string {
  for (let parts = Math.max(1, Math.floor(0.5 / value)); ; parts++) {
    const n = Math.round(value * parts);
    if (n === 0 || Math.abs(n / parts / value - 1) > SMALL_WITHIN) continue;
    return new Fraction(n, parts).toFraction(true);
  }
}

/**
 * A volume in the measures a kitchen has: cups from a quarter cup up, tablespoons, teaspoons down to an eighth; two of
 * them where one alone would be more than 2 % off.
 *
 * @param volume_mL  exact volume
 * @returns text such as "2 1/2 c" or "1/2 c + 1 Tbsp" and the rounding error as a share of the volume (signed)
 */
export function kitchenVolume(volume_mL: number): { text: string; error: number } {
  const single = inOneMeasure(volume_mL);
  const error = (shown_mL: number) => (volume_mL === 0 ? 0 : (shown_mL - volume_mL) / volume_mL);
  const one = { text: single.text, error: error(single.shown_mL) };
  if (Math.abs(one.error) <= FINE) return one;
  // Whole quarter cups, or whole tablespoons, and what is left in the next smaller measure.
  const step_mL = volume_mL >= CUP_ML / 4 ? CUP_ML / 4 : volume_mL >= TBSP_ML ? TBSP_ML : 0;
  if (step_mL === 0) return Math.abs(one.error) > HELD ? inMillilitres(volume_mL) : one;
  const base_mL = Math.floor(volume_mL / step_mL + 1e-9) * step_mL;
  const base = inOneMeasure(base_mL);
  const rest = inOneMeasure(volume_mL - base_mL);
  const two = { text: `${base.text} + ${rest.text}`, error: error(base.shown_mL + rest.shown_mL) };
  return rest.shown_mL > 0 && Math.abs(two.error) < Math.abs(one.error) ? two : one;
}

function inMillilitres(volume_mL: number): { text: string; error: number } {
  const text = small(volume_mL);
  return { text: `${text} mL`, error: mixedValue(text) / volume_mL - 1 };
}

const CUP_ML = UNITS.cup.factor.valueOf();
const TBSP_ML = UNITS.tbsp.factor.valueOf();
const TSP_ML = UNITS.tsp.factor.valueOf();

function inOneMeasure(volume_mL: number): { text: string; shown_mL: number } {
  const choose = (size_mL: number, symbol: string, eighths: boolean) => {
    const text = mixedText(volume_mL / size_mL, eighths);
    return { text: `${text} ${symbol}`, shown_mL: mixedValue(text) * size_mL };
  };
  if (volume_mL >= CUP_ML / 4 - 1e-6) return choose(CUP_ML, 'c', false);
  return volume_mL >= TBSP_ML - 1e-6 ? choose(TBSP_ML, 'Tbsp', false) : choose(TSP_ML, 'tsp', true);
}

function mixedValue(text: string): number {
  return text
    .split(' ')
    .reduce((sum, part) => sum.add(part), new Fraction(0))
    .valueOf();
}

/** "7 lb 3 oz" from grams: pounds and whole ounces, ounces to a quarter below one pound; what is too little for that in grams. */
export function kitchenWeight(mass_g: number): string {
  const oz = UNITS.oz.factor.valueOf();
  const total_oz = mass_g / oz;
  if (total_oz < 16) {
    const quarters = Math.round(total_oz * 4) / 4;
    return mass_g > 0 && Math.abs(quarters / total_oz - 1) > HELD
      ? `${small(mass_g)} g`
      : `${mixedText(quarters, false)} oz`;
  }
  const rounded = Math.round(total_oz);
  const lb = Math.floor(rounded / 16);
  return rounded % 16 === 0 ? `${lb} lb` : `${lb} lb ${rounded % 16} oz`;
}
