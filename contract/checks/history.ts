import { CORRECTIVE_ACTIONS, JAR_FAULTS, type LoadPhase, PURPOSES } from '@cocotte/core/batches';
import type { CheckedBatch, DeviationRecord, SealCount } from '@cocotte/core/checks';
import { FOOD_CLASSES } from '@cocotte/core/recipes';
import { endpoint } from '../endpoint.ts';
import { jarSizeRule } from '../recipes/recipe-rules.ts';
import {
  choice,
  day,
  decimal,
  dictionary,
  figure,
  flag,
  instant,
  list,
  maybe,
  shape,
  text,
  uuid,
} from '../rules.ts';

const count = figure({ min: 0, max: 1e9, whole: true, name: 'The count' });
const at_ms = figure({ min: 0, max: 1e14, name: 'The instant' });
const seconds = maybe(figure({ min: 0, max: 1e9, name: 'The seconds' }));
const ph = figure({ min: 0, max: 14, name: 'The pH' });
const words = text({ max: 1000 });
const grams = figure({ min: 0, max: 1e6, name: 'The weight in grams' });
const phase = choice<LoadPhase>([
  'packed',
  'boiling',
  'boil lost',
  'resting',
  'processed',
  'short',
  'unverified',
  'no time',
]);
const deviation = shape<DeviationRecord>({
  key: text({ max: 400 }),
  code: text({ max: 60 }),
  kind: choice(['above the limit', 'acid', 'process', 'entry'] as const),
  what: words,
  jars: maybe(list(count, { max: 2000 })),
  state: choice(['open', 'settled', 'gone'] as const),
  actions: list(
    shape<DeviationRecord['actions'][number]>({
      action: choice(CORRECTIVE_ACTIONS),
      reason: words,
      cause: words,
      paperId: maybe(uuid),
      personId: uuid,
      at_ms,
    }),
    { max: 500 },
  ),
  secondLook: maybe(
    shape<NonNullable<DeviationRecord['secondLook']>>({ agrees: flag, text: words, personId: uuid, at_ms }),
  ),
  settles: maybe(choice(['reason', 'minutes'] as const)),
  lifted_ms: maybe(at_ms),
  unseen: flag,
});
const seals = shape<SealCount>({
  lidLotId: maybe(uuid),
  size: jarSizeRule,
  load: count,
  cannerId: maybe(text({ max: 60 })),
  headspace_mm: maybe(figure({ min: 0, max: 100, name: 'The headspace' })),
  tried: count,
  failed: count,
});
const checked = shape<CheckHistory['batches'][number]>({
  batchId: uuid,
  recipeId: uuid,
  name: text({ max: 200 }),
  lotCode: text({ max: 60 }),
  madeOn: day,
  purpose: choice(PURPOSES),
  foodClass: choice(FOOD_CLASSES),
  phLimit: ph,
  phAct: ph,
  phForecast: maybe(shape<NonNullable<CheckedBatch['phForecast']>>({ low: ph, mid: ph, high: ph })),
  readings: list(
    shape<CheckedBatch['readings'][number]>({
      at_ms,
      jar: count,
      ph,
      u_ph: ph,
      counts: flag,
      calibratedAt: maybe(instant),
    }),
    { max: 2000 },
  ),
  loads: list(
    shape<CheckedBatch['loads'][number]>({
      number: count,
      canner: text({ max: 80 }),
      phase,
      required_s: seconds,
      time_s: seconds,
    }),
    { max: 500 },
  ),
  seals: list(seals, { max: 2000 }),
  nets: list(
    shape<CheckedBatch['nets'][number]>({
      size: jarSizeRule,
      declared_g: grams,
      nets: list(shape<{ jar: number; net_g: number }>({ jar: count, net_g: grams }), { max: 2000 }),
    }),
    { max: 20 },
  ),
  found: list(shape<CheckedBatch['found'][number]>({ fault: choice(JAR_FAULTS), jars: count }), {
    max: JAR_FAULTS.length,
  }),
  deviations: list(deviation, { max: 2000 }),
});

/** What was checked of the kitchen's batches, newest first. */
export interface CheckHistory {
  batches: (CheckedBatch & { batchId: string })[];
  /** Lid lots that are named in it: as they are called, and what is left of them. */
  lids: { lotId: string; label: string; name: string; left: number }[];
  /** What a jar cost of late, on the average; null before a batch was closed. Decimal text. */
  jarCost: string | null;
  /** Names of those who did something about a deviation. */
  people: Record<string, string>;
}
/** Batches whose checks are read at once: ten years of a busy kitchen. */
export const HISTORY_SHOWN = 2500;

/** What was checked of the kitchen's batches: readings, loads, seals, deviations. */
export const readCheckHistory = endpoint({
  name: 'checks.history',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/checks/history',
  who: 'viewer',
  summary: "What was checked of the kitchen's batches, newest first: readings, loads, seals, deviations",
  reply: shape<CheckHistory>({
    batches: list(checked, { max: HISTORY_SHOWN }),
    lids: list(
      shape<CheckHistory['lids'][number]>({
        lotId: uuid,
        label: text({ max: 80 }),
        name: text({ max: 120 }),
        left: figure({ min: -1e9, max: 1e9, name: 'What is left' }),
      }),
      { max: 2000 },
    ),
    jarCost: maybe(decimal({ min: -1e9, max: 1e9, name: 'The cost of a jar' })),
    people: dictionary(text({ max: 80 })),
  }),
});
