import { plannedNets_g } from '@cocotte/core/balance';
import type { Kitchen } from '@cocotte/core/kitchen';
import { jarSize } from '@cocotte/core/jars';
import { type Recipe, factorForJars, scaleRecipe } from '@cocotte/core/recipes';
import type { PlanFigures, Rescaled } from '@cocotte/core/stores';
import { type Plan, foresee } from '../../recipes/sheet/plan.ts';
import { minutesFor } from './figures.ts';

/** Variations of a plan that need it scaled again: a smaller jar, one load more. */
export function rescaledFigures(recipe: Recipe, plan: Plan, kitchen: Kitchen, base: PlanFigures): Rescaled[] {
  const main = plan.jars[0];
  if (!main) return [];
  const minutesPerBatch = base.minutes;
  const scaledFor = (jars: Plan['jars'], loads: number): PlanFigures => {
    const factor = factorForJars(recipe, jars);
    const next: Plan = { ...plan, factor, jars };
    const minutes = minutesFor(recipe, next, foresee(recipe, next, kitchen), kitchen, []);
    return {
      ...base,
      jars,
      scaled: scaleRecipe(recipe, factor, jars),
      nets_g: plannedNets_g(recipe, factor, jars, kitchen),
      burnerMinutes: minutes.burner,
      // Half of the attention goes to filling and lifting, which grows with the loads; the rest is of the pot.
      minutes: minutesPerBatch * (0.5 + 0.5 * loads),
    };
  };
  const out: Rescaled[] = [];
  const smaller = recipe.jars
    .map(j => jarSize(j.size))
    .filter(s => s.pints.compare(jarSize(main.size).pints) < 0)
    .sort((a, b) => b.pints.compare(a.pints))[0];
  if (smaller) {
    const count = Number(jarSize(main.size).pints.mul(main.count).div(smaller.pints).floor().n);
    out.push({
      id: 'smaller',
      title: 'A smaller jar',
      words: `${count} ${smaller.plural} in place of ${main.count} ${jarSize(main.size).plural}`,
      figures: count > 0 ? scaledFor([{ size: smaller.id, count }, ...plan.jars.slice(1)], 1) : null,
    });
  }
  const room = plan.canner?.holds[main.size] ?? 0;
  if (room > 0) {
    const loads = Math.max(1, Math.ceil(main.count / room));
    out.push({
      id: 'load',
      title: 'One more load',
      words: `${main.count + room} ${jarSize(main.size).plural}`,
      figures: scaledFor(
        [{ size: main.size, count: main.count + room }, ...plan.jars.slice(1)],
        (loads + 1) / loads,
      ),
    });
  }
  return out;
}
