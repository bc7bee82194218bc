import { type AcidityAsk, acidityForecast, wayToEquilibrium } from '@cocotte/core/forecast';
import * as comlink from 'comlink';

/** Forecasts of acidity, off the main thread: many draws. */
const acidity = {
  forecast: (ask: AcidityAsk, limits: { limit: number; act: number }) => acidityForecast(ask, limits),
  way: (ask: AcidityAsk, piece_mm: number) => wayToEquilibrium(ask, piece_mm),
};

/** What the worker does. */
export type AcidityWorker = typeof acidity;

comlink.expose(acidity);
