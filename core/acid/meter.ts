/** What a pH meter's calibration is worth: the slope of its electrode, its offset, and the age of what it was done with. */

import {
  type Day,
  addDays,
  type Fault,
  type Figures,
  instantMs,
  numberText,
  PLAIN_FIGURES,
} from '../measure/index.ts';
import { BUFFER_STEP_C, BUFFERS } from './data/buffers.ts';
import { PH_LIMIT, SAMPLE_TEMP_C } from './limits.ts';

/** One buffer of a calibration: the buffer by its name, and what the electrode gave in it; null where the meter does not show it. */
export interface BufferPoint {
  ph: number;
  mV: number | null;
}

/** How the instrument of a reading was calibrated, as far as it is known. */
export interface Calibration {
  /** When, ISO 8601. */
  at: string;
  /** Per cent of the slope theory gives. */
  slope_pct: number | null;
  /** What the 4.01 buffer read when it was read again right after. */
  recheck_ph: number | null;
  /** Of the buffers and the electrode in them; null where nobody said. */
  temp_C: number | null;
  /** What the electrode gives at pH 7, which would be nothing if it were perfect. */
  offset_mV: number | null;
  /** Buffers by their names, with what the electrode gave; empty where only their names were kept. */
  points: BufferPoint[];
  buffersOpenedOn: Day | null;
  electrodeSince: Day | null;
  /** Smallest step the meter shows. */
  resolution_ph: number | null;
}

/** Slope an electrode keeps in use, per cent of theory. Usual instructions of electrodes (from memory). */
export const SLOPE_PCT = { min: 92, max: 103 } as const;
/** What no electrode shows: the buffers were swapped, or one figure was mistyped. Our choice. */
const SLOPE_POSSIBLE_PCT = { min: 50, max: 115 } as const;
/** Most an electrode gives at pH 7. Usual instructions of electrodes (from memory). */
export const OFFSET_MV = 30;
/** Days an opened buffer serves. Usual instructions of buffers: three months (from memory). */
export const BUFFER_DAYS = 90;
/** Days after which an electrode is old. Common practice: one to two years. */
export const ELECTRODE_DAYS = 730;
/** How far the buffer that is read again may be off. */
export const RECHECK_PH = 0.05;
/** How far the sample may be warmer or colder than the buffers: the slope errs by under 2 per cent. Our choice. */
export const SAME_TEMP_C = 5;

const GAS_JPerMolK = 8.314462618;
const FARADAY_CPerMol = 96_485.33212;

/**
 * Millivolts that theory gives for a pH.
 *
 * @source The Nernst equation with the SI's exact constants: 59.16 mV at 25 °C
 * @example
 * nernst_mV(25).toFixed(2); // '59.16'
 */
export function nernst_mV(temp_C: number): number {
  return ((Math.LN10 * GAS_JPerMolK * (temp_C + 273.15)) / FARADAY_CPerMol) * 1000;
}

/** Buffers by their names, as they are offered. */
export const BUFFER_NAMES: readonly number[] = BUFFERS.map(b => b.name_ph);

/**
 * A buffer's pH at a temperature, between the figures of its table by straight lines.
 *
 * @param name_ph  its pH at 25 °C, by which it is called
 * @returns its own name where it is none of those known here, or outside 0 to 40 °C
 * @example
 * bufferAt(4.01, 25); // 4.005
 */
export function bufferAt(name_ph: number, temp_C: number): number {
  const table = BUFFERS.find(b => Math.abs(b.name_ph - name_ph) < 1e-6)?.ph;
  const at = temp_C / BUFFER_STEP_C;
  const low = table?.[Math.floor(at)];
  if (low === undefined) return name_ph;
  const high = table?.[Math.floor(at) + 1] ?? low;
  return at > (table?.length ?? 0) - 1 ? name_ph : low + (high - low) * (at - Math.floor(at));
}

/** Slope and offset of an electrode. */
export interface Electrode {
  slope_pct: number;
  slope_mVPerPh: number;
  offset_mV: number;
}

/**
 * The electrode that two or three buffers show: the straight line through them, by least squares.
 *
 * @param points  buffers with what the electrode gave in them
 * @param temp_C  of the buffers
 * @returns null where fewer than two say what it gave, or both are the same
 * @example
 * electrodeOf([{ ph: 4.01, mV: 177 }, { ph: 7, mV: 0 }], 25)?.slope_pct.toFixed(0); // '100'
 */
export function electrodeOf(points: readonly BufferPoint[], temp_C: number): Electrode | null {
  const known = points.flatMap(p => (p.mV === null ? [] : [{ x: bufferAt(p.ph, temp_C), y: p.mV }]));
  if (known.length < 2) return null;
  const mean = (of: (p: { x: number; y: number }) => number) =>
    known.reduce((sum, p) => sum + of(p), 0) / known.length;
  const [x, y] = [mean(p => p.x), mean(p => p.y)];
  const wide = known.reduce((sum, p) => sum + (p.x - x) ** 2, 0);
  if (wide < 0.01) return null;
  // An electrode gives less the less acid there is: its slope is counted downwards.
  const slope_mVPerPh = -known.reduce((sum, p) => sum + (p.x - x) * (p.y - y), 0) / wide;
  return {
    slope_mVPerPh,
    slope_pct: (slope_mVPerPh / nernst_mV(temp_C)) * 100,
    offset_mV: y + slope_mVPerPh * (x - 7),
  };
}

/** What is wrong with a calibration as it is entered, by its field: nothing that has these is kept. */
export function calibrationTyped(
  of: Pick<Calibration, 'points' | 'temp_C' | 'slope_pct'>,
  figures: Figures = PLAIN_FIGURES,
): Fault[] {
  const n = (value: number, places = 2) => numberText(value, figures, places);
  const faults: Fault[] = [];
  const add = (path: string, code: string, what: string, why: string, next: string) =>
    faults.push({ path, code, what, why, next });
  const names = of.points.map(p => p.ph);
  const twice = names.findIndex((ph, i) => names.some((other, k) => k < i && Math.abs(other - ph) < 0.5));
  if (twice >= 0)
    add(
      `points.${twice}.ph`,
      'same-buffer',
      'Two of the buffers are the same.',
      'A slope is read between two that differ.',
      'Enter the buffers that were used.',
    );
  else if (!brackets(names))
    add(
      `points.${Math.max(0, names.length - 1)}.ph`,
      'no-bracket',
      `The buffers do not stand on both sides of ${n(PH_LIMIT)}.`,
      `The limit is ${n(PH_LIMIT)}: what lies outside its buffers is only guessed.`,
      'Calibrate in 4.01 and 7 (or 6.86).',
    );
  if (of.temp_C === null)
    add(
      'temp_C',
      'no-temperature',
      'The temperature of the buffers is missing.',
      'Slope and buffers hang on it.',
      'Enter it.',
    );
  const electrode = of.temp_C === null || twice >= 0 ? null : electrodeOf(of.points, of.temp_C);
  if (electrode && electrode.slope_pct < 0)
    add(
      'points.0.mV',
      'swapped',
      'The millivolts rise with the pH.',
      'An electrode gives less the less acid a buffer is: the two were swapped.',
      'Enter each figure beside its own buffer.',
    );
  else {
    const slope = electrode?.slope_pct ?? of.slope_pct;
    if (slope !== null && (slope < SLOPE_POSSIBLE_PCT.min || slope > SLOPE_POSSIBLE_PCT.max))
      add(
        electrode ? 'points.0.mV' : 'slope_pct',
        'impossible-slope',
        `A slope of ${n(slope, 0)} % is not one of a pH electrode.`,
        `In use it lies between ${SLOPE_PCT.min} and ${SLOPE_PCT.max} % of theory.`,
        'Look whether a buffer was swapped or a figure mistyped.',
      );
  }
  return faults;
}

/** Whether buffers stand on both sides of the limit; one that is the limit itself brackets nothing. */
export const brackets = (names: readonly number[]): boolean =>
  names.some(b => b < PH_LIMIT) && names.some(b => b > PH_LIMIT);

/** What a calibration lacks to support a release, each with what to do. */
export interface CalibrationFault {
  what: string;
  next: string;
}

/**
 * Why a calibration supports no release on a day; empty where it does.
 *
 * @param on  the day of the reading
 * @param dayOfInstant  the kitchen's day of an instant in ms
 * @example
 * const calibration = { at: '2026-11-20T09:00:00.000Z', slope_pct: 80, recheck_ph: null, temp_C: 25, offset_mV: 3, points: [{ ph: 4.01, mV: null }, { ph: 7, mV: null }], buffersOpenedOn: null, electrodeSince: null, resolution_ph: 0.01 };
 * calibrationFaults(calibration, '2026-11-20', () => '2026-11-20').length; // 1
 */
export function calibrationFaults(
  calibration: Calibration,
  on: Day,
  dayOfInstant: (ms: number) => Day,
  figures: Figures = PLAIN_FIGURES,
): CalibrationFault[] {
  const { slope_pct, offset_mV, temp_C, points, buffersOpenedOn, recheck_ph } = calibration;
  const n = (value: number, places = 2) => numberText(value, figures, places);
  const faults: CalibrationFault[] = [];
  const add = (what: string, next: string) => faults.push({ what, next });
  if (dayOfInstant(instantMs(calibration.at)) !== on)
    add('the meter was not calibrated that day', 'Calibrate it, then read.');
  if (!brackets(points.map(p => p.ph)))
    add(
      `the meter was not calibrated that day in buffers on both sides of ${n(PH_LIMIT)}`,
      'Calibrate in 4.01 and 7 (or 6.86).',
    );
  if (temp_C !== null && (temp_C < SAMPLE_TEMP_C.min || temp_C > SAMPLE_TEMP_C.max))
    add(
      `the buffers stood at ${n(temp_C, 1)} °C, outside ${SAMPLE_TEMP_C.min} to ${SAMPLE_TEMP_C.max} °C`,
      'Bring buffers and sample to room temperature, and calibrate again.',
    );
  if (slope_pct !== null && (slope_pct < SLOPE_PCT.min || slope_pct > SLOPE_PCT.max))
    add(
      `the slope of ${n(slope_pct, 1)} % lies outside ${SLOPE_PCT.min} to ${SLOPE_PCT.max} %`,
      'Clean the electrode, soak it in its storage solution, take fresh buffers, and calibrate again; replace it if that does not help.',
    );
  if (
    slope_pct === null &&
    (recheck_ph === null || Math.abs(recheck_ph - lowBuffer(calibration)) > RECHECK_PH + 1e-9)
  )
    add(
      recheck_ph === null
        ? 'a meter that shows no slope has to read its 4.01 buffer again'
        : `the 4.01 buffer read ${n(recheck_ph)} again`,
      `Read it once more: within ${n(RECHECK_PH)} it counts; otherwise calibrate anew.`,
    );
  if (offset_mV !== null && Math.abs(offset_mV) > OFFSET_MV)
    add(
      `the electrode gives ${n(offset_mV, 0)} mV at pH 7; ${OFFSET_MV} are the most`,
      'Clean the electrode and calibrate again; replace it if that does not help.',
    );
  if (buffersOpenedOn !== null && addDays(buffersOpenedOn, BUFFER_DAYS) < on)
    add(`the buffers were opened over ${BUFFER_DAYS} days before`, 'Open fresh buffers and calibrate again.');
  return faults;
}

/** What the buffer below the limit is at the temperature of the calibration. */
export function lowBuffer({ points, temp_C }: Pick<Calibration, 'points' | 'temp_C'>): number {
  const below = points.map(p => p.ph).filter(ph => ph < PH_LIMIT);
  return bufferAt(below.length === 0 ? 4.01 : Math.max(...below), temp_C ?? 25);
}

/** What is good to know of a calibration that supports a release all the same. */
export function calibrationRemarks(
  { electrodeSince }: Pick<Calibration, 'electrodeSince'>,
  on: Day,
): string[] {
  return electrodeSince !== null && addDays(electrodeSince, ELECTRODE_DAYS) < on
    ? ['The electrode is over two years old: watch its slope, and have a spare.']
    : [];
}

/** A calibration that says only what its shape has to: of an entry before all of it was kept. */
export const bareCalibration = (of: Partial<Calibration> & Pick<Calibration, 'at'>): Calibration => ({
  slope_pct: null,
  recheck_ph: null,
  temp_C: null,
  offset_mV: null,
  points: [],
  buffersOpenedOn: null,
  electrodeSince: null,
  resolution_ph: null,
  ...of,
});
