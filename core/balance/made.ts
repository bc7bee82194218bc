import type { CookEnd, CookFault } from './cooking.ts';
import type { Filling, JarContents } from './filling.ts';
import type { Contents, Parts } from './parts.ts';

/**
 * Where food is, or where it went. Lines come in as `line:…`; a part taken aside is `part:…`, an outlet `outlet:…`.
 * `trimmings`, `drain`, `cloth`, `lifted`, `steam` and `wall` (what sticks and foams) are losses with a line of their own;
 * `left over` and `spare brine` are food that no whole jar took; `unaccounted` is what a measure was short of.
 */
export type VesselId =
  | 'board'
  | 'soak'
  | 'pot'
  | 'brine'
  | 'jars'
  | 'left over'
  | 'spare brine'
  | 'trimmings'
  | 'drain'
  | 'cloth'
  | 'lifted'
  | 'steam'
  | 'wall'
  | 'unaccounted'
  | `line:${string}`
  | `part:${string}`
  | `outlet:${string}`;

/** Something moved from one vessel to another at a step; null before the first and after the last. */
export interface Flow {
  stepId: string | null;
  from: VesselId;
  to: VesselId;
  contents: Contents;
}

/** One cook step as it was reckoned. */
export interface CookBalance extends CookEnd {
  stepId: string;
  part: string;
  start: Parts;
  end: Parts;
}

/** A plan or a record, followed from the board to the jar. */
export interface Balance {
  /** In the order of the steps. What flows in and does not flow out again is there at the end. */
  flows: Flow[];
  /** What is in each vessel at the end. */
  vessels: Map<VesselId, Contents>;
  cooks: CookBalance[];
  jars: JarContents[];
  filling: Filling;
  /** All that was to be filled: the pot, or the pieces of a pack; before jars and outlets. */
  ready: Parts;
  brine: Parts;
  faults: CookFault[];
}
