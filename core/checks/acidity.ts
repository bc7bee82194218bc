import {
  AGREE_PH,
  COOLED_HOURS,
  EQUILIBRIUM_HOURS,
  evidenceFaults,
  PH_LIMIT,
  readAbove,
  readPh,
  uncertaintyOf,
} from '../acid/index.ts';
import { type BatchState, readWhen, textureOf } from '../batches/index.ts';
import { type Figures, numberText, PLAIN_FIGURES } from '../measure/index.ts';
import type { FoodClass } from '../recipes/index.ts';
import { type Condition, condition } from './condition.ts';

/** Food whose acid was added or grew in it is released on a reading of its finished pH. */
export function needsReading(foodClass: FoodClass): boolean {
  return foodClass === 'acidified food' || foodClass === 'fermented food';
}

/** A reading of a batch. */
type Read = BatchState['readings'][number];

/** Hours after which two readings are a day apart. Our choice: from one evening to the next day's. */
const DAY_APART_H = 20;
/** Readings are of one sitting for so long. Our choice. */
const SITTING_H = 4;
/** What rounding of doubles may add to a sum. */
const ROUNDING = 1e-9;

/** Why a reading of a batch is no evidence by itself; empty where it is. */
export const faultsOfReading = (
  state: BatchState,
  reading: Read,
  figures: Figures = PLAIN_FIGURES,
): string[] => evidenceFaults(reading, readWhen(state, reading), figures);

/** What readings together show, see {@link acidityOf}. */
export interface AcidityShown {
  /** Readings that count by themselves, at or below the limit. */
  counting: Read[];
  /** Readings that together show equilibrium; empty while none do. */
  equilibrium: Read[];
  /** How they show it. */
  how: 'solids and brine agree' | 'two days agree' | 'cooled' | 'a laboratory' | null;
  /** Of those that count, the highest with its uncertainty; null while none counts. */
  highest: number | null;
  /** One of them lies above what the kitchen acts at. */
  near: boolean;
  /** One of them may lie above the limit. */
  unsure: Read | null;
  /** One was of the tightest jar, or nothing is packed by pieces. */
  tightest: boolean;
}

/**
 * What the readings of a batch show together. Pieces have come to equilibrium where their solids agree with the brine of the
 * same jar, or two readings a day apart agree; what is crushed after a day; what is smooth once it has cooled. A laboratory
 * says so itself.
 *
 * @example
 * const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
 * acidityOf(fold(batch.events)).how; // null
 */
export function acidityOf(state: BatchState): AcidityShown {
  const started = state.started as NonNullable<BatchState['started']>;
  const { phLimit, phAct, recipe } = started;
  const counting = state.readings.filter(
    r => !readAbove(r, phLimit) && faultsOfReading(state, r).length === 0,
  );
  const most = (r: Read) => readPh(r) + uncertaintyOf(r, r.recheck_off).u_ph;
  const [how, equilibrium] = shownBy(counting, textureOf(recipe) === 'pieces');
  return {
    counting,
    equilibrium,
    how,
    highest: counting.length === 0 ? null : Math.max(...counting.map(most)),
    near: counting.some(r => most(r) > phAct + ROUNDING),
    unsure: counting.find(r => most(r) > phLimit + ROUNDING) ?? null,
    tightest: recipe.packing === null || counting.some(r => r.tightest),
  };
}

function shownBy(counting: readonly Read[], pieces: boolean): [AcidityShown['how'], Read[]] {
  const laboratory = counting.find(r => r.method === 'laboratory');
  if (laboratory) return ['a laboratory', [laboratory]];
  if (!pieces) return counting.length > 0 ? ['cooled', counting.slice(-1)] : [null, []];
  const agree = (a: Read, b: Read) => Math.abs(readPh(a) - readPh(b)) <= AGREE_PH + ROUNDING;
  const hours = (a: Read, b: Read) => Math.abs(a.by.at_ms - b.by.at_ms) / 3_600_000;
  for (const solids of counting)
    if (solids.sample === 'solids')
      for (const brine of counting)
        if (
          brine.sample === 'brine' &&
          brine.jar === solids.jar &&
          hours(solids, brine) <= SITTING_H &&
          agree(solids, brine)
        )
          return ['solids and brine agree', [solids, brine]];
  // Brine alone says nothing of the middle of a piece, however often it is read.
  const ofPieces = counting.filter(r => r.sample !== 'brine');
  for (const one of ofPieces)
    for (const other of ofPieces)
      if (hours(one, other) >= DAY_APART_H && agree(one, other)) return ['two days agree', [one, other]];
  return [null, []];
}

/**
 * What was read of its acidity: one reading above the limit holds it, whatever else was read; acidified and
 * fermented food also needs readings that count.
 */
export function acidityConditions(state: BatchState): Condition[] {
  const started = state.started as NonNullable<BatchState['started']>;
  const { kitchen, phLimit: limit } = started;
  const ph = (value: number) => numberText(value, kitchen);
  const above = state.readings.filter(r => readAbove(r, limit));
  const out: Condition[] = [];
  if (above.length > 0) {
    const highest = (r: Read) => Math.max(r.ph, ...r.replicates);
    const worst = above.reduce((a, r) => (highest(r) > highest(a) ? r : a));
    out.push(
      condition({
        code: 'ph-limit',
        title: `No reading above pH ${ph(limit)}`,
        met: false,
        evidence: `Jar ${worst.jar} read pH ${ph(highest(worst))}.`,
        why:
          limit < PH_LIMIT
            ? `The letter sets ${ph(limit)}; above ${ph(PH_LIMIT)} botulism can grow in a sealed jar (21 CFR 114, from memory).`
            : `Above ${ph(PH_LIMIT)} botulism can grow in a sealed jar (21 CFR 114.80, from memory).`,
        next: 'Refrigerate or destroy the batch. Only a reading that was entered wrongly can be corrected, with the reason, by somebody who may sign.',
        jars: null,
        against: true,
      }),
    );
  }
  const shown = acidityOf(state);
  out.push(...beforeFilling(state, shown));
  if (needsReading(started.recipe.foodClass)) out.push(equilibriumCondition(state, shown, above.length > 0));
  return out;
}

/**
 * A sample above the limit before filling holds what was filled of it, until one that was read after it was mended lies at or
 * below, or two finished jars show that they are acid enough.
 */
function beforeFilling(state: BatchState, { counting, unsure }: AcidityShown): Condition[] {
  const { phLimit, kitchen } = state.started as NonNullable<BatchState['started']>;
  const last = new Map(state.potReadings.map(r => [r.potId, r]));
  const bad = [...last.values()].find(r => readAbove(r, phLimit));
  if (!bad) return [];
  const jars = new Set(counting.map(r => r.jar)).size;
  return [
    condition({
      code: 'ph-before',
      title: 'Acid enough before it was filled',
      met: jars >= 2 && unsure === null,
      evidence:
        jars >= 2 && unsure === null
          ? `Before filling it read pH ${numberText(readPh(bad), kitchen)}; ${jars} finished jars were read since, all at or below ${numberText(phLimit, kitchen)}.`
          : `Before filling it read pH ${numberText(readPh(bad), kitchen)}, above ${numberText(phLimit, kitchen)}.`,
      why: 'What is not acid enough in the pot is not acid enough in the jar.',
      next: 'Add the acid the recipe asks for, stir, and read it again before it is filled. Once it is filled, two finished jars have to show it.',
      jars: null,
      against: true,
      proof: counting.map(r => r.by),
    }),
  ];
}

/**
 * Whether readings that count show that it is acid enough. Above what the kitchen acts at one jar is not enough: a second,
 * tightest one is read, and each has to be at or below the limit with its uncertainty.
 */
function equilibriumCondition(state: BatchState, shown: AcidityShown, above: boolean): Condition {
  const { kitchen, phLimit: limit, phAct, recipe } = state.started as NonNullable<BatchState['started']>;
  const ph = (value: number) => numberText(value, kitchen);
  const { counting, how, unsure, near } = shown;
  const last = state.readings.at(-1);
  const best = counting.at(-1);
  const one = near && new Set(counting.map(r => r.jar)).size < 2;
  const u = (r: Read) => ph(uncertaintyOf(r, r.recheck_off).u_ph);
  const read = best
    ? `Jar ${best.jar} read pH ${ph(readPh(best))} ± ${u(best)} at ${numberText(best.temp_C, kitchen)} °C, ${Math.floor(best.hours ?? 0)} h after its load was lifted${how ? `; ${HOW[how]}` : ''}.`
    : '';
  const lacks: [string, string] | null =
    above || !best
      ? [
          last
            ? `The last reading does not count: ${faultsOfReading(state, last, kitchen).join('; ') || `pH ${ph(last.ph)} is above ${ph(limit)}`}.`
            : 'No reading is entered.',
          nextReading(recipe),
        ]
      : unsure
        ? [
            `Jar ${unsure.jar} read pH ${ph(readPh(unsure))}: with its uncertainty of ${u(unsure)} it may be above ${ph(limit)}.`,
            'Refrigerate it, or have a laboratory read it; find out why it is so little acid.',
          ]
        : how === null
          ? [
              `${read} Whether the middle of the pieces is as acid is not shown.`,
              `Read solids and brine of one jar apart: within ${ph(AGREE_PH)} they agree. Or read a second jar a day after the first.`,
            ]
          : one
            ? [
                `${read} Above ${ph(phAct)}, with what it may err, one jar is not enough.`,
                `Read a second jar, the tightest packed; both at or below ${ph(limit)} with what they may err release it.`,
              ]
            : !shown.tightest
              ? [
                  `${read} None of them was the tightest jar.`,
                  'Read the jar that is packed the tightest: it holds the least acid.',
                ]
              : null;
  return condition({
    code: 'ph-evidence',
    title: `Equilibrium pH at or below ${ph(limit)}`,
    met: lacks === null,
    evidence:
      lacks?.[0] ?? `${read}${near ? ` Above ${ph(phAct)}: careful producers look for the cause.` : ''}`,
    why: 'An acidified food is released on its finished equilibrium pH (21 CFR 114.80 and 114.90, from memory).',
    next: lacks?.[1] ?? '',
    jars: null,
    proof: [...new Set([...shown.equilibrium, ...(near || best === undefined ? counting : [best])])].map(
      r => r.by,
    ),
  });
}

const HOW: { readonly [K in NonNullable<AcidityShown['how']>]: string } = {
  'solids and brine agree': 'its solids and its brine agree',
  'two days agree': 'two readings a day apart agree',
  cooled: 'as it was cut, it is the same all through',
  'a laboratory': 'by a laboratory',
};

/** How the next jar is read, by what is in it. */
function nextReading(recipe: NonNullable<BatchState['started']>['recipe']): string {
  const texture = textureOf(recipe);
  const least = texture === 'smooth' ? COOLED_HOURS : EQUILIBRIUM_HOURS;
  return `Open a jar ${least} h or more after processing, ${texture === 'pieces' ? 'blend its solids, and its brine apart' : 'blend it'}, bring it to 20-30 °C, and read it on a meter calibrated that day.`;
}
