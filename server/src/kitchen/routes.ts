import * as contract from '@cocotte/contract';
import { type Mounted, door, room } from '../house/mount.ts';
import * as people from './people.ts';
import * as service from './service.ts';
import * as sessions from './sessions.ts';

export const kitchenRoutes: Mounted[] = [
  door(contract.readSession, call => sessions.sessionView(call, call.visitor)),
  door(contract.signIn, sessions.signIn),
  door(contract.signOut, sessions.signOut),
  door(contract.switchKitchen, sessions.switchKitchen),
  door(contract.makeFirstAccount, service.makeFirstAccount),
  door(contract.readInvitation, people.readInvitation),
  door(contract.acceptInvitation, people.acceptInvitation),
  room(contract.readKitchen, service.readKitchen),
  room(contract.changeKitchen, service.changeKitchen),
  room(contract.listPeople, people.listPeople),
  room(contract.removePerson, people.removePerson),
  room(contract.invite, people.invite),
];
