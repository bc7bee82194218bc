import type { CostingMethod } from '../kitchen/index.ts';
import { Decimal } from '../measure/index.ts';
import type { Lot } from './lots.ts';

/** Why a quantity moved. Movements are never edited; a wrong one is met by another. */
export const MOVEMENT_REASONS = [
  'received',
  'drawn',
  'put back',
  'counted',
  'lost',
  'used up',
  'returned to supplier',
  'returned',
  'worked up',
  'made',
  'taken back',
  'priced',
] as const;
/**
 * Why a lot changed. `counted` corrects with a reason; `used up` closes a container whose rest was never entered;
 * `worked up` leaves a lot into another, `made` enters it; `taken back` reverses a receipt; `priced` takes what is left out
 * without a price and brings it in with one.
 */
export type MovementReason = (typeof MOVEMENT_REASONS)[number];

/** One change of one lot. Never edited: a mistake is another movement. */
export interface Movement {
  id: string;
  lotId: string;
  /** Signed decimal text in the item's unit. */
  quantity: string;
  /** Money for one unit, decimal text. */
  unitCost: string;
  reason: MovementReason;
  note: string;
  /** When it happened, ISO 8601 UTC. */
  at: string;
}

/** What there is, and what it is worth. */
export interface Balance {
  quantity: Decimal;
  value: Decimal;
}

/** The sum of movements up to an instant: what was there, and what it was worth. */
export function balanceOf(
  movements: readonly Pick<Movement, 'quantity' | 'unitCost' | 'at'>[],
  at = '9999',
): Balance {
  let quantity = new Decimal(0);
  let value = new Decimal(0);
  for (const m of movements) {
    if (m.at > at) continue;
    quantity = quantity.plus(m.quantity);
    value = value.plus(new Decimal(m.quantity).times(m.unitCost));
  }
  return { quantity, value };
}

/** Money for one unit under the moving weighted average: what the stock is worth over what there is; null for none. */
export function averageCost(balance: Balance): Decimal | null {
  return balance.quantity.gt(0) ? balance.value.div(balance.quantity) : null;
}

type Ordered = Pick<Lot, 'id' | 'receivedOn' | 'openedOn'>;

/** The order in which lots of one item are drawn: what is open first, then what is closed; in each the oldest first. */
export function inDrawingOrder<L extends Ordered>(lots: readonly L[]): L[] {
  return lots.toSorted((a, b) => {
    if ((a.openedOn === null) !== (b.openedOn === null)) return a.openedOn === null ? 1 : -1;
    return (
      (a.receivedOn < b.receivedOn ? -1 : a.receivedOn > b.receivedOn ? 1 : 0) ||
      (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
    );
  });
}

/** So much out of a lot. */
export interface PlannedDraw<L> {
  lot: L;
  /** Decimal text. */
  quantity: string;
}

/**
 * Takes a quantity out of lots in drawing order, each to its end before the next.
 *
 * @param wanted  decimal in the item's unit, from 0
 * @returns what each lot gives, and what is lacking
 * @example
 * const lot = (label, receivedOn, onHand, openedOn = null) => ({ id: label, label, receivedOn, openedOn, onHand, bestBy: null });
 * const lots = [lot('NEW', '2026-05-09', '500'), lot('OPEN', '2026-06-01', '300', '2026-06-02')];
 * planDraw(lots, new Decimal(400)).draws.map(d => `${d.quantity} of ${d.lot.label}`); // ['300 of OPEN', '100 of NEW']
 */
export function planDraw<L extends Ordered & Pick<Lot, 'onHand'>>(
  lots: readonly L[],
  wanted: Decimal,
): { draws: PlannedDraw<L>[]; short: Decimal } {
  let rest = wanted;
  const draws: PlannedDraw<L>[] = [];
  for (const lot of inDrawingOrder(lots)) {
    if (!rest.gt(0)) break;
    const part = Decimal.min(rest, lot.onHand);
    if (!part.gt(0)) continue;
    draws.push({ lot, quantity: part.toFixed() });
    rest = rest.minus(part);
  }
  return { draws, short: Decimal.max(rest, 0) };
}

/**
 * What a quantity costs from lots in drawing order; what is lacking at the price last paid, where one is known.
 *
 * @param average  money for one unit of the stock as the ledger values it, for the weighted average
 */
export function costOfDraw<
  L extends Ordered & Pick<Lot, 'onHand' | 'unitCost'> & Partial<Pick<Lot, 'facts'>>,
>(
  lots: readonly L[],
  wanted: Decimal,
  method: CostingMethod,
  lastCost: string | null,
  average: string | null = null,
): { cost: Decimal; short: Decimal; priced: boolean } {
  const { draws, short } = planDraw(lots, wanted);
  const drawn = wanted.minus(short);
  let cost: Decimal;
  if (method === 'weighted average') {
    const total = lots.reduce(
      (b, l) => ({
        quantity: b.quantity.plus(l.onHand),
        value: b.value.plus(new Decimal(l.onHand).times(l.unitCost)),
      }),
      { quantity: new Decimal(0), value: new Decimal(0) },
    );
    // What the stock is worth, as the ledger charges it; what its lots cost where nothing was ever moved.
    cost = drawn.times(average ?? averageCost(total) ?? 0);
  } else
    cost = draws.reduce((sum, d) => sum.plus(new Decimal(d.quantity).times(d.lot.unitCost)), new Decimal(0));
  return {
    cost: lastCost === null ? cost : cost.plus(short.times(lastCost)),
    short,
    priced: (!short.gt(0) || lastCost !== null) && draws.every(d => d.lot.facts?.value !== 'price to come'),
  };
}
