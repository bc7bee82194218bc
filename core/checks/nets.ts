import type { BatchState } from '../batches/index.ts';
import { type JarSizeId } from '../jars/index.ts';
import type { NetContents } from '../recipes/index.ts';
import { allowedVariation_g } from './data/allowed-variation.ts';

/**
 * Packages that are weighed of a lot, and how much of their spread counts for the lot: the sample correction factor. It is
 * Student's t of 97.5 % over the root of the sample.
 *
 * @source NIST Handbook 133, table 2-1, category A (from memory)
 */
const SAMPLING: readonly (readonly [lotUpTo: number, sample: number, factor: number])[] = [
  [1, 1, 0],
  [2, 2, 8.984],
  [3, 3, 2.484],
  [4, 4, 1.591],
  [5, 5, 1.241],
  [6, 6, 1.05],
  [7, 7, 0.925],
  [8, 8, 0.836],
  [9, 9, 0.769],
  [10, 10, 0.715],
  [11, 11, 0.672],
  [250, 12, 0.635],
  [3200, 24, 0.422],
  [Infinity, 48, 0.291],
];

/**
 * How many jars of a lot are weighed, and with which correction factor.
 *
 * @example
 * samplingOf(60); // { sample: 12, factor: 0.635 }
 */
export function samplingOf(lot: number): { sample: number; factor: number } {
  const [, sample, factor] = SAMPLING.find(([upTo]) => lot <= upTo) as [number, number, number];
  return { sample, factor };
}

/** The factor of a sample that is not the one of the table: the next smaller one that is. */
function factorOf(sample: number): number {
  const row = SAMPLING.findLast(([, n]) => n <= sample) ?? SAMPLING[0];
  return row?.[2] ?? 0;
}

const ML_PER_FLOZ = 29.573_529_562_5;
const G_PER_OZ = 28.349_523_125;

/** Grams that a declaration stands for; a volume by the density of what is in the jar. */
export const declared_g = (net: NetContents, density_gPerMl: number): number =>
  net.kind === 'weight' ? net.oz * G_PER_OZ : net.floz * ML_PER_FLOZ * density_gPerMl;

/** What weighed jars say of a declared quantity. */
export interface NetVerdict {
  declared_g: number;
  sample: number;
  /** How many have to be weighed of so many jars. */
  asked: number;
  mean_g: number;
  spread_g: number;
  /** Mean less declared. */
  error_g: number;
  /** What the mean may lack for chance alone: the sample error limit. */
  limit_g: number;
  /** The mean is at or above what is declared, or lacks no more than chance explains. */
  meanGood: boolean;
  /** What a single jar may lack, and those that lack more. */
  variation_g: number;
  short: { jar: number; net_g: number }[];
  /** The scale shows steps fine enough: a sixth of what a jar may lack, or less. */
  fineEnough: boolean;
  /** The mean that jars have to be filled to, so that a lot like it is not found short. */
  target_g: number;
  /** What could be declared of jars filled like these, never more than their mean shows. */
  couldDeclare_g: number;
  passes: boolean;
}

/** Of the smallest step a scale shows, this share of the allowed variation. NIST Handbook 133, 2.3.4, from memory. */
const STEP_SHARE = 1 / 6;

/**
 * Holds weighed jars against what is declared: their mean with the sample error limit, each with the allowed variation.
 *
 * @param nets  what each weighed jar holds
 * @param lot  jars of that size in the batch
 * @param step_g  smallest step of the scale
 * @returns null where nothing was weighed
 * @source NIST Handbook 133, chapter 2: average requirement and individual variations (from memory)
 * @example
 * const nets = [286, 284, 285].map((net_g, i) => ({ jar: i + 1, net_g }));
 * netVerdict(nets, 283.5, 3, 1)?.passes; // true
 */
export function netVerdict(
  nets: readonly { jar: number; net_g: number }[],
  declared_g: number,
  lot: number,
  step_g: number,
): NetVerdict | null {
  const n = nets.length;
  if (n === 0) return null;
  const mean_g = nets.reduce((sum, j) => sum + j.net_g, 0) / n;
  const spread_g = n < 2 ? 0 : Math.sqrt(nets.reduce((sum, j) => sum + (j.net_g - mean_g) ** 2, 0) / (n - 1));
  const factor = factorOf(n);
  const limit_g = factor * spread_g;
  const error_g = mean_g - declared_g;
  const variation_g = allowedVariation_g(declared_g);
  const short = nets.filter(j => declared_g - j.net_g > variation_g + 1e-9);
  const meanGood = error_g >= 0 || -error_g <= limit_g;
  return {
    declared_g,
    sample: n,
    asked: samplingOf(Math.max(lot, n)).sample,
    mean_g,
    spread_g,
    error_g,
    limit_g,
    meanGood,
    variation_g,
    short,
    fineEnough: step_g <= variation_g * STEP_SHARE + 1e-9,
    target_g: declared_g + limit_g,
    couldDeclare_g: Math.max(
      0,
      Math.min(mean_g - limit_g, ...nets.map(j => j.net_g + allowedVariation_g(mean_g))),
    ),
    passes: meanGood && short.length === 0,
  };
}

/** A declaration never says more than is there: tenths of an ounce below ten, halves above, rounded down. Our choice. */
export function declarable_oz(grams: number): number {
  const oz = grams / G_PER_OZ;
  const step = oz < 10 ? 0.1 : 0.5;
  return Math.floor(oz / step + 1e-9) * step;
}

/** What was weighed of one size of a batch, beside what its label declares. */
export interface NetsOfSize {
  size: JarSizeId;
  declared_g: number;
  nets: { jar: number; net_g: number }[];
}

/**
 * Weighed jars by size, with what is declared of each.
 *
 * @param density_gPerMl  of what is in the jar, for what is declared by volume
 */
export function netsBySize(state: BatchState, density_gPerMl: number): NetsOfSize[] {
  const { recipe } = state.started as NonNullable<BatchState['started']>;
  return recipe.jars.flatMap(({ size, net }) => {
    const jars = new Set(state.jars.filter(j => j.size === size).map(j => j.number));
    const nets = state.weighings.filter(w => jars.has(w.jar)).map(({ jar, net_g }) => ({ jar, net_g }));
    return nets.length === 0 ? [] : [{ size, declared_g: declared_g(net, density_gPerMl), nets }];
  });
}
