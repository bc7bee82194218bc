export { GEL_RISE_C, boilingPoint_C, gelPoint_C, standardPressure_Pa, vapourPressure_Pa } from './boiling.ts';
export {
  INVERTED,
  asSucrose_g,
  boilingRise_C,
  brixAtRise,
  type Solutes,
  syrupDensity_gPerMl,
  waterAtRise_g,
} from './sugar.ts';
export {
  ALTITUDE_BANDS_FT,
  ALTITUDE_LIMIT_M,
  byBands,
  fromSeaLevel,
  minutesAt,
  type MinutesByAltitude,
  sterilise_min,
} from './altitude.ts';
export { type Degrees, thinned } from './curve.ts';
