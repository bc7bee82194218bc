import { type Instrument, refractometer, scale, Stove, thermometer } from './instruments.ts';
import { heated, type PotOnFire } from './pot.ts';

/** What can be made to go wrong while something is cooked dry. */
export const SCENES = [
  'boil lost',
  'low water',
  'probe on the bottom',
  'scale creeping',
  'rubbish on the line',
] as const;
/** What goes wrong ({@link SCENES}). */
export type Scene = (typeof SCENES)[number];

/** Something that went wrong, in seconds since the beginning; `to_s` is null while nobody put it right. */
export interface Happened {
  scene: Scene;
  from_s: number;
  to_s: number | null;
}

/** How pot and canner really stood at a moment, whatever anybody wrote down. */
export interface Sight {
  at_s: number;
  pot_C: number;
  /** The canner stood at a full boil, with its water over the lids. */
  boiling: boolean;
}

const ROOM_C = 21;
/** Burners of a home kitchen: what reaches the food, and the big one under the canner. Our choice. */
const POT_W = 1800;
const CANNER_W = 3500;
/** Water of a canner that is filled for pints, and how warm it stands ready for a hot pack. Our choice. */
const CANNER_G = 14_000;
const CANNER_BEGINS_C = 60;
/** A full boil is no nearer than this below the boil. Our choice: bubbles of a simmer begin there. */
const FULL_WITHIN_C = 0.15;
/** What each jar that goes in takes from the canner, in kelvin. Our choice. */
const JAR_COOLS_C = 0.6;
/** The boil is lost in the sixth minute, the water sinks in the fourth. */
const LOST_AFTER_S = 6 * 60;
const LOW_AFTER_S = 4 * 60;
const COVER_MM = 30;
const LOW_MM = -5;
const ON_BOTTOM_C = 5;
const CREEP_GPERS = 0.5;
/** What was sighted is kept anew after so long, or when it changed by so much. */
const SIGHT = { every_s: 60, change_C: 0.25 } as const;
/** Longest stretch that is lived through at once: nothing that goes wrong is stepped over. */
const STEP_S = 5;

/**
 * A kitchen in which something is cooked dry: a pot on its burner with a probe and a refractometer in it, a scale, and a
 * canner, all by the physics of the stand-ins. It lives by the seconds it is given, and makes one thing go wrong.
 */
export class DryKitchen {
  readonly stove: Stove;
  readonly probe: Instrument;
  readonly scale: Instrument;
  readonly refractometer: Instrument;
  time_s = 0;
  happened: Happened[] = [];
  sights: Sight[] = [];
  private canner: PotOnFire;
  private cannerFlame = 0;
  private cover_mm = COVER_MM;
  /** Seconds of a full boil since a load went in; null while none is in. */
  private boiled_s: number | null = null;
  private potFlame = 0;
  private weighs_g = 0;

  constructor(
    readonly boils_C: number,
    thermometerOff_C: number,
    readonly scene: Scene | null,
  ) {
    this.stove = new Stove(boils_C);
    this.stove.fill(2000, 0);
    this.probe = thermometer(this.stove, thermometerOff_C);
    this.scale = scale();
    this.refractometer = refractometer(this.stove);
    this.canner = {
      water_g: CANNER_G,
      solids_g: 0,
      temp_C: CANNER_BEGINS_C,
      power_W: 0,
      loss_WPerK: 6,
      boils_C,
      steam_g: 0,
      in_J: 0,
      lost_J: 0,
    };
  }

  /** How the two burners stand, the canner's water and heat, and what really lies on the scale. */
  see() {
    return {
      potFlame: this.potFlame,
      pot_C: this.stove.pot.temp_C,
      potBoils: this.potFlame > 0 && this.stove.pot.temp_C >= this.boils_C - FULL_WITHIN_C,
      cannerFlame: this.cannerFlame,
      canner_C: this.canner.temp_C,
      cannerBoils: this.fullBoil(),
      cover_mm: this.cover_mm,
      loaded: this.boiled_s !== null,
      weighs_g: this.weighs_g,
      rubbish: this.goesOn('rubbish on the line'),
    };
  }

  /** What the pot holds is now this much; what came to it comes from the room. */
  put(water_g: number, solids_g: number): void {
    const { pot } = this.stove;
    const had_g = pot.water_g + pot.solids_g;
    const has_g = water_g + solids_g;
    const kept = Math.min(1, had_g / Math.max(has_g, 1));
    const temp_C = pot.temp_C * kept + ROOM_C * (1 - kept);
    this.stove.pot = { ...pot, water_g, solids_g, temp_C };
  }

  /** The burner under the pot, 0 for off to 1. */
  fire(share: number): void {
    this.potFlame = share;
    this.stove.pot = { ...this.stove.pot, power_W: POT_W * share };
  }

  /** The burner under the canner. */
  cannerFire(share: number): void {
    this.cannerFlame = share;
    this.canner = { ...this.canner, power_W: CANNER_W * share };
  }

  /** Jars go in, and cool it; or, with none, the last ones came out. */
  load(jars: number): void {
    this.boiled_s = jars > 0 ? 0 : null;
    this.canner = { ...this.canner, temp_C: this.canner.temp_C - jars * JAR_COOLS_C };
  }

  /** Boiling water is poured in, until it stands over the lids again. */
  pour(): void {
    this.cover_mm = COVER_MM;
    this.ends('low water');
  }

  /** The probe is lifted off the bottom. */
  liftProbe(): void {
    this.probe.scene('bottom', 0);
    this.ends('probe on the bottom');
  }

  /** Its plug is pulled and put in again. */
  plug(): void {
    this.ends('rubbish on the line');
  }

  /** So much more lies on the scale; nothing, with 0. */
  weigh(grams: number): void {
    this.weighs_g = grams === 0 ? 0 : this.weighs_g + grams;
    this.scale.scene('load', this.weighs_g);
    if (grams > 0 && this.happens('scale creeping')) this.scale.scene('creep', CREEP_GPERS);
  }

  /** The scale is set right: it shows what lies on it, and creeps no more. */
  zero(): void {
    this.scale.scene('creep', 0);
    this.scale.scene('load', this.weighs_g);
    this.ends('scale creeping');
  }

  /** Lives through some seconds. */
  tick(seconds: number): void {
    for (let left = seconds; left > 1e-9; left -= STEP_S) this.live(Math.min(STEP_S, left));
  }

  private live(seconds: number): void {
    this.time_s += seconds;
    this.stove.tick(seconds);
    this.probe.tick(seconds);
    this.scale.tick(seconds);
    this.canner = heated(this.canner, seconds);
    const { temp_C } = this.stove.pot;
    if (temp_C > this.boils_C - 5 && this.happens('probe on the bottom'))
      this.probe.scene('bottom', ON_BOTTOM_C);
    if (temp_C > this.boils_C - 10) this.happens('rubbish on the line');
    if (this.boiled_s !== null && this.fullBoil()) this.boiled_s += seconds;
    if ((this.boiled_s ?? 0) >= LOST_AFTER_S && this.happens('boil lost')) {
      this.cannerFire(0);
      this.canner = { ...this.canner, temp_C: this.canner.temp_C - 3 };
    } else if (this.goesOn('boil lost') && this.fullBoil()) this.ends('boil lost');
    if ((this.boiled_s ?? 0) >= LOW_AFTER_S && this.happens('low water')) this.cover_mm = LOW_MM;
    this.sight();
  }

  private fullBoil(): boolean {
    return this.cannerFlame > 0 && this.canner.temp_C >= this.boils_C - FULL_WITHIN_C;
  }

  /** Begins what goes wrong here, once; true where it began just now. */
  private happens(scene: Scene): boolean {
    if (this.scene !== scene || this.happened.length > 0) return false;
    this.happened = [{ scene, from_s: this.time_s, to_s: null }];
    return true;
  }

  private goesOn(scene: Scene): boolean {
    return this.happened.some(h => h.scene === scene && h.to_s === null);
  }

  private ends(scene: Scene): void {
    this.happened = this.happened.map(h =>
      h.scene === scene && h.to_s === null ? { ...h, to_s: this.time_s } : h,
    );
  }

  private sight(): void {
    const now: Sight = {
      at_s: this.time_s,
      pot_C: this.stove.pot.temp_C,
      boiling: this.fullBoil() && this.cover_mm > 0,
    };
    const last = this.sights.at(-1);
    if (
      !last ||
      last.boiling !== now.boiling ||
      Math.abs(last.pot_C - now.pot_C) > SIGHT.change_C ||
      now.at_s - last.at_s >= SIGHT.every_s
    )
      this.sights.push(now);
  }
}
