import { type Names } from '../measure/index.ts';
import type { AcidityReading } from '../acid/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Line } from '../recipes/index.ts';
import type {
  DrawnLot,
  GateEvidence,
  LabelContent,
  ReturnedLot,
  SetAsideReason,
  StartedBody,
} from './events.ts';

/** Who entered something and when it happened. */
export interface Trace {
  eventId: string;
  personId: string;
  at_ms: number;
  typed: boolean;
}

/** One jar, from filling to where it is now. */
export interface JarState {
  number: number;
  size: JarSizeId;
  jarLotId: string | null;
  lidLotId: string | null;
  filled: Trace;
  /** Acid and other per-jar lines: given, missed, or not said. */
  doses: Names<'given' | 'missed'>;
  /** Loads it was put in, in order; the last one counts. */
  loadIds: string[];
  setAside: { why: SetAsideReason | 'used in the kitchen'; by: Trace } | null;
  /** Last press after the effective load was lifted. */
  pressed: { sealed: boolean; by: Trace } | null;
}

/**
 * Where a load of the canner stands. Only *processed* lets its jars through: its time was continuous, verified and
 * long enough.
 */
export type LoadPhase =
  'packed' | 'boiling' | 'boil lost' | 'resting' | 'processed' | 'short' | 'unverified' | 'no time';

/** A load of the canner with its clock, derived by {@link deriveLoads}. */
export interface LoadState {
  id: string;
  number: number;
  jars: number[];
  newLidLotId: string | null;
  phase: LoadPhase;
  /** Longest required time of its jars; null where a jar's size has no time. */
  required_s: number | null;
  boilingSince: Trace | null;
  /** Times that did not count because the boil was lost. */
  voided_s: number[];
  /** Continuous time at the boil, once the heat is off. */
  time_s: number | null;
  timeHow: string;
  heatOff: Trace | null;
  lifted: Trace | null;
}

/** A fact that breaks a rule. It holds its jars until somebody who may settles it, where it can be settled. */
export interface Deviation {
  /** Stable name: what a settlement refers to. */
  key: string;
  code: string;
  /** Jars held; null for the whole batch. */
  jars: number[] | null;
  /** The load it belongs to: jars that went into a later load are no longer held by it. */
  loadId: string | null;
  what: string;
  next: string;
  /** A person can settle it with a reason; others need the jar corrected, reprocessed or set aside. */
  canSettle: boolean;
  settled: { reason: string; by: Trace } | null;
}

/** All that a batch is, derived from its entries by {@link fold}: plain data. */
export interface BatchState {
  started: (StartedBody & { by: Trace }) | null;
  draws: { drawId: string; by: Trace; lots: DrawnLot[] }[];
  steps: Names<{ started: Trace | null; done: Trace | null }>;
  weighed: Names<{ mass_g: number; by: Trace }>;
  /** Lines added while cooking; they stand among the recipe's too. */
  added: { line: Line; by: Trace }[];
  /** Measures taken, by step; the last one counts. */
  measures: Names<{ quantity: number; unit: 'g' | 'mL'; by: Trace }>;
  yieldReasons: { reason: string; by: Trace }[];
  temperatures: { where: 'pot' | 'canner' | 'jar'; temp_C: number; by: Trace }[];
  jars: JarState[];
  loads: LoadState[];
  readings: (AcidityReading & { jar: number; by: Trace })[];
  /** Minutes worked: on the batch, shared with others that ran at the same time, or on the kitchen of the day. */
  minutes: { minutes: number; kind: 'batch' | 'kitchen'; with: string[]; by: Trace }[];
  energy: { burnerId: string; minutes: number; by: Trace }[];
  returns: { lots: ReturnedLot[]; reason: string; by: Trace }[];
  /** Finished jars that became a lot of an ingredient. */
  taken: { jars: number[]; lotId: string; by: Trace }[];
  notes: { text: string; by: Trace }[];
  deviations: Deviation[];
  releases: { jars: number[]; evidence: GateEvidence[]; by: Trace }[];
  labels: { eventId: string; jars: number[]; label: LabelContent; by: Trace }[];
  /** Original entry → the correction that now stands for it. */
  corrections: Names<string>;
}
