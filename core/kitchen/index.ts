export {
  type Canner,
  type JurisdictionProfile,
  type Kitchen,
  type Pot,
  type Role,
  ROLES,
  mayAct,
} from './kitchen.ts';
export { type Burner, type CostSettings, type CostingMethod, COSTING_METHODS, plainCosts } from './costs.ts';
