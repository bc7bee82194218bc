export {
  type CostInput,
  type CostJars,
  type CostLine,
  type CostPartId,
  type CostSheet,
  type LostJars,
  COST_PARTS,
  SHARINGS,
  type Sharing,
  costLine,
  costSheet,
  netMass_g,
} from './sheet.ts';
export { type CostContext, type Work, actualInput, aloneContext, batchCost, workOf } from './actual.ts';
export { type PlanFigures, plannedInput } from './planned.ts';
export { type Left, breakEvenJars, leftOf, mostToPay, priceByMargin, priceByMarkup } from './price.ts';
export { type Rescaled, type Swing, costPerJar, whatIf } from './what-if.ts';
export { type CostDifference, compareCosts } from './compare.ts';
