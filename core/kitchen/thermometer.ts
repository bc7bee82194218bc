import { boilingPoint_C } from '../heat/index.ts';
import { addDays, type Day, instantOf } from '../measure/index.ts';
import type { Kitchen } from './kitchen.ts';

/** One that is further off is replaced rather than reckoned with. */
export const MOST_ERROR_C = 5;
/** Days after which a jam thermometer is seen in boiling water again. Our choice, from no source. */
const CHECKED_FOR_DAYS = 30;
/** Whether the jam thermometer was not seen in boiling water for a month, or never. */
export const thermometerDue = (kitchen: Pick<Kitchen, 'thermometerCheckedOn'>, today: Day): boolean =>
  kitchen.thermometerCheckedOn === null || addDays(kitchen.thermometerCheckedOn, CHECKED_FOR_DAYS) <= today;

/**
 * How the kitchen's own thermometer was checked, for a reading: off as in boiling water, and towards the cold, where it was
 * seen in ice too, by the straight line between both.
 *
 * @param read_C  what it showed
 * @returns null where it was never checked
 * @example
 * const kitchen = { altitude_m: 0, zone: 'UTC', thermometerError_C: 1, thermometerIce_C: 0, thermometerCheckedOn: '2026-01-02' };
 * ownThermometer(kitchen, 50)?.off; // 0.5
 */
export function ownThermometer(
  kitchen: Pick<
    Kitchen,
    'altitude_m' | 'zone' | 'thermometerError_C' | 'thermometerIce_C' | 'thermometerCheckedOn'
  >,
  read_C: number,
): { at: string; off: number } | null {
  const { thermometerCheckedOn: on, thermometerError_C: boiling, thermometerIce_C: ice } = kitchen;
  if (on === null) return null;
  const share = Math.min(1, Math.max(0, read_C / boilingPoint_C(kitchen.altitude_m)));
  const off = ice === null ? boiling : ice + (boiling - ice) * share;
  return {
    at: new Date(instantOf(`${on}T12:00`, kitchen.zone)).toISOString(),
    off: Math.round(off * 100) / 100,
  };
}
