import { asWritten, balance, type Contents, massIn, solubleOf } from '../balance/index.ts';
import { type Figures, type Names, byName, numberText, PLAIN_FIGURES, UNITS } from '../measure/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import { type Product, SPREADS } from '../times/index.ts';
import { ANYWHERE } from './acid-balance.ts';
import { nameCheck } from './identity.ts';

/** A name that a food may bear or not, with the figure that decides. */
export interface NameChoice {
  name: string;
  truthful: boolean;
  why: string;
  /** The standard of identity; empty where common usage alone decides. */
  source: string;
  /** So near to its limit that cups cannot tell on which side it lies, or that only the finished pot can. */
  near: 'amounts' | 'solids' | null;
}

/** What a food may be called, and what has to be weighed to be sure of it. */
export interface NamesFound {
  choices: NameChoice[];
  /** Lines to weigh instead of measuring them by cups: a name lies near its limit. */
  weigh: string[];
  /** Juice of single strength in a hundred of what is in the jar; null for what is no juice. */
  juice_pct: number | null;
}

/** What a name is judged by: what went in, and what is in the jars. */
export interface NameFigures {
  /** Grams prepared of each line. */
  masses_g: Readonly<Names<number>>;
  /** What is in the jars; null while a line cannot be weighed. */
  jars: Contents | null;
  /** Fruit, tomatoes and sweeteners were weighed: by parts of fruit nothing is near any more. */
  weighed: boolean;
  /** Soluble solids of the finished food, per cent; null where nobody read them and nothing foretells them. */
  solids_pct: number | null;
  /** They were read, not reckoned. */
  measured: boolean;
}

/** Parts of fruit that cups may be off by. From memory: a cup heaped or struck differs by a twentieth. */
const BY_CUPS = 1.5;
/** The same of soluble solids in per cent, where the last minute of cooking decides. From memory: half a degree at the gel point. */
const BY_COOKING = 1.5;

const CITRUS = /\b(?:orange|lemon|lime|grapefruit|citron|mandarin|tangerine|clementine|pomelo|kumquat)s?\b/i;
const TOMATO = /\btomato(?:es)?\b/i;
const isTomato = (line: Line) => line.role !== 'spice' && TOMATO.test(line.name);
const isFood = (line: Line) =>
  (line.role === 'fruit' || line.role === 'low-acid produce') && line.where !== 'dip';

/** Standard words of a name, as they stand in it; the first that is found is what it claims. */
const CLAIMS: readonly { word: RegExp; name: string; of: 'spread' | 'tomato' | 'juice' }[] = [
  { word: /\bjam\b/i, name: 'jam', of: 'spread' },
  { word: /\bpreserves?\b/i, name: 'preserves', of: 'spread' },
  { word: /\bjelly\b/i, name: 'jelly', of: 'spread' },
  { word: /\b(?:fruit )?butter\b/i, name: 'fruit butter', of: 'spread' },
  { word: /\bmarmalade\b/i, name: 'marmalade', of: 'spread' },
  { word: /\bconserve\b/i, name: 'conserve', of: 'spread' },
  { word: /\b(?:ketchup|catsup|catchup)\b/i, name: 'ketchup', of: 'tomato' },
  { word: /\bpaste\b/i, name: 'tomato paste', of: 'tomato' },
  { word: /\bpur[ée]e\b/i, name: 'tomato purée', of: 'tomato' },
  { word: /\bjuice\b/i, name: 'tomato juice', of: 'tomato' },
  { word: /\b(?:canned )?tomatoes\b/i, name: 'canned tomatoes', of: 'tomato' },
  { word: /\bjuice\b/i, name: 'juice', of: 'juice' },
];

type Family = 'spread' | 'tomato' | 'juice';

/** Which standards a food is held to; null for those that have none, such as a pickle. */
function familyOf(recipe: Pick<Recipe, 'product' | 'lines' | 'foodClass'>): Family | null {
  const { product, lines } = recipe;
  const foods = lines.filter(isFood);
  if (foods.some(isTomato) && TOMATO_PRODUCTS.includes(product)) return 'tomato';
  if (product === 'juice') return 'juice';
  const fruit = lines.some(l => l.role === 'fruit');
  return fruit && (SPREADS.includes(product) || product === 'syrup') ? 'spread' : null;
}
const TOMATO_PRODUCTS: readonly Product[] = ['tomatoes', 'tomato sauce', 'ketchup', 'purée', 'juice'];

/** The standard name that a statement of identity claims, and the word that claims it; null where it claims none. */
export function claimOf(
  recipe: Pick<Recipe, 'statementOfIdentity' | 'product' | 'lines' | 'foodClass'>,
): { name: string; word: RegExp } | null {
  const family = familyOf(recipe);
  return CLAIMS.find(c => c.of === family && c.word.test(recipe.statementOfIdentity)) ?? null;
}

/** A statement of identity with another name in the place of what it claims; beside it where it claims nothing. */
export function withName(
  recipe: Pick<Recipe, 'statementOfIdentity' | 'product' | 'lines' | 'foodClass'>,
  name: string,
): string {
  const { statementOfIdentity: statement } = recipe;
  const claim = claimOf(recipe);
  if (!claim)
    return statement.toLowerCase().includes(name.toLowerCase()) ? statement : `${statement}, ${name}`;
  // "Tomato purée" is no "Tomato tomato sauce".
  const before = claim.word.exec(statement)?.index ?? 0;
  const short = /tomato/i.test(statement.slice(0, before)) ? name.replace(/^tomato /, '') : name;
  const text = statement.replace(claim.word, short);
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What a name of a recipe is judged by, as it is written. */
export function writtenFigures(recipe: Recipe): NameFigures {
  try {
    const process = asWritten(recipe, ANYWHERE);
    const filled = balance(process).vessels.get('jars') ?? null;
    const jars = filled && massIn(filled) > 0 ? filled : null;
    return {
      masses_g: byName(process.lines.map(l => [l.line.id, l.prepared_g])),
      jars,
      weighed: measuredByCups(recipe).length === 0,
      solids_pct: jars && (soluble_g(jars) / massIn(jars)) * 100,
      measured: false,
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { masses_g: byName(), jars: null, weighed: false, solids_pct: null, measured: false };
  }
}

/** Fruit, tomatoes and sweeteners that are not given by weight. */
const measuredByCups = (recipe: Pick<Recipe, 'lines'>): Line[] =>
  recipe.lines.filter(
    l => (isFood(l) || l.role === 'sweetener') && UNITS[l.amount.unit].dimension !== 'mass',
  );

/**
 * The names a food may bear, each with the figure that decides: of spreads by 21 CFR 150, of tomatoes by 21 CFR 155 and 156,
 * of juice by 21 CFR 101.30; all from memory. A name never decides whether a safe jar is released.
 *
 * @param of  what went in and what is in the jars; the recipe as written unless given
 * @example
 * namesFor(plumJam).choices.find(c => c.name === 'jam')?.truthful; // true
 */
export function namesFor(
  recipe: Recipe,
  figures: Figures = PLAIN_FIGURES,
  of: NameFigures = writtenFigures(recipe),
): NamesFound {
  const family = familyOf(recipe);
  const juice_pct = family === 'juice' ? juicePct(recipe, of.jars) : null;
  const choices =
    family === 'spread'
      ? spreadNames(recipe, figures, of)
      : family === 'tomato'
        ? tomatoNames(recipe, figures, of)
        : family === 'juice'
          ? juiceNames(juice_pct, figures)
          : [];
  const near = choices.some(c => c.near === 'amounts');
  return { choices, weigh: near ? measuredByCups(recipe).map(l => l.name) : [], juice_pct };
}

function spreadNames(recipe: Recipe, figures: Figures, of: NameFigures): NameChoice[] {
  const { solids_pct } = of;
  const { strain, cut } = recipe.method;
  const clear = strain === 'strained' || cut === 'juice';
  const standard = (product: 'jam' | 'preserves' | 'jelly' | 'fruit butter', made: string): NameChoice => {
    const found = nameCheck({ ...recipe, product }, of.masses_g, solids_pct, figures);
    const { source, needed, neededSolids_pct: least } = found;
    if (made !== '') return { name: product, truthful: false, why: made, source, near: null };
    const byAmounts = !of.weighed && needed !== null && Math.abs(found.fruitPart - needed) < BY_CUPS;
    const bySolids =
      !of.measured && solids_pct !== null && least !== null && Math.abs(solids_pct - least) < BY_COOKING;
    if (!bySolids)
      return {
        name: product,
        truthful: found.meets,
        why: found.why,
        source,
        near: byAmounts ? 'amounts' : null,
      };
    // What is foreseen this near is decided at the pot: the fruit alone says whether it may be so.
    const fruit = nameCheck({ ...recipe, product }, of.masses_g, null, figures);
    return {
      name: product,
      truthful: fruit.meets,
      why: `${fruit.why} ${numberText(solids_pct, figures, 1)} % soluble solids are foreseen; a ${product} needs ${numberText(least, figures)} % when it is finished.`,
      source,
      near: byAmounts ? 'amounts' : 'solids',
    };
  };
  const usage = (name: string, truthful: boolean, why: string): NameChoice => ({
    name,
    truthful,
    why,
    source: '',
    near: null,
  });
  const fruits = recipe.lines.filter(l => l.role === 'fruit' && l.where !== 'dip');
  const citrus = fruits.some(l => CITRUS.test(l.name));
  const mixed = new Set(fruits.map(l => l.ingredientId ?? l.name)).size > 1;
  const held = clear ? 'It is strained clear, and a jam holds its fruit.' : '';
  return [
    standard('jam', held),
    standard('preserves', held),
    standard('jelly', clear ? '' : 'A jelly is made of strained juice; this holds the fruit.'),
    standard('fruit butter', cut === 'puréed' ? '' : 'A fruit butter is made of strained or puréed fruit.'),
    usage(
      'marmalade',
      citrus && !clear,
      citrus && !clear
        ? 'Citrus fruit with its peel; no federal standard, common usage.'
        : 'A marmalade holds pieces of citrus peel, by common usage.',
    ),
    usage(
      'conserve',
      mixed,
      mixed
        ? 'Several fruits together; no federal standard, common usage.'
        : 'A conserve is of several fruits, by common usage.',
    ),
    usage('fruit spread', true, 'No federal standard; true of every spread of fruit.'),
    usage('topping', true, 'No federal standard; true of what is spooned over something.'),
    usage(
      'syrup',
      recipe.setBy === 'not set' || recipe.product === 'syrup',
      recipe.setBy === 'not set' || recipe.product === 'syrup'
        ? 'It pours; no federal standard.'
        : 'A syrup pours; this is meant to set.',
    ),
  ];
}

const soluble_g = (contents: Contents, only: (id: string) => boolean = () => true): number =>
  [...contents].reduce((sum, [id, parts]) => sum + (only(id) ? solubleOf(parts) : 0), 0);

/** Least natural tomato solids of a purée and of a paste, per cent. Source: 21 CFR 155.191, from memory. */
const TOMATO_SOLIDS = { puree_pct: 8, paste_pct: 24, juice_pct: 5 } as const;

function tomatoNames(recipe: Recipe, figures: Figures, { jars }: NameFigures): NameChoice[] {
  const { lines, method } = recipe;
  const there = lines.filter(l => l.where !== 'dip');
  const tomatoes = new Set(there.filter(isTomato).map(l => l.id));
  const solids = jars ? (soluble_g(jars, id => tomatoes.has(id)) / massIn(jars)) * 100 : null;
  const tenths = (value: number) => numberText(value, figures, 1);
  const is = solids === null ? 'Nobody knows its solids yet' : `${tenths(solids)} % of tomato solids`;
  // Salt, acid and spice belong to each of them; another vegetable, sugar or thickener makes another food.
  const others = there.filter(
    l => !tomatoes.has(l.id) && !['salt', 'acid', 'spice', 'water'].includes(l.role),
  );
  const plain =
    others.length === 0 ? '' : `It holds ${others.map(l => l.name.toLowerCase()).join(', ')} as well.`;
  const water = method.liquid === 'water' || there.some(l => l.role === 'water');
  const within = (least: number, most: number) =>
    solids !== null && solids >= least - 1e-9 && solids < most - 1e-9;
  const near = (limit: number) => solids !== null && Math.abs(solids - limit) < BY_COOKING;
  const vinegar = there.some(l => l.role === 'acid' && /vinegar/i.test(l.name));
  const sweet = there.some(l => l.role === 'sweetener');
  const spiced = there.some(l => l.role === 'spice' || /\b(?:onion|garlic)s?\b/i.test(l.name));
  const lacks = [
    vinegar ? '' : 'vinegar',
    sweet ? '' : 'a sweetener',
    spiced ? '' : 'spice, onion or garlic',
  ];
  const lacking = lacks.filter(Boolean).join(', ');
  const pieces = method.cut !== 'puréed' && method.cut !== 'juice';
  const choice = (
    name: string,
    truthful: boolean,
    why: string,
    source: string,
    isNear = false,
  ): NameChoice => ({ name, truthful, why, source, near: isNear ? 'solids' : null });
  const { puree_pct, paste_pct, juice_pct } = TOMATO_SOLIDS;
  return [
    choice(
      'tomato purée',
      !pieces && plain === '' && within(puree_pct, paste_pct),
      pieces
        ? 'A purée is free of skin, seeds and pieces.'
        : plain || `${is}; a purée has ${puree_pct} to ${paste_pct} %.`,
      '21 CFR 155.191 (from memory)',
      !pieces && plain === '' && (near(puree_pct) || near(paste_pct)),
    ),
    choice(
      'tomato paste',
      !pieces && plain === '' && within(paste_pct, 100),
      pieces
        ? 'A paste is free of skin, seeds and pieces.'
        : plain || `${is}; a paste has ${paste_pct} % or more.`,
      '21 CFR 155.191 (from memory)',
      !pieces && plain === '' && near(paste_pct),
    ),
    choice(
      'ketchup',
      lacking === '' && !pieces,
      lacking === ''
        ? pieces
          ? 'A ketchup is strained.'
          : 'Tomatoes with vinegar, sweetener and spice.'
        : `A ketchup also holds ${lacking}.`,
      '21 CFR 155.194 (from memory)',
    ),
    choice(
      'tomato juice',
      method.cut === 'juice' && plain === '' && !water && within(juice_pct, puree_pct),
      method.cut !== 'juice'
        ? 'Juice is pressed or strained off.'
        : plain ||
            (water
              ? 'Water was added.'
              : `${is}; juice that is neither thinned nor boiled down has ${juice_pct} % or more.`),
      '21 CFR 156.145 (from memory)',
      method.cut === 'juice' && near(juice_pct),
    ),
    choice(
      'canned tomatoes',
      pieces && plain === '' && !water,
      pieces
        ? plain || (water ? 'Packed with water, it says so.' : 'Tomatoes in their own juice, or in none.')
        : 'They are in pieces, or whole.',
      '21 CFR 155.190 (from memory)',
    ),
    choice(
      'tomatoes in water',
      pieces && water,
      water ? 'It says what covers them.' : 'There is no water in it.',
      '',
    ),
    choice(
      'tomato sauce',
      !pieces || method.cut === 'crushed',
      'No federal standard; true of tomatoes that were mashed and cooked.',
      '',
    ),
  ];
}

/**
 * Juice of single strength in a hundred of what is in the jars: what the fruit brought in solids, over what a juice of it has
 * by itself. Water that was added thins it; boiled down it counts as all juice.
 *
 * @source 21 CFR 101.30 (from memory); the °Brix of a juice is taken to be that of its fruit
 */
function juicePct(recipe: Recipe, jars: Contents | null): number | null {
  if (!jars) return null;
  const single_g = recipe.lines
    .filter(l => isFood(l) && l.solids_pct > 0)
    .reduce((sum, l) => {
      const parts = jars.get(l.id);
      return sum + (parts ? solubleOf(parts) / (l.solids_pct / 100) : 0);
    }, 0);
  const sugar_g = soluble_g(jars, id => recipe.lines.find(l => l.id === id)?.role === 'sweetener');
  const rest_g = massIn(jars) - sugar_g;
  return rest_g <= 0 ? null : Math.min(100, (single_g / rest_g) * 100);
}

/** From here on it is all juice: what scales and the fruit's own sugar differ by. Our bound, from no source. */
const ALL_JUICE_PCT = 98;

function juiceNames(juice_pct: number | null, figures: Figures): NameChoice[] {
  const whole = juice_pct === null ? null : Math.floor(juice_pct);
  const all = juice_pct !== null && juice_pct >= ALL_JUICE_PCT;
  const is =
    whole === null ? 'Nobody knows its share of juice yet.' : `${numberText(whole, figures)} % juice.`;
  const source = '21 CFR 101.30 and 102.33 (from memory)';
  return [
    {
      name: 'juice',
      truthful: all,
      why: `${is} What is called juice alone is all juice.`,
      source,
      near: juice_pct !== null && Math.abs(juice_pct - ALL_JUICE_PCT) < 4 ? 'amounts' : null,
    },
    {
      name: whole === null || all ? 'juice drink' : `juice drink, ${whole} % juice`,
      truthful: juice_pct !== null,
      why: `${is} The share stands on the label.`,
      source,
      near: null,
    },
  ];
}
