export {
  type BatchEvent,
  type CorrectableType,
  type Correction,
  type DecisionType,
  type DrawnLot,
  type Elapsed,
  type EventBodies,
  type EventType,
  type FactType,
  type GateEvidence,
  type LabelContent,
  type ReturnedLot,
  type Purpose,
  type SequencedEvent,
  type SetAsideReason,
  type Stamp,
  type StartedBody,
  CLOCK_TOLERANCE_S,
  DECISION_TYPES,
  PURPOSES,
  SET_ASIDE_REASONS,
  correctedInstant_ms,
  elapsedBetween,
  isDecision,
} from './events.ts';
export type { BatchState, Deviation, JarState, LoadPhase, LoadState, Trace } from './state.ts';
export { fold } from './fold.ts';
export { type LineMass, lineMasses, measuresOf } from './masses.ts';
export { recipeFromBatch } from './to-recipe.ts';
