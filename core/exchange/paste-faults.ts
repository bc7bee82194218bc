import { type Fault, UNITS } from '../measure/index.ts';
import type { Line } from '../recipes/index.ts';

/**
 * @param line  whose ingredient is known
 * @returns the fault of a line whose amount has no weight in the library; empty where it has one
 */
export function missingWeight(line: Line): Fault[] {
  const { dimension, id, symbol } = UNITS[line.amount.unit];
  const counted = line.each_g === null && dimension === 'count';
  const poured = line.density_gPerMl === null && dimension === 'volume';
  const whole = id === 'each' || id === 'small' || id === 'large';
  const one = whole ? line.name : `${symbol} of ${line.name}`;
  if (!counted && !poured) return [];
  return [
    {
      path: counted ? 'each_g' : 'density_gPerMl',
      code: counted ? 'weight-of-one-missing' : 'density-missing',
      what: counted
        ? `What one ${one} weighs is not known.`
        : `What a cup of ${line.name} weighs is not known.`,
      why: 'Weight, cost and label follow from it.',
      next: counted ? 'Weigh one and enter its grams.' : 'Weigh one cup and enter its grams.',
    },
  ];
}

/** Words that measure, and hold what nobody can know: one lug of peaches is never one peach. */
const NO_MEASURE =
  /^(?:x\s?\d.*|(?!\d+-?\s?inch)[/\d].*|(?:parts?|lugs?|flats?|crates?|baskets?|punnets?|trays?|cases?|sacks?|bags?|buckets?|pails?|hampers?|handfuls?|glass(?:es)?|mugs?|teacups?|wineglass(?:es)?|dessertspoons?|spoons?|spoonfuls?|scoops?|ladles?|knobs?|thumbs?|splash(?:es)?|tubs?|tb|rounds?|layers?)\b)/i;

/** @returns the word with which a name begins where it is a measure nobody can know, else null */
export const measureNamed = (name: string): string | null => NO_MEASURE.exec(name)?.[0] ?? null;

/** @returns the fault of an amount in a measure nobody can know */
export function unknownMeasure(measure: string): Fault {
  return {
    path: 'amount',
    code: 'unknown-measure',
    what: `What "${measure}" holds is not known.`,
    why: 'It differs from place to place, and weight, acid and cost follow from it.',
    next: 'Type the amount in a unit of weight or volume.',
  };
}

/** @returns the fault of a name that the library does not have */
export function unknownIngredient(name: string): Fault {
  return {
    path: 'ingredientId',
    code: 'unknown-ingredient',
    what: `"${name}" is not in the library.`,
    why: 'Its weight, its acidity and its allergens are not known.',
    next: 'Choose the ingredient it is, or enter its role and weight by hand.',
  };
}
