import { type AcidityReading, PH_ACT } from '../acid/index.ts';
import { type Canner, type CostSettings, type PlaceRule, plainCosts } from '../kitchen/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { type JarsWanted, type Line, type Recipe, upgradeRecipe } from '../recipes/index.ts';
import type { RouteToSale } from '../review/index.ts';
import { type ScheduledTime, upgradeTime } from '../times/index.ts';
import type { Receipt, Stamp } from './stamp.ts';
import type {
  Container,
  LabelCode,
  LabelContent,
  LabelDesign,
  LabelLook,
  LabelRead,
  LabelStock,
} from './label.ts';
import type { LotPattern } from './lot-code.ts';

/** What heats the jars. */
export type CannerKind = Canner['kind'];

/** Why a batch is cooked. A jar never moves from home or trial to sale by an edit. */
export type Purpose = 'sale' | 'home' | 'gift' | 'trial';
/** Every purpose, in the order in which they are offered. */
export const PURPOSES: readonly Purpose[] = ['sale', 'home', 'gift', 'trial'];

/** Why a jar leaves the batch's stock before it is released. */
export type SetAsideReason =
  | 'broken'
  | 'near broken glass'
  | 'leaking'
  | 'found open'
  | 'bulging'
  | 'spurting'
  | 'mouldy'
  | 'seal failed'
  | 'spoiled'
  | 'destroyed'
  | 'tested'
  | 'part-filled'
  | 'sampled'
  | 'gifted';
/** Every reason, in the order in which they are offered. */
export const SET_ASIDE_REASONS: readonly SetAsideReason[] = [
  'broken',
  'near broken glass',
  'leaking',
  'found open',
  'bulging',
  'spurting',
  'mouldy',
  'seal failed',
  'spoiled',
  'destroyed',
  'tested',
  'part-filled',
  'sampled',
  'gifted',
];

/** What a jar shows that is never tasted: it is destroyed. Common practice. */
export const SUSPECT: readonly SetAsideReason[] = ['leaking', 'found open', 'bulging', 'spurting', 'mouldy'];

/** What may be done about a deviation. */
export const CORRECTIVE_ACTIONS = [
  'shown right',
  'processed again',
  'refrigerated',
  'held',
  'authority asked',
  'destroyed',
] as const;
/** What is done about it ({@link CORRECTIVE_ACTIONS}). */
export type CorrectiveAction = (typeof CORRECTIVE_ACTIONS)[number];

/** A paper beside the record, by the hash of what is kept. */
export interface PaperRef {
  paperId: string;
  sha256: string;
}

/** What a batch for sale was started on: the page somebody read, and the place that allows it. */
export interface StartKeys {
  /** The newest reading of the page; null where the authority stands on none. */
  page: {
    subject: string;
    edition: string;
    page: string;
    personId: string;
    confirmedAt: string;
    demo: boolean;
  } | null;
  place: { id: string; name: string; version: number; rule: PlaceRule['rule'] };
}

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
  /** How its codes are put together; null where the batch began before a kitchen could choose. */
  lotPattern: LotPattern | null;
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
  /** Where the kitchen acts: above it one jar is not enough. */
  phAct: number;
  /** What equilibrium pH was foreseen, with its 90 % interval: to be held against what is read, and for nothing else. */
  phForecast: { low: number; mid: number; high: number } | null;
  /** How the jars are heated; steam only within its limits. */
  heat: 'boiling water' | 'steam';
  /** How the batch is spread over pots, and whether a rule of quality was overridden. */
  pots: { count: number; each: string; overridden: boolean; reasons: string[] };
  /** The kitchen's pot it was foreseen in; null where none was chosen. */
  potId: string | null;
  /** The kitchen's pots and canners then, by the ids under which later entries name them. */
  equipment: {
    pots: { id: string; name: string }[];
    /** `holds` is what the kitchen said then of the jars it takes; null where the batch began before that was kept. */
    canners: { id: string; name: string; kind: CannerKind | null; holds: Canner['holds'] | null }[];
  };
  /** The proof it was started for sale on; null for another purpose, and before two keys were asked for. */
  keys: StartKeys | null;
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
    potId: null,
    equipment: { pots: [], canners: [] },
    keys: null,
    phAct: PH_ACT,
    phForecast: null,
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

/** A draw that the kitchen made of what was used without a connection. */
export interface UsedDraw {
  /** The *lot used* entry. */
  entryId: string;
  /** What the books lacked of it, decimal text in the unit of the lot; 0 for nothing. */
  short: string;
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
  /** Share of it that is ready for the pot, where it is another than that of its line; null for the line's. */
  trimYield: number | null;
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

/** Where in a batch something was done. */
export interface AtPlace {
  /** The outlet it belongs to; null for the main one. */
  outletId: string | null;
  /** Which of the pots of the batch, `1` for the first; null for all of them, or for the only one. */
  potId: string | null;
}

/** By what something was read. */
export interface ByInstrument {
  /** The instrument on a line it was taken from; null where it was read by eye. */
  instrumentId: string | null;
  /** When that was last held against something known, and how much it showed above it then, in the unit of the reading; null where nobody knows. */
  checked: { at: string; off: number } | null;
}

/**
 * What an outlet of a batch was decided with, before a second product became a batch of its own that draws what was taken
 * from the pot. Its jars are never released.
 */
export interface OutletBody {
  outletId: string;
  name: string;
  lotCode: string;
  times: ScheduledTime[];
  phLimit: number;
  statementOfIdentity: string;
}

/** How the end of cooking was judged. Only what was read of the whole pot proves its solids. */
export const ENDINGS = ['thermometer', 'cold plate', 'sheeting', 'time', 'volume or depth', 'look'] as const;
/** A way to judge it ({@link ENDINGS}). */
export type Ended = (typeof ENDINGS)[number];

/** How a product has set, a day or more after it was cooked. */
export const SETS_SEEN = ['as meant', 'too soft', 'too firm'] as const;
/** How it has set ({@link SETS_SEEN}). */
export type SetSeen = (typeof SETS_SEEN)[number];

/** What may be seen in a jar that hurts nobody, and says what to do otherwise the next time. */
export const JAR_FAULTS = [
  'floating',
  'siphoned',
  'cloudy',
  'darkened',
  'separated',
  'crystals',
  'soft pieces',
] as const;
/** What is seen in a jar ({@link JAR_FAULTS}). */
export type JarFault = (typeof JAR_FAULTS)[number];

/** Why a time at the boil does not count. */
export const BOIL_LOSSES = ['boil', 'water', 'interrupted'] as const;
/** What was lost ({@link BOIL_LOSSES}): the boil itself (of steam: its zone), the water over the lids, or the time. */
export type BoilLoss = (typeof BOIL_LOSSES)[number];

/** Where food goes that no jar of a load took. */
export const LEFT_OVER_WENT = [
  'kept for tomorrow',
  'refrigerator',
  'over a refrigerator jar',
  'eaten',
  'thrown away',
  'nothing left',
] as const;
/** Where it went ({@link LEFT_OVER_WENT}). */
export type LeftOverWent = (typeof LEFT_OVER_WENT)[number];

/** Whether what is taken out is the pot as it stands, or liquid drained off it. */
export const POT_TAKEN_HOW = ['as it stands', 'drained off'] as const;
/** How it was taken ({@link POT_TAKEN_HOW}). */
export type PotTakenHow = (typeof POT_TAKEN_HOW)[number];

/** How a seal was proven. */
export const SEAL_PROOFS = ['pressed', 'bands off', 'as the letter says'] as const;
/** How it was proven ({@link SEAL_PROOFS}). */
export type SealProof = (typeof SEAL_PROOFS)[number];

/** What is done to a jar before it goes to market. Common practice. */
export const MARKET_STEPS = ['band off', 'washed', 'looked at', 'clean band'] as const;
/** One of them ({@link MARKET_STEPS}). */
export type MarketStep = (typeof MARKET_STEPS)[number];

/** What a jar that goes along with the others is for. */
export type MarkedFor = 'reading' | 'keeping' | 'sale';

/** How juice came through a cloth. Both are usual; pressed gives more, and cloud. */
export type StrainedHow = 'dripped' | 'pressed';

/** Where a jar goes that does not stand on the shelf. */
export type ColdPlace = 'refrigerator' | 'freezer';

/** What each kind of event says. Facts have happened; decisions were made by the server. */
export interface EventBodies {
  'batch.started': StartedBody;
  /** `used` tells of which *lot used* entry the kitchen made it, when that arrived; null where somebody drew. */
  'lot.drawn': { lots: DrawnLot[]; used: UsedDraw | null };
  'draw.reversed': { drawId: string; reason: string };
  /** Something drawn came back, such as bands from jars kept at home, or a bag that was not needed. */
  'lots.returned': { lots: ReturnedLot[]; reason: string };
  /** Finished jars became a lot of an ingredient. */
  'jars.taken': { jars: number[]; lotId: string; label: string; unitCost: string };
  /** So much of the pot, or of the liquid drained off it, became a lot of its own: another batch draws it. */
  'pot.taken': {
    mass_g: number;
    how: PotTakenHow;
    lotId: string;
    itemId: string;
    name: string;
    label: string;
    /** Money for a gram, decimal text: its share of what went into the pot. */
    unitCost: string;
  };
  /** What an instrument showed all along a cook, kept beside the record in chunks: it names them by the last of their chained hashes. */
  'curve.kept': AtPlace & {
    curveId: string;
    stepId: string;
    from: string;
    to: string;
    readings: number;
    chunks: number;
    lowest_C: number;
    highest_C: number;
    /** SHA-256 over the hash before and a chunk's text, from one chunk to the next. */
    hash: string;
  } & ByInstrument;
  /** `named` repeats what stood out in the evidence, written up or corrected, as it was signed. */
  'jars.released': { jars: number[]; evidence: GateEvidence[]; named: string[] };
  /** What was released is called back, by somebody who may sign: it is held from then on, wherever it stands. */
  'jars.withdrawn': { jars: number[]; why: string };
  'outlet.opened': OutletBody;
  /** The words of the labels of released jars, and how they lie on what they are printed on, so that the same sheet can be printed again. */
  'labels.printed': {
    jars: number[];
    size: JarSizeId;
    design: LabelDesign;
    stock: LabelStock;
    look: LabelLook;
    container: Container;
    codes: LabelCode[];
    /** Labels of the first sheet that are gone already. */
    start: number;
    /** Labels printed beyond those of the jars. */
    spares: number;
    label: LabelContent;
    /** What the person who printed it read against the batch; empty where the same words had been read before. */
    read: LabelRead[];
  };
  /** What became of the labels of a print, counted once more each time: stuck on, spoiled, and destroyed because their jars may not go out. */
  'labels.counted': { printId: string; used: number; spoiled: number; destroyed: number };
  /** `outOfOrder` says why it comes before a step that is still open; empty where it is in order. A pot is one of several of this batch, `1` first; null for all of them. */
  'step.started': AtPlace & { stepId: string; outOfOrder: string };
  /** `ended`: how a cook step was seen to be done; null for steps that are not asked, and where nobody said. */
  'step.done': AtPlace & { stepId: string; ended: Ended | null; outOfOrder: string };
  'line.weighed': AtPlace & { lineId: string; mass_g: number } & ByInstrument;
  /** Something went in that the recipe does not name: cooked first, written down afterwards. */
  'line.added': { line: Line };
  /** A measure that later amounts hang on, such as the juice. */
  'measure.taken': AtPlace & {
    stepId: string;
    quantity: number;
    unit: 'g' | 'mL';
    /** How it came through the cloth; null where nothing was strained, or nobody said. */
    how: StrainedHow | null;
    /** What several strainers gave, together the quantity; empty for one. */
    from: number[];
  };
  /** Taken from the shelf without a connection, whatever the books had of it: the kitchen draws it when it arrives. */
  'lot.used': { lotId: string; lineId: string | null; quantity: number; unit: 'g' | 'mL' | 'each' };
  /** Why more or less came out than was foreseen. */
  /** How much is in a pot while it cooks: grams without the pot, or millimetres of depth. It moves the forecast, and proves nothing. */
  'level.read': AtPlace & { stepId: string; of: 'weight' | 'depth'; quantity: number };
  'yield.explained': { reason: string };
  'temperature.read': AtPlace & {
    where: 'pot' | 'canner' | 'jar';
    /** The separated part it was read in; empty for the whole pot. */
    part: string;
    temp_C: number;
  } & ByInstrument;
  /** Soluble solids read by a refractometer, of the whole pot or of a separated part. */
  'solids.read': AtPlace & { part: string; brix_pct: number } & ByInstrument;
  'jars.filled': AtPlace & {
    size: JarSizeId;
    jars: number[];
    jarLotId: string | null;
    lidLotId: string | null;
    /** Headspace as measured, where it departs from what was asked for; null where it was right. */
    headspace_mm: number | null;
    /** What closes them, where it is no flat lid with a band; empty where it is. */
    closure: string;
  };
  /** Empty jars were boiled in water for so long, to be sterile. */
  'jars.boiled': { minutes: number };
  /** Filled jars weighed, each less what it weighed empty; and what is left of the pot beside full jars. */
  'jars.weighed': { jars: { jar: number; net_g: number }[]; left_g: number };
  'dose.given': { lineId: string; jars: number[] };
  'dose.missed': { lineId: string; jars: number[] };
  /** What left the bottle or the packet for the jars dosed so far, by its mark or on the scale. */
  'dose.checked': { lineId: string; quantity: number; unit: 'g' | 'mL' };
  /** Filling is done: where the rest of the pot, or of the brine, went. */
  'left.over': { went: LeftOverWent; what: 'pot' | 'brine'; mass_g: number | null; text: string };
  /**
   * Food that was refrigerated comes back into the pot, to be boiled once and filled as a filling of its own. How it cooled is
   * asked of food that is not acid yet.
   */
  'leftover.back': {
    refrigeratedAt: string;
    boiled: boolean;
    cooled: { at: string; temp_C: number }[];
  };
  /** Something took the place of a line of the recipe at the pot: the same line, of something else or of another strength. */
  'line.replaced': { lineId: string; line: Line };
  /** A pot that held an allergen was washed, or was not, before this batch went in. */
  'pot.washed': { washed: boolean; allergens: string[] };
  /** What a jar is for that goes along: to be opened for the reading, kept for its lot, or for sale after all. */
  'jars.marked': { jars: number[]; for: MarkedFor };
  /** A picture, kept beside the record by its hash. */
  'picture.kept': { paperId: string; sha256: string; of: string | null; text: string };
  'canner.lit': { cannerId: string | null; burnerId: string | null };
  'load.packed': {
    loadId: string;
    number: number;
    jars: number[];
    newLidLotId: string | null;
    /** The kitchen's canner; null for the first. */
    cannerId: string | null;
    /** Null for the heat the batch was started with. */
    heat: 'boiling water' | 'steam' | null;
  };
  'load.boiling': { loadId: string };
  'load.boil_lost': { loadId: string; lost: BoilLoss };
  'load.heat_off': { loadId: string };
  'load.lifted': { loadId: string };
  'jars.set_aside': { jars: number[]; why: SetAsideReason };
  'jars.moved': { jars: number[]; to: ColdPlace };
  /** Pressed with the thumb, looked at as the bands came off for labelling, or, of another closure, as its letter proves it. */
  'jars.pressed': { sealed: number[]; failed: number[]; how: SealProof };
  /** Before market: bands off, washed, looked at, and a clean band on. */
  'jars.market_checked': { jars: number[]; done: MarketStep[] };
  /** Jars that were looked at after they had cooled. It proves nothing and holds nothing: it is what is learned. */
  'jars.looked': { jars: number[]; set: SetSeen | null; found: JarFault[]; text: string };
  /** The finished food of one jar, which is open after it. */
  'ph.read': AcidityReading & { jar: number; instrumentId: string | null };
  /** A blended sample before filling: a fault is found while it can be mended. It proves nothing of a jar. */
  'pot.ph_read': AtPlace & {
    ph: number;
    temp_C: number;
    method: 'meter' | 'paper';
    replicates: number[];
    instrumentId: string | null;
  };
  /** The buffer below the limit, read again: it stands behind the readings since it was last read. `calibratedAt` names the calibration. */
  'meter.rechecked': { calibratedAt: string; reads_ph: number; temp_C: number; instrumentId: string | null };
  'minutes.worked': { minutes: number };
  /** Worked on several batches at once: the others share the minutes. */
  'minutes.shared': { minutes: number; with: string[] };
  /** Opening, cleaning and closing the kitchen: shared by the batches of the day. */
  'kitchen.worked': { minutes: number };
  /** A burner was on for so long. */
  'energy.used': { burnerId: string; minutes: number };
  'note.written': { text: string };
  /** What was done about a deviation, why it came about, and what shows it. Only *shown right* can settle it, where it can be settled. */
  'deviation.settled': {
    key: string;
    reason: string;
    minutes: number | null;
    action: CorrectiveAction;
    cause: string;
    paper: PaperRef | null;
  };
  /** A second person looked at what was done about it. */
  'deviation.looked': { key: string; agrees: boolean; text: string };
  'entry.corrected': Correction;
  /** Somebody with the right to sign stands behind a correction that makes the evidence of safety better. */
  'correction.signed': { correctionId: string };
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
  'pot.taken',
  'curve.kept',
  'jars.released',
  'jars.withdrawn',
  'labels.printed',
  'outlet.opened',
] as const;
/** An entry the server decides ({@link DECISION_TYPES}). */
export type DecisionType = (typeof DECISION_TYPES)[number];
/** An entry that says what happened, and is never refused for what it says. */
export type FactType = Exclude<EventType, DecisionType>;
/** Facts a correction may replace: all but corrections themselves, and who signed them. */
export type CorrectableType = Exclude<FactType, 'entry.corrected' | 'correction.signed'>;

/** Names the entry it replaces; `body` null takes it back. The replaced entry stays in the record. */
export interface Correction {
  replaces: string;
  type: CorrectableType;
  body: EventBodies[CorrectableType] | null;
  /** Shape of `body`, as {@link VERSIONS} counts the shapes of its type. */
  bodyVersion: number;
  /** A corrected time, or null to keep the first. */
  occurredAt: string | null;
  reason: string;
}

interface Placed extends Stamp {
  kitchenId: string;
  batchId: string;
  /** The server's half of the envelope; null while the entry is still on its device. */
  receipt: Receipt | null;
}

/** One entry of a batch's record. */
export type BatchEvent<T extends EventType = EventType> = {
  [K in T]: Placed & { type: K; body: EventBodies[K] };
}[T];

/** An entry as it came back from the server: with its receipt and its place in the kitchen's chain. */
export type SequencedEvent = BatchEvent & { receipt: Receipt; hash: string };

/** Whether the server decides such an entry; a correction may not touch it. */
export function isDecision(type: EventType): type is DecisionType {
  return (DECISION_TYPES as readonly EventType[]).includes(type);
}
