import { type AcidKind, acidKind } from './acids.ts';
import { INGREDIENTS } from './data/ingredients.ts';
import type { Ingredient, NamedIngredient } from './ingredient.ts';
import { nameIndex, type NameIndex } from './naming.ts';

const SHIPPED = new Map(INGREDIENTS.map(i => [i.id, i]));
let names: NameIndex | null = null;
const shippedByName = new Map<string, { all: readonly Ingredient[]; exact: boolean }>();

/** What the words of a name mean; each that they could mean where they could mean several. */
function named(name: string): { all: readonly Ingredient[]; exact: boolean } {
  let found = shippedByName.get(name);
  if (found === undefined) {
    names ??= nameIndex(INGREDIENTS);
    const one = names.find(name);
    found = one ? { all: [one.ingredient], exact: one.exact } : { all: names.choices(name), exact: false };
    // Names are few; a cache that grew past a library's size holds what was typed letter by letter.
    if (shippedByName.size > 2000) shippedByName.clear();
    shippedByName.set(name, found);
  }
  return found;
}

/**
 * The shipped ingredients of a line: by its entry, or, for what a kitchen named itself, by the words of its name; each that
 * the words could mean where they could mean several. A line that was picked as one thing and plainly bears the name of
 * another is both.
 */
export function shippedAs(line: Pick<NamedIngredient, 'ingredientId' | 'name'>): readonly Ingredient[] {
  const shipped = SHIPPED.get(line.ingredientId ?? '');
  const { all, exact } = named(line.name);
  if (!shipped) return all;
  return exact && !all.includes(shipped) ? [shipped, ...all] : [shipped];
}

/** What the shipped library calls low-acid, or not safely acid, whatever the line says of it. */
export function isLowAcidByLibrary(line: Pick<NamedIngredient, 'ingredientId' | 'name'>): boolean {
  return shippedAs(line).some(
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

/**
 * The kinds of acid that a name leaves open between, "citric acid or lemon juice", "bottled or fresh lemon juice"; one or
 * none where it says one thing.
 */
export function acidsNamed(name: string): AcidKind[] {
  if (!/\bor\b|\//i.test(name)) return [];
  const kinds = named(name).all.map(i => acidKind({ role: i.role, name: i.name, ingredientId: i.id }));
  // "Bottled lemon or lime juice": the first word belongs to both.
  const bottled = /\bbottled\b/i.test(name) && !/\bfresh\b/i.test(name);
  return [
    ...new Set(
      kinds
        .filter(kind => kind !== null)
        .map(kind => (bottled && kind === 'fresh juice' ? 'bottled juice' : kind)),
    ),
  ];
}
