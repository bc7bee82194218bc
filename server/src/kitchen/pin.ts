import { check } from '@cocotte/contract';
import { newPin } from '@cocotte/contract/rules';
import { verify } from '@node-rs/argon2';
import type { Database, Trx } from '../house/database.ts';
import { type HttpProblem, problem } from '../house/problems.ts';
import * as grants from './grants.ts';

/** Why a PIN is asked for, wherever it is. */
const WHY = 'Several people use this device, and whoever signs answers for what people eat.';

/** What is said where a signature takes a PIN: that it is asked for, or that there is none yet. */
export async function pinAsked(trx: Trx, at: grants.PinPlace): Promise<HttpProblem> {
  return (await grants.hasPin(trx, at))
    ? problem(403, {
        code: 'pin',
        what: 'This takes your PIN.',
        why: WHY,
        next: 'Enter the PIN you set on this device.',
        path: 'pin',
      })
    : noPin();
}

const noPin = () =>
  problem(403, {
    code: 'no-pin',
    what: 'You have no PIN on this device.',
    why: WHY,
    next: 'Set one: it takes your password, and counts on this device alone.',
    path: 'pin',
  });

/**
 * Weighs a PIN: the try is counted first, and no transaction is open meanwhile.
 *
 * @throws HttpProblem 403 where it is wrong, where there is none, and where it is locked
 */
export async function weighPin(database: Database, at: grants.PinPlace, pin: string): Promise<void> {
  const tried = await database.outside(trx => grants.tryPin(trx, at));
  if (tried === 'no pin') throw noPin();
  if (tried === 'locked')
    throw problem(403, {
      code: 'pin-locked',
      what: 'Your PIN is locked on this device.',
      why: `It was entered wrongly ${grants.PIN_TRIES} times.`,
      next: 'Set a new one: it takes your password.',
      path: 'pin',
    });
  if (check(newPin, pin).ok && (await verify(tried.hash, pin))) {
    await database.outside(trx => grants.pinWasRight(trx, at));
    return;
  }
  throw problem(403, {
    code: tried.left > 0 ? 'pin' : 'pin-locked',
    what: 'That is not your PIN.',
    why: WHY,
    next:
      tried.left > 1
        ? `Try again: ${tried.left} more tries.`
        : tried.left === 1
          ? 'Try again: one more try, then it takes your password.'
          : 'It is locked on this device: set a new one, with your password.',
    path: 'pin',
  });
}
