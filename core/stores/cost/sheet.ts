import { Decimal, allocate, roundTogether } from '../../measure/index.ts';
import { type JarSizeId, jarSize } from '../../jars/index.ts';
import type { NetContents } from '../../recipes/index.ts';

/** The parts of a cost, in the order of the sheet. */
export const COST_PARTS = [
  'ingredients',
  'jars',
  'lids',
  'bands',
  'labels',
  'packaging',
  'work',
  'opening and cleaning',
  'energy',
  'overhead',
  'market',
] as const;
/** One part of a cost ({@link COST_PARTS}). */
export type CostPartId = (typeof COST_PARTS)[number];

/** One thing that cost money. */
export interface CostLine {
  part: CostPartId;
  /** What it is: an ingredient, a size of jar, a person's work. */
  name: string;
  /** How it came to be, in words: the lot and its supplier, minutes and rate. */
  detail: string;
  /** Key that is the same in every batch, to hold one against another: an item's id, or a word. */
  key: string;
  /** In `unit`, decimal text. */
  quantity: string;
  unit: string;
  /** Decimal text. */
  unitCost: string;
  /** Exact, decimal text. */
  cost: string;
  /** The jar size that bears it; null where the whole pot does. */
  size: JarSizeId | null;
  lotId: string | null;
}

/** Jars of one size: how many the pot filled, and how many of them can be sold. */
export interface CostJars {
  size: JarSizeId;
  filled: number;
  sellable: number;
  /** Net mass of one, by which sizes share the pot. */
  net_g: number;
}

/** Jars that cost and bring nothing. */
export interface LostJars {
  why: string;
  count: number;
}

/**
 * How costs are shared by jar sizes. *By jar*: the pot by net mass, everything of a jar by jar to its own size. Sheets of
 * batches that were closed before are *by net mass* throughout, and stay as they stood.
 */
export const SHARINGS = ['by jar', 'by net mass'] as const;
/** One way to share costs ({@link SHARINGS}). */
export type Sharing = (typeof SHARINGS)[number];

/** All that costs are made of, from a batch or from a plan: {@link costSheet} alone adds it up. */
export interface CostInput {
  currency: string;
  sharing: Sharing;
  lines: CostLine[];
  jars: CostJars[];
  lost: LostJars[];
  /** What has no price, in words. */
  unpriced: string[];
}

/** What a batch costs, in parts and by jar, each rounded so that the whole adds up to the cent. */
export interface CostSheet extends CostInput {
  parts: {
    part: CostPartId;
    /** Exact, before rounding, decimal text. */
    exact: string;
    /** Rounded so that the parts add up to the total, decimal text. */
    amount: string;
  }[];
  /** Sum of the rounded parts, decimal text. */
  total: string;
  bySize: {
    size: JarSizeId;
    count: number;
    /** Share of the total, rounded so that the shares add up to it. */
    total: string;
    /** Exact share over its sellable jars, decimal text. */
    exactPerJar: string;
    perJar: string;
    /** What a jar would cost had none been lost. */
    perJarNoneLost: string;
    /** What lost jars add to each. */
    lossPerJar: string;
  }[];
  /** When it was stored as the batch was released, ISO 8601: it changes no more. Null while it may still change. */
  keptAt: string | null;
}

const CENT = 2;
const ZERO = new Decimal(0);
const G_PER_OZ = new Decimal('28.349523125');
const ML_PER_FLOZ = new Decimal('29.5735295625');

/** Net mass by which jar sizes share a pot; where the label tells volume, its millilitres stand for grams. */
export function netMass_g(net: NetContents): number {
  return (net.kind === 'weight' ? G_PER_OZ.times(net.oz) : ML_PER_FLOZ.times(net.floz)).toNumber();
}

/** Parts that each jar that is filled takes of: whatever is lost of them was used up. */
const BY_FILLED: ReadonlySet<CostPartId> = new Set(['jars', 'lids', 'bands', 'overhead']);
/** Parts that only a jar that can be sold takes of. */
const BY_SOLD: ReadonlySet<CostPartId> = new Set(['labels', 'packaging', 'market']);

/**
 * Adds up what a batch costs. Costs of the pot are shared by jar sizes by net mass; jars, lids, bands and overhead by the
 * jars that were filled, labels, packaging and the stall by those that can be sold; those of a size are its own. So a jar
 * that failed cost its food, its glass and its lid, and no label. Sizes of which no jar can be sold hand their share to
 * the others. Rounded parts add up to the total, and so do the sizes.
 *
 * @returns exact and rounded figures; `bySize` is empty while no jar can be sold
 * @example
 * const input = { currency: 'USD', sharing: 'by jar', lines: [], jars: [], lost: [], unpriced: [] };
 * costSheet(input).total; // '0.00'
 */
export function costSheet(input: CostInput): CostSheet {
  const exactOf = (lines: readonly CostLine[]) => lines.reduce((sum, l) => sum.plus(l.cost), ZERO);
  const parts = COST_PARTS.map(part => ({ part, exact: exactOf(input.lines.filter(l => l.part === part)) }));
  const rounded = roundTogether(
    parts.map(p => p.exact),
    CENT,
  );
  const total = rounded.reduce((a, b) => a.plus(b), ZERO);

  const { jars } = input;
  const sizes = new Set(jars.map(j => j.size));
  // What was drawn for a size of which no jar was filled is borne by all.
  const common = input.lines.filter(l => l.size === null || !sizes.has(l.size));
  const byJar = input.sharing === 'by jar';
  const anySold = jars.some(j => j.sellable > 0);
  const bySold = exactOf(common.filter(l => byJar && anySold && BY_SOLD.has(l.part)));
  const byFilled = exactOf(common.filter(l => byJar && BY_FILLED.has(l.part)));
  const pot = exactOf(common).minus(bySold).minus(byFilled);
  const sum = (of: (j: CostJars) => Decimal.Value) => jars.reduce((all, j) => all.plus(of(j)), ZERO);
  const share = (of: Decimal, mine: Decimal.Value, all: Decimal) =>
    all.isZero() ? ZERO : of.times(mine).div(all);
  const filled_g = sum(j => new Decimal(j.net_g).times(j.filled));
  const sellable_g = sum(j => new Decimal(j.net_g).times(j.sellable));
  /** What every jar of a size cost, and what only those that can be sold did. */
  const ofSize = (j: CostJars) => ({
    all: share(pot, new Decimal(j.net_g).times(j.filled), filled_g)
      .plus(
        share(
          byFilled,
          j.filled,
          sum(x => x.filled),
        ),
      )
      .plus(exactOf(input.lines.filter(l => l.size === j.size && !(byJar && BY_SOLD.has(l.part))))),
    sold: share(
      bySold,
      j.sellable,
      sum(x => x.sellable),
    ).plus(exactOf(input.lines.filter(l => l.size === j.size && byJar && BY_SOLD.has(l.part)))),
  });
  const orphaned = jars
    .filter(j => j.sellable === 0)
    .reduce((all, j) => all.plus(ofSize(j).all).plus(ofSize(j).sold), ZERO);
  const sold = jars
    .filter(j => j.sellable > 0)
    .sort((a, b) => jarSize(a.size).pints.compare(jarSize(b.size).pints));
  const shares = sold.map(j => {
    const own = ofSize(j);
    return own.all.plus(own.sold).plus(share(orphaned, new Decimal(j.net_g).times(j.sellable), sellable_g));
  });
  const totals = sold.length === 0 ? [] : allocate(total, shares, CENT);
  return {
    ...input,
    parts: parts.map((p, i) => ({
      part: p.part,
      exact: p.exact.toFixed(),
      amount: (rounded[i] as Decimal).toFixed(CENT),
    })),
    total: total.toFixed(CENT),
    bySize: sold.map((j, i) => {
      const exactPerJar = (shares[i] as Decimal).div(j.sellable);
      const perJar = exactPerJar.toDecimalPlaces(CENT);
      const own = ofSize(j);
      const whole = own.all.div(j.filled).plus(own.sold.div(j.sellable)).toDecimalPlaces(CENT);
      return {
        size: j.size,
        count: j.sellable,
        total: (totals[i] as Decimal).toFixed(CENT),
        exactPerJar: exactPerJar.toFixed(),
        perJar: perJar.toFixed(CENT),
        perJarNoneLost: whole.toFixed(CENT),
        lossPerJar: perJar.minus(whole).toFixed(CENT),
      };
    }),
    keptAt: null,
  };
}

/** A cost line from a quantity and what one of it costs. */
export function costLine(
  line: Omit<CostLine, 'cost' | 'quantity' | 'unitCost' | 'size' | 'lotId'> &
    Partial<Pick<CostLine, 'size' | 'lotId'>> & { quantity: Decimal | string; unitCost: Decimal | string },
): CostLine {
  const quantity = new Decimal(line.quantity);
  const unitCost = new Decimal(line.unitCost);
  return {
    size: null,
    lotId: null,
    ...line,
    quantity: quantity.toFixed(),
    unitCost: unitCost.toFixed(),
    cost: quantity.times(unitCost).toFixed(),
  };
}
