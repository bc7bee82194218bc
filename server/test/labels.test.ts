import { randomUUID } from 'node:crypto';
import {
  addPaper,
  changeKitchen,
  changeLabelSettings,
  changeLabelSetup,
  labelCheckPage,
  labelSheet,
  listTouchedLots,
  printLabels,
  readLabelSettings,
  readKitchen,
  readLabelSetup,
  readToday,
  releaseJars,
  withdrawJars,
} from '@cocotte/contract';
import { fold, LABEL_READS } from '@cocotte/core/batches';
import { type Jurisdiction, JURISDICTIONS, type JurisdictionProfile, pointsOf } from '@cocotte/core/kitchen';
import { LABEL_STOCKS, type LabelSetup, plainSetup } from '@cocotte/core/labels';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { PLAIN_SETTINGS, toPrint } from '../../testing/labels.ts';
import { Line } from '../../testing/line.ts';
import { picture } from '../../testing/papers.ts';
import { samplePlace } from '../../testing/place.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';

let server: TestServer;
let owner: Client;
let line: Line;
const STOCK = LABEL_STOCKS[0] as (typeof LABEL_STOCKS)[number];
beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  line = await Line.open(owner, crushedTomatoes, 'pint', 12);
  await (await (await line.start()).draw()).cook(40);
  await line.readPh(4.12);
  line.view = await owner.ok(releaseJars, {
    params: { batchId: line.batchId },
    body: { jars: [2, 3, 4, 5, 6, 7], stamp: line.stamp() },
  });
});
afterAll(() => server.close());

const params = () => ({ batchId: line.batchId });
const recipe = () => ({ recipeId: line.recipeId });
const setup = (over: Partial<LabelSetup> = {}): LabelSetup => ({ ...plainSetup('letter-10'), ...over });
const codeOf = async (over: Partial<ReturnType<typeof toPrint>>) =>
  (
    await owner.refused(printLabels, {
      params: params(),
      body: { ...toPrint([2], 'pint', line.stamp()), setupVersion: await version(), ...over },
    })
  ).errors[0]?.code;
const version = async () => (await owner.ok(readLabelSetup, { params: recipe() })).version;
const change = async (over: Partial<LabelSetup>) =>
  owner.ok(changeLabelSetup, { params: recipe(), body: { setup: setup(over), version: await version() } });

describe('how the labels of a recipe are made', () => {
  it('is plain before anybody chose, is kept for every batch, and a stale change is refused with the newer one', async () => {
    expect(await owner.ok(readLabelSetup, { params: recipe() })).toEqual({ setup: setup(), version: 0 });
    const body = { setup: setup({ words: 'From our garden.' }), version: 0 };
    expect(await owner.ok(changeLabelSetup, { params: recipe(), body })).toEqual({ ...body, version: 1 });
    // The same once more is acknowledged, another on the old version is told what there is.
    expect((await owner.ok(changeLabelSetup, { params: recipe(), body })).version).toBe(1);
    const stale = await owner.try(changeLabelSetup, {
      params: recipe(),
      body: { setup: setup({ words: 'Other' }), version: 0 },
    });
    expect([stale.status, (stale.body as { newer: unknown }).newer]).toEqual([409, { ...body, version: 1 }]);
    // Two at once: one is kept.
    const both = await Promise.all(
      ['one', 'two'].map(words =>
        owner.try(changeLabelSetup, { params: recipe(), body: { setup: setup({ words }), version: 1 } }),
      ),
    );
    expect(both.map(a => a.status).sort()).toEqual([200, 409]);
    await change({});
  });
  it('refuses stock, pictures and recipes that there are not, and a size measured twice', async () => {
    const refused = async (over: Partial<LabelSetup>) =>
      (
        await owner.refused(changeLabelSetup, {
          params: recipe(),
          body: { setup: setup(over), version: await version() },
        })
      ).errors[0];
    expect(await refused({ stockId: '__proto__' })).toMatchObject({
      code: 'unknown-stock',
      path: 'setup.stockId',
    });
    const look = { ...setup().look, pictureId: randomUUID() };
    expect(await refused({ look })).toMatchObject({ code: 'unknown-picture' });
    const container = { across_mm: 80, tall_mm: 90, lid_mm: 60 };
    expect(
      await refused({
        containers: [
          { size: 'pint', container },
          { size: 'pint', container },
        ],
      }),
    ).toMatchObject({ code: 'twice' });
    expect(await refused({ look: { ...setup().look, ink: 'red' } })).toMatchObject({
      path: 'setup.look.ink',
    });
    expect(
      await refused({ containers: [{ size: 'pint', container: { ...container, tall_mm: 0 } }] }),
    ).toMatchObject({ path: 'setup.containers[0].container.tall_mm' });
    const other = await owner.try(changeLabelSetup, {
      params: { recipeId: randomUUID() },
      body: { setup: setup(), version: 0 },
    });
    expect(other.status).toBe(404);
  });
});

describe('what a kitchen prints labels on', () => {
  it('is told by its measures, kept, and checked on a page of its own', async () => {
    const own = { ...STOCK, id: 'mine', name: 'Mine', label_mm: { width: 100, height: 48 } };
    const kept = await owner.ok(changeLabelSettings, {
      body: { ...PLAIN_SETTINGS, stocks: [own], offset_mm: { x: 0.4, y: -0.3 }, version: 0 },
    });
    expect(await owner.ok(readLabelSettings)).toEqual(kept);
    const page = await owner.ok(labelCheckPage, { params: { stockId: 'mine' } });
    expect(Buffer.from(page.subarray(0, 5)).toString()).toBe('%PDF-');
    expect((await owner.try(labelCheckPage, { params: { stockId: 'none' } })).status).toBe(404);
    const faulty = async (over: object) =>
      (
        await owner.refused(changeLabelSettings, {
          body: { ...PLAIN_SETTINGS, stocks: [{ ...own, ...over }], version: kept.version },
        })
      ).errors.map(e => e.path);
    expect(await faulty({ columns: 4 })).toEqual(['stocks[0].columns']);
    expect(await faulty({ id: 'letter-10' })).toEqual(['stocks[0].id']);
    expect(await faulty({ label_mm: { width: 4, height: 48 } })).toEqual(['stocks[0].label_mm.width']);
    expect(
      (
        await owner.refused(changeLabelSettings, {
          body: { ...PLAIN_SETTINGS, stocks: [own, own], version: kept.version },
        })
      ).errors.map(e => e.path),
    ).toEqual(['stocks[1].id']);
  });
});

describe('a print of labels', () => {
  it('is for released jars of one size, each once, beginning on its sheet, and by the setup that was looked at', async () => {
    expect(await codeOf({ jars: [1] })).toBe('not-released');
    expect(await codeOf({ jars: [2, 8] })).toBe('not-released');
    expect(await codeOf({ jars: [99] })).toBe('not-released');
    expect(await codeOf({ jars: [2, 2] })).toBe('twice');
    expect(await codeOf({ size: 'quart' })).toBe('other-size');
    expect(await codeOf({ start: 10 })).toBe('past-the-sheet');
    const seen = await version();
    await change({ words: 'Changed meanwhile.' });
    expect(await codeOf({ setupVersion: seen })).toBe('batch-changed');
    await change({});
  });
  it('waits until somebody read the first of them against the batch; once read, the same words are printed again', async () => {
    expect(await codeOf({ read: [] })).toBe('not-read');
    expect(await codeOf({ read: LABEL_READS.slice(1) })).toBe('not-read');
    const body = { ...toPrint([2, 3], 'pint', line.stamp()), setupVersion: await version(), spares: 1 };
    line.view = await owner.ok(printLabels, { params: params(), body });
    const [print] = fold(line.view.events).labels;
    expect(print).toMatchObject({ jars: [2, 3], spares: 1, read: [...LABEL_READS], design: 'one panel' });
    expect(print?.by.personId).toBe(owner.personId);
    // Sent again it is the same print.
    expect(fold((await owner.ok(printLabels, { params: params(), body })).events).labels).toHaveLength(1);
    const again = { ...toPrint([4], 'pint', line.stamp()), setupVersion: await version(), read: [] };
    line.view = await owner.ok(printLabels, { params: params(), body: again });
    // Other words are read anew.
    await change({ netForm: 'metric first' });
    expect(await codeOf({ read: [] })).toBe('not-read');
  });
  it('says why it does not fit, and that a claim may not be made, before anything is kept', async () => {
    const before = fold(line.view?.events ?? []).labels.length;
    await change({ words: 'A long story about these tomatoes. '.repeat(11) });
    const fault = (
      await owner.refused(printLabels, {
        params: params(),
        body: { ...toPrint([2], 'pint', line.stamp()), setupVersion: await version() },
      })
    ).errors[0];
    expect(fault).toMatchObject({ code: 'does-not-fit' });
    expect(fault?.next).toMatch(/^It fits on "/);
    await change({ words: 'Cures a cold' });
    expect(await codeOf({})).toBe('label-incomplete');
    await change({ words: '李' });
    expect(await codeOf({})).toBe('no-glyph');
    expect(line.state.labels).toHaveLength(before);
    await change({});
  });
  it('keeps what it was made on: a picture and a stock of one’s own are printed as they were', async () => {
    const paper = await owner.ok(addPaper, {
      params: { paperId: randomUUID() },
      query: { subject: 'label picture', name: 'leaf.jpg' },
      body: await picture(),
    });
    await change({
      design: 'front and back',
      stockId: 'mine',
      look: { ...setup().look, pictureId: paper.id, pictureRatio: 0.75 },
    });
    line.view = await owner.ok(printLabels, {
      params: params(),
      body: { ...toPrint([5], 'pint', line.stamp()), setupVersion: await version() },
    });
    const print = fold(line.view.events).labels.at(-1);
    expect(print).toMatchObject({ design: 'front and back', stock: { id: 'mine', name: 'Mine' } });
    const { page: _page, ...settings } = await owner.ok(readLabelSettings);
    await owner.ok(changeLabelSettings, { body: { ...settings, stocks: [] } });
    const bytes = await owner.ok(labelSheet, { params: { ...params(), printId: print?.eventId ?? '' } });
    expect(Buffer.from(bytes).includes('/Subtype /Image')).toBe(true);
    // What is made from now on is made on labels that there are.
    expect((await owner.ok(readLabelSetup, { params: recipe() })).setup).toMatchObject({
      design: 'front and back',
      stockId: 'letter-10',
    });
  });
});

describe('the place, the gate and the labels', () => {
  const settle = async (jurisdiction: JurisdictionProfile) => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    await owner.ok(changeKitchen, { body: { ...settings, jurisdiction } });
  };
  it('a product that the profile does not allow gets no label, nor any before its points are ticked', async () => {
    await change({});
    const ohio = JURISDICTIONS.find(j => j.id === 'us-oh') as Jurisdiction;
    const ticks = pointsOf(ohio).map(point => ({ point, tickedOn: '2026-03-01', renewsOn: null }));
    await settle(samplePlace({ rules: ohio, points: ticks }));
    const fault = (
      await owner.refused(printLabels, {
        params: params(),
        body: { ...toPrint([2], 'pint', line.stamp()), setupVersion: await version() },
      })
    ).errors[0];
    expect(fault).toMatchObject({
      code: 'place',
      what: 'Ohio, cottage food production operation does not allow acidified food.',
    });
    await settle(samplePlace({ points: [] }));
    expect(await codeOf({})).toBe('place');
    await settle(samplePlace());
  });
  it('a change of the place lists the lots whose labels it touches, and only those', async () => {
    await change({});
    line.view = await owner.ok(printLabels, {
      params: params(),
      body: {
        ...toPrint([2, 3, 4, 5], 'pint', line.stamp()),
        setupVersion: await version(),
      },
    });
    expect((await owner.ok(listTouchedLots)).lots).toEqual([]);
    const { rules } = samplePlace();
    await settle(samplePlace({ statement: 'Another sentence.', rules }));
    const { lots } = await owner.ok(listTouchedLots);
    expect(lots).toMatchObject([
      {
        batchId: line.batchId,
        jars: [2, 3, 4, 5],
        changes: [{ name: 'the statement', is: 'Another sentence.' }],
      },
    ]);
    await settle(samplePlace());
    expect((await owner.ok(listTouchedLots)).lots).toEqual([]);
  });
  it('labels of jars that are called back stand on Today until they are counted as destroyed', async () => {
    const printId = line.state.labels.at(-1)?.eventId ?? '';
    line.view = await owner.ok(withdrawJars, {
      params: params(),
      body: { jars: [4, 5], why: 'A lid lot was called back.', stamp: line.stamp() },
    });
    const due = async () =>
      (await owner.ok(readToday)).batches
        .find(b => b.id === line.batchId)
        ?.summary.due.find(d => d.kind === 'ask back')?.count ?? 0;
    const held = await due();
    expect(held).toBeGreaterThanOrEqual(2);
    // The sheet they were on is printed no more, also not for the others of it.
    expect((await owner.refused(labelSheet, { params: { ...params(), printId } })).errors[0]?.code).toBe(
      'not-released',
    );
    await line.note('labels.counted', { printId, used: 2, spoiled: 0, destroyed: 2 });
    expect(await due()).toBe(held - 2);
    for (const print of line.state.labels)
      await line.note('labels.counted', {
        printId: print.eventId,
        used: 0,
        spoiled: 0,
        destroyed: print.jars.length,
      });
    expect(await due()).toBe(0);
  });
});
