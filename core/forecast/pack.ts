import { type Balance, massOf, type Process } from '../balance/index.ts';
import { jarSize, type JarSizeId } from '../jars/index.ts';
import type { Recipe } from '../recipes/index.ts';
import type { ForecastFault } from './faults.ts';

/** What pieces packed under a liquid take. */
export interface PackForecast {
  pieces_g: number;
  perJar: { size: JarSizeId; pieces_g: number; gap_mL: number }[];
  /** Liquid the gaps take, with the spare share. */
  liquidNeeded_mL: number;
  liquidMade_mL: number;
  /** Liquid over (or short, below zero) when every jar is filled. */
  leftover_mL: number;
  /** Jars from a bushel of produce as bought; null where its weight is unknown. */
  jarsPerBushel: number | null;
}

/** Reads off a balance what its pack takes. */
export function packOf(
  recipe: Recipe,
  process: Process,
  made: Balance,
  wanted: readonly JarSizeId[],
): PackForecast {
  const packing = recipe.packing as NonNullable<Recipe['packing']>;
  const { brineNeeded_mL, brineMade_mL } = made.filling;
  const perJar = (made.jars.length > 0 ? made.jars.map(j => j.size) : wanted.slice(0, 1)).map(size => {
    const jar = made.jars.find(j => j.size === size);
    const pieces_g = packing.perPint_g * jarSize(size).pints.valueOf();
    const fill_mL = process.jars.find(j => j.size === size)?.fill_mL ?? 0;
    return { size, pieces_g, gap_mL: jar?.gap_mL ?? fill_mL - pieces_g / packing.pieceDensity_gPerMl };
  });
  const pieces_g = massOf(made.ready);
  const main = process.lines.find(
    l => (l.line.role === 'fruit' || l.line.role === 'low-acid produce') && l.line.where === 'pot',
  );
  const share = main ? main.prepared_g / (pieces_g || 1) : 1;
  const first = perJar[0];
  return {
    pieces_g,
    perJar,
    liquidNeeded_mL: brineNeeded_mL * (1 + packing.spareShare),
    liquidMade_mL: brineMade_mL,
    leftover_mL: brineMade_mL - brineNeeded_mL,
    jarsPerBushel:
      main?.line.bushel_g && first
        ? (main.line.bushel_g * main.line.trimYield) / (first.pieces_g * share)
        : null,
  };
}

/** Pieces that do not fit. */
export function packFaults(pack: PackForecast): ForecastFault[] {
  return pack.perJar
    .filter(j => j.gap_mL <= 0)
    .map(j => ({
      stepId: null,
      what: `${Math.round(j.pieces_g)} g of pieces do not fit a ${jarSize(j.size).name}.`,
      why: 'They take more room than there is below the headspace, and no liquid would cover them.',
      next: 'Pack less into a pint, or check the weight of a millilitre of pieces.',
    }));
}
