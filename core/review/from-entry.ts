import { type Ingredient, libraryOf } from '../ingredients/index.ts';
import { type Amount, byName, readAmount, under } from '../measure/index.ts';
import {
  emptyRecipe,
  type Line,
  lineFrom,
  proposeCode,
  type Recipe,
  type Step,
  stepFrom,
  usualNet,
} from '../recipes/index.ts';
import { PROCESS_ENTRIES, type ProcessEntry, SPREADS } from '../times/index.ts';
import { type Cover, COVERS } from './data/covers.ts';
import { classOf } from './rules.ts';

/** A published entry that was looked for, in one of its formulas, with the fruit it is to be made of where any will do. */
export interface FoundEntry {
  entry: ProcessEntry;
  /** Which of its formulas. */
  formula: number;
  /** Ingredient of the library that was named, for an entry of any acid fruit; null where none was. */
  fruit: string | null;
  /** What it is called where it is chosen: "Strawberry jam", "Dilled beans, raw pack". */
  title: string;
  detail: string;
}

/** A recipe begun from an entry, and what has to be read off the publication: amounts of lines, and (null) how much it makes. */
export interface FromEntry {
  recipe: Recipe;
  open: { lineId: string | null; what: string }[];
}

/** What people call things, beside the words of entries and of the library. Common usage. */
const ALSO: readonly (readonly [entry: RegExp, words: string])[] = [
  [/^jam/, 'jam preserves conserve'],
  [/no-pectin/, 'no'],
  [/^jelly/, 'jelly'],
  [/^dilled-beans/, 'dilly beans pickled green beans'],
  [/^dill-pickles|^less-sodium-dill/, 'pickles pickled cucumbers cukes dills'],
  [/pickles|gherkins|less-sodium/, 'pickles pickled cucumbers cukes'],
  [/^tomatoes/, 'canned tomatoes whole stewed diced'],
  [/ketchup/, 'ketchup catsup'],
  [/^sauerkraut/, 'kraut cabbage fermented'],
  [/^tomato-sauce/, 'passata sauce puree'],
  [/salsa/, 'salsa'],
  [/relish/, 'relish'],
  [/piccalilli/, 'relish chow chowchow'],
  [/^applesauce/, 'apple sauce'],
  [/^berry-syrup/, 'syrup cordial'],
  [/jalapeno|pepper-rings|hot-peppers/, 'pickled peppers chiles chillies'],
  [/^beets|^carrots|^okra|^cauliflower|^pearl-onions|^bell-peppers/, 'pickled'],
];

const CITRUS = /orange|lemon|lime|grapefruit|tangerine|mandarin|citron|kumquat/i;

const LIBRARY = libraryOf([]);
const byId = new Map(LIBRARY.map(i => [i.id, i]));
const ACID_FRUIT = LIBRARY.filter(i => i.role === 'fruit' && i.safelyAcid);

/** Words of a text, without accents, in lower case, in the singular. */
const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/g, '')
    .split(/[^a-z0-9]+/)
    .filter(w => w.length > 1 && !SAYS_NOTHING.has(w))
    .map(singular);
const SAYS_NOTHING = new Set(['with', 'of', 'and', 'in', 'the', 'for', 'make', 'my', 'some']);
const singular = (word: string): string =>
  /(?:ss|us)$/.test(word)
    ? word
    : word
        .replace(/ies$/, 'y')
        .replace(/(ch|sh|x|to)es$/, '$1')
        .replace(/s$/, '');

interface Indexed {
  found: FoundEntry;
  title: string[];
  all: string[];
}
const namesOf = (i: Ingredient) => `${i.name} ${i.aliases.join(' ')}`;

/** Every entry in each of its formulas, and of each acid fruit where any will do: once, when first asked. */
let index: readonly Indexed[] | null = null;
const indexed = (): readonly Indexed[] => (index ??= PROCESS_ENTRIES.flatMap(indexOf));

/** The clean-jar form stands for its five-minute entry: fewer jars are boiled, and nobody has to know both. */
const hasCleanForm = new Set(PROCESS_ENTRIES.flatMap(e => (e.cleanFormOf ? [e.cleanFormOf] : [])));

function indexOf(entry: ProcessEntry): Indexed[] {
  if (hasCleanForm.has(entry.id)) return [];
  const base = entry.cleanFormOf ?? entry.id;
  const also = ALSO.filter(([is]) => is.test(base))
    .map(([, words]) => words)
    .join(' ');
  return (under(COVERS, base) ?? []).flatMap((cover, formula): Indexed[] => {
    const foods = cover.food.flatMap(f => f.ids.flatMap(id => byId.get(id) ?? []));
    const of = (title: string, fruit: Ingredient | null): Indexed => {
      const detail = `${entry.pack} pack; ${entry.source.part.split(';')[0] ?? ''}`;
      const text = `${title} ${entry.product} ${entry.products.join(' ')} ${also} ${foods.map(namesOf).join(' ')} ${fruit ? namesOf(fruit) : ''} ${entry.pack}`;
      return {
        found: { entry, formula, fruit: fruit?.id ?? null, title, detail },
        title: wordsOf(title),
        all: wordsOf(text),
      };
    };
    // Of several formulas each is known by its acid.
    const acid = byId.get(cover.acid[0]?.ids[0] ?? '')?.name.toLowerCase();
    const covers = under(COVERS, base) ?? [];
    const general = of(covers.length > 1 && acid ? `${entry.product}, with ${acid}` : entry.product, null);
    if (!cover.anyAcidFruit) return [general];
    const fruits = base.startsWith('marmalade') ? ACID_FRUIT.filter(i => CITRUS.test(i.name)) : ACID_FRUIT;
    return [general, ...fruits.map(fruit => of(madeOf(fruit, entry), fruit))];
  });
}

/** "Strawberry jam" of the fruit and the entry. */
function madeOf(fruit: Ingredient, entry: ProcessEntry): string {
  const name = singular(fruit.labelName);
  const product = entry.product.replace(/^Fruit /, '');
  const what = /,/.test(product) ? product.slice(0, product.indexOf(',')) : product;
  return `${name.charAt(0).toUpperCase()}${name.slice(1)} ${what.charAt(0).toLowerCase()}${what.slice(1)}`;
}

/**
 * Published entries for what somebody wants to make, in the words people use: a fruit, a vegetable, a kind, a pack. Each word
 * has to begin a word of the entry; what its name says comes first.
 *
 * @param text  what was typed; nothing is found for nothing
 * @param most  how many at most
 * @example findEntries('strawberry jam')[0]?.fruit // 'strawberry'
 */
export function findEntries(text: string, most = 12): FoundEntry[] {
  const asked = wordsOf(text);
  if (asked.length === 0) return [];
  const scored = indexed().flatMap(({ found, title, all }) => {
    let score = 0;
    for (const word of asked) {
      if (title.includes(word)) score += 4;
      else if (title.some(t => t.startsWith(word))) score += 3;
      else if (all.includes(word)) score += 2;
      else if (word.length > 2 && all.some(t => t.startsWith(word))) score += 1;
      else return [];
    }
    // An entry of that food before one of any; of two that say it alike the one whose name says nothing else.
    return [{ found, score: score - title.length / 100 - (found.fruit === null ? 0 : 0.5) }];
  });
  return scored
    .sort((a, b) => b.score - a.score)
    .slice(0, most)
    .map(s => s.found);
}

/** What sets a spread, by the ids of the library. */
const PECTIN_OF = byName([
  ['ordinary pectin', 'pectin-powder'],
  ['low-sugar pectin', 'pectin-low-sugar'],
  ['calcium pectin', 'pectin-calcium'],
] as const);

const amountOf = (text: string): Amount | null => {
  const read = readAmount(text, 'en-US');
  return read.ok ? read.value : null;
};
/** An amount that nobody knows yet: the publication has it. */
const unknown = (unit: Amount['unit']): Amount => ({
  text: '',
  unit,
  value: '0',
  upTo: null,
  toTaste: false,
});

/**
 * A recipe begun from a published entry: its method, jars, headspace, acid, steps, waits and cautions, the amounts its
 * formula has here, and what is left to be read off the publication.
 *
 * @param found  as {@link findEntries} gives it
 * @param checkedOn  the day it is begun
 */
export function recipeFromEntry({ entry, formula, fruit, title }: FoundEntry, checkedOn: string): FromEntry {
  const cover = (under(COVERS, entry.cleanFormOf ?? entry.id) ?? [])[formula];
  if (!cover) throw new RangeError(`recipeFromEntry: ${entry.id} has no formula ${formula}`);
  const open: FromEntry['open'] = [];
  const lines = linesOf(entry, cover, fruit, open);
  const sizes = entry.rows.map(r => r.jarSize);
  const size = sizes.includes('pint') && !isSpread(entry) ? 'pint' : (sizes[0] ?? 'pint');
  open.push({ lineId: null, what: 'how many jars it makes' });
  const liquid = entry.liquids[0] ?? (cover.packed ? 'vinegar brine' : 'none');
  const method: Recipe['method'] = {
    // What is peeled is large: it is cut where it may be.
    cut:
      cover.peel.includes('peeled') && cover.cut.includes('sliced') ? 'sliced' : (cover.cut[0] ?? 'chopped'),
    peel: cover.peel[0] ?? 'either',
    strain: cover.strain[0] ?? 'unstrained',
    liquid,
    pack: entry.pack,
  };
  const recipe: Recipe = {
    ...emptyRecipe(),
    name: title,
    code: proposeCode(title),
    statementOfIdentity: title.replace(/, (?:hot|raw) pack.*$/, ''),
    product: entry.products[0] ?? 'other',
    setBy: cover.setBy[0] ?? 'not set',
    method,
    authority: authorityOf(entry, checkedOn),
    lines,
    steps: stepsOf(entry, cover, lines, method),
    makes: { size, count: 1 },
    jars: sizes.map(s => ({ size: s, net: usualNet(s, entry.products[0] ?? 'other') })),
    notes: [entry.conditions, FROM_MEMORY].filter(Boolean).join(' '),
  };
  return { recipe: { ...recipe, foodClass: classOf(recipe) }, open };
}

/** The authority of a recipe that follows a published entry. */
export const authorityOf = (entry: ProcessEntry, checkedOn: string): Recipe['authority'] => ({
  grade: 'tested publication',
  kind: 'publication',
  title: entry.source.title,
  edition: entry.source.edition,
  year: 2015,
  part: entry.source.part,
  checkedOn,
  fromMemory: true,
  time: { kind: 'entry', entryId: entry.id },
});

const FROM_MEMORY =
  'Its amounts were recalled from memory, as prepared weights: hold each against the publication before it is cooked.';

const isSpread = (entry: ProcessEntry) => entry.products.some(p => SPREADS.includes(p));

function linesOf(entry: ProcessEntry, cover: Cover, fruit: string | null, open: FromEntry['open']): Line[] {
  const out: Line[] = [];
  const add = (
    id: string,
    ingredientId: string,
    amount: string,
    unit: Amount['unit'],
    over: Partial<Line> = {},
  ) => {
    const ingredient = byId.get(ingredientId) ?? null;
    const known = amount === '' ? null : amountOf(amount);
    const name = ingredient?.name ?? ingredientId;
    const line = lineFrom(id, known ?? unknown(unit), name, ingredient);
    if (!known) open.push({ lineId: id, what: `how much of ${name.toLowerCase()}` });
    // Weight for weight, as what an entry covers is held against a recipe.
    out.push({ ...line, basis: 'prepared', ...over });
  };
  const where = cover.packed ? 'brine' : 'pot';
  const foods = cover.anyAcidFruit ? [{ ids: [fruit ?? 'strawberry'], amount: '', main: true }] : cover.food;
  foods.forEach((food, i) => {
    const id = food.ids.find(x => byId.has(x)) ?? (food.ids[0] as string);
    const spice = byId.get(id)?.role === 'spice' || id === 'dill';
    add(`food-${i + 1}`, id, food.amount, 'lb', spice && cover.packed ? { where: 'each jar' } : {});
  });
  cover.acid.forEach((acid, i) => add(`acid-${i + 1}`, acid.ids[0] as string, acid.amount, 'cup', { where }));
  if (cover.water) add('water', 'water', cover.water, 'cup', { where });
  else if (entry.liquids[0] === 'water') add('water', 'water', '', 'cup', { where: 'brine' });
  if (cover.oil) add('oil', 'oil', cover.oil, 'cup');
  if (cover.starch) add('starch', 'canning-starch', cover.starch, 'cup');
  if (cover.sugarForFruit > 0 || entry.products.includes('pie filling') || entry.products.includes('syrup'))
    add('sugar', 'sugar', '', 'cup');
  const pectin = under(PECTIN_OF, cover.setBy[0] ?? '');
  if (pectin) add('pectin', pectin, '', 'package');
  if (cover.packed) add('salt', 'canning-salt', '', 'tbsp', { where: 'brine' });
  if (entry.acidInEachPint)
    add('dose', 'bottled-lemon', `${entry.acidInEachPint.bottledLemon_tbsp} Tbsp`, 'tbsp', {
      where: 'each jar',
    });
  return out;
}

const WORDS: Partial<Record<Recipe['method']['cut'], string>> = {
  whole: 'leave them whole',
  halved: 'halve them',
  sliced: 'slice them',
  chopped: 'chop them',
  crushed: 'crush them',
  puréed: 'put them through a mill or a sieve',
  juice: 'press or strain off the juice',
};

/** The steps of an entry in their order, each with what goes in there. */
function stepsOf(
  entry: ProcessEntry,
  cover: Cover,
  lines: readonly Line[],
  method: Recipe['method'],
): Step[] {
  const all = (of: (line: Line) => boolean): Step['adds'] =>
    lines.filter(of).map(l => ({ lineId: l.id, share: '1' }));
  const food = (l: Line) => (l.role === 'fruit' || l.role === 'low-acid produce') && l.where === 'pot';
  const out: Step[] = [
    stepFrom(
      'open',
      'prepare',
      'Open the kitchen: wash hands, surfaces and tools; wash jars and keep them hot',
    ),
    {
      ...stepFrom(
        'prepare',
        'prepare',
        `Sort and wash${method.peel === 'peeled' ? ', peel' : ''}; ${WORDS[method.cut] ?? 'cut them'}; weigh what is ready`,
      ),
      adds: all(food),
      caution: lines.some(l => /hot pepper|jalape|habanero|chile/i.test(l.name))
        ? 'Gloves for hot peppers.'
        : '',
    },
  ];
  if (cover.packed) {
    out.push({
      ...stepFrom('brine', 'acidify', 'Bring the brine to a boil'),
      adds: all(l => l.where === 'brine'),
      target: { kind: 'look', text: 'it boils and the salt is gone' },
      caution: 'Stainless or sound enamel only; mind the fumes.',
    });
    if (entry.pack === 'hot')
      out.push({
        ...stepFrom('heat', 'cook', 'Heat the pieces through in it'),
        adds: all(l => l.where === 'pot' && !food(l)),
        target: { kind: 'look', text: 'all of it boils' },
      });
  } else if (isSpread(entry)) {
    const pectin = lines.some(l => l.id === 'pectin');
    out.push({
      ...stepFrom(
        'boil',
        'cook',
        pectin
          ? 'Follow the leaflet of the pectin: when it goes in, and the boil that stirring cannot stop'
          : 'Boil fast, stirring, to the gel point',
      ),
      adds: all(l => l.where === 'pot' && !food(l)),
      target:
        pectin || entry.products.includes('fruit butter')
          ? {
              kind: 'look',
              text: pectin ? 'a rolling boil for the time of the leaflet' : 'it rounds up on a spoon',
            }
          : { kind: 'gel point' },
      caution: 'It spits and sticks: do not leave it.',
    });
  } else if (entry.pack === 'hot')
    out.push({
      ...stepFrom('boil', 'cook', 'Bring it to a boil, and cook it as the publication says'),
      adds: all(l => l.where === 'pot' && !food(l)),
      target: { kind: 'look', text: 'as the publication says' },
    });
  const jars = lines.filter(l => l.where === 'each jar').map(l => l.name.toLowerCase());
  out.push(
    {
      ...stepFrom(
        'fill',
        'fill',
        `${jars.length > 0 ? `${jars.join(' and ')} in each jar; ` : ''}fill ${entry.pack === 'hot' ? 'hot' : 'raw'}, {headspace} headspace; free bubbles, top up, wipe rims, lids fingertip tight`.replace(
          /^./,
          c => c.toUpperCase(),
        ),
      ),
      adds: [
        ...all(l => l.where === 'each jar'),
        ...(entry.pack === 'raw' ? all(l => l.where === 'pot' && !food(l)) : []),
        ...(cover.packed ? [] : all(l => l.where === 'brine')),
      ],
      caution: 'Hot food in hot jars, a cloth under them.',
    },
    stepFrom('process', 'process', 'Into the canner: {minutes}, from the full boil on'),
    {
      ...stepFrom('cool', 'cool', 'Cool 12 to 24 hours out of the draught'),
      window: { from_min: 720, to_min: 1440 },
    },
  );
  return out;
}
