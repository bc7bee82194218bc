import { JAR_SIZES, type JarSizeId } from '../jars/index.ts';
import { type Item, type Mouth, MOUTHS, upgradeItem } from './items.ts';

/** Jars of a size and mouth that a kitchen may use. */
export interface UsualJar {
  id: string;
  name: string;
  size: JarSizeId;
  mouth: Mouth;
}

/** Sizes that are sold with a regular mouth, with a wide one, or with both. Common practice, no source. */
const SOLD: readonly [size: JarSizeId, mouths: readonly Mouth[]][] = [
  ['quarter-pint', ['regular']],
  ['half-pint', ['regular', 'wide']],
  ['pint', ['regular', 'wide']],
  ['pint-and-a-half', ['wide']],
  ['quart', ['regular', 'wide']],
];

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Jars as most kitchens have them, the smallest first. */
export const USUAL_JARS: readonly UsualJar[] = SOLD.flatMap(([size, mouths]) =>
  mouths.map(mouth => ({
    id: `${size} ${mouth}`,
    name: `${capital(JAR_SIZES.find(s => s.id === size)?.name ?? size)} jars, ${mouth} mouth`,
    size,
    mouth,
  })),
);

/**
 * Items of the jars a kitchen uses and of the lids that fit them, a lid for each mouth among them.
 *
 * @param ids  of {@link USUAL_JARS}; others are passed over
 * @param newId  makes the id of each item
 */
export function jarsInUse(ids: ReadonlySet<string>, newId: () => string): Item[] {
  const chosen = USUAL_JARS.filter(j => ids.has(j.id));
  const item = (kind: 'jar' | 'lid', name: string, mouth: Mouth, jarSize: JarSizeId | null): Item => ({
    ...upgradeItem({ id: newId(), kind, name, unit: 'each' }),
    mouth,
    jarSize,
  });
  return [
    ...chosen.map(j => item('jar', j.name, j.mouth, j.size)),
    ...MOUTHS.filter(m => chosen.some(j => j.mouth === m)).map(m => item('lid', `Lids, ${m} mouth`, m, null)),
  ];
}
