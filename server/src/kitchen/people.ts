import { randomUUID } from 'node:crypto';
import type { Invitation, Member, SessionView } from '@cocotte/contract';
import type { Role } from '@cocotte/core/kitchen';
import { verify } from '@node-rs/argon2';
import type { Call, DoorCall } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import { hashToken, newToken } from '../house/session-cookie.ts';
import * as outside from './outside.ts';
import { kitchenNames } from './queries.ts';
import { hashPassword, openSession, refuseIfTooSoon } from './sessions.ts';

const INVITATION_MS = 48 * 3_600_000;

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
