import { addDays, type Day } from '../measure/index.ts';
import type { Kitchen } from './kitchen.ts';

/** Days after which a jam thermometer is seen in boiling water again. Our choice, from no source. */
const CHECKED_FOR_DAYS = 30;
/** Whether the jam thermometer was not seen in boiling water for a month, or never. */
export const thermometerDue = (kitchen: Pick<Kitchen, 'thermometerCheckedOn'>, today: Day): boolean =>
  kitchen.thermometerCheckedOn === null || addDays(kitchen.thermometerCheckedOn, CHECKED_FOR_DAYS) <= today;
