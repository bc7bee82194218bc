import { randomUUID } from 'node:crypto';
import type { ReceiveLot } from '@cocotte/contract';
import { type Item, type Receipt, type ReceiptLine, plainFacts, upgradeItem } from '@cocotte/core/stores';

/** What the made-up kitchen keeps. Prices, suppliers and lots are invented. */
const item = (
  name: string,
  kind: Item['kind'],
  unit: Item['unit'],
  unit_g: number | null,
  more: Partial<Item> = {},
): Item =>
  upgradeItem({ id: randomUUID(), kind, name, unit, unit_g, labelName: name.toLowerCase(), ...more });
const ingredient = (name: string, unit: Item['unit'], unit_g: number, more: Partial<Item> = {}) =>
  item(name, 'ingredient', unit, unit_g, more);
const counted = (name: string, kind: Item['kind'], more: Partial<Item> = {}) =>
  item(name, kind, 'each', null, { labelName: '', ...more });
const packs = (...list: [name: string, quantity: string][]) =>
  list.map(([name, quantity]) => ({ name, quantity }));

export function demoItems() {
  return {
    plums: ingredient('Red plums', 'g', 1, {
      labelName: 'plums',
      ingredientId: 'plum',
      use: 'produce',
      bushel_g: 25_400,
    }),
    sugar: ingredient('Sugar', 'g', 1, {
      ingredientId: 'sugar',
      density_gPerMl: 0.845,
      minimum: '10000',
      packages: packs(['10 lb bag', '4535.92'], ['25 lb sack', '11339.81']),
    }),
    lemon: ingredient('Bottled lemon juice', 'mL', 1.03, {
      labelName: 'lemon juice',
      subIngredients: 'lemon juice from concentrate, sulphites',
      allergens: ['sulphites'],
      ingredientId: 'bottled-lemon',
      use: 'citrus juice',
      packages: packs(['32 fl oz bottle', '946']),
    }),
    beans: ingredient('Yellow wax beans', 'g', 1, { labelName: 'wax beans', use: 'produce' }),
    vinegar: ingredient('White vinegar', 'mL', 1.01, {
      labelName: 'vinegar',
      ingredientId: 'white-vinegar',
      use: 'vinegar',
      minimum: '8000',
      packages: packs(['gallon jug', '3785.41']),
    }),
    salt: ingredient('Canning salt', 'g', 1, {
      labelName: 'salt',
      use: 'salt',
      packages: packs(['4 lb box', '1814.37']),
    }),
    dill: ingredient('Dill heads', 'each', 6, { labelName: 'dill' }),
    garlic: ingredient('Garlic cloves', 'each', 4.4, { labelName: 'garlic' }),
    flakes: ingredient('Hot pepper flakes', 'g', 1, { labelName: 'hot pepper' }),
    tomatoes: ingredient('Tomatoes', 'g', 1, { labelName: 'tomatoes', use: 'produce', bushel_g: 24_040 }),
    frozenPlums: ingredient('Frozen plums, stoned', 'g', 1, { labelName: 'plums', use: 'produce' }),
    halfPints: counted('Half-pint jars', 'jar', {
      jarSize: 'half-pint',
      mouth: 'regular',
      brim_mL: 255,
      tare_g: 176,
      minimum: '130',
      packages: packs(['case of 12', '12']),
      leadTime_days: 5,
    }),
    pints: counted('Pint jars', 'jar', {
      jarSize: 'pint',
      mouth: 'regular',
      brim_mL: 494,
      tare_g: 255,
      packages: packs(['case of 12', '12']),
      leadTime_days: 5,
    }),
    quarts: counted('Quart jars', 'jar', {
      jarSize: 'quart',
      mouth: 'regular',
      brim_mL: 976,
      tare_g: 400,
      packages: packs(['case of 12', '12']),
    }),
    lids: counted('Flat lids, regular mouth', 'lid', {
      mouth: 'regular',
      minimum: '100',
      packages: packs(['sleeve of 60', '60']),
      leadTime_days: 5,
    }),
    bands: counted('Bands, regular mouth', 'band', { mouth: 'regular' }),
    labels: counted('Labels, letter sheet of ten', 'label', { packages: packs(['pack of 250', '250']) }),
    bags: counted('Paper bags', 'packaging', { packages: packs(['bundle of 50', '50']) }),
    gas: item('Bottled gas', 'fuel', 'g', 1, { labelName: '', packages: packs(['20 lb bottle', '9071.85']) }),
    funnel: counted('Wide funnel', 'tool', { toolState: 'good' }),
    lifter: counted('Jar lifter', 'tool', { toolState: 'worn' }),
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
    facts: plainFacts(
      items[key].use === 'produce'
        ? { condition: 'sound' }
        : items[key].use === 'salt'
          ? { salt: 'canning' }
          : items[key].use === 'citrus juice'
            ? { juice: 'bottled' }
            : {},
    ),
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
    dill: lot('dill', 'DH-05', 'Own garden', 3, '60', '0', {
      facts: plainFacts({ source: 'own harvest', value: 'nothing' }),
    }),
    garlic: lot('garlic', 'GA-09', 'Lower Field Farm', 20, '90', '0.08'),
    flakes: lot('flakes', 'PF-01', 'Tull Dry Goods', 200, '220', '0.021'),
    tomatoes: lot('tomatoes', 'TO-17', 'Lower Field Farm', 2, '26000', '0.0024'),
    halfPints: lot('halfPints', 'HP-06', 'Alder Crossing Jar Depot', 45, '96', '0.92'),
    pints: lot('pints', 'PT-04', 'Alder Crossing Jar Depot', 30, '84', '1.05'),
    quarts: lot('quarts', 'QT-02', 'Alder Crossing Jar Depot', 80, '24', '1.38'),
    lids: lot('lids', 'LD-12', 'Alder Crossing Jar Depot', 45, '288', '0.21'),
    bands: lot('bands', 'BD-03', 'Alder Crossing Jar Depot', 45, '180', '0.11'),
    labels: lot('labels', 'LB-02', 'Tull Dry Goods', 60, '500', '0.06'),
    bags: lot('bags', 'BG-01', 'Tull Dry Goods', 60, '100', '0.09'),
    gas: lot('gas', 'GB-04', 'Mill Lane Hardware', 42, '9071', '0.0024'),
  };
}

/** Receipts of the last weeks, invented like all of it. */
export function demoReceipts(items: DemoItems, day: (ahead: number) => string): Receipt[] {
  const line = (
    key: keyof DemoItems,
    label: string,
    packages: string,
    quantity: string,
    unit: ReceiptLine['unit'],
    price: string,
    more: Partial<ReceiptLine> = {},
  ): ReceiptLine => ({
    id: randomUUID(),
    itemId: items[key].id,
    packages,
    quantity,
    unit,
    price,
    pricedBy: 'package',
    discount: '0',
    taxed: true,
    lotId: randomUUID(),
    label,
    bestBy: null,
    strength_pct: null,
    facts: plainFacts(),
    ...more,
  });
  const receipt = (
    supplier: string,
    back: number,
    number: string,
    lines: ReceiptLine[],
    more: Partial<Receipt> = {},
  ): Receipt => ({
    id: randomUUID(),
    supplier,
    day: day(-back),
    number,
    lines,
    discount: '0',
    tax: '0',
    delivery: '0',
    ...more,
  });
  return [
    receipt(
      'Tull Dry Goods',
      6,
      'T-20418',
      [
        line('sugar', 'SU-09', '1', '25', 'lb', '19.90', { bestBy: day(540) }),
        line('vinegar', 'VG-12', '2', '1', 'gallon', '4.15', { strength_pct: 5 }),
        line('salt', 'SA-03', '1', '4', 'lb', '3.29', {
          facts: plainFacts({ salt: 'canning', supplierLot: 'B2291' }),
        }),
      ],
      { discount: '2.00', tax: '1.62' },
    ),
    receipt(
      'Alder Crossing Jar Depot',
      12,
      '7731',
      [
        line('halfPints', 'HP-07', '6', '12', 'each', '10.80'),
        line('lids', 'LD-13', '2', '60', 'each', '12.30'),
      ],
      { delivery: '7.50' },
    ),
    receipt('Crossing Orchard', 2, '', [
      line('plums', 'PL-16', '1', '1', 'bushel', '56.00', {
        bestBy: day(4),
        facts: plainFacts({ condition: 'ripe', pickedOn: day(-3) }),
      }),
    ]),
  ];
}
