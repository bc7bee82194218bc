import { type Amount, UNITS, type UnitId } from '@cocotte/core/measure';
import type { MinutesByAltitude } from '@cocotte/core/heat';
import { type FruitGroup, LINE_ROLES } from '@cocotte/core/ingredients';
import { JAR_SIZES, type JarSizeId } from '@cocotte/core/jars';
import {
  type Attention,
  type Authority,
  FOOD_CLASSES,
  type LetterTerms,
  type Line,
  type NetContents,
  type Outlet,
  PLACES,
  type Packing,
  type Ratio,
  type Recipe,
  SET_BY,
  STEP_KINDS,
  type Step,
  type StepTarget,
  type TestedFormula,
} from '@cocotte/core/recipes';
import type { RouteToSale } from '@cocotte/core/review';
import {
  type LetterProcess,
  METHOD_CHOICES,
  type Method,
  PRODUCTS,
  type ProcessSource,
  type ScheduledTime,
  type SeaLevelTime,
  type TimeBasis,
} from '@cocotte/core/times';
import {
  type Rule,
  choice,
  day,
  figure,
  flag,
  list,
  maybe,
  rational,
  shape,
  text,
  union,
  uuid,
} from '../rules.ts';

/** Rules of a recipe and of what hangs on it. Declared against the types in core. */
export const jarSizeRule = choice<JarSizeId>(JAR_SIZES.map(s => s.id));
const unit = choice<UnitId>(Object.keys(UNITS) as UnitId[]);
const pack = choice(['hot', 'raw'] as const);
const id = text({ min: 1, max: 40 });
const share = (name: string) =>
  figure({ min: 0, max: 1, name, why: 'It is a share of the whole, from 0 to 1.' });

/** Rule of an amount: its text, unit and exact value. */
export const amountRule = shape<Amount>({
  text: text({ min: 1, max: 60 }),
  unit,
  value: rational,
  upTo: maybe(rational),
  toTaste: flag,
});
/** Rule of a line of a recipe. */
export const lineRule = shape<Line>({
  id,
  ingredientId: maybe(text({ min: 1, max: 60 })),
  name: text({ max: 80, name: 'The ingredient' }),
  preparation: text({ max: 160 }),
  role: choice(LINE_ROLES),
  amount: amountRule,
  basis: choice(['prepared', 'as bought'] as const),
  where: choice(PLACES),
  keptShare: share('The share that stays'),
  ratio: maybe(shape<Ratio>({ of: choice(['step', 'line'] as const), id, per: amountRule })),
  form: text({ max: 60 }),
  density_gPerMl: maybe(figure({ min: 0.01, max: 3, name: 'The density in g/mL' })),
  each_g: maybe(figure({ min: 0.01, max: 20_000, name: 'The weight of one in grams' })),
  bushel_g: maybe(figure({ min: 100, max: 100_000, name: 'The weight of a bushel in grams' })),
  weightSource: text({ max: 200 }),
  trimYield: figure({
    min: 0,
    above: true,
    max: 1,
    name: 'The trim yield',
    why: 'It is what is left of what was bought, above 0 and up to 1.',
  }),
  solids_pct: figure({ min: 0, max: 100, name: 'The soluble solids in percent' }),
  addedSugar_pct: figure({ min: 0, max: 100, name: 'The added sugar in percent' }),
  freshFactor: figure({ min: 1, max: 30, name: 'The fresh weight it stands for' }),
  group: maybe(choice<FruitGroup>(['I', 'II'])),
  labelName: text({ max: 80, name: 'The label name' }),
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
    hold_min: figure({ min: 0, max: 600, name: 'The minutes held' }),
  }),
  time: shape({ kind: choice(['time']), minutes: figure({ min: 0.5, max: 2880, name: 'The minutes' }) }),
  volume: shape({
    kind: choice(['volume']),
    volume_mL: figure({ min: 0, above: true, max: 200_000, name: 'The volume in mL' }),
  }),
  depth: shape({
    kind: choice(['depth']),
    depth_mm: figure({ min: 0, above: true, max: 1000, name: 'The depth in mm' }),
  }),
  reduced: shape({
    kind: choice(['reduced']),
    by: figure({ min: 0.02, max: 0.95, name: 'The share that boils away' }),
  }),
  look: shape({ kind: choice(['look']), text: text({ min: 1, max: 120 }) }),
});
const minutesCount = figure({ min: 0, max: 200_000, name: 'The minutes' });
const step = shape<Step>({
  id,
  kind: choice(STEP_KINDS),
  text: text({ min: 1, max: 600, name: 'The step' }),
  caution: text({ max: 200 }),
  target,
  window: maybe(
    shape<{ from_min: number; to_min: number }>({ from_min: minutesCount, to_min: minutesCount }),
  ),
  attention: union<Attention>('kind', {
    'hands-on': shape({ kind: choice(['hands-on']) }),
    'look in': shape({
      kind: choice(['look in']),
      every_min: figure({ min: 1, max: 10_080, name: 'The minutes between looks' }),
    }),
    free: shape({ kind: choice(['free']) }),
  }),
  mayStop_h: maybe(figure({ min: 0, above: true, max: 2000, name: 'The hours one may stop' })),
  adds: list(shape<Step['adds'][number]>({ lineId: id, share: rational }), { max: 60 }),
  part: text({ max: 40 }),
  separates: maybe(
    shape<{ part: string; share: number }>({
      part: text({ min: 1, max: 40 }),
      share: share('The share set aside'),
    }),
  ),
  expects: maybe(amountRule),
});
const byAltitude = list(
  shape<MinutesByAltitude[number]>({
    upTo_ft: maybe(figure({ min: 1, max: 40_000, name: 'The top of the band in feet' })),
    minutes: figure({ min: 1, max: 240, whole: true, name: 'The minutes' }),
  }),
  { min: 1, max: 10 },
);
const headspace = figure({
  min: 0,
  above: true,
  max: 40,
  name: 'The headspace in mm',
  why: 'A jar filled to the brim pushes its lid off in the canner; above an inch and a half it may not seal.',
});
const minutesRule = figure({ min: 1, max: 240, whole: true, name: 'The minutes' });
const seaLevel = shape<SeaLevelTime>({
  kind: choice(['sea level']),
  pack,
  headspace_mm: headspace,
  minutes: list(shape<SeaLevelTime['minutes'][number]>({ jarSize: jarSizeRule, minutes: minutesRule }), {
    min: 1,
    max: 8,
  }),
});
const timeBasis = union<TimeBasis>('kind', {
  entry: shape({ kind: choice(['entry']), entryId: text({ min: 1, max: 60 }) }),
  'sea level': seaLevel,
});
const letterProcess = union<LetterProcess>('kind', {
  'boiling water': shape({
    kind: choice(['boiling water']),
    pack,
    headspace_mm: headspace,
    minutes: list(shape({ jarSize: jarSizeRule, byAltitude }), { min: 1, max: 8 }),
  }),
  'sea level': seaLevel,
  'hot-fill-hold': shape({
    kind: choice(['hot-fill-hold']),
    temp_C: figure({
      min: 70,
      max: 105,
      name: 'The fill temperature in °C',
      why: 'A hot fill below 70 °C is no heat step.',
    }),
    hold_min: figure({ min: 0.5, max: 60, name: 'The minutes held' }),
    headspace_mm: headspace,
    jarSizes: list(jarSizeRule, { min: 1, max: 8 }),
  }),
});
const percent = (name: string) => maybe(figure({ min: 0, max: 100, name }));
const letterTerms = shape<LetterTerms>({
  producer: text({ max: 120, name: 'The producer' }),
  site: text({ max: 160, name: 'The site' }),
  pieceSize_mm: maybe(figure({ min: 0, above: true, max: 200, name: 'The size of a piece in mm' })),
  perPint_g: maybe(figure({ min: 1, max: 600, name: 'The pieces in a pint in grams' })),
  lines: list(
    shape<LetterTerms['lines'][number]>({
      lineId: id,
      least_pct: percent('The least per cent'),
      most_pct: percent('The most per cent'),
    }),
    { max: 60 },
  ),
  thickener: text({ max: 120, name: 'The thickener' }),
  oil: text({ max: 120, name: 'The oil' }),
  closure: text({ max: 120, name: 'The closure' }),
  reviewOn: maybe(day),
});
const authority = union<Authority>('grade', {
  'tested publication': shape({
    grade: choice(['tested publication']),
    kind: choice(['publication', 'leaflet'] as const),
    title: text({ min: 1, max: 120, name: 'The title' }),
    edition: text({ min: 1, max: 60, name: 'The edition' }),
    year: figure({ min: 1900, max: 2100, whole: true, name: 'The year' }),
    part: text({ min: 1, max: 160, name: 'The part' }),
    checkedOn: day,
    fromMemory: flag,
    time: timeBasis,
  }),
  letter: shape({
    grade: choice(['letter']),
    authority: text({ min: 1, max: 120, name: 'The process authority' }),
    reference: text({ min: 1, max: 60, name: 'The reference' }),
    issuedOn: day,
    demo: flag,
    maxPh: figure({
      min: 2,
      max: 4.6,
      name: 'The pH limit',
      why: 'An acidified food is never above 4.6 (21 CFR 114).',
    }),
    limits: text({ max: 600 }),
    terms: letterTerms,
    process: letterProcess,
  }),
  'published, untested': shape({
    grade: choice(['published, untested']),
    title: text({ min: 1, max: 120, name: 'The title' }),
  }),
  own: shape({ grade: choice(['own']), entryId: maybe(text({ min: 1, max: 60 })) }),
});
const method = shape<Method>({
  peel: choice(METHOD_CHOICES.peel),
  cut: choice(METHOD_CHOICES.cut),
  strain: choice(METHOD_CHOICES.strain),
  liquid: choice(METHOD_CHOICES.liquid),
  pack: choice(METHOD_CHOICES.pack),
});
const tested = shape<TestedFormula>({
  takenOn: day,
  product: choice(PRODUCTS),
  lines: list(lineRule, { max: 60 }),
  method,
  setBy: choice(SET_BY),
  jarSizes: list(jarSizeRule, { max: 8 }),
});
const outlet = shape<Outlet>({
  id,
  name: text({ min: 1, max: 80, name: 'The outlet' }),
  share: figure({ min: 0, above: true, max: 0.99, name: 'The share of the pot' }),
  use: choice(['jars', 'refrigerator', 'ingredient'] as const),
  jarSize: maybe(jarSizeRule),
  entryId: maybe(text({ min: 1, max: 60 })),
});
const packing = shape<Packing>({
  perPint_g: figure({ min: 1, max: 600, name: 'The pieces in a pint in grams' }),
  pieceDensity_gPerMl: figure({ min: 0.3, max: 1.6, name: 'The density of the pieces in g/mL' }),
  spareShare: share('The spare liquid'),
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
/** Empty in an import, where a code is found; a recipe of the book has three letters. */
const codePattern: Rule<string> = text({ max: 3, name: 'The code' });

/** Rule of a whole recipe; what its parts have to say to each other is `recipeFaults` in core. */
export const recipeRule = shape<Recipe>({
  format: choice([3] as const),
  name: text({ min: 1, max: 80, name: 'The name' }),
  code: codePattern,
  statementOfIdentity: text({ min: 1, max: 80, name: 'The statement of identity' }),
  product: choice(PRODUCTS),
  family: text({ max: 40, name: 'The family' }),
  tags: list(text({ min: 1, max: 30, name: 'A tag' }), { max: 20 }),
  variantOf: maybe(uuid),
  foodClass: choice(FOOD_CLASSES),
  setBy: choice(SET_BY),
  method,
  authority,
  tested: maybe(tested),
  lines: list(lineRule, { max: 60 }),
  steps: list(step, { max: 60 }),
  makes: shape<Recipe['makes']>({
    size: jarSizeRule,
    count: figure({ min: 1, max: 500, whole: true, name: 'The jars it makes' }),
  }),
  jars: list(shape<Recipe['jars'][number]>({ size: jarSizeRule, net }), { min: 1, max: 8 }),
  outlets: list(outlet, { max: 6 }),
  packing: maybe(packing),
  shelfLife_months: figure({
    min: 1,
    max: 18,
    whole: true,
    name: 'The shelf life in months',
    why: 'Twelve months is the rule, eighteen the most.',
  }),
  readyAfter_days: figure({ min: 0, max: 365, whole: true, name: 'The days until ready' }),
  notes: text({ max: 4000 }),
  sketch: flag,
});

const source = shape<ProcessSource>({
  title: text({ max: 200 }),
  edition: text({ max: 60 }),
  part: text({ max: 160 }),
  fromMemory: flag,
});
/** Rule of a processing time with the row it comes from, as a batch keeps it. */
export const timeRule = shape<ScheduledTime>({
  rowId: text({ max: 200 }),
  method: choice(['boiling water', 'hot-fill-hold'] as const),
  jarSize: jarSizeRule,
  minutes: figure({ min: 0.5, max: 240, name: 'The minutes' }),
  seaLevel_min: figure({ min: 0.5, max: 240, name: 'The minutes' }),
  altitude_m: figure({ min: -500, max: 11_000, name: 'The altitude' }),
  band: text({ max: 120 }),
  pack,
  headspace_mm: figure({ min: 0, max: 60, name: 'The headspace' }),
  jars: choice(['sterile', 'clean'] as const),
  borrowedFrom: maybe(jarSizeRule),
  fill: maybe(
    shape<{ temp_C: number; closure: string }>({
      temp_C: figure({ min: 0, max: 120, name: 'The fill temperature' }),
      closure: text({ max: 120 }),
    }),
  ),
  source,
});
/** Rule of the answer to whether a recipe may be cooked for sale. */
export const routeRule = shape<RouteToSale>({
  open: flag,
  what: text({ max: 400 }),
  why: text({ max: 400 }),
  next: text({ max: 400 }),
  source: text({ max: 400 }),
});
