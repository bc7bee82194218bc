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
