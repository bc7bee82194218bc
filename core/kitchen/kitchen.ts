import type { CostSettings } from './costs.ts';
import type { Jurisdiction, TickedPoint } from './jurisdiction.ts';
import type { Habits } from '../measure/index.ts';
import type { Holds } from '../jars/index.ts';

/** What a person may do in a kitchen; the right to release and sign is given apart from it. */
export type Role = 'owner' | 'cook' | 'viewer';
/** Every role, from most to least. */
export const ROLES: readonly Role[] = ['owner', 'cook', 'viewer'];

/** What the jurisdiction wants printed on a label, as the kitchen has confirmed it with its authority. */
export interface JurisdictionProfile {
  /** Name of the place and rule, as the producer calls it. */
  name: string;
  /** The sentence that must stand on each label; empty when none is asked for. */
  statement: string;
  /** Where the rule was read. */
  source: string;
  /** The day on which the owner last checked it, or null when never. */
  confirmedOn: string | null;
  /** What the place allows and asks, as the kitchen took it over and edited it; null before one was chosen. */
  rules: Jurisdiction | null;
  /** What of it the owner ticked, with the day and its end. */
  points: TickedPoint[];
  /** Number of the registration or permit, as it stands on a label; empty for none. */
  number: string;
}

/** A profile of a kitchen that has chosen no place yet. */
export const noPlace = (): JurisdictionProfile => ({
  name: '',
  statement: '',
  source: '',
  confirmedOn: null,
  rules: null,
  points: [],
  number: '',
});

/** A pot of the kitchen. */
export interface Pot {
  id: string;
  name: string;
  capacity_mL: number;
  /** Inside, for depths. */
  diameter_mm: number;
  /** Water it boils off in a minute at a full boil, as this kitchen measured it. */
  boilOff_gPerMin: number;
}

/** A canner of the kitchen. */
export interface Canner {
  id: string;
  name: string;
  kind: 'boiling water' | 'steam';
  /** Jars of each size that stand in it at once. */
  holds: Holds;
}

/** A kitchen's own settings: where it stands, how it reads figures, who it is on a label. */
export interface Kitchen extends Habits {
  id: string;
  name: string;
  altitude_m: number;
  /** Somebody entered where it stands. Until then altitude and zone are placeholders, and nothing is cooked by them. */
  placed: boolean;
  /** The made-up kitchen of the demo: what was written for it opens sale nowhere else. */
  demo: boolean;
  /** Money an hour of attended work costs, decimal text. */
  hourlyRate: string;
  /** Maker and place as printed. */
  makerName: string;
  makerAddress: string;
  jurisdiction: JurisdictionProfile;
  /** What the jam thermometer reads above the truth. */
  thermometerError_C: number;
  /** The same in ice and water; null where nobody looked. */
  thermometerIce_C: number | null;
  /** The day on which that was last seen in boiling water; null when never. */
  thermometerCheckedOn: string | null;
  /** The pH above which this kitchen acts: one jar is not enough then. Never above the limit. */
  phAct: number;
  pots: Pot[];
  canners: Canner[];
  costs: CostSettings;
  version: number;
}

/** The least role that may do a thing. */
export function mayAct(has: Role, needs: Role): boolean {
  return ROLES.indexOf(has) <= ROLES.indexOf(needs);
}
