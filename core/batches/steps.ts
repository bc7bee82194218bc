import type { Recipe, Step } from '../recipes/index.ts';
import type { BatchState } from './state.ts';

/**
 * Whether a step is done: somebody said so, or the record shows it. Filling is done with the jars that were wanted, processing
 * once every jar that stands was lifted, cooling with the first press.
 */
export function isStepDone(state: BatchState, step: Step): boolean {
  if (state.steps[step.id]?.done) return true;
  const standing = state.jars.filter(j => !j.setAside);
  const lifted = new Set(state.loads.filter(l => l.lifted).map(l => l.id));
  const wanted = (state.started?.jars ?? []).reduce((n, j) => n + j.count, 0);
  const filled = state.jars.length > 0 && state.jars.length >= wanted;
  const out = standing.length > 0 && standing.every(j => lifted.has(j.loadIds.at(-1) ?? ''));
  switch (step.kind) {
    case 'fill':
      return filled || out;
    case 'process':
      return out;
    case 'cool':
      return out && standing.some(j => j.pressed !== null);
    default:
      return false;
  }
}

/** How a step stands to those before it that are still open. */
export type Turn = 'in order' | 'side by side' | 'out of order';

/**
 * Whether a step acts on nothing that an open one has in its vessel: it gets things ready, it acts on another part, or all
 * that goes in belongs in another vessel, such as the brine while the cucumbers soak.
 */
function isApart(recipe: Recipe, open: Step, step: Step): boolean {
  if (step.kind === 'prepare') return true;
  if (step.part !== '' && open.part !== '') return step.part !== open.part;
  const vessels = (s: Step) => s.adds.flatMap(a => recipe.lines.find(l => l.id === a.lineId)?.where ?? []);
  const own = vessels(step);
  const others = new Set(vessels(open));
  return (
    step.kind === 'cook' &&
    own.length > 0 &&
    others.size > 0 &&
    own.every(v => v === 'brine' && !others.has(v))
  );
}

/**
 * Whether a step may be taken up now. Side by side with a wait that has begun, or with what needs nobody, runs what acts on
 * something else; anything else before its turn asks for a reason.
 */
export function turnOf(state: BatchState, step: Step): Turn {
  const recipe = state.started?.recipe;
  const steps = recipe?.steps ?? [];
  const before = steps.slice(0, Math.max(0, steps.indexOf(step))).filter(s => !isStepDone(state, s));
  if (before.length === 0) return 'in order';
  const runsBeside = (open: Step) => {
    const begun = Boolean(state.steps[open.id]?.started);
    const needsNobody = open.window !== null || open.attention.kind !== 'hands-on';
    return recipe !== undefined && begun && needsNobody && isApart(recipe, open, step);
  };
  return before.every(runsBeside) ? 'side by side' : 'out of order';
}

/**
 * The steps that can be in hand now: the first that is open, and what may run beside it.
 *
 * @returns in the order of the recipe; empty once every step is done
 */
export function openNow(state: BatchState): Step[] {
  const steps = state.started?.recipe.steps ?? [];
  return steps.filter(s => !isStepDone(state, s) && turnOf(state, s) !== 'out of order');
}
