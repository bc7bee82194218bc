export {
  type BatchRow,
  type BatchView,
  type DrawLine,
  type DrawLots,
  type TakeFromPot,
  type StartBatch,
  blankSheet,
  printLidMarks,
  drawLots,
  returnLots,
  takeJars,
  listBatches,
  takeFromPot,
  readBatch,
  readToday,
  reverseDraw,
  startBatch,
} from './batches.ts';
export { EVENTS_A_PAGE, type EventsPage, type Moved, feed, readEvents } from './feed.ts';
export { bodyRule, shapesOf } from './body-rules.ts';
export { type Delivered, type Delivery, appendFacts } from './delivery.ts';
export { type FactEntry, factRule } from './event-rules.ts';
export {
  type Curve,
  CURVE_POINTS,
  curveTable,
  followCurve,
  keepCurve,
  layCurve,
  listCurves,
  readCurve,
} from './curves.ts';
