export {
  type FirstAccount, type Invitation, type KitchenSettings, type Member, type Person, type SessionView,
  acceptInvitation, changeKitchen, invite, listPeople, makeFirstAccount, readInvitation, readKitchen, readSession,
  removePerson, signIn, signOut, switchKitchen,
} from './kitchen.ts';
