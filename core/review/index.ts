export { type AcidBalance, acidBalance } from './acid-balance.ts';
export { authorityFault, formulaChanges, routeToSale, type RouteToSale } from './authority.ts';
export { type FormulaChange, formulaOf } from './changes/change.ts';
export { changesFrom } from './changes/index.ts';
export { type Asker, dossier, type TrialReading } from './dossier.ts';
export type { ReviewFault } from './finding.ts';
export { keptBySugar, spreadCover, type SpreadFinding } from './identity.ts';
export { processFor } from './process-for.ts';
export { review, type Review } from './review.ts';
export { classOf, reviewFaults } from './rules.ts';
export {
  type Confirmation,
  confirmationOf,
  type Page,
  type PageDifference,
  pageDifferences,
  pageFault,
  type PageFigure,
  pageOf,
  unprovenFault,
} from './page.ts';
export { coldDays, coldText, eatBy } from './cold.ts';
export { type PurposeFault, purposeFaults, type PurposeQuestion } from './purposes.ts';
export { COVERS, type Cover } from './data/covers.ts';
export { claimOf, type NameChoice, type NameFigures, namesFor, type NamesFound, withName } from './names.ts';
export { freeText } from './free.ts';
export { authorityOf, findEntries, type FoundEntry, type FromEntry, recipeFromEntry } from './from-entry.ts';
export { letterReminders, letterSays, limitText, outOfLimits, termsOf } from './letter.ts';
export { coverText } from './cover/words.ts';
