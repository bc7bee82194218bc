/** Limits of acidity, and which reading counts as evidence of it. */

import { type Figures, numberText, PLAIN_FIGURES } from '../measure/index.ts';

/** An acidified food's finished equilibrium pH must be 4.6 or below. Source: 21 CFR 114.3 and 114.80 (from memory). */
export const PH_LIMIT = 4.6;
/** Where careful producers act. Common practice. */
export const PH_ACT = 4.2;
/**
 * What a pH that was read may be wrong by at least, whatever the meter shows: above {@link PH_ACT} a reading counts with it.
 * Common practice of careful laboratories, from memory.
 */
export const PH_UNCERTAINTY = 0.05;
/** Dye and paper strips are relied on only at or below this. Source: 21 CFR 114.90 (from memory). */
export const PH_PAPER_LIMIT = 4.0;
/** Least hours between processing and a reading that counts as equilibrium. Common practice; whole pieces take longer. */
export const EQUILIBRIUM_HOURS = 24;
/** Temperature of sample and buffers. Source: 21 CFR 114.90 (from memory). */
export const SAMPLE_TEMP_C = { min: 20, max: 30 } as const;

/** A pH as it was read, with all that decides whether it counts as evidence ({@link evidenceFaults}). */
export interface AcidityReading {
  /** Measured value, 0 to 14. */
  ph: number;
  temp_C: number;
  /** As somebody reckoned them: a remark. What counts is reckoned from the record. */
  hoursSinceProcessing: number;
  method: 'meter' | 'laboratory' | 'paper';
  /** Buffers the meter was calibrated in that day. */
  buffers: number[];
  /** The laboratory's report, for its result. */
  reference: string;
}

/**
 * Why a reading is no evidence of equilibrium acidity; empty when it is. A reading above the limit stops a batch
 * whether or not it would count as evidence.
 *
 * @param reading  one reading of a finished jar
 * @param figures  whose figures its sentences are written in
 * @param hours  since the jar was lifted, by the record; null where it was read before that
 * @example
 * const reading = { ph: 3.9, temp_C: 24, hoursSinceProcessing: 30, method: 'meter', buffers: [4.01, 7], reference: '' };
 * evidenceFaults(reading, 3).length; // 1
 */
export function evidenceFaults(
  reading: AcidityReading,
  hours: number | null,
  figures: Figures = PLAIN_FIGURES,
): string[] {
  const n = (value: number, places?: number) => numberText(value, figures, places);
  const faults: string[] = [];
  if (hours === null) faults.push('read before its jar was lifted: it says nothing of the finished jar');
  else if (hours < EQUILIBRIUM_HOURS)
    faults.push(
      `read ${n(roundHours(hours))} h after processing; equilibrium takes at least ${n(EQUILIBRIUM_HOURS)} h`,
    );
  if (reading.method === 'meter') {
    if (reading.temp_C < SAMPLE_TEMP_C.min || reading.temp_C > SAMPLE_TEMP_C.max) {
      faults.push(
        `sample at ${n(reading.temp_C)} °C; readings count between ${n(SAMPLE_TEMP_C.min)} and ${n(SAMPLE_TEMP_C.max)} °C`,
      );
    }
    const low = reading.buffers.some(b => b < PH_LIMIT);
    const high = reading.buffers.some(b => b > PH_LIMIT);
    if (!low || !high)
      faults.push(`the meter was not calibrated that day in buffers on both sides of ${n(PH_LIMIT)}`);
  }
  if (reading.method === 'paper' && reading.ph > PH_PAPER_LIMIT) {
    faults.push(`paper is relied on only at ${n(PH_PAPER_LIMIT, 1)} or below`);
  }
  if (reading.method === 'laboratory' && reading.reference.trim() === '')
    faults.push('the laboratory report has no reference');
  return faults;
}

function roundHours(hours: number): number {
  return Math.floor(hours * 10) / 10;
}
