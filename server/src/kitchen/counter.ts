import type {
  BodyOf,
  ParamsOf,
  SessionView,
  leaveCounter,
  setPin as setPinEndpoint,
} from '@cocotte/contract';
import type { DoorCall, PorchCall } from '../house/mount.ts';
import { problem } from '../house/problems.ts';
import * as grants from './grants.ts';
import * as outside from './outside.ts';
import { hashPassword, sessionView, weigh } from './sessions.ts';

/** Sets a person's PIN on this device, for their password. */
export async function setPin(
  call: PorchCall<ParamsOf<typeof setPinEndpoint>, unknown, BodyOf<typeof setPinEndpoint>>,
): Promise<SessionView> {
  const visitor = call.visitor as outside.Visitor;
  const { deviceHash } = visitor;
  const person = await call.database.outside(trx => outside.accountById(trx, call.params.personId));
  const known =
    person && deviceHash
      ? await call.database.outside(trx => outside.knowsDevice(trx, person.id, deviceHash))
      : false;
  if (!person || !deviceHash || !known)
    throw problem(403, {
      code: 'not-here',
      what: 'That person is not signed in on this device.',
      why: 'A PIN counts on one device alone.',
      next: 'Sign in here first.',
    });
  const { good } = await weigh({ ...call, deviceHash }, person.email, call.body.password);
  if (!good)
    throw problem(422, {
      code: 'wrong-password',
      what: 'That is not the password.',
      why: 'Whoever stands at this device must not be able to set the PIN of another.',
      next: `Enter the password of ${person.name}.`,
      path: 'password',
    });
  const pinHash = await hashPassword(call.body.pin);
  return call.database.outside(async trx => {
    await grants.setPinHash(trx, person.id, deviceHash, pinHash);
    return sessionView({ ...call, trx }, visitor);
  });
}

/** Somebody leaves this device. */
export async function leave(
  call: DoorCall<ParamsOf<typeof leaveCounter>, unknown, unknown>,
): Promise<SessionView> {
  const visitor = call.visitor as outside.Visitor;
  const { deviceHash } = visitor;
  if (call.params.personId === visitor.person.id)
    throw problem(422, {
      code: 'signed-in',
      what: 'You are signed in here.',
      why: 'The device works in your name until somebody else signs in.',
      next: 'Sign out.',
    });
  if (deviceHash) await grants.leaveDevice(call.trx, call.params.personId, deviceHash, call.clock.now_ms());
  return sessionView(call, visitor);
}
