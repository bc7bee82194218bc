import type { PlaceLabel } from '@cocotte/core/kitchen';
import { choice, figure, flag, maybe, shape } from '../rules.ts';

/** Rule of what a place asks of a label. */
export const placeLabelRule = shape<PlaceLabel>({
  rules: choice(['US', 'EU'] as const),
  statement_pt: maybe(figure({ min: 4, max: 40, name: 'The least size of the statement in points' })),
  maker: choice(['address', 'address or number'] as const),
  number: flag,
  madeOn: flag,
});
