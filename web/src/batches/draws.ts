import {
  Decimal,
  Fraction,
  type Habits,
  type Reading,
  fieldText,
  numberText,
  readDecimal,
} from '@cocotte/core/measure';
import { scaleRecipe } from '@cocotte/core/recipes';
import {
  type DrawUse,
  type Item,
  type Need,
  type ShelfItem,
  needsOf,
  planDraw,
  shelfOfKind,
  unfitFault,
} from '@cocotte/core/stores';
import { shippedAs } from '@cocotte/core/ingredients';
import type { BatchState, Note } from '@cocotte/core/batches';
import { quantityText } from '../stores/words.ts';
import { misread } from '../words/views.ts';

const MASS_PLACES = 1;

/** What a batch takes from the shelf, and gas by weight where it is burned. */
export function batchNeeds(state: BatchState, shelf: readonly ShelfItem[]): Need[] {
  const { started } = state;
  if (!started) return [];
  const scaled = scaleRecipe(started.recipe, new Fraction(started.factor), started.jars);
  const needs = needsOf(
    started.recipe.lines,
    new Map(scaled.lines.map(l => [l.lineId, l.asBought_g])),
    started.jars,
    shelf,
  );
  const fuel = shelfOfKind(shelf, 'fuel');
  return fuel
    ? [
        ...needs,
        {
          key: 'fuel',
          title: fuel.item.name,
          line: null,
          kind: 'fuel',
          size: null,
          only: [],
          shelf: fuel,
          quantity: 0,
        },
      ]
    : needs;
}

/**
 * What may serve a line of a recipe beside its own item: every ingredient on the shelf with something left that nothing
 * speaks against. Fresh, frozen, from a can or a jar, they stand side by side.
 */
export function othersFor(
  need: Need,
  shelf: readonly ShelfItem[],
  use: Omit<DrawUse, 'figures'>,
  kitchen: Habits,
): ShelfItem[] {
  if (!need.line)
    return shelf.filter(
      s =>
        s.item.kind === need.kind &&
        (need.kind !== 'jar' || s.item.jarSize === need.size) &&
        s !== need.shelf &&
        s.lots.length > 0,
    );
  return shelf.flatMap(s => {
    if (s.item.kind !== 'ingredient' || s === need.shelf || !mayServe(s.item, need)) return [];
    const lots = s.lots.filter(
      lot => unfitFault(s.item, lot, { ...use, line: need.line, figures: kitchen }) === null,
    );
    return lots.length > 0 ? [{ ...s, lots }] : [];
  });
}

/**
 * Sugar is no fruit, and salt no beans: what is drawn for a line has its role, by the library's entry or its name; of what
 * neither knows, by what its lots have to say.
 */
function mayServe(item: Item, { line }: Need): boolean {
  if (!line) return false;
  const group = (role: string) => (role === 'fruit' || role === 'low-acid produce' ? 'produce' : role);
  const known = shippedAs(item).map(i => group(i.role));
  if (known.length > 0) return known.includes(group(line.role));
  const own = { produce: 'produce', salt: 'salt', vinegar: 'acid', 'citrus juice': 'acid', other: '' }[
    item.use
  ];
  return own === group(line.role) || (own === '' && !['produce', 'salt', 'acid'].includes(group(line.role)));
}

/** A need as it would be served by another item: its quantity in that item's unit. */
export function needBy(need: Need, other: ShelfItem): Need {
  const grams = need.quantity * (need.shelf?.item.unit_g ?? 1);
  return { ...need, shelf: other, quantity: need.line ? grams / (other.item.unit_g ?? 1) : need.quantity };
}

/** A need as it would be typed here, in the item's unit. */
export function needText(need: Need, locale: string): string {
  if (!need.shelf || need.quantity <= 0) return '';
  const exact = new Decimal(need.quantity.toFixed(6));
  const places = need.shelf.item.unit === 'each' ? 0 : MASS_PLACES;
  return fieldText(exact.toDecimalPlaces(places, Decimal.ROUND_UP).toNumber(), locale, places);
}

/**
 * What settles a difference in the books: the need it is of, and how much more is to be drawn, in the item's unit.
 *
 * @returns null where there is nothing on the shelf that it could come out of
 */
export function missingDraw(
  state: BatchState,
  shelf: readonly ShelfItem[],
  draw: NonNullable<Note['draw']>,
): { need: Need; quantity: number } | null {
  const need = batchNeeds(state, shelf).find(n =>
    draw.lineId === null ? n.kind === draw.kind : n.line?.id === draw.lineId,
  );
  if (!need?.shelf || !state.started) return null;
  if (draw.unit === 'each') return { need, quantity: draw.quantity };
  const { recipe, factor, jars } = state.started;
  const planned = scaleRecipe(recipe, new Fraction(factor), jars).lines.find(l => l.lineId === draw.lineId);
  // The item may be kept in another unit than grams: the need says how many of them the planned weight is.
  if (!planned || planned.asBought_g <= 0 || need.quantity <= 0) return null;
  return { need, quantity: (draw.quantity / planned.asBought_g) * need.quantity };
}

/** The draws of one need: what each lot gives, and which lots may not serve it and why. */
export interface Drawing {
  lots: { lotId: string; label: string; quantity: string }[];
  skipped: { label: string; why: string }[];
}

/**
 * Takes a typed quantity out of the open container, then the oldest, passing over lots that may not serve; or out of
 * the one lot that was chosen.
 *
 * @param beyond  it was used already: what the books lack is put to the last lot that may serve
 * @returns the draws, or why the quantity cannot be drawn
 */
export function drawingOf(
  need: Need,
  text: string,
  kitchen: Habits,
  use: Omit<DrawUse, 'figures'>,
  chosen: string,
  beyond = false,
): Reading<Drawing> {
  const { shelf } = need;
  const lots = shelf?.lots ?? [];
  const skipped: Drawing['skipped'] = [];
  const fit = lots.filter(lot => {
    if (chosen) return lot.id === chosen;
    const fault = shelf && unfitFault(shelf.item, lot, { ...use, line: need.line, figures: kitchen });
    if (fault) skipped.push({ label: lot.label, why: fault.what });
    return !fault;
  });
  const read = readDecimal(text, kitchen.locale, { name: 'The quantity', min: 0, above: true, max: 1e9 });
  if (!read.ok) return read;
  if (chosen) {
    const lot = fit[0];
    return {
      ok: true,
      value: { lots: lot ? [{ lotId: lot.id, label: lot.label, quantity: read.value }] : [], skipped },
    };
  }
  const { draws, short } = planDraw(fit, new Decimal(read.value));
  const last = draws.at(-1) ?? (fit[0] && { lot: fit[0], quantity: '0' });
  if (beyond && short.gt(0) && last) {
    const more = { ...last, quantity: short.plus(last.quantity).toFixed() };
    draws.splice(Math.max(draws.length - 1, 0), 1, more);
  } else if (beyond && short.gt(0)) return misread('no-lot', { name: need.title });
  else if (short.gt(0)) {
    const there = fit.reduce((sum, l) => sum.plus(l.onHand), new Decimal(0));
    const written = (n: string) =>
      shelf ? quantityText(n, shelf.item, kitchen) : numberText(Number(n), kitchen);
    return misread('more-than-shelf', {
      there: written(there.toFixed()),
      name: shelf?.item.name ?? need.title,
      asked: written(read.value),
      why: skipped[0]
        ? `Passed over: lot ${skipped[0].label}. ${skipped[0].why}`
        : 'More cannot leave than came in.',
    });
  }
  return {
    ok: true,
    value: { lots: draws.map(d => ({ lotId: d.lot.id, label: d.lot.label, quantity: d.quantity })), skipped },
  };
}
