export {
  type Canner,
  type JurisdictionProfile,
  type Kitchen,
  type Pot,
  type Role,
  ROLES,
  mayAct,
  noPlace,
} from './kitchen.ts';
export { type Burner, type CostSettings, type CostingMethod, COSTING_METHODS, plainCosts } from './costs.ts';
export { MOST_ERROR_C, ownThermometer, thermometerDue } from './thermometer.ts';
export { JURISDICTIONS } from './data/jurisdictions.ts';
export {
  type Jurisdiction,
  PLAIN_LABEL,
  type PlaceFault,
  placeFault,
  type PlaceLabel,
  type PlaceRule,
  POINT_WORDS,
  pointsOf,
  runsOut,
  type TickedPoint,
  TOLD_AHEAD_DAYS,
} from './jurisdiction.ts';
export { changedPoints, editedPlace } from './place-edit.ts';
export {
  KEPT_POINTS,
  PLACE_FOODS,
  PLACE_POINTS,
  PLACE_RULES,
  type PlaceFood,
  type PlacePoint,
} from './place-words.ts';
export {
  batchSubject,
  batchOfSubject,
  PICTURES_OF_A_BATCH,
  KEPT_PAPER_TYPES,
  PAPER_LIMIT_BYTES,
  PAPER_LIMIT_PAGES,
  PAPER_TYPES,
  PAPERS_IN_A_KITCHEN,
  type Paper,
  PICTURE_SIDE_PX,
  placeSubject,
} from './papers.ts';
export { USUAL_THINGS, type UsualThing } from './data/equipment.ts';
export {
  FIRST_STEPS,
  type FirstStep,
  findHeights,
  firstSteps,
  type There,
  withUsual,
} from './first-steps.ts';
export {
  type Instrument,
  INSTRUMENT_KINDS,
  INSTRUMENT_UNITS,
  type InstrumentKind,
  type InstrumentWord,
  type PrintHead,
  type LineState,
  readInstrumentLine,
} from './instruments.ts';
export { type DotPicture, pictureWords, printWords } from './printing.ts';
export { potDepths } from './pot-depths.ts';
export {
  type CheckBody,
  type CheckedKind,
  type CheckVerdict,
  type InstrumentCheck,
  type KeptInstrument,
  CHECKED_KINDS,
  calibrated,
  checkVerdict,
  dueAgain,
  JAM_THERMOMETER,
} from './instrument-checks.ts';
