import { type Contents, type Parts, type Shares, addTo, evenly, massOf, noParts } from './parts.ts';
import { density_gPerMl } from './volume.ts';

/** A measure of less than this share of what usually goes through is no measure of it. Our bound, from no source. */
const LEAST_THROUGH = 0.4;

/**
 * What a cloth or a mill holds back: juice carries what is dissolved in it, fibre stays behind.
 *
 * @param kept  share of each line's mass that goes through
 * @param measured  what was measured afterwards: it settles what went through
 * @param clear  whether no fibre goes through at all
 * @returns shares that are held back, by line
 */
export function throughCloth(
  contents: Contents,
  kept: ReadonlyMap<string, number>,
  measured: { quantity: number; unit: 'g' | 'mL' } | null,
  clear: boolean,
): Map<string, Shares> {
  const parts = (id: string) => contents.get(id) as Parts;
  let scale = 1;
  if (measured) {
    const through = [...kept].reduce((sum, [id, share]) => sum + massOf(parts(id)) * share, 0);
    const others = noParts();
    for (const [id, p] of contents) if (!kept.has(id)) addTo(others, p);
    const mixed = noParts();
    for (const [id, p] of contents) {
      addTo(mixed, p, kept.get(id) ?? 1);
    }
    const wanted_g = measured.unit === 'g' ? measured.quantity : measured.quantity * density_gPerMl(mixed);
    if (through > 0) scale = Math.max(LEAST_THROUGH, (wanted_g - massOf(others)) / through);
  }
  return new Map(
    [...kept].map(([id, share]) => {
      const p = parts(id);
      const mass = massOf(p);
      const wanted = Math.min(1, share * scale);
      const fibre = clear ? 0 : wanted;
      const liquid_g = mass - p.insoluble_g;
      const liquid = liquid_g === 0 ? 0 : Math.min(1, (wanted * mass - fibre * p.insoluble_g) / liquid_g);
      return [id, { ...evenly(1 - liquid), insoluble_g: 1 - fibre }];
    }),
  );
}
