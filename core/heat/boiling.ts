/**
 * Boiling of water at altitude, and the gel point that hangs on it.
 */

const SEA_LEVEL_PA = 101_325;

/**
 * Air pressure of the standard atmosphere in pascals.
 * Source: US Standard Atmosphere 1976, troposphere (lapse 6.5 K/km from 288.15 K); checked against GNU units `stdatmP`.
 *
 * @param altitude_m  geopotential altitude, -500 to 11,000 m
 * @throws RangeError outside the troposphere
 */
export function standardPressure_Pa(altitude_m: number): number {
  if (!(altitude_m >= -500 && altitude_m <= 11_000))
    throw new RangeError('standardPressure_Pa: altitude must be from -500 to 11,000 m');
  return SEA_LEVEL_PA * (1 - (0.0065 * altitude_m) / 288.15) ** 5.255_876;
}

const CRITICAL_K = 647.096;
const CRITICAL_PA = 22_064_000;
const WAGNER: [power: number, factor: number][] = [
  [1, -7.859_517_83],
  [1.5, 1.844_082_59],
  [3, -11.786_649_7],
  [3.5, 22.680_741_1],
  [4, -15.961_871_9],
  [7.5, 1.801_225_02],
];

/**
 * Vapour pressure of water in pascals.
 * Source: Wagner and Pruss equation for the saturation line of water (IAPWS SR1-86, 1992), coefficients from memory.
 *
 * @param temp_C  0 to 370 °C
 */
export function vapourPressure_Pa(temp_C: number): number {
  const T = temp_C + 273.15;
  const tau = 1 - T / CRITICAL_K;
  const sum = WAGNER.reduce((acc, [power, factor]) => acc + factor * tau ** power, 0);
  return CRITICAL_PA * Math.exp((CRITICAL_K / T) * sum);
}

/** A kitchen has one altitude, and asks for its boiling point at every move of a slider. */
const found = new Map<number, number>();

/**
 * Boiling point of water in °C at an altitude under the standard atmosphere.
 *
 * @param altitude_m  -500 to 11,000 m
 * @example
 * Math.round(boilingPoint_C(0)); // 100
 * boilingPoint_C(1500) < 96; // true
 */
export function boilingPoint_C(altitude_m: number): number {
  const known = found.get(altitude_m);
  if (known !== undefined) return known;
  const pressure_Pa = standardPressure_Pa(altitude_m);
  let low = 50;
  let high = 110;
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2;
    if (vapourPressure_Pa(mid) < pressure_Pa) low = mid;
    else high = mid;
  }
  if (found.size > 1000) found.clear();
  found.set(altitude_m, (low + high) / 2);
  return (low + high) / 2;
}

/**
 * How far above boiling water a jam without added pectin is cooked: 8 °F.
 * Source: USDA Complete Guide to Home Canning (2015), guide 7, "temperature test"; from memory.
 */
export const GEL_RISE_C = 40 / 9;

/**
 * The gel point in °C at an altitude, as a true thermometer reads it.
 *
 * @param altitude_m  -500 to 11,000 m
 * @param thermometerError_C  what this thermometer reads above the truth; added, so that the figure is the one to look for
 * @example
 * Math.round((gelPoint_C(0) - boilingPoint_C(0)) * 10) / 10; // 4.4
 */
export function gelPoint_C(altitude_m: number, thermometerError_C = 0): number {
  return boilingPoint_C(altitude_m) + GEL_RISE_C + thermometerError_C;
}
