export { pintsMade } from './at-hand.ts';
export {
  cookingFrom,
  corrected,
  correctionFrom,
  OWN_RANGE,
  type PastYield,
  type SeenCooking,
  type SeenYield,
} from './correction.ts';
export type { ForecastFault } from './faults.ts';
export { type CookForecast, forecast, type Forecast, type ForecastKitchen } from './forecast.ts';
export type { PackForecast } from './pack.ts';
export {
  type AcidityForecast,
  type AcidityMover,
  type AcidityRange,
  acidityForecast,
  BIN_FROM_PH,
  BIN_PH,
} from './acidity.ts';
export { type AcidityAsk, type AddedLine, type SapLine, acidityAsk, ownPh, sapOf } from './acidity-ask.ts';
export { HOURS_TOLD, type OnTheWay, wayToEquilibrium } from './acidity-way.ts';
export { broughtBy, SAP_PH } from './produce.ts';
