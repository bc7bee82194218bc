export {
  type Item,
  type ItemKind,
  type ItemUse,
  type Mouth,
  type ShopPackage,
  type ToolState,
  ITEM_KINDS,
  ITEM_USES,
  MOUTHS,
  TOOL_STATES,
  inItemUnit,
  itemFaults,
  serves,
  unitSign,
  upgradeItem,
  itemUseOf,
} from './items.ts';
export {
  type Condition,
  type JuiceKind,
  type Lot,
  type LotFacts,
  type LotPart,
  type LotSource,
  type SaltKind,
  type ValueRule,
  CONDITIONS,
  JUICE_KINDS,
  LOT_SOURCES,
  SALT_KINDS,
  TYPED_SOURCES,
  VALUE_RULES,
  contentsOf,
  lotFaults,
  plainFacts,
  typedFacts,
} from './lots.ts';
export { type DrawUse, drawFault, moreThanLot, unfitFault } from './unfit.ts';
export {
  type Balance,
  type Movement,
  type MovementReason,
  MOVEMENT_REASONS,
  averageCost,
  balanceOf,
  costOfDraw,
  inDrawingOrder,
  planDraw,
} from './ledger.ts';
export {
  type LandedLine,
  type LandedReceipt,
  type PricedBy,
  type Receipt,
  type ReceiptLine,
  BUYING_UNITS,
  MOST_LINES,
  PRICED_BY,
  UNIT_COST_PLACES,
  landReceipt,
  lineGoods,
  receiptFingerprint,
} from './receipt.ts';
export {
  type CsvFault,
  type CsvField,
  type CsvTable,
  CSV_FIELDS,
  decodeText,
  guessColumns,
  readTable,
} from './csv-table.ts';
export {
  type CsvMapping,
  type CsvReceipts,
  emptyMapping,
  FILE_KINDS,
  type FileAnswers,
  type KindUse,
  toReceipts,
} from './receipt-csv.ts';
export { type Need, type ShelfItem, needsOf, shelfFor, shelfForMouth, shelfOfKind } from './shelf.ts';
export {
  type PlannedBatch,
  type ShoppingLine,
  type ShoppingUse,
  inPackages,
  reservedOf,
  shoppingList,
} from './shopping.ts';
export { type Bound, type Offer, buyOrLeave } from './buy-or-leave.ts';
export * from './cost/index.ts';
export {
  asksOf,
  factsByName,
  itemNamed,
  itemOf,
  type LotAsk,
  lotName,
  type Wanted,
  wantedLine,
  wantedOf,
} from './wanted.ts';
export { jarsInUse, USUAL_JARS, type UsualJar } from './usual-jars.ts';
export { ownYield } from './waste.ts';
export { avoiding } from './avoiding.ts';
