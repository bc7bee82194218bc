import type { AcidityReading } from '../acid/index.ts';
import { type CostSettings, plainCosts } from '../kitchen/index.ts';
import { instantMs } from '../measure/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { type JarsWanted, type Line, type Recipe, upgradeRecipe } from '../recipes/index.ts';
import type { RouteToSale } from '../review/index.ts';
import { type ScheduledTime, upgradeTime } from '../times/index.ts';

/** Why a batch is cooked. A jar never moves from home or trial to sale by an edit. */
export type Purpose = 'sale' | 'home' | 'gift' | 'trial';
/** Every purpose, in the order in which they are offered. */
export const PURPOSES: readonly Purpose[] = ['sale', 'home', 'gift', 'trial'];

/** Why a jar leaves the batch's stock before it is released. */
export type SetAsideReason =
  'broken' | 'leaking' | 'seal failed' | 'spoiled' | 'tested' | 'part-filled' | 'sampled' | 'gifted';
/** Every reason, in the order in which they are offered. */
export const SET_ASIDE_REASONS: readonly SetAsideReason[] = [
  'broken',
  'leaking',
  'seal failed',
  'spoiled',
  'tested',
  'part-filled',
  'sampled',
  'gifted',
];

/** What was decided when the batch began. Holds every value later figures rest on; nothing is looked up again. */
export interface StartedBody {
  recipeId: string;
  recipeVersion: number;
  recipe: Recipe;
  /** Exact factor on the recipe, `n` or `n/d`. */
  factor: string;
  jars: JarsWanted[];
  purpose: Purpose;
  lotCode: string;
  /** Day of the batch in the kitchen's zone. */
  madeOn: string;
  kitchen: {
    name: string;
    altitude_m: number;
    zone: string;
    locale: string;
    currency: string;
    hourlyRate: string;
    thermometerError_C: number;
    /** What costs are reckoned with. */
    costs: CostSettings;
  };
  boilingPoint_C: number;
  /** As this kitchen's thermometer shows it. */
  gelPoint_C: number;
  times: ScheduledTime[];
  /** Sizes that have no time, with the reason. */
  noTime: { size: JarSizeId; what: string; why: string }[];
  route: RouteToSale;
  /** Release limit of the finished food. */
  phLimit: number;
  /** How the jars are heated; steam only within its limits. */
  heat: 'boiling water' | 'steam';
  /** How the batch is spread over pots, and whether a rule of quality was overridden. */
  pots: { count: number; each: string; overridden: boolean; reasons: string[] };
  /** What was expected to come out; null where nothing could be said. */
  expected: {
    pints: number;
    final_g: number | null;
    solids_pct: number | null;
    cook_min: number | null;
    /** By the forecast of the pot or the pack; otherwise it is only the jars that were wanted. */
    foreseen: boolean;
  } | null;
}

/** Reads what a batch was started with, of any shape there ever was. */
export function upgradeStarted(body: StartedBody): StartedBody {
  const first = {
    heat: 'boiling water',
    pots: { count: 1, each: body.factor, overridden: false, reasons: [] },
    expected: null,
  } as const;
  return {
    ...first,
    ...body,
    pots: body.pots ?? first.pots,
    recipe: upgradeRecipe(body.recipe),
    times: body.times.map(upgradeTime),
    kitchen: { ...body.kitchen, costs: body.kitchen.costs ?? plainCosts },
  } as StartedBody;
}

/** One lot drawn, with the cost and the facts it had then. */
export interface DrawnLot {
  lotId: string;
  itemId: string;
  kind: 'ingredient' | 'jar' | 'lid' | 'band' | 'label' | 'packaging' | 'fuel' | 'tool';
  name: string;
  lotLabel: string;
  /** Recipe line it serves; null for jars and lids. */
  lineId: string | null;
  /** Jar size, for jars. */
  jarSize: JarSizeId | null;
  /** Decimal text in the item's base unit. */
  quantity: string;
  unit: 'g' | 'mL' | 'each';
  /** Money for one base unit, decimal text. */
  unitCost: string;
  /** Mass of the quantity as drawn, in grams; null for jars and lids. */
  mass_g: number | null;
  labelName: string;
  subIngredients: string;
  allergens: string[];
}

/** So much of a lot that was drawn and came back. */
export interface ReturnedLot {
  lotId: string;
  quantity: string;
  /** Money for one base unit, decimal text, as it was drawn. */
  unitCost: string;
}

/** A condition as it stood at a release, kept in the record with what showed it: the gate may ask more one day. */
export interface GateEvidence {
  code: string;
  title: string;
  evidence: string;
}

/** What each kind of event says. Facts have happened; decisions were made by the server. */
export interface EventBodies {
  'batch.started': StartedBody;
  'lot.drawn': { lots: DrawnLot[] };
  'draw.reversed': { drawId: string; reason: string };
  /** Something drawn came back, such as bands from jars kept at home, or a bag that was not needed. */
  'lots.returned': { lots: ReturnedLot[]; reason: string };
  /** Finished jars became a lot of an ingredient. */
  'jars.taken': { jars: number[]; lotId: string; label: string; unitCost: string };
  'jars.released': { jars: number[]; evidence: GateEvidence[] };
  'labels.printed': { jars: number[]; size: JarSizeId; stock: string; label: LabelContent };
  'step.started': { stepId: string };
  'step.done': { stepId: string };
  'line.weighed': { lineId: string; mass_g: number };
  /** Something went in that the recipe does not name: cooked first, written down afterwards. */
  'line.added': { line: Line };
  /** A measure that later amounts hang on, such as the juice. */
  'measure.taken': { stepId: string; quantity: number; unit: 'g' | 'mL' };
  /** Why more or less came out than was foreseen. */
  'yield.explained': { reason: string };
  'temperature.read': { where: 'pot' | 'canner' | 'jar'; temp_C: number };
  'jars.filled': { size: JarSizeId; jars: number[]; jarLotId: string | null; lidLotId: string | null };
  'dose.given': { lineId: string; jars: number[] };
  'dose.missed': { lineId: string; jars: number[] };
  'load.packed': { loadId: string; number: number; jars: number[]; newLidLotId: string | null };
  'load.boiling': { loadId: string };
  'load.boil_lost': { loadId: string };
  'load.heat_off': { loadId: string };
  'load.lifted': { loadId: string };
  'jars.set_aside': { jars: number[]; why: SetAsideReason };
  'jars.pressed': { sealed: number[]; failed: number[] };
  'ph.read': AcidityReading & { jar: number };
  'minutes.worked': { minutes: number };
  /** Worked on several batches at once: the others share the minutes. */
  'minutes.shared': { minutes: number; with: string[] };
  /** Opening, cleaning and closing the kitchen: shared by the batches of the day. */
  'kitchen.worked': { minutes: number };
  /** A burner was on for so long. */
  'energy.used': { burnerId: string; minutes: number };
  'note.written': { text: string };
  'deviation.settled': { key: string; reason: string; minutes: number | null };
  'entry.corrected': Correction;
}

/** Everything printed on one jar, as it stood when it was printed. */
export interface LabelContent {
  statementOfIdentity: string;
  ingredients: string;
  contains: string;
  netContents: string;
  maker: string;
  address: string;
  lotCode: string;
  madeOn: string;
  bestBy: string;
  readyFrom: string | null;
  statement: string;
  notForSale: boolean;
}

/** What can happen to a batch. */
export type EventType = keyof EventBodies;

/**
 * Entries the server makes under the lock of the record, and may refuse. All others are facts: they are stored
 * whenever they are well formed, because they have happened.
 */
export const DECISION_TYPES = [
  'batch.started',
  'lot.drawn',
  'draw.reversed',
  'lots.returned',
  'jars.taken',
  'jars.released',
  'labels.printed',
] as const;
/** An entry the server decides ({@link DECISION_TYPES}). */
export type DecisionType = (typeof DECISION_TYPES)[number];
/** An entry that says what happened, and is never refused for what it says. */
export type FactType = Exclude<EventType, DecisionType>;
/** Facts a correction may replace: all but corrections themselves. */
export type CorrectableType = Exclude<FactType, 'entry.corrected'>;

/** Names the entry it replaces; `body` null takes it back. The replaced entry stays in the record. */
export interface Correction {
  replaces: string;
  type: CorrectableType;
  body: EventBodies[CorrectableType] | null;
  /** A corrected time, or null to keep the first. */
  occurredAt: string | null;
  reason: string;
}

/** What a device says about an entry. Complete from the first day: see the architecture's envelope. */
export interface Stamp {
  /** UUIDv7 made by the client. */
  id: string;
  /** Shape of the body; old versions are read forever. */
  typeVersion: number;
  personId: string;
  deviceId: string;
  /** Counts this device's entries. */
  deviceCounter: number;
  /** The device's own clock, ISO 8601 UTC. */
  wallClock: string;
  /** Milliseconds of the page's monotonic clock. */
  monotonic_ms: number;
  /** Names the page session the monotonic reading belongs to. */
  pageSessionId: string;
  /** Server clock minus device clock when last measured; null when never. */
  clockOffset_ms: number | null;
  /** Age of that measurement; null when never. */
  clockOffsetAge_ms: number | null;
  /** When it happened: the typed time if typed in afterwards, else the device's clock again. */
  occurredAt: string;
  typedInAfterwards: boolean;
  /** The last sequence number the device had seen. */
  basedOnSeq: number;
}

interface Placed extends Stamp {
  kitchenId: string;
  batchId: string;
}

/** One entry of a batch's record. */
export type BatchEvent<T extends EventType = EventType> = {
  [K in T]: Placed & { type: K; body: EventBodies[K] };
}[T];

/** An entry as it came back from the server: with its place in the kitchen's chain and when it was received. */
export type SequencedEvent = BatchEvent & { seq: number; hash: string; receivedAt: string };

/** Whether the server decides such an entry; a correction may not touch it. */
export function isDecision(type: EventType): type is DecisionType {
  return (DECISION_TYPES as readonly EventType[]).includes(type);
}

/**
 * The instant an entry happened, in milliseconds: the typed time, else the device's clock set right by the last
 * measured offset.
 */
export function correctedInstant_ms(
  event: Pick<Stamp, 'occurredAt' | 'typedInAfterwards' | 'wallClock' | 'clockOffset_ms'>,
): number {
  if (event.typedInAfterwards) return instantMs(event.occurredAt);
  return instantMs(event.wallClock) + (event.clockOffset_ms ?? 0);
}

/** Seconds by which two ways of measuring one duration may differ before it counts as unverified. */
export const CLOCK_TOLERANCE_S = 5;

/** How long it was between two entries, and whether that can be relied on. */
export interface Elapsed {
  /** The shortest of the durations that can be argued. */
  time_s: number;
  verified: boolean;
  /** Why it is not verified, or how it was measured. */
  how: string;
}

type Timed = Pick<
  Stamp,
  'occurredAt' | 'typedInAfterwards' | 'wallClock' | 'clockOffset_ms' | 'monotonic_ms' | 'pageSessionId'
>;

/**
 * The time between two entries: by the monotonic clock inside one page session, else by corrected instants. Where the
 * two disagree by over 5 s, or an offset is unknown, the time is unverified.
 */
export function elapsedBetween(from: Timed, to: Timed): Elapsed {
  const byInstants_s = (correctedInstant_ms(to) - correctedInstant_ms(from)) / 1000;
  const typed = from.typedInAfterwards || to.typedInAfterwards;
  const known = (e: Timed) => e.typedInAfterwards || e.clockOffset_ms !== null;
  if (!typed && from.pageSessionId === to.pageSessionId) {
    const monotonic_s = (to.monotonic_ms - from.monotonic_ms) / 1000;
    if (Math.abs(monotonic_s - byInstants_s) > CLOCK_TOLERANCE_S) {
      return {
        time_s: Math.min(monotonic_s, byInstants_s),
        verified: false,
        how: `two clocks disagree by ${Math.round(Math.abs(monotonic_s - byInstants_s))} s`,
      };
    }
    return { time_s: monotonic_s, verified: true, how: 'by the page clock' };
  }
  if (!known(from) || !known(to))
    return {
      time_s: byInstants_s,
      verified: false,
      how: 'the device had not yet compared its clock with the kitchen',
    };
  return {
    time_s: byInstants_s,
    verified: true,
    how: typed ? 'from times typed in afterwards' : 'by clocks compared with the kitchen',
  };
}
