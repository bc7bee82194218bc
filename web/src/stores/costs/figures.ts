import { plannedNets_g } from '@cocotte/core/balance';
import { Fraction, byName } from '@cocotte/core/measure';
import type { PastCost } from '@cocotte/contract';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type Recipe, type ScaledRecipe, loadsFor } from '@cocotte/core/recipes';
import { processFor } from '@cocotte/core/review';
import type { PlanFigures, ShelfItem } from '@cocotte/core/stores';
import type { Foreseen, Plan } from '../../recipes/sheet/plan.ts';

/** Minutes that cannot be read off a recipe, until batches of it have been cooked. Common practice. */
const USUAL = { handsOn: 15, lookIn: 5, kitchen: 25, comeUp: 20 };

export interface Minutes {
  attended: number;
  kitchen: number;
  burner: number;
  /** Where the attended minutes come from, in words. */
  from: string;
}

/** Minutes of a batch: from past batches where there are any, else from the steps. */
export function minutesFor(
  recipe: Recipe,
  plan: Plan,
  foreseen: Foreseen,
  kitchen: Kitchen,
  past: readonly PastCost[],
): Minutes {
  const cooked = past.filter(p => p.minutes > 0);
  const cook = foreseen.made?.minutes ?? 20;
  const loads = plan.jars.reduce((sum, j) => {
    const time = processFor(recipe, j.size, kitchen.altitude_m, kitchen);
    const n = plan.canner && plan.canner.holds[j.size] ? loadsFor([j], plan.canner).loads : 1;
    return sum + n * (USUAL.comeUp + (time.ok ? time.time.minutes : 10));
  }, 0);
  const burner = Math.round(cook + loads);
  if (cooked.length > 0)
    return {
      attended: Math.round(cooked.reduce((n, p) => n + p.minutes, 0) / cooked.length),
      kitchen: USUAL.kitchen,
      burner,
      from: `the mean of ${cooked.length} past ${cooked.length === 1 ? 'batch' : 'batches'}`,
    };
  const steps = recipe.steps.reduce((n, s) => {
    if (s.attention.kind === 'free') return n;
    if (s.attention.kind === 'look in') return n + USUAL.lookIn;
    return n + (s.target.kind === 'time' ? s.target.minutes : USUAL.handsOn);
  }, 0);
  return { attended: steps, kitchen: USUAL.kitchen, burner, from: 'the steps; past batches will say more' };
}

/** Figures of a planned batch for its cost. */
export function figuresOf(
  recipe: Recipe,
  scaled: ScaledRecipe,
  jars: Plan['jars'],
  shelf: readonly ShelfItem[],
  kitchen: Kitchen,
  minutes: Pick<Minutes, 'attended' | 'kitchen' | 'burner'>,
): PlanFigures {
  return {
    recipe,
    scaled,
    jars,
    shelf,
    settings: kitchen.costs,
    locale: kitchen.locale,
    currency: kitchen.currency,
    hourlyRate: kitchen.hourlyRate,
    minutes: minutes.attended,
    kitchenMinutes: minutes.kitchen,
    burnerMinutes: minutes.burner,
    burnerId: kitchen.costs.burners[0]?.id ?? '',
    yieldShare: 1,
    nets_g: plannedNets_g(recipe, new Fraction(scaled.factor), jars, kitchen),
    priceFactor: byName(),
  };
}
