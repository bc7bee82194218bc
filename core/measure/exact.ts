import { Decimal } from 'decimal.js';
import Fraction from 'fraction.js';

Decimal.set({ precision: 40, rounding: Decimal.ROUND_HALF_EVEN, toExpNeg: -30, toExpPos: 40 });

export { Decimal, Fraction };

/**
 * Splits a total over weights so that the parts, rounded to `places` decimals, add up to the rounded total exactly
 * (largest remainder; ties go to the earlier part).
 *
 * @param total  the exact amount to split
 * @param weights  one non-negative weight for each part; all zero splits evenly
 * @param places  decimals of the result, 2 for cents
 * @returns one Decimal a weight, in the same order; their sum is `total` rounded half-even to `places`
 * @throws RangeError when there is nothing to split over or a weight is negative
 * @example
 * allocate(new Decimal('1.00'), [1, 1, 1].map(n => new Decimal(n)), 2).map(String); // ['0.34', '0.33', '0.33']
 */
export function allocate(total: Decimal, weights: Decimal[], places: number): Decimal[] {
  if (weights.length === 0) throw new RangeError('allocate: at least one weight is needed');
  if (weights.some(w => w.isNegative() && !w.isZero()))
    throw new RangeError('allocate: weights must not be negative');
  const sum = weights.reduce((a, b) => a.plus(b), new Decimal(0));
  const shares = sum.isZero() ? weights.map(() => new Decimal(1)) : weights;
  const shareSum = sum.isZero() ? new Decimal(weights.length) : sum;
  const rounded = total.toDecimalPlaces(places);
  const unit = new Decimal(10).pow(-places);
  const exact = shares.map(w => rounded.times(w).div(shareSum));
  const parts = exact.map(x => x.toDecimalPlaces(places, Decimal.ROUND_FLOOR));
  const short = rounded
    .minus(parts.reduce((a, b) => a.plus(b), new Decimal(0)))
    .div(unit)
    .round()
    .toNumber();
  const order = exact
    .map((x, i) => ({ i, rest: x.minus(parts[i] as Decimal) }))
    .sort((a, b) => b.rest.cmp(a.rest) || a.i - b.i);
  for (let k = 0; k < short; k++) {
    const i = (order[k % order.length] as { i: number }).i;
    parts[i] = (parts[i] as Decimal).plus(unit);
  }
  return parts;
}

/**
 * Rounds exact amounts so that they add up to their rounded sum (largest remainder), for a list shown above its total.
 *
 * @param amounts  exact amounts, of one sign
 * @param places  decimals shown
 */
export function roundTogether(amounts: Decimal[], places: number): Decimal[] {
  if (amounts.length === 0) return [];
  const total = amounts.reduce((a, b) => a.plus(b), new Decimal(0));
  return allocate(total, amounts, places);
}
