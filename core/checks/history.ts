import {
  type BatchState,
  type JarFault,
  lineMasses,
  type LoadPhase,
  observed,
  type Purpose,
} from '../batches/index.ts';
import { readPh, uncertaintyOf } from '../acid/index.ts';
import type { FoodClass } from '../recipes/index.ts';
import { balance, density_gPerMl, together } from '../balance/index.ts';
import { acidityOf } from './acidity.ts';
import { type DeviationRecord, deviationRecords } from './deviations.ts';
import { learnedOf } from './learned.ts';
import { type NetsOfSize, netsBySize } from './nets.ts';
import { type SealCount, sealCounts } from './seals.ts';

/** What was checked of one batch, as charts and lists over years need it: derived from its entries like its summary. */
export interface CheckedBatch {
  recipeId: string;
  name: string;
  lotCode: string;
  madeOn: string;
  purpose: Purpose;
  foodClass: FoodClass;
  phLimit: number;
  phAct: number;
  phForecast: { low: number; mid: number; high: number } | null;
  readings: {
    at_ms: number;
    jar: number;
    ph: number;
    u_ph: number;
    counts: boolean;
    /** When the meter was calibrated for it; null for paper, a laboratory, and before that was kept. */
    calibratedAt: string | null;
  }[];
  loads: {
    number: number;
    canner: string;
    phase: LoadPhase;
    required_s: number | null;
    time_s: number | null;
  }[];
  seals: SealCount[];
  /** Weighed jars beside what is declared of them. */
  nets: NetsOfSize[];
  /** What was seen in the jars, each with how many. */
  found: { fault: JarFault; jars: number }[];
  deviations: DeviationRecord[];
}

/**
 * Grams in a millilitre of what is in the jars, cold, by the balance of what went in; of water where nothing is known. It is what
 * a declaration by volume is weighed by.
 */
export function densityOf(state: BatchState): number {
  const made = balance(observed(state, lineMasses(state)));
  const [jar] = made.jars;
  return jar ? density_gPerMl(together(jar.each)) : 1;
}

/** What was checked of a started batch. */
export function checkedOf(state: BatchState): CheckedBatch {
  const { started } = state;
  if (!started) throw new RangeError('checkedOf: the batch has not been started');
  const counting = new Set(acidityOf(state).counting.map(r => r.by.eventId));
  return {
    recipeId: started.recipeId,
    name: started.recipe.name,
    lotCode: started.lotCode,
    madeOn: started.madeOn,
    purpose: started.purpose,
    foodClass: started.recipe.foodClass,
    phLimit: started.phLimit,
    phAct: started.phAct,
    phForecast: started.phForecast,
    readings: state.readings.map(r => ({
      at_ms: r.by.at_ms,
      jar: r.jar,
      ph: readPh(r),
      u_ph: uncertaintyOf(r, r.recheck_off).u_ph,
      counts: counting.has(r.by.eventId),
      calibratedAt: r.calibration?.at ?? null,
    })),
    loads: state.loads.map(l => ({
      number: l.number,
      canner: started.equipment.canners.find(c => c.id === l.cannerId)?.name ?? '',
      phase: l.phase,
      required_s: l.required_s,
      time_s: l.time_s,
    })),
    seals: sealCounts(state),
    nets: netsBySize(state, densityOf(state)),
    found: learnedOf(state).found,
    deviations: deviationRecords(state),
  };
}
