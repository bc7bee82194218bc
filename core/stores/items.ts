import { Decimal, type Fault } from '../measure/index.ts';
import type { JarSizeId, Line } from '../recipes/index.ts';

export type ItemKind = 'ingredient' | 'jar' | 'lid';

/** Something the kitchen keeps: an ingredient, a jar or a lid. */
export interface Item {
  id: string;
  kind: ItemKind;
  name: string;
  /** Unit its lots are counted in. */
  unit: 'g' | 'mL' | 'each';
  /** Grams of one unit, for ingredients counted by mL or by piece; 1 for grams; null for jars and lids. */
  unit_g: number | null;
  jarSize: JarSizeId | null;
  labelName: string;
  subIngredients: string;
  allergens: string[];
}

/** One purchase of an item, drawn from until it is gone. */
export interface Lot {
  id: string;
  itemId: string;
  label: string;
  supplier: string;
  receivedOn: string;
  bestBy: string | null;
  /** Money for one unit, decimal text. */
  unitCost: string;
  /** Left, in the item's unit, decimal text. */
  onHand: string;
  /** Strength of a vinegar, percent by weight of acid; null for other things. */
  strength_pct: number | null;
}

/**
 * Why a lot may not serve a line in this quantity, or null when it may.
 *
 * @param quantity  decimal text in the item's unit
 * @param onHand  decimal text, from the ledger
 */
export function drawFault(
  item: Item,
  lot: Pick<Lot, 'label' | 'strength_pct'>,
  line: Line | null,
  quantity: string,
  onHand: string,
): Omit<Fault, 'path'> | null {
  if (!new Decimal(quantity).gt(0)) {
    return {
      code: 'not-positive',
      what: 'The quantity drawn must be above zero.',
      why: 'A draw of nothing traces nothing.',
      next: 'Enter what was used.',
    };
  }
  if (new Decimal(quantity).gt(onHand)) {
    return {
      code: 'more-than-lot',
      what: `Lot ${lot.label} holds ${onHand} ${item.unit} of ${item.name}, not ${quantity}.`,
      why: 'More cannot leave a lot than came in.',
      next: 'Draw the rest from another lot, or record the purchase first.',
    };
  }
  if ((item.kind === 'ingredient') !== (line !== null)) {
    return {
      code: 'wrong-use',
      what: line ? `${item.name} is no ingredient.` : `${item.name} must serve a line of the recipe.`,
      why: 'The label and the trace follow from what serves which line.',
      next: 'Choose the line it serves.',
    };
  }
  if (
    line?.minStrength_pct != null &&
    (lot.strength_pct === null || lot.strength_pct < line.minStrength_pct)
  ) {
    return {
      code: 'too-weak',
      what:
        lot.strength_pct === null
          ? `Lot ${lot.label} states no strength.`
          : `Lot ${lot.label} is ${lot.strength_pct} %, the recipe needs ${line.minStrength_pct} %.`,
      why: 'Acid is the barrier here: weaker vinegar leaves the jar unsafe. USDA Complete Guide (2015), guide 6: 5 % (from memory).',
      next: `Draw from a lot labelled ${line.minStrength_pct} % or stronger.`,
    };
  }
  return null;
}
