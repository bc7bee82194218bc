import type { ShelfItem } from './shelf.ts';

/**
 * The shelf without lots that are not to be proposed: of an item of which nothing else is left, they stay in sight.
 *
 * @param lotIds  such as lid lots that fail more often than the others
 */
export function avoiding(shelf: readonly ShelfItem[], lotIds: ReadonlySet<string>): ShelfItem[] {
  if (lotIds.size === 0) return [...shelf];
  return shelf.map(s => {
    const rest = s.lots.filter(l => !lotIds.has(l.id));
    return rest.length === 0 || rest.length === s.lots.length ? s : { ...s, lots: rest };
  });
}
