export {
  changeLabelSettings,
  changeLabelSetup,
  labelCheckPage,
  type LabelSettings,
  labelSheet,
  listTouchedLots,
  type PrintLabels,
  printLabels,
  readLabelSettings,
  readLabelSetup,
  TOUCHED_MOST,
  type TouchedLot,
} from './labels.ts';
