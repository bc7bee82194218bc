import { createHash } from 'node:crypto';
import {
  type FileReply,
  type ParamsOf,
  type QueryOf,
  type ReplyOf,
  type Upload,
  type addPaper as addPaperEndpoint,
  type listPapers as listPapersEndpoint,
  type openPaper as openPaperEndpoint,
} from '@cocotte/contract';
import {
  batchSubject,
  batchOfSubject,
  PAPER_LIMIT_BYTES,
  PAPERS_IN_A_KITCHEN,
  PICTURE_SIDE_PX,
  PICTURES_OF_A_BATCH,
  type Paper,
} from '@cocotte/core/kitchen';
import sharp from 'sharp';
import { heavy } from '../heavy/pool.ts';
import type { Trx } from '../house/database.ts';
import type { Call } from '../house/mount.ts';
import { idTaken, notFound, problem, type Told } from '../house/problems.ts';
import type { DocumentFault } from './document.ts';
import { namesOf } from './outside.ts';

/** What is kept of a file that came in. */
interface Readied {
  mediaType: Paper['mediaType'];
  bytes: Uint8Array;
}

/** A camera of today has some 50 million pixels; more of them in a small file is a trap for whoever unpacks it. */
const MOST_PIXELS = 100_000_000;

const NO_PICTURE: Told = {
  code: 'not-what-it-says',
  what: 'This file is not the picture it says it is.',
  why: 'It cannot be read as one, or it is of another kind than its name.',
  next: 'Open it on your device to see whether it is whole, and photograph or save it again.',
};
const NO_DOCUMENT: Record<DocumentFault, Told> = {
  'not-a-pdf': {
    code: 'not-what-it-says',
    what: 'This file is not a PDF.',
    why: 'It cannot be read as one.',
    next: 'Open it on your device to see whether it is whole, and save it again.',
  },
  locked: {
    code: 'locked-paper',
    what: 'This PDF is locked with a password.',
    why: 'Nobody who looks for it later could read it.',
    next: 'Save it without a password, or photograph it.',
  },
  'too-many-pages': {
    code: 'too-many-pages',
    what: 'This PDF has too many pages for one paper.',
    why: 'What is confirmed is one page or one letter.',
    next: 'Save the pages that count, or photograph them.',
  },
};

/**
 * What is kept of a file, once it is known to be what it claims: a picture upright, without what the camera wrote of place
 * and owner, its longest side at most {@link PICTURE_SIDE_PX}; a document as its pages alone.
 *
 * @throws HttpProblem 422 for a file that is something else
 */
export async function readied({ mediaType, bytes }: Upload): Promise<Readied> {
  if (mediaType !== 'application/pdf')
    return { mediaType: 'image/jpeg', bytes: await keepPicture(bytes, mediaType) };
  const kept = await heavy('document kept', bytes);
  if ('fault' in kept) throw problem(422, NO_DOCUMENT[kept.fault]);
  // Pages that were packed well already are kept at no more than they came with.
  return { mediaType, bytes: withinLimit(kept.bytes) };
}

async function keepPicture(bytes: Uint8Array, mediaType: string): Promise<Uint8Array> {
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (`image/${format}` !== mediaType) throw problem(422, NO_PICTURE);
    return withinLimit(
      await picture
        .autoOrient()
        .resize({ width: PICTURE_SIDE_PX, height: PICTURE_SIDE_PX, fit: 'inside', withoutEnlargement: true })
        .flatten({ background: '#ffffff' })
        .jpeg({ quality: 80, mozjpeg: true })
        .toBuffer(),
    );
  } catch {
    throw problem(422, NO_PICTURE);
  }
}

function withinLimit(bytes: Uint8Array): Uint8Array {
  if (bytes.length <= PAPER_LIMIT_BYTES) return bytes;
  throw problem(422, {
    code: 'too-large',
    what: 'This paper stays larger than 10 MB.',
    why: 'It could not be made smaller.',
    next: 'Photograph it, or save it with less detail.',
  });
}

const SHOWN = ['paper_id', 'subject', 'name', 'media_type', 'sha256', 'person_id', 'added_at'] as const;

/** Papers of a kitchen, newest first: of one subject, or all but the pictures of batches. */
export async function selectPapers(
  trx: Trx,
  kitchenId: string,
  subject: string | null = null,
): Promise<Paper[]> {
  const found = trx('papers')
    .where({ kitchen_id: kitchenId })
    .orderBy([
      { column: 'added_at', order: 'desc' },
      { column: 'paper_id', order: 'desc' },
    ])
    .limit(PAPERS_IN_A_KITCHEN);
  if (subject === null) found.whereNot('subject', 'like', 'batch:%');
  else found.where({ subject });
  const rows = await found.select(...SHOWN, trx.raw('octet_length(content) as bytes'));
  return rows.map(paperFrom);
}

/** One paper by its id; null where there is none. */
async function selectPaper(trx: Trx, kitchenId: string, paperId: string): Promise<Paper | null> {
  const row = await trx('papers')
    .where({ kitchen_id: kitchenId, paper_id: paperId })
    .first(...SHOWN, trx.raw('octet_length(content) as bytes'));
  return row ? paperFrom(row) : null;
}

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
async function isBatch(trx: Trx, kitchenId: string, batchId: string): Promise<boolean> {
  if (!UUID.test(batchId)) return false;
  const row = await trx('batches').where({ kitchen_id: kitchenId, batch_id: batchId }).first('batch_id');
  return row !== undefined;
}

const paperFrom = (row: Record<string, unknown>): Paper => ({
  id: row.paper_id as string,
  subject: row.subject as string,
  name: row.name as string,
  mediaType: row.media_type as Paper['mediaType'],
  bytes: Number(row.bytes),
  sha256: row.sha256 as string,
  personId: row.person_id as string,
  addedAt: new Date(row.added_at as string).toISOString(),
});

/** Pictures that a record shows on paper: no larger than they are printed, in the order in which they were kept. */
const PRINTED_PX = 900;
export async function picturesOf(
  trx: Trx,
  kitchenId: string,
  batchId: string,
): Promise<{ paperId: string; jpeg: Uint8Array }[]> {
  const rows = await trx('papers')
    .where({ kitchen_id: kitchenId, subject: batchSubject(batchId), media_type: 'image/jpeg' })
    .orderBy([{ column: 'added_at' }, { column: 'paper_id' }])
    .limit(PICTURES_OF_A_BATCH)
    .select('paper_id', 'content');
  const out: { paperId: string; jpeg: Uint8Array }[] = [];
  for (const row of rows)
    out.push({
      paperId: row.paper_id as string,
      jpeg: await sharp(row.content as Buffer)
        .resize({ width: PRINTED_PX, height: PRINTED_PX, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 72 })
        .toBuffer(),
    });
  return out;
}

/** What is in the room for papers. */
export async function listPapers(
  call: Call<unknown, unknown, unknown>,
): Promise<ReplyOf<typeof listPapersEndpoint>> {
  const found = await selectPapers(call.trx, call.kitchenId);
  const names = await namesOf(call.trx, [...new Set(found.map(p => p.personId))]);
  return { papers: found.map(p => ({ ...p, person: names[p.personId] ?? '' })) };
}

/** Keeps a paper. The same file for the same subject under the same id is acknowledged again. */
export async function addPaper(
  call: Call<ParamsOf<typeof addPaperEndpoint>, QueryOf<typeof addPaperEndpoint>, Readied>,
): Promise<ReplyOf<typeof addPaperEndpoint>> {
  const { trx, kitchenId, params, query, body, person, clock } = call;
  const sha256 = createHash('sha256').update(body.bytes).digest('hex');
  const ofBatch = batchOfSubject(query.subject);
  const same = await selectPaper(trx, kitchenId, params.paperId);
  if (same) {
    if (same.sha256 === sha256 && same.subject === query.subject)
      return { ...same, person: (await namesOf(trx, [same.personId]))[same.personId] ?? '' };
    throw idTaken('paper');
  }
  if (ofBatch !== null && !(await isBatch(trx, kitchenId, ofBatch)))
    throw problem(422, {
      code: 'unknown-batch',
      what: 'No batch of this kitchen is meant.',
      why: 'A picture lies beside the record of its batch.',
      next: 'Open the batch, and add it there.',
      path: 'subject',
    });
  const there = await selectPapers(trx, kitchenId, ofBatch === null ? null : query.subject);
  if (ofBatch !== null && there.length >= PICTURES_OF_A_BATCH)
    throw problem(422, {
      code: 'room-full',
      what: `This batch has ${PICTURES_OF_A_BATCH} pictures already.`,
      why: 'A record is looked through by people.',
      next: 'Keep those that show something no other shows.',
    });
  if (there.length >= PAPERS_IN_A_KITCHEN)
    throw problem(422, {
      code: 'room-full',
      what: `There are ${PAPERS_IN_A_KITCHEN} papers here already.`,
      why: 'The room for papers holds no more.',
      next: 'Take out what is out of date.',
    });
  const paper: Paper = {
    id: params.paperId,
    subject: query.subject,
    name: query.name,
    mediaType: body.mediaType,
    bytes: body.bytes.length,
    sha256,
    personId: person.id,
    addedAt: new Date(clock.now_ms()).toISOString(),
  };
  await trx('papers').insert({
    kitchen_id: kitchenId,
    paper_id: paper.id,
    subject: paper.subject,
    name: paper.name,
    media_type: paper.mediaType,
    content: Buffer.from(body.bytes),
    sha256,
    person_id: person.id,
    added_at: paper.addedAt,
  });
  return { ...paper, person: person.name };
}

/** A paper as it is kept. */
export async function openPaper(
  call: Call<ParamsOf<typeof openPaperEndpoint>, unknown, unknown>,
): Promise<FileReply> {
  const row = await call
    .trx('papers')
    .where({ kitchen_id: call.kitchenId, paper_id: call.params.paperId })
    .first('media_type', 'content');
  if (!row) throw notFound('This paper');
  return { mediaType: row.media_type as string, bytes: row.content as Buffer };
}

/** Takes a paper out. What a confirmation rests on is proof, and stays. */
export async function removePaper(
  call: Call<{ paperId: string }, unknown, unknown>,
): Promise<{ removed: boolean }> {
  const { trx, kitchenId, params } = call;
  const rests = await trx('confirmations')
    .where({ kitchen_id: kitchenId })
    .whereRaw('papers @> ?::jsonb', [JSON.stringify([params.paperId])])
    .first('confirmation_id');
  if (rests)
    throw problem(422, {
      code: 'paper-rests',
      what: 'Something was confirmed with this paper beside it.',
      why: 'It is the proof of it.',
      next: 'Leave it. A newer paper can lie beside it.',
    });
  const paper = await selectPaper(trx, kitchenId, params.paperId);
  if (paper && batchOfSubject(paper.subject) !== null)
    throw problem(422, {
      code: 'paper-rests',
      what: 'This picture belongs to the record of a batch.',
      why: 'What a record holds stays in it.',
      next: 'Leave it. A newer picture can lie beside it.',
    });
  const gone = await trx('papers').where({ kitchen_id: kitchenId, paper_id: params.paperId }).delete();
  return { removed: gone > 0 };
}
