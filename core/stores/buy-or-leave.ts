import { Decimal } from '../measure/index.ts';
import { type PlanFigures, plannedInput } from './cost/planned.ts';
import { mostToPay } from './cost/price.ts';
import { costSheet } from './cost/sheet.ts';

/** A bound on how much can be taken: jars, lids, hours or the canner. */
export interface Bound {
  what: 'jars' | 'lids' | 'hours' | 'canner';
  /** Jars that it allows. */
  jars: number;
}

/** What an offer would come to. */
export interface Offer {
  /** Cost of a jar at the price asked, decimal text. */
  perJar: string;
  jars: number;
  /** The most to pay for all of it for the margin wanted, decimal text; null where no price leaves it. */
  mostForAll: string | null;
  /** The same for one of the unit it is sold by. */
  mostPerUnit: string | null;
  /** What is left of a jar's price, percent of it. */
  margin_pct: number;
  buy: boolean;
  bounds: Bound[];
  /** The bound that is reached first, and the share of the fruit it allows, 0 to 1. */
  tightest: Bound | null;
  share: number;
}

/**
 * Whether fruit at this price is worth it: what a jar would cost, the most to pay, and how much of it the jars, lids,
 * hours and the canner can take.
 *
 * @param figures  the batch that all of it would make, priced without the main line
 * @param mainId  the line that the fruit on offer serves
 * @param paid  asked for all of it, decimal
 * @param quantity  in the unit it is sold by, decimal
 */
export function buyOrLeave(
  figures: PlanFigures,
  mainId: string,
  offer: { paid: Decimal; quantity: Decimal; price: Decimal; margin_pct: number },
  bounds: readonly Bound[],
): Offer {
  const sheet = costSheet(plannedInput({ ...figures, priceFactor: { ...figures.priceFactor, [mainId]: 0 } }));
  const other = sheet.parts.reduce((sum, p) => sum.plus(p.exact), new Decimal(0));
  const jars = figures.jars.reduce((n, j) => n + j.count, 0) * figures.yieldShare;
  const perJar = jars > 0 ? other.plus(offer.paid).div(jars) : new Decimal(0);
  const most = mostToPay(offer.price, offer.margin_pct, other, jars, '1');
  const margin_pct = offer.price.isZero()
    ? 0
    : offer.price.minus(perJar).div(offer.price).times(100).toNumber();
  const sorted = bounds.toSorted((a, b) => a.jars - b.jars);
  const tightest = sorted[0] && sorted[0].jars < jars ? sorted[0] : null;
  return {
    perJar: perJar.toFixed(),
    jars,
    mostForAll: most?.toFixed() ?? null,
    mostPerUnit: most?.div(offer.quantity).toFixed() ?? null,
    margin_pct,
    buy: most !== null && most.gte(offer.paid),
    bounds: sorted,
    tightest,
    share: jars > 0 ? Math.min(1, (sorted[0]?.jars ?? jars) / jars) : 0,
  };
}
