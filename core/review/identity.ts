import { byName, type Figures, type Names, numberText, PLAIN_FIGURES } from '../measure/index.ts';
import { knownMasses_g, type Line, type Recipe } from '../recipes/index.ts';
import type { Product } from '../times/index.ts';

/** One standard of identity: fruit to sweetener solids, and soluble solids of the finished food. */
interface Standard {
  names: readonly Product[];
  /** Parts of fruit to so many parts of sweetener solids. */
  parts: (lines: readonly Line[]) => { fruit: number; sweetener: number };
  solids_pct: number;
  source: string;
}

const groupTwo = (lines: readonly Line[]) => lines.every(l => l.group === 'II');

/** The standards, from memory. Weights of sweeteners count as their solids, of fruit without added sugar. */
const STANDARDS: readonly Standard[] = [
  {
    names: ['jam', 'preserves'],
    parts: fruit => ({ fruit: groupTwo(fruit) ? 45 : 47, sweetener: 55 }),
    solids_pct: 65,
    source: '21 CFR 150.160 (from memory)',
  },
  {
    names: ['jelly'],
    parts: () => ({ fruit: 45, sweetener: 55 }),
    solids_pct: 65,
    source: '21 CFR 150.140 (from memory)',
  },
  {
    names: ['fruit butter'],
    parts: () => ({ fruit: 5, sweetener: 2 }),
    solids_pct: 43,
    source: '21 CFR 150.110 (from memory)',
  },
];

/** The standard a product's name is held to, or null where there is none. */
function standardOf(product: Product): Standard | null {
  return STANDARDS.find(s => s.names.includes(product)) ?? null;
}

/** Whether a spread has the fruit its name asks for. */
export interface IdentityFinding {
  meets: boolean;
  /** Parts of fruit in 100 of fruit and sweetener solids. */
  fruitPart: number;
  /** Least of them that the standard asks for; null where none applies. */
  needed: number | null;
  /** Soluble solids of the finished food, percent, where they are known. */
  solids_pct: number | null;
  neededSolids_pct: number | null;
  why: string;
  next: string;
  source: string;
}

const EPSILON = 1e-9;

/**
 * Whether the food may bear its name: enough fruit for its sweetener, and enough soluble solids.
 *
 * @param masses_g  grams prepared that went in, by line id; lines not named count as written
 * @param finishedSolids_pct  of the finished food, where a forecast or a reading gives it
 */
export function nameCheck(
  recipe: Pick<Recipe, 'lines' | 'steps' | 'product' | 'makes'>,
  masses_g: Readonly<Names<number>> = byName(),
  finishedSolids_pct: number | null = null,
  figures: Figures = PLAIN_FIGURES,
): IdentityFinding {
  const tenths = (value: number) => numberText(value, figures, 1);
  const standard = standardOf(recipe.product);
  const written = knownMasses_g(recipe);
  const mass = (l: Line) => (masses_g[l.id] ?? written.get(l.id) ?? 0) * l.keptShare;
  const fruitLines = recipe.lines.filter(l => l.role === 'fruit' && l.keptShare > 0);
  const fruit = fruitLines.reduce((sum, l) => sum + mass(l) * (1 - l.addedSugar_pct / 100), 0);
  const sweetener =
    recipe.lines
      .filter(l => l.role === 'sweetener')
      .reduce((sum, l) => sum + (mass(l) * (l.solids_pct || 100)) / 100, 0) +
    fruitLines.reduce((sum, l) => sum + (mass(l) * l.addedSugar_pct) / 100, 0);
  const fruitPart = fruit + sweetener === 0 ? 0 : (fruit / (fruit + sweetener)) * 100;
  const asked = standard?.parts(fruitLines);
  const needed = asked ? (asked.fruit / (asked.fruit + asked.sweetener)) * 100 : null;
  const finding = (meets: boolean, why: string, next: string): IdentityFinding => ({
    meets,
    fruitPart,
    needed,
    solids_pct: finishedSolids_pct,
    neededSolids_pct: standard?.solids_pct ?? null,
    why,
    next,
    source: standard?.source ?? '',
  });
  if (!standard || !asked || needed === null)
    return finding(true, `No federal standard sets what may be called ${recipe.product}.`, '');
  const name = recipe.product;
  if (sweetener === 0)
    return finding(
      false,
      `There is no sweetener, so it is not a ${name} by its standard.`,
      'Add the sweetener, or use another name.',
    );
  const figure = `${tenths(fruitPart)} parts of fruit in 100 of fruit and sweetener; a ${name} of this fruit needs ${tenths(needed)} (${asked.fruit} to ${asked.sweetener})`;
  if (fruitPart < needed - EPSILON)
    return finding(false, `${figure}.`, 'Use more fruit or less sugar, or another name.');
  if (finishedSolids_pct !== null && finishedSolids_pct < standard.solids_pct - EPSILON)
    return finding(
      false,
      `${tenths(finishedSolids_pct)} % soluble solids when finished; a ${name} needs ${standard.solids_pct} %.`,
      'Cook it further, or use another name.',
    );
  const solids =
    finishedSolids_pct === null
      ? ''
      : `; ${tenths(finishedSolids_pct)} % soluble solids of ${standard.solids_pct} %`;
  return finding(true, `${figure}${solids}.`, '');
}

/** Whether it is kept by its sugar: a spread, or a syrup, of fruit that is acid by itself. Such an own recipe may borrow the published family time. */
export function keptBySugar({ foodClass, product }: Pick<Recipe, 'foodClass' | 'product'>): boolean {
  return foodClass === 'fruit spread' || (foodClass === 'acid food' && product === 'syrup');
}

/** Whether the published family time covers a spread, and why not. */
export interface SpreadFinding {
  covered: boolean;
  why: string;
  next: string;
}

/**
 * Whether it is a fruit spread that the published family time covers: all of it is fruit that is safely acid by itself,
 * sugar and what sets it, with no low-acid produce, by the words of its lines. What it may be called hangs on its fruit
 * ({@link nameCheck}); its safety on its acid, and on solids that are proven when it is cooked. What the library knows of
 * its lines is the review's to say, see {@link classOf}; the library is too large for the first page.
 */
export function spreadCover(recipe: Pick<Recipe, 'lines'>): SpreadFinding {
  const fails = (why: string, next: string): SpreadFinding => ({ covered: false, why, next });
  const there = recipe.lines.filter(l => l.where !== 'dip');
  const names = (lines: readonly Line[]) => lines.map(l => l.name).join(', ');
  const unsafe = there.filter(l => l.role === 'fruit' && !l.safelyAcid);
  if (unsafe.length > 0)
    return fails(
      `${names(unsafe)}: not on the list of fruit that is safely acid by itself.`,
      'Follow a tested recipe for this fruit, or ask a process authority.',
    );
  const lowAcid = there.filter(l => l.role === 'low-acid produce');
  if (lowAcid.length > 0)
    return fails(
      `${names(lowAcid)}: low-acid produce does not belong in a fruit spread.`,
      'Take it out, or ask a process authority.',
    );
  const unknown = there.filter(l => l.role === 'other');
  if (unknown.length > 0)
    return fails(
      `${names(unknown)}: nobody has said what it is, so its acid is unknown.`,
      'Say what part it plays (fruit, spice, sweetener and so on), or take it out.',
    );
  if (!there.some(l => l.role === 'sweetener'))
    return fails(
      'There is no sweetener: it is no spread whose sugar keeps it.',
      'Add the sweetener, or follow a tested recipe without one.',
    );
  return {
    covered: true,
    why: 'All of it is fruit that is safely acid by itself, and sugar.',
    next: '',
  };
}
