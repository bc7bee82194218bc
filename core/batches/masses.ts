import { Fraction, UNITS, type Names, byName } from '../measure/index.ts';
import { type Line, type Measures, type Recipe, scaleRecipe } from '../recipes/index.ts';
import type { Trace } from './evidence.ts';
import type { BatchState } from './state.ts';

/** What went into a batch for one line, and how we know. */
export interface LineMass {
  line: Line;
  /** Grams prepared, as planned at this batch's scale. */
  planned_g: number;
  /** Grams prepared that went in. */
  actual_g: number;
  basis: 'weighed' | 'drawn' | 'planned';
  /** Grams prepared that came out of lots; null where none was drawn by weight. */
  drawn_g: number | null;
  /** The entry that weighed it last, where it was weighed. */
  by: Trace | null;
}

/** Measures of a batch that fit what their step expects; a litre where grams are expected settles nothing. */
export function measuresOf(recipe: Pick<Recipe, 'steps'>, taken: BatchState['measures']): Measures {
  const out: Names<Measures[string]> = byName();
  for (const step of recipe.steps) {
    const measure = taken[step.id];
    if (!measure || !step.expects) continue;
    const expected = UNITS[step.expects.unit].dimension;
    if (expected === (measure.unit === 'g' ? 'mass' : 'volume')) out[step.id] = measure;
  }
  return out;
}

/**
 * Grams of each line that went in: weighed where it was weighed, else drawn less trimming, else as planned.
 *
 * @throws RangeError when the batch has not been started
 */
export function lineMasses(
  state: Pick<BatchState, 'started' | 'draws' | 'weighed' | 'measures'>,
): LineMass[] {
  if (!state.started) throw new RangeError('lineMasses: the batch has not been started');
  const { recipe, factor, jars } = state.started;
  const scaled = scaleRecipe(recipe, new Fraction(factor), jars, measuresOf(recipe, state.measures));
  const planned = new Map(scaled.lines.map(l => [l.lineId, l.mass_g]));
  const trims = new Map(recipe.lines.map(l => [l.id, l.trimYield]));
  /** Ready for the pot: each lot with its own waste. */
  const drawn = new Map<string, number>();
  for (const draw of state.draws) {
    for (const lot of draw.lots) {
      if (!lot.lineId || lot.mass_g === null) continue;
      const ready_g = lot.mass_g * (lot.trimYield ?? trims.get(lot.lineId) ?? 1);
      drawn.set(lot.lineId, (drawn.get(lot.lineId) ?? 0) + ready_g);
    }
  }
  return recipe.lines.map(line => {
    const planned_g = planned.get(line.id) ?? 0;
    const weighed = state.weighed[line.id];
    const lot_g = drawn.get(line.id);
    const [actual_g, basis] = weighed
      ? ([weighed.mass_g, 'weighed'] as const)
      : lot_g !== undefined
        ? ([lot_g, 'drawn'] as const)
        : ([planned_g, 'planned'] as const);
    return {
      line,
      planned_g,
      actual_g,
      basis,
      drawn_g: lot_g ?? null,
      by: weighed?.by ?? null,
    };
  });
}
