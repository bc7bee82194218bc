import { Decimal } from '../measure/index.ts';
import type { BatchState } from './state.ts';

/** Jars or lids of one lot that were drawn and stand on no jar. */
export interface Unused {
  lotId: string;
  kind: 'jar' | 'lid';
  name: string;
  lotLabel: string;
  count: number;
}

/**
 * Glass and lids that are left once the filling is done: what was drawn, less what came back and what was used. A lid is used
 * with the jar it closes, and a new one with each jar that went in again; of what nobody said which lot it was, the lots of
 * its kind are counted together, so that never more is left than there is.
 */
export function unusedOf(state: Pick<BatchState, 'draws' | 'returns' | 'jars' | 'loads'>): Unused[] {
  const drawn = state.draws.flatMap(d => d.lots).filter(l => l.kind === 'jar' || l.kind === 'lid');
  const back = state.returns.flatMap(r => r.lots);
  const sum = (list: readonly { lotId: string; quantity: string }[], lotId: string) =>
    list
      .filter(l => l.lotId === lotId)
      .reduce((total, l) => total.plus(l.quantity), new Decimal(0))
      .toNumber();
  const again = state.loads
    .filter(l => l.newLidLotId !== null)
    .reduce((total, l) => total + l.jars.length, 0);
  const usedOf = (kind: string, lotId: string) =>
    state.jars.filter(j => (kind === 'jar' ? j.jarLotId : j.lidLotId) === lotId).length;
  const lots = [...new Map(drawn.map(l => [l.lotId, l])).values()];
  return lots.flatMap(({ lotId, kind, name, lotLabel }) => {
    if (kind !== 'jar' && kind !== 'lid') return [];
    const ofKind = lots.filter(l => l.kind === kind);
    const out = ofKind.reduce((total, l) => total + sum(drawn, l.lotId) - sum(back, l.lotId), 0);
    const used = state.jars.length + (kind === 'lid' ? again : 0);
    const count = Math.min(sum(drawn, lotId) - sum(back, lotId) - usedOf(kind, lotId), out - used);
    return count > 0 ? [{ lotId, kind, name, lotLabel, count }] : [];
  });
}
