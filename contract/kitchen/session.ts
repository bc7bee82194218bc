import { ROLES, type Role } from '@cocotte/core/kitchen';
import type { Habits } from '@cocotte/core/measure';
import { endpoint } from '../endpoint.ts';
import { settings, zone } from './kitchen.ts';
import {
  choice,
  email,
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

/** Rule of a role. */
export const role = choice<Role>(ROLES);

/** Somebody with an account. */
export interface Person {
  id: string;
  name: string;
  email: string;
}
/** A kitchen somebody belongs to, and what they may do in it. */
export interface Membership {
  id: string;
  name: string;
  role: Role;
  /** May release jars and sign. */
  maySign: boolean;
  /** Others used this device too: what is signed on it takes a PIN. */
  shared: boolean;
}
/** Somebody who signed in on this device: acts there for a tap, within the role of a cook, until they leave it. */
export interface AtCounter extends Pick<Membership, 'role' | 'maySign'> {
  kitchenId: string;
  /** The person. */
  id: string;
  name: string;
  /** Has set a PIN on this device. */
  hasPin: boolean;
  /** Signed out on it; still one of those who use it, so that signing takes a PIN. */
  left: boolean;
}
/** Who is signed in, in which kitchens, and what the door has to know before anybody is. */
export interface SessionView {
  person: Person | null;
  /** Kitchens of this person. */
  kitchens: Membership[];
  /** The kitchen they were in last: where a new tab begins. */
  kitchenId: string | null;
  /** Who uses this device, whoever signed in last among them; in each of that person's kitchens. */
  counter: AtCounter[];
  /** Nobody has an account yet: the first one is made now. */
  empty: boolean;
  /** The demo's sign-in, shown on this machine only. */
  demo: { email: string; password: string } | null;
  /** The connection is protected; without it a browser gives no wake lock. */
  secure: boolean;
}

const person = shape<Person>({ id: uuid, name: text({ max: 80 }), email: text({ max: 255 }) });
/** Rule of what is told of a session. */
export const sessionView = shape<SessionView>({
  person: maybe(person),
  kitchens: list(
    shape<Membership>({ id: uuid, name: text({ max: 80 }), role, maySign: flag, shared: flag }),
    {
      max: 1000,
    },
  ),
  kitchenId: maybe(uuid),
  counter: list(
    shape<AtCounter>({
      kitchenId: uuid,
      id: uuid,
      name: text({ max: 80 }),
      role,
      maySign: flag,
      hasPin: flag,
      left: flag,
    }),
    { max: 1000 },
  ),
  empty: flag,
  demo: maybe(
    shape<{ email: string; password: string }>({ email: text({ max: 255 }), password: text({ max: 200 }) }),
  ),
  secure: flag,
});

/** Who is signed in, and in which kitchen. */
export const readSession = endpoint({
  name: 'session.read',
  method: 'GET',
  path: '/api/session',
  who: 'anyone',
  summary: 'Who is signed in, and in which kitchen',
  reply: sessionView,
});
/** Sign in; slows down after failures. */
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
/** Sign out. */
export const signOut = endpoint({
  name: 'session.signOut',
  method: 'DELETE',
  path: '/api/session',
  who: 'signed in',
  summary: 'Sign out',
  reply: nothing,
});
/** Go to another kitchen of this person. */
export const switchKitchen = endpoint({
  name: 'session.switchKitchen',
  method: 'POST',
  path: '/api/session/kitchen',
  who: 'signed in',
  summary: 'Go to another kitchen of this person',
  body: shape<{ kitchenId: string }>({ kitchenId: uuid }),
  reply: sessionView,
});

/** The first account of an empty machine, with its kitchen. */
export interface FirstAccount {
  name: string;
  email: string;
  password: string;
  kitchen: string;
  zone: string;
  altitude_m: number;
  /** How it reads figures: as the browser says, and as was chosen. */
  habits: Omit<Habits, 'zone'>;
}
/** Make the first account and its kitchen; refused once there is one. */
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
    habits: shape<FirstAccount['habits']>({
      locale: settings.locale,
      currency: settings.currency,
      temperature: settings.temperature,
      altitude: settings.altitude,
      measures: settings.measures,
      paper: settings.paper,
    }),
  }),
  reply: sessionView,
});

/** One place where somebody is signed in. */
export interface SessionRow {
  id: string;
  /** What the browser called itself. */
  browser: string;
  address: string;
  signedInAt: string;
  lastSeenAt: string;
  /** The one that asks. */
  present: boolean;
}
const sessionRow = shape<SessionRow>({
  id: uuid,
  browser: text({ max: 300 }),
  address: text({ max: 60 }),
  signedInAt: instant,
  lastSeenAt: instant,
  present: flag,
});
/** Where this person is signed in. */
export const listSessions = endpoint({
  name: 'sessions.list',
  method: 'GET',
  path: '/api/sessions',
  who: 'signed in',
  summary: 'Where this person is signed in',
  reply: shape<{ sessions: SessionRow[] }>({ sessions: list(sessionRow, { max: 1000 }) }),
});
/** End one of this person's sessions. */
export const endSession = endpoint({
  name: 'sessions.end',
  method: 'DELETE',
  path: '/api/sessions/:sessionId',
  who: 'signed in',
  summary: "End one of this person's sessions",
  params: shape<{ sessionId: string }>({ sessionId: uuid }),
  reply: nothing,
});
/** Change this person's password; their other sessions end. */
export const changePassword = endpoint({
  name: 'account.password',
  method: 'PUT',
  path: '/api/account/password',
  who: 'signed in',
  summary: "Change this person's password; their other sessions end",
  body: shape<{ present: string; next: string }>({
    present: text({ min: 1, max: 200, name: 'The present password' }),
    next: newPassword,
  }),
  reply: nothing,
});
