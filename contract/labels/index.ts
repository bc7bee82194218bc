export {
  changeLabelSettings,
  changeLabelSetup,
  labelCheckPage,
  type LabelSettings,
  labelSheet,
  type PrintLabels,
  printLabels,
  readLabelSettings,
  readLabelSetup,
} from './labels.ts';
