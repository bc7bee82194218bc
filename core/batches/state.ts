import { type Day, type Names } from '../measure/index.ts';
import type { AcidityReading } from '../acid/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import type { Line } from '../recipes/index.ts';
import type { Trace } from './evidence.ts';
import type {
  AtPlace,
  BatchEvent,
  BoilLoss,
  ByInstrument,
  ColdPlace,
  CorrectableType,
  CorrectiveAction,
  PaperRef,
  DrawnLot,
  Ended,
  UsedDraw,
  EventBodies,
  GateEvidence,
  MarkedFor,
  MarketStep,
  OutletBody,
  ReturnedLot,
  SetAsideReason,
  StartedBody,
  StrainedHow,
} from './events.ts';

/** An entry that was corrected: what it was, and every correction of it, those that count and those that do not. */
export interface Amendment {
  was: { [K in CorrectableType]: { type: K; body: EventBodies[K] } }[CorrectableType];
  was_ms: number;
  /** The correction that stands; null where none counts. */
  standing: string | null;
  corrections: {
    correctionId: string;
    personId: string;
    reason: string;
    /** False while it waits for somebody who may sign it. */
    counts: boolean;
    /** Entered at once, with nothing built on what it corrects. */
    slip: boolean;
    signed: boolean;
  }[];
}

/** One jar, from filling to where it is now. */
export interface JarState {
  number: number;
  size: JarSizeId;
  /** The outlet it was filled from; null for the main one. */
  outletId: string | null;
  jarLotId: string | null;
  lidLotId: string | null;
  /** The lid it was filled under: another one comes with a load that takes it again. */
  firstLidLotId: string | null;
  /** Headspace as measured, where it departs. */
  headspace_mm: number | null;
  /** What closes it; empty for a flat lid with a band. */
  closure: string;
  /** What it goes along for. */
  marked: MarkedFor;
  /** What was done to it before market, and when that was done last. */
  market: { done: MarketStep[]; by: Trace } | null;
  /** It was called back after it was released. */
  withdrawn: { why: string; by: Trace } | null;
  filled: Trace;
  /** Acid and other per-jar lines: given, missed, entered only after the jar was closed, or not said. */
  doses: Names<{ is: 'given' | 'missed' | 'late'; by: Trace }>;
  /** Loads it was put in, in order; the last one counts. */
  loadIds: string[];
  setAside: { why: SetAsideReason | 'used in the kitchen' | ColdPlace; by: Trace } | null;
  /**
   * What pressing showed since its last load was lifted: a press that failed once, else the first that found it sealed
   * after it had cooled, else one that came too early to prove anything.
   */
  pressed: { sealed: boolean; how: EventBodies['jars.pressed']['how']; by: Trace } | null;
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
  cannerId: string | null;
  heat: 'boiling water' | 'steam';
  packed: Trace;
  phase: LoadPhase;
  /** Longest required time of its jars; null where a jar's size has no time. */
  required_s: number | null;
  boilingSince: Trace | null;
  /** Times that did not count because the boil, or the water over the lids, was lost. */
  voided_s: number[];
  /** What was lost each time. */
  lost: BoilLoss[];
  /** Continuous time at the boil, once the heat is off. */
  time_s: number | null;
  timeHow: string;
  heatOff: Trace | null;
  lifted: Trace | null;
  /** Second ends by devices that had not seen the first: they say nothing new. */
  echoes: Trace[];
}

/** How far a step is. */
export interface StepState {
  started: Trace | null;
  done: Trace | null;
  ended: Ended | null;
  /** Why it came before a step that was still open; empty where it was in order. */
  outOfOrder: string;
  /** Pots that went their own way, by their number; the step is done once all of them are. */
  pots: Names<{ started: Trace | null; done: Trace | null; ended: Ended | null }>;
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
  /**
   * What settles it: a reason, or the minutes seen on another clock with the reason. Null where the jar has to be
   * corrected, processed again or set aside.
   */
  settles: 'reason' | 'minutes' | null;
  /** The first settlement that came after what it settles, by somebody who may sign; later ones are remarks. */
  settled: { reason: string; by: Trace } | null;
  /** What was done about it, in order. */
  actions: { action: CorrectiveAction; reason: string; cause: string; paper: PaperRef | null; by: Trace }[];
  /** The last look of somebody else at what was done; who does not agree opens it again. */
  secondLook: { agrees: boolean; text: string; by: Trace } | null;
}

/** A difference in the books that hurts nobody: it holds no jar, and one tap settles it. */
export interface Note {
  key: string;
  what: string;
  /** What drawing would settle it; null where only a word does. */
  draw: {
    lineId: string | null;
    kind: 'ingredient' | 'lid' | 'jar';
    quantity: number;
    unit: 'g' | 'each';
  } | null;
  /** The lot whose count would settle it. */
  lot: { lotId: string; label: string } | null;
  settled: { reason: string; by: Trace } | null;
}

/** All that a batch is, derived from its entries by {@link fold}: plain data. */
export interface BatchState {
  started: (StartedBody & { by: Trace }) | null;
  draws: { drawId: string; by: Trace; lots: DrawnLot[]; used: UsedDraw | null }[];
  steps: Names<StepState>;
  /** Grams weighed of each line of the recipe, and the last entry that added to them. */
  weighed: Names<{ mass_g: number; by: Trace }>;
  /** Lines added while cooking; they stand among the recipe's too. */
  added: { line: Line; by: Trace }[];
  /** Lines that something else took the place of at the pot; the recipe of the batch has what went in. */
  replaced: { was: Line; line: Line; by: Trace }[];
  /** Measures taken, by step; the last one counts. */
  measures: Names<{ quantity: number; unit: 'g' | 'mL'; how: StrainedHow | null; from: number[]; by: Trace }>;
  /** How much was in a pot while it cooked, see *level.read*. */
  levels: (EventBodies['level.read'] & { by: Trace })[];
  yieldReasons: { reason: string; by: Trace }[];
  /** Temperatures; `part` names a separated part, empty for the whole pot. */
  temperatures: (AtPlace & {
    where: 'pot' | 'canner' | 'jar';
    part: string;
    temp_C: number;
    checked: ByInstrument['checked'];
    by: Trace;
  })[];
  /** Soluble solids that a refractometer read. */
  solids: (AtPlace & { part: string; brix_pct: number; by: Trace })[];
  /** Empty jars that were boiled, to be sterile. */
  boiled: { minutes: number; by: Trace }[];
  /** What filled jars weigh inside, the heaviest entry for each; and the most that was left beside. */
  nets: { jar: number; net_g: number; left_g: number; by: Trace }[];
  /** The last weighing of each jar: what its label is held against. */
  weighings: { jar: number; net_g: number; by: Trace }[];
  jars: JarState[];
  loads: LoadState[];
  /** Every press, as it was entered; what it proves of a jar stands with the jar. */
  presses: { sealed: number[]; failed: number[]; by: Trace }[];
  /** What was seen in cooled jars, see *jars.looked*. */
  looks: (EventBodies['jars.looked'] & { by: Trace })[];
  /** Acidity that was read. The hours are reckoned from the lifting of the jar's own load; null before that. */
  readings: (AcidityReading & {
    jar: number;
    instrumentId: string | null;
    hours: number | null;
    /** The kitchen's day of it. */
    on: Day;
    /** How far off the buffer was when it was read again after it; null while nobody did. */
    recheck_off: number | null;
    /** How long the jar had been open. */
    opened_h: number;
    by: Trace;
  })[];
  /** Blended samples that were read before filling. */
  potReadings: (EventBodies['pot.ph_read'] & { by: Trace })[];
  /** Minutes worked: on the batch, shared with others that ran at the same time, or on the kitchen of the day. */
  minutes: { minutes: number; kind: 'batch' | 'kitchen'; with: string[]; by: Trace }[];
  energy: { burnerId: string; minutes: number; by: Trace }[];
  returns: { lots: ReturnedLot[]; reason: string; by: Trace }[];
  /** Finished jars that became a lot of an ingredient. */
  taken: { jars: number[]; lotId: string; by: Trace }[];
  /** What instruments showed all along a cook, kept beside the record. */
  curves: (EventBodies['curve.kept'] & { by: Trace })[];
  /** What was taken from the pot as a lot of its own. */
  potTaken: (EventBodies['pot.taken'] & { by: Trace })[];
  deviations: Deviation[];
  notes: { text: string; by: Trace }[];
  /** What left the bottle for the jars dosed until then. */
  doseChecks: (EventBodies['dose.checked'] & { by: Trace })[];
  /** Where the rest of the pot or the brine went. */
  leftOver: (EventBodies['left.over'] & { by: Trace })[];
  /** Food that came back from the refrigerator. */
  leftoversBack: (EventBodies['leftover.back'] & { by: Trace })[];
  /** Whether a pot that held an allergen was washed before. */
  washed: (EventBodies['pot.washed'] & { by: Trace })[];
  /** Pictures that are kept beside the record. */
  pictures: (EventBodies['picture.kept'] & { eventId: string; by: Trace })[];
  /** Differences in the books, see {@link Note}. */
  books: Note[];
  /** Outlets that became lots of their own. */
  outlets: (OutletBody & { by: Trace })[];
  /** Lots that were used without a connection; *drawn* once the kitchen has them in its books. */
  used: (EventBodies['lot.used'] & { drawn: boolean; by: Trace })[];
  /** `seq` is the server's number; null while it waits. */
  releases: { jars: number[]; evidence: GateEvidence[]; named: string[]; seq: number | null; by: Trace }[];
  labels: (EventBodies['labels.printed'] & {
    eventId: string;
    by: Trace;
    /** What became of them, as it was counted last; null before. */
    counted: (Omit<EventBodies['labels.counted'], 'printId'> & { by: Trace }) | null;
  })[];
  /** Entries that were corrected, by their id. */
  amendments: Names<Amendment>;
  /** Entries of a kind or shape that only a newer build reads: while there are any, nothing is released here. */
  newer: BatchEvent[];
}
