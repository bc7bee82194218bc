import {
  KEPT_PAPER_TYPES,
  PAPER_LIMIT_BYTES,
  PAPER_TYPES,
  PAPERS_IN_A_KITCHEN,
  type Paper,
} from '@cocotte/core/kitchen';
import { anyFileEndpoint, endpoint, uploadEndpoint } from '../endpoint.ts';
import { choice, figure, flag, instant, list, shape, text, uuid } from '../rules.ts';

const paperParams = shape<{ paperId: string }>({ paperId: uuid });
const subject = text({ min: 1, max: 400, name: 'What it shows' });
const paper = shape<Paper & { person: string }>({
  id: uuid,
  subject,
  name: text({ max: 120 }),
  mediaType: choice(KEPT_PAPER_TYPES),
  bytes: figure({ min: 0, max: PAPER_LIMIT_BYTES, whole: true, name: 'The size' }),
  sha256: text({ min: 64, max: 64 }),
  personId: uuid,
  addedAt: instant,
  person: text({ max: 80 }),
});

/** The room for papers: what is in it, newest first. */
export const listPapers = endpoint({
  name: 'papers.list',
  method: 'GET',
  path: '/api/kitchens/:kitchenId/papers',
  who: 'viewer',
  summary: 'Pictures and documents of pages, letters and permits, newest first',
  reply: shape<{ papers: (Paper & { person: string })[] }>({
    papers: list(paper, { max: PAPERS_IN_A_KITCHEN }),
  }),
});
/** Hand in a picture or a PDF; it is looked at, made smaller, and kept. The same id is acknowledged again. */
export const addPaper = uploadEndpoint({
  name: 'papers.add',
  path: '/api/kitchens/:kitchenId/papers/:paperId',
  who: 'cook',
  summary:
    'Hand in a picture or a PDF; it is looked at, made smaller, and kept. The same id is acknowledged again',
  params: paperParams,
  query: shape<{ subject: string; name: string }>({
    subject,
    name: text({ min: 1, max: 120, name: 'Its name' }),
  }),
  upload: { mediaTypes: PAPER_TYPES, limit_bytes: PAPER_LIMIT_BYTES },
  reply: paper,
});
/** A paper as it is kept. */
export const openPaper = anyFileEndpoint({
  name: 'papers.open',
  path: '/api/kitchens/:kitchenId/papers/:paperId',
  who: 'viewer',
  summary: 'A paper as it is kept',
  params: paperParams,
  mediaTypes: KEPT_PAPER_TYPES,
});
/** Take a paper out; one that a confirmation rests on stays. */
export const removePaper = endpoint({
  name: 'papers.remove',
  method: 'DELETE',
  path: '/api/kitchens/:kitchenId/papers/:paperId',
  who: 'owner',
  summary: 'Take a paper out; one that a confirmation rests on stays',
  params: paperParams,
  reply: shape<{ removed: boolean }>({ removed: flag }),
});
