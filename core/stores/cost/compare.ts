import { Decimal } from '../../measure/index.ts';
import type { CostSheet } from './sheet.ts';

/** What one thing did to the cost of a jar between two batches. */
export interface CostDifference {
  key: string;
  name: string;
  part: string;
  /** Cost of it in one jar, before and after, decimal text. */
  before: string;
  after: string;
  /** Of the difference, what came of another price, and what of another quantity in a jar. */
  byPrice: string;
  byQuantity: string;
  /** Where it was bought then and now, in words. */
  from: string;
  to: string;
}

const jarsOf = (sheet: CostSheet) => sheet.bySize.reduce((n, s) => n + s.count, 0);

/** What each item cost in a jar, and how much of it is in one. */
function byKey(sheet: CostSheet) {
  const jars = jarsOf(sheet);
  const out = new Map<
    string,
    { name: string; part: string; quantity: Decimal; cost: Decimal; details: Set<string> }
  >();
  for (const l of sheet.lines) {
    const row = out.get(l.key) ?? {
      name: l.name,
      part: l.part,
      quantity: new Decimal(0),
      cost: new Decimal(0),
      details: new Set<string>(),
    };
    row.quantity = row.quantity.plus(new Decimal(l.quantity).div(jars));
    row.cost = row.cost.plus(new Decimal(l.cost).div(jars));
    row.details.add(l.detail);
    out.set(l.key, row);
  }
  return out;
}

/**
 * What made the difference between two batches: for each thing the change of its cost in a jar, split into price (at
 * the new quantity) and quantity (at the old price). The differences add up to that of the jars.
 *
 * @returns the largest difference first
 * @throws RangeError when one of them has no jar that can be sold
 */
export function compareCosts(before: CostSheet, after: CostSheet): CostDifference[] {
  if (jarsOf(before) === 0 || jarsOf(after) === 0)
    throw new RangeError('compareCosts: a batch without jars has no cost of a jar');
  const [a, b] = [byKey(before), byKey(after)];
  const none = { quantity: new Decimal(0), cost: new Decimal(0), details: new Set<string>() };
  return [...new Set([...a.keys(), ...b.keys()])]
    .map((key): CostDifference => {
      const was = a.get(key) ?? none;
      const is = b.get(key) ?? none;
      const named = (b.get(key) ?? a.get(key)) as { name: string; part: string };
      const price = (x: { quantity: Decimal; cost: Decimal }) =>
        x.quantity.isZero() ? null : x.cost.div(x.quantity);
      const [p0, p1] = [price(was), price(is)];
      const byPrice = p0 && p1 ? p1.minus(p0).times(is.quantity) : new Decimal(0);
      return {
        key,
        name: named.name,
        part: named.part,
        before: was.cost.toFixed(),
        after: is.cost.toFixed(),
        byPrice: byPrice.toFixed(),
        byQuantity: is.cost.minus(was.cost).minus(byPrice).toFixed(),
        from: [...was.details].join(', '),
        to: [...is.details].join(', '),
      };
    })
    .filter(d => d.before !== d.after)
    .toSorted((x, y) =>
      new Decimal(y.after).minus(y.before).abs().cmp(new Decimal(x.after).minus(x.before).abs()),
    );
}
