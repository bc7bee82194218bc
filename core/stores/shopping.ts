import { type Day, Decimal, addDays } from '../measure/index.ts';
import type { JarsWanted, Recipe } from '../recipes/index.ts';
import { Fraction } from '../measure/index.ts';
import { scaleRecipe } from '../recipes/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Item, ItemKind, ShopPackage } from './items.ts';
import { type Need, type ShelfItem, needsOf } from './shelf.ts';

/** A batch that is planned: what it will take is kept for it. */
export interface PlannedBatch {
  id: string;
  day: Day;
  recipeId: string;
  name: string;
  /** Exact factor on the recipe, `n` or `n/d`. */
  factor: string;
  jars: JarsWanted[];
}

/** What one thing on the list is for. */
export interface ShoppingUse {
  planId: string;
  name: string;
  day: Day;
  /** In the item's unit, decimal text. */
  quantity: string;
}

/** One line of the shopping list: what all plans need, less what is there. */
export interface ShoppingLine {
  itemId: string | null;
  /** What it is, for an item that the kitchen does not keep yet. */
  kind: ItemKind;
  size: JarSizeId | null;
  ingredientId: string | null;
  name: string;
  unit: Item['unit'];
  /** For all plans, with what is trimmed away, decimal text. */
  needed: string;
  onHand: string;
  /** Needed less what there is, decimal text; 0 where there is enough. */
  missing: string;
  /** In the packages that shops sell; empty for loose goods. */
  packages: { name: string; count: number }[];
  /** What those packages hold, decimal text. */
  buy: string;
  /** What it will cost at the last price; null where none is known. */
  cost: string | null;
  /** Last day to order it, for the first plan that lacks it. */
  orderBy: Day | null;
  uses: ShoppingUse[];
}

/**
 * Packages that hold at least so much, with the least over and then the fewest; two sizes are mixed where that is
 * better.
 *
 * @param missing  in the item's unit, above zero
 */
export function inPackages(
  missing: Decimal,
  packages: readonly ShopPackage[],
): { packages: { name: string; count: number }[]; buy: Decimal } {
  const sizes = packages
    .map(p => ({ name: p.name, quantity: new Decimal(p.quantity) }))
    .filter(p => p.quantity.gt(0))
    .sort((a, b) => b.quantity.cmp(a.quantity));
  if (sizes.length === 0) return { packages: [], buy: missing };
  let best: { packages: { name: string; count: number }[]; buy: Decimal; count: number } | null = null;
  const offer = (list: { name: string; count: number; quantity: Decimal }[]) => {
    const buy = list.reduce((sum, p) => sum.plus(p.quantity.times(p.count)), new Decimal(0));
    const count = list.reduce((n, p) => n + p.count, 0);
    if (buy.lt(missing)) return;
    if (!best || buy.lt(best.buy) || (buy.eq(best.buy) && count < best.count))
      best = {
        packages: list.filter(p => p.count > 0).map(({ name, count: c }) => ({ name, count: c })),
        buy,
        count,
      };
  };
  for (const large of sizes) {
    const most = missing.div(large.quantity).ceil().toNumber();
    offer([{ ...large, count: most }]);
    for (const small of sizes) {
      if (!small.quantity.lt(large.quantity)) continue;
      // Small packages beyond what one more large one holds are never better.
      for (let n = most; n >= Math.max(0, most - 40); n--) {
        const rest = missing.minus(large.quantity.times(n));
        if (rest.lte(0)) continue;
        offer([
          { ...large, count: n },
          { ...small, count: rest.div(small.quantity).ceil().toNumber() },
        ]);
      }
    }
  }
  const found = best as { packages: { name: string; count: number }[]; buy: Decimal } | null;
  return found ? { packages: found.packages, buy: found.buy } : { packages: [], buy: missing };
}

/**
 * One list for all planned batches: what each takes as bought, less what is on the shelf, in the packages that shops
 * sell, with the last day to order it. The first batches are served from the shelf first.
 *
 * @param recipes  by id, as they stand
 */
export function shoppingList(
  plans: readonly PlannedBatch[],
  recipes: ReadonlyMap<string, Pick<Recipe, 'lines' | 'steps' | 'makes' | 'jars'>>,
  shelf: readonly ShelfItem[],
): ShoppingLine[] {
  const rows = new Map<
    string,
    { need: Need; shelf: ShelfItem | null; name: string; unit: Item['unit']; uses: ShoppingUse[] }
  >();
  for (const plan of plans.toSorted((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))) {
    const recipe = recipes.get(plan.recipeId);
    if (!recipe) continue;
    const scaled = scaleRecipe(recipe as Recipe, new Fraction(plan.factor), plan.jars);
    const asBought = new Map(scaled.lines.map(l => [l.lineId, l.asBought_g]));
    for (const need of needsOf(recipe.lines, asBought, plan.jars, shelf)) {
      if (!(need.quantity > 0)) continue;
      const key = need.shelf?.item.id ?? `no item ${need.title}`;
      const row = rows.get(key) ?? {
        need,
        shelf: need.shelf ?? null,
        name: need.shelf?.item.name ?? need.title,
        unit: need.shelf?.item.unit ?? (need.line ? 'g' : 'each'),
        uses: [],
      };
      rows.set(key, row);
      const before = row.uses.find(u => u.planId === plan.id);
      const quantity = new Decimal(need.quantity.toFixed(3));
      if (before) before.quantity = quantity.plus(before.quantity).toFixed();
      else row.uses.push({ planId: plan.id, name: plan.name, day: plan.day, quantity: quantity.toFixed() });
    }
  }
  return [...rows.values()]
    .map((row): ShoppingLine => {
      const item = row.shelf?.item ?? null;
      const onHand = (row.shelf?.lots ?? []).reduce((sum, l) => sum.plus(l.onHand), new Decimal(0));
      let rest = onHand;
      let firstLack: Day | null = null;
      let needed = new Decimal(0);
      for (const u of row.uses) {
        needed = needed.plus(u.quantity);
        rest = rest.minus(u.quantity);
        if (rest.isNegative() && !rest.isZero()) firstLack ??= u.day;
      }
      const missing = Decimal.max(0, needed.minus(onHand));
      const packed = missing.gt(0)
        ? inPackages(missing, item?.packages ?? [])
        : { packages: [], buy: new Decimal(0) };
      const price = row.shelf?.lastCost ?? null;
      return {
        itemId: item?.id ?? null,
        kind: row.need.kind,
        size: row.need.size,
        ingredientId: row.need.line?.ingredientId ?? null,
        name: row.name,
        unit: row.unit,
        needed: needed.toFixed(),
        onHand: onHand.toFixed(),
        missing: missing.toFixed(),
        packages: packed.packages,
        buy: packed.buy.toFixed(),
        cost: price === null ? null : packed.buy.times(price).toFixed(2),
        orderBy: firstLack === null ? null : addDays(firstLack, -(item?.leadTime_days ?? 0)),
        uses: row.uses,
      };
    })
    .sort((a, b) => Number(b.missing !== '0') - Number(a.missing !== '0') || a.name.localeCompare(b.name));
}

/** What planned batches keep of each item, by its id, in its unit: sum over the list's uses. */
export function reservedOf(list: readonly ShoppingLine[]): Map<string, string> {
  return new Map(list.flatMap(l => (l.itemId === null ? [] : [[l.itemId, l.needed] as const])));
}
