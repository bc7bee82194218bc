import * as contract from '@cocotte/contract';
import { type Mounted, door, room } from '../house/mount.ts';
import * as service from './service.ts';

export const kitchenRoutes: Mounted[] = [
  door(contract.readSession, call => service.sessionView(call, call.visitor)),
  door(contract.signIn, service.signIn),
  door(contract.signOut, service.signOut),
  door(contract.switchKitchen, service.switchKitchen),
  door(contract.makeFirstAccount, service.makeFirstAccount),
  door(contract.readInvitation, service.readInvitation),
  door(contract.acceptInvitation, service.acceptInvitation),
  room(contract.readKitchen, service.readKitchen),
  room(contract.changeKitchen, service.changeKitchen),
  room(contract.listPeople, service.listPeople),
  room(contract.removePerson, service.removePerson),
  room(contract.invite, service.invite),
];
