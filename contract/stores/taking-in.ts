import type { Item, Lot, LotFacts } from '@cocotte/core/stores';
import { UNITS, type UnitId } from '@cocotte/core/measure';
import { endpoint } from '../endpoint.ts';
import { choice, day, decimal, figure, list, maybe, shape, text, uuid } from '../rules.ts';
import { factsRule, itemRule, lotRule, quantityRule } from './item-rules.ts';

/** A lot that is put on the shelf as bought today, its price later. */
export interface TakenLot {
  id: string;
  itemId: string;
  /** Empty for a name that the kitchen gives it. */
  label: string;
  bestBy: string | null;
  strength_pct: number | null;
  /** Decimal text in `unit`. */
  quantity: string;
  unit: UnitId;
  facts: LotFacts;
}

/** Make items that the kitchen does not keep yet, each once, and put lots of them on the shelf as bought today, their price later. An item of the same library entry, or of the same kind and name, is taken for it. */
export const takeIn = endpoint({
  name: 'stores.takeIn',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/taken-in',
  who: 'cook',
  summary:
    'Make items that the kitchen does not keep yet, each once, and put lots of them on the shelf as bought today, their price later. An item of the same library entry, or of the same kind and name, is taken for it',
  body: shape<{ items: Item[]; lots: TakenLot[] }>({
    items: list(itemRule, { max: 200 }),
    lots: list(
      shape<TakenLot>({
        id: uuid,
        itemId: uuid,
        label: text({ max: 40 }),
        bestBy: maybe(day),
        strength_pct: maybe(figure({ min: 0, max: 30, name: 'The strength in percent' })),
        quantity: quantityRule,
        unit: choice(Object.keys(UNITS) as UnitId[]),
        facts: factsRule,
      }),
      { max: 200 },
    ),
  }),
  reply: shape<{ items: Item[]; lots: Lot[] }>({
    items: list(itemRule, { max: 200 }),
    lots: list(lotRule, { max: 200 }),
  }),
});

/** Say what a lot cost that came without a price: for all of it. What is left is worth that from now on; batches that drew it are reckoned with it until their cost is stored. */
export const priceLot = endpoint({
  name: 'stores.priceLot',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/lots/:lotId/price',
  who: 'cook',
  summary:
    'Say what a lot cost that came without a price: for all of it. What is left is worth that from now on; batches that drew it are reckoned with it until their cost is stored',
  params: shape<{ lotId: string }>({ lotId: uuid }),
  body: shape<{ price: string }>({ price: decimal({ min: 0, max: 1_000_000, name: 'The price' }) }),
  reply: lotRule,
});
