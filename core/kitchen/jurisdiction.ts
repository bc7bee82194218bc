import { addDays, type Day, dayText, type Figures } from '../measure/index.ts';
import {
  KEPT_POINTS,
  PLACE_POINTS,
  type PLACE_RULES,
  type PlaceFood,
  type PlacePoint,
} from './place-words.ts';

/** What a place says of one kind of food, and why. */
export interface PlaceRule {
  rule: (typeof PLACE_RULES)[number];
  why: string;
}
/** What a place says of each kind of food. */
export type FoodRules = { [K in PlaceFood]: PlaceRule };

/** What a place asks of a label, beyond what all labels say. */
export interface PlaceLabel {
  /** Whose general rules hold: 21 CFR 101 and what it asks, or Regulation (EU) 1169/2011 and what places kept of it. */
  rules: 'US' | 'EU';
  /** Least size of the statement's type in points; null where none is named. */
  statement_pt: number | null;
  /** What tells who made it: an address, or the number of a registration in its place. */
  maker: 'address' | 'address or number';
  /** The number of the registration stands on each label. */
  number: boolean;
  /** The day it was made stands on each label. */
  madeOn: boolean;
}

/** What is asked where a place says nothing of its own. */
export const PLAIN_LABEL: PlaceLabel = {
  rules: 'US',
  statement_pt: null,
  maker: 'address',
  number: false,
  madeOn: false,
};

/** What one place asks of who sells from a home kitchen: data, with a version, from memory unless it says otherwise. */
export interface Jurisdiction {
  id: string;
  name: string;
  version: number;
  fromMemory: boolean;
  source: string;
  foods: FoodRules;
  /** Highest pH it names for acidified food, or null. */
  phLimit: number | null;
  /** Where it may be sold. */
  outlets: string[];
  /** Sales in a year, decimal text; null for none. */
  ceiling: { amount: string; currency: string } | null;
  /** Training it asks for, in words; empty for none. */
  training: string;
  /** Registration, permit or approval it asks for, in words; empty for none. */
  registration: string;
  /** Sentence on each label, word for word; empty for none. */
  statement: string;
  label: PlaceLabel;
  /** An owner changed it by what the authority says: no longer as it ships. */
  edited: boolean;
}

/** A point as it was ticked: on which day, and until when it holds. */
export interface TickedPoint {
  point: PlacePoint;
  tickedOn: Day;
  /** Last day it holds, or null where it does not end. */
  renewsOn: Day | null;
}

/** The points that apply in a place: what it asks nothing of is not ticked. */
export function pointsOf(rules: Jurisdiction): PlacePoint[] {
  const applies: Record<PlacePoint, boolean> = {
    foods: true,
    outlets: true,
    ceiling: rules.ceiling !== null,
    training: rules.training !== '',
    registration: rules.registration !== '',
    statement: true,
    water: false,
    insurance: false,
  };
  return PLACE_POINTS.filter(p => applies[p]);
}

/** What a point is about, in words. */
export const POINT_WORDS: Record<PlacePoint, string> = {
  foods: 'which kinds of food it allows',
  outlets: 'where it may be sold',
  ceiling: 'the ceiling of a year',
  training: 'the training',
  registration: 'registration and permits',
  statement: 'the sentence on the label',
  water: 'the test of the water',
  insurance: 'the insurance',
};

/** Days ahead of its end at which a point of the place, or a letter, is told of: a course or a permit takes weeks. Our choice, from no source. */
export const TOLD_AHEAD_DAYS = 30;

/** Points that have run out, or will within a month, the first to end first. */
export function runsOut(
  { rules, points }: { rules: Jurisdiction | null; points: readonly TickedPoint[] },
  today: Day,
): { point: PlacePoint; renewsOn: Day; over: boolean }[] {
  if (!rules) return [];
  const applies: readonly PlacePoint[] = [...pointsOf(rules), ...KEPT_POINTS];
  const soon = addDays(today, TOLD_AHEAD_DAYS);
  return points
    .flatMap(({ point, renewsOn }) =>
      renewsOn !== null && applies.includes(point) && renewsOn <= soon
        ? [{ point, renewsOn, over: renewsOn < today }]
        : [],
    )
    .sort((a, b) => (a.renewsOn < b.renewsOn ? -1 : a.renewsOn > b.renewsOn ? 1 : 0));
}

/** Why a place does not allow a product to be sold, and what would. */
export interface PlaceFault {
  what: string;
  why: string;
  next: string;
}

/** What the second key is asked about. */
export interface PlaceQuestion {
  foodClass: PlaceFood | 'refused';
  /** It follows a process authority's letter: an approved process of its own. */
  hasLetter: boolean;
}

/**
 * Whether the place allows a product to be cooked for sale: the second of the two keys, asked before the pot is lit.
 *
 * @param profile  of the kitchen: the rules it chose, and what its owner ticked
 * @returns why not, and what would; null when it allows it
 */
export function placeFault(
  profile: { rules: Jurisdiction | null; points: readonly TickedPoint[] },
  { foodClass, hasLetter }: PlaceQuestion,
  today: Day,
  figures: Figures,
): PlaceFault | null {
  const { rules, points } = profile;
  const SETTINGS = 'An owner does it in the settings of the kitchen, under "What the place allows".';
  if (!rules)
    return {
      what: 'Nobody has said under whose rules this kitchen sells.',
      why: 'What may be sold from a home kitchen, and how, differs from place to place.',
      next: `Choose the place and tick its points. ${SETTINGS}`,
    };
  if (foodClass === 'refused')
    return {
      what: `${rules.name}: refused food is sold nowhere.`,
      why: 'No boiling-water process was ever tested for it.',
      next: 'Cook it for the freezer or the table.',
    };
  const food = rules.foods[foodClass];
  if (food.rule === 'not allowed')
    return {
      what: `${rules.name} does not allow ${foodClass === 'fruit spread' ? 'fruit spreads' : foodClass}.`,
      why: `${food.why} ${sourceText(rules)}`,
      next: 'Cook it for home, or ask the authority what licence would allow it.',
    };
  const missing = pointsOf(rules).filter(p => !points.some(t => t.point === p));
  if (missing.length > 0)
    return {
      what: `${rules.name}: not ticked yet are ${missing.map(p => POINT_WORDS[p]).join(', ')}.`,
      why: 'Shipped rules are recalled from memory: they may refuse, and never confirm.',
      next: `Ask the authority, then tick each point. ${SETTINGS}`,
    };
  const over = points.find(
    t => [...pointsOf(rules), ...KEPT_POINTS].includes(t.point) && t.renewsOn !== null && t.renewsOn < today,
  );
  if (over)
    return {
      what: `${rules.name}: ${POINT_WORDS[over.point]} ran out on ${dayText(over.renewsOn as Day, figures)}.`,
      why: 'What has run out allows nothing until it is renewed.',
      next: `Renew it, then tick it with its new end. ${SETTINGS}`,
    };
  if (food.rule === 'approved process' && !hasLetter)
    return {
      what: `${rules.name} asks for an approved process for ${foodClass}.`,
      why: `${food.why} A tested publication is not an approval. ${sourceText(rules)}`,
      next: "Give the recipe the process authority's letter, or cook it for home or as a trial.",
    };
  return null;
}

const sourceText = (rules: Jurisdiction): string =>
  `${rules.source}${rules.fromMemory ? ' (from memory)' : ''}${rules.edited ? ', as this kitchen changed it' : ''}.`;
