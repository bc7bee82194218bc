import type { SessionView } from '@cocotte/contract';
import { hash, verify } from '@node-rs/argon2';
import type { Trx } from '../house/database.ts';
import type { DoorCall } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import { hashToken, newToken } from '../house/session-cookie.ts';
import { DEMO_SIGN_IN } from './demo-sign-in.ts';
import * as outside from './outside.ts';
import { kitchenNames } from './queries.ts';

type AnyDoor = Pick<DoorCall<unknown, unknown, unknown>, 'trx' | 'clock' | 'loopback' | 'secure'>;

/** Failures that cost nothing; each further one doubles the wait, up to a quarter of an hour. */
const FREE_FAILURES = 3;
const LONGEST_WAIT_S = 900;

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

export async function refuseIfTooSoon(trx: Trx, keys: string[], now_ms: number): Promise<void> {
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

export async function openSession(
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
