export { needsReading } from './batch-conditions.ts';
export { type Condition, PRESS_AFTER_HOURS } from './condition.ts';
export { type Gate, gate } from './gate.ts';
export {
  type BatchStanding,
  type BatchSummary,
  type Due,
  type JarForm,
  type Running,
  type Stage,
  REST_MINUTES,
  standing,
  summarise,
} from './summary.ts';
