import { JAR_SIZES, jarSize, type JarSizeId } from './jars.ts';

/** Jars of each size that stand in a canner at once; a size that is left out does not stand in it. */
export type Holds = Partial<Record<JarSizeId, number>>;

/** Jars that one canner holds where a kitchen has none on record. Common practice for a round canner. */
export const USUAL_HOLDS: Required<Holds> = {
  'quarter-pint': 12,
  'half-pint': 8,
  'three-quarter-pint': 8,
  pint: 9,
  'pint-and-a-half': 7,
  quart: 7,
  'half-gallon': 4,
};

/**
 * Radius of the smallest circle around so many like circles of radius one, by their number: the proven or best known
 * packings, from memory (Graham and others, 1998; rounded up).
 */
const AROUND = [
  0, 1, 2, 2.1548, 2.4143, 2.7014, 3, 3, 3.3048, 3.6132, 3.8131, 3.9239, 4.0297, 4.2361, 4.3285, 4.5214,
  4.6155, 4.7921, 4.8638, 4.8638, 5.1223,
];

/** Radius of the circle that takes so many like circles of radius one. Beyond the table by area, as densely as its last. */
function around(count: number): number {
  const last = AROUND.length - 1;
  return AROUND[count] ?? (AROUND[last] as number) * Math.sqrt(count / last);
}

/**
 * The rack of a canner across, in millimetres: the least that takes what it is said to take of each size. Nobody has to
 * measure it.
 */
export function rack_mm(holds: Holds): number {
  return Math.max(0, ...JAR_SIZES.map(({ id, diameter_mm }) => diameter_mm * around(holds[id] ?? 0)));
}

/** How full a rack is: the sum of each size's share of what stands in it; Infinity where a size does not stand in it. */
export function rackShare(holds: Holds, sizes: readonly JarSizeId[]): number {
  return sizes.reduce((sum, size) => sum + (holds[size] ? 1 / (holds[size] as number) : Infinity), 0);
}

const FULL = 1 + 1e-9;

/**
 * The jars that go in next, in their order, as far as the rack takes them: a jar that does not fit is passed over, so that
 * a smaller one may still find its place.
 *
 * @example
 * const jars = [1, 2, 3].map(number => ({ number, size: 'quart' }));
 * fitting({ quart: 2 }, jars).map(j => j.number); // [1, 2]
 */
export function fitting<J extends { size: JarSizeId }>(holds: Holds, jars: readonly J[]): J[] {
  const taken: J[] = [];
  for (const jar of jars)
    if (
      rackShare(
        holds,
        [...taken, jar].map(j => j.size),
      ) <= FULL
    )
      taken.push(jar);
  return taken;
}

/** How many jars of a size still stand beside those that are in. */
export function roomFor(holds: Holds, size: JarSizeId, beside: readonly JarSizeId[]): number {
  const most = holds[size] ?? 0;
  const free = 1 - rackShare(holds, beside);
  return free <= 0 ? 0 : Math.floor(free * most + 1e-9);
}

/** Where a jar stands on the rack, seen from above: millimetres from its middle. */
export interface Standing {
  x_mm: number;
  y_mm: number;
  r_mm: number;
}

/**
 * Places of jars on a round rack, to scale. Large ones first, each where it touches what stands already and lies nearest to
 * the rim; where they do not all find room in rings they are drawn as near as can be, since the figure of what the rack
 * takes is the kitchen's own.
 *
 * @param across_mm  of the rack, see {@link rack_mm}
 */
export function standOnRack(across_mm: number, sizes: readonly JarSizeId[]): Standing[] {
  const radii = sizes.map(s => jarSize(s).diameter_mm / 2);
  const alike = new Set(radii).size <= 1;
  return alike ? inRings(across_mm / 2, radii) : nested(across_mm / 2, radii);
}

/** Like circles in rings from the rim inwards; a ring that would be one short stands closer to the middle. */
function inRings(rack_r: number, radii: readonly number[]): Standing[] {
  const r = radii[0] ?? 0;
  const out: Standing[] = [];
  for (let ring = rack_r - r; out.length < radii.length; ring -= 2 * r) {
    const left = radii.length - out.length;
    if (ring < r * 0.35) {
      out.push({ x_mm: 0, y_mm: 0, r_mm: r });
      if (out.length < radii.length) out.push(...nested(rack_r, radii.slice(out.length)));
      return out;
    }
    const room = Math.max(1, Math.floor(Math.PI / Math.asin(Math.min(1, r / ring)) + 1e-6));
    const use = Math.min(room, left);
    // One by itself stands in the middle.
    if (use === 1 && out.length > 0) out.push({ x_mm: 0, y_mm: 0, r_mm: r });
    else
      for (let i = 0; i < use; i++) {
        const a = (i / use) * 2 * Math.PI - Math.PI / 2;
        out.push({ x_mm: ring * Math.cos(a), y_mm: ring * Math.sin(a), r_mm: r });
      }
  }
  return out;
}

/** Circles of any size, the largest first, each at the free place that is nearest to the rim. */
function nested(rack_r: number, radii: readonly number[]): Standing[] {
  const order = radii.map((r, i) => ({ r, i })).sort((a, b) => b.r - a.r || a.i - b.i);
  const placed: Standing[] = [];
  const out: Standing[] = [];
  for (const { r, i } of order) {
    let best: Standing | null = null;
    let least = Infinity;
    for (let ring = rack_r - r; ring >= 0 && least > 0; ring -= r / 6) {
      const steps = ring < 1 ? 1 : 72;
      for (let k = 0; k < steps; k++) {
        const a = (k / steps) * 2 * Math.PI - Math.PI / 2;
        const at = { x_mm: ring * Math.cos(a), y_mm: ring * Math.sin(a), r_mm: r };
        const over = placed.reduce(
          (sum, p) => sum + Math.max(0, p.r_mm + r - Math.hypot(p.x_mm - at.x_mm, p.y_mm - at.y_mm) - 0.5),
          0,
        );
        if (over < least) [best, least] = [at, over];
        if (least === 0) break;
      }
    }
    placed.push(best as Standing);
    out[i] = best as Standing;
  }
  return out;
}

/** What the rim of the pot stands over the rack, so that water can boil over the lids: common practice. */
const RACK_HEIGHT_MM = 12;

/**
 * Water to start a load with, in millilitres: so much that it stands as high over the lids as is asked once the jars are
 * in. The glass takes its own room; from memory it is the cylinder about the jar.
 *
 * @param cover_mm  water over the lids
 */
export function waterToStart_mL(across_mm: number, sizes: readonly JarSizeId[], cover_mm: number): number {
  const high_mm = Math.max(0, ...sizes.map(s => jarSize(s).height_mm));
  const whole = (Math.PI * (across_mm / 2) ** 2 * (RACK_HEIGHT_MM + high_mm + cover_mm)) / 1000;
  const glass = sizes.reduce((sum, s) => {
    const { diameter_mm, height_mm } = jarSize(s);
    return sum + (Math.PI * (diameter_mm / 2) ** 2 * height_mm) / 1000;
  }, 0);
  return Math.max(0, whole - glass);
}
