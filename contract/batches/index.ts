export {
  type BatchRow,
  type BatchView,
  type DrawLine,
  type DrawLots,
  type StartBatch,
  appendFacts,
  blankSheet,
  drawLots,
  returnLots,
  takeJars,
  listBatches,
  readBatch,
  readToday,
  reverseDraw,
  startBatch,
} from './batches.ts';
export { type FactEntry, bodyRules, factRule } from './event-rules.ts';
