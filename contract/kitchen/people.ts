import type { Role } from '@cocotte/core/kitchen';
import { endpoint } from '../endpoint.ts';
import { email, flag, instant, list, newPassword, nothing, shape, text, uuid } from '../rules.ts';
import { role, sessionView } from './session.ts';

/** Somebody of the kitchen, with what they may do. */
export interface Member {
  personId: string;
  name: string;
  email: string;
  role: Role;
  maySign: boolean;
}
const member = shape<Member>({
  personId: uuid,
  name: text({ max: 80 }),
  email: text({ max: 255 }),
  role,
  maySign: flag,
});
const people = shape<{ people: Member[] }>({ people: list(member, { max: 1000 }) });
/** People of this kitchen. */
export const listPeople = endpoint({
  name: 'people.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/people',
  who: 'owner',
  summary: 'People of this kitchen',
  reply: people,
});
/** Change somebody's role, or give and take the right to release and sign; the last owner stays one. */
export const changePerson = endpoint({
  name: 'people.change',
  method: 'PUT',
  path: '/api/kitchens/:kitchenId/people/:personId',
  who: 'owner',
  asksPin: true,
  summary: "Change somebody's role, or give and take the right to release and sign; the last owner stays one",
  params: shape<{ personId: string }>({ personId: uuid }),
  body: shape<{ role: Role; maySign: boolean }>({ role, maySign: flag }),
  reply: people,
});
/** Take a person out of this kitchen; the last owner stays. */
export const removePerson = endpoint({
  name: 'people.remove',
  method: 'DELETE',
  path: '/api/kitchens/:kitchenId/people/:personId',
  who: 'owner',
  asksPin: true,
  summary: 'Take a person out of this kitchen; the last owner stays',
  params: shape<{ personId: string }>({ personId: uuid }),
  reply: nothing,
});

/** A link that adds one person, while it is open. */
export interface Invitation {
  kitchen: string;
  role: Role;
  maySign: boolean;
  expiresAt: string;
}
const token = text({ min: 20, max: 100, name: 'The link' });
/** Make a one-time link that lasts 48 hours. */
export const invite = endpoint({
  name: 'invitations.make',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/invitations',
  who: 'owner',
  asksPin: true,
  summary: 'Make a one-time link that lasts 48 hours',
  body: shape<{ id: string; role: Role; maySign: boolean }>({ id: uuid, role, maySign: flag }),
  reply: shape<{ token: string; expiresAt: string }>({ token, expiresAt: instant }),
});
/** What a link invites to. */
export const readInvitation = endpoint({
  name: 'invitations.read',
  method: 'GET',
  path: '/api/invitations/:token',
  who: 'anyone',
  summary: 'What a link invites to',
  params: shape<{ token: string }>({ token }),
  reply: shape<Invitation>({ kitchen: text({ max: 80 }), role, maySign: flag, expiresAt: instant }),
});
/** Join by a link: with a new account, or with the password of an existing one. */
export const acceptInvitation = endpoint({
  name: 'invitations.accept',
  method: 'POST',
  path: '/api/invitations/:token',
  who: 'anyone',
  summary: 'Join by a link: with a new account, or with the password of an existing one',
  params: shape<{ token: string }>({ token }),
  body: shape<{ name: string; email: string; password: string }>({
    name: text({ min: 1, max: 80, name: 'Your name' }),
    email,
    password: newPassword,
  }),
  reply: sessionView,
});

/** A link that was made and not yet used. */
export interface OpenInvitation {
  id: string;
  role: Role;
  maySign: boolean;
  madeBy: string;
  expiresAt: string;
}
/** Links that are open. */
export const listInvitations = endpoint({
  name: 'invitations.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/invitations',
  who: 'owner',
  summary: 'Links that are open',
  reply: shape<{ invitations: OpenInvitation[] }>({
    invitations: list(
      shape<OpenInvitation>({
        id: uuid,
        role,
        maySign: flag,
        madeBy: text({ max: 80 }),
        expiresAt: instant,
      }),
      { max: 1000 },
    ),
  }),
});
/** Withdraw a link that is open. */
export const withdrawInvitation = endpoint({
  name: 'invitations.withdraw',
  method: 'DELETE',
  path: '/api/kitchens/:kitchenId/invitations/:invitationId',
  who: 'owner',
  summary: 'Withdraw a link that is open',
  params: shape<{ invitationId: string }>({ invitationId: uuid }),
  reply: nothing,
});
