import type { JarSizeId } from '../jars/index.ts';

/** Body of a jar between heel and shoulder, in millimetres. Typical of the trade, from memory; glass differs by maker. */
const BODY_MM: Record<JarSizeId, { across: number; tall: number }> = {
  'quarter-pint': { across: 68, tall: 48 },
  'half-pint': { across: 70, tall: 74 },
  'three-quarter-pint': { across: 66, tall: 105 },
  pint: { across: 76, tall: 100 },
  'pint-and-a-half': { across: 76, tall: 145 },
  quart: { across: 91, tall: 140 },
  'half-gallon': { across: 108, tall: 200 },
};

/** Of a container that is round or nearly so, the principal display panel is this share of height times girth. Source: 21 CFR 101.1 (from memory). */
const PANEL_SHARE = 0.4;
const MM2_PER_IN2 = 25.4 ** 2;
const MM_PER_IN = 25.4;

/**
 * Area of the principal display panel of a jar, in square inches.
 *
 * Source: 21 CFR 101.1 (from memory).
 */
export function panelArea_in2(size: JarSizeId): number {
  const { across, tall } = BODY_MM[size];
  return (PANEL_SHARE * Math.PI * across * tall) / MM2_PER_IN2;
}

/** Least height of the figures of net contents by the area of the panel, in inches. Source: 21 CFR 101.7(i) (from memory). */
const LEAST_IN: readonly [upTo_in2: number, height_in: number][] = [
  [5, 1 / 16],
  [25, 1 / 8],
  [100, 3 / 16],
  [400, 1 / 4],
];

/** Glass differs by maker: within so much of a limit the larger figure is asked for. */
const GLASS_DIFFERS = 1.05;

/** Least height in millimetres that the figures of net contents have on the label of a jar. */
export function netFigures_mm(size: JarSizeId): number {
  const area = panelArea_in2(size) * GLASS_DIFFERS;
  return (LEAST_IN.find(([upTo]) => area <= upTo)?.[1] ?? 1 / 2) * MM_PER_IN;
}

/** Net contents stand in this share of the panel, from its lower edge. Source: 21 CFR 101.7(f) (from memory). */
export const NET_SHARE = 0.3;

/** Height of a figure over the size of its type, in the bold face our labels are set in: a test measures the ink. */
export const FIGURE_OVER_SIZE = 0.66;
