import type { PlaceLabel } from '../kitchen/index.ts';
import { ALLERGEN_GROUPS, ALLERGEN_WORDS } from './data/allergen-words.ts';

const SULPHITES =
  /\b(?:sul(?:ph|f)ites?|(?:sodium|potassium) (?:meta)?bisul(?:ph|f)ite|sul(?:ph|f)ur dioxide)\b/i;
const isSulphite = (name: string) => SULPHITES.test(name);

/** Allergens that the words of ingredients name, by whose rules hold. */
export function allergensNamed(
  words: string,
  rules: PlaceLabel['rules'],
): { allergen: string; word: string }[] {
  return ALLERGEN_WORDS.filter(a => a.of === 'both' || rules === 'EU').flatMap(
    ({ allergen, words: found, not }) => {
      const word = found.exec(not ? words.replaceAll(not, ' ') : words)?.[0];
      return word ? [{ allergen, word }] : [];
    },
  );
}

/**
 * Allergens of a label: what lots and recipe declare, and what the words of the ingredients name besides.
 *
 * @param declared  of lots, recipe and an unwashed pot
 * @param words  the list of ingredients
 * @param fewSulphites  sulphites were shown to be under 10 ppm of the food: then they are not declared (21 CFR 101.100(a)(4),
 *   from memory)
 */
export function allergensFor(
  declared: readonly string[],
  words: string,
  rules: PlaceLabel['rules'],
  fewSulphites: boolean,
): string[] {
  const all = new Map<string, string>();
  const lower = (name: string) => name.toLowerCase();
  for (const name of declared)
    all.set(isSulphite(name) ? 'sulphites' : lower(name), isSulphite(name) ? 'sulphites' : name);
  for (const { allergen } of allergensNamed(words, rules))
    if (!all.has(lower(allergen))) all.set(lower(allergen), allergen);
  if (SULPHITES.test(words)) all.set('sulphites', 'sulphites');
  if (fewSulphites) all.delete('sulphites');
  // A kind of fish or nut that is named stands for its group.
  for (const { group, kinds } of ALLERGEN_GROUPS) if (kinds.some(k => all.has(k))) all.delete(group);
  return [...all.values()].sort();
}

/** Of allergens, the groups whose kind nobody named. */
export const groupsIn = (allergens: readonly string[]): string[] =>
  ALLERGEN_GROUPS.flatMap(({ group }) => (allergens.includes(group) ? [group] : []));

/** The text of ingredients without the sulphites that need not be declared. */
export const withoutSulphites = (text: string): string =>
  text
    .replaceAll(new RegExp(String.raw`,?\s*(?:contains:?\s*)?${SULPHITES.source}(?:\s*\([^)]*\))?`, 'gi'), '')
    .replaceAll(/\(\s*,?\s*\)/g, '')
    .replaceAll(/\s+([,)])/g, '$1')
    .trim();
