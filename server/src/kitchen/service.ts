import { randomUUID } from 'node:crypto';
import type { FirstAccount, KitchenSettings, SessionView } from '@cocotte/contract';
import { PH_ACT } from '@cocotte/core/acid';
import {
  changedPoints,
  JURISDICTIONS,
  type Kitchen,
  noPlace,
  plainCosts,
  POINT_WORDS,
} from '@cocotte/core/kitchen';
import { canonicalJson, dayOf } from '@cocotte/core/measure';
import type { Trx } from '../house/database.ts';
import type { Call, PorchCall } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import * as outside from './outside.ts';
import { insertKitchen, selectKitchen, updateKitchen } from './queries.ts';
import { hashPassword, openSession, weigh } from './sessions.ts';

/** Where a kitchen stands, as somebody entered it. */
export interface Place {
  zone: string;
  altitude_m: number;
}

/**
 * Settings of a new kitchen; what is not known yet is empty and asked for where it is needed. One whose place nobody
 * has entered starts no batch.
 */
export function newKitchenSettings(
  name: string,
  place: Place | null,
  habits: Partial<FirstAccount['habits']> = {},
): KitchenSettings & Pick<Kitchen, 'placed' | 'demo'> {
  return {
    name,
    ...(place ?? { zone: 'UTC', altitude_m: 0 }),
    placed: place !== null,
    demo: false,
    locale: 'en-US',
    currency: 'USD',
    temperature: 'F',
    altitude: 'ft',
    measures: 'US',
    paper: 'letter',
    ...habits,
    hourlyRate: '0',
    makerName: '',
    makerAddress: '',
    jurisdiction: noPlace(),
    thermometerError_C: 0,
    thermometerIce_C: null,
    thermometerCheckedOn: null,
    phAct: PH_ACT,
    pots: [],
    canners: [],
    costs: plainCosts,
  };
}

/** Makes the first account and its kitchen. The same sent twice signs in: the first answer may have been lost. */
export async function makeFirstAccount(
  call: PorchCall<unknown, unknown, FirstAccount>,
): Promise<SessionView> {
  const { database, clock, body } = call;
  checkZone(body.zone);
  checkHabits(body.habits, 'habits.');
  const password_hash = await hashPassword(body.password);
  const email = body.email.toLowerCase();
  const made = await database.outside(async trx => {
    await outside.lockAccounts(trx);
    if (await outside.anyAccount(trx)) return null;
    const account = { id: randomUUID(), email, name: body.name, password_hash, demo: false };
    await outside.insertAccount(trx, account, clock.now_ms());
    const kitchenId = await addKitchen(
      trx,
      newKitchenSettings(body.kitchen, { zone: body.zone, altitude_m: body.altitude_m }, body.habits),
      clock.now_ms(),
    );
    await outside.addMembership(trx, account.id, kitchenId, 'owner', true);
    return openSession({ ...call, trx }, account, kitchenId);
  });
  if (made) return made;
  const { account, good } = await weigh(call, email, body.password);
  if (account && good && (await database.outside(trx => outside.isOnlyAccount(trx, account.id))))
    return database.outside(trx => openSession({ ...call, trx }, account));
  throw problem(409, {
    code: 'not-first',
    what: 'There is an account already.',
    why: 'The first account is made once.',
    next: 'Sign in, or ask an owner for a link.',
  });
}

/** Adds a kitchen; who owns it is told after. */
export async function addKitchen(
  trx: Trx,
  settings: ReturnType<typeof newKitchenSettings>,
  now_ms: number,
): Promise<string> {
  const id = randomUUID();
  await insertKitchen(trx, id, settings, now_ms);
  return id;
}

/** The kitchen of the call. */
export async function readKitchen(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
): Promise<Kitchen> {
  const kitchen = await selectKitchen(call.trx, call.kitchenId);
  if (!kitchen)
    throw problem(404, {
      code: 'not-found',
      what: 'This kitchen is gone.',
      why: 'Its row is not there.',
      next: 'Sign in again.',
    });
  return kitchen;
}

/**
 * Rules of a place that are taken over are those that ship under its name: a record that names a place means them. What the
 * kitchen holds already stays, also when a newer version ships. An owner may change them by what the authority says: that
 * is the next version, and each point of which it says something else is ticked anew. Nothing is ticked before its day.
 */
function checkPlace(next: Kitchen['jurisdiction'], before: Kitchen, today: string): void {
  const { rules, points } = next;
  const shipped = JURISDICTIONS.find(j => j.id === rules?.id) ?? null;
  const held = before.jurisdiction.rules;
  const known = [held, shipped].some(r => canonicalJson(r) === canonicalJson(rules));
  const from = held?.id === rules?.id ? held : shipped;
  if (!known && !(rules && from && rules.edited && rules.version === from.version + 1))
    throw problem(422, {
      code: 'not-its-rules',
      what: `These are not the rules that stand under "${rules?.name ?? ''}".`,
      why: 'A batch keeps the name and the version of the place that allowed it.',
      next: 'Choose the place anew, and change it from what it says now.',
      path: 'jurisdiction.rules',
    });
  const anew = !known && rules && from ? changedPoints(from, rules) : [];
  const stale = points.findIndex(p => anew.includes(p.point) && p.tickedOn < today);
  if (stale >= 0)
    throw problem(422, {
      code: 'tick-anew',
      what: `Of ${POINT_WORDS[(points[stale] as (typeof points)[number]).point]} the place now says something else.`,
      why: 'It was ticked for what it said before.',
      next: 'Ask the authority, and tick it with the day of today.',
      path: `jurisdiction.points[${stale}].tickedOn`,
    });
  const ahead = points.findIndex(p => p.tickedOn > today);
  if (ahead >= 0)
    throw problem(422, {
      code: 'ticked-ahead',
      what: 'A point is ticked for a day that has not come.',
      why: 'It says when the authority was asked.',
      next: 'Enter the day on which it was asked.',
      path: `jurisdiction.points[${ahead}].tickedOn`,
    });
}

/** Changes the settings, unless somebody else did meanwhile. */
export async function changeKitchen(
  call: Call<unknown, unknown, KitchenSettings & { version: number }>,
): Promise<Kitchen> {
  const { version, ...settings } = call.body;
  checkZone(settings.zone);
  checkHabits(settings);
  const before = await readKitchen(call);
  checkPlace(settings.jurisdiction, before, dayOf(call.clock.now_ms(), settings.zone));
  // Whoever saves the settings has entered where the kitchen stands.
  const { demo } = before;
  const entered = { ...settings, placed: true, demo };
  if (!(await updateKitchen(call.trx, call.kitchenId, version, entered))) {
    const newer = await readKitchen(call);
    const { id: _id, version: newerVersion, ...there } = newer;
    // The same change sent twice: the first answer may have been lost.
    if (newerVersion === version + 1 && canonicalJson(there) === canonicalJson(entered)) return newer;
    throw new HttpProblem(
      409,
      'stale',
      [
        {
          path: '',
          code: 'stale',
          what: 'Somebody changed these settings meanwhile.',
          why: 'Saving would undo what they did.',
          next: 'Look at both and choose.',
        },
      ],
      newer,
    );
  }
  return readKitchen(call);
}

/** @throws HttpProblem for a locale or a currency that the platform does not know */
function checkHabits({ locale, currency }: Pick<KitchenSettings, 'locale' | 'currency'>, at = ''): void {
  try {
    new Intl.NumberFormat(locale);
  } catch {
    throw problem(422, {
      code: 'unknown-locale',
      what: `"${locale}" is not a locale.`,
      why: 'Numbers and dates are written by it.',
      next: 'Use one like en-US or de-DE.',
      path: `${at}locale`,
    });
  }
  if (!Intl.supportedValuesOf('currency').includes(currency))
    throw problem(422, {
      code: 'unknown-currency',
      what: `"${currency}" is no currency.`,
      why: 'Prices and costs are written in it.',
      next: 'Use three capital letters, such as USD, EUR or JPY.',
      path: `${at}currency`,
    });
}

/** @throws HttpProblem when there is no such zone */
export function checkZone(zone: string): void {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
  } catch {
    throw problem(422, {
      code: 'unknown-zone',
      what: `"${zone}" is not a time zone.`,
      why: 'The day of a batch follows from it.',
      next: 'Use one like America/Denver.',
      path: 'zone',
    });
  }
}
