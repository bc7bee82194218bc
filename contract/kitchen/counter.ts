import { endpoint } from '../endpoint.ts';
import { newPin, shape, text, uuid } from '../rules.ts';
import { sessionView } from './session.ts';

/** Set the PIN by which a person is known on this device; it takes their password. */
export const setPin = endpoint({
  name: 'counter.setPin',
  method: 'PUT',
  path: '/api/session/people/:personId/pin',
  who: 'signed in',
  summary: 'Set the PIN by which a person is known on this device; it takes their password',
  params: shape<{ personId: string }>({ personId: uuid }),
  body: shape<{ password: string; pin: string }>({
    password: text({ min: 1, max: 200, name: 'The password' }),
    pin: newPin,
  }),
  reply: sessionView,
});

/** Somebody leaves this device: their tile goes. What they left to deliver still arrives. */
export const leaveCounter = endpoint({
  name: 'counter.leave',
  method: 'DELETE',
  path: '/api/session/people/:personId',
  who: 'signed in',
  summary: 'Somebody leaves this device: their tile goes; what they left to deliver still arrives',
  params: shape<{ personId: string }>({ personId: uuid }),
  reply: sessionView,
});
