import { randomUUID } from 'node:crypto';
import { addItem, receiveLot } from '@cocotte/contract';
import {
  type Item,
  type LotFacts,
  type Receipt,
  type ReceiptLine,
  plainFacts,
  upgradeItem,
} from '@cocotte/core/stores';
import type { Client } from './test-server.ts';

/** Items, lots and receipts with sensible defaults, put on a shelf through the API. */
export async function newItem(client: Client, over: Partial<Item> = {}): Promise<Item> {
  return client.ok(addItem, {
    body: upgradeItem({
      id: randomUUID(),
      kind: 'ingredient',
      name: `Item ${randomUUID().slice(0, 6)}`,
      unit: 'g',
      unit_g: 1,
      labelName: 'thing',
      ...over,
    }),
  });
}

export const receiptLine = (item: Item, over: Partial<ReceiptLine> = {}): ReceiptLine => ({
  id: randomUUID(),
  itemId: item.id,
  packages: '1',
  quantity: '1000',
  unit: 'g',
  price: '10',
  pricedBy: 'line',
  discount: '0',
  taxed: true,
  lotId: randomUUID(),
  label: 'L-1',
  bestBy: null,
  strength_pct: null,
  facts: plainFacts(),
  ...over,
});
export const receiptOf = (lines: ReceiptLine[], over: Partial<Receipt> = {}): Receipt => ({
  id: randomUUID(),
  supplier: 'Depot',
  day: '2026-11-20',
  number: randomUUID().slice(0, 8),
  lines,
  discount: '0',
  tax: '0',
  delivery: '0',
  ...over,
});

export async function newLot(
  client: Client,
  item: Item,
  quantity: string,
  over: {
    receivedOn?: string;
    unitCost?: string;
    label?: string;
    bestBy?: string;
    facts?: Partial<LotFacts>;
    strength_pct?: number;
  } = {},
) {
  const { facts, ...rest } = over;
  return client.ok(receiveLot, {
    body: {
      id: randomUUID(),
      itemId: item.id,
      label: 'L',
      supplier: 'S',
      receivedOn: '2026-11-01',
      bestBy: null,
      unitCost: '0.01',
      strength_pct: null,
      facts: plainFacts(facts),
      quantity,
      ...rest,
    },
  });
}
export const moveOf = (
  lotId: string,
  kind: 'count' | 'loss' | 'used up' | 'to supplier' | 'undo used up',
  quantity = '0',
  id = randomUUID(),
) => ({
  params: { lotId },
  body: { id, kind, quantity, reason: 'a good reason' },
});
