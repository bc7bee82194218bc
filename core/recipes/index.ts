export { ALTITUDE_LIMIT_M } from './altitude-limit.ts';
export {
  type JarSize,
  type JarSizeId,
  JAR_SIZES,
  fillVolume_mL,
  jarCountText,
  jarSize,
  pintsOf,
} from './jars.ts';
export {
  type AcidDose,
  type MinutesByAltitude,
  type ProcessEntry,
  type ProcessSource,
  PROCESS_ENTRIES,
  entriesFor,
  processEntry,
} from './process-entry.ts';
export {
  type Attention,
  type Authority,
  type FoodClass,
  type FruitGroup,
  type LetterProcess,
  type Line,
  type LineRole,
  type Method,
  type NetContents,
  type Outlet,
  type Packing,
  type Place,
  type Product,
  type Ratio,
  type Recipe,
  type RecipeVersion,
  type SeaLevelTime,
  type SetBy,
  type Step,
  type StepKind,
  type StepTarget,
  type TestedFormula,
  type TimeBasis,
  FOOD_CLASSES,
  LINE_ROLES,
  METHOD_CHOICES,
  PLACES,
  PRODUCTS,
  SET_BY,
  SPREADS,
  STEP_KINDS,
  mainLine,
} from './recipe.ts';
export { type Measures, RatioError, lineMass_g, recipeMasses_g, timesOf } from './masses.ts';
export { recipeFaults } from './recipe-faults.ts';
export { blankIngredient } from './blank-ingredient.ts';
export {
  type Ingredient,
  type IngredientSource,
  type NameIndex,
  type SetKind,
  densityOf,
  formsOf,
  libraryOf,
  nameIndex,
  sourceOf,
  usualTrim,
} from './ingredients.ts';
export { basisFor, emptyRecipe, factsOf, formFor, lineFrom, stepFrom } from './compose.ts';
export { type Replacement, PICKLING_STRENGTH_PCT, acidKind, countsAsBarrier, replaceAcid } from './acids.ts';
export {
  type ProcessAnswer,
  type ScheduledTime,
  STEAM_LIMIT_MIN,
  fromSeaLevel,
  headspaceInches,
  minutesAt,
  processByEntry,
  processFor,
  steamFault,
  sterilise_min,
  waterCover_in,
} from './process.ts';
export { type IdentityFinding, nameCheck, spreadIdentity } from './identity.ts';
export { type FormulaChange, changesFrom, formulaOf } from './changes/index.ts';
export { type RouteToSale, authorityFault, formulaChanges, routeToSale } from './authority.ts';
export type { ReviewFault } from './review/finding.ts';
export { classOf, reviewFaults } from './review/rules.ts';
export { type AcidBalance, acidBalance } from './acid-balance.ts';
export { type Review, review } from './review/index.ts';
export { type Asker, type TrialReading, dossier } from './dossier.ts';
export { type Difference, differences, lineText } from './difference.ts';
export {
  type JarsWanted,
  type ScaledLine,
  type ScaledRecipe,
  chooseJars,
  factorForFruit,
  factorForJars,
  jarsForFactor,
  layOut,
  scaleRecipe,
} from './scale.ts';
export {
  type PotPlan,
  factorForPot,
  jarsForLoads,
  loadsFor,
  planPots,
  potFill,
  potVolume_mL,
} from './pots.ts';
export { type Correction, type PastYield, correctionFrom } from './correction.ts';
export { type ForecastFault, type ForecastKitchen, type PotForecast, forecastPot } from './forecast.ts';
export { type PackedForecast, forecastPacked } from './forecast-packed.ts';
export { upgradeRecipe, upgradeTime } from './upgrade.ts';
export { type Pasted, type PastedLine, type PastedStep, readPasted } from './paste.ts';
export {
  EXCHANGE_FORMATS,
  type ExchangeFormat,
  type FileFault,
  type FileReading,
  type ReadRecipe,
  fromCsv,
  fromJson,
  fromJsonLd,
  toCsv,
  toJson,
  toJsonLd,
  writeRecipes,
} from './exchange/index.ts';
