import { type Amount, Fraction, UNITS } from '../measure/index.ts';
import type { NamedIngredient } from './ingredient.ts';

/** What an acid line counts as, where acid is the barrier. */
export type AcidKind = 'vinegar' | 'bottled juice' | 'citric acid' | 'fresh juice' | 'unlabelled vinegar';

/** The kind of an acid line, by its library entry or its name; null when it is no acid for safety. */
export function acidKind(line: NamedIngredient): AcidKind | null {
  if (line.role !== 'acid') return null;
  const name = `${line.ingredientId ?? ''} ${line.name}`.toLowerCase();
  if (/home-?made|unknown strength|unlabelled/.test(name)) return 'unlabelled vinegar';
  if (/citric/.test(name)) return 'citric acid';
  if (/vinegar|balsamic/.test(name)) return 'vinegar';
  // Of citrus juices only lemon and lime are strong enough; bottled orange juice is no barrier.
  if (/\blemon|\blime/.test(name)) return /\bbottled/.test(name) ? 'bottled juice' : 'fresh juice';
  return null;
}

/** Whether it counts where acid is the barrier: bottled juice, citric acid, or vinegar labelled with its strength. */
export function countsAsBarrier(line: NamedIngredient): boolean {
  const kind = acidKind(line);
  return kind === 'vinegar' || kind === 'bottled juice' || kind === 'citric acid';
}

const ML_PER_TBSP = UNITS.tbsp.factor.valueOf();
const ML_PER_TSP = UNITS.tsp.factor.valueOf();

/** Percent acid of vinegar that pickling recipes are tested with. Source: USDA Complete Guide (2015), guide 6; from memory. */
export const PICKLING_STRENGTH_PCT = 5;
/** Bottled lemon and lime juice, percent as citric acid, as they are sold. Common practice. */
export const BOTTLED_JUICE_PCT = 4.5;
/** Grams in a millilitre of an acid as it is dosed, where its line does not say. Common practice, from memory. */
const DOSE_DENSITY: Record<AcidKind, number> = {
  'bottled juice': 1.03,
  'fresh juice': 1.03,
  'citric acid': 0.93,
  vinegar: 1.01,
  'unlabelled vinegar': 1.01,
};

/**
 * Millilitres of an amount of acid that is given by spoon or by weight; the lower end of a range counts.
 *
 * @returns null where it is counted, or no acid for safety
 */
export function acidVolume_mL(
  line: NamedIngredient & { amount: Amount; density_gPerMl: number | null },
): number | null {
  const kind = acidKind(line);
  const unit = UNITS[line.amount.unit];
  if (kind === null) return null;
  const base = new Fraction(line.amount.value).mul(unit.factor).valueOf();
  if (unit.dimension === 'volume') return base;
  return unit.dimension === 'mass' ? base / (line.density_gPerMl ?? DOSE_DENSITY[kind]) : null;
}

/**
 * Bottled lemon juice that a volume of acid stands for in each jar of plain tomatoes: vinegar takes twice the lemon,
 * and a quarter teaspoon of citric acid is a tablespoon of lemon. Source: USDA Complete Guide (2015), guide 3; from
 * memory.
 */
export function asBottledLemon_mL(kind: AcidKind, volume_mL: number): number {
  if (kind === 'bottled juice') return volume_mL;
  if (kind === 'vinegar') return volume_mL / 2;
  return kind === 'citric acid' ? (volume_mL / (ML_PER_TSP / 4)) * ML_PER_TBSP : 0;
}

/** What may stand in for an acid, or why nothing may. */
export type Replacement = { ok: true; volume_mL: number; note: string } | { ok: false; why: string };

/**
 * What volume of another acid may replace one. Bottled lemon or lime may stand in for 5 % vinegar volume for volume,
 * never the other way; in plain tomatoes vinegar takes twice the lemon, and a tablespoon of lemon is a quarter
 * teaspoon of citric acid. Sources: USDA Complete Guide (2015), guides 3 and 6; from memory.
 */
export function replaceAcid(
  from: 'vinegar' | 'bottled juice' | 'citric acid',
  to: 'vinegar' | 'bottled juice' | 'citric acid',
  volume_mL: number,
  plainTomatoes: boolean,
): Replacement {
  if (from === to) return { ok: true, volume_mL, note: '' };
  if (plainTomatoes) {
    const asLemon_mL = asBottledLemon_mL(from, volume_mL);
    if (to === 'bottled juice') return { ok: true, volume_mL: asLemon_mL, note: 'plain tomatoes' };
    if (to === 'vinegar')
      return { ok: true, volume_mL: asLemon_mL * 2, note: 'plain tomatoes: twice the lemon' };
    return { ok: true, volume_mL: (asLemon_mL / ML_PER_TBSP) * (ML_PER_TSP / 4), note: 'plain tomatoes' };
  }
  if (from === 'vinegar' && to === 'bottled juice')
    return { ok: true, volume_mL, note: 'bottled juice is the stronger acid; it tastes sharper' };
  return {
    ok: false,
    why:
      to === 'vinegar'
        ? 'Vinegar is the weaker acid: in place of bottled juice the jar may stay above 4.6.'
        : 'Nobody has tested this exchange in a pot; citric acid is dosed by jar in plain tomatoes only.',
  };
}
