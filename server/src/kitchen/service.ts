import { randomUUID } from 'node:crypto';
import type { FirstAccount, KitchenSettings, SessionView } from '@cocotte/contract';
import { type Kitchen, plainCosts } from '@cocotte/core/kitchen';
import type { Trx } from '../house/database.ts';
import type { Call, DoorCall } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import * as outside from './outside.ts';
import { insertKitchen, selectKitchen, updateKitchen } from './queries.ts';
import { hashPassword, openSession } from './sessions.ts';

/** Settings of a new kitchen; what is not known yet is empty and asked for where it is needed. */
export function newKitchenSettings(name: string, zone: string, altitude_m: number): KitchenSettings {
  return {
    name,
    zone,
    altitude_m,
    locale: 'en-US',
    currency: 'USD',
    temperature: 'F',
    altitude: 'ft',
    hourlyRate: '0',
    makerName: '',
    makerAddress: '',
    jurisdiction: { name: '', statement: '', source: '', confirmedOn: null },
    thermometerError_C: 0,
    pots: [],
    canners: [],
    costs: plainCosts,
  };
}

export async function makeFirstAccount(call: DoorCall<unknown, unknown, FirstAccount>): Promise<SessionView> {
  const { trx, clock, body } = call;
  await outside.lockAccounts(trx);
  if (await outside.anyAccount(trx)) {
    throw problem(
      409,
      'not-first',
      'There is an account already.',
      'The first account is made once.',
      'Sign in, or ask an owner for a link.',
    );
  }
  checkZone(body.zone);
  const account = {
    id: randomUUID(),
    email: body.email.toLowerCase(),
    name: body.name,
    password_hash: await hashPassword(body.password),
    demo: false,
  };
  await outside.insertAccount(trx, account, clock.now_ms());
  const kitchenId = await addKitchen(
    trx,
    account.id,
    newKitchenSettings(body.kitchen, body.zone, body.altitude_m),
    clock.now_ms(),
  );
  return openSession(call, account, kitchenId);
}

/** Adds a kitchen with its owner. */
export async function addKitchen(
  trx: Trx,
  ownerId: string,
  settings: KitchenSettings,
  now_ms: number,
): Promise<string> {
  const id = randomUUID();
  await insertKitchen(trx, id, settings, now_ms);
  await outside.setMembership(trx, ownerId, id, 'owner');
  return id;
}

export async function readKitchen(
  call: Pick<Call<unknown, unknown, unknown>, 'trx' | 'kitchenId'>,
): Promise<Kitchen> {
  const kitchen = await selectKitchen(call.trx, call.kitchenId);
  if (!kitchen)
    throw problem(404, 'not-found', 'This kitchen is gone.', 'Its row is not there.', 'Sign in again.');
  return kitchen;
}

export async function changeKitchen(
  call: Call<unknown, unknown, KitchenSettings & { version: number }>,
): Promise<Kitchen> {
  const { version, ...settings } = call.body;
  checkZone(settings.zone);
  try {
    new Intl.NumberFormat(settings.locale);
  } catch {
    throw problem(
      422,
      'unknown-locale',
      `"${settings.locale}" is not a locale.`,
      'Numbers and dates are written by it.',
      'Use one like en-US or de-DE.',
      'locale',
    );
  }
  if (!(await updateKitchen(call.trx, call.kitchenId, version, settings))) {
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
      await readKitchen(call),
    );
  }
  return readKitchen(call);
}

function checkZone(zone: string): void {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
  } catch {
    throw problem(
      422,
      'unknown-zone',
      `"${zone}" is not a time zone.`,
      'The day of a batch follows from it.',
      'Use one like America/Denver.',
      'zone',
    );
  }
}
