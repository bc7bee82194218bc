export type { LetterProcess, SeaLevelTime, TimeBasis } from './basis.ts';
export { entriesFor, PROCESS_ENTRIES, processEntry } from './entries.ts';
export type { AcidDose, ProcessEntry, ProcessSource } from './entry.ts';
export { type Method, METHOD_CHOICES, type Product, PRODUCTS, SPREADS } from './product.ts';
export {
  banded,
  type Basis,
  entryBasis,
  type ProcessAnswer,
  processByEntry,
  type ProcessRefusal,
  refusal,
  type ScheduledTime,
  START_WATER_C,
  seaLevelBasis,
  timeFrom,
  upgradeTime,
  waterCover_mm,
} from './scheduled.ts';
export { processWords } from './words.ts';
export { STEAM_LIMIT_MIN, steamFault, steamLoadFault } from './steam.ts';
