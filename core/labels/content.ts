import { allergensIn, lotOf, unwashedAllergens } from '../batches/index.ts';
import { balance, massIn, massOf, netOfJars_g, PART_NAMES, reachedJars_g } from '../balance/index.ts';
import type { BatchState, LabelContent } from '../batches/index.ts';
import { lineMasses, observed } from '../batches/index.ts';
import { type Kitchen, PLAIN_LABEL } from '../kitchen/index.ts';
import { type Fault, type Figures, addDays, addMonths, byName, ofNames } from '../measure/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { claimOf, namesFor, withName } from '../review/index.ts';
import { allergensFor, allergensNamed, withoutSulphites } from './allergens.ts';
import { contentRules, FAULTY, type LabelRule } from './content-rules.ts';
import { directionsFor } from './directions.ts';
import { ingredientStatement } from './ingredients.ts';
import { netAmount, netContentsText } from './net.ts';
import { calculatedNutrients, nutritionLine } from './nutrition.ts';
import type { LabelSetup } from './setup.ts';
import { labelSpelling } from './spelling.ts';

/** Allergens of everything that went in, from lots and recipe, sorted. */
export function allergensOf(state: BatchState): string[] {
  return [...new Set([...allergensIn(state), ...unwashedAllergens(state)])].sort();
}

/**
 * What the label of one jar size says, or the faults that keep it from being printed.
 *
 * @param kitchen  maker, address and jurisdiction as they stand now
 * @param setup  how labels of this recipe are made
 * @param jars  those it goes on, of one filling; the first filling where none are named
 */
export function labelContent(
  state: BatchState,
  kitchen: Pick<Kitchen, 'makerName' | 'makerAddress' | 'jurisdiction' | 'locale'>,
  setup: LabelSetup,
  size: JarSizeId,
  jars: readonly number[] = [],
):
  { ok: true; label: LabelContent; rules: LabelRule[] } | { ok: false; faults: Fault[]; rules: LabelRule[] } {
  const { started } = state;
  if (!started) throw new RangeError('labelContent: the batch has not been started');
  // What was filled from what was left over the next day has a code and a day of its own.
  const lot = jars[0] === undefined ? null : lotOf(state, jars[0]);
  const { lotCode, madeOn } = lot ?? started;
  const { rules: place, number } = kitchen.jurisdiction;
  const asks = place?.label ?? PLAIN_LABEL;
  const net = started.recipe.jars.find(j => j.size === size)?.net;
  const named = truthfulName(state, kitchen);
  const spelled = (text: string) => labelSpelling(text, kitchen.locale);
  const few = setup.fewSulphites !== '';
  const stated = ingredientStatement(state, setup.groupSpices);
  const ingredients = few ? withoutSulphites(stated) : stated;
  const allergens = allergensFor(allergensOf(state), ingredients, asks.rules, few);
  const label: LabelContent = {
    statementOfIdentity: named.name,
    ingredients: spelled(ingredients),
    emphasised:
      asks.rules === 'EU'
        ? [
            ...new Set([
              ...allergensNamed(ingredients, 'EU').map(a => spelled(a.word)),
              ...allergens.map(spelled),
            ]),
          ]
        : [],
    contains: asks.rules === 'EU' ? '' : spelled(allergens.join(', ')),
    shares: sharesOf(state, asks.rules),
    netContents: net ? netContentsText(net, setup.netForm, asks.rules) : '',
    net: net ? netAmount(net) : { unit: 'g', amount: 0 },
    maker: kitchen.makerName,
    address: asks.maker === 'address or number' && number !== '' ? '' : kitchen.makerAddress,
    registration: asks.number || asks.maker === 'address or number' ? number : '',
    lotCode,
    madeOn,
    bestBy: addMonths(madeOn, started.recipe.shelfLife_months),
    readyFrom: started.recipe.readyAfter_days > 0 ? addDays(madeOn, started.recipe.readyAfter_days) : null,
    directions: directionsFor(started.recipe, setup, kitchen.locale),
    keeping: spelled(setup.keeping),
    statement: kitchen.jurisdiction.statement,
    words: spelled(setup.words),
    nutrition: nutritionOf(state, setup, size),
    notForSale: started.purpose !== 'sale',
    locale: kitchen.locale,
    place: place ? { id: place.id, name: place.name, version: place.version } : null,
    asks,
  };
  const rules = contentRules(state, kitchen, setup, size, net, label, named);
  const faults = rules
    .filter(r => !r.met)
    .map(r => ({
      path: r.field === 'words' ? 'words' : '',
      code: 'label-incomplete',
      what: FAULTY.get(r.what) ?? `The label has no ${r.what.toLowerCase()}.`,
      why: r.rule,
      next: r.next,
    }));
  return faults.length > 0 ? { ok: false, faults, rules } : { ok: true, label, rules };
}

/** Per cent juice where juice is sold; grams of fruit in 100 g, and sugar, where a place wants that said of jams. */
function sharesOf(state: BatchState, rules: LabelContent['asks']['rules']): string {
  const { recipe } = state.started as NonNullable<BatchState['started']>;
  const process = observed(state);
  const made = balance(process);
  const jars = made.vessels.get('jars');
  if (!jars) return '';
  const all_g = massIn(jars);
  if (all_g <= 0) return '';
  const of = (wanted: (role: string) => boolean) =>
    process.lines.reduce((sum, { line }) => {
      const parts = jars.get(line.id);
      return sum + (parts && wanted(line.role) ? massOf(parts) : 0);
    }, 0);
  if (recipe.product === 'juice') {
    const added = of(role => role === 'water' || role === 'sweetener');
    const pct = Math.floor((1 - added / all_g) * 100 + 1e-6);
    return pct > 0 && pct <= 100 ? `Contains ${pct}% juice.` : '';
  }
  if (rules !== 'EU' || recipe.foodClass !== 'fruit spread') return '';
  const reached = reachedJars_g(made);
  const fruit_g = process.lines.reduce(
    (sum, { line }) => sum + (line.role === 'fruit' ? (reached.get(line.id) ?? 0) : 0),
    0,
  );
  const read = state.solids.findLast(r => r.part === '' && r.outletId === null);
  const sugars = [...jars.values()].reduce((sum, p) => sum + p.sugar_g + p.soluble_g, 0);
  const fruit = Math.floor((fruit_g / all_g) * 100);
  const total = Math.round(read?.brix_pct ?? (sugars / all_g) * 100);
  return `Prepared with ${fruit} g of fruit per 100 g. Total sugar content: ${total} g per 100 g.`;
}

function nutritionOf(state: BatchState, { nutrition }: LabelSetup, size: JarSizeId): string {
  if (nutrition.how === 'none') return '';
  const made = balance(observed(state));
  const net_g = netOfJars_g(made).get(size) ?? 0;
  if (nutrition.how === 'entered') return nutritionLine(nutrition.per100_g, nutrition.serving, net_g, false);
  const jars = made.vessels.get('jars');
  const all_g = jars ? massIn(jars) : 0;
  if (!jars || all_g <= 0) return '';
  const in100 = ofNames(
    PART_NAMES.map(part => [part, ([...jars.values()].reduce((sum, p) => sum + p[part], 0) / all_g) * 100]),
  );
  return nutritionLine(calculatedNutrients(in100 as Required<typeof in100>), nutrition.serving, net_g, true);
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
