import type { Figures } from '@cocotte/core/measure';
import { lotName } from '@cocotte/core/stores';
import type { Trx } from '../house/database.ts';
import type { NewLot } from './queries.ts';

/**
 * Lots with a name each: those that were given none are called after what they are and the day they came.
 *
 * @param lots  with the name of their item
 */
export async function nameLots<L extends NewLot & { name: string }>(
  trx: Trx,
  kitchenId: string,
  lots: readonly L[],
  figures: Figures,
): Promise<(NewLot & Omit<L, 'name'>)[]> {
  const unnamed = lots.filter(l => l.label.trim() === '');
  const rows: { label: string }[] =
    unnamed.length === 0
      ? []
      : await trx('lots')
          .where({ kitchen_id: kitchenId })
          .whereIn('received_on', [...new Set(unnamed.map(l => l.receivedOn))])
          .select('label');
  const taken = new Set([...rows, ...lots].map(l => l.label.toLowerCase()));
  return lots.map(({ name, ...lot }) => {
    if (lot.label.trim() !== '') return lot;
    const label = lotName(name, lot.receivedOn, taken, figures);
    taken.add(label.toLowerCase());
    return { ...lot, label };
  });
}
