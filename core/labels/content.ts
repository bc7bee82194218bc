import { allergensIn, fillingOf, unwashedAllergens } from '../batches/index.ts';
import { balance, massIn, netOfJars_g, reachedJars_g } from '../balance/index.ts';
import type { BatchState, LabelContent } from '../batches/index.ts';
import { lineMasses, observed } from '../batches/index.ts';
import type { Kitchen } from '../kitchen/index.ts';
import { Decimal, type Fault, type Figures, addDays, addMonths, byName, massText } from '../measure/index.ts';
import { type JarSizeId, jarSize } from '../jars/index.ts';
import type { NetContents, Recipe } from '../recipes/index.ts';
import { claimOf, namesFor, withName } from '../review/index.ts';
import { GRAMS_PER_OUNCE, ML_PER_FLUID_OUNCE } from './factors.ts';
import { labelSpelling } from './spelling.ts';

/** One thing the rules want on a label, and where it is met. */
export interface LabelRule {
  what: string;
  met: boolean;
  shown: string;
  rule: string;
  next: string;
}

/**
 * Net contents in both systems, rounded down so that neither overstates.
 * Source: NIST Handbook 130, packaging and labeling (from memory).
 */
export function netContentsText(net: NetContents): string {
  if (net.kind === 'weight') {
    const grams = new Decimal(net.oz).times(GRAMS_PER_OUNCE).floor();
    const pounds = net.oz >= 16 ? ` (${poundsText(net.oz)})` : '';
    return `Net Wt ${net.oz} oz${pounds} ${grams} g`;
  }
  const ml = new Decimal(net.floz).times(ML_PER_FLUID_OUNCE).floor();
  const common: Record<number, string> = { 8: ' (1/2 pt)', 16: ' (1 pt)', 32: ' (1 qt)' };
  return `${net.floz} fl oz${common[net.floz] ?? ''} ${ml} mL`;
}

function poundsText(oz: number): string {
  const lb = Math.floor(oz / 16);
  const rest = new Decimal(oz).minus(lb * 16);
  return rest.isZero() ? `${lb} lb` : `${lb} lb ${rest.toFixed()} oz`;
}

/**
 * The ingredient statement: descending order of weight of what was added and reached the jars (21 CFR 101.4, from memory),
 * like names joined, a compound's own ingredients in brackets after it. Water that boiled off counts with the food it
 * was in; what was poured away, strained off or left in the pot does not.
 */
export function ingredientStatement(state: BatchState): string {
  const drawn = new Map(
    state.draws
      .flatMap(d => d.lots)
      .filter(l => l.lineId)
      .map(l => [l.lineId as string, l]),
  );
  const process = observed(state);
  const reached = reachedJars_g(balance(process));
  const mass = new Map<string, number>();
  for (const { line } of process.lines) {
    const there_g = reached.get(line.id) ?? 0;
    // What gave its taste and was lifted out again stands last; a dip, or a soak that is gone, is no ingredient.
    if (there_g <= 0 && line.where !== 'infused') continue;
    const lot = drawn.get(line.id);
    const sub = lot?.subIngredients || line.subIngredients;
    const name = (lot?.labelName || line.labelName) + (sub ? ` (${sub})` : '');
    mass.set(name, (mass.get(name) ?? 0) + there_g);
  }
  return [...mass]
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .map(([name]) => name)
    .join(', ');
}

/** Allergens of everything that went in, from lots and recipe, sorted. */
export function allergensOf(state: BatchState): string[] {
  return [...new Set([...allergensIn(state), ...unwashedAllergens(state)])].sort();
}

/**
 * What the label of one jar size says, or the faults that keep it from being printed.
 *
 * @param kitchen  maker, address and jurisdiction as they stand now
 * @param jars  those it goes on, of one filling; the first filling where none are named
 */
export function labelContent(
  state: BatchState,
  kitchen: Pick<Kitchen, 'makerName' | 'makerAddress' | 'jurisdiction' | 'locale'>,
  size: JarSizeId,
  jars: readonly number[] = [],
):
  { ok: true; label: LabelContent; rules: LabelRule[] } | { ok: false; faults: Fault[]; rules: LabelRule[] } {
  const { started } = state;
  if (!started) throw new RangeError('labelContent: the batch has not been started');
  // What was filled from what was left over the next day has a code and a day of its own.
  const filling = jars[0] === undefined ? null : fillingOf(state, jars[0]);
  const { lotCode, madeOn } = filling ?? started;
  const net = started.recipe.jars.find(j => j.size === size)?.net;
  const named = truthfulName(state, kitchen);
  const spelled = (text: string) => labelSpelling(text, kitchen.locale);
  const contains = spelled(allergensOf(state).join(', '));
  const label: LabelContent = {
    statementOfIdentity: named.name,
    ingredients: spelled(ingredientStatement(state)),
    contains,
    netContents: net ? netContentsText(net) : '',
    maker: kitchen.makerName,
    address: kitchen.makerAddress,
    lotCode,
    madeOn,
    bestBy: addMonths(madeOn, started.recipe.shelfLife_months),
    readyFrom: started.recipe.readyAfter_days > 0 ? addDays(madeOn, started.recipe.readyAfter_days) : null,
    directions: directionsFor(started.recipe),
    statement: kitchen.jurisdiction.statement,
    notForSale: started.purpose !== 'sale',
  };
  const rule = (what: string, shown: string, source: string, next: string): LabelRule => ({
    what,
    met: shown !== '',
    shown,
    rule: source,
    next,
  });
  const statementSettled = label.statement !== '' || kitchen.jurisdiction.confirmedOn !== null;
  const rules: LabelRule[] = [
    rule(
      'Statement of identity',
      label.statementOfIdentity,
      '21 CFR 101.3 (from memory)',
      'Enter what the food is called in the recipe.',
    ),
    ...(named.why === ''
      ? []
      : [
          {
            what: 'A name it may bear',
            met: true,
            shown: named.why,
            rule: named.source,
            next: '',
          },
        ]),
    rule(
      'Ingredients by weight',
      label.ingredients,
      '21 CFR 101.4 (from memory)',
      'Add the lines to the recipe.',
    ),
    {
      what: 'Allergens',
      met: true,
      shown: contains ? `Contains: ${contains}` : 'None of the major allergens in what was drawn',
      rule: 'FALCPA and the FASTER Act (from memory)',
      next: '',
    },
    rule(
      'Net contents in both systems',
      label.netContents,
      '21 CFR 101.7; NIST Handbook 130 (from memory)',
      'Enter the net contents of this jar in the recipe.',
    ),
    ...contentsRule(state, size, net, kitchen),
    rule('Maker', label.maker, '21 CFR 101.5 (from memory)', 'Enter the maker in the kitchen settings.'),
    rule(
      'Address',
      label.address,
      '21 CFR 101.5 (from memory)',
      'Enter the address in the kitchen settings.',
    ),
    rule('Lot code', label.lotCode, 'Needed to trace and recall', ''),
    rule('Made on and best by', `${label.madeOn}, ${label.bestBy}`, 'Common practice', ''),
    {
      what: "Jurisdiction's statement",
      met: statementSettled,
      shown:
        label.statement ||
        (statementSettled ? `None is asked for, confirmed on ${kitchen.jurisdiction.confirmedOn}` : ''),
      rule: kitchen.jurisdiction.source || 'Set by your state or county',
      next: 'Ask your authority, then enter the sentence, or confirm that none is asked for, in the kitchen settings.',
    },
  ];
  const faults = rules
    .filter(r => !r.met)
    .map(r => ({
      path: '',
      code: 'label-incomplete',
      what: r.what.startsWith('No more')
        ? 'The label states more than a jar holds.'
        : `The label has no ${r.what.toLowerCase()}.`,
      why: `${r.rule} asks for it.`,
      next: r.next,
    }));
  return faults.length > 0 ? { ok: false, faults, rules } : { ok: true, label, rules };
}

/**
 * What the label may call it: the recipe's name, or where what went in does not bear it, the most modest truthful one in
 * its place. What lies so near to its limit that cups cannot tell keeps its name. Standards of identity are the label's
 * matter alone.
 */
export function truthfulName(
  state: BatchState,
  figures: Figures,
): { name: string; why: string; source: string } {
  const { recipe } = state.started as NonNullable<BatchState['started']>;
  const masses = lineMasses(state);
  const weighed = masses.every(
    m => !['fruit', 'low-acid produce', 'sweetener'].includes(m.line.role) || m.basis === 'weighed',
  );
  const jars = balance(observed(state, masses)).vessels.get('jars') ?? null;
  // How far it was cooked counts where somebody read it: what is reckoned takes no name away.
  const read = state.solids.findLast(r => r.part === '' && r.outletId === null);
  const found = namesFor(recipe, figures, {
    masses_g: byName(masses.map(m => [m.line.id, m.actual_g])),
    jars: jars && massIn(jars) > 0 ? jars : null,
    weighed,
    solids_pct: read?.brix_pct ?? null,
    measured: read !== undefined,
  });
  const claim = claimOf(recipe);
  const claimed = found.choices.find(c => c.name === claim?.name);
  const instead = found.choices.find(c => c.truthful && MODEST.some(m => c.name.startsWith(m)));
  if (!claimed || claimed.truthful || !instead || claimed.near !== null)
    return { name: recipe.statementOfIdentity, why: '', source: '' };
  const name = withName(recipe, instead.name);
  return { name, why: `${claimed.why} So the label calls it ${name}.`, source: claimed.source };
}

/** Names without a standard, that promise least. */
const MODEST = ['fruit spread', 'tomato sauce', 'tomatoes in water', 'juice drink'];

/**
 * What has to be said of how a food is kept: once open, nothing but a full-sugar spread keeps by itself. Common practice of
 * the trade, no source.
 */
export function directionsFor(recipe: Pick<Recipe, 'foodClass' | 'product'>): string {
  const keeps =
    recipe.foodClass === 'fruit spread' &&
    ['jam', 'jelly', 'preserves', 'marmalade'].includes(recipe.product);
  return keeps ? '' : 'Refrigerate after opening.';
}

/** So much more than is reckoned may be stated before it cannot be: glass, headspace and density differ. Our bound, from no source. */
const OVERSTATED = 1.1;

/** What is stated against what a jar of it holds, by the balance of the batch. */
function contentsRule(
  state: BatchState,
  size: JarSizeId,
  net: NetContents | undefined,
  kitchen: Pick<Kitchen, 'locale'>,
): LabelRule[] {
  if (!net) return [];
  const there_g = netOfJars_g(balance(observed(state))).get(size);
  const stated =
    net.kind === 'weight'
      ? new Decimal(net.oz).times(GRAMS_PER_OUNCE).toNumber()
      : new Decimal(net.floz).times(ML_PER_FLUID_OUNCE).toNumber();
  const most = net.kind === 'weight' ? there_g : jarSize(size).brim_mL;
  if (most === undefined) return [];
  const unit = (value: number) =>
    net.kind === 'weight' ? massText(value, kitchen) : `${Math.round(value)} mL`;
  return [
    {
      what: 'No more stated than a jar holds',
      met: stated <= most * OVERSTATED,
      shown:
        stated <= most * OVERSTATED
          ? `${unit(stated)} stated; a jar ${net.kind === 'weight' ? 'is reckoned to hold' : 'brimful holds'} ${unit(most)}`
          : '',
      rule: '21 CFR 101.7; NIST Handbook 133 (from memory)',
      next: `A jar holds about ${unit(most)}. State no more, or weigh a filled jar and correct what was entered.`,
    },
  ];
}
