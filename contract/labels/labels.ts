import type { Stamp } from '@cocotte/core/batches';
import { LABEL_STOCKS } from '@cocotte/core/labels';
import type { JarSizeId } from '@cocotte/core/jars';
import { type BatchView, batchParams } from '../batches/batches.ts';
import { jarNumbers } from '../batches/stove-rules.ts';
import { stampRule } from '../batches/stamp-rules.ts';
import { readBatch } from '../batches/index.ts';
import { endpoint, fileEndpoint } from '../endpoint.ts';
import { jarSizeRule } from '../recipes/recipe-rules.ts';
import { type Rule, choice, shape, uuid } from '../rules.ts';

const batchView = (readBatch.reply as { rule: Rule<BatchView> }).rule;

/** A sheet of labels that is decided on: for which released jars, on which stock. */
export interface PrintLabels {
  jars: number[];
  size: JarSizeId;
  stock: string;
  stamp: Stamp;
}
/** Decide what the labels of released jars say; the sheet is then printed from it. */
export const printLabels = endpoint({
  name: 'labels.print',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/labels',
  who: 'cook',
  summary: 'Decide what the labels of released jars say; the sheet is then printed from it',
  params: batchParams,
  body: shape<PrintLabels>({
    jars: jarNumbers,
    size: jarSizeRule,
    stock: choice(LABEL_STOCKS.map(s => s.id)),
    stamp: stampRule,
  }),
  reply: batchView,
});
/** The label sheet at true size. */
export const labelSheet = fileEndpoint({
  name: 'labels.sheet',
  path: '/api/kitchens/:kitchenId/batches/:batchId/labels/:printId/sheet.pdf',
  who: 'viewer',
  summary: 'The label sheet at true size',
  mediaType: 'application/pdf',
  params: shape<{ batchId: string; printId: string }>({ batchId: uuid, printId: uuid }),
});
