/** Which reading counts as evidence of acidity. */

import { type Day, type Figures, numberText, PLAIN_FIGURES } from '../measure/index.ts';
import {
  COOLED_HOURS,
  EQUILIBRIUM_HOURS,
  OPENED_HOURS,
  PH_LIMIT,
  PH_PAPER_LIMIT,
  PH_UNCERTAINTY,
  REPLICATES_PH,
  SAMPLE_TEMP_C,
} from './limits.ts';
import {
  type Calibration,
  brackets,
  calibrationFaults,
  lowBuffer,
  RECHECK_PH,
  SAME_TEMP_C,
} from './meter.ts';

/** How a sample was made of a jar. */
export const SAMPLES = ['whole, blended', 'solids', 'brine'] as const;
/** How it was made ({@link SAMPLES}). */
export type Sample = (typeof SAMPLES)[number];

/** How fast acid is the same all through a product: pieces take their time, what is crushed a day, what is smooth only cools. */
export type Texture = 'pieces' | 'crushed' | 'smooth';

/** A pH as it was read, with all that decides whether it counts as evidence ({@link evidenceFaults}). */
export interface AcidityReading {
  /** Measured value, 0 to 14; the mean of the replicates where there are any. */
  ph: number;
  temp_C: number;
  /** As somebody reckoned them: a remark. What counts is reckoned from the record. */
  hoursSinceProcessing: number;
  method: 'meter' | 'laboratory' | 'paper';
  /** Buffers the meter was calibrated in that day. */
  buffers: number[];
  /** The laboratory's report, for its result. */
  reference: string;
  /** How the sample was made; null where nobody said. */
  sample: Sample | null;
  /** It was the tightest jar there was. */
  tightest: boolean;
  /** Single readings of the sample, where it was read several times. */
  replicates: number[];
  /** The laboratory's paper, by its hash; null for none. */
  paper: { paperId: string; sha256: string } | null;
  calibration: Calibration | null;
}

/** What the record knows of a reading beside what it says itself. */
export interface ReadWhen {
  /** Since the jar was lifted; null where it was read before that. */
  hours: number | null;
  /** The kitchen's day of the reading. */
  on: Day;
  /** The kitchen's day of an instant in ms. */
  dayOfInstant: (ms: number) => Day;
  texture: Texture;
  /** The buffer that was read again after it, and how far off it was; null while nobody did. */
  recheck_off: number | null;
  /** The jar was opened so many hours before; 0 for the first time. */
  opened_h: number;
}

/** A reading with its uncertainty, and what that is made of. */
export interface Uncertainty {
  /** Twice the root of the sum of squares, never under {@link PH_UNCERTAINTY}. */
  u_ph: number;
  buffers_ph: number;
  replicates_ph: number;
  resolution_ph: number;
}

/** What a technical buffer may be off, and what one sample differs from the next where it was read once. From memory. */
const BUFFER_PH = 0.02;
const ONCE_PH = 0.02;
/** Smallest step of a usual meter. */
const RESOLUTION_PH = 0.01;

/**
 * What a reading may be wrong by: twice the root of the sum of squares of what the buffers, the replicates and the meter's
 * smallest step bring.
 *
 * @source Rectangular limits over the root of three, a step over the root of twelve: JCGM 100 (GUM), 4.3.7 (from memory)
 * @example
 * uncertaintyOf({ replicates: [4.1, 4.12, 4.11], calibration: null }, 0.01).u_ph; // 0.05
 */
export function uncertaintyOf(
  { replicates, calibration }: Pick<AcidityReading, 'replicates' | 'calibration'>,
  recheck_off: number | null,
): Uncertainty {
  const n = replicates.length;
  const mean = replicates.reduce((a, b) => a + b, 0) / Math.max(1, n);
  const spread = Math.sqrt(replicates.reduce((sum, r) => sum + (r - mean) ** 2, 0) / Math.max(1, n - 1));
  const buffers_ph = Math.hypot(BUFFER_PH, recheck_off ?? 0) / Math.sqrt(3);
  const replicates_ph = n > 1 ? spread / Math.sqrt(n) : ONCE_PH;
  const resolution_ph = (calibration?.resolution_ph ?? RESOLUTION_PH) / Math.sqrt(12);
  return {
    u_ph: Math.max(PH_UNCERTAINTY, 2 * Math.hypot(buffers_ph, replicates_ph, resolution_ph)),
    buffers_ph,
    replicates_ph,
    resolution_ph,
  };
}

/**
 * The highest a reading says: its own figure, or the mean of its replicates where somebody typed another. Any replicate above
 * a limit is above it.
 */
export const readPh = ({ ph, replicates }: Pick<AcidityReading, 'ph' | 'replicates'>): number =>
  Math.max(ph, replicates.reduce((a, b) => a + b, 0) / Math.max(1, replicates.length));

/** Whether one figure of a reading lies above a limit. */
export const readAbove = (reading: Pick<AcidityReading, 'ph' | 'replicates'>, limit: number): boolean =>
  reading.ph > limit || reading.replicates.some(r => r > limit);

/**
 * Why a reading is no evidence of equilibrium acidity by itself; empty when it is. A reading above the limit stops a batch
 * whether or not it would count as evidence. That solids and brine agree, or two days, is asked of readings together.
 *
 * @param reading  one reading of a finished jar
 * @param when  what the record knows of it
 * @param figures  whose figures its sentences are written in
 * @example
 * const reading = { ph: 3.9, temp_C: 24, hoursSinceProcessing: 30, method: 'paper', buffers: [], reference: '', sample: null, tightest: false, replicates: [], paper: null, calibration: null };
 * evidenceFaults(reading, { hours: 3, on: '2026-01-02', dayOfInstant: () => '2026-01-02', texture: 'pieces', recheck_off: 0, opened_h: 0 }).length; // 1
 */
export function evidenceFaults(
  reading: AcidityReading,
  when: ReadWhen,
  figures: Figures = PLAIN_FIGURES,
): string[] {
  const n = (value: number, places?: number) => numberText(value, figures, places);
  const faults: string[] = [];
  const { hours, texture } = when;
  const least = texture === 'smooth' ? COOLED_HOURS : EQUILIBRIUM_HOURS;
  if (hours === null) faults.push('read before its jar was lifted: it says nothing of the finished jar');
  else if (hours < least)
    faults.push(
      texture === 'smooth'
        ? `read ${n(roundHours(hours))} h after processing; a smooth product is cool after ${n(least)} h`
        : `read ${n(roundHours(hours))} h after processing; equilibrium takes at least ${n(least)} h`,
    );
  if (when.opened_h > OPENED_HOURS)
    faults.push(`its jar had been opened ${n(Math.floor(when.opened_h))} h before`);
  const [lowest, highest] = [Math.min(...reading.replicates), Math.max(...reading.replicates)];
  if (reading.replicates.length > 1 && highest - lowest > REPLICATES_PH + 1e-9)
    faults.push(`its single readings differ by ${n(highest - lowest, 2)}; ${n(REPLICATES_PH)} is the most`);
  if (reading.method === 'meter') faults.push(...meterFaults(reading, when, figures));
  if (reading.method === 'paper' && readAbove(reading, PH_PAPER_LIMIT)) {
    faults.push(`paper is relied on only at ${n(PH_PAPER_LIMIT, 1)} or below`);
  }
  if (reading.method === 'laboratory' && reading.reference.trim() === '')
    faults.push('the laboratory report has no reference');
  if (reading.method === 'laboratory' && reading.paper === null)
    faults.push("the laboratory's paper is not attached");
  return faults;
}

/** What is asked of a meter: the temperature of the sample, its calibration of that day, and its buffer again at the end. */
function meterFaults(reading: AcidityReading, when: ReadWhen, figures: Figures): string[] {
  const n = (value: number, places?: number) => numberText(value, figures, places);
  const faults: string[] = [];
  const { calibration, temp_C } = reading;
  if (temp_C < SAMPLE_TEMP_C.min || temp_C > SAMPLE_TEMP_C.max)
    faults.push(
      `sample at ${n(temp_C)} °C; readings count between ${n(SAMPLE_TEMP_C.min)} and ${n(SAMPLE_TEMP_C.max)} °C`,
    );
  if (calibration === null) {
    faults.push(
      brackets(reading.buffers)
        ? 'how the meter was calibrated that day is not kept with it'
        : `the meter was not calibrated that day in buffers on both sides of ${n(PH_LIMIT)}`,
    );
    return faults;
  }
  faults.push(...calibrationFaults(calibration, when.on, when.dayOfInstant, figures).map(f => f.what));
  if (calibration.temp_C !== null && Math.abs(calibration.temp_C - temp_C) > SAME_TEMP_C)
    faults.push(
      `sample at ${n(temp_C)} °C and buffers at ${n(calibration.temp_C)} °C: ${n(SAME_TEMP_C)} °C apart is the most`,
    );
  if (when.recheck_off === null) faults.push('the buffer was not read again after it');
  else if (Math.abs(when.recheck_off) > RECHECK_PH + 1e-9)
    faults.push(
      `the buffer read ${n(lowBuffer(calibration) + when.recheck_off, 2)} again after it; within ${n(RECHECK_PH)} counts`,
    );
  return faults;
}

function roundHours(hours: number): number {
  return Math.floor(hours * 10) / 10;
}
