export { codeSymbol, labelCodes, scannedLotCode, type SymbolWriter } from './codes.ts';
export { checkDigit, readItemNumber, wholeItemNumber } from './item-number.ts';
export type { CodeSymbol } from './layout/codes.ts';
export { allergensFor, allergensNamed } from './allergens.ts';
export { labelChanges, type OutOfDate, outOfDatePrints, sameLabel } from './changes.ts';
export { type LabelCount, labelCounts } from './counts.ts';
export { claimsIn } from './claims.ts';
export { allergensOf, labelContent, truthfulName } from './content.ts';
export type { LabelRule } from './content-rules.ts';
export { ingredientStatement } from './ingredients.ts';
export { FIELD_NAMES, type LabelAsk, type LabelLayout, type LabelPiece, layOut } from './layout/layout.ts';
export { type LabelField, labelFields } from './layout/fields.ts';
export { type LeastSizes, leastSizes, NET_SHARE, panelArea_in2 } from './layout/type-sizes.ts';
export { type LidLine, lidLines, lidText } from './lids.ts';
export { fitsJar, withNearest } from './nearest.ts';
export { NET_FORMS, netAmount, netContentsText, type NetForm } from './net.ts';
export {
  calculatedNutrients,
  nutritionLine,
  type Nutrients,
  roundedCalories,
  roundedFat,
  roundedGrams,
  roundedSodium,
} from './nutrition.ts';
export { labelPlaceFault } from './place.ts';
export { type PlacedRule, requirements } from './requirements.ts';
export {
  containerOf,
  type LabelNutrition,
  type LabelSetup,
  LABEL_SCANS,
  PLAIN_LOOK,
  plainSetup,
} from './setup.ts';
export { labelSpelling } from './spelling.ts';
export { LABEL_STOCKS, placesOn, stockFaults, stockFor } from './stock.ts';
