import { type Habits, numberText } from '@cocotte/core/measure';
import type { ShelfItem } from '@cocotte/core/stores';
import { stockText } from '../stores/words.ts';
import type { drawingOf } from './draws.ts';

/** Lots of one item, as they are chosen from. */
export const lotsToChoose = (shelf: ShelfItem | undefined, words: string, kitchen: Habits) =>
  (shelf?.lots ?? []).map(
    lot =>
      [
        lot.id,
        `${words} ${lot.label}${lot.strength_pct === null ? '' : `, ${numberText(lot.strength_pct, kitchen)} %`} (${shelf ? stockText(lot.onHand, shelf.item, kitchen) : lot.onHand} left)`,
      ] as const,
  );

/** In words, which lots a quantity comes from. */
export function autoWords({
  need,
  drawing,
}: {
  need: { shelf: { lots: { label: string; openedOn: string | null }[] } | undefined };
  drawing: ReturnType<typeof drawingOf> | null;
}): string {
  if (drawing?.ok && drawing.value.lots.length > 0) {
    const open = new Set(need.shelf?.lots.filter(l => l.openedOn !== null).map(l => l.label));
    return drawing.value.lots.map(l => `${l.label}${open.has(l.label) ? ' (open)' : ''}`).join(', then ');
  }
  const first = need.shelf?.lots[0];
  return first ? `${first.label}${first.openedOn === null ? '' : ' (open)'}` : 'nothing left';
}
