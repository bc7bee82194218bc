export {
  fitting,
  type Holds,
  rack_mm,
  rackShare,
  roomFor,
  type Standing,
  standOnRack,
  USUAL_HOLDS,
  waterToStart_mL,
} from './canner.ts';
export {
  bodyOf,
  fillVolume_mL,
  JAR_SIZES,
  jarCountText,
  jarSize,
  type JarSize,
  type JarSizeId,
  pintsOf,
} from './jars.ts';
export { isFlatLid } from './closure.ts';
