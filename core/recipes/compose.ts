import {
  densityOf,
  formsOf,
  type Ingredient,
  sourceOf,
  strengthIn,
  usualTrim,
} from '../ingredients/index.ts';
import { type Amount, under, UNITS } from '../measure/index.ts';
import { jarSize, type JarSizeId } from '../jars/index.ts';
import { type Product, SPREADS } from '../times/index.ts';
import type { Line, NetContents, Recipe, Step } from './recipe.ts';

/** Ways to cut, from the loosest in a cup to the densest: the words of it, and the form of the library it is like. */
const CUTS: readonly { words: RegExp; form: string }[] = [
  { words: /\bwhole\b/i, form: 'whole' },
  { words: /\bhal(?:f|ves|ved)\b/i, form: 'halved' },
  { words: /\bquarter(?:s|ed)\b/i, form: 'quartered' },
  { words: /\bslic(?:e|es|ed)\b/i, form: 'sliced' },
  { words: /\bshredded\b/i, form: 'shredded' },
  { words: /\bgrated\b/i, form: 'grated' },
  { words: /\b(?:chopped|diced|cubed|cut up)\b/i, form: 'chopped' },
  { words: /\bminced\b/i, form: 'minced' },
  { words: /\b(?:crushed|mashed)\b/i, form: 'crushed' },
  { words: /\b(?:pur[ée]ed?|pulp|sieved|milled|blended)\b/i, form: 'puréed' },
];

/**
 * The way of cutting or packing that the words of a line name, else the usual one. A cut that was never weighed takes the
 * nearest denser one that was, and says so: less is then bought than a cup holds, never more of what is low in acid.
 *
 * @returns the form, and whether it only stands for what was said; null where nothing denser was weighed
 */
export function formFor(ingredient: Ingredient, words: string): { form: string; standsIn: boolean } | null {
  const forms = formsOf(ingredient);
  const usual = { form: forms[0] ?? '', standsIn: false };
  // The last cut that is named counts: "halved and crushed".
  const said = CUTS.map((cut, i) => ({ i, at: words.search(cut.words) }))
    .filter(c => c.at >= 0)
    .at(-1);
  if (!said) {
    const low = words.toLowerCase();
    return {
      form: forms.find(f => low.includes(f.toLowerCase().split(' ')[0] as string)) ?? usual.form,
      standsIn: false,
    };
  }
  const own = CUTS[said.i]?.form as string;
  if (forms.includes(own)) return { form: own, standsIn: false };
  // What has one weight only has it however it is handled: sugar, salt, a spice.
  if (!forms.some(f => CUTS.some(c => c.form === f))) return usual;
  const denser = CUTS.slice(said.i + 1).find(c => forms.includes(c.form));
  return denser ? { form: denser.form, standsIn: true } : null;
}

/** What the library knows of an ingredient, as the facts a line holds. */
export function factsOf(
  ingredient: Ingredient,
  amount: Amount,
  words: string,
): Pick<
  Line,
  | 'ingredientId'
  | 'role'
  | 'form'
  | 'density_gPerMl'
  | 'each_g'
  | 'bushel_g'
  | 'weightSource'
  | 'trimYield'
  | 'solids_pct'
  | 'freshFactor'
  | 'group'
  | 'labelName'
  | 'subIngredients'
  | 'allergens'
  | 'minStrength_pct'
  | 'safelyAcid'
> {
  const cut = formFor(ingredient, words);
  const form = cut?.form ?? '';
  const density = cut ? densityOf(ingredient, form) : null;
  const strength = ingredient.acid?.kind === 'acetic' ? strengthIn(words) : null;
  const dimension = UNITS[amount.unit].dimension;
  const source = sourceOf(
    ingredient,
    dimension === 'count' ? 'one_g' : dimension === 'produce' ? 'bushel_g' : 'cup_g',
  );
  return {
    ingredientId: ingredient.id,
    role: ingredient.role,
    form,
    // Four places: a cup is never weighed closer.
    density_gPerMl: density === null ? null : Math.round(density * 1e4) / 1e4,
    each_g:
      under<number | undefined>(ingredient.one_g, amount.unit) ??
      (NOT_ONE_PIECE.has(amount.unit) ? null : (ingredient.one_g.each ?? null)),
    bushel_g: ingredient.bushel_g,
    weightSource: source
      ? `${source.title}${source.fromMemory ? ' (from memory)' : ''}${cut?.standsIn && dimension === 'volume' ? `; as ${form}, the nearest denser cut that was weighed` : ''}`
      : '',
    trimYield: usualTrim(ingredient),
    solids_pct: ingredient.solids_pct,
    freshFactor: ingredient.freshFactor,
    group: ingredient.group,
    labelName: ingredient.labelName,
    subIngredients: ingredient.subIngredients,
    allergens: ingredient.allergens,
    // What the words say stands, weaker or stronger: 4 % is never read as 5 %.
    minStrength_pct: strength ?? (ingredient.acid?.kind === 'acetic' ? ingredient.strength_pct : null),
    safelyAcid: ingredient.safelyAcid,
  };
}

/** Units that hold many pieces or a part of one: what one piece weighs says nothing of them. */
const NOT_ONE_PIECE: ReadonlySet<string> = new Set(['package', 'bunch', 'slice', 'clove', 'sprig']);

/** Words that say a figure means what is ready for the pot. */
const PREPARED =
  /\b(chopped|sliced|diced|crushed|mashed|shredded|grated|minced|pur[ée]ed?|peeled|pitted|hulled|seeded|prepared|juice|pulp|trimmed|ground|halved|quartered)\b/i;

/**
 * Which weight an amount means, where nobody said: counts, bushels and pecks are as bought, volumes are prepared, and a
 * weight is prepared when the name before the comma says how ("2 lb sliced peaches"), else as bought ("2 lb peaches,
 * sliced"). Common practice of recipe writing; shown, and changed with one tap.
 */
export function basisFor(amount: Amount, name: string, trims: boolean): Line['basis'] {
  const { dimension } = UNITS[amount.unit];
  if (!trims) return 'prepared';
  if (dimension === 'count' || dimension === 'produce') return 'as bought';
  if (dimension === 'volume') return 'prepared';
  return PREPARED.test(name) ? 'prepared' : 'as bought';
}

/**
 * A line for an amount of an ingredient, with the library's facts; without an ingredient its facts stay empty, to be
 * filled by hand.
 */
export function lineFrom(
  id: string,
  amount: Amount,
  name: string,
  ingredient: Ingredient | null,
  preparation = '',
): Line {
  const blank: Line = {
    id,
    ingredientId: null,
    name,
    preparation,
    role: 'other',
    amount,
    basis: 'prepared',
    where: 'pot',
    keptShare: 1,
    ratio: null,
    form: '',
    density_gPerMl: null,
    each_g: null,
    bushel_g: null,
    weightSource: '',
    trimYield: 1,
    solids_pct: 0,
    addedSugar_pct: 0,
    freshFactor: 1,
    group: null,
    labelName: name.toLowerCase().slice(0, 80),
    subIngredients: '',
    allergens: [],
    minStrength_pct: null,
    safelyAcid: false,
  };
  if (!ingredient) return blank;
  const facts = factsOf(ingredient, amount, `${name} ${preparation}`);
  return { ...blank, ...facts, basis: basisFor(amount, name, facts.trimYield < 0.999) };
}

/** A step with nothing but its words; a wait, a target and what goes in are added to it. */
export function stepFrom(id: string, kind: Step['kind'], text: string): Step {
  return {
    id,
    kind,
    text,
    caution: '',
    target: { kind: 'none' },
    window: null,
    attention:
      kind === 'soak' || kind === 'rest' || kind === 'cool' ? { kind: 'free' } : { kind: 'hands-on' },
    mayStop_h: null,
    adds: [],
    part: '',
    separates: null,
    expects: null,
  };
}

/**
 * What a jar of a size states: ounces of what is spooned, fluid ounces of what pours. Common usage, rounded down: a spread
 * weighs a quarter more than its volume of water.
 */
export function usualNet(size: JarSizeId, product: Product): NetContents {
  const floz = Math.round(jarSize(size).pints.valueOf() * 16);
  return SPREADS.includes(product)
    ? { kind: 'weight', oz: Math.floor(floz * 1.25) }
    : { kind: 'volume', floz };
}

/** An empty recipe: own, nothing in it yet. */
export function emptyRecipe(): Recipe {
  return {
    format: 3,
    name: '',
    code: '',
    statementOfIdentity: '',
    product: 'other',
    family: '',
    tags: [],
    variantOf: null,
    foodClass: 'acid food',
    setBy: 'not set',
    method: { peel: 'either', cut: 'chopped', strain: 'unstrained', liquid: 'none', pack: 'hot' },
    authority: { grade: 'own', entryId: null },
    tested: null,
    lines: [],
    steps: [],
    makes: { size: 'half-pint', count: 6 },
    jars: [{ size: 'half-pint', net: { kind: 'weight', oz: 8 } }],
    outlets: [],
    packing: null,
    shelfLife_months: 12,
    readyAfter_days: 0,
    notes: '',
    sketch: false,
  };
}

/**
 * Three capital letters for a recipe, from the first letters of its name: a proposal, which another recipe may have taken.
 *
 * @returns an empty text where the name has no letter of the alphabet
 * @example proposeCode('Red plum jam') // 'RPJ'
 */
export function proposeCode(name: string): string {
  const words = name
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f'\u2019]/g, '')
    .toUpperCase()
    .split(/[^A-Z]+/)
    .filter(w => w.length > 0 && !['AND', 'OR', 'WITH', 'WITHOUT', 'IN', 'OF', 'NO'].includes(w));
  if (words.length === 0) return '';
  const initials = words.map(w => w.charAt(0)).join('');
  return `${initials}${(words.at(-1) ?? '').slice(1)}`.slice(0, 3).padEnd(3, 'X');
}
