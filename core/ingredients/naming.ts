import { under } from '../measure/index.ts';
import { KINDS_BY_WORD, UNCLEAR } from './data/unclear.ts';
import type { Ingredient } from './ingredient.ts';

/** Words that say nothing of which ingredient it is: how good it is, how large, and how it was cut or handled. */
const STOP = new Set(
  (
    'fresh freshly ripe large small medium whole of the a an good quality firm young tender raw organic prepared about ' +
    'very well very extra best plain pure each per jar lb inch size sized bite piece chunk cube strip ring wedge spear ' +
    'slice half quarter stick in into to for with without and their its skin seed stem core pit peel leaf end tip top ' +
    'chopped sliced diced crushed mashed shredded grated minced pureed peeled unpeeled pitted stoned hulled seeded ' +
    'deseeded cored halved quartered trimmed cubed cut thin thinly thick thickly fine finely coarse coarsely rough ' +
    'roughly lightly loosely firmly packed frozen thawed drained rinsed washed cleaned stemmed topped tailed skinned ' +
    'blanched cooked scalded sieved strained squeezed picked removed or cracked bruised julienned lengthwise crosswise ' +
    'natural homegrown garden market local ground'
  ).split(' '),
);
/** Words that make a dried spice of a fresh thing. */
const DRIED = new Set([
  'dried',
  'dehydrated',
  'powdered',
  'powder',
  'flake',
  'granulated',
  'granule',
  'rubbed',
  'dry',
]);
/** Words that leave nobody knowing how strong an acid is. */
const WEAKENED = new Set(['diluted', 'dilute', 'watered', 'leftover', 'used']);
/** Of a spice it means dried; "ground peppers", "ground cucumbers" went through a grinder fresh. */
const GROUND = 'ground';
/** Named by the many, it is the fruit and not the spice. */
const PLURAL = /\b(?:peppers|chil(?:e|i|li)s|chil(?:l)?ies)\b/i;
/** Words that say that it is fresh. */
const FRESH = new Set([
  'fresh',
  'sprig',
  'head',
  'bunch',
  'root',
  'bulb',
  'stalk',
  'rib',
  'sweet',
  'bell',
  'hot',
]);

/** Words of a name: lower case, no accents, singular where a plain s makes the plural; percentages are read by themselves. */
function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/g, '')
    .replaceAll(PERCENT, ' ')
    .replaceAll(/[^a-z0-9]+/g, ' ')
    .trim()
    .split(' ')
    .filter(Boolean)
    .map(singular);
}

const PERCENT = /(\d+(?:[.,]\d+)?)\s*(?:%|per\s?cent\b)(?:\s*(?:acidity|acetic acid|acetic|acid)\b)?/gi;

/** The strength that words give a vinegar, percent: "white vinegar (4%)", "5 % acidity"; null where they give none. */
export function strengthIn(text: string): number | null {
  const found = [...text.matchAll(PERCENT)][0]?.[1];
  return found === undefined ? null : Number(found.replace(',', '.'));
}

function singular(word: string): string {
  if (word.length < 4 || word.endsWith('ss') || word.endsWith('us')) return word;
  if (word === 'leaves' || word === 'halves') return `${word.slice(0, -3)}f`;
  if (word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  if (/(?:oes|ches|shes|xes)$/.test(word)) return word.slice(0, -2);
  return word.endsWith('s') ? word.slice(0, -1) : word;
}

/** An ingredient found by a name. */
export interface Found {
  ingredient: Ingredient;
  /** Nothing of weight was left over. */
  exact: boolean;
  /** Words that say something, and were not understood. */
  left: string[];
}

/** Finds ingredients by the names people write. Built once for a library. */
export interface NameIndex {
  /**
   * @param text  a name, perhaps with other words around it: "ripe red plums, stoned"
   * @returns the ingredient whose name covers most of it; null when none fits, and when it could be several
   */
  find(text: string): Found | null;
  /**
   * @returns what a name could be where it could be several things, to be asked; empty where it is plain, or unknown
   */
  choices(text: string): Ingredient[];
}

type Reading = { is: Found } | { among: Ingredient[] } | null;

/**
 * Builds the index of a library. A name that could be two things is never guessed.
 *
 * @example
 * nameIndex(libraryOf([])).find('granulated sugar').ingredient.id; // 'sugar'
 * nameIndex(libraryOf([])).choices('lemon juice').length; // 2
 */
export function nameIndex(library: readonly Ingredient[]): NameIndex {
  const byId = new Map(library.map(i => [i.id, i]));
  const byName = new Map<string, Ingredient>();
  // A name claims more than an alias does, an alias more than what the label says; the first to claim keeps it.
  const claims: ((i: Ingredient) => string[])[] = [i => [i.name], i => i.aliases, i => [i.labelName]];
  for (const of of claims)
    for (const ingredient of library)
      for (const name of of(ingredient)) {
        const key = wordsOf(name).join(' ');
        if (key && !byName.has(key)) byName.set(key, ingredient);
      }
  const exactName = new Map(library.map(i => [i.name.toLowerCase(), i]));
  const unclear = new Map(
    UNCLEAR.flatMap(({ words, of }) =>
      words.map(w => [wordsOf(w).join(' '), of.flatMap(id => byId.get(id) ?? [])] as const),
    ),
  );

  /** The longest name among words that stand together; of names of one length the last: "cherry tomatoes" are tomatoes. */
  const longest = (words: string[]): { key: string; from: number; length: number } | null => {
    for (let length = words.length; length > 0; length--)
      for (let from = words.length - length; from >= 0; from--) {
        const key = words.slice(from, from + length).join(' ');
        if (byName.has(key) || unclear.has(key)) return { key, from, length };
      }
    return null;
  };

  const readWords = (words: string[], all: string[], plural = false): Reading => {
    const match = longest(words);
    if (!match) return null;
    const rest = [...words.slice(0, match.from), ...words.slice(match.from + match.length)];
    const left = rest.filter(w => !STOP.has(w));
    const several = unclear.get(match.key);
    if (several && several.length > 1) {
      // Words beside it may say which: "dried basil" is in the library by itself, "basil, dried" is not.
      const said = new Set(all);
      const fits = several.filter(i => {
        if (
          all.some(w => DRIED.has(w)) ||
          (said.has(GROUND) && !several.some(x => x.role === 'low-acid produce' && plural))
        )
          return i.role !== 'low-acid produce' && i.role !== 'fruit';
        if ([...FRESH].some(f => said.has(f)))
          return i.role === 'low-acid produce' || i.role === 'fruit' || i.id.startsWith('fresh');
        return true;
      });
      const among = fits.length > 0 ? fits : several;
      const [only] = among;
      if (only && among.length === 1)
        return {
          is: {
            ingredient: only,
            exact: left.every(w => DRIED.has(w) || FRESH.has(w)),
            left: left.filter(w => !DRIED.has(w) && !FRESH.has(w)),
          },
        };
      return { among };
    }
    const ingredient = byName.get(match.key);
    if (!ingredient) return null;
    const other = KINDS_BY_WORD.find(
      k => k.of === ingredient.id && k.words.some(w => all.includes(w)) && byId.has(k.is),
    );
    if (other) {
      const kind = byId.get(other.is) as Ingredient;
      // Beside the name it says the kind; anywhere else it may.
      const beside = other.words.some(w => left.includes(w));
      return beside && left.length <= 2
        ? { is: { ingredient: kind, exact: true, left: [] } }
        : { among: [ingredient, kind] };
    }
    // "apples, dried", where the library has them fresh only: dried they are another thing.
    const own = match.key.split(' ');
    const isDried = all.some(w => DRIED.has(w) && !own.includes(w));
    if (isDried && (ingredient.role === 'low-acid produce' || ingredient.role === 'fruit'))
      return { among: [ingredient] };
    // "vinegar, diluted": how strong it is now, the name does not say.
    if (ingredient.acid && all.some(w => WEAKENED.has(w)))
      return { among: [...new Set([ingredient, byId.get('homemade-vinegar') ?? ingredient])] };
    return { is: { ingredient, exact: left.length === 0, left } };
  };

  const read = (text: string): Reading => {
    const whole = exactName.get(text.trim().toLowerCase());
    if (whole) return { is: { ingredient: whole, exact: true, left: [] } };
    const plain = text
      .replace(/\b(?:the )?juice of (?:an? |\d+\s*)?(lemon|lime)s?\b/i, 'fresh $1 juice')
      .replace(/\b(lemon|lime)s?\s*,?\s*(?:juice of|juiced)\b/i, 'fresh $1 juice')
      .replace(/\b(?:zest|rind|peel) of (?:an? |\d+\s*)?(lemon|orange)s?\b/i, '$1 zest');
    const all = wordsOf(plain);
    // What it lies in, or comes with, is not what it is: "peaches in white wine".
    const head = plain.split(/[,;(]|\s(?:in|with)\s/i)[0] as string;
    // "citric acid or lemon juice": two things, unless the library has it as one name.
    const sides = head.split(/\s+or\s+|\s*\/\s*/i);
    if (sides.length > 1 && !byName.has(wordsOf(head).join(' '))) {
      // "bell or hot peppers", "bottled or fresh lemon juice": the last words belong to each.
      const ends = ['', ...[/ \S+$/, / \S+ \S+$/].map(end => end.exec(head.trim())?.[0] ?? '')];
      const found = sides.map(s => {
        let best: { words: string[]; length: number } | null = null;
        for (const end of ends) {
          const words = wordsOf(s + end);
          const length = longest(words)?.length ?? 0;
          if (length > (best?.length ?? 0)) best = { words, length };
        }
        return best && readWords(best.words, best.words);
      });
      const among = found.flatMap(f => (f === null ? [] : 'is' in f ? [f.is.ingredient] : f.among));
      const unlike = [...new Map(among.map(i => [i.id, i])).values()];
      if (unlike.length > 1) return { among: unlike };
    }
    // "peppers, hot", "sugar (brown)": what follows the name may belong before it.
    const tail =
      plain
        .slice(head.length)
        .split(/[,;()]/)
        .map(s => s.trim())
        .find(Boolean) ?? '';
    const said = wordsOf(tail).filter(w => !STOP.has(w) || FRESH.has(w));
    const before = [...said, ...wordsOf(head)];
    const turned = said.length === 0 ? null : longest(before);
    const plural = PLURAL.test(plain);
    if (turned && turned.from === 0 && turned.length > said.length) return readWords(before, all, plural);
    return readWords(wordsOf(head), all, plural) ?? readWords(all, all, plural);
  };

  const readOnce = (text: string): Reading => read(withStrength(text));
  return {
    find(text) {
      const got = readOnce(text);
      if (!got || !('is' in got)) return null;
      return { ...got.is, ingredient: ofStrength(got.is.ingredient, strengthIn(text), byId) };
    },
    choices(text) {
      const got = readOnce(text);
      return got && 'among' in got ? got.among : [];
    },
  };
}

/** A strength is read by itself, and is no part of the name. */
const withStrength = (text: string) =>
  text
    .replaceAll(PERCENT, ' ')
    .replaceAll(/\(\s*\)/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .replace(/[\s,]+$/, '')
    .trim() || text;

/** A vinegar of the strength that was said, where the library has it so; else the line keeps the figure itself. */
function ofStrength(
  ingredient: Ingredient,
  strength_pct: number | null,
  byId: ReadonlyMap<string, Ingredient>,
): Ingredient {
  if (strength_pct === null || ingredient.acid?.kind !== 'acetic' || ingredient.strength_pct === strength_pct)
    return ingredient;
  const other = under(
    { 4: 'white-vinegar-4', 6: 'white-vinegar-6' } as { [pct: string]: string },
    String(strength_pct),
  );
  return ingredient.id.startsWith('white-vinegar') && other ? (byId.get(other) ?? ingredient) : ingredient;
}
