import { boilingPoint_C, boilingRise_C, brixAtRise, GEL_RISE_C, syrupDensity_gPerMl } from '../heat/index.ts';
import { fillVolume_mL, type JarSizeId, pintsOf } from '../jars/index.ts';
import type { Pot } from '../kitchen/index.ts';
import { type Figures, Fraction, numberText } from '../measure/index.ts';
import { type JarsWanted, type Line, type Recipe, recipeMasses_g, type Step } from '../recipes/index.ts';

/** What a forecast could not do, in words. */
export interface ForecastFault {
  stepId: string | null;
  what: string;
  why: string;
  next: string;
}

/** One cook step, foreseen. */
export interface CookForecast {
  stepId: string;
  /** Part of the pot it acts on; empty for the whole. */
  part: string;
  start_g: number;
  end_g: number;
  waterOff_g: number;
  startSolids_pct: number;
  endSolids_pct: number;
  /** At the kitchen's own rate; null where the rate is unknown. */
  minutes: number | null;
  /** Boiling temperature when it is done, as the kitchen's thermometer reads it. */
  end_C: number;
}

/** What will come out of a pot: what went in, what has to boil away, and the jars it fills. */
export interface PotForecast {
  input_g: number;
  final_g: number;
  waterOff_g: number;
  solids_pct: number;
  /** Volume when cold. */
  volume_mL: number;
  cooks: CookForecast[];
  /** Minutes of the cook steps that can be foreseen; null where none can. */
  minutes: number | null;
  /** Cook steps whose end is judged by eye, or whose pot has no rate on record. */
  untimed: number;
  jars: JarForecast;
  /** What goes to other outlets. */
  outlets: { id: string; mass_g: number }[];
  faults: ForecastFault[];
}

/** Jars that a volume fills, and the part-filled one at the end. */
export interface JarForecast {
  jars: JarsWanted[];
  /** Share of one more jar of the smallest size used, 0 to 1; to the refrigerator. */
  part: { size: JarSizeId; share: number } | null;
  /** Food in one jar of each size, in grams. */
  perJar_g: { size: JarSizeId; mass_g: number }[];
}

/** Food filled hot stands thinner in the jar than cold: water at 90 °C over 20 °C. From memory. */
const HOT_OVER_COLD = 0.967;

interface Mass {
  mass_g: number;
  solids_g: number;
}

/** What the kitchen brings to a forecast. */
export interface ForecastKitchen extends Figures {
  altitude_m: number;
  thermometerError_C: number;
  pot: Pot | null;
}

const pct = (m: Mass) => (m.mass_g === 0 ? 0 : (m.solids_g / m.mass_g) * 100);

/**
 * What comes out of the pot: soluble solids stay, water goes until the target of each cook step is met. Fruit solids are
 * reckoned as sucrose. What sticks to the pot and what foam takes is not foreseen; past batches correct for it.
 *
 * @param factor  scale of all pots together; the boil-off rate is for one pot
 * @param pots  pots it is cooked in, one after the other or side by side: each boils off its own share
 * @param headspace_mm  of the jars
 * @param wanted  size that is filled first, and the sizes the rest may go into, largest first
 * @throws RangeError for a line that cannot be weighed, or a ratio that cannot be reckoned
 */
export function forecastPot(
  recipe: Recipe,
  factor: Fraction,
  pots: number,
  kitchen: ForecastKitchen,
  headspace_mm: number,
  wanted: readonly JarSizeId[],
): PotForecast {
  const masses = recipeMasses_g(recipe, factor, pintsOf([recipe.makes]).mul(factor));
  const water_C = boilingPoint_C(kitchen.altitude_m);
  const faults: ForecastFault[] = [];
  const cooks: CookForecast[] = [];
  const whole: Mass = { mass_g: 0, solids_g: 0 };
  const parts = new Map<string, Mass>();
  let input_g = 0;
  const add = (to: Mass, line: Line, share: number) => {
    if (!INTO_POT.includes(line.where)) return;
    const mass_g = (masses.get(line.id) ?? 0) * share * line.keptShare;
    to.mass_g += mass_g;
    to.solids_g += (mass_g * line.solids_pct) / 100;
    input_g += mass_g;
  };
  const named = new Set(recipe.steps.flatMap(s => s.adds.map(a => a.lineId)));
  for (const line of recipe.lines) if (!named.has(line.id)) add(whole, line, 1);
  for (const step of recipe.steps) {
    const on = step.part === '' ? whole : (parts.get(step.part) ?? whole);
    for (const { lineId, share } of step.adds) {
      const line = recipe.lines.find(l => l.id === lineId);
      if (line) add(on, line, new Fraction(share).valueOf());
    }
    if (step.separates) {
      const { part, share } = step.separates;
      const aside = { mass_g: whole.mass_g * share, solids_g: whole.solids_g * share };
      whole.mass_g -= aside.mass_g;
      whole.solids_g -= aside.solids_g;
      parts.set(part, aside);
    }
    if (step.kind === 'blend back') {
      const back = parts.get(step.part);
      if (back) {
        whole.mass_g += back.mass_g;
        whole.solids_g += back.solids_g;
        parts.delete(step.part);
      }
    }
    if (step.kind === 'cook') cook(step, on);
  }
  // What nobody blended back is still there at the end.
  for (const part of parts.values()) {
    whole.mass_g += part.mass_g;
    whole.solids_g += part.solids_g;
  }

  function cook(step: Step, on: Mass): void {
    const start: Mass = { ...on };
    const end_g = endMass_g(step, on, water_C, pots, kitchen);
    if (typeof end_g === 'number') on.mass_g = end_g;
    else if (end_g) faults.push({ stepId: step.id, ...end_g });
    const off = start.mass_g - on.mass_g;
    const rate = kitchen.pot?.boilOff_gPerMin ?? 0;
    cooks.push({
      stepId: step.id,
      part: step.part,
      start_g: start.mass_g,
      end_g: on.mass_g,
      waterOff_g: off,
      startSolids_pct: pct(start),
      endSolids_pct: pct(on),
      minutes:
        step.target.kind === 'time'
          ? step.target.minutes
          : rate > 0 && end_g !== null && typeof end_g === 'number'
            ? off / pots / rate + (step.target.kind === 'temperature' ? step.target.hold_min : 0)
            : null,
      end_C:
        step.target.kind === 'temperature'
          ? step.target.temp_C
          : water_C + boilingRise_C(Math.min(90, pct(on)), kitchen.altitude_m) + kitchen.thermometerError_C,
    });
  }

  const solids_pct = pct(whole);
  const density = syrupDensity_gPerMl(Math.min(solids_pct, 95));
  const outlets = recipe.outlets.map(o => ({ id: o.id, mass_g: whole.mass_g * o.share }));
  const toJars_g = whole.mass_g - outlets.reduce((sum, o) => sum + o.mass_g, 0);
  return {
    input_g,
    final_g: whole.mass_g,
    waterOff_g: cooks.reduce((sum, c) => sum + c.waterOff_g, 0),
    solids_pct,
    volume_mL: whole.mass_g / density,
    cooks,
    minutes: cooks.reduce<number | null>(
      (sum, c) => (c.minutes === null ? sum : (sum ?? 0) + c.minutes),
      null,
    ),
    untimed: cooks.filter(c => c.minutes === null).length,
    jars: jarsFilled(toJars_g, density * HOT_OVER_COLD, headspace_mm, wanted),
    outlets,
    faults,
  };
}

const INTO_POT: readonly Line['where'][] = ['pot', 'infused', 'strained', 'soak'];

/** Mass when a cook step's target is met; a fault when it cannot be; null when the target foretells nothing. */
function endMass_g(
  step: Step,
  on: Mass,
  water_C: number,
  pots: number,
  kitchen: ForecastKitchen,
): number | Omit<ForecastFault, 'stepId'> | null {
  const { target } = step;
  const n = (value: number, places: number) => numberText(value, kitchen, places);
  const bySolids = (target_pct: number, words: string) => {
    const end_g = on.solids_g / (target_pct / 100);
    if (on.solids_g === 0)
      return {
        what: `${words} is never reached.`,
        why: 'There is nothing dissolved in it: water boils at the same temperature to the last drop.',
        next: 'Add the sugar or the fruit before this step, or set another target.',
      };
    if (end_g > on.mass_g + 1e-6)
      return {
        what: `${words} asks for ${n(target_pct, 0)} % soluble solids, and ${n(pct(on), 0)} % go in.`,
        why: 'It is past its target before it is cooked: more solids than that went in.',
        next: 'Add water or fruit, or set a higher target.',
      };
    return end_g;
  };
  const byVolume = (volume_mL: number, words: string) => {
    let end_g = volume_mL;
    // Density hangs on the solids, which hang on the mass: a few rounds settle it.
    for (let i = 0; i < 30; i++) {
      const solids = Math.min(95, (on.solids_g / end_g) * 100);
      end_g = volume_mL * syrupDensity_gPerMl(solids);
    }
    if (end_g > on.mass_g + 1e-6)
      return {
        what: `${words} is more than there is.`,
        why: `About ${n(on.mass_g / syrupDensity_gPerMl(Math.min(95, pct(on))) / 1000, 2)} L go in; cooking only takes away.`,
        next: 'Set a smaller volume.',
      };
    if (on.solids_g > end_g * 0.95)
      return {
        what: `${words} is less than what is dissolved in it.`,
        why: `More solids went in: ${n(on.solids_g / 1000, 2)} kg stay behind whatever boils off.`,
        next: 'Set a larger volume.',
      };
    return end_g;
  };
  switch (target.kind) {
    case 'gel point':
      return bySolids(brixAtRise(GEL_RISE_C, kitchen.altitude_m), 'The gel point');
    case 'temperature': {
      const rise = target.temp_C - kitchen.thermometerError_C - water_C;
      // Below boiling nothing boils off; it is only heated.
      return rise <= 0 ? on.mass_g : bySolids(brixAtRise(rise, kitchen.altitude_m), 'This temperature');
    }
    case 'volume':
      return byVolume(target.volume_mL, 'This volume');
    case 'depth': {
      if (!kitchen.pot) return null;
      const area_mm2 = Math.PI * (kitchen.pot.diameter_mm / 2) ** 2;
      return byVolume(((target.depth_mm * area_mm2) / 1000) * pots, 'This depth');
    }
    case 'time': {
      if (!kitchen.pot) return null;
      const off_g = kitchen.pot.boilOff_gPerMin * target.minutes * pots;
      return Math.max(on.solids_g / 0.95, on.mass_g - off_g);
    }
    case 'look':
    case 'none':
      return null;
  }
}

/** Jars that so much hot food fills: whole ones of the first size, then of the smaller ones, then a part-filled one. */
function jarsFilled(
  mass_g: number,
  hotDensity: number,
  headspace_mm: number,
  sizes: readonly JarSizeId[],
): JarForecast {
  const perJar_g = sizes.map(size => ({ size, mass_g: fillVolume_mL(size, headspace_mm) * hotDensity }));
  const jars: JarsWanted[] = [];
  let left_g = mass_g;
  for (const { size, mass_g: one_g } of perJar_g) {
    if (one_g <= 0) continue;
    const count = Math.floor(left_g / one_g + 1e-9);
    if (count > 0) jars.push({ size, count });
    left_g -= count * one_g;
  }
  const smallest = perJar_g.at(-1);
  const part =
    smallest && left_g > smallest.mass_g * 0.01
      ? { size: smallest.size, share: Math.min(1, left_g / smallest.mass_g) }
      : null;
  return { jars, part, perJar_g };
}
