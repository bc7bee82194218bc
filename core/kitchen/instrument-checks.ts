import { type Calibration, type CalibrationFault, calibrationFaults, electrodeOf } from '../acid/index.ts';
import { boilingPoint_C } from '../heat/index.ts';
import { addDays, type Day, type Figures, numberText } from '../measure/index.ts';
import type { InstrumentKind } from './instruments.ts';
import { MOST_ERROR_C } from './thermometer.ts';

/** Instruments that are held against something known, each in its own way. */
export type CheckedKind = Exclude<InstrumentKind, 'label printer'>;
/** Every such kind, in the order in which they are offered. */
export const CHECKED_KINDS: readonly CheckedKind[] = ['ph meter', 'thermometer', 'scale', 'refractometer'];

/** What was read of something known. */
export type CheckBody =
  | { kind: 'ph meter'; calibration: Calibration }
  /** In ice and water, and in boiling water, as it showed. */
  | { kind: 'thermometer'; ice_C: number | null; boils_C: number }
  | { kind: 'scale'; known_g: number; shows_g: number }
  /** In plain water, which has no solids. */
  | { kind: 'refractometer'; water_pct: number };

/** An instrument of the kitchen, on a line or in a drawer. */
export interface KeptInstrument {
  id: string;
  kind: CheckedKind;
  name: string;
}

/** One entry of an instrument's log. */
export interface InstrumentCheck {
  id: string;
  instrument: KeptInstrument;
  at: string;
  personId: string;
  body: CheckBody;
}

/** The kitchen's jam thermometer, whose error goes into its gel point. */
export const JAM_THERMOMETER = 'jam-thermometer';

/**
 * Days for which a check stands. A meter is calibrated on each day on which it is read; the others are our choice, from no
 * source.
 */
const DAYS: { readonly [K in CheckedKind]: number } = {
  'ph meter': 0,
  thermometer: 30,
  scale: 30,
  refractometer: 30,
};

/** How far a scale may be off: 1 per cent, or a gram. Our choice: what a dose can bear. */
const SCALE = { share: 0.01, least_g: 1 } as const;
/** How far a refractometer may be off in water, in °Brix. Our choice: 65 % is then read within what 64 and 66 are. */
const WATER_PCT = 0.5;

/** What a check says. */
export interface CheckVerdict {
  /** It serves. */
  good: boolean;
  /** How far it was off, in its own unit; null of a meter, whose slope says it. */
  off: number | null;
  /** What was found, in a sentence. */
  what: string;
  /** What to do, where it does not serve; else empty. */
  next: string;
}

/**
 * What a check found.
 *
 * @param place  where water boils at its own temperature
 * @example
 * checkVerdict({ kind: 'scale', known_g: 500, shows_g: 503 }, { altitude_m: 0, locale: 'en-US' }, '2026-01-02', () => '2026-01-02').good; // true
 */
export function checkVerdict(
  body: CheckBody,
  place: Figures & { altitude_m: number },
  on: Day,
  dayOfInstant: (ms: number) => Day,
): CheckVerdict {
  const n = (value: number, places = 1) => numberText(value, place, places);
  switch (body.kind) {
    case 'ph meter': {
      const faults = calibrationFaults(body.calibration, on, dayOfInstant, place);
      const { slope_pct } = body.calibration;
      return {
        good: faults.length === 0,
        off: null,
        what:
          faults.length === 0
            ? `${body.calibration.points.map(p => n(p.ph, 2)).join(', ')}${slope_pct === null ? '' : `; slope ${n(slope_pct)} %`}`
            : `It supports no release: ${faults.map(f => f.what).join('; ')}.`,
        next: faults.map((f: CalibrationFault) => f.next).join(' '),
      };
    }
    case 'thermometer': {
      const off = body.boils_C - boilingPoint_C(place.altitude_m);
      const good = Math.abs(off) <= MOST_ERROR_C && Math.abs(body.ice_C ?? 0) <= MOST_ERROR_C;
      return {
        good,
        off,
        what: `${n(off)} °C off in boiling water${body.ice_C === null ? '' : `, ${n(body.ice_C)} °C in ice`}`,
        next: good ? '' : 'Replace it.',
      };
    }
    case 'scale': {
      const off = body.shows_g - body.known_g;
      const good = Math.abs(off) <= Math.max(SCALE.least_g, body.known_g * SCALE.share) + 1e-9;
      return {
        good,
        off,
        what: `${numberText(off, place)} g off at ${numberText(body.known_g, place)} g`,
        next: good ? '' : 'Level it, set it to zero, change its battery and weigh again; else take another.',
      };
    }
    case 'refractometer': {
      const good = Math.abs(body.water_pct) <= WATER_PCT + 1e-9;
      return {
        good,
        off: body.water_pct,
        what: `${n(body.water_pct)} °Brix in water`,
        next: good ? '' : 'Set it to zero in water at room temperature, and look again.',
      };
    }
  }
}

/** The day from which an instrument is due again; null where it is due at once, for it was never checked or did not serve. */
export function dueAgain(kind: CheckedKind, last: { on: Day; good: boolean } | null): Day | null {
  return last?.good ? addDays(last.on, Math.max(1, DAYS[kind])) : null;
}

/**
 * A calibration as it is kept: slope and offset are reckoned where the meter shows millivolts, whatever was typed beside.
 *
 * @example
 * const points = [{ ph: 4.01, mV: 177 }, { ph: 7, mV: 0 }];
 * calibrated({ at: '2026-01-02T09:00:00.000Z', slope_pct: null, recheck_ph: null, temp_C: 25, offset_mV: null, points, buffersOpenedOn: null, electrodeSince: null, resolution_ph: 0.01 }).slope_pct; // 99.9
 */
export function calibrated(typed: Calibration): Calibration {
  const electrode = typed.temp_C === null ? null : electrodeOf(typed.points, typed.temp_C);
  if (!electrode) return typed;
  // Of nothing there is no less: -0 reads as 0.
  const round = (value: number) => Math.round(value * 100) / 100 || 0;
  return { ...typed, slope_pct: round(electrode.slope_pct), offset_mV: round(electrode.offset_mV) };
}
