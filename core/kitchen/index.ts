export {
  type Canner,
  type JurisdictionProfile,
  type Kitchen,
  type Pot,
  type Role,
  ROLES,
  mayAct,
} from './kitchen.ts';
