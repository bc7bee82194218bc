import { Fraction } from '../measure/index.ts';

/** The name of a jar size, by its nominal US volume. */
export type JarSizeId =
  'quarter-pint' | 'half-pint' | 'three-quarter-pint' | 'pint' | 'pint-and-a-half' | 'quart' | 'half-gallon';

/** A jar as glass: what it holds and how wide it opens. */
export interface JarSize {
  id: JarSizeId;
  /** As people say it: one, many. */
  name: string;
  plural: string;
  /** Nominal volume in US pints, exact. */
  pints: Fraction;
  /** Across at its widest, and high with its lid on. Typical of the trade, from memory; glass differs by maker. */
  diameter_mm: number;
  height_mm: number;
  /** Body between heel and shoulder, where a label goes. Typical of the trade, from memory; glass differs by maker. */
  body_mm: { across: number; tall: number };
  /** Filled to the brim, in millilitres. Typical of the trade, from memory; glass differs by maker. */
  brim_mL: number;
  /** Open area of the mouth in square millimetres, for what a headspace takes. Typical, from memory. */
  mouth_mm2: number;
}

const REGULAR_MOUTH_MM2 = 2830;

/** The jar sizes this book knows, smallest first. Nominal US volumes; common practice. */
export const JAR_SIZES: readonly JarSize[] = [
  {
    id: 'quarter-pint',
    body_mm: { across: 68, tall: 48 },
    diameter_mm: 60,
    height_mm: 66,
    name: 'quarter-pint',
    plural: 'quarter-pints',
    pints: new Fraction(1, 4),
    brim_mL: 132,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
  {
    id: 'half-pint',
    body_mm: { across: 70, tall: 74 },
    diameter_mm: 71,
    height_mm: 95,
    name: 'half-pint',
    plural: 'half-pints',
    pints: new Fraction(1, 2),
    brim_mL: 255,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
  {
    id: 'three-quarter-pint',
    body_mm: { across: 66, tall: 105 },
    diameter_mm: 72,
    height_mm: 127,
    name: 'three-quarter-pint',
    plural: 'three-quarter-pints',
    pints: new Fraction(3, 4),
    brim_mL: 372,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
  {
    id: 'pint',
    body_mm: { across: 76, tall: 100 },
    diameter_mm: 81,
    height_mm: 127,
    name: 'pint',
    plural: 'pints',
    pints: new Fraction(1),
    brim_mL: 494,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
  {
    id: 'pint-and-a-half',
    body_mm: { across: 76, tall: 145 },
    diameter_mm: 83,
    height_mm: 171,
    name: 'pint-and-a-half',
    plural: 'pint-and-a-halves',
    pints: new Fraction(3, 2),
    brim_mL: 732,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
  {
    id: 'quart',
    body_mm: { across: 91, tall: 140 },
    diameter_mm: 95,
    height_mm: 172,
    name: 'quart',
    plural: 'quarts',
    pints: new Fraction(2),
    brim_mL: 970,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
  {
    id: 'half-gallon',
    body_mm: { across: 108, tall: 200 },
    diameter_mm: 114,
    height_mm: 230,
    name: 'half-gallon',
    plural: 'half-gallons',
    pints: new Fraction(4),
    brim_mL: 1930,
    mouth_mm2: REGULAR_MOUTH_MM2,
  },
];

/** @throws RangeError for a size not in {@link JAR_SIZES} */
export function jarSize(id: JarSizeId): JarSize {
  const size = JAR_SIZES.find(s => s.id === id);
  if (!size) throw new RangeError(`jarSize: no jar size "${id}"`);
  return size;
}

/** What a jar holds below its headspace, in millilitres. */
export function fillVolume_mL(id: JarSizeId, headspace_mm: number): number {
  const size = jarSize(id);
  return size.brim_mL - (headspace_mm * size.mouth_mm2) / 1000;
}

/** "7 pints", "1 half-pint". */
export function jarCountText(count: number, id: JarSizeId): string {
  const size = jarSize(id);
  return `${count} ${count === 1 ? size.name : size.plural}`;
}

/**
 * Jars of several sizes together, in pints.
 *
 * @example
 * pintsOf([{ size: 'half-pint', count: 7 }]).toFraction(true); // '3 1/2'
 */
export function pintsOf(jars: readonly { size: JarSizeId; count: number }[]): Fraction {
  return jars.reduce((sum, j) => sum.add(jarSize(j.size).pints.mul(j.count)), new Fraction(0));
}

/** What the label of a usual jar of a size is measured by: across its body, the height of it, across its lid. */
export function bodyOf(size: JarSizeId): { across_mm: number; tall_mm: number; lid_mm: number } {
  const { body_mm, mouth_mm2 } = jarSize(size);
  return { across_mm: body_mm.across, tall_mm: body_mm.tall, lid_mm: 2 * Math.sqrt(mouth_mm2 / Math.PI) };
}
