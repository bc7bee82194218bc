import { Fraction } from './exact.ts';

/**
 * Exact unit factors. Mass in grams and volume in millilitres, as rationals, so that scaling loses nothing.
 * Source: NIST Handbook 44, appendix C (avoirdupois pound 453.59237 g; US gallon 231 cubic inches, inch 2.54 cm);
 * recalled from memory and checked against the GNU units database in units.test.ts.
 */
/** `produce` is a bushel or a part of one: a legal measure by weight, which depends on the commodity. */
export type Dimension = 'mass' | 'volume' | 'count' | 'produce';

/** A unit with its exact factor and the words it is read by. */
export interface Unit {
  id: UnitId;
  dimension: Dimension;
  /** Grams for mass, millilitres for volume, 1 for count, bushels for produce. */
  factor: Fraction;
  /** As people write it, singular first. */
  names: string[];
  /** How we print it. */
  symbol: string;
}

const ML_PER_GALLON = new Fraction('3785.411784');
const GRAM_PER_POUND = new Fraction('453.59237');
/** The US dry bushel is 2,150.42 cubic inches; its pint is a 64th. */
const ML_PER_DRY_PINT = new Fraction('2150.42').mul('16.387064').div(64);
const ML_PER_IMPERIAL_GALLON = new Fraction('4546.09');

/** The name of a unit. */
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
  | 'dry pint'
  | 'dry quart'
  | 'cL'
  | 'dL'
  | 'metric cup'
  | 'metric tbsp'
  | 'metric tsp'
  | 'imperial floz'
  | 'imperial pint'
  | 'imperial quart'
  | 'imperial gallon'
  | 'dash'
  | 'pinch'
  | 'drop'
  | 'each'
  | 'small'
  | 'large'
  | 'clove'
  | 'head'
  | 'stalk'
  | 'sprig'
  | 'leaf'
  | 'stick'
  | 'bunch'
  | 'slice'
  | 'ear'
  | 'package'
  | 'bushel'
  | 'peck';

const unit = (id: UnitId, dimension: Dimension, factor: Fraction, symbol: string, names: string[]): Unit => ({
  id,
  dimension,
  factor,
  symbol,
  names,
});

const piece = (id: UnitId, symbol: string, names: string[]): Unit =>
  unit(id, 'count', new Fraction(1), symbol, names);

/**
 * Every unit. The dash, the pinch and the drop are common practice (an 8th, a 16th and a 96th of a teaspoon); metric
 * spoons and the metric cup are those sold in metric kitchens (5, 15 and 250 mL).
 */
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
  tsp: unit('tsp', 'volume', ML_PER_GALLON.div(768), 'tsp', ['tsp', 'tsps', 'teaspoon', 'teaspoons']),
  tbsp: unit('tbsp', 'volume', ML_PER_GALLON.div(256), 'Tbsp', [
    'tbsp',
    'tbs',
    'tbsps',
    'tablespoon',
    'tablespoons',
  ]),
  floz: unit('floz', 'volume', ML_PER_GALLON.div(128), 'fl oz', [
    'fl oz',
    'floz',
    'fluid ounce',
    'fluid ounces',
  ]),
  cup: unit('cup', 'volume', ML_PER_GALLON.div(16), 'c', ['c', 'cup', 'cups']),
  pint: unit('pint', 'volume', ML_PER_GALLON.div(8), 'pt', ['pt', 'pts', 'pint', 'pints']),
  quart: unit('quart', 'volume', ML_PER_GALLON.div(4), 'qt', ['qt', 'qts', 'quart', 'quarts']),
  gallon: unit('gallon', 'volume', ML_PER_GALLON, 'gal', ['gal', 'gals', 'gallon', 'gallons']),
  'dry pint': unit('dry pint', 'volume', ML_PER_DRY_PINT, 'dry pt', ['dry pt', 'dry pint', 'dry pints']),
  'dry quart': unit('dry quart', 'volume', ML_PER_DRY_PINT.mul(2), 'dry qt', [
    'dry qt',
    'dry quart',
    'dry quarts',
  ]),
  cL: unit('cL', 'volume', new Fraction(10), 'cL', [
    'cl',
    'centilitre',
    'centilitres',
    'centiliter',
    'centiliters',
  ]),
  dL: unit('dL', 'volume', new Fraction(100), 'dL', [
    'dl',
    'decilitre',
    'decilitres',
    'deciliter',
    'deciliters',
  ]),
  'metric cup': unit('metric cup', 'volume', new Fraction(250), 'metric c', [
    'metric c',
    'metric cup',
    'metric cups',
  ]),
  'metric tbsp': unit('metric tbsp', 'volume', new Fraction(15), 'metric Tbsp', [
    'metric tbsp',
    'metric tablespoon',
    'metric tablespoons',
  ]),
  'metric tsp': unit('metric tsp', 'volume', new Fraction(5), 'metric tsp', [
    'metric tsp',
    'metric teaspoon',
    'metric teaspoons',
  ]),
  'imperial floz': unit('imperial floz', 'volume', ML_PER_IMPERIAL_GALLON.div(160), 'imp fl oz', [
    'imp fl oz',
    'imperial fl oz',
    'imperial fluid ounce',
    'imperial fluid ounces',
  ]),
  'imperial pint': unit('imperial pint', 'volume', ML_PER_IMPERIAL_GALLON.div(8), 'imp pt', [
    'imp pt',
    'imperial pt',
    'imperial pint',
    'imperial pints',
  ]),
  'imperial quart': unit('imperial quart', 'volume', ML_PER_IMPERIAL_GALLON.div(4), 'imp qt', [
    'imp qt',
    'imperial qt',
    'imperial quart',
    'imperial quarts',
  ]),
  'imperial gallon': unit('imperial gallon', 'volume', ML_PER_IMPERIAL_GALLON, 'imp gal', [
    'imp gal',
    'imperial gal',
    'imperial gallon',
    'imperial gallons',
  ]),
  dash: unit('dash', 'volume', ML_PER_GALLON.div(768 * 8), 'dash', ['dash', 'dashes']),
  pinch: unit('pinch', 'volume', ML_PER_GALLON.div(768 * 16), 'pinch', ['pinch', 'pinches']),
  drop: unit('drop', 'volume', ML_PER_GALLON.div(768 * 96), 'drop', ['drop', 'drops']),
  each: piece('each', '', ['each', 'piece', 'pieces', 'whole', 'medium', 'med', 'ea']),
  small: piece('small', 'small', ['small', 'sm']),
  large: piece('large', 'large', ['large', 'lg', 'big']),
  clove: piece('clove', 'clove', ['clove', 'cloves']),
  head: piece('head', 'head', ['head', 'heads', 'bulb', 'bulbs']),
  stalk: piece('stalk', 'stalk', ['stalk', 'stalks', 'rib', 'ribs']),
  sprig: piece('sprig', 'sprig', ['sprig', 'sprigs']),
  leaf: piece('leaf', 'leaf', ['leaf', 'leaves']),
  stick: piece('stick', 'stick', ['stick', 'sticks']),
  bunch: piece('bunch', 'bunch', ['bunch', 'bunches']),
  slice: piece('slice', 'slice', ['slice', 'slices']),
  ear: piece('ear', 'ear', ['ear', 'ears']),
  package: piece('package', 'package', [
    'package',
    'packages',
    'pkg',
    'pkgs',
    'packet',
    'packets',
    'box',
    'boxes',
    'pouch',
    'pouches',
    'envelope',
    'envelopes',
    'bag',
    'bags',
    'can',
    'cans',
    'tin',
    'tins',
    'jar',
    'jars',
    'bottle',
    'bottles',
  ]),
  bushel: unit('bushel', 'produce', new Fraction(1), 'bu', ['bu', 'bushel', 'bushels']),
  peck: unit('peck', 'produce', new Fraction(1, 4), 'pk', ['pk', 'peck', 'pecks']),
};

const BY_NAME = new Map(
  Object.values(UNITS).flatMap(u => u.names.map(name => [name.toLowerCase(), u] as const)),
);

/** Millilitres in one US liquid pint, the reference jar for per-jar doses. */
export const ML_PER_PINT = UNITS.pint.factor;

/**
 * Finds a unit by any of its written names. `T` and `t` are told apart (tablespoon, teaspoon); all else ignores case
 * and full stops.
 *
 * @returns the unit, or undefined when the word is no unit we know
 */
export function unitNamed(word: string): Unit | undefined {
  const bare = word.replaceAll('.', '').trim().replace(/\s+/g, ' ');
  if (bare === 'T') return UNITS.tbsp;
  if (bare === 't') return UNITS.tsp;
  return BY_NAME.get(bare.toLowerCase());
}

/** Exact, by definition. */
export const MM_PER_INCH = 25.4;
/** Exact, by definition (international foot). */
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
