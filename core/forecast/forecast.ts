import {
  asManyAsItFills,
  type Balance,
  balance,
  type BalanceKitchen,
  brixOf,
  massIn,
  massOf,
  plan,
  type Process,
  type Range,
  spread,
  volume_mL,
  weakestJar,
} from '../balance/index.ts';
import { asSucrose_g, boilingPoint_C, boilingRise_C } from '../heat/index.ts';
import { jarSize, type JarSizeId } from '../jars/index.ts';
import type { Figures, Fraction } from '../measure/index.ts';
import type { JarsWanted, Recipe } from '../recipes/index.ts';
import { type ForecastFault, cookFaults, jarFaults } from './faults.ts';
import { type PackForecast, packFaults, packOf } from './pack.ts';

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

/** What will come out of a recipe at a scale: read off its balance. */
export interface Forecast {
  process: Process;
  made: Balance;
  /** What goes into the pot, trimmed; what was poured away or strained off still among it. */
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
  /** How far the whole is cooked is judged by eye: then its jars are those of the recipe as written. */
  byEye: boolean;
  jars: JarsWanted[];
  /** A last jar that is not full, for the refrigerator. */
  part: { size: JarSizeId; share: number } | null;
  /** Pints with the range they fall in eight times out of ten, the part-filled jar among them. */
  pints: Range;
  pack: PackForecast | null;
  /** Barrier acid as acetic in 100 g of what is in a jar; null where there is none. */
  acidIn100: { average_g: number; tightest_g: number } | null;
  /** What goes to other outlets. */
  outlets: { id: string; mass_g: number }[];
  faults: ForecastFault[];
}

/** What the kitchen brings to a forecast. */
export interface ForecastKitchen extends Figures, BalanceKitchen {}

const pintsMade = (of: Balance): number =>
  of.filling.pints + (of.filling.part ? of.filling.part.share * pintsIn(of.filling.part.size) : 0);
const pintsIn = (size: JarSizeId) => jarSize(size).pints.valueOf();

/**
 * What comes out of a recipe at a scale, with its range, and where its own figures do not agree.
 *
 * @param factor  scale of all pots together
 * @param wanted  size that is filled first, and the sizes the rest may go into
 * @throws RangeError for a line that cannot be weighed, or a ratio that cannot be reckoned
 */
export function forecast(
  recipe: Recipe,
  factor: Fraction,
  kitchen: ForecastKitchen,
  wanted: readonly JarSizeId[],
): Forecast {
  const process = plan(recipe, factor, asManyAsItFills(wanted), kitchen);
  const made = balance(process);
  const [pints] = spread(process, [pintsMade]) as [Range];
  const cooks = cooksOf(made, recipe, kitchen);
  const { vessels, ready, filling } = made;
  const mass = (id: Parameters<typeof vessels.get>[0]) => massIn(vessels.get(id) ?? new Map());
  const weakest = weakestJar(process, made);
  const pack = recipe.packing ? packOf(recipe, process, made, wanted) : null;
  const whole = made.cooks.filter(c => c.part === '');
  return {
    process,
    made,
    input_g: made.flows.reduce(
      (sum, f) =>
        f.from.startsWith('line:') && f.to !== 'trimmings' && f.to !== 'drain' && f.to !== 'jars'
          ? sum + massIn(f.contents)
          : sum,
      0,
    ),
    final_g: massOf(ready),
    waterOff_g: mass('steam'),
    solids_pct: brixOf(ready),
    volume_mL: massOf(ready) === 0 ? 0 : volume_mL(ready),
    cooks,
    minutes: cooks.reduce<number | null>(
      (sum, c) => (c.minutes === null ? sum : (sum ?? 0) + c.minutes),
      null,
    ),
    untimed: cooks.filter(c => c.minutes === null).length,
    byEye: !recipe.packing && (whole.length === 0 || whole.at(-1)?.judged === true),
    jars: made.jars.map(({ size, count }) => ({ size, count })),
    part: filling.part,
    pints,
    pack,
    acidIn100:
      weakest && weakest.average_g > 0 ? { average_g: weakest.average_g, tightest_g: weakest.in100_g } : null,
    outlets: recipe.outlets.map(o => ({ id: o.id, mass_g: mass(`outlet:${o.id}`) })),
    faults: [
      ...cookFaults(made, kitchen),
      ...(pack ? packFaults(pack) : []),
      ...jarFaults(recipe, made, pints, process.pints, kitchen),
    ],
  };
}

function cooksOf(made: Balance, recipe: Recipe, kitchen: ForecastKitchen): CookForecast[] {
  const water_C = boilingPoint_C(kitchen.altitude_m);
  const rate = kitchen.pot?.boilOff_gPerMin ?? 0;
  return made.cooks.map(c => {
    const target = recipe.steps.find(s => s.id === c.stepId)?.target ?? { kind: 'none' as const };
    const off_g = massOf(c.start) - massOf(c.end);
    const sucrose_g = asSucrose_g(c.end);
    const as_pct = sucrose_g === 0 ? 0 : (sucrose_g / (sucrose_g + c.end.water_g)) * 100;
    const boils_C =
      water_C + boilingRise_C(Math.min(90, as_pct), kitchen.altitude_m) + kitchen.thermometerError_C;
    return {
      stepId: c.stepId,
      part: c.part,
      start_g: massOf(c.start),
      end_g: massOf(c.end),
      waterOff_g: off_g,
      startSolids_pct: brixOf(c.start),
      endSolids_pct: brixOf(c.end),
      minutes:
        target.kind === 'time'
          ? target.minutes
          : rate > 0 && c.water_g !== null
            ? off_g / kitchen.pots / rate + (target.kind === 'temperature' ? target.hold_min : 0)
            : null,
      // It is heated no further than its target, and boils no cooler than what is in it.
      end_C: target.kind === 'temperature' && c.fault === null ? Math.min(target.temp_C, boils_C) : boils_C,
    };
  });
}
