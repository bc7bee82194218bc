import { under, UNITS } from '../measure/index.ts';
import { INGREDIENT_SOURCES, INGREDIENTS } from './data/ingredients.ts';
import type { Ingredient, IngredientSource } from './ingredient.ts';

/** The source of each kind of value, unless an ingredient names another. */
const USUAL: Partial<Record<keyof Ingredient, string>> = {
  cup_g: 'cup',
  one_g: 'piece',
  bushel_g: 'bushel',
  trim: 'trim',
  thawedYield: 'thaw',
  water_pct: 'composition',
  solids_pct: 'composition',
  ph: 'ph',
  acid: 'acid',
  safelyAcid: 'safe',
  group: 'group',
  strength_pct: 'strength',
  allergens: 'allergen',
  labelName: 'label',
  subIngredients: 'label',
  freshFactor: 'dried',
  refused: 'refusal',
};

const OWN: IngredientSource = { title: 'Measured or entered in this kitchen', fromMemory: false };

/** Where one value of an ingredient comes from. */
export function sourceOf(ingredient: Ingredient, value: keyof Ingredient): IngredientSource | null {
  const id = under(ingredient.sources as { [fact: string]: string }, value) ?? USUAL[value];
  if (id === 'own') return OWN;
  return id === undefined ? null : (INGREDIENT_SOURCES[id] ?? null);
}

const ML_PER_CUP = UNITS.cup.factor.valueOf();

/** Ways an ingredient is cut or packed whose weight is known, the usual one first. */
export function formsOf(ingredient: Ingredient): string[] {
  return Object.keys(ingredient.cup_g);
}

/**
 * Grams in a millilitre of an ingredient cut or packed one way.
 *
 * @param form  one of {@link formsOf}; the first of them when empty
 * @returns null when it was never weighed so
 */
export function densityOf(ingredient: Ingredient, form: string): number | null {
  const grams = under(ingredient.cup_g, form || (formsOf(ingredient)[0] ?? ''));
  return grams === undefined ? null : grams / ML_PER_CUP;
}

/** The usual trim yield: by knife, else whatever is known, else nothing is lost. */
export function usualTrim(ingredient: Ingredient): number {
  return ingredient.trim.knife ?? ingredient.trim.mill ?? ingredient.trim.blender ?? 1;
}

/** The library of a kitchen: what ships, with the kitchen's own entries in the place of those they override. */
export function libraryOf(own: readonly Ingredient[]): Ingredient[] {
  const mine = new Map(own.map(i => [i.id, i]));
  const shipped = INGREDIENTS.map(i => mine.get(i.id) ?? i);
  const known = new Set(INGREDIENTS.map(i => i.id));
  return [...shipped, ...own.filter(i => !known.has(i.id))];
}

const STOP = new Set([
  'fresh',
  'ripe',
  'large',
  'small',
  'medium',
  'whole',
  'of',
  'the',
  'a',
  'good',
  'quality',
  'firm',
  'young',
  'tender',
  'raw',
  'organic',
  'prepared',
]);

/** Words of a name: lower case, no accents, singular where a plain s makes the plural. */
function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/g, '')
    .replaceAll(/[^a-z0-9%]+/g, ' ')
    .trim()
    .split(' ')
    .filter(Boolean)
    .map(singular);
}

function singular(word: string): string {
  if (word.length < 4 || word.endsWith('ss') || word.endsWith('us')) return word;
  if (word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  if (/(?:oes|ches|shes|xes)$/.test(word)) return word.slice(0, -2);
  return word.endsWith('s') ? word.slice(0, -1) : word;
}

/** Finds ingredients by the names people write. Built once for a library. */
export interface NameIndex {
  /**
   * @param text  a name, perhaps with other words around it: "ripe red plums, stoned"
   * @returns the ingredient whose name covers most of it, and whether nothing of weight was left over; null when none fits
   */
  find(text: string): { ingredient: Ingredient; exact: boolean } | null;
}

/**
 * Builds the index of a library.
 *
 * @example
 * nameIndex(libraryOf([])).find('granulated sugar').ingredient.id; // 'sugar'
 */
export function nameIndex(library: readonly Ingredient[]): NameIndex {
  const byName = new Map<string, Ingredient>();
  for (const ingredient of library) {
    for (const name of [ingredient.name, ingredient.labelName, ...ingredient.aliases]) {
      const key = wordsOf(name).join(' ');
      // The first to claim a name keeps it, and a name claims more than a label name does.
      if (key && (!byName.has(key) || name === ingredient.name)) byName.set(key, ingredient);
    }
  }
  return {
    find(text) {
      // The name stands before the comma; what follows says how it is prepared.
      for (const part of [text.split(/[,;(]/)[0] as string, text]) {
        const words = wordsOf(part);
        for (let length = words.length; length > 0; length--) {
          // Of names of one length the last counts: "cherry tomatoes" are tomatoes, "apple cider vinegar" is vinegar.
          for (let from = words.length - length; from >= 0; from--) {
            const found = byName.get(words.slice(from, from + length).join(' '));
            if (!found) continue;
            const left = [...words.slice(0, from), ...words.slice(from + length)];
            return { ingredient: found, exact: left.every(w => STOP.has(w)) };
          }
        }
      }
      return null;
    },
  };
}
