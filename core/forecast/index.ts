export { pintsMade } from './at-hand.ts';
export { corrected, correctionFrom, OWN_RANGE, type PastYield, type SeenYield } from './correction.ts';
export type { ForecastFault } from './faults.ts';
export { type CookForecast, forecast, type Forecast, type ForecastKitchen } from './forecast.ts';
export type { PackForecast } from './pack.ts';
