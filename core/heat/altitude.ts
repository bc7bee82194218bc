import { feetFromMetres } from '../measure/index.ts';

/** Altitudes the tables are used for. */
export const ALTITUDE_LIMIT_M = { min: -100, max: 3048 } as const;

/** Minutes by altitude band: each band runs from just above the one before up to and including `upTo_ft`; null has no top. */
export type MinutesByAltitude = { upTo_ft: number | null; minutes: number }[];

/** Tops of the bands that are published, in feet; null has none. The figures of a table are given for one of these. */
export const ALTITUDE_BANDS_FT = {
  three: [1000, 6000, null],
  four: [1000, 3000, 6000, null],
} as const satisfies Record<string, readonly (number | null)[]>;

/** Minutes the trade adds to a sea-level time in each of the four bands. Common practice, from memory. */
const ADDED_BY_BAND_MIN = [0, 5, 10, 15] as const;

/**
 * Minutes in the order of their bands, to 1,000 ft, to 6,000 ft and above, or with 3,000 ft between.
 *
 * @throws RangeError for a number of figures that no published table has
 */
export function byBands(minutes: readonly number[]): MinutesByAltitude {
  const tops = Object.values(ALTITUDE_BANDS_FT).find(b => b.length === minutes.length);
  if (!tops) throw new RangeError(`byBands: ${minutes.length} figures; tables have 3 or 4`);
  return tops.map((upTo_ft, i) => ({ upTo_ft, minutes: minutes[i] as number }));
}

/**
 * Minutes at an altitude where an authority gives only a sea-level time: the longer of two rules of the trade, and
 * which it was. One adds a minute for each started thousand feet (two where the time is over 20 minutes); the other
 * climbs the published bands, +5 above 1,000 ft, +10 above 3,000, +15 above 6,000. Common practice, from memory.
 */
export function fromSeaLevel(seaLevel_min: number, altitude_m: number): { minutes: number; rule: string } {
  const altitude_ft = feetFromMetres(altitude_m);
  const byThousand = Math.max(0, Math.ceil(altitude_ft / 1000)) * (seaLevel_min > 20 ? 2 : 1);
  const byBand = minutesAt(byBands(ADDED_BY_BAND_MIN), altitude_m)?.minutes ?? 0;
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
