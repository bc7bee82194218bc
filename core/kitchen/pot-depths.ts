import type { Pot } from './kitchen.ts';

/**
 * What a pot with straight walls holds at each depth, from its width, up to its rim.
 *
 * @param step_mm  between two depths
 * @returns in order of depth; the rim is the last
 * @throws RangeError where the step is not above zero
 * @example
 * const depths = potDepths({ capacity_mL: 9000, diameter_mm: 300 }, 25);
 * Math.round(depths[0]?.volume_mL ?? 0); // 1767
 */
export function potDepths(
  pot: Pick<Pot, 'capacity_mL' | 'diameter_mm'>,
  step_mm: number,
): { depth_mm: number; volume_mL: number }[] {
  if (!(step_mm > 0)) throw new RangeError('potDepths: the step must be above zero');
  const mLPerMm = (Math.PI * (pot.diameter_mm / 2) ** 2) / 1000;
  const rim_mm = pot.capacity_mL / mLPerMm;
  const whole = Math.ceil(rim_mm / step_mm - 1e-9) - 1;
  return [...Array.from({ length: Math.max(0, whole) }, (_, i) => (i + 1) * step_mm), rim_mm].map(
    depth_mm => ({ depth_mm, volume_mL: depth_mm * mLPerMm }),
  );
}
