import { byName } from '@cocotte/core/measure';
import {
  type AtPlace,
  type ByInstrument,
  BOIL_LOSSES,
  type CorrectableType,
  ENDINGS,
  type Correction,
  type EventBodies,
  type EventType,
  JAR_FAULTS,
  type OutletBody,
  POT_TAKEN_HOW,
  type ReturnedLot,
  MARKET_STEPS,
  SEAL_PROOFS,
  SET_ASIDE_REASONS,
  SETS_SEEN,
  type UsedDraw,
} from '@cocotte/core/batches';
import { jarSizeRule, lineRule, timeRule } from '../recipes/recipe-rules.ts';
import {
  type Rule,
  choice,
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
import { checked } from './check-rules.ts';
import { jarNumber, jarNumbers, stove, temperature } from './stove-rules.ts';
import {
  type Shapes,
  drawnLot,
  drawnLotBefore,
  evidence,
  labels,
  lineId,
  started,
  thingId,
  unitCost,
} from './decision-rules.ts';
import { codes, printSetup } from '../labels/label-rules.ts';

const labelCount = (name: string) => figure({ min: 0, max: 10_000, whole: true, name });
const anyJarNumbers = list(jarNumber, { max: 500, unlike: true });
const worked = figure({ min: 0, above: true, max: 1440, name: 'The minutes', why: 'A day has 1,440.' });
const reason = text({ min: 3, max: 300, name: 'The reason' });
const loadId = uuid;

/** Water in a canner or jar. */
const waterTemperature = figure({
  min: -5,
  max: 105,
  name: 'The temperature in °C',
  why: 'Water in an open canner or jar does not pass its boiling point.',
});

const place: { [K in keyof AtPlace]-?: Rule<AtPlace[K]> } = { outletId: maybe(uuid), potId: maybe(thingId) };

/** Fields of a temperature in each place, whatever else its shape says. */
const byPlace = <T>(more: object) =>
  union<T>('where', {
    pot: shape<never>({ where: choice(['pot']), temp_C: temperature, ...more } as never),
    canner: shape<never>({ where: choice(['canner']), temp_C: waterTemperature, ...more } as never),
    jar: shape<never>({ where: choice(['jar']), temp_C: waterTemperature, ...more } as never),
  });
const printed = { jars: jarNumbers, size: jarSizeRule };
const loadOnly = shape<{ loadId: string }>({ loadId });
const doseBody = shape<{ lineId: string; jars: number[] }>({ lineId, jars: jarNumbers });

/** A body whose newest shape has more than the first. */
const grown = <T extends object, K extends keyof T>(
  first: { [P in keyof Omit<T, K>]-?: Rule<T[P]> },
  more: { [P in K]-?: Rule<T[P]> },
): Shapes<T> => [
  shape<never>(first as never),
  shape<T>({ ...first, ...more } as unknown as { [P in keyof T]-?: Rule<T[P]> }),
];
const part = text({ max: 60 });
const stepId = text({ min: 1, max: 40 });
const outOfOrder = text({ max: 300, name: 'The reason' });
const filled = { size: jarSizeRule, jars: jarNumbers, jarLotId: maybe(uuid), lidLotId: maybe(uuid) };
const headspace_mm = maybe(
  figure({ min: 0, max: 100, name: 'The headspace', why: 'A jar holds food below it.' }),
);
const measured = {
  stepId,
  quantity: figure({ min: 0, above: true, max: 1_000_000, name: 'The measure' }),
  unit: choice(['g', 'mL'] as const),
};

const solids = {
  brix_pct: figure({
    min: 0,
    above: true,
    max: 95,
    name: 'The soluble solids in °Brix',
    why: 'A refractometer for sugar reads up to 95, and nothing of a pot of fruit reads 0.',
  }),
  instrumentId: maybe(thingId),
};

const weighed = {
  lineId,
  mass_g: figure({ min: 0, above: true, max: 1_000_000, name: 'The weight in grams' }),
};
const howMany = figure({ min: 1, max: 1e6, whole: true, name: 'How many' });
const byInstrument = {
  instrumentId: maybe(thingId),
  checked: maybe(
    shape<NonNullable<ByInstrument['checked']>>({
      at: instant,
      off: figure({ min: -1000, max: 1000, name: 'How far the instrument was off' }),
    }),
  ),
};

/** Bodies of the facts that a correction may replace, in every shape they ever had. */
const correctable: { [K in CorrectableType]: Shapes<EventBodies[K]> } = {
  'step.started': [
    shape<never>({ stepId } as never),
    shape<never>({ stepId, ...place } as never),
    shape<EventBodies['step.started']>({ stepId, ...place, outOfOrder }),
  ],
  'step.done': [
    shape<never>({ stepId } as never),
    shape<never>({ stepId, ...place } as never),
    shape<never>({ stepId, ...place, ended: maybe(choice(ENDINGS)) } as never),
    shape<EventBodies['step.done']>({ stepId, ...place, ended: maybe(choice(ENDINGS)), outOfOrder }),
  ],
  'line.weighed': [
    shape<never>(weighed as never),
    shape<never>({ ...weighed, ...place } as never),
    shape<EventBodies['line.weighed']>({ ...weighed, ...place, ...byInstrument }),
  ],
  'line.added': [shape<EventBodies['line.added']>({ line: lineRule })],
  'measure.taken': [
    shape<never>(measured as never),
    shape<never>({ ...measured, ...place } as never),
    shape<EventBodies['measure.taken']>({
      ...measured,
      ...place,
      how: maybe(choice(['dripped', 'pressed'] as const)),
      from: list(figure({ min: 0, above: true, max: 1_000_000, name: 'The measure' }), { max: 20 }),
    }),
  ],
  'lot.used': [
    shape<EventBodies['lot.used']>({
      lotId: uuid,
      lineId: maybe(lineId),
      quantity: figure({ min: 0, above: true, max: 1e9, name: 'The quantity' }),
      unit: choice(['g', 'mL', 'each'] as const),
    }),
  ],
  'level.read': [
    shape<EventBodies['level.read']>({
      ...place,
      stepId,
      of: choice(['weight', 'depth'] as const),
      quantity: figure({ min: 0, above: true, max: 1_000_000, name: 'What is in the pot' }),
    }),
  ],
  'yield.explained': [
    shape<EventBodies['yield.explained']>({ reason: text({ min: 1, max: 400, name: 'The reason' }) }),
  ],
  'temperature.read': [
    byPlace<never>({}),
    byPlace<never>({ ...place, instrumentId: maybe(thingId) }),
    byPlace<never>({ ...place, instrumentId: maybe(thingId), part }),
    byPlace<EventBodies['temperature.read']>({ ...place, ...byInstrument, part }),
  ],
  'solids.read': [
    shape<never>({ ...place, ...solids } as never),
    shape<never>({ ...place, ...solids, part } as never),
    shape<EventBodies['solids.read']>({ ...place, ...solids, ...byInstrument, part }),
  ],
  'jars.filled': [
    shape<never>(filled as never),
    shape<never>({ ...filled, ...place } as never),
    shape<never>({ ...filled, ...place, headspace_mm } as never),
    shape<EventBodies['jars.filled']>({
      ...filled,
      ...place,
      headspace_mm,
      closure: text({ max: 60, name: 'The closure' }),
    }),
  ],
  'jars.boiled': [
    shape<EventBodies['jars.boiled']>({
      minutes: figure({ min: 0, above: true, max: 180, name: 'The minutes' }),
    }),
  ],
  'jars.weighed': [
    shape<EventBodies['jars.weighed']>({
      jars: list(
        shape<EventBodies['jars.weighed']['jars'][number]>({
          jar: figure({ min: 1, max: 100_000, whole: true, name: 'The jar' }),
          net_g: figure({ min: 1, max: 4000, name: 'The weight inside in grams' }),
        }),
        { min: 1, max: 200 },
      ),
      left_g: figure({ min: 0, max: 50_000, name: 'What is left in grams' }),
    }),
  ],
  'dose.given': [doseBody],
  'dose.missed': [doseBody],
  ...stove,
  ...checked,
  'canner.lit': [shape<EventBodies['canner.lit']>({ cannerId: maybe(thingId), burnerId: maybe(thingId) })],
  'load.packed': grown<EventBodies['load.packed'], 'cannerId' | 'heat'>(
    {
      loadId,
      number: figure({ min: 1, max: 200, whole: true, name: 'The load' }),
      jars: jarNumbers,
      newLidLotId: maybe(uuid),
    },
    { cannerId: maybe(thingId), heat: maybe(choice(['boiling water', 'steam'] as const)) },
  ),
  'load.boiling': [loadOnly],
  'load.boil_lost': [
    loadOnly as never,
    shape<EventBodies['load.boil_lost']>({ loadId, lost: choice(BOIL_LOSSES) }),
  ],
  'load.heat_off': [loadOnly],
  'load.lifted': [loadOnly],
  'jars.set_aside': [
    shape<EventBodies['jars.set_aside']>({ jars: jarNumbers, why: choice(SET_ASIDE_REASONS) }),
  ],
  'jars.moved': [
    shape<EventBodies['jars.moved']>({ jars: jarNumbers, to: choice(['refrigerator', 'freezer'] as const) }),
  ],
  'jars.pressed': grown<EventBodies['jars.pressed'], 'how'>(
    { sealed: anyJarNumbers, failed: anyJarNumbers },
    { how: choice(SEAL_PROOFS) },
  ),
  'jars.market_checked': [
    shape<EventBodies['jars.market_checked']>({
      jars: jarNumbers,
      done: list(choice(MARKET_STEPS), { min: 1, max: MARKET_STEPS.length }),
    }),
  ],
  'labels.counted': [
    shape<EventBodies['labels.counted']>({
      printId: uuid,
      used: labelCount('The labels that were used'),
      spoiled: labelCount('The labels that were spoiled'),
      destroyed: labelCount('The labels that were destroyed'),
    }),
  ],
  'jars.looked': [
    shape<EventBodies['jars.looked']>({
      jars: jarNumbers,
      set: maybe(choice(SETS_SEEN)),
      found: list(choice(JAR_FAULTS), { max: JAR_FAULTS.length }),
      text: text({ max: 2000, name: 'The note' }),
    }),
  ],
  'minutes.worked': [shape<EventBodies['minutes.worked']>({ minutes: worked })],
  'minutes.shared': [
    shape<EventBodies['minutes.shared']>({ minutes: worked, with: list(uuid, { min: 1, max: 12 }) }),
  ],
  'kitchen.worked': [shape<EventBodies['kitchen.worked']>({ minutes: worked })],
  'energy.used': [
    shape<EventBodies['energy.used']>({
      burnerId: text({ min: 1, max: 40, name: 'The burner' }),
      minutes: worked,
    }),
  ],
  'note.written': [
    shape<EventBodies['note.written']>({ text: text({ min: 1, max: 2000, name: 'The note' }) }),
  ],
};

/** A correction carries the body of what it corrects, in any shape that body ever had. */
const correctionFields = (type: string) => ({
  replaces: uuid,
  type: choice([type as CorrectableType]),
  occurredAt: maybe(instant),
  reason,
});
const ofEach = (rule: (type: string, shapes: Shapes<unknown>) => Rule<unknown>) =>
  union<never>('type', byName(Object.entries(correctable).map(([type, s]) => [type, rule(type, s)])));
const corrections: Shapes<Correction> = [
  ofEach((type, shapes) =>
    shape<never>({ ...correctionFields(type), body: maybe(shapes[0] as Rule<unknown>) } as never),
  ),
  ofEach((type, shapes) =>
    union(
      'bodyVersion',
      byName(
        shapes.map((body, i) => [
          String(i + 1),
          shape<never>({
            ...correctionFields(type),
            bodyVersion: choice([i + 1]),
            body: maybe(body),
          } as never) as Rule<unknown>,
        ]),
      ),
    ),
  ) as Rule<Correction>,
];

const drawnLots = list(drawnLot, { min: 1, max: 200 });
const drawnBefore = list(drawnLotBefore, { min: 1, max: 200 });
const usedDraw = maybe(
  shape<UsedDraw>({
    entryId: uuid,
    short: decimal({ min: 0, max: 1e9, name: 'What the books lacked' }),
  }),
);

/** The rules of the body of each kind of entry, in every shape it ever had; nothing else is ever stored as one. */
export const shapesOf: { [K in EventType]: Shapes<EventBodies[K]> } = {
  ...correctable,
  'entry.corrected': corrections,
  'correction.signed': [shape<EventBodies['correction.signed']>({ correctionId: uuid })],
  'batch.started': started,
  'lot.drawn': [
    shape<never>({ lots: drawnBefore } as never),
    shape<never>({ lots: drawnBefore, used: usedDraw } as never),
    shape<EventBodies['lot.drawn']>({
      lots: drawnLots,
      used: usedDraw,
    }),
  ],
  'draw.reversed': [shape<EventBodies['draw.reversed']>({ drawId: uuid, reason })],
  'lots.returned': [
    shape<EventBodies['lots.returned']>({
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
  ],
  'jars.taken': [
    shape<EventBodies['jars.taken']>({ jars: jarNumbers, lotId: uuid, label: text({ max: 40 }), unitCost }),
  ],
  'curve.kept': [
    shape<EventBodies['curve.kept']>({
      ...place,
      ...byInstrument,
      curveId: uuid,
      stepId,
      from: instant,
      to: instant,
      readings: howMany,
      chunks: howMany,
      lowest_C: figure({ min: -60, max: 400, name: 'The lowest temperature' }),
      highest_C: figure({ min: -60, max: 400, name: 'The highest temperature' }),
      hash: text({ min: 64, max: 64 }),
    }),
  ],
  'pot.taken': [
    shape<EventBodies['pot.taken']>({
      mass_g: figure({ min: 0, above: true, max: 1_000_000, name: 'What was taken in grams' }),
      how: choice(POT_TAKEN_HOW),
      lotId: uuid,
      itemId: uuid,
      name: text({ max: 80 }),
      label: text({ max: 40 }),
      unitCost,
    }),
  ],
  'jars.released': grown<EventBodies['jars.released'], 'named'>(
    { jars: jarNumbers, evidence: list(evidence, { max: 200 }) },
    { named: list(text({ max: 300 }), { max: 200 }) },
  ),
  'jars.withdrawn': [
    shape<EventBodies['jars.withdrawn']>({
      jars: jarNumbers,
      why: text({ min: 3, max: 300, name: 'The reason' }),
    }),
  ],
  'labels.printed': [
    shape<never>({ ...printed, stock: text({ max: 40 }), label: labels.first } as never),
    shape<never>({ ...printed, stock: text({ max: 40 }), label: labels.second } as never),
    shape<never>({ ...printed, ...printSetup, code: flag, label: labels.today } as never),
    shape<EventBodies['labels.printed']>({ ...printed, ...printSetup, codes, label: labels.today }),
  ],
  'outlet.opened': [
    shape<OutletBody>({
      outletId: uuid,
      name: text({ min: 1, max: 80, name: 'The name' }),
      lotCode: text({ max: 60 }),
      times: list(timeRule, { max: 8 }),
      phLimit: figure({ min: 2, max: 4.6, name: 'The pH limit' }),
      statementOfIdentity: text({ max: 80 }),
    }),
  ],
};

/** The rule of a body in its newest shape. */
export const bodyRule = <K extends EventType>(type: K): Rule<EventBodies[K]> =>
  shapesOf[type].at(-1) as Rule<EventBodies[K]>;
