import type { Amount, UnitId } from '@cocotte/core/measure';
import { UNITS } from '@cocotte/core/measure';
import {
  type Authority,
  JAR_SIZES,
  type JarSizeId,
  LINE_ROLES,
  type Line,
  type MinutesByAltitude,
  type NetContents,
  type ProcessSource,
  type Recipe,
  type RouteToSale,
  STEP_KINDS,
  type ScheduledTime,
  type Step,
  type StepTarget,
} from '@cocotte/core/recipes';
import { type Rule, choice, day, figure, flag, list, maybe, shape, text, union } from '../rules.ts';

/** Rules of a recipe and of what hangs on it. Declared against the types in core. */
export const jarSizeRule = choice<JarSizeId>(JAR_SIZES.map(s => s.id));
const unit = choice<UnitId>(Object.keys(UNITS) as UnitId[]);
const rational = text({ min: 1, max: 40 });
const pack = choice(['hot', 'raw'] as const);

const amount = shape<Amount>({ text: text({ min: 1, max: 40 }), unit, value: rational });
const line = shape<Line>({
  id: text({ min: 1, max: 40 }),
  name: text({ min: 1, max: 80, name: 'The ingredient' }),
  preparation: text({ max: 120 }),
  role: choice(LINE_ROLES),
  amount,
  where: choice(['pot', 'brine', 'each jar'] as const),
  density_gPerMl: maybe(figure({ min: 0.01, max: 3, name: 'The density in g/mL' })),
  each_g: maybe(figure({ min: 0.01, max: 20_000, name: 'The weight of one in grams' })),
  weightSource: text({ max: 160 }),
  trimYield: figure({
    min: 0,
    above: true,
    max: 1,
    name: 'The trim yield',
    why: 'It is what is left of what was bought, above 0 and up to 1.',
  }),
  labelName: text({ min: 1, max: 80, name: 'The label name' }),
  subIngredients: text({ max: 300 }),
  allergens: list(text({ min: 1, max: 40 }), { max: 20 }),
  minStrength_pct: maybe(figure({ min: 0, max: 30, name: 'The least strength in percent' })),
  safelyAcid: flag,
});
const target = union<StepTarget>('kind', {
  none: shape({ kind: choice(['none']) }),
  'gel point': shape({ kind: choice(['gel point']) }),
  temperature: shape({
    kind: choice(['temperature']),
    temp_C: figure({ min: 20, max: 130, name: 'The target in °C' }),
  }),
  time: shape({ kind: choice(['time']), minutes: figure({ min: 0.5, max: 2880, name: 'The minutes' }) }),
  look: shape({ kind: choice(['look']), text: text({ min: 1, max: 120 }) }),
});
const minutesCount = figure({ min: 0, max: 100_000, name: 'The minutes' });
const step = shape<Step>({
  id: text({ min: 1, max: 40 }),
  kind: choice(STEP_KINDS),
  text: text({ min: 1, max: 300, name: 'The step' }),
  caution: text({ max: 200 }),
  target,
  window: maybe(
    shape<{ from_min: number; to_min: number }>({ from_min: minutesCount, to_min: minutesCount }),
  ),
  lineIds: list(text({ min: 1, max: 40 }), { max: 60 }),
});
const byAltitude = list(
  shape<MinutesByAltitude[number]>({
    upTo_ft: maybe(figure({ min: 1, max: 40_000, name: 'The top of the band in feet' })),
    minutes: figure({ min: 1, max: 240, whole: true, name: 'The minutes' }),
  }),
  { min: 1, max: 10 },
);
const authority = union<Authority>('grade', {
  'tested publication': shape({
    grade: choice(['tested publication']),
    title: text({ min: 1, max: 120 }),
    edition: text({ min: 1, max: 60 }),
    part: text({ min: 1, max: 120 }),
    checkedOn: day,
    fromMemory: flag,
    entryId: text({ min: 1, max: 60 }),
  }),
  letter: shape({
    grade: choice(['letter']),
    authority: text({ min: 1, max: 120 }),
    reference: text({ min: 1, max: 60 }),
    issuedOn: day,
    demo: flag,
    headspace_mm: figure({ min: 3, max: 40, name: 'The headspace in mm' }),
    pack,
    maxPh: figure({
      min: 2,
      max: 4.6,
      name: 'The pH limit',
      why: 'An acidified food is never above 4.6 (21 CFR 114).',
    }),
    minutes: list(shape({ jarSize: jarSizeRule, byAltitude }), { min: 1, max: 8 }),
  }),
  'published, untested': shape({ grade: choice(['published, untested']), title: text({ min: 1, max: 120 }) }),
  own: shape({ grade: choice(['own']), entryId: maybe(text({ min: 1, max: 60 })) }),
});
const net = union<NetContents>('kind', {
  weight: shape({
    kind: choice(['weight']),
    oz: figure({ min: 0, above: true, max: 200, name: 'The ounces' }),
  }),
  volume: shape({
    kind: choice(['volume']),
    floz: figure({ min: 0, above: true, max: 200, name: 'The fluid ounces' }),
  }),
});
const codePattern: Rule<string> = text({ min: 3, max: 3, name: 'The code' });

export const recipeRule = shape<Recipe>({
  name: text({ min: 1, max: 80, name: 'The name' }),
  code: codePattern,
  statementOfIdentity: text({ min: 1, max: 80, name: 'The statement of identity' }),
  foodClass: choice(['fruit spread', 'acidified food'] as const),
  authority,
  lines: list(line, { min: 1, max: 60 }),
  steps: list(step, { max: 60 }),
  makes: shape<Recipe['makes']>({
    size: jarSizeRule,
    count: figure({ min: 1, max: 500, whole: true, name: 'The jars it makes' }),
  }),
  jars: list(shape<Recipe['jars'][number]>({ size: jarSizeRule, net }), { min: 1, max: 8 }),
  shelfLife_months: figure({
    min: 1,
    max: 18,
    whole: true,
    name: 'The shelf life in months',
    why: 'Twelve months is the rule, eighteen the most.',
  }),
  readyAfter_days: figure({ min: 0, max: 365, whole: true, name: 'The days until ready' }),
  notes: text({ max: 4000 }),
});

const source = shape<ProcessSource>({
  title: text({ max: 200 }),
  edition: text({ max: 60 }),
  part: text({ max: 160 }),
  fromMemory: flag,
});
export const timeRule = shape<ScheduledTime>({
  rowId: text({ max: 120 }),
  jarSize: jarSizeRule,
  minutes: figure({ min: 1, max: 240, name: 'The minutes' }),
  seaLevel_min: figure({ min: 1, max: 240, name: 'The minutes' }),
  altitude_m: figure({ min: -500, max: 11_000, name: 'The altitude' }),
  band: text({ max: 60 }),
  pack,
  headspace_mm: figure({ min: 0, max: 60, name: 'The headspace' }),
  jars: choice(['sterile', 'clean'] as const),
  borrowedFrom: maybe(jarSizeRule),
  source,
});
export const routeRule = shape<RouteToSale>({
  open: flag,
  what: text({ max: 400 }),
  why: text({ max: 400 }),
  next: text({ max: 400 }),
  source: text({ max: 400 }),
});
