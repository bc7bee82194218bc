import { type Recipe, lineMass_g } from './recipe.ts';

/**
 * Least parts by weight of fruit to 100 parts of fruit and sweetener. Source: 21 CFR 150.160, from memory: 47 for its
 * first group of fruits (most berries, cherries, grapes, citrus, rhubarb), 45 for the second (plums, apricots, peaches,
 * currants). The stricter is asked of every fruit.
 */
export const SPREAD_FRUIT_PART = 47;

export interface IdentityFinding {
  meets: boolean;
  /** Parts of fruit in 100 of fruit and sweetener. */
  fruitPart: number;
  why: string;
  next: string;
  source: string;
}

const SOURCE = '21 CFR 150.160 (from memory)';

/**
 * Whether a recipe's lines meet the standard of a jam: enough fruit for its sweetener, all of it fruit that is safely
 * acid by itself, no low-acid produce. Soluble solids are shown by the gel point in the batch, not here.
 *
 * @param weighed_g  masses that went in, by line id; lines not named count as written
 */
export function spreadIdentity(
  recipe: Pick<Recipe, 'lines'>,
  weighed_g: Readonly<Record<string, number>> = {},
): IdentityFinding {
  const mass = (role: string) =>
    recipe.lines.filter(l => l.role === role).reduce((sum, l) => sum + (weighed_g[l.id] ?? lineMass_g(l)), 0);
  const fruit = mass('fruit');
  const sweet = mass('sweetener');
  const fruitPart = fruit + sweet === 0 ? 0 : (fruit / (fruit + sweet)) * 100;
  const finding = (meets: boolean, why: string, next: string): IdentityFinding => ({
    meets,
    fruitPart,
    why,
    next,
    source: SOURCE,
  });
  const unsafe = recipe.lines.filter(l => l.role === 'fruit' && !l.safelyAcid);
  if (unsafe.length > 0) {
    return finding(
      false,
      `${unsafe.map(l => l.name).join(', ')}: not on the list of fruit that is safely acid by itself.`,
      'Follow a tested recipe for this fruit, or ask a process authority.',
    );
  }
  const lowAcid = recipe.lines.filter(l => l.role === 'low-acid produce');
  if (lowAcid.length > 0) {
    return finding(
      false,
      `${lowAcid.map(l => l.name).join(', ')}: low-acid produce does not belong in a fruit spread.`,
      'Take it out, or ask a process authority.',
    );
  }
  if (sweet === 0) {
    return finding(
      false,
      'There is no sweetener, so it is not a jam by its standard.',
      'Add the sugar, or follow a tested recipe without it.',
    );
  }
  if (fruitPart < SPREAD_FRUIT_PART - 1e-9) {
    return finding(
      false,
      `${fruitPart.toFixed(1)} parts of fruit in 100 of fruit and sugar; a jam needs ${SPREAD_FRUIT_PART}.`,
      'Use more fruit or less sugar.',
    );
  }
  return finding(
    true,
    `${fruitPart.toFixed(1)} parts of fruit in 100 of fruit and sugar; at least ${SPREAD_FRUIT_PART} are needed.`,
    '',
  );
}
