import { type Names, byName } from '@cocotte/core/measure';
import type { OpenInvitation, SessionRow } from '@cocotte/contract';
import { ROLES, type Role } from '@cocotte/core/kitchen';
import type { Statement, Trx } from '../house/database.ts';

/** Accounts, sessions, memberships and invitations: the only rows that lie outside every kitchen. */
export interface Visitor {
  sessionId: string;
  person: { id: string; name: string; email: string };
  demo: boolean;
  /** The kitchen they were in last. */
  lastKitchenId: string | null;
  /** Their role in the kitchen the call names; null in none. */
  role: Role | null;
  maySign: boolean;
  /** The device the session was begun on, by the hash of its secret; null for one begun by an earlier build. */
  deviceHash: string | null;
  /** Acts by a tap at a device on which somebody else is signed in: within the role of a cook. */
  byTap: boolean;
  /** Others signed in on the device as well: what is signed there takes a PIN. */
  shared: boolean;
}

/** Somebody who can sign in. */
export interface Account {
  id: string;
  email: string;
  name: string;
  password_hash: string;
  demo: boolean;
}

const SESSION_MS = 30 * 86_400_000;
/** Somebody who used a device within this time is one of those who use it, in ms. */
const SHARED_MS = 90 * 86_400_000;
const instant = (ms: number) => new Date(ms).toISOString();

/**
 * The statement that reads who calls and what they may do in a kitchen: whoever the session belongs to, or whoever acts
 * at its device by a tap and signed in there before. In it the transaction enters that kitchen, for its own length; it
 * enters none when they are not a member of it.
 *
 * @param acting  who acts, where it is not said by the session alone
 */
export function visitorStatement(
  tokenHash: string,
  kitchenId: string | null,
  now_ms: number,
  acting: string | null = null,
): Statement {
  return {
    text: `select s.session_id, s.kitchen_id as last_kitchen, s.device_hash, a.id, a.name, a.email, a.demo, m.role,
        coalesce(m.role = 'owner' or m.may_sign, false) as may_sign, a.id <> s.account_id as by_tap,
        exists (select 1 from device_people o where o.device_hash = s.device_hash and o.kitchen_id = $2
          and o.account_id <> a.id and o.last_at > $5) as shared,
        set_config('app.kitchen_id', coalesce(m.kitchen_id::text, ''), true)
      from sessions s join accounts a on a.id = coalesce($4, s.account_id)
      left join memberships m on m.account_id = a.id and m.kitchen_id = $2
        and (a.id = s.account_id or (
          exists (select 1 from memberships k where k.account_id = s.account_id and k.kitchen_id = $2)
          and exists (select 1 from grants g where g.account_id = a.id and g.kitchen_id = $2
            and g.device_hash = s.device_hash and g.left_at is null and g.expires_at > $3)))
      where s.token_hash = $1 and s.expires_at > $3`,
    values: [tokenHash, kitchenId, instant(now_ms), acting, instant(now_ms - SHARED_MS)],
  };
}

/** Who that is, or null when the session is unknown or over. */
export function visitorFrom(rows: Record<string, unknown>[]): Visitor | null {
  const row = rows[0] as
    | {
        session_id: string;
        last_kitchen: string | null;
        id: string;
        name: string;
        email: string;
        demo: boolean;
        role: Role | null;
        may_sign: boolean;
        device_hash: string | null;
        by_tap: boolean;
        shared: boolean;
      }
    | undefined;
  return row
    ? {
        sessionId: row.session_id,
        person: { id: row.id, name: row.name, email: row.email },
        demo: row.demo,
        lastKitchenId: row.last_kitchen,
        role: row.by_tap ? withinCook(row.role) : row.role,
        maySign: row.may_sign,
        deviceHash: row.device_hash,
        byTap: row.by_tap,
        shared: row.shared,
      }
    : null;
}

/** What a role comes to for somebody who was not asked for a password: a cook at the most. */
export const withinCook = <R extends Role | null>(role: R): R | 'cook' => (role === 'owner' ? 'cook' : role);

/** The account of an address, in whatever case it is written. */
export async function accountByEmail(trx: Trx, email: string): Promise<Account | undefined> {
  return trx('accounts').where({ email: email.toLowerCase() }).first();
}

/** The account of an id. */
export async function accountById(trx: Trx, id: string): Promise<Account | undefined> {
  return trx('accounts').where({ id }).first();
}

/** Whether anybody is here yet. */
export async function anyAccount(trx: Trx): Promise<boolean> {
  return (await trx('accounts').select('id').first()) !== undefined;
}

/** Whether an account is still the only one. */
export async function isOnlyAccount(trx: Trx, id: string): Promise<boolean> {
  return (await trx('accounts').whereNot({ id }).select('id').first()) === undefined;
}

/** Holds back a second first account made at the same moment. */
export async function lockAccounts(trx: Trx): Promise<void> {
  await trx.raw('lock table accounts in share row exclusive mode');
}

/** Adds an account. */
export async function insertAccount(trx: Trx, account: Account, now_ms: number): Promise<void> {
  await trx('accounts').insert({
    ...account,
    email: account.email.toLowerCase(),
    created_at: instant(now_ms),
  });
}

/** Sets a password; every session of the account ends, and what its devices may deliver, but for the one named. */
export async function setPassword(
  trx: Trx,
  accountId: string,
  passwordHash: string,
  keep: { sessionId: string; deviceHash: string | null } | null = null,
): Promise<void> {
  await trx('accounts').where({ id: accountId }).update({ password_hash: passwordHash });
  const ending = trx('sessions').where({ account_id: accountId });
  const forgetting = trx('known_devices').where({ account_id: accountId });
  if (keep) ending.whereNot('session_id', keep.sessionId);
  if (keep?.deviceHash) forgetting.whereNot('token_hash', keep.deviceHash);
  await ending.delete();
  await forgetting.delete();
}

/** Begins a session, known by the hash of its token alone. */
export async function insertSession(
  trx: Trx,
  session: {
    tokenHash: string;
    accountId: string;
    kitchenId: string | null;
    deviceHash?: string;
    browser?: string;
    address?: string;
  },
  now_ms: number,
): Promise<void> {
  await trx('sessions').where('expires_at', '<', instant(now_ms)).delete();
  await trx('sessions').insert({
    token_hash: session.tokenHash,
    account_id: session.accountId,
    kitchen_id: session.kitchenId,
    device_hash: session.deviceHash ?? null,
    browser: session.browser ?? '',
    address: session.address ?? '',
    created_at: instant(now_ms),
    last_seen_at: instant(now_ms),
    expires_at: instant(now_ms + SESSION_MS),
  });
}

/** Kitchens in which others than this account used a device. */
export async function sharedIn(
  trx: Trx,
  accountId: string,
  deviceHash: string,
  now_ms: number,
): Promise<Set<string>> {
  return new Set(
    await trx('device_people')
      .where({ device_hash: deviceHash })
      .whereNot({ account_id: accountId })
      .where('last_at', '>', instant(now_ms - SHARED_MS))
      .pluck('kitchen_id'),
  );
}

/** Whether a session stands, whoever acts in it. */
export async function hasSession(trx: Trx, tokenHash: string, now_ms: number): Promise<boolean> {
  return (
    (await trx('sessions')
      .where({ token_hash: tokenHash })
      .where('expires_at', '>', instant(now_ms))
      .select('session_id')
      .first()) !== undefined
  );
}

/** Ends a session. */
export async function deleteSession(trx: Trx, tokenHash: string): Promise<void> {
  await trx('sessions').where({ token_hash: tokenHash }).delete();
}

/** Ends one of an account's sessions, and takes back what its device might deliver for the account. */
export async function endSession(trx: Trx, accountId: string, sessionId: string): Promise<void> {
  const [gone] = await trx('sessions')
    .where({ account_id: accountId, session_id: sessionId })
    .delete('device_hash');
  if (gone?.device_hash)
    await trx('grants').where({ account_id: accountId, device_hash: gone.device_hash }).delete();
}

/** Notes that a session is in use, once an hour at most; tells whether it noted it. */
export async function touchSession(trx: Trx, sessionId: string, now_ms: number): Promise<boolean> {
  const noted = await trx('sessions')
    .where({ session_id: sessionId })
    .where('last_seen_at', '<', instant(now_ms - 3_600_000))
    .update({ last_seen_at: instant(now_ms) });
  return noted > 0;
}

/** Where somebody is signed in. */
export async function sessionsOf(
  trx: Trx,
  accountId: string,
  presentId: string,
  now_ms: number,
): Promise<SessionRow[]> {
  const rows = await trx('sessions')
    .where({ account_id: accountId })
    .where('expires_at', '>', instant(now_ms))
    .orderBy([{ column: 'last_seen_at', order: 'desc' }, { column: 'session_id' }])
    .limit(1000)
    .select('session_id', 'browser', 'address', 'created_at', 'last_seen_at');
  return rows.map(r => ({
    id: r.session_id,
    browser: r.browser,
    address: r.address,
    signedInAt: new Date(r.created_at).toISOString(),
    lastSeenAt: r.session_id === presentId ? instant(now_ms) : new Date(r.last_seen_at).toISOString(),
    present: r.session_id === presentId,
  }));
}

/** Notes in which kitchen the next tab of a session begins. */
export async function moveSession(trx: Trx, tokenHash: string, kitchenId: string): Promise<void> {
  await trx('sessions').where({ token_hash: tokenHash }).update({ kitchen_id: kitchenId });
}

/** Whether somebody signed in to this account on this device before. */
export async function knowsDevice(trx: Trx, accountId: string, deviceHash: string): Promise<boolean> {
  return (
    (await trx('known_devices').where({ account_id: accountId, token_hash: deviceHash }).first()) !==
    undefined
  );
}

/** Knows a device again, so that a guesser elsewhere does not lock its owner out. */
export async function rememberDevice(
  trx: Trx,
  accountId: string,
  deviceHash: string,
  now_ms: number,
): Promise<void> {
  // Whoever knows the password opens a PIN that was locked.
  await trx('known_devices')
    .insert({ account_id: accountId, token_hash: deviceHash, last_at: instant(now_ms), pin_wrong: 0 })
    .onConflict(['account_id', 'token_hash'])
    .merge();
}

/** Kitchens somebody belongs to, with what they may do there. */
export async function kitchensOf(
  trx: Trx,
  accountId: string,
): Promise<{ id: string; role: Role; maySign: boolean }[]> {
  return trx('memberships')
    .where({ account_id: accountId })
    .orderBy('kitchen_id')
    .select('kitchen_id as id', 'role', trx.raw(`(role = 'owner' or may_sign) as "maySign"`));
}

/** Makes somebody a member. One who is there already keeps what they have where it is more. */
export async function addMembership(
  trx: Trx,
  accountId: string,
  kitchenId: string,
  role: Role,
  maySign: boolean,
): Promise<void> {
  await trx.raw(
    `insert into memberships as m (account_id, kitchen_id, role, may_sign) values (?, ?, ?, ?)
     on conflict (account_id, kitchen_id) do update set
       role = case
         when array_position(?::text[], excluded.role) < array_position(?::text[], m.role) then excluded.role
         else m.role end,
       may_sign = m.may_sign or excluded.may_sign`,
    [accountId, kitchenId, role, maySign, [...ROLES], [...ROLES]],
  );
}

/** Says what a member may do. */
export async function setMembership(
  trx: Trx,
  accountId: string,
  kitchenId: string,
  role: Role,
  maySign: boolean,
): Promise<void> {
  await trx('memberships')
    .where({ account_id: accountId, kitchen_id: kitchenId })
    .update({ role, may_sign: maySign });
}

/** Locks who belongs to a kitchen, in one order: of two who change it at once the second sees what the first did. */
export async function lockMembers(
  trx: Trx,
  kitchenId: string,
): Promise<{ account_id: string; role: Role }[]> {
  return trx('memberships')
    .where({ kitchen_id: kitchenId })
    .orderBy('account_id')
    .forUpdate()
    .select('account_id', 'role');
}

/** Everybody of a kitchen. */
export async function membersOf(
  trx: Trx,
  kitchenId: string,
): Promise<{ personId: string; name: string; email: string; role: Role; maySign: boolean }[]> {
  return trx('memberships as m')
    .join('accounts as a', 'a.id', 'm.account_id')
    .where('m.kitchen_id', kitchenId)
    .orderBy('a.name')
    .select(
      'a.id as personId',
      'a.name',
      'a.email',
      'm.role',
      trx.raw(`(m.role = 'owner' or m.may_sign) as "maySign"`),
    );
}

/** Takes a member out; the links they made and nobody used die with it. */
export async function removeMembership(trx: Trx, accountId: string, kitchenId: string): Promise<void> {
  await trx('memberships').where({ account_id: accountId, kitchen_id: kitchenId }).delete();
  await trx('invitations').where({ made_by: accountId, kitchen_id: kitchenId }).whereNull('used_by').delete();
}

/** Names of people, for a record: also of those who have left. */
export async function namesOf(trx: Trx, ids: string[]): Promise<Names<string>> {
  const rows: { id: string; name: string }[] = await trx('accounts').whereIn('id', ids).select('id', 'name');
  return byName(rows.map(r => [r.id, r.name] as const));
}

/** A link as it is stored: by the hash of its token. */
export interface InvitationRow {
  token_hash: string;
  id: string;
  kitchen_id: string;
  role: Role;
  may_sign: boolean;
  /** Null for a link the keeper of the machine made. */
  made_by: string | null;
  expires_at: Date | string;
  used_by: string | null;
}

/**
 * Keeps a link. The same link asked for again, by the same person and not yet used, gets a new secret: the first one
 * may never have arrived.
 */
export async function insertInvitation(trx: Trx, row: InvitationRow): Promise<boolean> {
  const added = await trx.raw<{ rowCount: number }>(
    `insert into invitations as i (token_hash, id, kitchen_id, role, may_sign, made_by, expires_at) values (?, ?, ?, ?, ?, ?, ?)
     on conflict (id) do update set token_hash = excluded.token_hash, expires_at = excluded.expires_at
     where i.used_by is null and i.kitchen_id = excluded.kitchen_id and i.made_by = excluded.made_by
       and i.role = excluded.role and i.may_sign = excluded.may_sign`,
    [row.token_hash, row.id, row.kitchen_id, row.role, row.may_sign, row.made_by as string, row.expires_at],
  );
  return added.rowCount > 0;
}

/** A link, with its row locked, if whoever made it still owns the kitchen. */
export async function readInvitation(trx: Trx, tokenHash: string): Promise<InvitationRow | undefined> {
  return trx('invitations as i')
    .where({ token_hash: tokenHash })
    .whereRaw(
      `(i.made_by is null or exists (select 1 from memberships m
         where m.account_id = i.made_by and m.kitchen_id = i.kitchen_id and m.role = 'owner'))`,
    )
    .forUpdate('i')
    .first();
}

/** Uses a link up. */
export async function spendInvitation(trx: Trx, tokenHash: string, accountId: string): Promise<void> {
  await trx('invitations').where({ token_hash: tokenHash }).update({ used_by: accountId });
}

/** Links of a kitchen that still open something. */
export async function openInvitations(
  trx: Trx,
  kitchenId: string,
  now_ms: number,
): Promise<OpenInvitation[]> {
  const rows = await trx('invitations as i')
    .leftJoin('accounts as a', 'a.id', 'i.made_by')
    .where('i.kitchen_id', kitchenId)
    .whereNull('i.used_by')
    .where('i.expires_at', '>', instant(now_ms))
    .orderBy(['i.expires_at', 'i.id'])
    .limit(1000)
    .select('i.id', 'i.role', 'i.may_sign', 'i.expires_at', 'a.name');
  return rows.map(r => ({
    id: r.id,
    role: r.role,
    maySign: r.role === 'owner' || r.may_sign,
    madeBy: r.name ?? 'the keeper of the machine',
    expiresAt: new Date(r.expires_at).toISOString(),
  }));
}

/** Withdraws a link. */
export async function dropInvitation(trx: Trx, kitchenId: string, id: string): Promise<void> {
  await trx('invitations').where({ kitchen_id: kitchenId, id }).whereNull('used_by').delete();
}

/** The kitchen whose lots have their pages under this name; null for none. */
export async function kitchenOfPage(trx: Trx, page: string): Promise<string | null> {
  const row = await trx('lot_pages').where({ page }).first('kitchen_id');
  return (row?.kitchen_id as string | undefined) ?? null;
}

/** The name under which the pages of a kitchen's lots stand; null before they were ever opened. */
export async function pageOfKitchen(trx: Trx, kitchenId: string): Promise<string | null> {
  const row = await trx('lot_pages').where({ kitchen_id: kitchenId }).first('page');
  return (row?.page as string | undefined) ?? null;
}

/** Gives a kitchen's pages a name, once: it stands on jars. */
export async function namePage(trx: Trx, kitchenId: string, page: string): Promise<void> {
  await trx('lot_pages').insert({ kitchen_id: kitchenId, page }).onConflict('kitchen_id').ignore();
}
