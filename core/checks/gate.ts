import { type BatchState, lineMasses } from '../batches/index.ts';
import { amountConditions } from './amounts.ts';
import { acidityConditions } from './acidity.ts';
import {
  deviationConditions,
  hotFillConditions,
  sterileConditions,
  purposeConditions,
  recipeConditions,
  tracedCondition,
} from './batch-conditions.ts';
import { type Condition, condition } from './condition.ts';
import { jarConditions } from './jar-conditions.ts';
import { leftoverConditions } from './leftovers.ts';

/** What stands between held and released, and which jars nothing holds. */
export interface Gate {
  conditions: Condition[];
  /** Jars that every condition lets through. */
  releasable: number[];
}

/**
 * Everything that stands between held and released. Batch conditions hold every jar; jar conditions hold their jars.
 * Nothing here can be waived: above pH 4.6 nothing is released, and nothing without an authority is released for sale.
 *
 * @example
 * const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
 * gate(fold(batch.events)).releasable; // []
 */
export function gate(state: BatchState): Gate {
  if (!state.started) {
    return {
      conditions: [
        condition({
          code: 'started',
          title: 'The batch was started',
          met: false,
          evidence: 'No start is recorded.',
          why: '',
          next: '',
          jars: null,
        }),
      ],
      releasable: [],
    };
  }
  const present = state.jars.filter(j => !j.setAside);
  const masses = lineMasses(state);
  const conditions = [
    ...newerConditions(state),
    ...purposeConditions(state),
    ...recipeConditions(state, masses),
    ...amountConditions(state, masses),
    ...hotFillConditions(state),
    ...sterileConditions(state, present),
    ...leftoverConditions(state),
    tracedCondition(state),
    ...acidityConditions(state),
    ...deviationConditions(state, present),
    ...jarConditions(state, present),
  ];
  const batchOpen = conditions.every(c => c.met || c.jars !== null);
  const held = new Set(conditions.flatMap(c => (c.met ? [] : (c.jars ?? []))));
  // The jar that is kept for its lot stays behind: it is nobody's to eat.
  const releasable = batchOpen
    ? present.filter(j => !held.has(j.number) && j.marked !== 'keeping').map(j => j.number)
    : [];
  return { conditions, releasable };
}

/** What only a newer build can read may be anything: here nothing is released over it. */
function newerConditions(state: BatchState): Condition[] {
  if (state.newer.length === 0) return [];
  return [
    condition({
      code: 'newer',
      title: 'Every entry is understood here',
      met: false,
      evidence: `${state.newer.length} of its entries came with a newer version of this program.`,
      why: 'What cannot be read here may speak against it.',
      next: 'Load the page again.',
      jars: null,
    }),
  ];
}
