import { syrupDensity_gPerMl } from '../heat/index.ts';
import { type Parts, massOf, solubleOf } from './parts.ts';

/** Food filled hot stands thinner in the jar than cold: water at 90 °C over 20 °C. From memory. */
export const HOT_OVER_COLD = 0.967;

/** Soluble solids of the liquid, °Brix: what a refractometer reads. */
export function brixOf(p: Parts): number {
  const soluble = solubleOf(p);
  return soluble + p.water_g === 0 ? 0 : (soluble / (soluble + p.water_g)) * 100;
}

/** Grams in a millilitre when cold, by what is dissolved: fibre stands as heavy as the liquid around it. */
export function density_gPerMl(p: Parts): number {
  return syrupDensity_gPerMl(Math.min(95, brixOf(p)));
}

/** Millilitres when cold. */
export function volume_mL(p: Parts): number {
  return massOf(p) / density_gPerMl(p);
}
