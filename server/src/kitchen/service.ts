import { randomUUID } from 'node:crypto';
import type { FirstAccount, Invitation, KitchenSettings, Member, SessionView } from '@cocotte/contract';
import type { Kitchen, Role } from '@cocotte/core/kitchen';
import { hash, verify } from '@node-rs/argon2';
import type { Trx } from '../house/database.ts';
import type { Call, DoorCall } from '../house/mount.ts';
import { HttpProblem, problem } from '../house/problems.ts';
import { hashToken, newToken } from '../house/session-cookie.ts';
import { DEMO_SIGN_IN } from './demo-sign-in.ts';
import * as outside from './outside.ts';
import { insertKitchen, kitchenNames, selectKitchen, updateKitchen } from './queries.ts';

type AnyDoor = Pick<DoorCall<unknown, unknown, unknown>, 'trx' | 'clock' | 'loopback' | 'secure'>;

/** Failures that cost nothing; each further one doubles the wait, up to a quarter of an hour. */
const FREE_FAILURES = 3;
const LONGEST_WAIT_S = 900;
const INVITATION_MS = 48 * 3_600_000;

/** argon2id with the library's defaults (19 MiB, two passes). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** What the interface needs to know first. */
export async function sessionView(call: AnyDoor, visitor: outside.Visitor | null): Promise<SessionView> {
  const { trx } = call;
  const memberships = visitor ? await outside.kitchensOf(trx, visitor.person.id) : [];
  const names = await kitchenNames(
    trx,
    memberships.map(m => m.id),
    visitor?.kitchenId ?? null,
  );
  const demo =
    !visitor && call.loopback && (await outside.accountByEmail(trx, DEMO_SIGN_IN.email))?.demo === true;
  return {
    person: visitor?.person ?? null,
    kitchens: memberships.map(m => ({ id: m.id, name: names[m.id] ?? '', role: m.role })),
    kitchenId: visitor?.kitchenId ?? null,
    role: visitor?.role ?? null,
    empty: !visitor && !(await outside.anyAccount(trx)),
    demo: demo ? { ...DEMO_SIGN_IN } : null,
    secure: call.secure,
  };
}

export async function signIn(
  call: DoorCall<unknown, unknown, { email: string; password: string }>,
): Promise<SessionView> {
  const { trx, clock, body } = call;
  const email = body.email.toLowerCase();
  const keys = [`email ${email}`, `address ${call.address}`];
  await refuseIfTooSoon(trx, keys, clock.now_ms());
  const account = await outside.accountByEmail(trx, email);
  const good = account !== undefined && (await verify(account.password_hash, body.password));
  if (!account || !good) {
    for (const key of keys) await outside.countFailure(trx, key, clock.now_ms());
    throw problem(
      401,
      'wrong-sign-in',
      'That email and password do not belong together.',
      'One of them is mistyped, or there is no such account.',
      'Try again; after three failures each try waits longer.',
      'password',
    );
  }
  if (account.demo && !call.loopback) {
    throw problem(
      403,
      'demo-elsewhere',
      'The demo sign-in works on the machine itself only.',
      'Its password is known to everyone.',
      'Make an account of your own.',
    );
  }
  await outside.forgetFailures(trx, keys);
  return openSession(call, account);
}

async function refuseIfTooSoon(trx: Trx, keys: string[], now_ms: number): Promise<void> {
  const attempts = await outside.readAttempts(trx, keys);
  const wait_s = Math.max(
    0,
    ...attempts.map(a => {
      if (a.failures < FREE_FAILURES) return 0;
      const pause_s = Math.min(LONGEST_WAIT_S, 2 ** (a.failures - FREE_FAILURES + 1));
      return Math.ceil(pause_s - (now_ms - a.last_at.getTime()) / 1000);
    }),
  );
  if (wait_s > 0) {
    throw Object.assign(
      problem(
        429,
        'slow-down',
        `Too many failures: wait ${wait_s} s.`,
        'Guessing is made slow.',
        'Wait, then try once more.',
        'password',
      ),
      { retry_s: wait_s },
    );
  }
}

async function openSession(
  call: Pick<DoorCall<unknown, unknown, unknown>, 'trx' | 'clock' | 'setSession' | 'loopback' | 'secure'>,
  account: outside.Account,
  kitchenId?: string,
): Promise<SessionView> {
  const token = newToken();
  const memberships = await outside.kitchensOf(call.trx, account.id);
  const at = kitchenId ?? memberships[0]?.id ?? null;
  await outside.insertSession(call.trx, hashToken(token), account.id, at, call.clock.now_ms());
  call.setSession(token);
  const role = memberships.find(m => m.id === at)?.role ?? null;
  return sessionView(call, {
    person: { id: account.id, name: account.name, email: account.email },
    demo: account.demo,
    kitchenId: at,
    role,
  });
}

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

export async function signOut(call: DoorCall<unknown, unknown, unknown>): Promise<Record<never, never>> {
  if (call.tokenHash) await outside.deleteSession(call.trx, call.tokenHash);
  call.setSession(null);
  return {};
}

export async function switchKitchen(
  call: DoorCall<unknown, unknown, { kitchenId: string }>,
): Promise<SessionView> {
  const visitor = call.visitor as outside.Visitor;
  const membership = (await outside.kitchensOf(call.trx, visitor.person.id)).find(
    m => m.id === call.body.kitchenId,
  );
  if (!membership)
    throw problem(
      403,
      'not-a-member',
      'You do not belong to that kitchen.',
      'Its owner has not added you.',
      'Ask its owner for a link.',
    );
  await outside.moveSession(call.trx, call.tokenHash as string, membership.id);
  return sessionView(call, { ...visitor, kitchenId: membership.id, role: membership.role });
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

export async function listPeople(call: Call<unknown, unknown, unknown>): Promise<{ people: Member[] }> {
  return { people: await outside.membersOf(call.trx, call.kitchenId) };
}

export async function removePerson(
  call: Call<{ personId: string }, unknown, unknown>,
): Promise<Record<never, never>> {
  const members = await outside.membersOf(call.trx, call.kitchenId);
  const target = members.find(m => m.personId === call.params.personId);
  if (!target)
    throw problem(
      404,
      'not-found',
      'That person is not in this kitchen.',
      'They may have been taken out already.',
      'Look at the list again.',
    );
  if (target.role === 'owner' && members.filter(m => m.role === 'owner').length === 1) {
    throw problem(
      422,
      'last-owner',
      'The last owner stays.',
      'Without one nobody could add people.',
      'Add another owner first.',
    );
  }
  await outside.removeMembership(call.trx, target.personId, call.kitchenId);
  return {};
}

export async function invite(
  call: Call<unknown, unknown, { id: string; role: Role }>,
): Promise<{ token: string; expiresAt: string }> {
  const token = newToken();
  const expiresAt = new Date(call.clock.now_ms() + INVITATION_MS).toISOString();
  const added = await outside.insertInvitation(call.trx, {
    token_hash: hashToken(token),
    id: call.body.id,
    kitchen_id: call.kitchenId,
    role: call.body.role,
    made_by: call.person.id,
    expires_at: expiresAt,
    used_by: null,
  });
  if (!added)
    throw problem(
      409,
      'link-made',
      'This link was made already.',
      'A link is shown once.',
      'Make a new one.',
    );
  return { token, expiresAt };
}

async function openInvitation(
  call: Pick<DoorCall<{ token: string }, unknown, unknown>, 'trx' | 'clock' | 'params'>,
): Promise<outside.InvitationRow> {
  const row = await outside.readInvitation(call.trx, hashToken(call.params.token));
  if (!row || row.used_by || new Date(row.expires_at).getTime() < call.clock.now_ms()) {
    throw problem(
      404,
      'link-over',
      'This link does not open anything.',
      'It was used, is over 48 hours old, or is mistyped.',
      'Ask the owner for a new one.',
    );
  }
  return row;
}

export async function readInvitation(
  call: DoorCall<{ token: string }, unknown, unknown>,
): Promise<Invitation> {
  const row = await openInvitation(call);
  const names = await kitchenNames(call.trx, [row.kitchen_id], null);
  return {
    kitchen: names[row.kitchen_id] ?? '',
    role: row.role,
    expiresAt: new Date(row.expires_at).toISOString(),
  };
}

export async function acceptInvitation(
  call: DoorCall<{ token: string }, unknown, { name: string; email: string; password: string }>,
): Promise<SessionView> {
  const { trx, clock, body } = call;
  const row = await openInvitation(call);
  let account = await outside.accountByEmail(trx, body.email);
  const keys = [`email ${body.email.toLowerCase()}`, `address ${call.address}`];
  if (account) {
    await refuseIfTooSoon(trx, keys, clock.now_ms());
    if (!(await verify(account.password_hash, body.password))) {
      for (const key of keys) await outside.countFailure(trx, key, clock.now_ms());
      throw problem(
        401,
        'wrong-sign-in',
        'This email has an account with another password.',
        'Joining takes the password it already has.',
        'Enter that password, or use another email.',
        'password',
      );
    }
  } else {
    account = {
      id: randomUUID(),
      email: body.email.toLowerCase(),
      name: body.name,
      password_hash: await hashPassword(body.password),
      demo: false,
    };
    await outside.insertAccount(trx, account, clock.now_ms());
  }
  await outside.setMembership(trx, account.id, row.kitchen_id, row.role);
  await outside.spendInvitation(trx, row.token_hash, account.id);
  return openSession(call, account, row.kitchen_id);
}
