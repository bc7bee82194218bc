import { Decimal, type Habits, UNITS, moneyText, numberText } from '@cocotte/core/measure';
import {
  BUYING_UNITS,
  type Item,
  type ItemKind,
  type LotSource,
  type MovementReason,
  unitSign,
} from '@cocotte/core/stores';

export const KIND_WORDS: Record<ItemKind, string> = {
  ingredient: 'Ingredient',
  jar: 'Jar',
  lid: 'Lid',
  band: 'Band',
  label: 'Label stock',
  packaging: 'Packaging',
  fuel: 'Fuel',
  tool: 'Tool',
};

export const SOURCE_WORDS: Record<LotSource, string> = {
  purchase: 'bought',
  'own harvest': 'own harvest',
  gift: 'a gift',
  'on the shelf': 'stood on the shelf before stock was kept',
  'made here': 'made here',
  jars: 'finished jars, taken into the kitchen',
  mixed: 'poured together',
};

export const REASON_WORDS: Record<MovementReason, string> = {
  received: 'Came in',
  drawn: 'Drawn',
  'put back': 'Put back',
  counted: 'Counted',
  lost: 'Lost',
  'used up': 'Container empty',
  'returned to supplier': 'Back to the supplier',
  returned: 'Came back',
  'worked up': 'Made into another lot',
  made: 'Made',
  'taken back': 'Receipt taken back',
  priced: 'Its price became known',
};

/** Units that shops sell in, with their signs. */
export const BUYING_UNIT_WORDS = BUYING_UNITS.map(
  u => [u, u === 'each' ? 'pieces' : UNITS[u].symbol || u] as const,
);

const LARGE = 1000;

/** A quantity of an item as people say it: kilograms and litres where grams are many. */
export function stockText(quantity: string, item: Pick<Item, 'unit'>, kitchen: Habits): string {
  const n = Number(quantity);
  if (item.unit === 'each') return numberText(n, kitchen, 0);
  if (Math.abs(n) >= LARGE) return `${numberText(n / LARGE, kitchen, 2)} ${item.unit === 'g' ? 'kg' : 'L'}`;
  return `${numberText(n, kitchen, 1)} ${unitSign(item.unit)}`;
}

/** A quantity of an item in the unit it is counted in: what was drawn, and what differs by little. */
export function quantityText(quantity: string, item: Pick<Item, 'unit'>, kitchen: Habits): string {
  return [numberText(Number(quantity), kitchen), unitSign(item.unit)].filter(Boolean).join(' ');
}

/** What one costs, for a unit that people compare by. */
export function unitCostText(unitCost: string, item: Pick<Item, 'unit'>, kitchen: Habits): string {
  if (item.unit === 'each') return moneyText(unitCost, kitchen);
  return `${moneyText(new Decimal(unitCost).times(LARGE), kitchen)} a ${item.unit === 'g' ? 'kg' : 'L'}`;
}
