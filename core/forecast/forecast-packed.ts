import { fillVolume_mL, jarSize, type JarSizeId, pintsOf } from '../jars/index.ts';
import { Fraction } from '../measure/index.ts';
import { type JarsWanted, type Line, type Recipe, recipeMasses_g } from '../recipes/index.ts';
import type { ForecastFault } from './forecast.ts';

/** What will come out of pieces packed under a brine: how they fill the jars, and what brine that takes. */
export interface PackedForecast {
  pieces_g: number;
  perJar: { size: JarSizeId; pieces_g: number; gap_mL: number }[];
  jars: JarsWanted[];
  part: { size: JarSizeId; share: number } | null;
  /** Liquid the gaps take, with the spare share. */
  liquidNeeded_mL: number;
  liquidMade_mL: number;
  /** Liquid over (or short, below zero) when every jar is filled. */
  leftover_mL: number;
  /** Jars from a bushel of produce as bought; null where its weight is unknown. */
  jarsPerBushel: number | null;
  faults: ForecastFault[];
}

/**
 * What packed jars take: pieces by weight in each, liquid in the gaps between them.
 *
 * @param jars  jars to fill, or null for as many of `size` as the pieces fill
 * @throws RangeError when the recipe has no packing, or a line cannot be weighed
 */
export function forecastPacked(
  recipe: Recipe,
  factor: Fraction,
  headspace_mm: number,
  size: JarSizeId,
  jars: readonly JarsWanted[] | null,
): PackedForecast {
  const { packing } = recipe;
  if (!packing) throw new RangeError('forecastPacked: the recipe has no packing');
  const masses = recipeMasses_g(recipe, factor, pintsOf(jars ?? [recipe.makes]));
  const isPiece = (l: Line) => (l.role === 'fruit' || l.role === 'low-acid produce') && l.where === 'pot';
  const isLiquid = (l: Line) => l.where === 'brine';
  const pieces_g = recipe.lines
    .filter(isPiece)
    .reduce((sum, l) => sum + (masses.get(l.id) ?? 0) * l.keptShare, 0);
  const liquidMade_mL = recipe.lines
    .filter(isLiquid)
    .reduce((sum, l) => sum + ((masses.get(l.id) ?? 0) * l.keptShare) / dissolved(l), 0);
  const each = (id: JarSizeId) => {
    const inJar_g = packing.perPint_g * jarSize(id).pints.valueOf();
    return {
      size: id,
      pieces_g: inJar_g,
      gap_mL: fillVolume_mL(id, headspace_mm) - inJar_g / packing.pieceDensity_gPerMl,
    };
  };
  const faults: ForecastFault[] = [];
  const one = each(size);
  const count = Math.floor(pieces_g / one.pieces_g + 1e-9);
  const filled = jars?.filter(j => j.count > 0) ?? (count > 0 ? [{ size, count }] : []);
  const perJar = (filled.length > 0 ? filled : [{ size, count: 0 }]).map(j => each(j.size));
  for (const jar of perJar)
    if (jar.gap_mL <= 0)
      faults.push({
        stepId: null,
        what: `${Math.round(jar.pieces_g)} g of pieces do not fit a ${jarSize(jar.size).name}.`,
        why: 'They take more room than there is below the headspace, and no liquid would cover them.',
        next: 'Pack less into a pint, or check the weight of a millilitre of pieces.',
      });
  const gaps_mL = filled.reduce((sum, j) => sum + Math.max(0, each(j.size).gap_mL) * j.count, 0);
  const liquidNeeded_mL = gaps_mL * (1 + packing.spareShare);
  const over_g = pieces_g - filled.reduce((sum, j) => sum + each(j.size).pieces_g * j.count, 0);
  const main = recipe.lines.find(isPiece);
  const share = main ? ((masses.get(main.id) ?? 0) * main.keptShare) / (pieces_g || 1) : 1;
  return {
    pieces_g,
    perJar,
    jars: [...filled],
    part: over_g > one.pieces_g * 0.01 ? { size, share: Math.min(1, over_g / one.pieces_g) } : null,
    liquidNeeded_mL,
    liquidMade_mL,
    leftover_mL: liquidMade_mL - gaps_mL,
    jarsPerBushel: main?.bushel_g ? (main.bushel_g * main.trimYield) / (one.pieces_g * share) : null,
    faults,
  };
}

/** Grams in a millilitre that a line adds to a liquid: what dissolves takes less room than it did dry. */
function dissolved(line: Line): number {
  // Sugar and salt in solution take about 0.62 and 0.35 mL a gram. Common food-chemistry figures, from memory.
  if (line.role === 'sweetener' && line.solids_pct > 90) return 1.61;
  if (line.role === 'salt') return 2.85;
  return Math.max(0.9, line.density_gPerMl ?? 1);
}
