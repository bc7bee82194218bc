import { byName } from '@cocotte/core/measure';
import type { AcidityReading } from '@cocotte/core/acid';
import {
  type CorrectableType,
  type Correction,
  type DrawnLot,
  type EventBodies,
  type EventType,
  type FactType,
  type GateEvidence,
  type LabelContent,
  type ReturnedLot,
  PURPOSES,
  type SequencedEvent,
  SET_ASIDE_REASONS,
  type Stamp,
  type StartedBody,
  isDecision,
} from '@cocotte/core/batches';
import type { JarsWanted } from '@cocotte/core/recipes';
import { ITEM_KINDS } from '@cocotte/core/stores';
import { costsRule } from '../kitchen/costs.ts';
import { jarSizeRule, lineRule, recipeRule, routeRule, timeRule } from '../recipes/recipe-rules.ts';
import {
  type Rule,
  choice,
  day,
  decimal,
  figure,
  flag,
  instant,
  list,
  maybe,
  shape,
  text,
  union,
  uuid,
} from '../rules.ts';

/** Rules of everything a batch's record holds. Impossible figures are refused here; a fact that is merely wrong is stored and held. */
export const jarNumber = figure({ min: 1, max: 2000, whole: true, name: 'A jar number' });
/** Numbers of jars in a batch, each once. */
export const jarNumbers = list(jarNumber, { min: 1, max: 500 });
const anyJarNumbers = list(jarNumber, { max: 500 });
const worked = figure({ min: 0, above: true, max: 1440, name: 'The minutes', why: 'A day has 1,440.' });
const reason = text({ min: 3, max: 300, name: 'The reason' });
const loadId = uuid;
const lineId = text({ min: 1, max: 40 });
const money = decimal({ min: 0, max: 1e9, name: 'The amount of money' });
const unitCost = decimal({ min: 0, max: 1e9, places: 18, name: 'The cost of one unit' });

/** Rules of what a device says about an entry. */
export const stampFields: { [K in keyof Stamp]-?: Rule<Stamp[K]> } = {
  id: uuid,
  typeVersion: choice([1]),
  personId: uuid,
  deviceId: uuid,
  deviceCounter: figure({ min: 0, max: 2 ** 53 - 1, whole: true, name: "The device's counter" }),
  wallClock: instant,
  monotonic_ms: figure({ min: 0, max: 1e13, name: 'The monotonic reading' }),
  pageSessionId: uuid,
  clockOffset_ms: maybe(figure({ min: -1e13, max: 1e13, name: 'The clock offset' })),
  clockOffsetAge_ms: maybe(figure({ min: 0, max: 1e13, name: 'The age of the clock offset' })),
  occurredAt: instant,
  typedInAfterwards: flag,
  basedOnSeq: figure({ min: 0, max: 2 ** 53 - 1, whole: true, name: 'What the device had seen' }),
};
/** Rule of a stamp, as decisions carry it. */
export const stampRule = shape<Stamp>(stampFields);

/** Highest temperature each place can have: sugar in a jam pot, water in a canner or jar. */
const temperature = figure({
  min: -5,
  max: 130,
  name: 'The temperature in °C',
  why: 'Water and sugar in an open pot stay between freezing and 130 °C (266 °F).',
});
const waterTemperature = figure({
  min: -5,
  max: 105,
  name: 'The temperature in °C',
  why: 'Water in an open canner or jar does not pass its boiling point.',
});

/** Rule of jars that are wanted: so many of each size. */
export const jarsWantedRule = list(
  shape<JarsWanted>({
    size: jarSizeRule,
    count: figure({ min: 0, max: 500, whole: true, name: 'The jars' }),
  }),
  { min: 1, max: 6 },
);

const drawnLot = shape<DrawnLot>({
  lotId: uuid,
  itemId: uuid,
  kind: choice(ITEM_KINDS),
  name: text({ max: 80 }),
  lotLabel: text({ max: 40 }),
  lineId: maybe(lineId),
  jarSize: maybe(jarSizeRule),
  quantity: decimal({ min: 0, max: 1e9, name: 'The quantity' }),
  unit: choice(['g', 'mL', 'each'] as const),
  unitCost,
  mass_g: maybe(figure({ min: 0, max: 1e9, name: 'The mass' })),
  labelName: text({ max: 80 }),
  subIngredients: text({ max: 4000 }),
  allergens: list(text({ max: 40 }), { max: 20 }),
});
const evidence = shape<GateEvidence>({
  code: text({ max: 200 }),
  title: text({ max: 200 }),
  evidence: text({ max: 1000 }),
});
const label = shape<LabelContent>({
  statementOfIdentity: text({ max: 80 }),
  ingredients: text({ max: 4000 }),
  contains: text({ max: 400 }),
  netContents: text({ max: 80 }),
  maker: text({ max: 80 }),
  address: text({ max: 160 }),
  lotCode: text({ max: 40 }),
  madeOn: day,
  bestBy: day,
  readyFrom: maybe(day),
  statement: text({ max: 300 }),
  notForSale: flag,
});
const started = shape<StartedBody>({
  recipeId: uuid,
  recipeVersion: figure({ min: 1, max: 1e6, name: 'The version' }),
  recipe: recipeRule,
  factor: text({ max: 60 }),
  jars: jarsWantedRule,
  purpose: choice(PURPOSES),
  lotCode: text({ max: 40 }),
  madeOn: day,
  kitchen: shape<StartedBody['kitchen']>({
    name: text({ max: 80 }),
    altitude_m: figure({ min: -500, max: 11_000, name: 'The altitude' }),
    zone: text({ max: 60 }),
    locale: text({ max: 20 }),
    currency: text({ max: 3 }),
    hourlyRate: money,
    thermometerError_C: figure({ min: -5, max: 5, name: 'The thermometer error' }),
    costs: costsRule,
  }),
  boilingPoint_C: figure({ min: 50, max: 110, name: 'The boiling point' }),
  gelPoint_C: figure({ min: 50, max: 120, name: 'The gel point' }),
  times: list(timeRule, { max: 8 }),
  noTime: list(
    shape<StartedBody['noTime'][number]>({
      size: jarSizeRule,
      what: text({ max: 400 }),
      why: text({ max: 600 }),
    }),
    { max: 8 },
  ),
  route: routeRule,
  phLimit: figure({ min: 2, max: 4.6, name: 'The pH limit' }),
  heat: choice(['boiling water', 'steam'] as const),
  pots: shape<StartedBody['pots']>({
    count: figure({ min: 1, max: 100, whole: true, name: 'The pots' }),
    each: text({ max: 60 }),
    overridden: flag,
    reasons: list(text({ max: 200 }), { max: 4 }),
  }),
  expected: maybe(
    shape<NonNullable<StartedBody['expected']>>({
      pints: figure({ min: 0, max: 100_000, name: 'The pints' }),
      final_g: maybe(figure({ min: 0, max: 10_000_000, name: 'The mass' })),
      solids_pct: maybe(figure({ min: 0, max: 100, name: 'The solids' })),
      cook_min: maybe(figure({ min: 0, max: 100_000, name: 'The minutes' })),
      foreseen: flag,
    }),
  ),
});

const byPlace = union<EventBodies['temperature.read']>('where', {
  pot: shape({ where: choice(['pot']), temp_C: temperature }),
  canner: shape({ where: choice(['canner']), temp_C: waterTemperature }),
  jar: shape({ where: choice(['jar']), temp_C: waterTemperature }),
});
const loadOnly = shape<{ loadId: string }>({ loadId });
const doseBody = shape<{ lineId: string; jars: number[] }>({ lineId, jars: jarNumbers });
const stepBody = shape<{ stepId: string }>({ stepId: text({ min: 1, max: 40 }) });

/** Bodies of the facts that a correction may replace. */
const correctable: { [K in CorrectableType]: Rule<EventBodies[K]> } = {
  'step.started': stepBody,
  'step.done': stepBody,
  'line.weighed': shape<EventBodies['line.weighed']>({
    lineId,
    mass_g: figure({ min: 0, above: true, max: 1_000_000, name: 'The weight in grams' }),
  }),
  'line.added': shape<EventBodies['line.added']>({ line: lineRule }),
  'measure.taken': shape<EventBodies['measure.taken']>({
    stepId: text({ min: 1, max: 40 }),
    quantity: figure({ min: 0, above: true, max: 1_000_000, name: 'The measure' }),
    unit: choice(['g', 'mL'] as const),
  }),
  'yield.explained': shape<EventBodies['yield.explained']>({
    reason: text({ min: 1, max: 400, name: 'The reason' }),
  }),
  'temperature.read': byPlace,
  'jars.filled': shape<EventBodies['jars.filled']>({
    size: jarSizeRule,
    jars: jarNumbers,
    jarLotId: maybe(uuid),
    lidLotId: maybe(uuid),
  }),
  'dose.given': doseBody,
  'dose.missed': doseBody,
  'load.packed': shape<EventBodies['load.packed']>({
    loadId,
    number: figure({ min: 1, max: 200, whole: true, name: 'The load' }),
    jars: jarNumbers,
    newLidLotId: maybe(uuid),
  }),
  'load.boiling': loadOnly,
  'load.boil_lost': loadOnly,
  'load.heat_off': loadOnly,
  'load.lifted': loadOnly,
  'jars.set_aside': shape<EventBodies['jars.set_aside']>({
    jars: jarNumbers,
    why: choice(SET_ASIDE_REASONS),
  }),
  'jars.pressed': shape<EventBodies['jars.pressed']>({ sealed: anyJarNumbers, failed: anyJarNumbers }),
  'ph.read': shape<AcidityReading & { jar: number }>({
    jar: jarNumber,
    ph: figure({ min: 0, max: 14, name: 'The pH', why: 'The scale runs from 0 to 14.' }),
    temp_C: figure({
      min: 0,
      max: 60,
      name: 'The temperature of the sample in °C',
      why: 'A sample is read near room temperature.',
    }),
    hoursSinceProcessing: figure({ min: 0, max: 50_000, name: 'The hours since processing' }),
    method: choice(['meter', 'laboratory', 'paper'] as const),
    buffers: list(figure({ min: 1, max: 13, name: 'A buffer' }), { max: 4 }),
    reference: text({ max: 120 }),
  }),
  'minutes.worked': shape<EventBodies['minutes.worked']>({ minutes: worked }),
  'minutes.shared': shape<EventBodies['minutes.shared']>({
    minutes: worked,
    with: list(uuid, { min: 1, max: 12 }),
  }),
  'kitchen.worked': shape<EventBodies['kitchen.worked']>({ minutes: worked }),
  'energy.used': shape<EventBodies['energy.used']>({
    burnerId: text({ min: 1, max: 40, name: 'The burner' }),
    minutes: worked,
  }),
  'note.written': shape<EventBodies['note.written']>({ text: text({ min: 1, max: 2000, name: 'The note' }) }),
  'deviation.settled': shape<EventBodies['deviation.settled']>({
    key: text({ min: 1, max: 200 }),
    reason,
    minutes: maybe(figure({ min: 0, max: 1440, name: 'The minutes' })),
  }),
};

const correctionRule = union<Correction>(
  'type',
  byName(
    Object.entries(correctable).map(([type, body]) => [
      type,
      shape<Correction>({
        replaces: uuid,
        type: choice([type as CorrectableType]),
        body: maybe(body as Rule<EventBodies[CorrectableType]>),
        occurredAt: maybe(instant),
        reason,
      }),
    ]),
  ),
);

/** The rule of the body of each fact; nothing else is ever stored as one. */
export const bodyRules: { [K in EventType]: Rule<EventBodies[K]> } = {
  ...correctable,
  'entry.corrected': correctionRule,
  'batch.started': started,
  'lot.drawn': shape<EventBodies['lot.drawn']>({ lots: list(drawnLot, { min: 1, max: 200 }) }),
  'draw.reversed': shape<EventBodies['draw.reversed']>({ drawId: uuid, reason }),
  'lots.returned': shape<EventBodies['lots.returned']>({
    lots: list(
      shape<ReturnedLot>({
        lotId: uuid,
        quantity: decimal({ min: 0, above: true, max: 1e9, name: 'The quantity' }),
        unitCost,
      }),
      { min: 1, max: 50 },
    ),
    reason,
  }),
  'jars.taken': shape<EventBodies['jars.taken']>({
    jars: jarNumbers,
    lotId: uuid,
    label: text({ max: 40 }),
    unitCost,
  }),
  'jars.released': shape<EventBodies['jars.released']>({
    jars: jarNumbers,
    evidence: list(evidence, { max: 200 }),
  }),
  'labels.printed': shape<EventBodies['labels.printed']>({
    jars: jarNumbers,
    size: jarSizeRule,
    stock: text({ max: 40 }),
    label,
  }),
};

const types = Object.keys(bodyRules) as EventType[];
/** A fact as a device sends it: its stamp, its type and its body. */
export type FactEntry = Stamp & { [K in FactType]: { type: K; body: EventBodies[K] } }[FactType];

/** A fact as a device sends it. */
export const factRule = union<FactEntry>(
  'type',
  byName(
    types
      .filter(t => !isDecision(t))
      .map(type => [
        type,
        shape<never>({
          ...stampFields,
          type: choice([type]),
          body: bodyRules[type],
        } as never) as Rule<unknown>,
      ]),
  ),
);

/** Any entry as the server tells it. */
export const sequencedRule = union<SequencedEvent>(
  'type',
  byName(
    types.map(type => [
      type,
      shape<SequencedEvent>({
        ...stampFields,
        kitchenId: uuid,
        batchId: uuid,
        type: choice([type]),
        body: bodyRules[type],
        seq: figure({ min: 1, max: 2 ** 53 - 1, whole: true, name: 'The sequence number' }),
        hash: text({ min: 64, max: 64 }),
        receivedAt: instant,
      } as never) as Rule<unknown>,
    ]),
  ),
);
