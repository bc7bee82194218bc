import { Decimal } from '../../measure/index.ts';

const CENT = 2;
const up = (d: Decimal) => d.toDecimalPlaces(CENT, Decimal.ROUND_UP);

/** Price by markup: cost and so many percent of the cost. Rounded up to the cent, so that the markup is kept. */
export function priceByMarkup(cost: Decimal | string, markup_pct: number): Decimal {
  return up(new Decimal(cost).times(new Decimal(100).plus(markup_pct)).div(100));
}

/**
 * Price by margin: the price of which so many percent are left over the cost.
 *
 * @throws RangeError for a margin of 100 % or more, which no price has
 */
export function priceByMargin(cost: Decimal | string, margin_pct: number): Decimal {
  if (!(margin_pct < 100)) throw new RangeError('priceByMargin: a margin is below 100 %');
  return up(new Decimal(cost).div(new Decimal(1).minus(new Decimal(margin_pct).div(100))));
}

/** What a price leaves over the cost. */
export interface Left {
  /** What is left of a price over the cost. */
  left: Decimal;
  /** As a share of the price, percent; null for a price of nothing. */
  margin_pct: number | null;
  /** As a share of the cost, percent; null where it cost nothing. */
  markup_pct: number | null;
}

/** From a market price back to what is left of it. */
export function leftOf(price: Decimal | string, cost: Decimal | string): Left {
  const left = new Decimal(price).minus(cost);
  return {
    left,
    margin_pct: new Decimal(price).isZero() ? null : left.div(price).times(100).toNumber(),
    markup_pct: new Decimal(cost).isZero() ? null : left.div(cost).times(100).toNumber(),
  };
}

/**
 * Jars that must be sold at one market before its fixed costs are earned.
 *
 * @param fixed  stall fee and what else the day costs whatever is sold
 * @param variable  what one jar costs without a share of those
 * @returns null where each jar loses money, so that no number does
 */
export function breakEvenJars(
  fixed: Decimal | string,
  price: Decimal | string,
  variable: Decimal | string,
): number | null {
  const each = new Decimal(price).minus(variable);
  if (new Decimal(fixed).lte(0)) return 0;
  return each.gt(0) ? new Decimal(fixed).div(each).ceil().toNumber() : null;
}

/** The most to pay for a unit of fruit, so that jars sold at a price leave the margin wanted; null where nothing would. */
export function mostToPay(
  price: Decimal | string,
  margin_pct: number,
  otherCost: Decimal | string,
  jars: number,
  quantity: Decimal | string,
): Decimal | null {
  const mayCost = new Decimal(price).times(new Decimal(100).minus(margin_pct)).div(100).times(jars);
  const forFruit = mayCost.minus(otherCost);
  return forFruit.gt(0) && new Decimal(quantity).gt(0) ? forFruit.div(quantity) : null;
}
