import type { Step } from '../recipes/index.ts';
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
