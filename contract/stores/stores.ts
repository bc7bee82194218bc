import type { Item, Lot, Movement, MovementReason, ShelfItem } from '@cocotte/core/stores';
import { ITEM_KINDS, MOVEMENT_REASONS } from '@cocotte/core/stores';
import { endpoint } from '../endpoint.ts';
import { choice, day, decimal, figure, flag, instant, list, maybe, shape, text, uuid } from '../rules.ts';
import { balanceRule, itemRule, lotFields, lotRule, quantityRule, unitCostRule } from './item-rules.ts';

const money = decimal({ min: -1e12, max: 1e12, places: 18, name: 'The value' });
const next = maybe(text({ max: 200 }));
const reason = text({ min: 3, max: 300, name: 'The reason' });

/** Everything the kitchen keeps, by name. */
export const listItems = endpoint({
  name: 'stores.items',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/items',
  who: 'viewer',
  summary: 'Everything the kitchen keeps, by name',
  reply: shape<{ items: Item[] }>({ items: list(itemRule, { max: 2000 }) }),
});
/** Add something the kitchen keeps. */
export const addItem = endpoint({
  name: 'stores.addItem',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/items',
  who: 'cook',
  summary: 'Add something the kitchen keeps',
  body: itemRule,
  reply: itemRule,
});
/** Change an item; its unit stays while it has lots, a stale version is refused. */
export const changeItem = endpoint({
  name: 'stores.changeItem',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/items/:itemId',
  who: 'cook',
  summary: 'Change an item; its unit stays while it has lots, a stale version is refused',
  params: shape<{ itemId: string }>({ itemId: uuid }),
  body: itemRule,
  reply: itemRule,
});

/** One item on the shelf at an instant. */
export interface StockRow {
  item: Item;
  /** Decimal text in the item's unit. */
  quantity: string;
  /** What it is worth, decimal text. */
  value: string;
  /** Wanted by planned batches; only told for now. */
  reserved: string;
  lots: number;
  /** Label of the open container, or empty. */
  open: string;
  soonestBestBy: string | null;
  belowMinimum: boolean;
  /** A lot of which more was used than the books had, and how much more; null for none. */
  short: { lotId: string; label: string; quantity: string } | null;
}
/** What is on the shelf, by item, now or at a past instant; 40 a page by name; only what is below its minimum, spoils within three weeks, or is short in the books, where asked. */
export const listStock = endpoint({
  name: 'stores.stock',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/stock',
  who: 'viewer',
  summary:
    'What is on the shelf, by item, now or at a past instant; 40 a page by name; only what is below its minimum, spoils within three weeks, or is short in the books, where asked',
  query: shape<{ after: string; search: string; kind: string; only: string; at: string }>({
    after: text({ max: 200 }),
    search: text({ max: 100 }),
    kind: choice(['', ...ITEM_KINDS]) as never,
    only: choice(['', 'below minimum', 'spoiling soon', 'short']) as never,
    at: text({ max: 30 }),
  }),
  reply: shape<{ rows: StockRow[]; next: string | null; below: number; spoiling: number; short: number }>({
    rows: list(
      shape<StockRow>({
        item: itemRule,
        quantity: balanceRule,
        value: money,
        reserved: balanceRule,
        lots: figure({ min: 0, max: 1e9, whole: true, name: 'The lots' }),
        open: text({ max: 40 }),
        soonestBestBy: maybe(day),
        belowMinimum: flag,
        short: maybe(
          shape<NonNullable<StockRow['short']>>({
            lotId: uuid,
            label: text({ max: 40 }),
            quantity: balanceRule,
          }),
        ),
      }),
      { max: 40 },
    ),
    next,
    below: figure({ min: 0, max: 1e9, whole: true, name: 'The count' }),
    spoiling: figure({ min: 0, max: 1e9, whole: true, name: 'The count' }),
    short: figure({ min: 0, max: 1e9, whole: true, name: 'The count' }),
  }),
});

/** A lot with its item. */
export interface LotRow {
  lot: Lot;
  item: Item;
}
const lotRow = shape<LotRow>({ lot: lotRule, item: itemRule });
/** Lots with something left (or all), newest received first, of one item where asked; 30 a page. */
export const listLots = endpoint({
  name: 'stores.lots',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/lots',
  who: 'viewer',
  summary: 'Lots with something left (or all), newest received first, of one item where asked; 30 a page',
  query: shape<{ after: string; search: string; empty: string; itemId: string }>({
    after: text({ max: 200 }),
    search: text({ max: 100 }),
    empty: choice(['', 'yes']) as never,
    itemId: text({ max: 36 }),
  }),
  reply: shape<{ lots: LotRow[]; next: string | null }>({ lots: list(lotRow, { max: 50 }), next }),
});

/** Where a lot went or came from, besides batches and people. */
export interface LotTrace {
  /** Lots this one came out of, and those they came out of, nearest first. */
  from: LotRow[];
  /** Lots that were made or mixed out of it. */
  into: LotRow[];
  /** Batches that drew it. */
  batches: { batchId: string; lotCode: string; name: string; quantity: string }[];
}
/** A movement of a lot, with who made it and the batch it belongs to. */
export interface MovementRow extends Movement {
  person: string;
  batchId: string | null;
  lotCode: string;
}
/** A lot with its item, its movements, and what it came out of and went into. */
export interface LotView extends LotRow {
  movements: MovementRow[];
  trace: LotTrace;
}
/** A lot: what it says of itself, its last 300 movements, and its trace both ways. */
export const readLot = endpoint({
  name: 'stores.lot',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/lots/:lotId',
  who: 'viewer',
  summary: 'A lot: what it says of itself, its last 300 movements, and its trace both ways',
  params: shape<{ lotId: string }>({ lotId: uuid }),
  reply: shape<LotView>({
    lot: lotRule,
    item: itemRule,
    movements: list(
      shape<MovementRow>({
        id: uuid,
        lotId: uuid,
        quantity: balanceRule,
        unitCost: money,
        reason: choice<MovementReason>(MOVEMENT_REASONS),
        note: text({ max: 400 }),
        at: instant,
        person: text({ max: 80 }),
        batchId: maybe(uuid),
        lotCode: text({ max: 40 }),
      }),
      { max: 300 },
    ),
    trace: shape<LotTrace>({
      from: list(lotRow, { max: 200 }),
      into: list(lotRow, { max: 200 }),
      batches: list(
        shape<LotTrace['batches'][number]>({
          batchId: uuid,
          lotCode: text({ max: 40 }),
          name: text({ max: 80 }),
          quantity: balanceRule,
        }),
        { max: 500 },
      ),
    }),
  }),
});

/** A lot that came without a receipt. */
export type ReceiveLot = Omit<Lot, 'onHand' | 'openedOn' | 'receiptId'> & { quantity: string };
/** Record a lot that came without a receipt: own harvest, a gift, what stood on the shelf. */
export const receiveLot = endpoint({
  name: 'stores.receive',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/lots',
  who: 'cook',
  summary: 'Record a lot that came without a receipt: own harvest, a gift, what stood on the shelf',
  body: shape<ReceiveLot>({ ...lotFields, quantity: quantityRule }),
  reply: lotRule,
});

/** A change of a lot that a person enters. */
export interface MoveLot {
  id: string;
  kind: 'count' | 'loss' | 'used up' | 'to supplier' | 'undo used up';
  /** Counted: what is there. Lost or returned: how much. Not read for the others. Decimal text. */
  quantity: string;
  reason: string;
}
/** Count a lot, record a loss or a return to the supplier, or close an empty container; always a movement. */
export const moveLot = endpoint({
  name: 'stores.move',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/lots/:lotId/movements',
  who: 'cook',
  summary:
    'Count a lot, record a loss or a return to the supplier, or close an empty container; always a movement',
  params: shape<{ lotId: string }>({ lotId: uuid }),
  body: shape<MoveLot>({
    id: uuid,
    kind: choice(['count', 'loss', 'used up', 'to supplier', 'undo used up'] as const),
    quantity: decimal({ min: 0, max: 10_000_000, name: 'The quantity' }),
    reason,
  }),
  reply: lotRule,
});
/** A new container is opened: what the one before still held is taken as used up. */
export const openLot = endpoint({
  name: 'stores.open',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/lots/:lotId/opening',
  who: 'cook',
  summary: 'A new container is opened: what the one before still held is taken as used up',
  params: shape<{ lotId: string }>({ lotId: uuid }),
  body: shape<{ id: string }>({ id: uuid }),
  reply: shape<{ lot: Lot; closed: Lot | null }>({ lot: lotRule, closed: maybe(lotRule) }),
});

/** So much of a lot that goes into another. */
export interface PartOf {
  lotId: string;
  quantity: string;
}
const parts = list(shape<PartOf>({ lotId: uuid, quantity: quantityRule }), { min: 1, max: 20 });
/** Lots that were poured together, with what of each is in the bin now. */
export interface MixLots {
  lotId: string;
  label: string;
  parts: PartOf[];
}
/** Pour lots of one item into one container: a mixed lot that traces to all of them. */
export const mixLots = endpoint({
  name: 'stores.mix',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/mixes',
  who: 'cook',
  summary: 'Pour lots of one item into one container: a mixed lot that traces to all of them',
  body: shape<MixLots>({ lotId: uuid, label: text({ min: 1, max: 40, name: 'The lot name' }), parts }),
  reply: lotRule,
});
/** A lot that was made of others: how, out of what, what came out and what it is worth. */
export interface Prepare {
  lotId: string;
  itemId: string;
  label: string;
  how: 'frozen' | 'dried' | 'juice' | 'mixed' | 'other';
  parts: PartOf[];
  quantity: string;
  keepsUntil: string | null;
  /** What it is worth: of what went in, with the work, or a value set by hand. */
  value: 'cost of what went in' | 'cost and work' | 'market value' | 'nothing';
  minutes: number;
  /** For a market value: money for one unit, decimal text. */
  unitCost: string;
  note: string;
}
/** Make a lot of an ingredient without jars: freeze, dry, press, mix; with its yield and keeping limit. */
export const prepareLot = endpoint({
  name: 'stores.prepare',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/preparations',
  who: 'cook',
  summary:
    'Make a lot of an ingredient without jars: freeze, dry, press, mix; with its yield and keeping limit',
  body: shape<Prepare>({
    lotId: uuid,
    itemId: uuid,
    label: text({ min: 1, max: 40, name: 'The lot name' }),
    how: choice(['frozen', 'dried', 'juice', 'mixed', 'other'] as const),
    parts,
    quantity: quantityRule,
    keepsUntil: maybe(day),
    value: choice(['cost of what went in', 'cost and work', 'market value', 'nothing'] as const),
    minutes: figure({ min: 0, max: 1440, name: 'The minutes' }),
    unitCost: unitCostRule,
    note: text({ max: 400 }),
  }),
  reply: lotRule,
});

/** Every item with its lots that have something left in drawing order, what was last paid, and what planned batches keep: what plans, draws and costs are made from. */
export const readShelf = endpoint({
  name: 'stores.shelf',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/shelf',
  who: 'viewer',
  summary:
    'Every item with its lots that have something left in drawing order, what was last paid, and what planned batches keep: what plans, draws and costs are made from',
  reply: shape<{ shelf: ShelfItem[] }>({
    shelf: list(
      shape<ShelfItem>({
        item: itemRule,
        lots: list(lotRule, { max: 5000 }),
        lastCost: maybe(unitCostRule),
        average: maybe(balanceRule),
        reserved: balanceRule,
      }),
      { max: 2000 },
    ),
  }),
});
