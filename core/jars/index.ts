export {
  fillVolume_mL,
  JAR_SIZES,
  jarCountText,
  jarSize,
  type JarSize,
  type JarSizeId,
  pintsOf,
} from './jars.ts';
