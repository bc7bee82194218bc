import { GEL_RISE_C, INVERTED, boilingPoint_C, waterAtRise_g } from '../heat/index.ts';
import type { Step } from '../recipes/index.ts';
import { BOIL_OFF } from './data/yields.ts';
import { type Parts, massOf, solubleOf } from './parts.ts';
import type { Process } from './process.ts';
import { density_gPerMl, brixOf, volume_mL } from './volume.ts';

/** Why the end of a cook step cannot be what it says; figures are given, words are made where they are read. */
export interface CookFault {
  stepId: string | null;
  code: 'nothing dissolved' | 'past target' | 'more than there is' | 'less than is dissolved';
  /** What the target asks for, and what there is: °Brix, or millilitres. */
  asked: number;
  there: number;
  target: Step['target']['kind'];
}

/** How a cook step ends. */
export interface CookEnd {
  /** Grams of water that are left; null where nothing foretells it. */
  water_g: number | null;
  /** Its end is judged by eye. */
  judged: boolean;
  fault: Omit<CookFault, 'stepId'> | null;
}

/** How far above boiling water a step is cooked; null where it has no such target. */
function riseOf_C(step: Step, kitchen: Process['kitchen']): number | null {
  if (step.target.kind === 'gel point') return GEL_RISE_C;
  if (step.target.kind !== 'temperature') return null;
  return step.target.temp_C - kitchen.thermometerError_C - boilingPoint_C(kitchen.altitude_m);
}

/**
 * Where a cook step ends: at the water that its temperature, its volume or its time leaves. Nothing but water goes.
 *
 * @param measured  what is measured right after it
 */
export function cookEnd(
  step: Step,
  start: Parts,
  process: Process,
  measured: { quantity: number; unit: 'g' | 'mL' } | null,
  value: (id: string, otherwise: number) => number,
): CookEnd {
  const { kitchen } = process;
  const { target } = step;
  const dry_g = massOf(start) - start.water_g;
  const end = (water_g: number): CookEnd => ({ water_g, judged: false, fault: null });
  const fails = (fault: Omit<CookFault, 'stepId' | 'target'>): CookEnd => ({
    water_g: null,
    judged: false,
    fault: { ...fault, target: target.kind },
  });
  const toVolume = (mL: number): CookEnd => {
    let water_g = start.water_g;
    for (let i = 0; i < 30; i++) water_g = Math.max(0, mL * density_gPerMl({ ...start, water_g }) - dry_g);
    const there = volume_mL(start);
    if (mL > there * (1 + 1e-6)) return fails({ code: 'more than there is', asked: mL, there });
    const thickest = volume_mL({ ...start, water_g: solubleOf(start) / 19 });
    if (mL < thickest) return fails({ code: 'less than is dissolved', asked: mL, there: thickest });
    return end(water_g);
  };
  const rise = riseOf_C(step, kitchen);
  if (rise !== null) {
    if (rise <= 0) return end(start.water_g);
    if (solubleOf(start) < massOf(start) * 1e-6)
      return fails({ code: 'nothing dissolved', asked: 0, there: 0 });
    const water_g = waterAtRise_g(start, rise, kitchen.altitude_m, value('inverted', INVERTED.mid));
    if (water_g > start.water_g * (1 + 1e-6))
      return fails({
        code: 'past target',
        asked: brixOf({ ...start, water_g }),
        there: brixOf(start),
      });
    return end(water_g);
  }
  switch (target.kind) {
    case 'volume':
      return toVolume(target.volume_mL * kitchen.pots);
    case 'reduced':
      return toVolume(volume_mL(start) * (1 - target.by));
    case 'depth':
      if (kitchen.mLPerMm !== null) return toVolume(target.depth_mm * kitchen.mLPerMm * kitchen.pots);
      break;
    case 'time':
      if (kitchen.boilOff_gPerMin !== null) {
        const off_g =
          kitchen.boilOff_gPerMin * target.minutes * kitchen.pots * value('boil off', BOIL_OFF.share);
        // To the last drop it would burn.
        return end(Math.max(Math.min(start.water_g, dry_g * 0.05), start.water_g - off_g));
      }
      break;
    default:
  }
  if (measured) {
    const mL = measured.unit === 'mL' ? measured.quantity : null;
    const water_g = mL === null ? Math.max(0, measured.quantity - dry_g) : toVolume(mL).water_g;
    if (water_g !== null && water_g <= start.water_g) return end(water_g);
  }
  return { water_g: null, judged: target.kind !== 'time' && target.kind !== 'depth', fault: null };
}
