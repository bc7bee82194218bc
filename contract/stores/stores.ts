import type { JarSizeId } from '@cocotte/core/recipes';
import type { Item, ItemKind, Lot } from '@cocotte/core/stores';
import { endpoint } from '../endpoint.ts';
import { jarSizeRule } from '../recipes/recipe-rules.ts';
import { choice, day, decimal, figure, list, maybe, shape, text, uuid } from '../rules.ts';

const kinds = ['ingredient', 'jar', 'lid'] as const;
const item = shape<Item>({
  id: uuid,
  kind: choice<ItemKind>(kinds),
  name: text({ min: 1, max: 80, name: 'The name' }),
  unit: choice(['g', 'mL', 'each'] as const),
  unit_g: maybe(figure({ min: 0.001, max: 20_000, name: 'Grams of one unit' })),
  jarSize: maybe<JarSizeId>(jarSizeRule),
  labelName: text({ max: 80 }),
  subIngredients: text({ max: 300 }),
  allergens: list(text({ min: 1, max: 40 }), { max: 20 }),
});
const quantity = decimal({ min: 0, above: true, max: 10_000_000, name: 'The quantity' });
const lotFields = {
  id: uuid,
  itemId: uuid,
  label: text({ min: 1, max: 40, name: 'The lot name' }),
  supplier: text({ max: 80 }),
  receivedOn: day,
  bestBy: maybe(day),
  unitCost: decimal({ min: 0, max: 100_000, name: 'The cost of one unit' }),
  strength_pct: maybe(figure({ min: 0, max: 30, name: 'The strength in percent' })),
};
const lot = shape<Lot>({ ...lotFields, onHand: decimal({ min: 0, max: 1e12, name: 'What is left' }) });

export const listItems = endpoint({
  name: 'stores.items',
  method: 'GET',
  path: '/api/items',
  who: 'viewer',
  summary: 'Everything the kitchen keeps, by name',
  reply: shape<{ items: Item[] }>({ items: list(item, { max: 2000 }) }),
});
export const addItem = endpoint({
  name: 'stores.addItem',
  method: 'POST',
  path: '/api/items',
  who: 'cook',
  summary: 'Add an ingredient, a jar or a lid',
  body: item,
  reply: item,
});
export interface LotRow {
  lot: Lot;
  item: Item;
}
export const listLots = endpoint({
  name: 'stores.lots',
  method: 'GET',
  path: '/api/lots',
  who: 'viewer',
  summary: 'Lots with something left (or all), newest received first; 30 a page',
  query: shape<{ after: string; search: string; empty: string }>({
    after: text({ max: 200 }),
    search: text({ max: 100 }),
    empty: choice(['', 'yes']) as never,
  }),
  reply: shape<{ lots: LotRow[]; next: string | null }>({
    lots: list(shape<LotRow>({ lot, item }), { max: 50 }),
    next: maybe(text({ max: 200 })),
  }),
});
export type ReceiveLot = Omit<Lot, 'onHand'> & { quantity: string };
export const receiveLot = endpoint({
  name: 'stores.receive',
  method: 'POST',
  path: '/api/lots',
  who: 'cook',
  summary: 'Record a purchase: a lot and what came in',
  body: shape<ReceiveLot>({ ...lotFields, quantity }),
  reply: lot,
});
