import { jarSize, type JarSizeId } from '../jars/index.ts';
import type { Canner, Pot } from '../kitchen/index.ts';
import { Fraction } from '../measure/index.ts';
import { knownMasses_g } from './masses.ts';
import type { Recipe } from './recipe.ts';
import type { JarsWanted } from './scale.ts';

/** How full a pot may start: spreads rise and spit, other food only needs room to stir. Common practice. */
export const POT_FILL = { spread: 0.5, other: 0.8 } as const;

const RISES: readonly Recipe['product'][] = [
  'jam',
  'preserves',
  'jelly',
  'marmalade',
  'fruit butter',
  'fruit spread',
  'syrup',
];

/** Share of a pot's volume that this food may start with. */
export function potFill(recipe: Pick<Recipe, 'product'>): number {
  return RISES.includes(recipe.product) ? POT_FILL.spread : POT_FILL.other;
}

/**
 * Volume in mL that stands in the pot when everything is in it, for a recipe as written. Brine and doses are not in it;
 * what has no density counts as water, and what cannot be weighed yet as nothing.
 */
export function potVolume_mL(recipe: Pick<Recipe, 'lines' | 'steps' | 'makes'>): number {
  const masses = knownMasses_g(recipe);
  return recipe.lines
    .filter(l => l.where === 'pot' || l.where === 'strained' || l.where === 'infused')
    .reduce((sum, l) => sum + (masses.get(l.id) ?? 0) / Math.max(0.9, l.density_gPerMl ?? 1), 0);
}

/** A set of ordinary pectin takes so much more than the recipe once: what a packet allows. Common practice. */
const PACKET_EXCESS = 1.1;

/** How a batch is spread over pots, and why. */
export interface PotPlan {
  pots: number;
  /** Exact factor of each pot, `n` or `n/d`. */
  each: string;
  reasons: string[];
  /** Ordinary pectin would be doubled, by the cook's own decision. */
  overridden: boolean;
}

/**
 * Ordinary-pectin sets are split into several pots rather than doubled, and what is too large for the pot is split too.
 * The first is a rule of quality: it may be overridden, and the batch logs that it was.
 *
 * @param pot  the pot used, or null where the kitchen has none on record
 */
export function planPots(
  recipe: Pick<Recipe, 'lines' | 'steps' | 'makes' | 'product' | 'setBy'>,
  factor: Fraction,
  pot: Pot | null,
  override: boolean,
): PotPlan {
  const reasons: string[] = [];
  const pectin =
    recipe.setBy === 'ordinary pectin' ? Math.max(1, Math.ceil(factor.valueOf() / PACKET_EXCESS - 1e-9)) : 1;
  const split = pectin > 1 && !override;
  if (split)
    reasons.push('Ordinary pectin fails to set when doubled: one pot for each time the recipe is made.');
  let pots = split ? pectin : 1;
  if (pot) {
    const room = pot.capacity_mL * potFill(recipe);
    const bySize = Math.ceil((potVolume_mL(recipe) * factor.valueOf()) / room - 1e-9);
    if (bySize > pots) {
      pots = bySize;
      reasons.push(
        `${pot.name} may start ${Math.round(potFill(recipe) * 100)} % full of this, or it boils over.`,
      );
    }
  }
  return { pots, each: factor.div(pots).toFraction(), reasons, overridden: pectin > 1 && override };
}

/** The factor that fills a pot as far as it may be filled, to a hundredth below; 1 where nothing goes into the pot. */
export function factorForPot(
  recipe: Pick<Recipe, 'lines' | 'steps' | 'makes' | 'product'>,
  pot: Pot,
): Fraction {
  const volume_mL = potVolume_mL(recipe);
  if (volume_mL === 0) return new Fraction(1);
  const times = (pot.capacity_mL * potFill(recipe)) / volume_mL;
  return new Fraction(Math.max(1, Math.floor(times * 100)), 100);
}

/**
 * Canner loads that jars take. Sizes share a load by the room they take; a size the canner does not hold is named.
 */
export function loadsFor(
  jars: readonly JarsWanted[],
  canner: Canner,
): { loads: number; missing: JarSizeId[] } {
  const missing = jars.filter(j => j.count > 0 && !canner.holds[j.size]).map(j => j.size);
  const room = jars.reduce((sum, j) => sum + j.count / (canner.holds[j.size] ?? Infinity), 0);
  return { loads: Math.ceil(room - 1e-9), missing };
}

/**
 * Jars of one size that fill whole loads.
 *
 * @throws RangeError when the canner does not hold that size, or loads is not a whole number above 0
 */
export function jarsForLoads(loads: number, size: JarSizeId, canner: Canner): JarsWanted[] {
  const holds = canner.holds[size];
  if (!holds) throw new RangeError(`jarsForLoads: ${canner.name} holds no ${jarSize(size).plural}`);
  if (!Number.isInteger(loads) || loads < 1) throw new RangeError('jarsForLoads: whole loads from 1');
  return [{ size, count: loads * holds }];
}
