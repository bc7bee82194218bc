import { Fraction } from '../measure/index.ts';
import { type Line, type Recipe, scaleRecipe } from '../recipes/index.ts';
import type { BatchState } from './state.ts';

/** What went into a batch for one line, and how we know. */
export interface LineMass {
  line: Line;
  /** Grams prepared, as planned at this batch's scale. */
  planned_g: number;
  /** Grams prepared that went in. */
  actual_g: number;
  basis: 'weighed' | 'drawn' | 'planned';
}

/**
 * Grams of each line that went in: weighed where it was weighed, else drawn less trimming, else as planned.
 *
 * @throws RangeError when the batch has not been started
 */
export function lineMasses(state: BatchState): LineMass[] {
  if (!state.started) throw new RangeError('lineMasses: the batch has not been started');
  const { recipe, factor, jars } = state.started;
  const planned = new Map(
    scaleRecipe(recipe as Recipe, new Fraction(factor), jars).lines.map(l => [l.lineId, l.mass_g]),
  );
  const drawn = new Map<string, number>();
  for (const draw of state.draws) {
    for (const lot of draw.lots) {
      if (lot.lineId && lot.mass_g !== null) drawn.set(lot.lineId, (drawn.get(lot.lineId) ?? 0) + lot.mass_g);
    }
  }
  return recipe.lines.map(line => {
    const planned_g = planned.get(line.id) ?? 0;
    const weighed = state.weighed[line.id];
    if (weighed) return { line, planned_g, actual_g: weighed.mass_g, basis: 'weighed' };
    const lot_g = drawn.get(line.id);
    if (lot_g !== undefined) return { line, planned_g, actual_g: lot_g * line.trimYield, basis: 'drawn' };
    return { line, planned_g, actual_g: planned_g, basis: 'planned' };
  });
}
