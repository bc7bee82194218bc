import { type ShelfItem } from '@cocotte/core/stores';
import { Sheet } from '../kit/parts.tsx';
import { useHere } from '../shell/session.tsx';
import { quantityText } from '../stores/words.ts';
import { say } from '../words/views.ts';
import type { OpenBatch } from './open-batch.ts';

/** What was used without a connection and is not drawn: on its way, or not to be drawn for what it was used for. */
export function Used({ batch, view }: { batch: OpenBatch; view: { shelf: ShelfItem[] } }) {
  const { kitchen } = useHere();
  const open = batch.state.used.filter(u => !u.drawn);
  if (open.length === 0) return null;
  const what = (u: (typeof open)[number]) => {
    const of = view.shelf.find(s => s.lots.some(l => l.id === u.lotId));
    const line = batch.state.started?.recipe.lines.find(l => l.id === u.lineId);
    const lot = of?.lots.find(l => l.id === u.lotId)?.label;
    return `${quantityText(String(u.quantity), u, kitchen)} ${of?.item.name ?? line?.name ?? ''}${lot ? ` (${lot})` : ''}`;
  };
  const waits = open.filter(u => u.by.known === 'waiting');
  const unfit = open.filter(u => u.by.known !== 'waiting');
  return (
    <Sheet>
      {waits.length > 0 && say('used.kept', { what: waits.map(what).join('; ') })}
      {unfit.length > 0 && say('used.unfit', { what: unfit.map(what).join('; ') })}
    </Sheet>
  );
}
