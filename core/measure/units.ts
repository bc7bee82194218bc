import { Fraction } from './exact.ts';

/**
 * Exact unit factors. Mass in grams and volume in millilitres, as rationals, so that scaling loses nothing.
 * Source: NIST Handbook 44, appendix C (avoirdupois pound 453.59237 g; US gallon 231 cubic inches, inch 2.54 cm);
 * recalled from memory and checked against the GNU units database in units.test.ts.
 */
export type Dimension = 'mass' | 'volume' | 'count';

export interface Unit {
  id: UnitId;
  dimension: Dimension;
  /** Grams for mass, millilitres for volume, 1 for count. */
  factor: Fraction;
  /** As people write it, singular first. */
  names: string[];
  /** How we print it. */
  symbol: string;
}

const ML_PER_GALLON = new Fraction('3785.411784');
const GRAM_PER_POUND = new Fraction('453.59237');

export type UnitId =
  | 'g'
  | 'kg'
  | 'oz'
  | 'lb'
  | 'mL'
  | 'L'
  | 'tsp'
  | 'tbsp'
  | 'floz'
  | 'cup'
  | 'pint'
  | 'quart'
  | 'gallon'
  | 'each';

const unit = (id: UnitId, dimension: Dimension, factor: Fraction, symbol: string, names: string[]): Unit => ({
  id,
  dimension,
  factor,
  symbol,
  names,
});

export const UNITS: Record<UnitId, Unit> = {
  g: unit('g', 'mass', new Fraction(1), 'g', ['g', 'gram', 'grams', 'gm']),
  kg: unit('kg', 'mass', new Fraction(1000), 'kg', ['kg', 'kilogram', 'kilograms', 'kilo', 'kilos']),
  oz: unit('oz', 'mass', GRAM_PER_POUND.div(16), 'oz', ['oz', 'ounce', 'ounces']),
  lb: unit('lb', 'mass', GRAM_PER_POUND, 'lb', ['lb', 'lbs', 'pound', 'pounds']),
  mL: unit('mL', 'volume', new Fraction(1), 'mL', [
    'ml',
    'millilitre',
    'millilitres',
    'milliliter',
    'milliliters',
  ]),
  L: unit('L', 'volume', new Fraction(1000), 'L', ['l', 'litre', 'litres', 'liter', 'liters']),
  tsp: unit('tsp', 'volume', ML_PER_GALLON.div(768), 'tsp', ['tsp', 'teaspoon', 'teaspoons', 't']),
  tbsp: unit('tbsp', 'volume', ML_PER_GALLON.div(256), 'Tbsp', [
    'tbsp',
    'tbs',
    'tablespoon',
    'tablespoons',
    'T',
  ]),
  floz: unit('floz', 'volume', ML_PER_GALLON.div(128), 'fl oz', [
    'fl oz',
    'floz',
    'fluid ounce',
    'fluid ounces',
  ]),
  cup: unit('cup', 'volume', ML_PER_GALLON.div(16), 'c', ['c', 'cup', 'cups']),
  pint: unit('pint', 'volume', ML_PER_GALLON.div(8), 'pt', ['pt', 'pint', 'pints']),
  quart: unit('quart', 'volume', ML_PER_GALLON.div(4), 'qt', ['qt', 'quart', 'quarts']),
  gallon: unit('gallon', 'volume', ML_PER_GALLON, 'gal', ['gal', 'gallon', 'gallons']),
  each: unit('each', 'count', new Fraction(1), '', [
    'each',
    'piece',
    'pieces',
    'whole',
    'clove',
    'cloves',
    'head',
    'heads',
    'leaf',
    'leaves',
    'sprig',
    'sprigs',
    'medium',
  ]),
};

/** Millilitres in one US liquid pint, the reference jar for per-jar doses. */
export const ML_PER_PINT = UNITS.pint.factor;

/**
 * Finds a unit by any of its written names. `T` and `t` are told apart (tablespoon, teaspoon); all else ignores case
 * and a trailing full stop.
 *
 * @returns the unit, or undefined when the word is no unit we know
 */
export function unitNamed(word: string): Unit | undefined {
  const bare = word.trim().replace(/\.$/, '').replace(/\s+/g, ' ');
  if (bare === 'T') return UNITS.tbsp;
  if (bare === 't') return UNITS.tsp;
  const lower = bare.toLowerCase();
  return Object.values(UNITS).find(u => u.names.includes(lower));
}

export const MM_PER_INCH = 25.4;
export const M_PER_FOOT = 0.3048;

/** Feet from metres, to the millionth, so that 304.8 m is 1,000 ft and not a hair more. */
export function feetFromMetres(altitude_m: number): number {
  return Math.round((altitude_m / M_PER_FOOT) * 1e6) / 1e6;
}

/** Metres from feet. */
export function metresFromFeet(altitude_ft: number): number {
  return Math.round(altitude_ft * M_PER_FOOT * 1e6) / 1e6;
}

/** Degrees Fahrenheit from Celsius (a temperature, not a difference). */
export function fahrenheit(temp_C: number): number {
  return (temp_C * 9) / 5 + 32;
}

/** Degrees Celsius from Fahrenheit (a temperature, not a difference). */
export function celsius(temp_F: number): number {
  return ((temp_F - 32) * 5) / 9;
}
