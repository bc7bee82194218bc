import { acidKind, asCitric_g, countsAsBarrier } from './acids.ts';
import { INGREDIENTS } from './data/ingredients.ts';
import { type Ingredient, type NameIndex, nameIndex } from './ingredients.ts';
import { knownMasses_g } from './masses.ts';
import type { Line, Recipe } from './recipe.ts';

/** What the review goes by, in grams that stay in the food; dried produce as the fresh it came from. */
export interface AcidBalance {
  /** Fruit that is acid by itself. */
  acidFruit_g: number;
  /** Low-acid produce, and fruit that is not safely acid. */
  lowAcid_g: number;
  /** Low-acid produce as a share of all fruit and produce, 0 to 1. */
  lowAcidShare: number;
  /** Acid that counts as the barrier, as grams of citric acid. */
  barrier_g: number;
  /** Barrier acid in 100 g of low-acid food; null where there is none of that. */
  barrierPer100_g: number | null;
}

/** Weighs the low-acid against the acid of a recipe as written. */
export function acidBalance(recipe: Recipe): AcidBalance {
  const masses = knownMasses_g(recipe);
  let acidFruit_g = 0;
  let lowAcid_g = 0;
  let barrier_g = 0;
  for (const line of recipe.lines) {
    if (line.where === 'dip') continue;
    const mass = (masses.get(line.id) ?? 0) * line.keptShare;
    if (isLowAcid(line)) lowAcid_g += mass * line.freshFactor;
    else if (line.role === 'fruit') acidFruit_g += mass;
    const kind = acidKind(line);
    if (kind && countsAsBarrier(line)) barrier_g += asCitric_g(kind, mass, line.minStrength_pct);
  }
  const all = acidFruit_g + lowAcid_g;
  return {
    acidFruit_g,
    lowAcid_g,
    lowAcidShare: all === 0 ? 0 : lowAcid_g / all,
    barrier_g,
    barrierPer100_g: lowAcid_g === 0 ? null : (barrier_g / lowAcid_g) * 100,
  };
}

const SHIPPED = new Map(INGREDIENTS.map(i => [i.id, i]));
let names: NameIndex | null = null;
const byName = new Map<string, Ingredient | null>();

/** The shipped ingredient of a line: by its entry, or, for what a kitchen named itself, by the words of its name. */
function shippedOf(line: Pick<Line, 'ingredientId' | 'name'>): Ingredient | null {
  const shipped = SHIPPED.get(line.ingredientId ?? '');
  if (shipped) return shipped;
  let found = byName.get(line.name);
  if (found === undefined) {
    names ??= nameIndex(INGREDIENTS);
    found = names.find(line.name)?.ingredient ?? null;
    // Names are few; a cache that grew past a library's size holds what was typed letter by letter.
    if (byName.size > 2000) byName.clear();
    byName.set(line.name, found);
  }
  return found;
}

/** What the shipped library calls low-acid, or not safely acid, whatever the line says of it. */
export function isLowAcidByLibrary(line: Pick<Line, 'ingredientId' | 'name'>): boolean {
  const shipped = shippedOf(line);
  return shipped?.role === 'low-acid produce' || (shipped?.role === 'fruit' && !shipped.safelyAcid);
}

/** Produce that is low in acid, and fruit that is not safely acid: by the line's own words, or by the library's. */
export function isLowAcid(line: Pick<Line, 'role' | 'safelyAcid' | 'ingredientId' | 'name'>): boolean {
  return (
    line.role === 'low-acid produce' ||
    (line.role === 'fruit' && !line.safelyAcid) ||
    isLowAcidByLibrary(line)
  );
}
