import { randomUUID } from 'node:crypto';
import type {
  BodyOf,
  ParamsOf,
  ReplyOf,
  SessionView,
  changePassword,
  endSession,
  listSessions,
  signIn as signInEndpoint,
  switchKitchen as switchEndpoint,
} from '@cocotte/contract';
import { hash, verify } from '@node-rs/argon2';
import type { Trx } from '../house/database.ts';
import type { DoorCall, PorchCall } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import { hashToken, newToken } from '../house/session-cookie.ts';
import { DEMO_SIGN_IN } from './demo-sign-in.ts';
import * as grants from './grants.ts';
import type { Guess } from './guesses.ts';
import * as outside from './outside.ts';
import { kitchenNames } from './queries.ts';

type None = Record<never, never>;
type AnyPorch = PorchCall<unknown, unknown, unknown>;

/** argon2id with the library's defaults (19 MiB, two passes). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** Weighed where there is no account, so that an unknown one takes as long as a known one. */
const nobodysHash = hash(randomUUID());

/** Whether a password is an account's. Takes the same time whether the account is there or not. */
export async function isPassword(account: outside.Account | undefined, password: string): Promise<boolean> {
  const good = await verify(account?.password_hash ?? (await nobodysHash), password);
  return good && account !== undefined;
}

/** What the interface needs to know first. */
export async function sessionView(
  call: Pick<AnyPorch, 'thisMachine' | 'secure' | 'clock'> & { trx: Trx },
  visitor: Pick<outside.Visitor, 'person' | 'lastKitchenId' | 'deviceHash'> | null,
): Promise<SessionView> {
  const { trx } = call;
  const memberships = visitor ? await outside.kitchensOf(trx, visitor.person.id) : [];
  const shared = visitor?.deviceHash
    ? await outside.sharedIn(trx, visitor.person.id, visitor.deviceHash, call.clock.now_ms())
    : new Set<string>();
  const names = await kitchenNames(
    trx,
    memberships.map(m => m.id),
  );
  const demo =
    !visitor && call.thisMachine && (await outside.accountByEmail(trx, DEMO_SIGN_IN.email))?.demo === true;
  const last = visitor?.lastKitchenId ?? null;
  return {
    person: visitor?.person ?? null,
    kitchens: memberships.map(m => ({ ...m, name: names.get(m.id) ?? '', shared: shared.has(m.id) })),
    kitchenId: memberships.find(m => m.id === last)?.id ?? memberships[0]?.id ?? null,
    counter: visitor?.deviceHash
      ? await grants.usersOf(trx, visitor.person.id, visitor.deviceHash, call.clock.now_ms())
      : [],
    empty: !visitor && !(await outside.anyAccount(trx)),
    demo: demo ? { ...DEMO_SIGN_IN } : null,
    secure: call.secure,
  };
}

/** Who is calling, and where they belong. */
export async function readSession(call: DoorCall<unknown, unknown, unknown>): Promise<SessionView> {
  const { visitor, trx } = call;
  const now_ms = call.clock.now_ms();
  if (visitor) {
    const used = await outside.touchSession(trx, visitor.sessionId, now_ms);
    if (used && visitor.deviceHash)
      await grants.giveGrants(trx, visitor.person.id, visitor.deviceHash, now_ms, false);
  }
  return sessionView(call, visitor);
}

/**
 * Weighs a password: the guess is counted first, and no transaction is open meanwhile.
 *
 * @returns the account, when the password is its own
 * @throws HttpProblem 429 after too many guesses
 */
export async function weigh(
  call: Pick<AnyPorch, 'database' | 'guesses' | 'address' | 'deviceHash'>,
  email: string,
  password: string,
): Promise<{ account: outside.Account | undefined; good: boolean }> {
  const { deviceHash } = call;
  const { account, known } = await call.database.outside(async trx => {
    const there = await outside.accountByEmail(trx, email);
    return {
      account: there,
      known: there && deviceHash ? await outside.knowsDevice(trx, there.id, deviceHash) : false,
    };
  });
  const guess: Guess = { email, address: call.address, knownDevice: known ? deviceHash : null };
  await call.guesses.count(guess);
  const good = await isPassword(account, password);
  if (good) await call.guesses.takeBack(guess);
  return { account, good };
}

/** Signs in. Guesses are counted before the password is weighed. */
export async function signIn(
  call: PorchCall<unknown, unknown, BodyOf<typeof signInEndpoint>>,
): Promise<SessionView> {
  const { account, good } = await weigh(call, call.body.email, call.body.password);
  if (!account || !good)
    throw problem(401, {
      code: 'wrong-sign-in',
      what: 'That email and password do not belong together.',
      why: 'One of them is mistyped, or there is no such account.',
      next: 'Try again; after three failures each try has to wait.',
      path: 'password',
    });
  if (account.demo && !call.thisMachine)
    throw problem(403, {
      code: 'demo-elsewhere',
      what: 'The demo sign-in works on the machine itself only.',
      why: 'Its password is known to everyone.',
      next: 'Make an account of your own.',
    });
  return call.database.outside(trx => openSession({ ...call, trx }, account));
}

/** Signs somebody in on this device, and knows the device from now on. */
export async function openSession(
  call: Omit<AnyPorch, 'database' | 'guesses' | 'params' | 'query' | 'body'> & { trx: Trx },
  account: outside.Account,
  kitchenId?: string,
): Promise<SessionView> {
  const { trx, clock } = call;
  const token = newToken();
  const now_ms = clock.now_ms();
  const at = kitchenId ?? (await outside.kitchensOf(trx, account.id))[0]?.id ?? null;
  let { deviceHash } = call;
  if (!deviceHash) {
    const device = newToken();
    deviceHash = hashToken(device);
    call.setDevice(device);
  }
  // Whoever was signed in here stays at the counter; the device works in the name of who signed in last.
  if (call.tokenHash) await outside.deleteSession(trx, call.tokenHash);
  await outside.rememberDevice(trx, account.id, deviceHash, now_ms);
  await grants.giveGrants(trx, account.id, deviceHash, now_ms, true);
  await outside.insertSession(
    trx,
    {
      tokenHash: hashToken(token),
      accountId: account.id,
      kitchenId: at,
      deviceHash,
      browser: call.browser,
      address: call.address,
    },
    now_ms,
  );
  call.setSession(token);
  const person = { id: account.id, name: account.name, email: account.email };
  return sessionView(call, { person, lastKitchenId: at, deviceHash });
}

/** Ends the session of the call, and takes its person from the device's counter. */
export async function signOut(call: DoorCall<unknown, unknown, unknown>): Promise<None> {
  const { visitor } = call;
  if (visitor?.deviceHash)
    await grants.leaveDevice(call.trx, visitor.person.id, visitor.deviceHash, call.clock.now_ms());
  if (call.tokenHash) await outside.deleteSession(call.trx, call.tokenHash);
  call.setSession(null);
  return {};
}

/** Where a new tab begins from now on. A tab that is open stays in its own kitchen: each call names it. */
export async function switchKitchen(
  call: DoorCall<unknown, unknown, BodyOf<typeof switchEndpoint>>,
): Promise<SessionView> {
  const visitor = call.visitor as outside.Visitor;
  const membership = (await outside.kitchensOf(call.trx, visitor.person.id)).find(
    m => m.id === call.body.kitchenId,
  );
  if (!membership)
    throw problem(403, {
      code: 'not-a-member',
      what: 'You do not belong to that kitchen.',
      why: 'Its owner has not added you.',
      next: 'Ask its owner for a link.',
    });
  await outside.moveSession(call.trx, call.tokenHash as string, membership.id);
  return sessionView(call, { ...visitor, lastKitchenId: membership.id });
}

/** Where the caller is signed in. */
export async function sessions(
  call: DoorCall<unknown, unknown, unknown>,
): Promise<ReplyOf<typeof listSessions>> {
  const visitor = call.visitor as outside.Visitor;
  return {
    sessions: await outside.sessionsOf(call.trx, visitor.person.id, visitor.sessionId, call.clock.now_ms()),
  };
}

/** Ends one of the person's own sessions; one that is over already is over. */
export async function end(call: DoorCall<ParamsOf<typeof endSession>, unknown, unknown>): Promise<None> {
  const visitor = call.visitor as outside.Visitor;
  await outside.endSession(call.trx, visitor.person.id, call.params.sessionId);
  if (call.params.sessionId === visitor.sessionId) call.setSession(null);
  return {};
}

/** A new password: the present one is asked for, and every other session of the person ends. */
export async function newPassword(
  call: PorchCall<unknown, unknown, BodyOf<typeof changePassword>>,
): Promise<None> {
  const visitor = call.visitor as outside.Visitor;
  if (visitor.demo)
    throw problem(422, {
      code: 'demo-account',
      what: 'The demo account keeps its password.',
      why: 'It is the one that is printed at the start.',
      next: 'Make an account of your own.',
      path: 'next',
    });
  const { account, good } = await weigh(call, visitor.person.email, call.body.present);
  if (!account || !good)
    throw problem(422, {
      code: 'wrong-password',
      what: 'That is not your present password.',
      why: 'Whoever finds this device signed in must not be able to take the account over.',
      next: 'Enter the password you signed in with.',
      path: 'present',
    });
  const next = await hashPassword(call.body.next);
  await call.database.outside(async trx => {
    await outside.setPassword(trx, account.id, next, visitor);
  });
  return {};
}
