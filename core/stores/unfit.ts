import {
  type AcidKind,
  acidKind,
  countsAsBarrier,
  PICKLING_STRENGTH_PCT,
  shippedAs,
} from '../ingredients/index.ts';
import {
  type Day,
  dayText,
  Decimal,
  type Fault,
  fieldText,
  type Figures,
  numberText,
} from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import type { Purpose } from '../batches/index.ts';
import { type Item, unitSign } from './items.ts';
import type { Lot } from './lots.ts';

/** What a draw is for: the line it serves, and the recipe and purpose around it. */
export interface DrawUse {
  line: Line | null;
  recipe: Pick<Recipe, 'foodClass' | 'method'> | null;
  purpose: Purpose | null;
  today: Day;
  /** Whose figures a refusal is written in. */
  figures: Figures;
}

const FAULT = (code: string, what: string, why: string, next: string): Omit<Fault, 'path'> => ({
  code,
  what,
  why,
  next,
});

/**
 * Why a lot may not serve a use at all, whatever the quantity; null when it may.
 *
 * @source vinegar strength, bottled juice, vines: USDA Complete Guide (2015), guides 1, 3 and 6 (from memory). Salt that
 *   clouds a brine: common practice.
 */
export function unfitFault(
  item: Pick<Item, 'kind' | 'name' | 'use' | 'ingredientId'>,
  lot: Pick<Lot, 'label' | 'strength_pct' | 'facts' | 'bestBy'>,
  use: DrawUse,
): Omit<Fault, 'path'> | null {
  const { line, recipe, purpose, figures } = use;
  const n = (value: number) => numberText(value, figures);
  const { facts } = lot;
  if ((item.kind === 'ingredient') !== (line !== null))
    return FAULT(
      'wrong-use',
      line ? `${item.name} is no ingredient.` : `${item.name} must serve a line of the recipe.`,
      'The label and the trace follow from what serves which line.',
      'Choose the line it serves.',
    );
  if (item.kind === 'tool')
    return FAULT(
      'wrong-use',
      `${item.name} is a tool.`,
      'Tools are not used up.',
      'Record its state at its item.',
    );
  if (line?.minStrength_pct != null && (lot.strength_pct === null || lot.strength_pct < line.minStrength_pct))
    return FAULT(
      'too-weak',
      lot.strength_pct === null
        ? `Lot ${lot.label} states no strength.`
        : `Lot ${lot.label} is ${n(lot.strength_pct)} %, the recipe needs ${n(line.minStrength_pct)} %.`,
      `Acid is the barrier here: weaker vinegar leaves the jar unsafe. USDA Complete Guide (2015), guide 6: ${PICKLING_STRENGTH_PCT} % (from memory).`,
      `Draw from a lot labelled ${n(line.minStrength_pct)} % or stronger.`,
    );
  if (facts.condition === 'from dead or frost-killed vines' || facts.condition === 'mouldy')
    return FAULT(
      'unfit-produce',
      `Lot ${lot.label} is ${facts.condition}.`,
      'Such produce is lower in acid or spoilt, and a tested time does not cover it. USDA Complete Guide (2015), guides 1 and 3 (from memory).',
      'Leave it out, and record the loss at the lot.',
    );
  const wrongAcid = line && wrongAcidFault(line, recipe, item, lot);
  if (wrongAcid) return wrongAcid;
  const acidBarrier = line?.role === 'acid' && recipe !== null && recipe.foodClass !== 'fruit spread';
  if (acidBarrier && (facts.juice === 'fresh' || (item.use === 'citrus juice' && facts.juice !== 'bottled')))
    return FAULT(
      'fresh-juice',
      facts.juice === 'fresh'
        ? `Lot ${lot.label} is fresh juice.`
        : `Lot ${lot.label} does not say that it is bottled.`,
      'Where acid is the barrier its strength must be known, and that of fresh juice varies. USDA Complete Guide (2015), guide 3 (from memory).',
      'Draw bottled juice.',
    );
  const brine = recipe?.method.liquid === 'vinegar brine' || recipe?.method.liquid === 'salt brine';
  if (line?.role === 'salt' && brine && (facts.salt === 'iodised' || facts.salt === 'with anti-caking agent'))
    return FAULT(
      'cloudy-salt',
      `Lot ${lot.label} is ${facts.salt === 'iodised' ? 'iodised salt' : 'salt with an anti-caking agent'}.`,
      'It clouds and darkens a brine, and cloud is a sign one must be able to read. Common practice.',
      'Draw canning salt.',
    );
  if (facts.source === 'made here' && lot.bestBy !== null && lot.bestBy < use.today)
    return FAULT(
      'past-limit',
      `Lot ${lot.label} passed its keeping limit on ${dayText(lot.bestBy, figures)}.`,
      'What is made here keeps as long as was decided when it was made.',
      'Use another lot, and record this one as lost.',
    );
  // Whatever was made of them since, frozen, mixed or prepared.
  if (!facts.released && purpose === 'sale')
    return FAULT(
      'jars-not-released',
      `Lot ${lot.label} holds jars that were not released for sale.`,
      'What may not be sold as it is may not be sold inside something else.',
      'Use released jars, or cook this batch for home.',
    );
  return null;
}

/** The acid a lot is, by its item's library entry and name, and by what its use and the lot itself say; null for none. */
function acidOfLot(
  item: Pick<Item, 'name' | 'use' | 'ingredientId'>,
  lot: Pick<Lot, 'strength_pct' | 'facts'>,
): AcidKind | null {
  const shipped = shippedAs(item);
  const known = shipped
    .map(i => acidKind({ role: i.role, name: i.name, ingredientId: i.id }))
    .find(k => k !== null);
  // What the library knows as something else is no acid, whatever its lot says.
  if (!known && shipped.length > 0) return null;
  const kind = known ?? acidKind({ ...item, role: 'acid' });
  if (kind !== null && kind !== 'fresh juice' && kind !== 'bottled juice') return kind;
  if (lot.facts.juice) return lot.facts.juice === 'bottled' ? 'bottled juice' : 'fresh juice';
  if (kind) return kind;
  return item.use === 'vinegar' || lot.strength_pct !== null
    ? 'vinegar'
    : item.use === 'citrus juice'
      ? 'fresh juice'
      : null;
}

/**
 * Why a lot may not serve an acid line: where acid is the barrier only the acid it names; elsewhere whatever is an acid or a
 * fruit, and never sugar or salt.
 */
function wrongAcidFault(
  line: Line,
  recipe: DrawUse['recipe'],
  item: Pick<Item, 'name' | 'use' | 'ingredientId'>,
  lot: Pick<Lot, 'strength_pct' | 'facts'>,
): Omit<Fault, 'path'> | null {
  const asked = acidKind(line);
  if (line.role !== 'acid' || asked === null) return null;
  const served = acidOfLot(item, lot);
  const barrier = recipe !== null && recipe.foodClass !== 'fruit spread' && countsAsBarrier(line);
  // Of a juice the lot says whether it is bottled; that is asked below.
  const isJuice = (kind: AcidKind | null) => kind === 'fresh juice' || kind === 'bottled juice';
  const same = served === asked || (isJuice(served) && isJuice(asked));
  const somethingElse = shippedAs(item).some(i => i.role !== 'acid' && i.role !== 'fruit');
  if (barrier ? same : served !== null || !somethingElse) return null;
  return FAULT(
    'wrong-acid',
    `${item.name} is no ${asked}; the line asks for ${line.name}.`,
    'What an acid line was tested with is that acid, by kind and strength.',
    served === null && !somethingElse
      ? 'Draw the acid it names, or say at the item which library entry it is.'
      : 'Draw the acid it names.',
  );
}

/**
 * What to say where more is taken out of a lot than it holds.
 *
 * @param quantity  decimal text in the item's unit, as `onHand` of the lot
 */
export function moreThanLot(
  item: Pick<Item, 'name' | 'unit'>,
  lot: { label: string; onHand: string },
  quantity: string,
  figures: Figures,
): Omit<Fault, 'path'> {
  const n = (text: string) => fieldText(Number(text), figures.locale, 6);
  const there = [n(lot.onHand), unitSign(item.unit), 'of', item.name].filter(Boolean).join(' ');
  return FAULT(
    'more-than-lot',
    `Lot ${lot.label} holds ${there}, not ${n(quantity)}.`,
    'More cannot leave a lot than came in.',
    'Take less, or count the lot first.',
  );
}

/**
 * Why a lot may not serve a use in this quantity, or null when it may.
 *
 * @param quantity  decimal text in the item's unit
 * @param onHand  decimal text, from the ledger
 */
export function drawFault(
  item: Item,
  lot: Pick<Lot, 'label' | 'strength_pct' | 'facts' | 'bestBy'>,
  use: DrawUse,
  quantity: string,
  onHand: string,
): Omit<Fault, 'path'> | null {
  if (!new Decimal(quantity).gt(0))
    return FAULT(
      'not-positive',
      'The quantity drawn must be above zero.',
      'A draw of nothing traces nothing.',
      'Enter what was used.',
    );
  if (new Decimal(quantity).gt(onHand))
    return {
      ...moreThanLot(item, { label: lot.label, onHand }, quantity, use.figures),
      next: 'Draw the rest from another lot, or record the purchase first.',
    };
  if (item.unit === 'each' && !new Decimal(quantity).isInteger())
    return FAULT(
      'not-whole',
      `${item.name} is counted in whole pieces.`,
      'A part of one cannot be drawn.',
      'Enter a whole number.',
    );
  return unfitFault(item, lot, use);
}
