export { type KitchenSettings, changeKitchen, readKitchen } from './kitchen.ts';
export { leaveCounter, setPin } from './counter.ts';
export {
  type AtCounter,
  type FirstAccount,
  type Membership,
  type Person,
  type SessionRow,
  type SessionView,
  changePassword,
  endSession,
  listSessions,
  makeFirstAccount,
  readSession,
  signIn,
  signOut,
  switchKitchen,
} from './session.ts';
export {
  type Invitation,
  type Member,
  type OpenInvitation,
  acceptInvitation,
  changePerson,
  invite,
  listInvitations,
  listPeople,
  readInvitation,
  removePerson,
  withdrawInvitation,
} from './people.ts';
export { addPaper, listPapers, openPaper, removePaper } from './papers.ts';
export { readInstruments } from './instruments.ts';
export {
  CHECKS_SHOWN,
  checkInstrument,
  type InstrumentLog,
  INSTRUMENTS_KEPT,
  listInstrumentChecks,
  retireInstrument,
} from './instrument-checks.ts';
