import { brixOf, heated, type PotOnFire } from './pot.ts';

/** What an instrument shows at a moment. */
export interface Shown {
  value: number;
  /** It has come to rest: what it shows may be written down. */
  steady: boolean;
}

/** A simulated instrument: it lives by seconds, and shows something when it is asked. */
export interface Instrument {
  id: string;
  kind: 'thermometer' | 'scale' | 'refractometer' | 'ph meter' | 'label printer';
  name: string;
  unit: 'C' | 'g' | 'Brix' | 'pH' | 'labels';
  /** When it was last held against something known, and by how much it was off; null where never. */
  calibrated: { at: string; off: number } | null;
  /** Of a printer that prints dot by dot. */
  head?: { dots_per_mm: number; across: number };
  tick: (seconds: number) => void;
  show: () => Shown;
  /** Something is made to happen; false where it knows no such scene. */
  scene: (name: string, figure: number) => boolean;
  /** Answers a word that only this one knows; null for none of its own. */
  obey?: (line: string) => string | null;
}

/** Noise that is the same for the same seed: a stand-in is tested, too. */
export function noise(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) >>> 0;
    return state / 2 ** 31 - 1;
  };
}

/** A pot on a burner and the probe in it; the refractometer looks into the same pot. */
export class Stove {
  pot: PotOnFire;
  private readonly full_W: number;
  constructor(readonly boils_C: number) {
    this.full_W = 1800;
    this.pot = {
      water_g: 2200,
      solids_g: 1700,
      temp_C: 21,
      power_W: 0,
      loss_WPerK: 2.2,
      boils_C,
      steam_g: 0,
      in_J: 0,
      lost_J: 0,
    };
  }
  tick(seconds: number): void {
    this.pot = heated(this.pot, seconds);
  }
  fire(share: number): void {
    this.pot = { ...this.pot, power_W: this.full_W * share };
  }
  fill(water_g: number, solids_g: number): void {
    this.pot = { ...this.pot, water_g, solids_g, temp_C: 21 };
  }
}

/** How fast a probe follows what it is in, in seconds. */
const PROBE_LAG_S = 4;

export function thermometer(stove: Stove, error_C = 0.4): Instrument {
  const shake = noise(7);
  let shown = stove.pot.temp_C;
  let last = shown;
  let bottom_C = 0;
  /** Seconds of a boil after which its fire goes out; null where it burns on. */
  let out_s: number | null = null;
  return {
    id: 'probe-1',
    kind: 'thermometer',
    name: 'Probe in the pot',
    unit: 'C',
    calibrated: { at: '2026-11-01T09:00:00.000Z', off: error_C },
    tick(seconds) {
      if (out_s !== null && stove.pot.temp_C >= stove.boils_C) out_s -= seconds;
      if (out_s !== null && out_s <= 0) {
        stove.fire(0);
        out_s = null;
      }
      last = shown;
      const goal = stove.pot.temp_C + error_C + bottom_C;
      shown += (goal - shown) * (1 - Math.exp(-seconds / PROBE_LAG_S));
    },
    show: () => ({ value: shown + shake() * 0.05, steady: Math.abs(shown - last) < 0.05 }),
    scene(name, figure) {
      if (name === 'fire') stove.fire(Math.min(1, Math.max(0, figure)));
      // Pressed against the bottom it reads the metal, not the food.
      else if (name === 'bottom') bottom_C = figure;
      else if (name === 'lost') out_s = figure * 60;
      else return false;
      return true;
    },
  };
}

export function scale(): Instrument {
  const shake = noise(11);
  let on_g = 0;
  let shown = 0;
  let creep_gPerS = 0;
  return {
    id: 'scale-1',
    kind: 'scale',
    name: 'Kitchen scale',
    unit: 'g',
    calibrated: null,
    tick(seconds) {
      on_g += creep_gPerS * seconds;
      shown += (on_g - shown) * (1 - Math.exp(-seconds / 0.6));
    },
    // It shows whole grams, and swings until it has settled.
    show: () => {
      const swings = Math.abs(on_g - shown);
      return { value: Math.round(shown + shake() * (swings > 1 ? 3 : 0.3)), steady: swings < 0.5 };
    },
    scene(name, figure) {
      if (name === 'load') on_g = Math.max(0, figure);
      else if (name === 'add') on_g += figure;
      else if (name === 'creep') creep_gPerS = figure;
      else return false;
      return true;
    },
  };
}

export function refractometer(stove: Stove): Instrument {
  const shake = noise(13);
  return {
    id: 'refractometer-1',
    kind: 'refractometer',
    name: 'Refractometer',
    unit: 'Brix',
    calibrated: { at: '2026-11-01T09:00:00.000Z', off: 0 },
    tick: () => undefined,
    show: () => ({ value: Math.min(90, brixOf(stove.pot) + shake() * 0.2), steady: true }),
    scene: () => false,
  };
}

export function phMeter(): Instrument {
  const shake = noise(17);
  let goal = 7;
  let shown = 7;
  let drift_perS = 0;
  return {
    id: 'ph-1',
    kind: 'ph meter',
    name: 'pH meter',
    unit: 'pH',
    calibrated: { at: '2026-11-01T09:00:00.000Z', off: 0 },
    tick(seconds) {
      goal += drift_perS * seconds;
      shown += (goal - shown) * (1 - Math.exp(-seconds / 8));
    },
    show: () => ({ value: shown + shake() * 0.01, steady: Math.abs(goal - shown) < 0.02 }),
    scene(name, figure) {
      if (name === 'sample') goal = Math.min(14, Math.max(0, figure));
      else if (name === 'drift') drift_perS = figure;
      else return false;
      return true;
    },
  };
}
