import { Fraction } from '../measure/index.ts';

export type JarSizeId = 'quarter-pint' | 'half-pint' | 'pint' | 'quart';

export interface JarSize {
  id: JarSizeId;
  /** As people say it: one, many. */
  name: string;
  plural: string;
  /** Nominal volume in US pints, exact. */
  pints: Fraction;
}

/** The jar sizes this book knows, smallest first. Nominal US volumes; common practice. */
export const JAR_SIZES: readonly JarSize[] = [
  { id: 'quarter-pint', name: 'quarter-pint', plural: 'quarter-pints', pints: new Fraction(1, 4) },
  { id: 'half-pint', name: 'half-pint', plural: 'half-pints', pints: new Fraction(1, 2) },
  { id: 'pint', name: 'pint', plural: 'pints', pints: new Fraction(1) },
  { id: 'quart', name: 'quart', plural: 'quarts', pints: new Fraction(2) },
];

/** @throws RangeError for a size not in {@link JAR_SIZES} */
export function jarSize(id: JarSizeId): JarSize {
  const size = JAR_SIZES.find(s => s.id === id);
  if (!size) throw new RangeError(`jarSize: no jar size "${id}"`);
  return size;
}

/** "7 pints", "1 half-pint". */
export function jarCountText(count: number, id: JarSizeId): string {
  const size = jarSize(id);
  return `${count} ${count === 1 ? size.name : size.plural}`;
}
