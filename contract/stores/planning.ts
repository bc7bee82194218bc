import {
  type CostInput,
  type CostLine,
  type CostSheet,
  COST_PARTS,
  ITEM_KINDS,
  type PlannedBatch,
  SHARINGS,
  type ShoppingLine,
} from '@cocotte/core/stores';
import type { JarSizeId } from '@cocotte/core/jars';
import { jarsWantedRule } from '../batches/decision-rules.ts';
import { endpoint } from '../endpoint.ts';
import { jarSizeRule } from '../recipes/recipe-rules.ts';
import {
  choice,
  day,
  decimal,
  figure,
  flag,
  instant,
  list,
  maybe,
  rational,
  shape,
  text,
  uuid,
} from '../rules.ts';

const planFields = {
  id: uuid,
  day,
  recipeId: uuid,
  name: text({ max: 80 }),
  factor: rational,
  jars: jarsWantedRule,
};
const plan = shape<PlannedBatch>(planFields);
const planParams = shape<{ planId: string }>({ planId: uuid });

/** Batches that are planned and not yet started, by day. */
export const listPlans = endpoint({
  name: 'plans.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/plans',
  who: 'viewer',
  summary: 'Batches that are planned and not yet started, by day',
  reply: shape<{ plans: PlannedBatch[] }>({ plans: list(plan, { max: 500 }) }),
});
/** Plan a batch, or change its day or size; started under the same id it is planned no more. */
export const putPlan = endpoint({
  name: 'plans.put',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/plans/:planId',
  who: 'cook',
  summary: 'Plan a batch, or change its day or size; started under the same id it is planned no more',
  params: planParams,
  body: shape<Omit<PlannedBatch, 'name'>>({
    id: uuid,
    day,
    recipeId: uuid,
    factor: rational,
    jars: jarsWantedRule,
  }),
  reply: plan,
});
/** Drop a planned batch: what it kept is free again. */
export const dropPlan = endpoint({
  name: 'plans.drop',
  method: 'DELETE',
  path: '/api/kitchens/:kitchenId/plans/:planId',
  who: 'cook',
  summary: 'Drop a planned batch: what it kept is free again',
  params: planParams,
  reply: shape<{ removed: boolean }>({ removed: flag }),
});

const amount = decimal({ min: 0, max: 1e12, places: 18, name: 'The quantity' });
/** One list for all planned batches: as bought with trim loss, less what is on the shelf, in the packages shops sell, with the last day to order. */
export const readShopping = endpoint({
  name: 'plans.shopping',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/shopping',
  who: 'viewer',
  summary:
    'One list for all planned batches: as bought with trim loss, less what is on the shelf, in the packages shops sell, with the last day to order',
  reply: shape<{ lines: ShoppingLine[]; day: string }>({
    lines: list(
      shape<ShoppingLine>({
        itemId: maybe(uuid),
        kind: choice(ITEM_KINDS),
        size: maybe<JarSizeId>(jarSizeRule),
        ingredientId: maybe(text({ max: 60 })),
        name: text({ max: 120 }),
        unit: choice(['g', 'mL', 'each'] as const),
        needed: amount,
        onHand: amount,
        missing: amount,
        packages: list(
          shape<ShoppingLine['packages'][number]>({
            name: text({ max: 40 }),
            count: figure({ min: 1, max: 1e9, whole: true, name: 'The count' }),
          }),
          { max: 10 },
        ),
        buy: amount,
        cost: maybe(amount),
        orderBy: maybe(day),
        uses: list(
          shape<ShoppingLine['uses'][number]>({
            planId: uuid,
            name: text({ max: 80 }),
            day,
            quantity: amount,
          }),
          { max: 500 },
        ),
      }),
      { max: 2000 },
    ),
    day,
  }),
});

const money = decimal({ min: -1e12, max: 1e12, places: 40, name: 'The amount of money' });
const cents = decimal({ min: -1e12, max: 1e12, places: 2, name: 'The amount of money' });
const count = figure({ min: 0, max: 1e6, name: 'The jars' });
const costLine = shape<CostLine>({
  part: choice(COST_PARTS),
  name: text({ max: 80 }),
  detail: text({ max: 200 }),
  key: text({ max: 80 }),
  quantity: money,
  unit: text({ max: 20 }),
  unitCost: money,
  cost: money,
  size: maybe(jarSizeRule),
  lotId: maybe(uuid),
});
const costSheet = shape<CostSheet>({
  currency: text({ max: 3 }),
  sharing: choice(SHARINGS),
  lines: list(costLine, { max: 2000 }),
  jars: list(
    shape<CostInput['jars'][number]>({
      size: jarSizeRule,
      filled: count,
      sellable: count,
      net_g: figure({ min: 0, max: 1e6, name: 'The net mass' }),
    }),
    { max: 8 },
  ),
  lost: list(shape<CostInput['lost'][number]>({ why: text({ max: 40 }), count }), { max: 20 }),
  unpriced: list(text({ max: 80 }), { max: 200 }),
  parts: list(shape<CostSheet['parts'][number]>({ part: choice(COST_PARTS), exact: money, amount: cents }), {
    max: 20,
  }),
  total: cents,
  bySize: list(
    shape<CostSheet['bySize'][number]>({
      size: jarSizeRule,
      count,
      total: cents,
      exactPerJar: money,
      perJar: cents,
      perJarNoneLost: cents,
      lossPerJar: cents,
    }),
    { max: 8 },
  ),
  keptAt: maybe(instant),
});

/** What a batch cost: lots drawn, work with what is shared by batches and by the day, energy, overhead, market; parts that add up to the total. */
export const readCost = endpoint({
  name: 'costs.batch',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/batches/:batchId/cost',
  who: 'viewer',
  summary:
    'What a batch cost: lots drawn, work with what is shared by batches and by the day, energy, overhead, market; parts that add up to the total',
  params: shape<{ batchId: string }>({ batchId: uuid }),
  reply: costSheet,
});

/** What a past batch cost, with when it was made. */
export interface PastCost {
  batchId: string;
  lotCode: string;
  madeOn: string;
  minutes: number;
  sheet: CostSheet;
}
/** What the last twenty-four batches of a recipe cost, oldest first. */
export const recipeCosts = endpoint({
  name: 'costs.recipe',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/recipes/:recipeId/costs',
  who: 'viewer',
  summary: 'What the last twenty-four batches of a recipe cost, oldest first',
  params: shape<{ recipeId: string }>({ recipeId: uuid }),
  reply: shape<{ batches: PastCost[] }>({
    batches: list(
      shape<PastCost>({
        batchId: uuid,
        lotCode: text({ max: 40 }),
        madeOn: day,
        minutes: figure({ min: 0, max: 1e6, name: 'The minutes' }),
        sheet: costSheet,
      }),
      { max: 24 },
    ),
  }),
});
