import { libraryOf, usualTrim } from '../ingredients/index.ts';
import type { Line } from '../recipes/index.ts';
import type { Item } from './items.ts';
import type { Lot } from './lots.ts';

const shipped = new Map(libraryOf([]).map(i => [i.id, i]));

/**
 * The share of a lot that is ready for the pot where it is another than that of the line: what was made here or bought frozen
 * is ready, another ingredient (from a can, a paste, juice) has its own waste.
 *
 * @returns null where the line's own share stands
 * @source ready as it is: common practice; waste of an ingredient: the library
 */
export function ownYield(
  item: Pick<Item, 'ingredientId'>,
  lot: Pick<Lot, 'facts'>,
  line: Pick<Line, 'ingredientId' | 'trimYield'> | null,
): number | null {
  if (line === null) return null;
  const { source, condition } = lot.facts;
  const other = item.ingredientId === line.ingredientId ? undefined : shipped.get(item.ingredientId ?? '');
  const own =
    source === 'made here' || source === 'jars' || condition === 'frozen' ? 1 : other && usualTrim(other);
  return own === undefined || own === line.trimYield ? null : own;
}
