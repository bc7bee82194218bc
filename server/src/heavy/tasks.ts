import { drawBlank } from '../batches/blank-paper.ts';
import { keepDocument } from '../kitchen/document.ts';
import { drawPictures } from '../labels/pictures.ts';
import { drawCheckPage, drawLabels } from '../labels/sheet.ts';
import { checkRecipes } from '../recipes/import-check.ts';
import { drawRecord } from '../records/record-paper.ts';
import { landReceipts } from '../stores/receipt-landing.ts';

/** What the worker threads can do: each from plain data to plain data. */
export const TASKS = {
  'record paper': drawRecord,
  'blank paper': drawBlank,
  'label sheet': drawLabels,
  'label pictures': drawPictures,
  'label check page': drawCheckPage,
  'receipts landed': landReceipts,
  'recipes checked': checkRecipes,
  'document kept': keepDocument,
};

/** Every task of the worker threads, by its name. */
export type Tasks = typeof TASKS;
