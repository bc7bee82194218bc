export { isAcidInPot } from './leftovers.ts';
export { needsReading } from './batch-conditions.ts';
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
