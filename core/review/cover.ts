import { PH_LIMIT } from '../acid/index.ts';
import {
  acidKind,
  acidVolume_mL,
  asBottledLemon_mL,
  type Ingredient,
  isLowAcid,
  libraryOf,
  shippedAs,
} from '../ingredients/index.ts';
import {
  amountMiddle,
  byName,
  type Figures,
  Fraction,
  type Names,
  numberText,
  PLAIN_FIGURES,
  readAmount,
  shareText,
  under,
  UNITS,
} from '../measure/index.ts';
import { knownMasses_g, type Line, lineFrom, lineMass_g, type Recipe } from '../recipes/index.ts';
import { type Method, type ProcessEntry, processEntry } from '../times/index.ts';
import { type FormulaChange, lost, sentence } from './changes/change.ts';
import { METHOD_WORDS } from './changes/method.ts';
import { less, more } from './changes/portions.ts';
import { type Cover, type CoverFood, COVERS } from './data/covers.ts';
import { followedEntry, FREE_BUTTER_G, FREE_SPICE_SHARE } from './finding.ts';

/** What dried and ground produce is of: above the free share it counts as so much of the fresh. */
const DRIED_OF: Readonly<Names<string>> = byName({
  'dried-onion': 'onion',
  'dried-garlic': 'garlic',
  'dried-pepper': 'hot-pepper',
  'pepper-flakes': 'hot-pepper',
  cayenne: 'hot-pepper',
  paprika: 'bell-pepper',
  'chili-powder': 'hot-pepper',
});
/** Fresh produce that dried pepper stands for where its line does not say, by weight. Common practice. */
const FRESH_OF_DRIED = 8;

/** One line with what the library takes it for, and its grams in what is filled. */
interface Weighed {
  line: Line;
  of: readonly Ingredient[];
  grams: number;
}

let library: Map<string, Ingredient> | null = null;

/**
 * Grams of one of the ingredients of a cover in the amount it states: a weight is taken weight for weight, a volume by
 * what each fills it with.
 *
 * @throws RangeError where nothing of it can be weighed: a fault of the data
 */
export function coverGrams(part: { ids: readonly string[]; amount: string }, id: string): number {
  library ??= new Map(libraryOf([]).map(i => [i.id, i]));
  const read = readAmount(part.amount, 'en-US');
  for (const each of [id, ...part.ids]) {
    const ingredient = library.get(each);
    if (!read.ok || !ingredient) continue;
    try {
      return lineMass_g({ ...lineFrom(each, read.value, ingredient.name, ingredient), basis: 'prepared' });
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
    }
  }
  throw new RangeError(`cover: ${part.ids.join(', ')} cannot be weighed by "${part.amount}"`);
}

/** Whether a line is produce or fruit, or nobody knows what: by the library, else by its own words. */
const isFood = ({ line, of }: Weighed): boolean =>
  line.role === 'fruit' || line.role === 'other' || isLowAcid(line) || of.some(i => i.role === 'fruit');

const named = (parts: readonly Weighed[]): string => parts.map(w => w.line.name.toLowerCase()).join(', ');
const sum = (parts: readonly Weighed[]): number => parts.reduce((total, w) => total + w.grams, 0);

/** The lines of a recipe as written, in what is filled; what only dips or soaks the food is no part of it. */
function weigh(recipe: Recipe): Weighed[] {
  const masses = knownMasses_g(recipe);
  return recipe.lines
    .filter(l => l.where !== 'dip' && !(l.where === 'soak' && (l.role === 'salt' || l.role === 'water')))
    .map(line => ({ line, of: shippedAs(line), grams: (masses.get(line.id) ?? 0) * line.keptShare }));
}

/** Spices above the free share of the pot: the dried produce among them as the fresh it is of, the rest as it is. */
function beyondFree(weighed: readonly Weighed[]): { fresh: Weighed[]; liquid: Weighed[]; share: number } {
  const spices = weighed.filter(w => w.line.role === 'spice' && !isFood(w));
  const share = sum(spices) / sum(weighed);
  if (!(share > FREE_SPICE_SHARE)) return { fresh: [], liquid: [], share };
  library ??= new Map(libraryOf([]).map(i => [i.id, i]));
  const fresh = spices.flatMap(w => {
    const id = w.of.map(i => under(DRIED_OF, i.id)).find(Boolean);
    const ingredient = id === undefined ? undefined : library?.get(id);
    const factor = w.line.freshFactor > 1 ? w.line.freshFactor : FRESH_OF_DRIED;
    return ingredient ? [{ line: w.line, of: [ingredient], grams: w.grams * factor }] : [];
  });
  return { fresh, liquid: spices.filter(w => w.of.some(i => i.liquid)), share };
}

/**
 * What takes a recipe out of the published entry it follows: held against what the entry covers, from its first save,
 * whatever was taken over as tested. Each finding says what would bring it back. Nothing where it follows no entry.
 *
 * @param figures  whose figures its sentences are written in
 */
export function coverChanges(recipe: Recipe, figures: Figures = PLAIN_FIGURES): FormulaChange[] {
  const entry = processEntry(followedEntry(recipe) ?? '');
  const covers = entry && under(COVERS, entry.cleanFormOf ?? entry.id);
  if (!entry || !covers) return [];
  return best(recipe, covers, entry, figures)?.faults ?? [];
}

/** The formula of an entry that a recipe fits best, or undefined where the entry has none. */
export function fittingCover(recipe: Recipe, entry: ProcessEntry): Cover | undefined {
  return best(recipe, under(COVERS, entry.cleanFormOf ?? entry.id) ?? [], entry, PLAIN_FIGURES)?.cover;
}

/** Of several formulas of an entry the one that fits best is meant. */
function best(recipe: Recipe, covers: readonly Cover[], entry: ProcessEntry, figures: Figures) {
  const weighed = weigh(recipe);
  return covers
    .map(cover => ({ cover, faults: held(recipe, weighed, cover, entry, figures) }))
    .sort((a, b) => a.faults.length - b.faults.length)[0];
}

function held(
  recipe: Recipe,
  weighed: readonly Weighed[],
  cover: Cover,
  entry: ProcessEntry,
  figures: Figures,
): FormulaChange[] {
  const { fresh, liquid, share } = beyondFree(weighed);
  const foods = [...weighed.filter(isFood), ...fresh];
  const shares = new Map<CoverFood, Weighed[]>();
  const out: FormulaChange[] = [];
  for (const food of foods) {
    const place = placeOf(food, cover);
    if (place === null) out.push(strange(food, fresh.includes(food), share, entry, figures));
    else if (place !== 'any') shares.set(place, [...(shares.get(place) ?? []), food]);
  }
  for (const w of liquid)
    out.push(
      lost(
        'other',
        `${w.line.name}: more than a trace, and ${foodOf(entry)} has none.`,
        'Above one part in a hundred of the pot it is no spice any more; it thins the acid.',
        `Leave out ${w.line.name.toLowerCase()}, or use a trace.`,
      ),
    );
  const scale = scaleOf(shares);
  if (scale === null && foods.length > 0 && !cover.anyAcidFruit)
    out.push(
      lost(
        'food',
        `Nothing in it is what ${foodOf(entry)} is of.`,
        'The time was tested for that food.',
        'Choose the entry of this food.',
      ),
    );
  const times = scale ?? 1;
  for (const [food, parts] of shares)
    if (!food.main && food.amount && more(shareOf(food, parts), times))
      out.push(tooMuch(food, parts, times, cover, figures));
  out.push(
    ...acidFaults(weighed, cover, times, figures),
    ...doseFaults(recipe, entry, figures),
    ...fatFaults(weighed, cover, times, entry),
    ...setFaults(recipe, weighed, cover, times, entry),
    ...sugarFaults(weighed, foods, cover, figures),
    ...methodFaults(recipe.method, cover, entry),
  );
  return out;
}

/** What an entry is for, without its jars. */
const foodOf = (entry: ProcessEntry): string => entry.product.replace(/, (?:clean|sterile) jars$/, '');

/** Where a food belongs in a cover; null where it is none of it. */
function placeOf({ line, of }: Weighed, cover: Cover): CoverFood | 'any' | null {
  const place = of.length === 0 ? undefined : cover.food.find(food => of.every(i => food.ids.includes(i.id)));
  if (place) return place;
  if (!cover.anyAcidFruit) return null;
  const safe =
    of.length === 0
      ? line.role === 'fruit' && line.safelyAcid
      : of.every(i => i.role === 'fruit' && i.safelyAcid);
  return safe && !isLowAcid(line) ? 'any' : null;
}

const strange = (
  { line }: Weighed,
  isDried: boolean,
  share: number,
  entry: ProcessEntry,
  figures: Figures,
): FormulaChange =>
  isDried
    ? lost(
        'spice-as-fresh',
        `${line.name}: dried spices are ${shareText(share, figures)} of the pot, and ${foodOf(entry)} names no such produce.`,
        'To one part in a hundred they are free; above it dried peppers, garlic and onions count as fresh.',
        `Use less of ${line.name.toLowerCase()}.`,
      )
    : lost(
        'produce-added',
        `${line.name}: ${foodOf(entry)} names none.`,
        line.role === 'other'
          ? 'Nobody has said what it is, so its acid is unknown.'
          : 'Produce that was not tested with the rest dilutes the acid or slows the heat.',
        `Leave out ${line.name.toLowerCase()}, or follow a publication that tested it, with that publication's own time.`,
      );

/** How many times the amount of a cover there is of a food. */
const shareOf = (food: CoverFood, parts: readonly Weighed[]): number =>
  parts.reduce((total, w) => total + w.grams / coverGrams(food, w.of[0]?.id ?? ''), 0);

/** How many times the entry's formula a recipe is, by the food it is of; null where there is none of that. */
function scaleOf(shares: ReadonlyMap<CoverFood, Weighed[]>): number | null {
  const main = [...shares].filter(([food]) => food.main);
  if (main.length === 0) return null;
  const stated = main.filter(([food]) => food.amount);
  return stated.length === 0 ? 1 : Math.max(...stated.map(([food, parts]) => shareOf(food, parts)));
}

function tooMuch(
  food: CoverFood,
  parts: readonly Weighed[],
  scale: number,
  cover: Cover,
  figures: Figures,
): FormulaChange {
  const n = (value: number) => numberText(value, figures, 0);
  const main = cover.food.find(f => f.main) as CoverFood;
  const now_g = sum(parts);
  const most_g = (now_g / shareOf(food, parts)) * scale;
  library ??= new Map(libraryOf([]).map(i => [i.id, i]));
  const mainName = library.get(main.ids[0] ?? '')?.name.toLowerCase() ?? '';
  return lost(
    'more-low-acid',
    `${sentence(named(parts))}: ${n(now_g)} g; the entry has ${food.amount} for ${main.amount} of ${mainName}, here ${n(most_g)} g at most.`,
    'More low-acid produce for the same acid was not tested.',
    `Use ${n(Math.floor(most_g))} g of ${named(parts)}, together, or less.`,
  );
}

/** Grams of acid that counts as a barrier in pot or brine; the lower end of a range counts. */
function acids(weighed: readonly Weighed[]): { vinegar: number; juice: number } {
  const grams = (kind: string) =>
    weighed
      .filter(w => w.line.where !== 'each jar' && acidKind(w.line) === kind)
      .reduce((total, { line, grams: g }) => {
        const middle = amountMiddle(line.amount).valueOf();
        return total + (middle > 0 ? (g * new Fraction(line.amount.value).valueOf()) / middle : g);
      }, 0);
  return { vinegar: grams('vinegar'), juice: grams('bottled juice') };
}

function acidFaults(
  weighed: readonly Weighed[],
  cover: Cover,
  scale: number,
  figures: Figures,
): FormulaChange[] {
  const water = sum(weighed.filter(w => w.line.role === 'water' && w.line.where !== 'each jar'));
  const dilutes = (most: number) =>
    cover.water !== null && more(water, most)
      ? [
          lost(
            'diluted',
            most === 0
              ? 'Water: the entry has none.'
              : `Water: ${shareText(water / most, figures)} of what the entry has.`,
            'Water thins the acid, and what is thinner heats another way.',
            most === 0 ? 'Leave out the water.' : 'Go back to the water of the entry.',
          ),
        ]
      : [];
  const water_g = cover.water ? coverGrams({ ids: ['water'], amount: cover.water }, 'water') : 0;
  if (cover.acid.length === 0) return dilutes(water_g * scale);
  const now = acids(weighed);
  const then = { vinegar: 0, juice: 0 };
  for (const part of cover.acid) {
    const grams = coverGrams(part, part.ids[0] ?? '');
    if (part.ids.some(id => id.startsWith('bottled'))) then.juice += grams;
    else then.vinegar += grams;
  }
  const judge = (is: typeof now, was: typeof now, say: (is: number, was: number) => FormulaChange) => {
    if (less(is.juice, was.juice))
      return is.vinegar > was.vinegar
        ? [
            lost(
              'vinegar-for-juice',
              'Vinegar in place of bottled lemon or lime juice.',
              'Vinegar is the weaker acid; it never takes the place of bottled juice (plain tomatoes excepted).',
              'Put the bottled juice back.',
            ),
          ]
        : [say(is.juice, was.juice)];
    const all = is.vinegar + is.juice;
    const asked = was.vinegar + was.juice;
    return less(all, asked) ? [say(all, asked)] : [];
  };
  if (cover.packed) {
    const liquid = now.vinegar + now.juice + water;
    const entire = then.vinegar + then.juice + water_g;
    const part = (grams: number, whole: number) => (whole === 0 ? 0 : grams / whole);
    return judge(
      { vinegar: part(now.vinegar, liquid), juice: part(now.juice, liquid) },
      { vinegar: part(then.vinegar, entire), juice: part(then.juice, entire) },
      (is, was) =>
        lost(
          'weaker-brine',
          `The brine is ${shareText(is, figures)} acid and the rest water; the entry's is ${shareText(was, figures)}.`,
          'A weaker brine leaves less acid in every piece.',
          `Put more vinegar or less water: ${shareText(was, figures)} of the brine or more.`,
        ),
    );
  }
  return [
    ...judge(now, { vinegar: then.vinegar * scale, juice: then.juice * scale }, (is, was) =>
      lost(
        'less-acid',
        `Less acid: ${shareText(is / was, figures)} of what the entry has for this much food.`,
        'Acid is the barrier that was tested.',
        `Put ${numberText(Math.ceil(was), figures, 0)} g in, or take out produce in proportion.`,
      ),
    ),
    ...dilutes(water_g * scale),
  ];
}

/** The acid an entry wants in each jar; bottled juice, citric acid and vinegar stand in for each other where it says so. */
function doseFaults(recipe: Recipe, entry: ProcessEntry, figures: Figures): FormulaChange[] {
  const dose = entry.acidInEachPint;
  if (!dose) return [];
  const tbsp_mL = UNITS.tbsp.factor.valueOf();
  const wanted_mL = dose.bottledLemon_tbsp * tbsp_mL;
  const there_mL = recipe.lines
    .filter(l => l.where === 'each jar' && !l.ratio)
    .reduce((total, line) => {
      const kind = acidKind(line);
      if (kind === null || (kind === 'vinegar' && dose.vinegar_tbsp === null)) return total;
      return total + asBottledLemon_mL(kind, acidVolume_mL(line) ?? 0);
    }, 0);
  if (!less(there_mL, wanted_mL)) return [];
  const n = (value: number) => numberText(value, figures);
  const also = dose.vinegar_tbsp === null ? '' : `, or ${n(dose.vinegar_tbsp)} tablespoons of 5 % vinegar`;
  return [
    lost(
      'less-acid',
      there_mL === 0
        ? 'No acid goes into each jar.'
        : `Acid in each jar: ${shareText(there_mL / wanted_mL, figures)} of what the entry wants.`,
      `Tomatoes, figs and the like lie about ${n(PH_LIMIT)} and may lie above; the dose in each jar makes sure of it.`,
      `In each pint ${n(dose.bottledLemon_tbsp)} tablespoon of bottled lemon juice or ${n(dose.citricAcid_tsp)} teaspoon of citric acid${also}; a quart takes twice as much.`,
    ),
  ];
}

function fatFaults(
  weighed: readonly Weighed[],
  cover: Cover,
  scale: number,
  entry: ProcessEntry,
): FormulaChange[] {
  const fats = weighed.filter(w => w.line.role === 'fat' || w.of.some(i => i.role === 'fat'));
  const butter = fats.filter(w => /butter/i.test(w.line.name));
  const rest = fats.filter(w => !butter.includes(w));
  const most_g = cover.oil === '' ? 0 : coverGrams({ ids: ['oil'], amount: cover.oil }, 'oil') * scale;
  const there = [...(sum(butter) > FREE_BUTTER_G ? butter : []), ...rest];
  if (there.length === 0 || (rest.length === there.length && most_g > 0 && !more(sum(rest), most_g)))
    return [];
  return [
    lost(
      'oil',
      most_g > 0
        ? `${sentence(named(there))}: more than ${foodOf(entry)} has.`
        : `${sentence(named(there))}: ${foodOf(entry)} has no fat in it.`,
      'Fat shields what is in it from acid and heat.',
      most_g > 0 ? `Go back to ${cover.oil} for the entry's amounts.` : `Leave out ${named(there)}.`,
    ),
  ];
}

function setFaults(
  recipe: Recipe,
  weighed: readonly Weighed[],
  cover: Cover,
  scale: number,
  entry: ProcessEntry,
): FormulaChange[] {
  const sets = weighed.filter(w => w.line.role === 'set' || w.of.some(i => i.role === 'set'));
  const starch = sets.filter(w => w.of.some(i => i.set === 'modified starch'));
  const pectin = sets.filter(w => !starch.includes(w));
  const out: FormulaChange[] = [];
  const thick = (what: string, next: string) =>
    out.push(lost('thickening', what, 'What is thicker lets the heat in more slowly.', next));
  const takesPectin = cover.setBy.some(s => s.endsWith('pectin'));
  if (pectin.length > 0 && !takesPectin)
    thick(`${sentence(named(pectin))}: ${foodOf(entry)} is not set with it.`, `Leave out ${named(pectin)}.`);
  const most_g =
    cover.starch === ''
      ? 0
      : coverGrams({ ids: ['canning-starch'], amount: cover.starch }, 'canning-starch') * scale;
  if (starch.length > 0 && more(sum(starch), most_g))
    thick(
      most_g === 0
        ? `${sentence(named(starch))}: ${foodOf(entry)} has none.`
        : `${sentence(named(starch))}: more than the tested amount.`,
      most_g === 0
        ? `Leave out ${named(starch)}.`
        : `Go back to ${cover.starch} for ${cover.food[0]?.amount ?? ''} of fruit.`,
    );
  if (out.length === 0 && cover.setBy.length > 0 && !cover.setBy.includes(recipe.setBy))
    thick(
      `Set by ${recipe.setBy}; ${foodOf(entry)} is ${cover.setBy.map(s => (s === 'not set' ? s : `set by ${s}`)).join(' or ')}.`,
      `Set it by ${cover.setBy.filter(s => s !== 'not set').join(' or ') || 'nothing'}, or choose the entry for this set.`,
    );
  return out;
}

function sugarFaults(
  weighed: readonly Weighed[],
  foods: readonly Weighed[],
  cover: Cover,
  figures: Figures,
): FormulaChange[] {
  if (cover.sugarForFruit === 0) return [];
  const fruit = sum(foods);
  const sugar = weighed
    .filter(w => w.line.role === 'sweetener')
    .reduce((total, { line, grams }) => total + (grams * (line.solids_pct || 100)) / 100, 0);
  if (fruit === 0 || !less(sugar, fruit * cover.sugarForFruit)) return [];
  return [
    lost(
      'reduced-sugar',
      `Sugar is ${shareText(sugar / fruit, figures)} of the fruit; the spreads this time was published for have ${shareText(cover.sugarForFruit, figures)} or more.`,
      'Its sugar keeps a spread; a reduced-sugar spread inherits no jam time.',
      'Put more sugar, or follow a tested recipe with less.',
    ),
  ];
}

const COVERED = ['peel', 'cut', 'strain'] as const;

function methodFaults(method: Method, cover: Cover, entry: ProcessEntry): FormulaChange[] {
  return COVERED.flatMap(key => {
    const allowed: readonly string[] = cover[key];
    const now = method[key];
    if (allowed.length === 0 || allowed.includes(now)) return [];
    const [code, name, why] = METHOD_WORDS[key];
    return [
      lost(
        now === 'puréed' ? 'pureed' : code,
        `${name}: ${now}; ${foodOf(entry)} is ${allowed.join(' or ')}.`,
        why,
        `Make it ${allowed.join(' or ')}.`,
      ),
    ];
  });
}
