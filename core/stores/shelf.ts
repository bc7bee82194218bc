import { type JarSizeId, jarSize } from '../jars/index.ts';
import type { Line } from '../recipes/index.ts';
import { type Item, type ItemKind, serves } from './items.ts';
import type { Lot } from './lots.ts';

/** An item with what is left of it, and what was last paid. */
export interface ShelfItem {
  item: Item;
  /** Lots with something left, in drawing order. */
  lots: Lot[];
  /** Money for one unit of the newest lot there ever was; null before the first. */
  lastCost: string | null;
  /** Money for one unit of the whole stock as the ledger values it; null where there is none. */
  average: string | null;
  /** Wanted by batches that are planned, decimal text. */
  reserved: string;
}

/** The item a line of a recipe is drawn from: one with something left before one without. */
export function shelfFor(
  shelf: readonly ShelfItem[],
  line: Pick<Line, 'ingredientId' | 'name' | 'labelName' | 'role'>,
): ShelfItem | undefined {
  const serving = shelf.filter(s => serves(s.item, line));
  // The library's entry says more than a name, and a whole name more than what the label calls it.
  const byEntry = serving.filter(
    s => s.item.ingredientId !== null && s.item.ingredientId === line.ingredientId,
  );
  const byName = serving.filter(s => s.item.name.toLowerCase() === line.name.toLowerCase());
  return best(byEntry.length > 0 ? byEntry : byName.length > 0 ? byName : serving);
}

/** The item that jars of a size, or lids, bands, labels, packaging or fuel, are drawn from. */
export function shelfOfKind(
  shelf: readonly ShelfItem[],
  kind: ItemKind,
  size: JarSizeId | null = null,
): ShelfItem | undefined {
  return best(shelf.filter(s => s.item.kind === kind && (kind !== 'jar' || s.item.jarSize === size)));
}

/** Lids or bands that fit jars of a size: of the mouth that the jar on the shelf has. */
export function shelfForMouth(
  shelf: readonly ShelfItem[],
  kind: 'lid' | 'band',
  size: JarSizeId,
): ShelfItem | undefined {
  const mouth = shelfOfKind(shelf, 'jar', size)?.item.mouth ?? null;
  const fitting = shelf.filter(
    s => s.item.kind === kind && (mouth === null || s.item.mouth === null || s.item.mouth === mouth),
  );
  return best(fitting) ?? shelfOfKind(shelf, kind);
}

const left = (s: ShelfItem) => s.lots.some(l => Number(l.onHand) > 0);
const best = (list: ShelfItem[]): ShelfItem | undefined =>
  list.find(left) ?? list.find(s => s.lastCost !== null) ?? list[0];

/** What a batch needs of the shelf, by item: quantities in the items' units. */
export interface Need {
  /** Stable name: the line's id, or the kind with its size. */
  key: string;
  title: string;
  line: Line | null;
  kind: ItemKind;
  size: JarSizeId | null;
  /** Jars it is for, by size, where it is one of several items of its kind: lids of one mouth. */
  only: { size: JarSizeId; count: number }[];
  shelf: ShelfItem | undefined;
  /** In the item's unit; 0 where it is decided later. */
  quantity: number;
}

/**
 * Everything a batch takes from the shelf.
 *
 * @param asBought_g  grams as bought of each line, by id
 */
export function needsOf(
  lines: readonly Line[],
  asBought_g: ReadonlyMap<string, number>,
  wantedJars: readonly { size: JarSizeId; count: number }[],
  shelf: readonly ShelfItem[],
): Need[] {
  const needs: Need[] = lines
    .filter(l => l.role !== 'water')
    .map(line => {
      const found = shelfFor(shelf, line);
      const mass_g = asBought_g.get(line.id) ?? 0;
      const quantity = mass_g / (found?.item.unit_g ?? 1);
      return {
        key: line.id,
        title: line.name,
        line,
        kind: 'ingredient',
        size: null,
        only: [],
        shelf: found,
        quantity: found?.item.unit === 'each' ? Math.ceil(quantity - 1e-6) : quantity,
      };
    });
  const wanted = wantedJars.filter(j => j.count > 0);
  for (const { size, count } of wanted)
    needs.push({
      key: `jar ${size}`,
      title: `Jars, ${jarSize(size).name}`,
      line: null,
      kind: 'jar',
      size,
      only: [],
      shelf: shelfOfKind(shelf, 'jar', size),
      quantity: count,
    });
  for (const [kind, title] of [
    ['lid', 'Lids'],
    ['band', 'Bands'],
  ] as const) {
    const byItem = new Map<ShelfItem | undefined, Need['only']>();
    for (const jars of wanted) {
      const found = shelfForMouth(shelf, kind, jars.size);
      byItem.set(found, [...(byItem.get(found) ?? []), jars]);
    }
    for (const [found, only] of byItem)
      if (found || kind === 'lid')
        needs.push({
          key: byItem.size > 1 ? `${kind} ${found?.item.id}` : `${kind}s`,
          title: byItem.size > 1 && found ? found.item.name : title,
          line: null,
          kind,
          size: null,
          only: byItem.size > 1 ? only : [],
          shelf: found,
          quantity: only.reduce((n, j) => n + j.count, 0),
        });
  }
  const total = wanted.reduce((n, j) => n + j.count, 0);
  for (const [kind, title] of [
    ['label', 'Labels'],
    ['packaging', 'Packaging'],
  ] as const) {
    const found = shelfOfKind(shelf, kind);
    if (found)
      needs.push({
        key: `${kind}s`,
        title,
        line: null,
        kind,
        size: null,
        only: [],
        shelf: found,
        quantity: total,
      });
  }
  return needs;
}
