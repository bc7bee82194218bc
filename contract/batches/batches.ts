import {
  POT_TAKEN_HOW,
  type PotTakenHow,
  PURPOSES,
  type Purpose,
  type SequencedEvent,
  type Stamp,
} from '@cocotte/core/batches';
import type { BatchSummary, Due, Running, Stage } from '@cocotte/core/checks';
import type { JarsWanted } from '@cocotte/core/recipes';
import { endpoint, fileEndpoint } from '../endpoint.ts';
import {
  type Rule,
  choice,
  day,
  decimal,
  dictionary,
  figure,
  flag,
  list,
  maybe,
  shape,
  text,
  uuid,
} from '../rules.ts';
import { learnedRule, trialReading } from '../recipes/past-rules.ts';
import { jarNumbers } from './stove-rules.ts';
import { jarsWantedRule } from './decision-rules.ts';
import { sequencedRule } from './event-rules.ts';
import { stampRule } from './stamp-rules.ts';

const count = figure({ min: 0, max: 1e9, whole: true, name: 'The count' });
const instant_ms = figure({ min: 0, max: 1e14, name: 'The instant' });
const stage = choice<Stage>(['cooking', 'checking', 'released', 'closed']);
const running = shape<Running>({
  kind: choice(['load', 'rest', 'wait'] as const),
  id: text({ max: 60 }),
  title: text({ max: 300 }),
  detail: text({ max: 80 }),
  since_ms: instant_ms,
  until_ms: instant_ms,
  latest_ms: maybe(instant_ms),
});
const due = shape<Due>({
  kind: choice([
    'press',
    'acidity',
    'settle',
    'sign',
    'reprocess',
    'held',
    'release',
    'label',
    'look',
    'look again',
    'ask back',
  ] as const),
  from_ms: instant_ms,
  count,
  next: text({ max: 1000 }),
});
const summary = shape<BatchSummary>({
  lotCode: text({ max: 40 }),
  name: text({ max: 80 }),
  purpose: choice(PURPOSES),
  madeOn: day,
  stage,
  jars: count,
  released: count,
  labelled: count,
  forms: dictionary(count) as Rule<BatchSummary['forms']>,
  running: list(running, { max: 200 }),
  due: list(due, { max: 20 }),
  yield: maybe(
    shape<NonNullable<BatchSummary['yield']>>({
      expected_pints: figure({ min: 0, max: 1e6, name: 'The pints' }),
      foreseen: flag,
      actual_pints: figure({ min: 0, max: 1e6, name: 'The pints' }),
      reasons: list(text({ max: 400 }), { max: 100 }),
    }),
  ),
  readings: list(trialReading, { max: 1000 }),
  learned: learnedRule,
  asksMore: list(text({ max: 200 }), { max: 200 }),
});

/** A batch as lists show it: its summary, without its record. */
export interface BatchRow {
  id: string;
  summary: BatchSummary;
  lastSeq: number;
}
/** Rule of a row of a list of batches. */
export const batchRow = shape<BatchRow>({ id: uuid, summary, lastSeq: count });
/** Params of an endpoint that is about one batch. */
export const batchParams = shape<{ batchId: string }>({ batchId: uuid });

/** Batches, newest first, 50 a page; by stage, by being asked more by the rules of today, or by words in name and lot code. */
export const listBatches = endpoint({
  name: 'batches.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/batches',
  who: 'viewer',
  summary:
    'Batches, newest first, 50 a page; by stage, by being asked more by the rules of today, or by words in name and lot code',
  query: shape<{ after: string; search: string; stage: string }>({
    after: text({ max: 200 }),
    search: text({ max: 100 }),
    stage: choice(['', 'cooking', 'checking', 'released', 'closed', 'open', 'asks more']) as never,
  }),
  reply: shape<{ batches: BatchRow[]; next: string | null }>({
    batches: list(batchRow, { max: 50 }),
    next: maybe(text({ max: 200 })),
  }),
});

/** A batch with its whole record; whoever reads it folds the events. */
export interface BatchView {
  id: string;
  events: SequencedEvent[];
  /** Names of the people in the record. */
  people: Record<string, string>;
  lastSeq: number;
}
export const batchView = shape<BatchView>({
  id: uuid,
  events: list(sequencedRule, { max: 100_000 }),
  people: dictionary(text({ max: 80 })),
  lastSeq: count,
});

/** A batch: every entry of its record. */
export const readBatch = endpoint({
  name: 'batches.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/batches/:batchId',
  who: 'viewer',
  summary: 'A batch: every entry of its record',
  params: batchParams,
  reply: batchView,
});

/** What a start decides: which version of which recipe, at what scale, for what, and in what heat. */
export interface StartBatch {
  batchId: string;
  recipeId: string;
  recipeVersion: number;
  purpose: Purpose;
  factor: string;
  jars: JarsWanted[];
  heat: 'boiling water' | 'steam';
  /** Pot it is cooked in, of the kitchen's; null where none is on record. */
  potId: string | null;
  /** Ordinary pectin is doubled all the same. */
  doublePectin: boolean;
  stamp: Stamp;
}
/** Start a batch of a recipe for a purpose (a decision). */
export const startBatch = endpoint({
  name: 'batches.start',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches',
  who: 'cook',
  summary: 'Start a batch of a recipe for a purpose (a decision)',
  body: shape<StartBatch>({
    batchId: uuid,
    recipeId: uuid,
    recipeVersion: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
    purpose: choice(PURPOSES),
    factor: text({ min: 1, max: 60, name: 'The factor' }),
    jars: jarsWantedRule,
    heat: choice(['boiling water', 'steam'] as const),
    potId: maybe(text({ min: 1, max: 40 })),
    doublePectin: flag,
    stamp: stampRule,
  }),
  reply: batchView,
});

/** So much out of one lot, for a line of the recipe or, with none, for jars, lids and what else is counted. */
export interface DrawLine {
  lotId: string;
  lineId: string | null;
  quantity: string;
}
/** Lots that are drawn together: all of them or none. */
export interface DrawLots {
  lots: DrawLine[];
  stamp: Stamp;
}
/** Draw lots into a batch (a decision): all of them or none. */
export const drawLots = endpoint({
  name: 'batches.draw',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/draws',
  who: 'cook',
  summary: 'Draw lots into a batch (a decision): all of them or none',
  params: batchParams,
  body: shape<DrawLots>({
    lots: list(
      shape<DrawLine>({
        lotId: uuid,
        lineId: maybe(text({ min: 1, max: 40 })),
        quantity: decimal({ min: 0, above: true, max: 1e9, name: 'The quantity' }),
      }),
      { min: 1, max: 200 },
    ),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** Put a draw back into its lots, with the reason (a decision). */
export const reverseDraw = endpoint({
  name: 'batches.reverseDraw',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/draws/:drawId/reversal',
  who: 'cook',
  summary: 'Put a draw back into its lots, with the reason (a decision)',
  params: shape<{ batchId: string; drawId: string }>({ batchId: uuid, drawId: uuid }),
  body: shape<{ reason: string; stamp: Stamp }>({
    reason: text({ min: 3, max: 300, name: 'The reason' }),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** What was drawn and came back: to which lots, how much, and why. */
export interface ReturnLots {
  lots: { lotId: string; quantity: string }[];
  reason: string;
  stamp: Stamp;
}
/** Bring part of what was drawn back to its lot, such as bands from jars kept at home (a decision); lids and food do not come back. */
export const returnLots = endpoint({
  name: 'batches.returnLots',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/returns',
  who: 'cook',
  summary:
    'Bring part of what was drawn back to its lot, such as bands from jars kept at home (a decision); lids and food do not come back',
  params: batchParams,
  body: shape<ReturnLots>({
    lots: list(
      shape<ReturnLots['lots'][number]>({
        lotId: uuid,
        quantity: decimal({ min: 0, above: true, max: 1e9, name: 'The quantity' }),
      }),
      { min: 1, max: 50 },
    ),
    reason: text({ min: 3, max: 300, name: 'The reason' }),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** Finished jars that become a lot of an ingredient. */
export interface TakeJars {
  jars: number[];
  lotId: string;
  itemId: string;
  label: string;
  stamp: Stamp;
}
/** Take finished jars into the kitchen as a lot of an ingredient (a decision): it carries their lot code, ingredients, allergens and cost. */
export const takeJars = endpoint({
  name: 'batches.takeJars',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/takings',
  who: 'cook',
  summary:
    'Take finished jars into the kitchen as a lot of an ingredient (a decision): it carries their lot code, ingredients, allergens and cost',
  params: batchParams,
  body: shape<TakeJars>({
    jars: jarNumbers,
    lotId: uuid,
    itemId: uuid,
    label: text({ min: 1, max: 40, name: 'The lot name' }),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** So much of the pot, weighed, that becomes a lot of an ingredient. */
export interface TakeFromPot {
  mass_g: number;
  how: PotTakenHow;
  lotId: string;
  itemId: string;
  label: string;
  stamp: Stamp;
}
/** Take some of the pot as a lot of an ingredient (a decision): a second product is a batch of its own that draws it, with its share of the cost. */
export const takeFromPot = endpoint({
  name: 'batches.takeFromPot',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/pot-takings',
  who: 'cook',
  summary:
    'Take some of the pot as a lot of an ingredient (a decision): a second product is a batch of its own that draws it, with its share of the cost',
  params: batchParams,
  body: shape<TakeFromPot>({
    mass_g: figure({ min: 0, above: true, max: 1_000_000, name: 'The weight in grams' }),
    how: choice(POT_TAKEN_HOW),
    lotId: uuid,
    itemId: uuid,
    label: text({ min: 1, max: 40, name: 'The lot name' }),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** Print a small mark for the lid of each jar of a load, lot and load, on a label printer beside the server. */
export const printLidMarks = endpoint({
  name: 'batches.lidMarks',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/loads/:loadId/lid-marks',
  who: 'cook',
  summary:
    'Print a small mark for the lid of each jar of a load, lot and load, on a label printer beside the server',
  params: shape<{ batchId: string; loadId: string }>({ batchId: uuid, loadId: uuid }),
  body: shape<{ printerId: string }>({ printerId: text({ min: 1, max: 40 }) }),
  reply: shape<{ printed: number }>({ printed: count }),
});
/** A sheet with the targets, to cook from and write on. */
export const blankSheet = fileEndpoint({
  name: 'batches.blankSheet',
  path: '/api/kitchens/:kitchenId/batches/:batchId/blank.pdf',
  who: 'viewer',
  summary: 'A sheet with the targets, to cook from and write on',
  params: batchParams,
  mediaType: 'application/pdf',
});

/** What runs and what is due: every batch that is not finished. */
export const readToday = endpoint({
  name: 'today.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/today',
  who: 'viewer',
  summary: 'What runs and what is due: every batch that is not finished',
  reply: shape<{ batches: BatchRow[]; more: boolean; waiting: Record<'cook' | 'check' | 'label', number> }>({
    batches: list(batchRow, { max: 200 }),
    more: flag,
    waiting: shape<Record<'cook' | 'check' | 'label', number>>({ cook: count, check: count, label: count }),
  }),
});
