import { type Ingredient, isLowAcid, libraryOf, shippedAs } from '../../ingredients/index.ts';
import { byName, type Names, readAmount, under } from '../../measure/index.ts';
import { knownMasses_g, type Line, lineFrom, lineMass_g, type Recipe } from '../../recipes/index.ts';
import { FREE_SPICE_SHARE } from '../finding.ts';

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
export interface Weighed {
  line: Line;
  of: readonly Ingredient[];
  grams: number;
}

let library: Map<string, Ingredient> | null = null;
/** What ships under an id; the index is made when it is first asked. */
export function shipped(id: string): Ingredient | undefined {
  library ??= new Map(libraryOf([]).map(i => [i.id, i]));
  return library.get(id);
}

/**
 * Grams of one of the ingredients of a cover in the amount it states: a weight is taken weight for weight, a volume by
 * what each fills it with.
 *
 * @throws RangeError where nothing of it can be weighed: a fault of the data
 */
export function coverGrams(part: { ids: readonly string[]; amount: string }, id: string): number {
  const read = readAmount(part.amount, 'en-US');
  for (const each of [id, ...part.ids]) {
    const ingredient = shipped(each);
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
export const isFood = ({ line, of }: Weighed): boolean =>
  line.role === 'fruit' || line.role === 'other' || isLowAcid(line) || of.some(i => i.role === 'fruit');

/** Names of lines as they stand in a sentence. */
export const named = (parts: readonly Weighed[]): string =>
  parts.map(w => w.line.name.toLowerCase()).join(', ');
/** Grams of lines together. */
export const sum = (parts: readonly Weighed[]): number => parts.reduce((total, w) => total + w.grams, 0);

/** The lines of a recipe as written, in what is filled; what only dips or soaks the food is no part of it. */
export function weigh(recipe: Recipe): Weighed[] {
  const masses = knownMasses_g(recipe);
  return recipe.lines
    .filter(l => l.where !== 'dip' && !(l.where === 'soak' && (l.role === 'salt' || l.role === 'water')))
    .map(line => ({ line, of: shippedAs(line), grams: (masses.get(line.id) ?? 0) * line.keptShare }));
}

/** Spices above the free share of the pot: the dried produce among them as the fresh it is of, the rest as it is. */
export function beyondFree(weighed: readonly Weighed[]): {
  fresh: Weighed[];
  liquid: Weighed[];
  share: number;
} {
  const spices = weighed.filter(w => w.line.role === 'spice' && !isFood(w));
  const share = sum(spices) / sum(weighed);
  if (!(share > FREE_SPICE_SHARE)) return { fresh: [], liquid: [], share };
  const fresh = spices.flatMap(w => {
    const id = w.of.map(i => under(DRIED_OF, i.id)).find(Boolean);
    const ingredient = id === undefined ? undefined : shipped(id);
    const factor = w.line.freshFactor > 1 ? w.line.freshFactor : FRESH_OF_DRIED;
    return ingredient ? [{ line: w.line, of: [ingredient], grams: w.grams * factor }] : [];
  });
  return { fresh, liquid: spices.filter(w => w.of.some(i => i.liquid)), share };
}
