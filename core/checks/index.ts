export { needsReading } from './batch-conditions.ts';
export { type ColdJar, coldJars } from './cold.ts';
export { type Condition, standsOut } from './condition.ts';
export { JARS_TO_WEIGH } from './solids.ts';
export { type Gate, gate } from './gate.ts';
export {
  type Assessment,
  type BatchStanding,
  type BatchSummary,
  type Due,
  type JarForm,
  type Learned,
  LOOK_AFTER_HOURS,
  NOTHING_LEARNED,
  type Running,
  type Stage,
  REPROCESS_HOURS,
  REST_MINUTES,
  assess,
  isOpen,
  summarise,
} from './summary.ts';
