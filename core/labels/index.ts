export { batchCode, checkCharacter, isLotCode, lotCode } from './lot-code.ts';
export {
  type LabelRule,
  allergensOf,
  ingredientStatement,
  labelContent,
  truthfulName,
  netContentsText,
} from './content.ts';
export { labelSpelling } from './spelling.ts';
export { FIGURE_OVER_SIZE, NET_SHARE, netFigures_mm, panelArea_in2 } from './panel.ts';
export { type LabelStock, LABEL_STOCKS, labelStock, stockFor } from './stock.ts';
