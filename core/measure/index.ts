export { type Fault, type Reading, Refusal, unreadable } from './fault.ts';
export { type MessageValues, type Speaker, speaker } from './message.ts';
export { Decimal, Fraction, allocate, roundTogether } from './exact.ts';
export {
  type Dimension,
  type Unit,
  type UnitId,
  ML_PER_PINT,
  MM_PER_INCH,
  M_PER_FOOT,
  UNITS,
  celsius,
  fahrenheit,
  feetFromMetres,
  metresFromFeet,
  unitNamed,
} from './units.ts';
export { type NumberLimits, marksOf, readDecimal, readNumber, readRational } from './read.ts';
export {
  type Amount,
  type AmountHint,
  type AmountQuestion,
  type AmountReading,
  type Weighing,
  amountMiddle,
  amountText,
  amount_g,
  readAmount,
  scanAmount,
} from './amount.ts';
export { HELD, kitchenVolume, kitchenWeight, mixedText } from './kitchen-measures.ts';
export { type AskedUnit, kitchenUnits, volumeText } from './kitchen-units.ts';
export {
  type Clock,
  PAPER_MM,
  type PaperSize,
  type WeekStart,
  clockOf,
  plainLocale,
  usualPaper,
  weekOf,
  weekStartOf,
  withHabits,
} from './habits.ts';
export {
  type Day,
  addDays,
  addMonths,
  dayOf,
  instantMs,
  instantOf,
  isDay,
  localTextOf,
  yearAndDay,
} from './day.ts';
export {
  type Habits,
  altitudeText,
  clockText,
  countdownText,
  dayText,
  depthText,
  durationText,
  fieldText,
  instantText,
  massText,
  moneyText,
  numberText,
  PLAIN_FIGURES,
  PLAIN_MEASURES,
  shareText,
  type Figures,
  rangesText,
  readRanges,
  temperatureText,
  warmthText,
} from './format.ts';
export { canonicalJson } from './canonical.ts';
export { type Names, byName, ofNames, under } from './names.ts';
export { readTimeOfDay, timesInOrder } from './time-of-day.ts';
export { type Share, chanceOfMore, wilson } from './chance.ts';
