import { balance, brixOf, massOf, type Parts, solubleOf, volume_mL } from '../balance/index.ts';
import { boilingPoint_C, waterAtRise_g } from '../heat/index.ts';
import type { Step } from '../recipes/index.ts';
import { beginOf } from './cooked.ts';
import type { Trace } from './evidence.ts';
import { type LineMass, lineMasses } from './masses.ts';
import { observed } from './observed.ts';
import type { BatchState } from './state.ts';

/** The pot on the fire, as the kitchen knows it. */
export interface PotOnFire {
  capacity_mL: number;
  diameter_mm: number;
  /** Grams of water a minute at a full boil; 0 where nobody measured it. */
  boilOff_gPerMin: number;
}

/** How full a pot stands, in millimetres from its bottom. */
export interface PotLevels {
  rim_mm: number;
  began_mm: number;
  now_mm: number;
  /** Where it is done; null where only the eye tells. */
  done_mm: number | null;
}

/** A cook step while it runs. Every figure is a forecast: readings correct it, nothing of it proves anything. */
export interface CookNow {
  begun_ms: number | null;
  /** What is in each pot now, and what of it is water still to drive off; null where only the eye tells the end. */
  now_g: number;
  toGo_g: number | null;
  brix: number;
  doneBrix: number | null;
  levels: PotLevels | null;
  /** When it is done; null where that hangs on the eye, on a pot nobody measured, or on a start. It is never before now. */
  ready: { from_ms: number; mid_ms: number; to_ms: number } | null;
  /** Grams of water each pot boils off in a minute, and whether readings of this batch tell it. */
  rate_gPerMin: number | null;
  measured: boolean;
  /** Temperatures of the whole pot since it began, as read. */
  points: { at_ms: number; temp_C: number }[];
  /** What the thermometer shows at the boil, and at the target; null where none is to be reached. */
  boils_C: number;
  target_C: number | null;
  /** The last reading that told how much water is left; null before the first. */
  lastRead_ms: number | null;
  /** The latest reading says that it is past its end. */
  past: boolean;
}

const MINUTE_MS = 60_000;
/** A thermometer this little above boiling water says nothing of what is dissolved. Our choice: two readings of a kitchen's thermometer differ by it. */
const TELLING_RISE_C = 0.4;
/** Two readings this close together tell no rate. Our choice. */
const APART_MS = 90_000;
/** How far a pot's own rate, and one that readings told, may be off. From memory of practice. */
const OFF_BY = { pot: [0.7, 1.45], read: [0.85, 1.2] } as const;

interface Told {
  at_ms: number;
  water_g: number;
}

/**
 * How a pot stands that is being cooked: what is left to drive off, how deep it stands, when it will be ready. Worked out from
 * the balance of what went in, corrected by each reading of temperature, solids, weight or depth.
 *
 * @param step  the cook step that is in hand
 * @param pot  the pot it is in; null where the kitchen does not know it
 * @returns null where a line cannot be weighed, or nothing is in the pot
 */
export function cookNow(
  state: BatchState,
  step: Step,
  pot: PotOnFire | null,
  now_ms: number,
): CookNow | null {
  const { started } = state;
  if (!started || step.kind !== 'cook' || step.part !== '') return null;
  const area_mm2 = pot ? Math.PI * (pot.diameter_mm / 2) ** 2 : null;
  const pots = started.pots.count;
  const made = reckoned(state, step, pot);
  if (!made) return null;
  const { start, end } = made;
  const own_C = started.kitchen.thermometerError_C;
  const boils_C = boilingPoint_C(started.kitchen.altitude_m) + own_C;
  const begun_ms = beginOf(state, started.recipe.steps, step)?.at_ms ?? null;
  const since = (t: { by: Trace }) => begun_ms !== null && t.by.at_ms >= begun_ms;
  const temperatures = state.temperatures.filter(t => t.where === 'pot' && t.part === '' && since(t));
  const told: Told[] = [
    ...temperatures
      .filter(t => t.temp_C - boils_C > TELLING_RISE_C && solubleOf(start) > 0)
      .map(t => ({
        at_ms: t.by.at_ms,
        water_g: waterAtRise_g(start, t.temp_C - boils_C, started.kitchen.altitude_m),
      })),
    ...state.solids
      .filter(s => s.part === '' && since(s))
      .map(s => ({ at_ms: s.by.at_ms, water_g: solubleOf(start) * (100 / s.brix_pct - 1) })),
    ...state.levels
      .filter(l => l.stepId === step.id && since(l))
      .flatMap(l => {
        const water_g =
          l.of === 'weight'
            ? l.quantity * pots - dryOf(start)
            : area_mm2 === null
              ? null
              : waterOfVolume_g(start, (l.quantity * area_mm2 * pots) / 1000);
        return water_g === null ? [] : [{ at_ms: l.by.at_ms, water_g }];
      }),
  ]
    .map(t => ({ ...t, water_g: Math.min(start.water_g, Math.max(0, t.water_g)) }))
    .sort((a, b) => a.at_ms - b.at_ms);
  const rate = rateOf(
    told,
    start.water_g,
    begun_ms,
    pot && pot.boilOff_gPerMin > 0 ? pot.boilOff_gPerMin * pots : null,
  );
  const last = told.at(-1) ?? null;
  const from = last ?? (begun_ms === null ? null : { at_ms: begun_ms, water_g: start.water_g });
  const end_g = end?.water_g ?? null;
  // Between readings the pot goes on boiling, but nobody is told that it is done before somebody looked.
  const drifted_g =
    from === null || rate === null
      ? (from?.water_g ?? start.water_g)
      : from.water_g - (rate.gPerMin * (now_ms - from.at_ms)) / MINUTE_MS;
  const water_g = Math.max(
    Math.min(end_g ?? 0, from?.water_g ?? start.water_g),
    Math.min(start.water_g, drifted_g),
  );
  const at = (water: number): Parts => ({ ...start, water_g: water });
  const toGo_g = end_g === null ? null : Math.max(0, water_g - end_g);
  const depth_mm = (parts: Parts): number =>
    area_mm2 === null ? 0 : (volume_mL(parts) / pots) * (1000 / area_mm2);
  const minutesAt = (gPerMin: number) => (toGo_g ?? 0) / gPerMin;
  const [slow, fast] = rate?.read ? OFF_BY.read : OFF_BY.pot;
  return {
    begun_ms,
    now_g: massOf(at(water_g)) / pots,
    toGo_g: toGo_g === null ? null : toGo_g / pots,
    brix: brixOf(at(water_g)),
    doneBrix: end_g === null ? null : brixOf(at(end_g)),
    levels:
      pot && area_mm2 !== null
        ? {
            rim_mm: (pot.capacity_mL * 1000) / area_mm2,
            began_mm: depth_mm(start),
            now_mm: depth_mm(at(water_g)),
            done_mm: end_g === null ? null : depth_mm(at(end_g)),
          }
        : null,
    ready:
      begun_ms === null || rate === null || toGo_g === null
        ? null
        : {
            from_ms: now_ms + minutesAt(rate.gPerMin * fast) * MINUTE_MS,
            mid_ms: now_ms + minutesAt(rate.gPerMin) * MINUTE_MS,
            to_ms: now_ms + minutesAt(rate.gPerMin * slow) * MINUTE_MS,
          },
    rate_gPerMin: rate === null ? null : rate.gPerMin / pots,
    measured: rate?.read ?? false,
    points: temperatures.map(t => ({ at_ms: t.by.at_ms, temp_C: t.temp_C })),
    boils_C,
    target_C:
      step.target.kind === 'gel point'
        ? started.gelPoint_C
        : step.target.kind === 'temperature'
          ? step.target.temp_C
          : null,
    lastRead_ms: last?.at_ms ?? null,
    past: last !== null && end_g !== null && last.water_g < end_g - massOf(start) * 0.005,
  };
}

const dryOf = (p: Parts) => massOf(p) - p.water_g;

/**
 * What each line comes to: one that is weighed in portions is not all there yet, and counts as planned until the last step
 * that takes some of it is done.
 */
function stillToCome(state: BatchState): LineMass[] {
  const open = (state.started?.recipe.steps ?? []).filter(s => !state.steps[s.id]?.done);
  const awaited = new Map(open.flatMap(s => s.adds.map(a => [a.lineId, true] as const)));
  return lineMasses(state).map(m =>
    m.basis === 'weighed' && m.actual_g < m.planned_g && awaited.has(m.line.id)
      ? { ...m, actual_g: m.planned_g }
      : m,
  );
}

/** What is in the pots when the step begins and when it is done, of all pots together. */
function reckoned(
  state: BatchState,
  step: Step,
  pot: PotOnFire | null,
): { start: Parts; end: Parts | null } | null {
  try {
    // Readings of the pot stand for themselves here: the end is the recipe's.
    const process = observed({ ...state, temperatures: [] }, stillToCome(state));
    const kitchen = {
      ...process.kitchen,
      boilOff_gPerMin: pot && pot.boilOff_gPerMin > 0 ? pot.boilOff_gPerMin : null,
      mLPerMm: pot ? (Math.PI * (pot.diameter_mm / 2) ** 2) / 1000 : null,
    };
    const found = balance({ ...process, kitchen }).cooks.find(c => c.stepId === step.id);
    if (!found || !(massOf(found.start) > 0)) return null;
    return { start: found.start, end: found.water_g === null ? null : found.end };
  } catch {
    return null;
  }
}

/** Water of a pot that stands so full, by halves: more water is more volume. */
function waterOfVolume_g(start: Parts, mL: number): number {
  let [low, high] = [0, start.water_g];
  for (let i = 0; i < 50; i++) {
    const mid = (low + high) / 2;
    if (volume_mL({ ...start, water_g: mid }) > mL) high = mid;
    else low = mid;
  }
  return (low + high) / 2;
}

/** Grams of water a minute of all pots: as the last two readings that are far enough apart tell, held to what a pot can do; else the pot's own. */
function rateOf(
  told: readonly Told[],
  began_g: number,
  begun_ms: number | null,
  own_gPerMin: number | null,
): { gPerMin: number; read: boolean } | null {
  const last = told.at(-1);
  const first = last && told.findLast(t => last.at_ms - t.at_ms >= APART_MS);
  const before =
    first ??
    (last && begun_ms !== null && last.at_ms - begun_ms >= APART_MS
      ? { at_ms: begun_ms, water_g: began_g }
      : null);
  if (last && before) {
    const gPerMin = (before.water_g - last.water_g) / ((last.at_ms - before.at_ms) / MINUTE_MS);
    // From the begin on it was heated first: that tells a rate only where it is not slower than half of the pot's own.
    const least = (own_gPerMin ?? 10) * (first ? 0.2 : 0.5);
    if (gPerMin > least && gPerMin < (own_gPerMin ?? 150) * 3) return { gPerMin, read: true };
  }
  return own_gPerMin === null ? null : { gPerMin: own_gPerMin, read: false };
}
