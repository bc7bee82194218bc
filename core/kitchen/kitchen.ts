import type { Habits } from '../measure/index.ts';

export type Role = 'owner' | 'cook' | 'viewer';
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
}

/** A kitchen's own settings: where it stands, how it reads figures, who it is on a label. */
export interface Kitchen extends Habits {
  id: string;
  name: string;
  altitude_m: number;
  /** Money an hour of attended work costs, decimal text. */
  hourlyRate: string;
  /** Maker and place as printed. */
  makerName: string;
  makerAddress: string;
  jurisdiction: JurisdictionProfile;
  /** What the jam thermometer reads above the truth. */
  thermometerError_C: number;
  version: number;
}

/** The least role that may do a thing. */
export function mayAct(has: Role, needs: Role): boolean {
  return ROLES.indexOf(has) <= ROLES.indexOf(needs);
}
