import { balance, HOT_OVER_COLD, solubleOf, spread, STAYS_IN_POT } from '../balance/index.ts';
import { type BatchState, type LineMass, observed } from '../batches/index.ts';
import { syrupDensity_gPerMl } from '../heat/index.ts';
import { fillVolume_mL } from '../jars/index.ts';

/** Filled jars that are weighed to show what the pot came to. */
export const JARS_TO_WEIGH = 3;

/** How far the sugar of fruit lies from what a table says of it, eight times out of ten. From memory. */
const FRUIT_DIFFERS = 0.2;
/** Kitchen scales, of what was weighed in. From memory. */
const SCALE_DIFFERS = 0.01;
/** A jar holds no less than this of what its room below the headspace takes. Our bound, from no source. */
const FULL_AT_LEAST = 0.9;

/** Soluble solids by the balance: what went in over what the jars weigh, with what is uncertain of it. */
export type SolidsByBalance =
  | { ok: true; solids_pct: number; least_pct: number; nets_g: number[]; pot_g: number }
  | { ok: false; why: string };

/**
 * Soluble solids of the whole pot from what went in and what the filled jars weigh: sugar and fruit bring so many grams of
 * solids, and all that was filled weighs so much. What is uncertain is added up by squares and taken against it: the
 * fruit's own sugar, the scale, how the jars differ, what stayed in the pot.
 *
 * @param masses  what went in of each line
 * @returns null while fewer than {@link JARS_TO_WEIGH} jars are weighed
 */
export function solidsByBalance(state: BatchState, masses: readonly LineMass[]): SolidsByBalance | null {
  const started = state.started as NonNullable<BatchState['started']>;
  const full = state.jars.filter(j => j.outletId === null && j.setAside?.why !== 'part-filled');
  const nets = state.nets.filter(n => full.some(j => j.number === n.jar));
  if (nets.length < Math.min(JARS_TO_WEIGH, Math.max(1, full.length))) return null;
  const no = (why: string): SolidsByBalance => ({ ok: false, why });
  if (started.recipe.outlets.length > 0 || state.outlets.length > 0 || state.potTaken.length > 0)
    return no('Something else left the same pot, and what is left of it in the jars is not known.');
  const unproven = masses.filter(
    m => (m.line.role === 'fruit' || m.line.role === 'sweetener') && m.basis === 'planned',
  );
  if (unproven.length > 0)
    return no(`${unproven.map(m => m.line.name).join(', ')}: neither weighed nor drawn.`);
  // Sugar that was weighed and drawn from no lot proves nothing.
  const counted = masses.map(m =>
    m.line.role === 'sweetener' && m.drawn_g !== null && m.drawn_g < m.actual_g
      ? { ...m, actual_g: m.drawn_g }
      : m,
  );
  const process = observed(state, counted);
  const fruit = new Set(process.lines.filter(l => l.line.role === 'fruit').map(l => l.line.id));
  const made = balance(process);
  const [soluble] = spread(process, [b => solubleOf(b.ready)]);
  const ofFruit_g = [...(made.vessels.get('jars') ?? new Map())].reduce(
    (sum, [id, parts]) => sum + (fruit.has(id) ? solubleOf(parts) : 0),
    0,
  );
  if (!soluble || soluble.mid <= 0) return no('Nothing is known of what went in.');
  const room_mL = (size: (typeof full)[number]['size']) =>
    fillVolume_mL(size, started.times.find(t => t.jarSize === size)?.headspace_mm ?? 6.35);
  const densities = nets.map(n => {
    const jar = full.find(j => j.number === n.jar) as (typeof full)[number];
    return n.net_g / room_mL(jar.size);
  });
  const mean = densities.reduce((a, b) => a + b, 0) / densities.length;
  const variance = densities.reduce((sum, d) => sum + (d - mean) ** 2, 0) / Math.max(1, densities.length - 1);
  const differs = Math.max(SCALE_DIFFERS, (2 * Math.sqrt(variance / densities.length)) / mean);
  const rooms_mL = full.reduce((sum, j) => sum + room_mL(j.size), 0);
  const left_g = state.nets[0]?.left_g ?? 0;
  const pot_g = rooms_mL * mean * (1 + STAYS_IN_POT.share) + left_g;
  const solids = soluble.mid / pot_g;
  const short_g = Math.hypot(
    soluble.mid - soluble.low,
    ofFruit_g * FRUIT_DIFFERS,
    soluble.mid * SCALE_DIFFERS,
    soluble.mid * differs,
    soluble.mid * (STAYS_IN_POT.high - STAYS_IN_POT.share),
  );
  const least = (soluble.mid - short_g) / pot_g;
  const fullJar = syrupDensity_gPerMl(Math.min(95, solids * 100)) * HOT_OVER_COLD;
  if (solids > 1 || mean < fullJar * FULL_AT_LEAST)
    return no(
      'The jars weigh less than full jars of it would: either they are not filled to their headspace, or a weight is wrong.',
    );
  return {
    ok: true,
    solids_pct: solids * 100,
    least_pct: least * 100,
    nets_g: nets.map(n => n.net_g),
    pot_g,
  };
}
