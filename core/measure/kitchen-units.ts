import { type Habits, numberText } from './format.ts';
import { MM_PER_INCH, UNITS, type UnitId } from './units.ts';

/** A unit that a kitchen is asked in: its sign, and how large one of it is in the units everything is kept in. */
export interface AskedUnit {
  sign: string;
  /** mL, mm or g in one of it. */
  size: number;
}

/**
 * The units in which a kitchen thinks of larger things: quarts, inches and pounds, or litres, centimetres and kilograms.
 *
 * @example kitchenUnits({ measures: 'metric' }).volume // { sign: 'L', size: 1000 }
 */
export function kitchenUnits({ measures }: Pick<Habits, 'measures'>): {
  /** Of a pot. */
  volume: AskedUnit;
  /** Of a width or a depth. */
  length: AskedUnit;
  /** In which fruit is weighed. */
  weight: UnitId;
} {
  return measures === 'US'
    ? {
        volume: { sign: 'quarts', size: UNITS.quart.factor.valueOf() },
        length: { sign: 'inches', size: MM_PER_INCH },
        weight: 'lb',
      }
    : { volume: { sign: 'L', size: 1000 }, length: { sign: 'cm', size: 10 }, weight: 'kg' };
}

/** A larger volume in the kitchen's measures, "6.5 quarts", "6.2 litres". */
export function volumeText(volume_mL: number, habits: Pick<Habits, 'locale' | 'measures'>): string {
  const { sign, size } = kitchenUnits(habits).volume;
  return `${numberText(volume_mL / size, habits, 1)} ${sign}`;
}
