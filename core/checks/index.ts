export { type Condition, type Gate, PRESS_AFTER_HOURS, gate, needsReading } from './gate.ts';
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
