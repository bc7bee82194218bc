import {
  type DrawnLot,
  type GateEvidence,
  type LabelContent,
  LOT_DAYS,
  LOT_PARTS,
  LOT_SEPARATORS,
  type LotPattern,
  PURPOSES,
  type StartedBody,
  type StartKeys,
} from '@cocotte/core/batches';
import { PLACE_RULES } from '@cocotte/core/kitchen';
import type { JarsWanted } from '@cocotte/core/recipes';
import { ITEM_KINDS } from '@cocotte/core/stores';
import { holdsRule } from '../kitchen/canners.ts';
import { costsRule } from '../kitchen/costs.ts';
import { jarSizeRule, recipeRule, routeRule, timeRule } from '../recipes/recipe-rules.ts';
import {
  type Rule,
  choice,
  day,
  decimal,
  figure,
  flag,
  instant,
  list,
  maybe,
  shape,
  text,
  uuid,
} from '../rules.ts';
import { placeLabelRule } from '../kitchen/place-label.ts';

/** The rules of a body, one for each shape it ever had; the last is today's. */
export type Shapes<T> = readonly [...Rule<unknown>[], Rule<T>];
/** A line of a recipe, by its id. */
export const lineId = text({ min: 1, max: 40 });
/** A pot, a canner, a burner or an instrument, by the kitchen's own id. */
export const thingId = text({ min: 1, max: 60 });
/** Money for one base unit. */
export const unitCost = decimal({ min: 0, max: 1e9, places: 18, name: 'The cost of one unit' });
const money = decimal({ min: 0, max: 1e9, name: 'The amount of money' });

/** Rule of jars that are wanted: so many of each size. */
export const jarsWantedRule = list(
  shape<JarsWanted>({
    size: jarSizeRule,
    count: figure({ min: 0, max: 500, whole: true, name: 'The jars' }),
  }),
  { min: 1, max: 6 },
);

const drawnFields = {
  lotId: uuid,
  itemId: uuid,
  kind: choice(ITEM_KINDS),
  name: text({ max: 80 }),
  lotLabel: text({ max: 40 }),
  lineId: maybe(lineId),
  jarSize: maybe(jarSizeRule),
  quantity: decimal({ min: 0, max: 1e9, name: 'The quantity' }),
  unit: choice(['g', 'mL', 'each'] as const),
  unitCost,
  mass_g: maybe(figure({ min: 0, max: 1e9, name: 'The mass' })),
  labelName: text({ max: 80 }),
  subIngredients: text({ max: 4000 }),
  allergens: list(text({ max: 40 }), { max: 20 }),
};
/** Rule of one lot drawn, before it said its own waste. */
export const drawnLotBefore = shape<Omit<DrawnLot, 'trimYield'>>(drawnFields);
/** Rule of one lot drawn. */
export const drawnLot = shape<DrawnLot>({
  ...drawnFields,
  trimYield: maybe(figure({ min: 0, above: true, max: 1, name: 'The share that is ready' })),
});
/** Rule of a condition kept with a release. */
export const evidence = shape<GateEvidence>({
  code: text({ max: 200 }),
  title: text({ max: 200 }),
  evidence: text({ max: 1000 }),
});
const labelFields = {
  statementOfIdentity: text({ max: 80 }),
  ingredients: text({ max: 4000 }),
  contains: text({ max: 400 }),
  netContents: text({ max: 80 }),
  maker: text({ max: 80 }),
  address: text({ max: 160 }),
  lotCode: text({ max: 40 }),
  madeOn: day,
  bestBy: day,
  readyFrom: maybe(day),
  statement: text({ max: 300 }),
  notForSale: flag,
};
const before = { ...labelFields, directions: text({ max: 200 }) };
/** Rule of what a label says: of the first shape, which had no directions, of the second, and of today's. */
export const labels = {
  first: shape<never>(labelFields as never),
  second: shape<never>(before as never),
  today: shape<LabelContent>({
    ...before,
    emphasised: list(text({ max: 80 }), { max: 60 }),
    shares: text({ max: 200 }),
    net: shape<LabelContent['net']>({
      unit: choice(['g', 'mL'] as const),
      amount: figure({ min: 0, max: 1e6, name: 'The net contents' }),
    }),
    registration: text({ max: 60 }),
    keeping: text({ max: 200 }),
    words: text({ max: 400 }),
    nutrition: text({ max: 800 }),
    locale: text({ max: 40 }),
    place: maybe(
      shape<NonNullable<LabelContent['place']>>({
        id: text({ max: 40 }),
        name: text({ max: 120 }),
        version: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
      }),
    ),
    asks: placeLabelRule,
  }),
};
const startedFields: {
  [
    K in keyof Omit<StartedBody, 'potId' | 'equipment' | 'keys' | 'phAct' | 'phForecast' | 'lotPattern'>
  ]-?: Rule<StartedBody[K]>;
} = {
  recipeId: uuid,
  recipeVersion: figure({ min: 1, max: 1e6, name: 'The version' }),
  recipe: recipeRule,
  factor: text({ max: 60 }),
  jars: jarsWantedRule,
  purpose: choice(PURPOSES),
  lotCode: text({ max: 40 }),
  madeOn: day,
  kitchen: shape<StartedBody['kitchen']>({
    name: text({ max: 80 }),
    altitude_m: figure({ min: -500, max: 11_000, name: 'The altitude' }),
    zone: text({ max: 60 }),
    locale: text({ max: 20 }),
    currency: text({ max: 3 }),
    hourlyRate: money,
    thermometerError_C: figure({ min: -5, max: 5, name: 'The thermometer error' }),
    costs: costsRule,
  }),
  boilingPoint_C: figure({ min: 50, max: 110, name: 'The boiling point' }),
  gelPoint_C: figure({ min: 50, max: 120, name: 'The gel point' }),
  times: list(timeRule, { max: 8 }),
  noTime: list(
    shape<StartedBody['noTime'][number]>({
      size: jarSizeRule,
      what: text({ max: 400 }),
      why: text({ max: 600 }),
    }),
    { max: 8 },
  ),
  route: routeRule,
  phLimit: figure({ min: 2, max: 4.6, name: 'The pH limit' }),
  heat: choice(['boiling water', 'steam'] as const),
  pots: shape<StartedBody['pots']>({
    count: figure({ min: 1, max: 100, whole: true, name: 'The pots' }),
    each: text({ max: 60 }),
    overridden: flag,
    reasons: list(text({ max: 200 }), { max: 4 }),
  }),
  expected: maybe(
    shape<NonNullable<StartedBody['expected']>>({
      pints: figure({ min: 0, max: 100_000, name: 'The pints' }),
      final_g: maybe(figure({ min: 0, max: 10_000_000, name: 'The mass' })),
      solids_pct: maybe(figure({ min: 0, max: 100, name: 'The solids' })),
      cook_min: maybe(figure({ min: 0, max: 100_000, name: 'The minutes' })),
      foreseen: flag,
    }),
  ),
};
const thing = shape<{ id: string; name: string }>({ id: text({ max: 60 }), name: text({ max: 80 }) });
const withEquipment = {
  ...startedFields,
  potId: maybe(thingId),
  equipment: shape<never>({
    pots: list(thing, { max: 100 }),
    canners: list(thing, { max: 100 }),
  } as never),
};
/** Canners with what stood in them then. */
const equipment = shape<StartedBody['equipment']>({
  pots: list(thing, { max: 100 }),
  canners: list(
    shape<StartedBody['equipment']['canners'][number]>({
      id: text({ max: 60 }),
      name: text({ max: 80 }),
      kind: maybe(choice(['boiling water', 'steam'] as const)),
      holds: maybe(holdsRule),
    }),
    { max: 100 },
  ),
});
const keys = shape<StartKeys>({
  page: maybe(
    shape<NonNullable<StartKeys['page']>>({
      subject: text({ max: 400 }),
      edition: text({ max: 120 }),
      page: text({ max: 120 }),
      personId: uuid,
      confirmedAt: instant,
      demo: flag,
    }),
  ),
  place: shape<StartKeys['place']>({
    id: text({ max: 40 }),
    name: text({ max: 120 }),
    version: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
    rule: choice(PLACE_RULES),
  }),
});
const anyPh = figure({ min: 0, max: 14, name: 'The pH' });
const forecast = {
  phAct: figure({ min: 2, max: 4.6, name: 'The pH it acts at' }),
  phForecast: maybe(shape<NonNullable<StartedBody['phForecast']>>({ low: anyPh, mid: anyPh, high: anyPh })),
};
/** Rule of how lot codes are put together. */
export const lotPatternRule = shape<LotPattern>({
  parts: list(choice(LOT_PARTS), { max: LOT_PARTS.length }),
  day: choice(LOT_DAYS),
  separator: choice(LOT_SEPARATORS),
  leftOut: text({ max: 26, name: 'The letters left out' }),
  load: flag,
});
/** What a batch is started with, in every shape it ever had. */
export const started: Shapes<StartedBody> = [
  shape<never>(startedFields as never),
  shape<never>(withEquipment as never),
  shape<never>({ ...withEquipment, keys: maybe(keys) } as never),
  shape<never>({ ...withEquipment, equipment, keys: maybe(keys) } as never),
  shape<never>({ ...withEquipment, equipment, keys: maybe(keys), ...forecast } as never),
  shape<StartedBody>({
    ...withEquipment,
    equipment,
    keys: maybe(keys),
    ...forecast,
    lotPattern: maybe(lotPatternRule),
  }),
];
