export {
  type BatchRow,
  type BatchView,
  type DrawLine,
  type Delivered,
  type Delivery,
  type DrawLots,
  type OpenOutlet,
  type StartBatch,
  appendFacts,
  blankSheet,
  drawLots,
  returnLots,
  takeJars,
  listBatches,
  openOutlet,
  readBatch,
  readToday,
  reverseDraw,
  startBatch,
} from './batches.ts';
export { bodyRule, shapesOf } from './body-rules.ts';
export { type FactEntry, factRule } from './event-rules.ts';
