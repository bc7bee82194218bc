import type { Stamp } from '@cocotte/core/batches';
import { type BatchView, batchParams } from '../batches/batches.ts';
import { jarNumbers } from '../batches/stove-rules.ts';
import { stampRule } from '../batches/stamp-rules.ts';
import { readBatch } from '../batches/index.ts';
import { endpoint } from '../endpoint.ts';
import { type Rule, shape, text } from '../rules.ts';

const batchView = (readBatch.reply as { rule: Rule<BatchView> }).rule;

/** Release jars (a decision): refused while any condition of theirs is open. */
export const releaseJars = endpoint({
  name: 'checks.release',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/release',
  who: 'cook',
  signs: true,
  summary: 'Release jars (a decision): refused while any condition of theirs is open',
  params: batchParams,
  body: shape<{ jars: number[]; stamp: Stamp }>({ jars: jarNumbers, stamp: stampRule }),
  reply: batchView,
});

/** Call jars back that were released (a decision): they are held from then on, wherever they stand. */
export const withdrawJars = endpoint({
  name: 'checks.withdraw',
  method: 'POST',
  path: '/api/kitchens/:kitchenId/batches/:batchId/withdraw',
  who: 'cook',
  signs: true,
  summary: 'Call jars back that were released (a decision): they are held from then on, wherever they stand',
  params: batchParams,
  body: shape<{ jars: number[]; why: string; stamp: Stamp }>({
    jars: jarNumbers,
    why: text({ min: 3, max: 300, name: 'The reason' }),
    stamp: stampRule,
  }),
  reply: batchView,
});
