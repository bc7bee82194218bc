export { type SeenYield, correctionFrom, type PastYield } from './correction.ts';
export { forecastPacked, type PackedForecast } from './forecast-packed.ts';
export { type ForecastFault, type ForecastKitchen, forecastPot, type PotForecast } from './forecast.ts';
