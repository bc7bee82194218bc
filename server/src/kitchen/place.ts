import { metresFromFeet } from '@cocotte/core/measure';
import { ALTITUDE_LIMIT_M } from '@cocotte/core/heat';
import { type Place, checkZone } from './service.ts';

/**
 * Reads where a kitchen stands, as the keeper of the machine types it.
 *
 * @param altitude  a figure with its unit, such as `2350 ft` or `716 m`; empty where it is not known
 * @param zone  an IANA zone; empty where it is not known
 * @returns null where either is not known: then the kitchen is not set up
 * @throws Error for an altitude without a unit or outside the published tables, and for a zone that is none
 */
export function readPlace(altitude: string, zone: string): Place | null {
  if (altitude.trim() !== '' && !READ.test(altitude.trim()))
    throw new Error(`"${altitude}" is no altitude; say a figure and its unit, such as 2350 ft or 716 m.`);
  if (zone.trim() !== '') {
    try {
      checkZone(zone.trim());
    } catch {
      throw new Error(`"${zone}" is not a time zone; use one like America/Denver.`);
    }
  }
  const [, figure = '', unit = ''] = READ.exec(altitude.trim()) ?? [];
  const value = Number(figure.replaceAll(',', ''));
  const altitude_m = unit.toLowerCase().startsWith('f') ? metresFromFeet(value) : value;
  if (altitude_m < ALTITUDE_LIMIT_M.min || altitude_m > ALTITUDE_LIMIT_M.max)
    throw new Error(`${altitude} is outside the published tables, which end at 10,000 ft (3,048 m).`);
  return figure === '' || zone.trim() === '' ? null : { altitude_m, zone: zone.trim() };
}

/** A figure (thousands may be set apart by a comma) and feet or metres. */
const READ = /^(-?\d{1,3}(?:,\d{3})+|-?\d{1,5}(?:\.\d{1,2})?)\s*(ft|feet|foot|m|metres?|meters?)$/i;
