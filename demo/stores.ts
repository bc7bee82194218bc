import { randomUUID } from 'node:crypto';
import type { ReceiveLot } from '@cocotte/contract';
import type { Item } from '@cocotte/core/stores';

/** What the made-up kitchen keeps. Prices, suppliers and lots are invented. */
const item = (
  name: string,
  kind: Item['kind'],
  unit: Item['unit'],
  unit_g: number | null,
  more: Partial<Item> = {},
): Item => ({
  id: randomUUID(),
  kind,
  name,
  unit,
  unit_g,
  jarSize: null,
  labelName: name.toLowerCase(),
  subIngredients: '',
  allergens: [],
  ...more,
});

export function demoItems() {
  return {
    plums: item('Red plums', 'ingredient', 'g', 1, { labelName: 'plums' }),
    sugar: item('Sugar', 'ingredient', 'g', 1),
    lemon: item('Bottled lemon juice', 'ingredient', 'mL', 1.03, {
      labelName: 'lemon juice',
      subIngredients: 'lemon juice from concentrate, sulphites',
      allergens: ['sulphites'],
    }),
    beans: item('Yellow wax beans', 'ingredient', 'g', 1, { labelName: 'wax beans' }),
    vinegar: item('White vinegar', 'ingredient', 'mL', 1.01, { labelName: 'vinegar' }),
    salt: item('Canning salt', 'ingredient', 'g', 1, { labelName: 'salt' }),
    dill: item('Dill heads', 'ingredient', 'each', 6, { labelName: 'dill' }),
    garlic: item('Garlic cloves', 'ingredient', 'each', 4.4, { labelName: 'garlic' }),
    flakes: item('Hot pepper flakes', 'ingredient', 'g', 1, { labelName: 'hot pepper' }),
    tomatoes: item('Tomatoes', 'ingredient', 'g', 1, { labelName: 'tomatoes' }),
    halfPints: item('Half-pint jars', 'jar', 'each', null, { jarSize: 'half-pint', labelName: '' }),
    pints: item('Pint jars', 'jar', 'each', null, { jarSize: 'pint', labelName: '' }),
    quarts: item('Quart jars', 'jar', 'each', null, { jarSize: 'quart', labelName: '' }),
    lids: item('Flat lids, regular mouth', 'lid', 'each', null, { labelName: '' }),
  };
}

export type DemoItems = ReturnType<typeof demoItems>;

/** Lots by the item they are of; `day` counts back from the day of seeding. */
export function demoLots(items: DemoItems, day: (back: number) => string): Record<string, ReceiveLot> {
  const lot = (
    key: keyof DemoItems,
    label: string,
    supplier: string,
    back: number,
    quantity: string,
    unitCost: string,
    more: Partial<ReceiveLot> = {},
  ): ReceiveLot => ({
    id: randomUUID(),
    itemId: items[key].id,
    label,
    supplier,
    receivedOn: day(back),
    bestBy: null,
    unitCost,
    strength_pct: null,
    quantity,
    ...more,
  });
  return {
    plumsEarly: lot('plums', 'PL-11', 'Crossing Orchard', 40, '6000', '0.0034'),
    plums: lot('plums', 'PL-14', 'Crossing Orchard', 10, '9000', '0.0031'),
    plumsLate: lot('plums', 'PL-15', 'Crossing Orchard', 1, '12000', '0.0027'),
    sugar: lot('sugar', 'SU-08', 'Tull Dry Goods', 40, '22680', '0.00185'),
    lemon: lot('lemon', 'LJ-03', 'Tull Dry Goods', 60, '3800', '0.0062', { bestBy: day(-240) }),
    beans: lot('beans', 'WB-21', 'Lower Field Farm', 3, '9000', '0.0044'),
    vinegar: lot('vinegar', 'VG-11', 'Tull Dry Goods', 45, '15140', '0.0011', { strength_pct: 5 }),
    vinegarWeak: lot('vinegar', 'VG-07', 'Market find', 90, '3785', '0.0008', { strength_pct: 4 }),
    salt: lot('salt', 'SA-02', 'Tull Dry Goods', 120, '1814', '0.0016'),
    dill: lot('dill', 'DH-05', 'Own garden', 3, '60', '0'),
    garlic: lot('garlic', 'GA-09', 'Lower Field Farm', 20, '90', '0.08'),
    flakes: lot('flakes', 'PF-01', 'Tull Dry Goods', 200, '220', '0.021'),
    tomatoes: lot('tomatoes', 'TO-17', 'Lower Field Farm', 2, '26000', '0.0024'),
    halfPints: lot('halfPints', 'HP-06', 'Alder Crossing Jar Depot', 45, '96', '0.92'),
    pints: lot('pints', 'PT-04', 'Alder Crossing Jar Depot', 30, '84', '1.05'),
    quarts: lot('quarts', 'QT-02', 'Alder Crossing Jar Depot', 80, '24', '1.38'),
    lids: lot('lids', 'LD-12', 'Alder Crossing Jar Depot', 45, '288', '0.21'),
  };
}
