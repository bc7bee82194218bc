import {
  type Canner,
  type Jurisdiction,
  type JurisdictionProfile,
  type Kitchen,
  PLACE_POINTS,
  PLACE_RULES,
  type PlaceRule,
  type Pot,
  type TickedPoint,
} from '@cocotte/core/kitchen';
import { PH_LIMIT } from '@cocotte/core/acid';
import { ALTITUDE_LIMIT_M } from '@cocotte/core/heat';
import { endpoint } from '../endpoint.ts';
import { holdsRule } from './canners.ts';
import { costsRule } from './costs.ts';
import { placeLabelRule } from './place-label.ts';
import { choice, day, decimal, figure, flag, list, maybe, shape, text, uuid } from '../rules.ts';

const placeRule = shape<PlaceRule>({ rule: choice(PLACE_RULES), why: text({ max: 400 }) });
const rules = shape<Jurisdiction>({
  id: text({ min: 1, max: 40 }),
  name: text({ min: 1, max: 120, name: 'The place' }),
  version: figure({ min: 1, max: 1e6, whole: true, name: 'The version' }),
  fromMemory: flag,
  source: text({ max: 300 }),
  foods: shape<Jurisdiction['foods']>({
    'fruit spread': placeRule,
    'acid food': placeRule,
    'acidified food': placeRule,
    'fermented food': placeRule,
  }),
  phLimit: maybe(figure({ min: 0, max: 4.6, name: 'The highest pH', why: 'No place allows more than 4.6.' })),
  outlets: list(text({ min: 1, max: 60 }), { max: 12 }),
  ceiling: maybe(
    shape<NonNullable<Jurisdiction['ceiling']>>({
      amount: decimal({ min: 0, max: 100_000_000, name: 'The ceiling' }),
      currency: text({ min: 3, max: 3 }),
    }),
  ),
  training: text({ max: 200 }),
  registration: text({ max: 200 }),
  statement: text({ max: 300 }),
  label: placeLabelRule,
  edited: flag,
});
const jurisdiction = shape<JurisdictionProfile>({
  name: text({ max: 120 }),
  statement: text({ max: 300 }),
  source: text({ max: 200 }),
  confirmedOn: maybe(day),
  rules: maybe(rules),
  points: list(shape<TickedPoint>({ point: choice(PLACE_POINTS), tickedOn: day, renewsOn: maybe(day) }), {
    max: PLACE_POINTS.length,
  }),
  number: text({ max: 60, name: 'The number' }),
});

/** Rule of an IANA time zone; whether it exists is asked of the platform by the server. */
export const zone = text({ min: 1, max: 60, name: 'The time zone' });
/** What an owner enters. Whether the place was ever entered is the server's to say. */
export type KitchenSettings = Omit<Kitchen, 'id' | 'version' | 'placed' | 'demo'>;
/** Rules of what an owner enters of a kitchen. */
export const settings = {
  name: text({ min: 1, max: 80, name: 'The name' }),
  locale: text({ min: 2, max: 40, name: 'The locale' }),
  /** ISO 4217; whether the platform knows it is asked by the server. */
  currency: text({ min: 3, max: 3, name: 'The currency' }),
  zone,
  temperature: choice(['F', 'C'] as const),
  altitude: choice(['ft', 'm'] as const),
  measures: choice(['US', 'metric'] as const),
  paper: choice(['letter', 'A4'] as const),
  altitude_m: figure({
    ...ALTITUDE_LIMIT_M,
    name: 'The altitude in metres',
    why: 'The published tables end at 10,000 ft (3,048 m).',
  }),
  hourlyRate: decimal({ min: 0, max: 1000, name: 'The hourly rate' }),
  makerName: text({ max: 80 }),
  makerAddress: text({ max: 160 }),
  jurisdiction,
  thermometerError_C: figure({
    min: -5,
    max: 5,
    name: 'The thermometer error in °C',
    why: 'A thermometer that is further off is replaced.',
  }),
  thermometerIce_C: maybe(
    figure({
      min: -5,
      max: 5,
      name: 'The thermometer error in ice, in °C',
      why: 'A thermometer that is further off is replaced.',
    }),
  ),
  thermometerCheckedOn: maybe(day),
  phAct: figure({
    min: 3,
    max: PH_LIMIT,
    name: 'The pH this kitchen acts at',
    why: `It lies below the limit of ${PH_LIMIT}.`,
  }),
  pots: list(
    shape<Pot>({
      id: text({ min: 1, max: 40 }),
      name: text({ min: 1, max: 60, name: 'The pot' }),
      capacity_mL: figure({ min: 500, max: 200_000, name: 'The capacity in mL' }),
      diameter_mm: figure({ min: 80, max: 1200, name: 'The width in mm' }),
      boilOff_gPerMin: figure({ min: 0, max: 500, name: 'The water boiled off in g a minute' }),
    }),
    { max: 20 },
  ),
  canners: list(
    shape<Canner>({
      id: text({ min: 1, max: 40 }),
      name: text({ min: 1, max: 60, name: 'The canner' }),
      kind: choice(['boiling water', 'steam'] as const),
      holds: holdsRule,
    }),
    { max: 10 },
  ),
  costs: costsRule,
};
const kitchen = shape<Kitchen>({
  id: uuid,
  version: figure({ min: 1, max: 1e9, whole: true, name: 'The version' }),
  placed: flag,
  demo: flag,
  ...settings,
});

/** This kitchen's settings. */
export const readKitchen = endpoint({
  name: 'kitchen.read',
  method: 'GET',
  path: '/api/kitchens/:kitchenId',
  who: 'viewer',
  summary: "This kitchen's settings",
  reply: kitchen,
});
/** Change this kitchen's settings; a stale version is refused with the newer one. */
export const changeKitchen = endpoint({
  name: 'kitchen.change',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId',
  who: 'owner',
  summary: "Change this kitchen's settings; a stale version is refused with the newer one",
  body: shape<KitchenSettings & { version: number }>({
    version: figure({ min: 1, max: 1e9, whole: true, name: 'The version' }),
    ...settings,
  }),
  reply: kitchen,
});
