export {
  type AtPlace,
  type ByInstrument,
  type BatchEvent,
  type ColdPlace,
  type CorrectableType,
  type Correction,
  type DecisionType,
  type DrawnLot,
  type UsedDraw,
  type EventBodies,
  type EventType,
  type FactType,
  type GateEvidence,
  type OutletBody,
  type ReturnedLot,
  BOIL_LOSSES,
  type BoilLoss,
  type CannerKind,
  LEFT_OVER_WENT,
  type LeftOverWent,
  type MarkedFor,
  MARKET_STEPS,
  type MarketStep,
  SEAL_PROOFS,
  type SealProof,
  type StrainedHow,
  POT_TAKEN_HOW,
  type PotTakenHow,
  type Purpose,
  type SequencedEvent,
  type SetAsideReason,
  type Ended,
  ENDINGS,
  JAR_FAULTS,
  type JarFault,
  SETS_SEEN,
  type SetSeen,
  type StartedBody,
  type StartKeys,
  DECISION_TYPES,
  PURPOSES,
  CORRECTIVE_ACTIONS,
  type CorrectiveAction,
  type PaperRef,
  SET_ASIDE_REASONS,
  SUSPECT,
  isDecision,
} from './events.ts';
export {
  type Elapsed,
  type Known,
  type PlacedEntry,
  type Trace,
  CLOCK_TOLERANCE_S,
  clockConfirmed,
  elapsedBetween,
  inOrder,
  offsetAtStamping_ms,
  placeEntries,
  seqOf,
} from './evidence.ts';
export { readWhen, textureOf } from './readings.ts';
export type { Receipt, Stamp } from './stamp.ts';
export type {
  Amendment,
  BatchState,
  Deviation,
  JarState,
  LoadPhase,
  LoadState,
  Note,
  StepState,
} from './state.ts';
export { SLIP_MS } from './corrections.ts';
export { FORGOTTEN_REST_S } from './loads.ts';
export { type Entered, RECORD_SHAPE, VERSIONS, complete, upgradeEvent, versionOf } from './versions.ts';
export { PRESS_AFTER_HOURS, fold, hasCooled, potNumbers } from './fold.ts';
export { type AtThePot, atThePot, withMass } from './at-the-pot.ts';
export { type BottleCheck, bottleCheck, doseOf } from './bottle.ts';
export { type LineMass, lineMasses, measuresOf } from './masses.ts';
export { cookNow, type CookNow, type PotLevels, type PotOnFire } from './cook-now.ts';
export { type Cooked, cooked } from './cooked.ts';
export { batchStepText, covered, filledJars, observed, timesInUse } from './observed.ts';
export { type LoadPlan, loadable, loadPlan, type NextLoad, nextLoads } from './next-load.ts';
export { type Filling, fillings, type Lot, lotOf, lotsOf, nextFillingCode } from './fillings.ts';
export {
  bareCode,
  checkCharacter,
  LOT_DAYS,
  LOT_PARTS,
  LOT_SEPARATORS,
  type LotPart,
  type LotPattern,
  jarLotCode,
  lotCodeFits,
  lotCodes,
  lotPatternFaults,
  readsAsLotCode,
  USUAL_LOT_PATTERN,
} from './lot-code.ts';
export { type Misread, misreadOf } from './misread.ts';
export { isStepDone, openNow, type Turn, turnOf } from './steps.ts';
export { recipeFromBatch } from './to-recipe.ts';
export { type Went, wentWhere } from './went.ts';
export { allergensIn, type PotBefore, potBefore, unwashedAllergens } from './washed.ts';
export { type Unused, unusedOf } from './unused.ts';
export { stepsOnSheet, type WrittenDay, type WrittenFact, writtenFacts } from './write-up.ts';
export { type Starting, startedOf } from './starting.ts';
export { retyped } from './corrections.ts';
export {
  type Container,
  LABEL_CODES,
  LABEL_DESIGNS,
  LABEL_READS,
  type LabelCode,
  type LabelContent,
  type LabelDesign,
  type LabelLook,
  type LabelRead,
  type LabelStock,
} from './label.ts';
