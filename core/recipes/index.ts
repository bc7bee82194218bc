export { type JarSize, type JarSizeId, JAR_SIZES, jarCountText, jarSize } from './jars.ts';
export {
  type MinutesByAltitude,
  type ProcessEntry,
  type ProcessSource,
  PROCESS_ENTRIES,
  processEntry,
} from './process-data.ts';
export {
  type Authority,
  type Line,
  type LineRole,
  type NetContents,
  type Recipe,
  type RecipeVersion,
  type Step,
  type StepKind,
  type StepTarget,
  LINE_ROLES,
  STEP_KINDS,
  lineMass_g,
  mainLine,
  recipeFaults,
} from './recipe.ts';
export {
  ALTITUDE_LIMIT_M,
  type ProcessAnswer,
  type ScheduledTime,
  minutesAt,
  processFor,
  waterCover_in,
} from './process.ts';
export { type IdentityFinding, SPREAD_FRUIT_PART, spreadIdentity } from './identity.ts';
export { type RouteToSale, routeToSale } from './authority.ts';
export {
  type JarsWanted,
  type ScaledLine,
  type ScaledRecipe,
  factorForFruit,
  factorForJars,
  jarsForFactor,
  scaleRecipe,
} from './scale.ts';
