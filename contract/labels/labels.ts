import {
  LABEL_DESIGNS,
  LABEL_READS,
  type LabelRead,
  type LabelStock,
  type LotPattern,
  type Stamp,
} from '@cocotte/core/batches';
import type { JarSizeId } from '@cocotte/core/jars';
import { LABEL_SCANS, NET_FORMS, type LabelSetup, type OutOfDate } from '@cocotte/core/labels';
import { type BatchView, batchParams } from '../batches/batches.ts';
import { readBatch } from '../batches/index.ts';
import { lotPatternRule } from '../batches/decision-rules.ts';
import { stampRule } from '../batches/stamp-rules.ts';
import { jarNumbers } from '../batches/stove-rules.ts';
import { endpoint, fileEndpoint } from '../endpoint.ts';
import { jarSizeRule } from '../recipes/recipe-rules.ts';
import { choice, figure, flag, list, maybe, type Rule, shape, text, union, uuid } from '../rules.ts';
import { containerRule, lookRule, stockRule } from './label-rules.ts';

const batchView = (readBatch.reply as { rule: Rule<BatchView> }).rule;
const version = figure({ min: 0, max: 1e9, whole: true, name: 'The version' });
const grams = (name: string) => figure({ min: 0, max: 100, name });

const servingRule = shape<{ says: string; grams: number }>({
  says: text({ min: 1, max: 40, name: 'The serving' }),
  grams: figure({ min: 1, max: 1000, name: 'The grams of a serving' }),
});
type Nutrition = LabelSetup['nutrition'];
const nutritionRule = union<Nutrition>('how', {
  none: shape<Extract<Nutrition, { how: 'none' }>>({ how: choice(['none'] as const) }),
  calculated: shape<Extract<Nutrition, { how: 'calculated' }>>({
    how: choice(['calculated'] as const),
    serving: servingRule,
  }),
  entered: shape<Extract<Nutrition, { how: 'entered' }>>({
    how: choice(['entered'] as const),
    serving: servingRule,
    per100_g: shape<Extract<Nutrition, { how: 'entered' }>['per100_g']>({
      energy_kcal: figure({ min: 0, max: 900, name: 'Calories in 100 g' }),
      fat_g: grams('Fat'),
      saturated_g: grams('Saturated fat'),
      carbohydrate_g: grams('Carbohydrate'),
      fibre_g: grams('Fibre'),
      sugars_g: grams('Sugars'),
      addedSugars_g: grams('Added sugars'),
      protein_g: grams('Protein'),
      sodium_mg: figure({ min: 0, max: 40_000, name: 'Sodium in mg' }),
    }),
  }),
});
const setupRule = shape<LabelSetup>({
  design: choice(LABEL_DESIGNS),
  stockId: text({ min: 1, max: 40 }),
  look: lookRule,
  words: text({ max: 400, name: 'Your own words' }),
  keeping: text({ max: 200, name: 'The advice on keeping' }),
  shake: flag,
  diluteParts: maybe(figure({ min: 0.5, max: 20, name: 'The parts of water' })),
  groupSpices: flag,
  netForm: choice(NET_FORMS),
  nutrition: nutritionRule,
  fewSulphites: text({ max: 200, name: 'What shows it' }),
  scan: choice(LABEL_SCANS),
  bars: flag,
  numbers: list(
    shape<LabelSetup['numbers'][number]>({
      size: jarSizeRule,
      number: text({ max: 40, name: 'The item number' }),
    }),
    { max: 10 },
  ),
  containers: list(shape<LabelSetup['containers'][number]>({ size: jarSizeRule, container: containerRule }), {
    max: 10,
  }),
});
const setupView = shape<{ setup: LabelSetup; version: number }>({ setup: setupRule, version });
const recipeParams = shape<{ recipeId: string }>({ recipeId: uuid });

/** How the labels of a recipe are made; version 0 before anybody chose. */
export const readLabelSetup = endpoint({
  name: 'labels.setup',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/label-setups/:recipeId',
  who: 'viewer',
  summary: 'How the labels of a recipe are made; version 0 before anybody chose',
  params: recipeParams,
  reply: setupView,
});
/** Change how the labels of a recipe are made; a stale version is refused with the newer one. */
export const changeLabelSetup = endpoint({
  name: 'labels.change-setup',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/label-setups/:recipeId',
  who: 'cook',
  summary: 'Change how the labels of a recipe are made; a stale version is refused with the newer one',
  params: recipeParams,
  body: setupView,
  reply: setupView,
});

/** What a kitchen prints labels on, how its lot codes are put together, and where lots are shown. */
export interface LabelSettings {
  /** Blank labels beside those that ship. */
  stocks: LabelStock[];
  /** How far the printer prints to the right and below of where it should, mm. */
  offset_mm: { x: number; y: number };
  /** Of batches that are started from now on. */
  lots: LotPattern;
  /** Where anybody can read what stands on a label of a lot, as this server is reached from outside; empty for nowhere. */
  pagesAt: string;
}
/** The same as it stands, with the address of its pages, to which a lot code is added; null where they are off. */
export type LabelSettingsView = LabelSettings & { version: number; page: string | null };
const offset = (name: string) => figure({ min: -20, max: 20, name });
const settingsFields = {
  stocks: list(stockRule, { max: 60 }),
  offset_mm: shape<LabelSettings['offset_mm']>({
    x: offset('The offset to the right in mm'),
    y: offset('The offset downwards in mm'),
  }),
  lots: lotPatternRule,
  pagesAt: text({ max: 120, name: 'The address of the pages' }),
  version,
};
const settingsView = shape<LabelSettingsView>({ ...settingsFields, page: maybe(text({ max: 200 })) });
/** What this kitchen prints labels on, beside what ships, its lot codes, and whether lots have pages. */
export const readLabelSettings = endpoint({
  name: 'labels.settings',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/label-settings',
  who: 'viewer',
  summary:
    'What this kitchen prints labels on, beside what ships, its lot codes, and whether lots have pages',
  reply: settingsView,
});
/** Change them; a stale version is refused with the newer one. Pages of lots are opened and closed by an owner. */
export const changeLabelSettings = endpoint({
  name: 'labels.change-settings',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/label-settings',
  who: 'cook',
  summary:
    'Change what this kitchen prints labels on and its lot codes; a stale version is refused with the newer one. Pages of lots are opened and closed by an owner',
  body: shape<LabelSettings & { version: number }>(settingsFields),
  reply: settingsView,
});
/** What stands on the label of a lot, for anybody who has a jar of it in the hand. */
export const lotPage = fileEndpoint({
  name: 'labels.lot-page',
  path: '/lot/:page/:lotCode',
  who: 'anyone',
  summary: 'What stands on the label of a lot, for anybody; off unless an owner opened these pages',
  mediaType: 'text/html',
  params: shape<{ page: string; lotCode: string }>({
    page: text({ min: 1, max: 40 }),
    lotCode: text({ min: 1, max: 60 }),
  }),
});
/** A page that shows how far a printer is off, for one stock. */
export const labelCheckPage = fileEndpoint({
  name: 'labels.check-page',
  path: '/api/kitchens/:kitchenId/label-settings/:stockId/check.pdf',
  who: 'viewer',
  summary: 'A page that shows how far a printer is off, for one stock',
  mediaType: 'application/pdf',
  params: shape<{ stockId: string }>({ stockId: text({ min: 1, max: 40 }) }),
});

/** A sheet of labels that is decided on: for which released jars, by which setup. */
export interface PrintLabels {
  jars: number[];
  size: JarSizeId;
  /** The setup that was looked at: another one since is refused. */
  setupVersion: number;
  start: number;
  spares: number;
  /** What was read against the batch. */
  read: LabelRead[];
  stamp: Stamp;
}
/** Decide what the labels of released jars say; the sheet is then printed from it. */
export const printLabels = endpoint({
  name: 'labels.print',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/labels',
  who: 'cook',
  summary: 'Decide what the labels of released jars say; the sheet is then printed from it',
  params: batchParams,
  body: shape<PrintLabels>({
    jars: jarNumbers,
    size: jarSizeRule,
    setupVersion: version,
    start: figure({ min: 0, max: 3000, whole: true, name: 'The labels that are gone' }),
    spares: figure({ min: 0, max: 500, whole: true, name: 'The spare labels' }),
    read: list(choice(LABEL_READS), { max: LABEL_READS.length }),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** The label sheet at true size. */
export const labelSheet = fileEndpoint({
  name: 'labels.sheet',
  path: '/api/kitchens/:kitchenId/batches/:batchId/labels/:printId/sheet.pdf',
  who: 'viewer',
  summary: 'The label sheet at true size',
  mediaType: 'application/pdf',
  params: shape<{ batchId: string; printId: string }>({ batchId: uuid, printId: uuid }),
});

/** Print a sheet that was decided, label by label, on the label printer. */
export const printOnRoll = endpoint({
  name: 'labels.roll',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/labels/:printId/roll',
  who: 'cook',
  summary: 'Print labels that were decided on a label printer of this machine',
  params: shape<{ batchId: string; printId: string }>({ batchId: uuid, printId: uuid }),
  body: shape<{ printerId: string }>({ printerId: text({ min: 1, max: 40 }) }),
  reply: shape<{ printed: number }>({
    printed: figure({ min: 0, max: 100_000, whole: true, name: 'The labels printed' }),
  }),
});

/** A lot whose printed labels say something else than they would today. */
export interface TouchedLot extends OutOfDate {
  batchId: string;
  name: string;
}
/** Most lots that are looked through and told of, the newest. */
export const TOUCHED_MOST = 200;
/** Lots whose printed labels are out of date: by another place, a changed profile, a correction, other words. */
export const listTouchedLots = endpoint({
  name: 'labels.touched',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/label-settings/touched',
  who: 'viewer',
  summary: 'Lots whose printed labels are out of date, with what they would say otherwise',
  reply: shape<{ lots: TouchedLot[] }>({
    lots: list(
      shape<TouchedLot>({
        batchId: uuid,
        name: text({ max: 120 }),
        printId: uuid,
        lotCode: text({ max: 60 }),
        jars: jarNumbers,
        changes: list(
          shape<TouchedLot['changes'][number]>({
            name: text({ max: 60 }),
            was: text({ max: 4000 }),
            is: text({ max: 4000 }),
          }),
          { max: 20 },
        ),
      }),
      { max: 5 * TOUCHED_MOST },
    ),
  }),
});
