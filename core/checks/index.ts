export { isAcidInPot } from './leftovers.ts';
export { type AcidityShown, acidityOf, faultsOfReading, needsReading } from './acidity.ts';
export { type ColdJar, coldJars } from './cold.ts';
export { type Condition, standsOut } from './condition.ts';
export { JARS_TO_WEIGH } from './solids.ts';
export { type Gate, gate } from './gate.ts';
export { type Due, LOOK_AFTER_HOURS, REPROCESS_HOURS } from './due.ts';
export { type Learned, NOTHING_LEARNED } from './learned.ts';
export type { BatchStanding, JarForm, Stage } from './standing.ts';
export {
  type Assessment,
  type BatchSummary,
  type Running,
  REST_MINUTES,
  assess,
  isOpen,
  summarise,
} from './summary.ts';
export { type CheckedBatch, checkedOf, densityOf } from './history.ts';
export {
  type DeviationKind,
  type DeviationRecord,
  type OpenAction,
  deviationRecords,
  kindOfDeviation,
  openActions,
} from './deviations.ts';
export {
  type SealCount,
  type SealGroup,
  type WorseLids,
  LIDS_TO_JUDGE,
  sealCounts,
  sealGroups,
  worseLids,
} from './seals.ts';
export { type ForecastError, type ForeseenAndRead, forecastError } from './forecast-error.ts';
export { type Cause, causesOf } from './causes.ts';
export { allowedVariation_g } from './data/allowed-variation.ts';
export {
  declarable_oz,
  declared_g,
  type NetsOfSize,
  netsBySize,
  type NetVerdict,
  netVerdict,
  samplingOf,
} from './nets.ts';
