import type { JarSizeId } from '@cocotte/core/jars';
import {
  CONDITIONS,
  type Item,
  ITEM_KINDS,
  ITEM_USES,
  JUICE_KINDS,
  type Lot,
  LOT_SOURCES,
  type LotFacts,
  type LotPart,
  MOUTHS,
  SALT_KINDS,
  type ShopPackage,
  TOOL_STATES,
  UNIT_COST_PLACES,
  VALUE_RULES,
} from '@cocotte/core/stores';
import { jarSizeRule } from '../recipes/recipe-rules.ts';
import { choice, day, decimal, figure, flag, list, maybe, shape, text, union, uuid } from '../rules.ts';

/** What an item and a lot may say. */
const unit = choice(['g', 'mL', 'each'] as const);
const allergens = list(text({ min: 1, max: 40 }), { max: 20 });
/** Rule of a quantity above nothing, decimal text. */
export const quantityRule = decimal({ min: 0, above: true, max: 10_000_000, name: 'The quantity' });
/** Rule of what is left: nothing or more. */
export const balanceRule = decimal({ min: -1e12, max: 1e12, places: UNIT_COST_PLACES, name: 'The balance' });
/** Rule of what one unit costs, decimal text. */
export const unitCostRule = decimal({
  min: 0,
  max: 100_000,
  places: UNIT_COST_PLACES,
  name: 'The cost of one unit',
});

/** Rule of an item. */
export const itemRule = shape<Item>({
  id: uuid,
  kind: choice(ITEM_KINDS),
  name: text({ min: 1, max: 80, name: 'The name' }),
  unit,
  unit_g: maybe(figure({ min: 0.001, max: 20_000, name: 'Grams of one unit' })),
  density_gPerMl: maybe(figure({ min: 0.005, max: 3, name: 'Grams in a millilitre' })),
  bushel_g: maybe(figure({ min: 500, max: 60_000, name: 'Grams of a bushel' })),
  ingredientId: maybe(text({ min: 1, max: 60 })),
  use: choice(ITEM_USES),
  jarSize: maybe<JarSizeId>(jarSizeRule),
  mouth: maybe(choice(MOUTHS)),
  brim_mL: maybe(figure({ min: 20, max: 10_000, name: 'The volume to the brim in mL' })),
  tare_g: maybe(figure({ min: 1, max: 5000, name: 'The empty weight in grams' })),
  labelName: text({ max: 80 }),
  subIngredients: text({ max: 300 }),
  allergens,
  minimum: maybe(decimal({ min: 0, max: 10_000_000, name: 'The least to have' })),
  packages: list(
    shape<ShopPackage>({
      name: text({ min: 1, max: 40, name: 'The package' }),
      quantity: decimal({ min: 0, above: true, max: 10_000_000, name: 'What a package holds' }),
    }),
    { max: 10 },
  ),
  leadTime_days: figure({ min: 0, max: 365, whole: true, name: 'The days until it is here' }),
  toolState: maybe(choice(TOOL_STATES)),
  version: figure({ min: 1, max: 1e9, whole: true, name: 'The version' }),
});

const part = union<LotPart>('kind', {
  lot: shape<Extract<LotPart, { kind: 'lot' }>>({
    kind: choice(['lot']),
    lotId: uuid,
    label: text({ max: 40 }),
    name: text({ max: 80 }),
    quantity: quantityRule,
    unit,
  }),
  jars: shape<Extract<LotPart, { kind: 'jars' }>>({
    kind: choice(['jars']),
    batchId: uuid,
    lotCode: text({ max: 40 }),
    name: text({ max: 80 }),
    jars: list(figure({ min: 1, max: 2000, whole: true, name: 'A jar number' }), { min: 1, max: 500 }),
  }),
  pot: shape<Extract<LotPart, { kind: 'pot' }>>({
    kind: choice(['pot']),
    batchId: uuid,
    lotCode: text({ max: 40 }),
    name: text({ max: 80 }),
    mass_g: figure({ min: 0, above: true, max: 1_000_000, name: 'What was taken in grams' }),
  }),
});

/** Rule of what a lot says of itself. */
export const factsRule = shape<LotFacts>({
  source: choice(LOT_SOURCES),
  supplierLot: text({ max: 60 }),
  value: choice(VALUE_RULES),
  salt: maybe(choice(SALT_KINDS)),
  juice: maybe(choice(JUICE_KINDS)),
  condition: maybe(choice(CONDITIONS)),
  pickedOn: maybe(day),
  subIngredients: text({ max: 4000 }),
  allergens,
  from: list(part, { max: 40 }),
  released: flag,
  ph: maybe(figure({ min: 0, max: 14, name: 'The pH' })),
  note: text({ max: 400 }),
});

/** Rules of what every lot has. */
export const lotFields = {
  id: uuid,
  itemId: uuid,
  /** Empty for a name that the kitchen gives it. */
  label: text({ max: 40, name: 'The lot name' }),
  supplier: text({ max: 80 }),
  receivedOn: day,
  bestBy: maybe(day),
  unitCost: unitCostRule,
  strength_pct: maybe(figure({ min: 0, max: 30, name: 'The strength in percent' })),
  facts: factsRule,
};
/** Rule of a lot as it is told. */
export const lotRule = shape<Lot>({
  ...lotFields,
  onHand: balanceRule,
  openedOn: maybe(day),
  receiptId: maybe(uuid),
});
