export { type PrintLabels, labelSheet, printLabels } from './labels.ts';
