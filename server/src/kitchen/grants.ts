import type { AtCounter } from '@cocotte/contract';
import type { Role } from '@cocotte/core/kitchen';
import type { Trx } from '../house/database.ts';
import { withinCook } from './outside.ts';

/**
 * Grants: whoever signed in on a device may go on entering facts there, in the kitchens they belong to, also when their
 * session is over. A grant opens nothing else; it ends with the membership, the password, the session that is ended from
 * elsewhere, or by itself.
 */

/** How long a device may deliver for somebody after they were last signed in on it, in ms. */
export const GRANT_MS = 90 * 86_400_000;
/** So many wrong PINs lock it on that device, until the password is entered. */
export const PIN_TRIES = 5;

const instant = (ms: number) => new Date(ms).toISOString();

/**
 * Gives, or lengthens, somebody's grants on a device: one for each of their kitchens.
 *
 * @param back  they sign in now: a device they had left is theirs again
 */
export async function giveGrants(
  trx: Trx,
  accountId: string,
  deviceHash: string,
  now_ms: number,
  back: boolean,
): Promise<void> {
  await trx.raw(
    `insert into grants as g (account_id, kitchen_id, device_hash, given_at, expires_at)
     select account_id, kitchen_id, ?, ?, ? from memberships where account_id = ?
     on conflict (account_id, kitchen_id, device_hash) do update
       set expires_at = excluded.expires_at, left_at = case when ? then null else g.left_at end`,
    [deviceHash, instant(now_ms), instant(now_ms + GRANT_MS), accountId, back],
  );
  await trx.raw(
    `insert into device_people as p (device_hash, kitchen_id, account_id, last_at)
     select ?, kitchen_id, account_id, ? from memberships where account_id = ?
     on conflict (device_hash, kitchen_id, account_id) do update set last_at = greatest(p.last_at, excluded.last_at)`,
    [deviceHash, instant(now_ms), accountId],
  );
}

/** Somebody leaves a device: what they left there to deliver still arrives. */
export async function leaveDevice(
  trx: Trx,
  accountId: string,
  deviceHash: string,
  now_ms: number,
): Promise<void> {
  await trx('grants')
    .where({ account_id: accountId, device_hash: deviceHash })
    .whereNull('left_at')
    .update({ left_at: instant(now_ms) });
}

/** Who uses a device, in the kitchens of whoever is signed in on it. */
export async function usersOf(
  trx: Trx,
  keeperId: string,
  deviceHash: string,
  now_ms: number,
): Promise<AtCounter[]> {
  const rows: {
    kitchen_id: string;
    id: string;
    name: string;
    role: Role;
    may_sign: boolean;
    has_pin: boolean;
    has_left: boolean;
  }[] = await trx('grants as g')
    .join('memberships as k', join =>
      join.on('k.kitchen_id', 'g.kitchen_id').andOnVal('k.account_id', keeperId),
    )
    .join('memberships as m', join =>
      join.on('m.kitchen_id', 'g.kitchen_id').andOn('m.account_id', 'g.account_id'),
    )
    .join('known_devices as d', join =>
      join.on('d.account_id', 'g.account_id').andOn('d.token_hash', 'g.device_hash'),
    )
    .join('accounts as a', 'a.id', 'g.account_id')
    .where('g.device_hash', deviceHash)
    .where('g.expires_at', '>', instant(now_ms))
    .orderBy(['a.name', 'a.id'])
    .limit(1000)
    .select(
      'g.kitchen_id',
      'a.id',
      'a.name',
      'm.role',
      trx.raw(`(m.role = 'owner' or m.may_sign) as may_sign`),
      trx.raw('d.pin_hash is not null as has_pin'),
      trx.raw('g.left_at is not null as has_left'),
    );
  return rows.map(r => ({
    kitchenId: r.kitchen_id,
    id: r.id,
    name: r.name,
    role: r.id === keeperId ? r.role : withinCook(r.role),
    maySign: r.may_sign,
    hasPin: r.has_pin,
    left: r.has_left,
  }));
}

/**
 * For whom a device may deliver without a session, as `visitorStatement` tells it; the transaction enters the kitchen.
 * Whoever delivers so signs nothing.
 */
export async function granteeRows(
  trx: Trx,
  deviceHash: string,
  kitchenId: string,
  personId: string,
  now_ms: number,
): Promise<Record<string, unknown>[]> {
  const { rows } = await trx.raw<{ rows: Record<string, unknown>[] }>(
    `select null as session_id, null as last_kitchen, g.device_hash, a.id, a.name, a.email, a.demo, m.role,
        false as may_sign, true as by_tap, true as shared, set_config('app.kitchen_id', m.kitchen_id::text, true)
      from grants g join accounts a on a.id = g.account_id
      join memberships m on m.account_id = g.account_id and m.kitchen_id = g.kitchen_id
      where g.device_hash = ? and g.kitchen_id = ? and g.account_id = ? and g.expires_at > ?`,
    [deviceHash, kitchenId, personId, instant(now_ms)],
  );
  return rows;
}

/** Sets the PIN by which somebody is known on a device; none where they did not sign in on it. */
export async function setPinHash(
  trx: Trx,
  accountId: string,
  deviceHash: string,
  pinHash: string,
): Promise<boolean> {
  return (
    (await trx('known_devices')
      .where({ account_id: accountId, token_hash: deviceHash })
      .update({ pin_hash: pinHash, pin_wrong: 0 })) > 0
  );
}

/** Where a PIN is tried: the session of the device, and who acts on it. */
export interface PinPlace {
  tokenHash: string;
  acting: string | null;
  now_ms: number;
}

const OF_PLACE = `known_devices d using (account_id, token_hash)`;
const device = `select coalesce(?::uuid, s.account_id) as account_id, s.device_hash as token_hash
  from sessions s where s.token_hash = ? and s.expires_at > ?`;

/**
 * Counts a try of a PIN before it is looked at, so that tries made at once are counted one by one.
 *
 * @returns the hash to weigh it against with the tries that are left; or why there is none
 */
export async function tryPin(
  trx: Trx,
  at: PinPlace,
): Promise<{ hash: string; left: number } | 'no pin' | 'locked'> {
  const where = [at.acting, at.tokenHash, instant(at.now_ms)];
  const { rows } = await trx.raw<{ rows: { pin_hash: string; pin_wrong: number }[] }>(
    `update known_devices k set pin_wrong = k.pin_wrong + 1 from (${device}) p
     where k.account_id = p.account_id and k.token_hash = p.token_hash and k.pin_hash is not null and k.pin_wrong < ?
     returning k.pin_hash, k.pin_wrong`,
    [...where, PIN_TRIES] as never,
  );
  const tried = rows[0];
  if (tried) return { hash: tried.pin_hash, left: PIN_TRIES - tried.pin_wrong };
  return (await hasPin(trx, at)) ? 'locked' : 'no pin';
}

/** Whether whoever acts has a PIN on the device. */
export async function hasPin(trx: Trx, at: PinPlace): Promise<boolean> {
  const { rows } = await trx.raw<{ rows: { has: boolean }[] }>(
    `select d.pin_hash is not null as has from (${device}) p join ${OF_PLACE}`,
    [at.acting, at.tokenHash, instant(at.now_ms)] as never,
  );
  return rows[0]?.has ?? false;
}

/** A PIN was right: the wrong ones before it are forgotten. */
export async function pinWasRight(trx: Trx, at: PinPlace): Promise<void> {
  await trx.raw(
    `update known_devices k set pin_wrong = 0 from (${device}) p
     where k.account_id = p.account_id and k.token_hash = p.token_hash`,
    [at.acting, at.tokenHash, instant(at.now_ms)] as never,
  );
}
