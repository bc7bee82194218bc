import { INGREDIENTS } from './data/ingredients.ts';
import type { Ingredient, NamedIngredient } from './ingredient.ts';
import { nameIndex, type NameIndex } from './naming.ts';

const SHIPPED = new Map(INGREDIENTS.map(i => [i.id, i]));
let names: NameIndex | null = null;
const shippedByName = new Map<string, readonly Ingredient[]>();

/**
 * The shipped ingredient of a line: by its entry, or, for what a kitchen named itself, by the words of its name; each that
 * the words could mean where they could mean several.
 */
function shippedOf(line: Pick<NamedIngredient, 'ingredientId' | 'name'>): readonly Ingredient[] {
  const shipped = SHIPPED.get(line.ingredientId ?? '');
  if (shipped) return [shipped];
  let found = shippedByName.get(line.name);
  if (found === undefined) {
    names ??= nameIndex(INGREDIENTS);
    const one = names.find(line.name)?.ingredient;
    found = one ? [one] : names.choices(line.name);
    // Names are few; a cache that grew past a library's size holds what was typed letter by letter.
    if (shippedByName.size > 2000) shippedByName.clear();
    shippedByName.set(line.name, found);
  }
  return found;
}

/** What the shipped library calls low-acid, or not safely acid, whatever the line says of it. */
export function isLowAcidByLibrary(line: Pick<NamedIngredient, 'ingredientId' | 'name'>): boolean {
  return shippedOf(line).some(
    shipped => shipped.role === 'low-acid produce' || (shipped.role === 'fruit' && !shipped.safelyAcid),
  );
}

/** Produce that is low in acid, and fruit that is not safely acid: by the line's own words, or by the library's. */
export function isLowAcid(line: NamedIngredient & { safelyAcid: boolean }): boolean {
  return (
    line.role === 'low-acid produce' ||
    (line.role === 'fruit' && !line.safelyAcid) ||
    isLowAcidByLibrary(line)
  );
}
