import type { Moved } from '@cocotte/contract';
import { byName } from '@cocotte/core/measure';
import type { Database, Trx } from './database.ts';
import type { Standing } from './standing.ts';

/** What of a kitchen is counted beside its record. */
export type Counted = Exclude<keyof Moved, 'seq'>;

/** The channel on which servers tell each other which kitchen moved. */
const CHANNEL = 'cocotte_moved';
/** After a word of a kitchen could not be read, it is tried again. */
const AGAIN_MS = 1000;

/** Counts a change of what devices hold of a kitchen, in the transaction that makes it. */
export async function countMoves(trx: Trx, kitchenId: string, moves: readonly Counted[]): Promise<void> {
  await trx('revisions')
    .insert({ kitchen_id: kitchenId, ...byName(moves.map(m => [m, 1])) })
    .onConflict('kitchen_id')
    .merge({ ...byName(moves.map(m => [m, trx.raw(`revisions.${m} + 1`)])) });
}

/** How far a kitchen has come. */
export async function readMoved(trx: Trx, kitchenId: string): Promise<Moved> {
  const row = await trx('heads')
    .leftJoin('revisions', 'revisions.kitchen_id', 'heads.kitchen_id')
    .where('heads.kitchen_id', kitchenId)
    .first('seq', 'recipes', 'stock', 'settings');
  const { seq, recipes, stock, settings } = (row ?? {}) as Partial<Record<keyof Moved, string | null>>;
  return {
    seq: Number(seq ?? 0),
    recipes: Number(recipes ?? 0),
    stock: Number(stock ?? 0),
    settings: Number(settings ?? 0),
  };
}

/** Tells those who listen how far their kitchen has come, whichever server moved it. */
export interface Feed {
  /** Something of a kitchen was written, and is committed. */
  tell(kitchenId: string): void;
  /** Hears of a kitchen until the returned function is called. */
  listen(kitchenId: string, hear: (moved: Moved) => void): () => void;
  /** How many listen. */
  listeners(): number;
}

/**
 * The feed of this server. A word says which kitchen, never what; it is sent after the commit. What is told is then read
 * once for all who listen here. A word that is lost is made up for by whoever listens: they look again by themselves.
 *
 * @param between  the standing connection on which servers hear each other; null for a server that is alone
 */
export function openFeed(database: Database, between: Standing | null): Feed {
  const heard = new Map<string, Set<(moved: Moved) => void>>();
  /** Kitchens that are being read; true when a word came meanwhile. */
  const reading = new Map<string, boolean>();

  const read = (kitchenId: string): void => {
    if (!heard.has(kitchenId)) return;
    if (reading.has(kitchenId)) {
      reading.set(kitchenId, true);
      return;
    }
    reading.set(kitchenId, false);
    database
      .inKitchen(kitchenId, trx => readMoved(trx, kitchenId), { reads: true })
      .then(
        moved => {
          for (const hear of heard.get(kitchenId) ?? []) hear(moved);
        },
        () => void setTimeout(() => read(kitchenId), AGAIN_MS).unref(),
      )
      .finally(() => {
        const again = reading.get(kitchenId) === true;
        reading.delete(kitchenId);
        if (again) read(kitchenId);
      });
  };

  between?.listen(CHANNEL, kitchenId => read(kitchenId));
  // What was said while the connection was away was not heard.
  between?.onBack(() => {
    for (const kitchenId of heard.keys()) read(kitchenId);
  });

  return {
    tell(kitchenId) {
      read(kitchenId);
      between?.say(CHANNEL, kitchenId);
    },
    listen(kitchenId, hear) {
      const ears = heard.get(kitchenId) ?? new Set();
      heard.set(kitchenId, ears.add(hear));
      return () => {
        ears.delete(hear);
        if (ears.size === 0 && heard.get(kitchenId) === ears) heard.delete(kitchenId);
      };
    },
    listeners: () => [...heard.values()].reduce((n, ears) => n + ears.size, 0),
  };
}
