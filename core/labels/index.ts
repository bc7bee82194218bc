export { checkCharacter, isLotCode, lotCode } from './lot-code.ts';
export {
  type LabelRule,
  allergensOf,
  ingredientStatement,
  labelContent,
  netContentsText,
} from './content.ts';
export { type LabelStock, LABEL_STOCKS, labelStock } from './stock.ts';
