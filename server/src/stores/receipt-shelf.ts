import { type LandedLine, type Receipt, typedFacts } from '@cocotte/core/stores';
import type { Kitchen } from '@cocotte/core/kitchen';
import type { Call } from '../house/mount.ts';
import { derivedId, move, movement } from './ledger.ts';
import { nameLots } from './lot-names.ts';
import { type NewLot, insertLots, itemNames } from './queries.ts';
import { arrivalOf } from './service.ts';

/** A receipt that was landed: what its lines cost in the end, and by what it is known again. */
export interface Landed {
  receipt: Receipt;
  landed: LandedLine[];
  total: string;
  fingerprint: string;
}

const INSERT_RECEIPTS = `
  insert into receipts
    (kitchen_id, receipt_id, supplier, day, number, total, fingerprint, body, person_id, created_at)
  select ?, t.*, ?, ?
  from unnest(?::uuid[], ?::text[], ?::date[], ?::text[], ?::numeric[], ?::text[], ?::jsonb[]) t`;

/** A receipt's lots: its lines, at what they cost in the end. */
const lotsOf = ({ receipt, landed }: Landed): (NewLot & { quantity: string })[] =>
  receipt.lines.map((line, i) => {
    const land = landed[i] as LandedLine;
    return {
      id: line.lotId,
      itemId: line.itemId,
      label: line.label,
      supplier: receipt.supplier,
      receivedOn: receipt.day,
      bestBy: line.bestBy,
      unitCost: land.unitCost,
      strength_pct: line.strength_pct,
      openedOn: null,
      receiptId: receipt.id,
      facts: {
        ...typedFacts(line.facts, 'purchase'),
        value: line.pricedBy === 'later' ? 'price to come' : 'paid',
      },
      quantity: land.quantity,
    };
  });

/**
 * Puts landed receipts on the shelf: the one way in, whether a receipt was typed or came in a file with thousands. Each
 * line becomes a lot, and its coming in a movement at the beginning of its day, or now where it is of today. The caller
 * holds the items' locks.
 *
 * @param kitchen  by whose zone an instant has its day, and whose days name a lot that was given no name
 * @returns the receipts, each line with the name of its lot
 */
export async function shelve(
  {
    trx,
    kitchenId,
    person,
    clock,
  }: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId' | 'person' | 'clock'>,
  landed: readonly Landed[],
  { zone, locale }: Pick<Kitchen, 'zone' | 'locale'>,
): Promise<Landed[]> {
  const bare = landed.flatMap(lotsOf);
  const unnamed = bare.some(l => l.label.trim() === '');
  const names = unnamed
    ? await itemNames(
        trx,
        kitchenId,
        bare.map(l => l.itemId),
      )
    : new Map<string, string>();
  const lots = await nameLots(
    trx,
    kitchenId,
    bare.map(l => ({ ...l, name: names.get(l.itemId) ?? '' })),
    { locale },
  );
  const labels = new Map(lots.map(l => [l.id, l.label]));
  const receipts = landed.map(r => ({
    ...r,
    receipt: {
      ...r.receipt,
      lines: r.receipt.lines.map(l => ({ ...l, label: labels.get(l.lotId) ?? l.label })),
    },
  }));
  const now_ms = clock.now_ms();
  const column = <T>(pick: (r: Landed) => T) => receipts.map(pick) as never;
  await trx.raw(INSERT_RECEIPTS, [
    kitchenId,
    person.id,
    new Date(now_ms).toISOString(),
    column(r => r.receipt.id),
    column(r => r.receipt.supplier),
    column(r => r.receipt.day),
    column(r => r.receipt.number),
    column(r => r.total),
    column(r => r.fingerprint),
    column(r => JSON.stringify({ receipt: r.receipt, landed: r.landed })),
  ]);
  await insertLots(trx, kitchenId, lots);
  // A file of thousands has few days, and finding an instant by its zone takes its time.
  const arrivals = new Map<string, string>();
  const arrival = (day: string) => {
    const known = arrivals.get(day) ?? arrivalOf(day, now_ms, zone);
    arrivals.set(day, known);
    return known;
  };
  await move(
    trx,
    kitchenId,
    lots.map(l =>
      movement({
        id: derivedId(l.id, 'received'),
        lotId: l.id,
        quantity: l.quantity,
        unitCost: l.unitCost,
        reason: 'received',
        personId: person.id,
      }),
    ),
    lots.map(l => arrival(l.receivedOn)),
  );
  return receipts;
}
