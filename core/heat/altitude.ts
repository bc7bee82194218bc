import { feetFromMetres } from '../measure/index.ts';

/** Altitudes the tables are used for. */
export const ALTITUDE_LIMIT_M = { min: -100, max: 3048 } as const;

/** Minutes by altitude band: each band runs from just above the one before up to and including `upTo_ft`; null has no top. */
export type MinutesByAltitude = { upTo_ft: number | null; minutes: number }[];

/**
 * Minutes at an altitude where an authority gives only a sea-level time: the longer of two rules of the trade, and
 * which it was. One adds a minute for each started thousand feet (two where the time is over 20 minutes); the other
 * climbs the published bands, +5 above 1,000 ft, +10 above 3,000, +15 above 6,000. Common practice, from memory.
 */
export function fromSeaLevel(seaLevel_min: number, altitude_m: number): { minutes: number; rule: string } {
  const altitude_ft = feetFromMetres(altitude_m);
  const byThousand = Math.max(0, Math.ceil(altitude_ft / 1000)) * (seaLevel_min > 20 ? 2 : 1);
  const byBand = altitude_ft > 6000 ? 15 : altitude_ft > 3000 ? 10 : altitude_ft > 1000 ? 5 : 0;
  if (byThousand > byBand)
    return {
      minutes: seaLevel_min + byThousand,
      rule: `sea-level time, +${byThousand} by the rule of ${seaLevel_min > 20 ? 'two minutes' : 'one minute'} for each started 1,000 ft`,
    };
  return {
    minutes: seaLevel_min + byBand,
    rule:
      byBand === 0 ? 'sea-level time, up to 1,000 ft' : `sea-level time, +${byBand} by the ladder of bands`,
  };
}

/**
 * Minutes at an altitude. A band includes its top: 1,000 ft is the first band, 1,000.1 ft the second.
 *
 * @returns null when the bands have no open end and the altitude lies above them
 */
export function minutesAt(
  bands: MinutesByAltitude,
  altitude_m: number,
): { minutes: number; band: string } | null {
  const altitude_ft = feetFromMetres(altitude_m);
  const feet = new Intl.NumberFormat('en-US');
  let below = 0;
  for (const band of bands) {
    if (band.upTo_ft === null)
      return {
        minutes: band.minutes,
        band: below === 0 ? 'every altitude' : `above ${feet.format(below)} ft`,
      };
    if (altitude_ft <= band.upTo_ft) {
      return {
        minutes: band.minutes,
        band: `${feet.format(below === 0 ? 0 : below + 1)} to ${feet.format(band.upTo_ft)} ft`,
      };
    }
    below = band.upTo_ft;
  }
  return null;
}

/** Minutes empty jars are boiled to be sterile: 10, and one more for each started 1,000 ft. Source: USDA Complete Guide (2015), guide 1; from memory. */
export function sterilise_min(altitude_m: number): number {
  const altitude_ft = feetFromMetres(altitude_m);
  return 10 + (altitude_ft > 1000 ? Math.ceil(altitude_ft / 1000) : 0);
}
