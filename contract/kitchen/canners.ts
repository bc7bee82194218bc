import type { Holds } from '@cocotte/core/jars';
import { type Rule, dictionary, figure } from '../rules.ts';

/** Jars of each size that stand in a canner at once. */
export const holdsRule = dictionary(
  figure({ min: 0, max: 200, whole: true, name: 'The jars it holds' }),
) as Rule<Holds>;
