import * as batches from './batches/index.ts';
import * as checks from './checks/index.ts';
import type { AnyEndpoint } from './endpoint.ts';
import * as kitchen from './kitchen/index.ts';
import * as labels from './labels/index.ts';
import * as recipes from './recipes/index.ts';
import * as records from './records/index.ts';
import * as stores from './stores/index.ts';

/** Every endpoint there is. */
export const ENDPOINTS: readonly AnyEndpoint[] = [kitchen, recipes, stores, batches, checks, labels, records]
  .flatMap(room => Object.values(room) as unknown[])
  .filter((x): x is AnyEndpoint => typeof x === 'object' && x !== null && 'method' in x && 'path' in x);
