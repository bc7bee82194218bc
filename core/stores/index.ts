export { type Item, type ItemKind, type Lot, drawFault } from './items.ts';
export { type CostPart, type CostSheet, batchCost } from './cost.ts';
