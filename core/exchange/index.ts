export { fromCsv, toCsv } from './csv.ts';
export { EXCHANGE_FORMATS, type ExchangeFormat, writeRecipes } from './formats.ts';
export { fromJsonLd, toJsonLd } from './json-ld.ts';
export { fromJson, toJson } from './json.ts';
export { missingWeight } from './paste-faults.ts';
export { type Pasted, type PastedLine, readPasted } from './paste.ts';
export type { PastedStep } from './paste-steps.ts';
export type { FileFault, FileReading, ReadRecipe } from './reading.ts';
