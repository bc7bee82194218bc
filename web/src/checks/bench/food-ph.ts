import { FOOD_PH } from '@cocotte/core/acid';
import { say } from '../../words/views.ts';

/** What a pH of food may be, as a reader asks it. */
export const foodPh = () => ({
  name: 'The pH',
  min: FOOD_PH.min,
  max: FOOD_PH.max,
  why: say('reading.noFood'),
});
