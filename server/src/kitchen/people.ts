import { randomUUID } from 'node:crypto';
import type {
  BodyOf,
  Invitation,
  Member,
  ParamsOf,
  ReplyOf,
  SessionView,
  acceptInvitation as acceptEndpoint,
  changePerson as changeEndpoint,
  invite as inviteEndpoint,
  listInvitations,
  withdrawInvitation,
} from '@cocotte/contract';
import type { Trx } from '../house/database.ts';
import type { Call, DoorCall, PorchCall } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import { hashToken, newToken } from '../house/session-cookie.ts';
import * as outside from './outside.ts';
import { kitchenNames } from './queries.ts';
import { hashPassword, openSession, weigh } from './sessions.ts';

type None = Record<never, never>;

/** How long a link opens, in ms. */
export const INVITATION_MS = 48 * 3_600_000;

/** Everybody of the kitchen. */
export async function listPeople(call: Call<unknown, unknown, unknown>): Promise<{ people: Member[] }> {
  return { people: await outside.membersOf(call.trx, call.kitchenId) };
}

/** Who belongs to the kitchen, locked; refuses a change after which nobody would own it. */
async function lockedMember(
  call: Pick<Call<{ personId: string }, unknown, unknown>, 'trx' | 'kitchenId' | 'params'>,
  staysOwner: boolean,
): Promise<boolean> {
  const members = await outside.lockMembers(call.trx, call.kitchenId);
  const target = members.find(m => m.account_id === call.params.personId);
  if (!target) return false;
  if (target.role === 'owner' && !staysOwner && members.every(m => m === target || m.role !== 'owner'))
    throw problem(422, {
      code: 'last-owner',
      what: 'The last owner stays one.',
      why: 'Without one nobody could add people.',
      next: 'Make somebody else an owner first.',
      path: 'role',
    });
  return true;
}

/** Takes somebody out; one who is out already is out. */
export async function removePerson(call: Call<{ personId: string }, unknown, unknown>): Promise<None> {
  if (await lockedMember(call, false))
    await outside.removeMembership(call.trx, call.params.personId, call.kitchenId);
  return {};
}

/** Changes what a member may do; the last owner stays one. */
export async function changePerson(
  call: Call<ParamsOf<typeof changeEndpoint>, unknown, BodyOf<typeof changeEndpoint>>,
): Promise<{ people: Member[] }> {
  const { role, maySign } = call.body;
  if (role === 'viewer' && maySign) throw viewerSigns();
  if (!(await lockedMember(call, role === 'owner')))
    throw problem(404, {
      code: 'not-found',
      what: 'That person is not in this kitchen.',
      why: 'They may have been taken out meanwhile.',
      next: 'Look at the list again.',
    });
  await outside.setMembership(call.trx, call.params.personId, call.kitchenId, role, maySign);
  return listPeople(call);
}

function viewerSigns() {
  return problem(422, {
    code: 'viewer-signs',
    what: 'A viewer changes nothing, and so signs nothing.',
    why: 'To release jars is to change them.',
    next: 'Make them a cook, or leave the right out.',
    path: 'maySign',
  });
}

/** Makes a link that adds one person. Its token is told this once. */
export async function invite(
  call: Call<unknown, unknown, BodyOf<typeof inviteEndpoint>>,
): Promise<ReplyOf<typeof inviteEndpoint>> {
  const { id, role, maySign } = call.body;
  if (role === 'viewer' && maySign) throw viewerSigns();
  const link = await makeLink(
    call.trx,
    { id, kitchenId: call.kitchenId, role, maySign, madeBy: call.person.id },
    call.clock.now_ms(),
  );
  if (!link)
    throw problem(409, {
      code: 'link-made',
      what: 'This link was used already.',
      why: 'A link opens once.',
      next: 'Make a new one.',
    });
  return link;
}

/**
 * Makes a link that invites to a kitchen.
 *
 * @returns its secret, which is shown once; null where this id is used or is another link's
 */
export async function makeLink(
  trx: Trx,
  link: {
    id: string;
    kitchenId: string;
    role: outside.InvitationRow['role'];
    maySign: boolean;
    madeBy: string | null;
  },
  now_ms: number,
): Promise<{ token: string; expiresAt: string } | null> {
  const token = newToken();
  const expiresAt = new Date(now_ms + INVITATION_MS).toISOString();
  const kept = await outside.insertInvitation(trx, {
    token_hash: hashToken(token),
    id: link.id,
    kitchen_id: link.kitchenId,
    role: link.role,
    may_sign: link.maySign,
    made_by: link.madeBy,
    expires_at: expiresAt,
    used_by: null,
  });
  return kept ? { token, expiresAt } : null;
}

/** Links that are open. */
export async function invitations(
  call: Call<unknown, unknown, unknown>,
): Promise<ReplyOf<typeof listInvitations>> {
  return {
    invitations: await outside.openInvitations(call.trx, call.kitchenId, call.clock.now_ms()),
  };
}

/** Withdraws a link. */
export async function withdraw(
  call: Call<ParamsOf<typeof withdrawInvitation>, unknown, unknown>,
): Promise<None> {
  await outside.dropInvitation(call.trx, call.kitchenId, call.params.invitationId);
  return {};
}

async function openInvitation(trx: Trx, token: string, now_ms: number): Promise<outside.InvitationRow> {
  const row = await outside.readInvitation(trx, hashToken(token));
  if (!row || row.used_by || new Date(row.expires_at).getTime() < now_ms) throw linkOver();
  return row;
}

function linkOver() {
  return problem(404, {
    code: 'link-over',
    what: 'This link does not open anything.',
    why: 'It was used or withdrawn, is over 48 hours old, or is mistyped.',
    next: 'Ask the owner for a new one.',
  });
}

/** What a link opens, for whoever holds it. */
export async function readInvitation(
  call: DoorCall<{ token: string }, unknown, unknown>,
): Promise<Invitation> {
  const row = await openInvitation(call.trx, call.params.token, call.clock.now_ms());
  const names = await kitchenNames(call.trx, [row.kitchen_id]);
  return {
    kitchen: names.get(row.kitchen_id) ?? '',
    role: row.role,
    maySign: row.role === 'owner' || row.may_sign,
    expiresAt: new Date(row.expires_at).toISOString(),
  };
}

/**
 * Joins by a link, with a new account or with the password of one that is there. The same joining sent twice signs in:
 * the first answer may have been lost.
 */
export async function acceptInvitation(
  call: PorchCall<{ token: string }, unknown, BodyOf<typeof acceptEndpoint>>,
): Promise<SessionView> {
  const { database, clock, body, params } = call;
  const tokenHash = hashToken(params.token);
  const spent = await database.outside(async trx => {
    const row = await outside.readInvitation(trx, tokenHash);
    if (!row?.used_by) return null;
    const by = await outside.accountById(trx, row.used_by);
    return by?.email === body.email.toLowerCase() ? by : null;
  });
  if (!spent) await database.outside(trx => openInvitation(trx, params.token, clock.now_ms()));
  const there = await database.outside(trx => outside.accountByEmail(trx, body.email));
  if (there) {
    const { good } = await weigh(call, body.email, body.password);
    if (!good)
      throw problem(401, {
        code: 'wrong-sign-in',
        what: 'This email has an account with another password.',
        why: 'Joining takes the password it already has.',
        next: 'Enter that password, or use another email.',
        path: 'password',
      });
  }
  const password_hash = there ? there.password_hash : await hashPassword(body.password);
  return database.outside(async trx => {
    if (spent) return openSession({ ...call, trx }, spent);
    const row = await openInvitation(trx, params.token, clock.now_ms());
    const account = there ?? {
      id: randomUUID(),
      email: body.email.toLowerCase(),
      name: body.name,
      password_hash,
      demo: false,
    };
    if (!there) await outside.insertAccount(trx, account, clock.now_ms());
    await outside.addMembership(trx, account.id, row.kitchen_id, row.role, row.may_sign);
    await outside.spendInvitation(trx, row.token_hash, account.id);
    return openSession({ ...call, trx }, account, row.kitchen_id);
  });
}
