export {
  basisFor,
  emptyRecipe,
  factsOf,
  formFor,
  lineFrom,
  proposeCode,
  stepFrom,
  usualNet,
} from './compose.ts';
export { type Difference, differences } from './difference.ts';
export {
  asWords,
  type LooseAmount,
  looseAmounts,
  namesOfLine,
  type StepFigures,
  stepText,
  unboundNames,
} from './step-text.ts';
export { reducedText, targetWords, windowText } from './step-words.ts';
export { knownMasses_g, lineMass_g, type Measures, RatioError, recipeMasses_g, timesOf } from './masses.ts';
export {
  factorForPot,
  jarsForLoads,
  loadsFor,
  planPots,
  potFill,
  type PotPlan,
  potVolume_mL,
} from './pots.ts';
export { recipeFaults } from './recipe-faults.ts';
export {
  type Attention,
  type Authority,
  FOOD_CLASSES,
  type FoodClass,
  type Line,
  type LetterLine,
  type LetterTerms,
  mainLine,
  type NetContents,
  noTerms,
  type Outlet,
  type Packing,
  type Place,
  PLACES,
  type Ratio,
  type Recipe,
  type RecipeVersion,
  SET_BY,
  type SetBy,
  type Step,
  STEP_KINDS,
  type StepKind,
  type StepTarget,
  type TestedFormula,
} from './recipe.ts';
export {
  chooseJars,
  amountsPerPot,
  factorForFruit,
  factorForJars,
  scaleOff,
  jarsForFactor,
  type JarsWanted,
  type PotAmount,
  layOut,
  type ScaledLine,
  type ScaledRecipe,
  scaleRecipe,
  targetAt,
} from './scale.ts';
export { upgradeRecipe } from './upgrade.ts';
export { type Usual, usualOf } from './usual.ts';
