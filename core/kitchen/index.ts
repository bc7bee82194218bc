export { type JurisdictionProfile, type Kitchen, type Role, ROLES, mayAct } from './kitchen.ts';
