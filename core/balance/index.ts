export { balance } from './balance.ts';
export type { Balance, CookBalance, Flow, VesselId } from './made.ts';
export type { CookFault } from './cooking.ts';
export { PACK, SEPARATORS, STAYS_IN_POT, type Separator, type Yield } from './data/yields.ts';
export type { Filling, JarContents } from './filling.ts';
export {
  type AddedAcid,
  AS_ACETIC,
  compositionOf,
  type Contents,
  massIn,
  massOf,
  PART_NAMES,
  type Parts,
  solubleOf,
  together,
} from './parts.ts';
export { plannedNets_g } from './nets.ts';
export {
  type BalancePicture,
  type FlowInPicture,
  type FlowKind,
  pictureOf,
  type PlaceInPicture,
} from './picture.ts';
export {
  asManyAsItFills,
  asWritten,
  type BalanceKitchen,
  DEFAULT_HEADSPACE_MM,
  plan,
  processOf,
} from './plan.ts';
export { AT_MIDDLE, type Chosen, KNOWN, type Known, type Process, type ProcessLine } from './process.ts';
export { type Range, spread } from './spread.ts';
export {
  acidIn,
  type AcidIn,
  barrierIn100_g,
  knownOf,
  netOfJars_g,
  reachedJars_g,
  weakestJar,
} from './views.ts';
export { brixOf, density_gPerMl, HOT_OVER_COLD, volume_mL } from './volume.ts';
