import {
  type Canner,
  type JurisdictionProfile,
  type Kitchen,
  type Pot,
  ROLES,
  type Role,
} from '@cocotte/core/kitchen';
import { ALTITUDE_LIMIT_M } from '@cocotte/core/recipes';
import { endpoint } from '../endpoint.ts';
import { costsRule } from './costs.ts';
import {
  type Rule,
  choice,
  day,
  decimal,
  dictionary,
  email,
  figure,
  flag,
  instant,
  list,
  maybe,
  newPassword,
  nothing,
  shape,
  text,
  uuid,
} from '../rules.ts';

const role = choice<Role>(ROLES);

export interface Person {
  id: string;
  name: string;
  email: string;
}
export interface SessionView {
  person: Person | null;
  /** Kitchens of this person. */
  kitchens: { id: string; name: string; role: Role }[];
  kitchenId: string | null;
  role: Role | null;
  /** Nobody has an account yet: the first one is made now. */
  empty: boolean;
  /** The demo's sign-in, shown on this machine only. */
  demo: { email: string; password: string } | null;
  /** The connection is protected; without it a browser gives no wake lock. */
  secure: boolean;
}

const person = shape<Person>({ id: uuid, name: text({ max: 80 }), email: text({ max: 255 }) });
const sessionView = shape<SessionView>({
  person: maybe(person),
  kitchens: list(
    shape<{ id: string; name: string; role: Role }>({ id: uuid, name: text({ max: 80 }), role }),
    { max: 1000 },
  ),
  kitchenId: maybe(uuid),
  role: maybe(role),
  empty: flag,
  demo: maybe(
    shape<{ email: string; password: string }>({ email: text({ max: 255 }), password: text({ max: 200 }) }),
  ),
  secure: flag,
});

const jurisdiction = shape<JurisdictionProfile>({
  name: text({ max: 120 }),
  statement: text({ max: 300 }),
  source: text({ max: 200 }),
  confirmedOn: maybe(day),
});

const zone = text({ min: 1, max: 60, name: 'The time zone' });
export type KitchenSettings = Omit<Kitchen, 'id' | 'version'>;
const settings = {
  name: text({ min: 1, max: 80, name: 'The name' }),
  locale: text({ min: 2, max: 20, name: 'The locale' }),
  currency: choice(['USD', 'CAD', 'EUR', 'GBP', 'AUD', 'NZD']) as never,
  zone,
  temperature: choice(['F', 'C'] as const),
  altitude: choice(['ft', 'm'] as const),
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
      holds: dictionary(figure({ min: 0, max: 200, whole: true, name: 'The jars it holds' })) as Rule<
        Canner['holds']
      >,
    }),
    { max: 10 },
  ),
  costs: costsRule,
};
const kitchen = shape<Kitchen>({
  id: uuid,
  version: figure({ min: 1, max: 1e9, whole: true, name: 'The version' }),
  ...settings,
});

export const readSession = endpoint({
  name: 'session.read',
  method: 'GET',
  path: '/api/session',
  who: 'anyone',
  summary: 'Who is signed in, and in which kitchen',
  reply: sessionView,
});
export const signIn = endpoint({
  name: 'session.signIn',
  method: 'POST',
  path: '/api/session',
  who: 'anyone',
  summary: 'Sign in; slows down after failures',
  body: shape<{ email: string; password: string }>({
    email,
    password: text({ min: 1, max: 200, name: 'The password' }),
  }),
  reply: sessionView,
});
export const signOut = endpoint({
  name: 'session.signOut',
  method: 'DELETE',
  path: '/api/session',
  who: 'signed in',
  summary: 'Sign out',
  reply: nothing,
});
export const switchKitchen = endpoint({
  name: 'session.switchKitchen',
  method: 'POST',
  path: '/api/session/kitchen',
  who: 'signed in',
  summary: 'Go to another kitchen of this person',
  body: shape<{ kitchenId: string }>({ kitchenId: uuid }),
  reply: sessionView,
});

export interface FirstAccount {
  name: string;
  email: string;
  password: string;
  kitchen: string;
  zone: string;
  altitude_m: number;
}
export const makeFirstAccount = endpoint({
  name: 'account.first',
  method: 'POST',
  path: '/api/first-account',
  who: 'anyone',
  summary: 'Make the first account and its kitchen; refused once there is one',
  body: shape<FirstAccount>({
    name: text({ min: 1, max: 80, name: 'Your name' }),
    email,
    password: newPassword,
    kitchen: settings.name,
    zone,
    altitude_m: settings.altitude_m,
  }),
  reply: sessionView,
});

export const readKitchen = endpoint({
  name: 'kitchen.read',
  method: 'GET',
  path: '/api/kitchen',
  who: 'viewer',
  summary: "This kitchen's settings",
  reply: kitchen,
});
export const changeKitchen = endpoint({
  name: 'kitchen.change',
  method: 'PUT',
  path: '/api/kitchen',
  who: 'owner',
  summary: "Change this kitchen's settings; a stale version is refused with the newer one",
  body: shape<KitchenSettings & { version: number }>({
    version: figure({ min: 1, max: 1e9, whole: true, name: 'The version' }),
    ...settings,
  }),
  reply: kitchen,
});

export interface Member {
  personId: string;
  name: string;
  email: string;
  role: Role;
}
const member = shape<Member>({ personId: uuid, name: text({ max: 80 }), email: text({ max: 255 }), role });
export const listPeople = endpoint({
  name: 'people.list',
  method: 'GET',
  path: '/api/people',
  who: 'owner',
  summary: 'People of this kitchen',
  reply: shape<{ people: Member[] }>({ people: list(member, { max: 1000 }) }),
});
export const removePerson = endpoint({
  name: 'people.remove',
  method: 'DELETE',
  path: '/api/people/:personId',
  who: 'owner',
  summary: 'Take a person out of this kitchen; the last owner stays',
  params: shape<{ personId: string }>({ personId: uuid }),
  reply: nothing,
});

export interface Invitation {
  kitchen: string;
  role: Role;
  expiresAt: string;
}
const token = text({ min: 20, max: 100, name: 'The link' });
export const invite = endpoint({
  name: 'invitations.make',
  method: 'POST',
  path: '/api/invitations',
  who: 'owner',
  summary: 'Make a one-time link that lasts 48 hours',
  body: shape<{ id: string; role: Role }>({ id: uuid, role }),
  reply: shape<{ token: string; expiresAt: string }>({ token, expiresAt: instant }),
});
export const readInvitation = endpoint({
  name: 'invitations.read',
  method: 'GET',
  path: '/api/invitations/:token',
  who: 'anyone',
  summary: 'What a link invites to',
  params: shape<{ token: string }>({ token }),
  reply: shape<Invitation>({ kitchen: text({ max: 80 }), role, expiresAt: instant }),
});
export const acceptInvitation = endpoint({
  name: 'invitations.accept',
  method: 'POST',
  path: '/api/invitations/:token',
  who: 'anyone',
  summary: 'Join by a link: with a new account, or with the password of an existing one',
  params: shape<{ token: string }>({ token }),
  body: shape<{ name: string; email: string; password: string }>({
    name: text({ min: 1, max: 80, name: 'Your name' }),
    email,
    password: newPassword,
  }),
  reply: sessionView,
});
