export { needsReading } from './batch-conditions.ts';
export { type Condition, standsOut } from './condition.ts';
export { type Gate, gate } from './gate.ts';
export {
  type Assessment,
  type BatchStanding,
  type BatchSummary,
  type Due,
  type JarForm,
  type Running,
  type Stage,
  REST_MINUTES,
  assess,
  isOpen,
  summarise,
} from './summary.ts';
