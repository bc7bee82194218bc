import { randomUUID } from 'node:crypto';
import { type Upload, addPaper, listPapers, openPaper, removePaper } from '@cocotte/contract';
import {
  batchSubject,
  PAPER_LIMIT_PAGES,
  PICTURE_SIDE_PX,
  PICTURES_OF_A_BATCH,
  placeSubject,
} from '@cocotte/core/kitchen';
import { PDFDocument, PDFName, PDFString } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdfOf, picture } from '../../testing/papers.ts';
import { plumJam } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer, problemOf } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
let cook: Client;
let viewer: Client;
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  cook = await server.join(owner, 'cook', 'cy@test.example', false);
  viewer = await server.join(owner, 'viewer', 'vi@test.example', false);
});
afterAll(() => server.close());

const SUBJECT = placeSubject('sample', 'training');
const add = (body: Upload, { who = owner, subject = SUBJECT, paperId = randomUUID(), name = 'card' } = {}) =>
  who.ok(addPaper, { params: { paperId }, query: { subject, name }, body });
const refusal = async (body: Upload, query = { subject: SUBJECT, name: 'card' }) => {
  const answer = await owner.try(addPaper, { params: { paperId: randomUUID() }, query, body });
  return problemOf(answer);
};
const bytesOf = async (paperId: string, who = viewer) => {
  const answer = await who.try(openPaper, { params: { paperId } });
  expect(answer.status).toBe(200);
  return { type: answer.headers.get('content-type'), bytes: answer.body as Uint8Array };
};
/** A photograph as a telephone takes it: lying on its side, with the place where it was taken. */
const photograph = async (width: number, height: number): Promise<Upload> => ({
  mediaType: 'image/jpeg',
  bytes: await sharp({
    create: {
      width,
      height,
      channels: 3,
      noise: { type: 'gaussian', mean: 128, sigma: 30 },
      background: '#888',
    },
  })
    .withExif({ IFD0: { Artist: 'Secret person' }, IFD3: { GPSLatitude: '44/1 3/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg({ quality: 95 })
    .toBuffer(),
});

describe('what is kept', () => {
  it('keeps a photograph upright, smaller, and without what the camera wrote of place and owner', async () => {
    const came = await photograph(4000, 3000);
    const paper = await add(came, { who: cook });
    expect(paper.bytes).toBeLessThan(came.bytes.length / 2);
    const { type, bytes } = await bytesOf(paper.id);
    expect(type).toBe('image/jpeg');
    const kept = await sharp(bytes).metadata();
    expect([kept.width, kept.height]).toEqual([PICTURE_SIDE_PX * 0.75, PICTURE_SIDE_PX]);
    expect(kept.exif).toBeUndefined();
    expect(Buffer.from(bytes).includes('Secret person')).toBe(false);
  });

  it('keeps a small picture as large as it is, and one with see-through parts on white', async () => {
    const clear = await sharp({
      create: { width: 40, height: 30, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    })
      .webp()
      .toBuffer();
    const paper = await add({ mediaType: 'image/webp', bytes: clear });
    const { data, info } = await sharp((await bytesOf(paper.id)).bytes)
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height, data[0]]).toEqual([40, 30, 255]);
  });

  it('keeps the pages of a PDF, and nothing that hung on them', async () => {
    const came = await pdfOf(3, pdf => {
      pdf.catalog.set(
        PDFName.of('OpenAction'),
        pdf.context.obj({ S: 'JavaScript', JS: PDFString.of('app.alert("gotcha")') }),
      );
      pdf
        .getPage(0)
        .node.set(
          PDFName.of('AA'),
          pdf.context.obj({ O: { S: 'JavaScript', JS: PDFString.of('app.alert("gotcha")') } }),
        );
    });
    await expect(
      PDFDocument.load(came.bytes).then(pdf => pdf.catalog.has(PDFName.of('OpenAction'))),
    ).resolves.toBe(true);
    const paper = await add(came);
    const { type, bytes } = await bytesOf(paper.id);
    expect(type).toBe('application/pdf');
    const kept = await PDFDocument.load(bytes);
    expect(kept.getPageCount()).toBe(3);
    expect(kept.catalog.has(PDFName.of('OpenAction'))).toBe(false);
    expect(kept.getPage(0).node.has(PDFName.of('AA'))).toBe(false);
  });

  it('is listed newest first with who added it, and shown with headers that let nothing run', async () => {
    const paper = await add(picture(), { name: '__proto__' });
    const { papers } = await viewer.ok(listPapers);
    expect(papers.find(p => p.id === paper.id)).toMatchObject({
      name: '__proto__',
      subject: SUBJECT,
      person: 'Ona',
    });
    const answer = await viewer.try(openPaper, { params: { paperId: paper.id } });
    expect(answer.headers.get('x-content-type-options')).toBe('nosniff');
    expect(answer.headers.get('cache-control')).toBe('no-store');
    expect(answer.headers.get('content-security-policy')).toContain("script-src 'self'");
  });

  it('the same paper sent twice is one; another under its id is refused', async () => {
    const paperId = randomUUID();
    const first = await add(picture(), { paperId });
    expect(await add(picture(), { paperId })).toEqual(first);
    const other = await owner.try(addPaper, {
      params: { paperId },
      query: { subject: SUBJECT, name: 'card' },
      body: picture({ grey: 30 }),
    });
    expect(problemOf(other).code).toBe('id-taken');
    expect((await owner.ok(removePaper, { params: { paperId } })).removed).toBe(true);
    expect((await owner.ok(removePaper, { params: { paperId } })).removed).toBe(false);
    expect((await owner.try(openPaper, { params: { paperId } })).status).toBe(404);
  });
});

describe('what is refused', () => {
  const text = new TextEncoder();
  it.each([
    ['a page of HTML that calls itself a picture', 'image/png', text.encode('<script>alert(1)</script>')],
    [
      'a drawing with a script that calls itself a picture',
      'image/jpeg',
      text.encode('<svg xmlns="http://www.w3.org/2000/svg"/>'),
    ],
    ['a PNG that calls itself a JPEG', 'image/jpeg', picture().bytes],
    ['half a PNG', 'image/png', picture({ width: 300, height: 300 }).bytes.slice(0, 60)],
    ['nothing at all', 'image/png', new Uint8Array()],
    ['a text that calls itself a PDF', 'application/pdf', text.encode('%PDF-1.7 and then nothing')],
    ['a PNG that calls itself a PDF', 'application/pdf', picture().bytes],
  ])('%s', async (_what, mediaType, bytes) => {
    expect(await refusal({ mediaType, bytes })).toMatchObject({ status: 422, code: 'not-what-it-says' });
  });

  it('other kinds of files, files above 10 MB, and documents of too many pages', async () => {
    expect(await refusal({ mediaType: 'text/html', bytes: text.encode('x') })).toMatchObject({
      status: 415,
      code: 'not-a-paper',
    });
    expect(await refusal({ mediaType: 'image/png', bytes: new Uint8Array(10_000_001) })).toMatchObject({
      status: 413,
      code: 'too-large',
    });
    expect((await refusal(await pdfOf(PAPER_LIMIT_PAGES + 1))).code).toBe('too-many-pages');
    const locked = Buffer.from((await pdfOf()).bytes)
      .toString('latin1')
      .replace(/trailer\s*<</, '$& /Encrypt << /Filter /Standard /V 1 /R 2 >>');
    expect((await refusal({ mediaType: 'application/pdf', bytes: Buffer.from(locked, 'latin1') })).code).toBe(
      'locked-paper',
    );
    const trap = await sharp({
      create: { width: 12_000, height: 12_000, channels: 3, background: '#fff' },
    })
      .png()
      .toBuffer();
    expect(trap.length).toBeLessThan(1_000_000);
    expect((await refusal({ mediaType: 'image/png', bytes: trap })).code).toBe('not-what-it-says');
    expect((await refusal(picture(), { subject: '', name: 'x' })).code).toBe('invalid');
  });

  it('lets a viewer look and not add, and a cook add and not take out', async () => {
    const paperId = randomUUID();
    const asked = { params: { paperId }, query: { subject: SUBJECT, name: 'x' }, body: picture() };
    expect((await viewer.refused(addPaper, asked)).code).toBe('role');
    await cook.ok(addPaper, asked);
    expect((await cook.refused(removePaper, { params: { paperId } })).code).toBe('role');
  });
});

describe('pictures of a batch', () => {
  it('lie beside its record and not in the room, so many and no more; nobody takes one out', async () => {
    const line = await Line.open(owner, plumJam, 'half-pint', 4);
    await line.start();
    const other = await Line.open(owner, { ...plumJam, code: 'OTH' }, 'half-pint', 4);
    await other.start();
    const subject = batchSubject(line.batchId);
    for (const nobody of [randomUUID(), 'x', "' or true", ''])
      expect((await refusal(picture(), { subject: `batch:${nobody}`, name: 'x' })).code).toBe(
        'unknown-batch',
      );
    const before = (await owner.ok(listPapers)).papers.length;
    const first = await add(picture(), { who: cook, subject });
    expect((await owner.ok(listPapers)).papers).toHaveLength(before);
    // The same again is the same; its name as another subject's is refused.
    const again = { params: { paperId: first.id }, query: { subject, name: 'card' }, body: picture() };
    expect((await cook.ok(addPaper, again)).sha256).toBe(first.sha256);
    expect((await cook.refused(addPaper, { ...again, query: { subject: SUBJECT, name: 'card' } })).code).toBe(
      'id-taken',
    );
    expect((await owner.refused(removePaper, { params: { paperId: first.id } })).code).toBe('paper-rests');
    for (let i = 1; i < PICTURES_OF_A_BATCH; i++) await add(picture({ grey: i }), { who: cook, subject });
    expect((await refusal(picture(), { subject, name: 'one more' })).code).toBe('room-full');
    // Another batch has room of its own.
    await add(picture(), { who: cook, subject: batchSubject(other.batchId) });
  });
});
