import * as contract from '@cocotte/contract';
import { THREAD_PATIENCE_MS } from '../heavy/pool.ts';
import { type Mounted, door, intake, porch, room } from '../house/mount.ts';
import * as counter from './counter.ts';
import * as checks from './instrument-checks.ts';
import * as instruments from './instruments.ts';
import * as papers from './papers.ts';
import * as people from './people.ts';
import * as service from './service.ts';
import * as sessions from './sessions.ts';

const MOVES = { moves: ['settings'] } as const;

/** Mounts the endpoints of kitchens, people and sessions. */
export const kitchenRoutes: Mounted[] = [
  door(contract.readSession, sessions.readSession),
  porch(contract.signIn, sessions.signIn),
  door(contract.signOut, sessions.signOut),
  door(contract.switchKitchen, sessions.switchKitchen),
  door(contract.listSessions, sessions.sessions),
  door(contract.endSession, sessions.end),
  porch(contract.changePassword, sessions.newPassword),
  porch(contract.setPin, counter.setPin),
  door(contract.leaveCounter, counter.leave),
  porch(contract.makeFirstAccount, service.makeFirstAccount),
  door(contract.readInvitation, people.readInvitation),
  porch(contract.acceptInvitation, people.acceptInvitation),
  room(contract.readKitchen, service.readKitchen),
  room(contract.changeKitchen, service.changeKitchen, MOVES),
  room(contract.readInstruments, instruments.read),
  room(contract.listInstrumentChecks, checks.list),
  room(contract.checkInstrument, checks.check, MOVES),
  room(contract.retireInstrument, checks.retire, MOVES),
  room(contract.listPapers, papers.listPapers),
  intake(contract.addPaper, papers.readied, papers.addPaper, { ...MOVES, patience_ms: THREAD_PATIENCE_MS }),
  room(contract.openPaper, papers.openPaper),
  room(contract.removePaper, papers.removePaper, MOVES),
  room(contract.listPeople, people.listPeople),
  room(contract.changePerson, people.changePerson, MOVES),
  room(contract.removePerson, people.removePerson, MOVES),
  room(contract.invite, people.invite, MOVES),
  room(contract.listInvitations, people.invitations),
  room(contract.withdrawInvitation, people.withdraw, MOVES),
];
