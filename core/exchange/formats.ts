import type { Recipe } from '../recipes/index.ts';
import { toCsv } from './csv.ts';
import { toJsonLd } from './json-ld.ts';
import { toJson } from './json.ts';

export type { FileFault, FileReading, ReadRecipe } from './reading.ts';
export { fromCsv, toCsv } from './csv.ts';
export { fromJson, toJson } from './json.ts';
export { fromJsonLd, toJsonLd } from './json-ld.ts';

/** The open formats recipes go out and come in by; docs/exchange.md describes each. */
export const EXCHANGE_FORMATS = ['json', 'csv', 'jsonld'] as const;
/** A format recipes are written in and read from. */
export type ExchangeFormat = (typeof EXCHANGE_FORMATS)[number];

/** Writes recipes in a format. */
export function writeRecipes(format: ExchangeFormat, recipes: readonly Recipe[]): string {
  return format === 'json' ? toJson(recipes) : format === 'csv' ? toCsv(recipes) : toJsonLd(recipes);
}
