import { batchParams } from '../batches/batches.ts';
import { endpoint, fileEndpoint } from '../endpoint.ts';
import { choice, list, shape, text, uuid } from '../rules.ts';

/** The batch record on paper, with the head hash. */
export const recordSheet = fileEndpoint({
  name: 'records.sheet',
  path: '/api/kitchens/:kitchenId/batches/:batchId/record.pdf',
  who: 'viewer',
  summary: 'The batch record on paper, with the head hash',
  params: batchParams,
  mediaType: 'application/pdf',
});

/** Something that was found, with enough to know it by. */
export interface Found {
  kind: 'batch' | 'recipe' | 'lot';
  id: string;
  title: string;
  detail: string;
}
/** Find batches by lot code or name, recipes and lots by name. */
export const find = endpoint({
  name: 'records.find',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/find',
  who: 'viewer',
  summary: 'Find batches by lot code or name, recipes and lots by name',
  query: shape<{ words: string }>({ words: text({ min: 1, max: 300, name: 'What to find' }) }),
  reply: shape<{ found: Found[]; slip: string }>({
    found: list(
      shape<Found>({
        kind: choice(['batch', 'recipe', 'lot'] as const),
        id: uuid,
        title: text({ max: 200 }),
        detail: text({ max: 200 }),
      }),
      { max: 40 },
    ),
    slip: text({ max: 300 }),
  }),
});
