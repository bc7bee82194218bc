import type { PastBatch } from '@cocotte/contract';
import type { Canner, Kitchen, Pot } from '@cocotte/core/kitchen';
import { Fraction, amount_g, readAmount, readNumber } from '@cocotte/core/measure';
import { DEFAULT_HEADSPACE_MM } from '@cocotte/core/balance';
import { correctionFrom, type Forecast, type SeenYield, forecast, pintsMade } from '@cocotte/core/forecast';
import { type JarSizeId, jarSize, pintsOf } from '@cocotte/core/jars';
import {
  type JarsWanted,
  type PotPlan,
  type Recipe,
  type ScaledRecipe,
  chooseJars,
  factorForFruit,
  factorForJars,
  factorForPot,
  jarsForLoads,
  mainLine,
  planPots,
  scaleRecipe,
} from '@cocotte/core/recipes';
import { processFor } from '@cocotte/core/review';
import { faultText } from '../../kit/readers.ts';

/** What past batches say of a forecast: of those that one was made for, and that were filled. */
export const yieldSeen = (past: readonly PastBatch[]): SeenYield | null =>
  correctionFrom(
    past.flatMap(b =>
      !b.foreseen || b.expected_pints === null || b.actual_pints === null
        ? []
        : [
            {
              batchId: b.batchId,
              day: b.madeOn,
              expected_pints: b.expected_pints,
              actual_pints: b.actual_pints,
              reason: b.reasons.join(' '),
            },
          ],
    ),
  );

/** How a batch is sized. */
export type ScaleMode = 'jars' | 'fruit' | 'loads' | 'pot' | 'factor';

/** What a person set on the sheet; figures still text. */
export interface Wanted {
  mode: ScaleMode;
  size: JarSizeId;
  /** Jars of each size, for the mode of that name. */
  counts: Partial<Record<JarSizeId, number>>;
  fruit: string;
  basis: 'prepared' | 'as bought';
  loads: number;
  factor: string;
  cannerId: string;
  potId: string;
  doublePectin: boolean;
}

export interface Plan {
  factor: Fraction;
  jars: JarsWanted[];
  pots: PotPlan;
  pot: Pot | null;
  canner: Canner | null;
  /** Why what was set cannot be planned; shown beside its field. */
  fault: string | null;
}

const MOST_JARS = 500;

/** What to begin with: the jars the recipe makes as written. */
export function firstWanted(recipe: Recipe, kitchen: Kitchen): Wanted {
  return {
    mode: 'jars',
    size: recipe.makes.size,
    counts: { [recipe.makes.size]: recipe.makes.count },
    fruit: '',
    basis: 'as bought',
    loads: 1,
    factor: '1',
    cannerId: kitchen.canners[0]?.id ?? '',
    potId: kitchen.pots[0]?.id ?? '',
    doublePectin: false,
  };
}

/** Turns what was set into a factor and jars; a fault leaves the sheet usable at the recipe as written. */
export function planOf(
  recipe: Recipe,
  wanted: Wanted,
  kitchen: Kitchen,
  seen: SeenYield | null = null,
): Plan {
  const pot = kitchen.pots.find(p => p.id === wanted.potId) ?? null;
  const canner = kitchen.canners.find(c => c.id === wanted.cannerId) ?? null;
  const made = (factor: Fraction, jars: JarsWanted[], fault: string | null = null): Plan => ({
    factor,
    jars,
    pot,
    canner,
    pots: planPots(recipe, factor, pot, wanted.doublePectin),
    fault,
  });
  const asWritten = (fault: string | null) => made(new Fraction(1), [recipe.makes], fault);
  const sizes = recipe.jars.map(j => j.size);
  /** Whole jars of the size wanted, the rest in smaller ones. */
  const filled = (factor: Fraction, pints = pintsOf([recipe.makes]).mul(factor)): Plan => {
    const { jars } = chooseJars(pints, wanted.size, sizes);
    const count = jars.reduce((sum, j) => sum + j.count, 0);
    if (count === 0)
      return asWritten(
        `That fills less than one ${jarSize(wanted.size).name}. Enter more, or choose a smaller jar.`,
      );
    if (count > MOST_JARS)
      return asWritten(`That is more than ${MOST_JARS} jars: a slip. Check the figure and its unit.`);
    return made(factor, jars);
  };
  switch (wanted.mode) {
    case 'jars': {
      const jars = sizes.map(size => ({ size, count: wanted.counts[size] ?? 0 })).filter(j => j.count > 0);
      return jars.length === 0
        ? asWritten('No jar is wanted. Choose how many.')
        : made(factorForJars(recipe, jars), jars);
    }
    case 'fruit': {
      const read = readAmount(wanted.fruit, kitchen.locale);
      if (!read.ok) return asWritten(wanted.fruit.trim() === '' ? null : faultText(read.fault));
      const main = mainLine(recipe);
      try {
        const factor = factorForFruit(recipe, amount_g(read.value, main), wanted.basis);
        return filled(factor, madeOf(recipe, factor, wanted.size, pot, kitchen, seen));
      } catch {
        return asWritten(
          `${main.name} cannot be weighed from that unit. Enter it by weight, such as 4 lb or 2 kg.`,
        );
      }
    }
    case 'loads': {
      if (!canner) return asWritten("No canner is on record. Add it in the kitchen's settings.");
      if (!canner.holds[wanted.size])
        return asWritten(
          `${canner.name} holds no ${jarSize(wanted.size).plural}. Choose another jar or canner.`,
        );
      const jars = jarsForLoads(wanted.loads, wanted.size, canner);
      return made(factorForJars(recipe, jars), jars);
    }
    case 'pot':
      return pot
        ? filled(factorForPot(recipe, pot))
        : asWritten("No pot is on record. Add it in the kitchen's settings.");
    case 'factor': {
      const read = readNumber(wanted.factor, kitchen.locale, { name: 'The factor', min: 0.05, max: 20 });
      return read.ok ? filled(new Fraction(read.value.toFixed(6))) : asWritten(faultText(read.fault));
    }
  }
}

export interface Foreseen {
  /** Null while a line cannot be weighed. */
  made: Forecast | null;
  headspace_mm: number;
}

/** What the plan will do and make. A recipe that cannot be weighed yet foretells nothing. */
export function foresee(recipe: Recipe, plan: Plan, kitchen: Kitchen): Foreseen {
  const sizes = [...new Set(plan.jars.map(j => j.size))].sort((a, b) =>
    jarSize(b).pints.compare(jarSize(a).pints),
  );
  const answer = sizes[0] ? processFor(recipe, sizes[0], kitchen.altitude_m, kitchen) : null;
  const headspace_mm = answer?.ok ? answer.time.headspace_mm : DEFAULT_HEADSPACE_MM;
  const here = { ...kitchen, pot: plan.pot, pots: plan.pots.pots, headspace_mm };
  try {
    return { made: forecast(recipe, plan.factor, here, sizes), headspace_mm };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { made: null, headspace_mm };
  }
}

/** Pints that so much fruit makes: by the balance, as past batches correct it. */
export function madeOf(
  recipe: Recipe,
  factor: Fraction,
  size: JarSizeId,
  pot: Pot | null,
  kitchen: Kitchen,
  seen: SeenYield | null,
): Fraction {
  const answer = processFor(recipe, size, kitchen.altitude_m, kitchen);
  return pintsMade(
    recipe,
    factor,
    {
      ...kitchen,
      pot,
      pots: planPots(recipe, factor, pot, false).pots,
      headspace_mm: answer.ok ? answer.time.headspace_mm : DEFAULT_HEADSPACE_MM,
    },
    size,
    seen,
  );
}

/** The recipe at the plan's scale; null while a line of it cannot be weighed. */
export function scaledOrNull(recipe: Recipe, plan: Pick<Plan, 'factor' | 'jars'>): ScaledRecipe | null {
  try {
    return scaleRecipe(recipe, plan.factor, plan.jars);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}
