import type { Role } from '@cocotte/core/kitchen';
import type { Trx } from '../house/database.ts';

/** Accounts, sessions, memberships and invitations: the only rows that lie outside every kitchen. */
export interface Visitor {
  person: { id: string; name: string; email: string };
  demo: boolean;
  kitchenId: string | null;
  role: Role | null;
}

export interface Account {
  id: string;
  email: string;
  name: string;
  password_hash: string;
  demo: boolean;
}

const instant = (ms: number) => new Date(ms).toISOString();

/**
 * Who a session belongs to and where they are, or null when it is unknown or over. In the same statement the
 * transaction enters their kitchen, for its own length; it enters none when they are a member of none.
 */
export async function readVisitor(trx: Trx, tokenHash: string, now_ms: number): Promise<Visitor | null> {
  const result = await trx.raw(
    `select a.id, a.name, a.email, a.demo, m.kitchen_id, m.role, set_config('app.kitchen_id', coalesce(m.kitchen_id::text, ''), true)
     from sessions s join accounts a on a.id = s.account_id
     left join memberships m on m.account_id = a.id and m.kitchen_id = s.kitchen_id where s.token_hash = ? and s.expires_at > ?`,
    [tokenHash, instant(now_ms)],
  );
  const row = result.rows[0];
  return row
    ? {
        person: { id: row.id, name: row.name, email: row.email },
        demo: row.demo,
        kitchenId: row.kitchen_id,
        role: row.role,
      }
    : null;
}

export async function accountByEmail(trx: Trx, email: string): Promise<Account | undefined> {
  return trx('accounts').where({ email: email.toLowerCase() }).first();
}

export async function anyAccount(trx: Trx): Promise<boolean> {
  return (await trx('accounts').select('id').first()) !== undefined;
}

/** Holds back a second first account made at the same moment. */
export async function lockAccounts(trx: Trx): Promise<void> {
  await trx.raw('lock table accounts in share row exclusive mode');
}

export async function insertAccount(trx: Trx, account: Account, now_ms: number): Promise<void> {
  await trx('accounts').insert({
    ...account,
    email: account.email.toLowerCase(),
    created_at: instant(now_ms),
  });
}

export async function setPassword(trx: Trx, accountId: string, passwordHash: string): Promise<void> {
  await trx('accounts').where({ id: accountId }).update({ password_hash: passwordHash });
  await trx('sessions').where({ account_id: accountId }).delete();
}

export async function insertSession(
  trx: Trx,
  tokenHash: string,
  accountId: string,
  kitchenId: string | null,
  now_ms: number,
): Promise<void> {
  await trx('sessions').where('expires_at', '<', instant(now_ms)).delete();
  await trx('sessions').insert({
    token_hash: tokenHash,
    account_id: accountId,
    kitchen_id: kitchenId,
    created_at: instant(now_ms),
    expires_at: instant(now_ms + 30 * 86_400_000),
  });
}

export async function deleteSession(trx: Trx, tokenHash: string): Promise<void> {
  await trx('sessions').where({ token_hash: tokenHash }).delete();
}

export async function moveSession(trx: Trx, tokenHash: string, kitchenId: string): Promise<void> {
  await trx('sessions').where({ token_hash: tokenHash }).update({ kitchen_id: kitchenId });
}

export async function kitchensOf(trx: Trx, accountId: string): Promise<{ id: string; role: Role }[]> {
  return trx('memberships')
    .where({ account_id: accountId })
    .orderBy('kitchen_id')
    .select('kitchen_id as id', 'role');
}

export async function setMembership(
  trx: Trx,
  accountId: string,
  kitchenId: string,
  role: Role,
): Promise<void> {
  await trx('memberships')
    .insert({ account_id: accountId, kitchen_id: kitchenId, role })
    .onConflict(['account_id', 'kitchen_id'])
    .merge();
}

export async function membersOf(
  trx: Trx,
  kitchenId: string,
): Promise<{ personId: string; name: string; email: string; role: Role }[]> {
  return trx('memberships as m')
    .join('accounts as a', 'a.id', 'm.account_id')
    .where('m.kitchen_id', kitchenId)
    .orderBy('a.name')
    .select('a.id as personId', 'a.name', 'a.email', 'm.role');
}

export async function removeMembership(trx: Trx, accountId: string, kitchenId: string): Promise<void> {
  await trx('memberships').where({ account_id: accountId, kitchen_id: kitchenId }).delete();
}

/** Names of people, for a record: also of those who have left. */
export async function namesOf(trx: Trx, ids: string[]): Promise<Record<string, string>> {
  const rows: { id: string; name: string }[] = await trx('accounts').whereIn('id', ids).select('id', 'name');
  return Object.fromEntries(rows.map(r => [r.id, r.name]));
}

export interface InvitationRow {
  token_hash: string;
  id: string;
  kitchen_id: string;
  role: Role;
  made_by: string;
  expires_at: Date | string;
  used_by: string | null;
}

export async function insertInvitation(trx: Trx, row: InvitationRow): Promise<boolean> {
  const added = await trx('invitations').insert(row).onConflict('id').ignore().returning('id');
  return added.length > 0;
}

export async function readInvitation(trx: Trx, tokenHash: string): Promise<InvitationRow | undefined> {
  return trx('invitations').where({ token_hash: tokenHash }).forUpdate().first();
}

export async function spendInvitation(trx: Trx, tokenHash: string, accountId: string): Promise<void> {
  await trx('invitations').where({ token_hash: tokenHash }).update({ used_by: accountId });
}

/** Failed sign-ins counted against a key (an address or an email). */
export async function readAttempts(trx: Trx, keys: string[]): Promise<{ failures: number; last_at: Date }[]> {
  return trx('sign_in_attempts').whereIn('key', keys).select('failures', 'last_at');
}

export async function countFailure(trx: Trx, key: string, now_ms: number): Promise<void> {
  await trx('sign_in_attempts')
    .insert({ key, failures: 1, last_at: instant(now_ms) })
    .onConflict('key')
    .merge({ failures: trx.raw('sign_in_attempts.failures + 1'), last_at: instant(now_ms) });
}

export async function forgetFailures(trx: Trx, keys: string[]): Promise<void> {
  await trx('sign_in_attempts').whereIn('key', keys).delete();
}
