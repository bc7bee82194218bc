import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  addPaper,
  addRecipe,
  changeLabelSettings,
  changeLabelSetup,
  find,
  labelSheet,
  type LabelSettings,
  printLabels,
  printOnRoll,
  readLabelSettings,
  readLabelSetup,
  releaseJars,
  startBatch,
  withdrawJars,
} from '@cocotte/contract';
import { fold, lotCodeFits, lotOf, lotsOf, USUAL_LOT_PATTERN } from '@cocotte/core/batches';
import { LABEL_STOCKS, type LabelSetup, plainSetup } from '@cocotte/core/labels';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { pngOf } from '../../devices/picture.ts';
import { HEAD, labelPrinter, type PrintedPicture } from '../../devices/printer.ts';
import { serve } from '../../devices/serve.ts';
import { nthLotCode, PLAIN_SETTINGS, printed, SAMPLE_LABEL, toPrint } from '../../testing/labels.ts';
import { Line } from '../../testing/line.ts';
import { picture } from '../../testing/papers.ts';
import { scanned } from '../../testing/scan.ts';
import { Client, TestServer } from '../../testing/test-server.ts';
import { connectInstruments, printHead } from '../src/kitchen/instruments.ts';
import { drawPictures } from '../src/labels/pictures.ts';
import { drawLabels } from '../src/labels/sheet.ts';

let server: TestServer;
let owner: Client;
let line: Line;
const dir = mkdtempSync(join(tmpdir(), 'cocotte-codes-'));
const EAN = '4006381333931';
const UPC = '036000291452';

const changeSettings = async (over: Partial<LabelSettings>) => {
  const { page: _page, ...now } = await owner.ok(readLabelSettings);
  return owner.ok(changeLabelSettings, { body: { ...now, ...over } });
};
const changeSetup = async (over: Partial<LabelSetup>) => {
  const params = { recipeId: line.recipeId };
  const { setup, version } = await owner.ok(readLabelSetup, { params });
  return owner.ok(changeLabelSetup, { params, body: { setup: { ...setup, ...over }, version } });
};
const print = async (jars: number[], over: object = {}) => {
  const { version } = await owner.ok(readLabelSetup, { params: { recipeId: line.recipeId } });
  line.view = await owner.ok(printLabels, {
    params: { batchId: line.batchId },
    body: { ...toPrint(jars, 'pint', line.stamp()), setupVersion: version, ...over },
  });
  return { batchId: line.batchId, printId: line.view.events.at(-1)?.id ?? '' };
};
/** A batch of ten jars, processed in two loads, all but the tested one released. */
async function twoLoads(): Promise<void> {
  line.batchId = randomUUID();
  await (await line.start()).draw();
  const sizes = {
    size: 'pint' as const,
    jarLotId: line.lots.jars as string,
    lidLotId: line.lots.lids as string,
  };
  for (const [number, jars] of [
    [1, [1, 2, 3, 4, 5]],
    [2, [6, 7, 8, 9, 10]],
  ] as const) {
    await line.note('jars.filled', { ...sizes, jars: [...jars] });
    for (const l of line.recipe.lines.filter(x => x.where === 'each jar'))
      await line.note('dose.given', { lineId: l.id, jars: [...jars] });
    const loadId = randomUUID();
    await line.note('load.packed', { loadId, number, jars: [...jars], newLidLotId: null });
    await line.wait(10).note('load.boiling', { loadId });
    await line.wait(40).note('load.heat_off', { loadId });
    await line.wait(5).note('load.lifted', { loadId });
  }
  await line
    .wait(13 * 60)
    .note('jars.pressed', { sealed: Array.from({ length: 10 }, (_, i) => i + 1), failed: [] });
  await line.wait(13 * 60).readPh(4.12);
  line.view = await owner.ok(releaseJars, {
    params: { batchId: line.batchId },
    body: { jars: [2, 3, 4, 5, 6, 7, 8, 9, 10], stamp: line.stamp() },
  });
}

beforeAll(async () => {
  server = await TestServer.open();
  owner = await server.firstOwner();
  line = await Line.open(owner, crushedTomatoes, 'pint', 10);
});
afterAll(async () => {
  connectInstruments([]);
  rmSync(dir, { recursive: true });
  await server.close();
});

describe('lot codes of a kitchen', () => {
  it('are those of a pattern of its own from the next batch on; none is given twice, whatever it looked like', async () => {
    await line.start();
    const first = line.state.started!;
    expect(first.lotCode).toBe(nthLotCode(line.recipe.code, first.madeOn, 1));
    const lots = { ...USUAL_LOT_PATTERN, separator: '/' as const, leftOut: 'IOS' };
    await changeSettings({ lots });
    const codes = [first.lotCode];
    for (let i = 0; i < 4; i++) {
      line.batchId = randomUUID();
      // oxlint-disable-next-line no-await-in-loop -- one after the other on one day
      await line.start();
      const { lotCode, lotPattern } = line.state.started!;
      expect(lotPattern).toEqual(lots);
      expect(lotCode).toMatch(/^[A-Z]{3}\/\d{5}\/\d+[0-9A-HJ-NP-RT-Z]$/);
      codes.push(lotCode);
    }
    const bare = codes.map(c => c.replaceAll(/[^A-Z0-9]/g, ''));
    expect(new Set(bare).size).toBe(codes.length);
    expect(codes.every(lotCodeFits)).toBe(true);
  });

  it('never meet when two start at once', async () => {
    const started = await Promise.all(
      Array.from({ length: 6 }, async () => {
        const body = { ...line.startBody(), batchId: randomUUID(), stamp: line.stamp() };
        const view = await owner.ok(startBatch, { body });
        return fold(view.events).started!.lotCode;
      }),
    );
    expect(new Set(started).size).toBe(6);
  });

  it('are refused a pattern by which they would meet', async () => {
    const faults = async (lots: object) =>
      (
        await owner.refused(changeLabelSettings, {
          body: { ...PLAIN_SETTINGS, lots: { ...USUAL_LOT_PATTERN, ...lots }, version: 1 },
        })
      ).errors.map(e => e.path);
    expect(await faults({ parts: ['product', 'sequence'] })).toEqual(['lots.parts']);
    expect(await faults({ leftOut: 'ab0' })).toEqual(['lots.leftOut']);
    expect(await faults({ parts: ['__proto__'] })).toEqual(['lots.parts[0]']);
    expect(await faults({ separator: ' ' })).toEqual(['lots.separator']);
  });

  it('say the load, and lead to its jars when they are looked for, also misread, scanned or as they stand in a symbol', async () => {
    await changeSettings({ lots: { ...USUAL_LOT_PATTERN, load: true } });
    await twoLoads();
    const [one, two] = lotsOf(line.state).map(l => l.lotCode) as [string, string];
    expect(one).not.toBe(two);
    const search = (words: string) => owner.ok(find, { query: { words } });
    for (const words of [
      two,
      two.toLowerCase(),
      two.replaceAll('-', ''),
      `https://jars.example/lot/7K2M9QXA/${two}`,
      `(01)0${EAN}(15)271124(10)${two}`,
      `010${EAN}1527112410${two}`,
    ])
      expect((await search(words)).found[0], words).toMatchObject({
        kind: 'batch',
        id: line.batchId,
        title: two,
        detail: 'Crushed tomatoes, load 2, jar 6-10',
      });
    const letter = two.at(-2) as string;
    const wrong = `${two.slice(0, -2)}${letter === 'K' ? 'L' : 'K'}${two.at(-1)}`;
    const misread = await search(wrong);
    expect(misread.slip).toContain('No lot has this code.');
    expect(misread.found.map(f => f.title)).toContain(two);
    expect(misread.found.find(f => f.title === two)?.detail).toContain(`"${letter}" was read as`);
  });

  it('are printed load by load, and read but once: the words are the same', async () => {
    const [one, two] = lotsOf(line.state);
    await print([2, 3, 4, 5]);
    await print([6, 7], { read: [] });
    expect(line.state.labels.map(l => l.label.lotCode)).toEqual([one!.lotCode, two!.lotCode]);
    expect(
      (
        await owner.refused(printLabels, {
          params: { batchId: line.batchId },
          body: toPrint([5, 6], 'pint', line.stamp()),
        })
      ).errors[0]?.code,
    ).toBe('other-lot');
  });
});

describe('item numbers', () => {
  it('with a wrong check digit, of two foods, or not as figures are refused beside the field', async () => {
    const params = { recipeId: line.recipeId };
    const { version } = await owner.ok(readLabelSetup, { params });
    const codes = async (numbers: LabelSetup['numbers'], recipeId = line.recipeId, v = version) =>
      (
        await owner.refused(changeLabelSetup, {
          params: { recipeId },
          body: { setup: { ...plainSetup('letter-6'), numbers }, version: v },
        })
      ).errors.map(e => [e.path, e.code]);
    const at = 'setup.numbers[0].number';
    expect(await codes([{ size: 'pint', number: '4006381333932' }])).toEqual([[at, 'wrong-check-digit']]);
    expect(await codes([{ size: 'pint', number: ' 4006381333931' }])).toEqual([[at, 'not-figures']]);
    expect(
      await codes([
        { size: 'pint', number: UPC },
        { size: 'quart', number: `0${UPC}` },
      ]),
    ).toEqual([['setup.numbers[1].number', 'number-taken']]);
    await changeSetup({ stockId: 'letter-6', numbers: [{ size: 'pint', number: EAN }] });
    const other = randomUUID();
    await owner.ok(addRecipe, {
      body: { id: other, recipe: { ...line.recipe, name: 'Another', code: 'ANO' } },
    });
    expect(await codes([{ size: 'quart', number: EAN }], other, 0)).toEqual([[at, 'number-taken']]);
  });

  it('are asked for where bars or Data Matrix are wanted and nobody entered one', async () => {
    await changeSetup({ bars: true, numbers: [] });
    const { version } = await owner.ok(readLabelSetup, { params: { recipeId: line.recipeId } });
    expect(
      (
        await owner.refused(printLabels, {
          params: { batchId: line.batchId },
          body: { ...toPrint([8], 'pint', line.stamp()), setupVersion: version },
        })
      ).errors,
    ).toMatchObject([{ path: 'number', code: 'no-number' }]);
  });
});

const SETS = {
  'QR and UPC-A': [
    { kind: 'QR', says: 'https://jars.example/lot/7K2M9QXA/DWB-26328-2K' },
    { kind: 'UPC-A', says: UPC },
  ],
  'Data Matrix and EAN-13': [
    { kind: 'Data Matrix', says: `(01)0${EAN}(15)271124(10)DWB-26328-2K` },
    { kind: 'EAN-13', says: EAN },
  ],
} as const;
/** As readers name what they found; a UPC-A is an EAN-13 with a zero before it. */
const READ = { QR: 'QRCode', 'Data Matrix': 'DataMatrix', 'EAN-13': 'EAN13', 'UPC-A': 'UPCA' } as const;

describe('codes on paper', () => {
  it('are printed on the sheet as the setup asks for them, and read back from it', async () => {
    await changeSetup({ scan: 'Data Matrix', bars: true, numbers: [{ size: 'pint', number: EAN }] });
    const params = await print([8, 9], { start: 1 });
    const file = join(dir, 'sheet.pdf');
    writeFileSync(file, await owner.ok(labelSheet, { params }));
    execFileSync('pdftoppm', ['-r', '300', '-png', file, join(dir, 'sheet')]);
    const [page] = readdirSync(dir).filter(n => n.startsWith('sheet-'));
    const found = await scanned(readFileSync(join(dir, page as string)));
    const lot = lotOf(line.state, 8)!;
    const { bestBy } = line.state.labels.at(-1)!.label;
    const dm = `(01)0${EAN}(15)${bestBy.replaceAll('-', '').slice(2)}(10)${lot.lotCode}`;
    expect(found.map(f => `${f.format} ${f.text}`).sort()).toEqual(
      ['DataMatrix', 'DataMatrix', 'EAN13', 'EAN13'].map(f =>
        f === 'EAN13' ? `EAN13 ${EAN}` : `DataMatrix ${dm}`,
      ),
    );
  });

  it.each(Object.entries(SETS))(
    'are read back by a reader of others, on each stock that holds them, at 300 and at 203 dots per inch: %s',
    async (name, codes) => {
      let [sheets, rolls] = [0, 0];
      for (const stock of LABEL_STOCKS.filter(s => s.shape === 'rectangle')) {
        const { read: _read, ...plain } = printed('pint', SAMPLE_LABEL);
        const design = stock.label_mm.width > 150 ? ('wrap-around' as const) : ('one panel' as const);
        const sheet = {
          ...plain,
          stock,
          design,
          codes: [...codes],
          count: 1,
          offset_mm: { x: 0, y: 0 },
          picture: null,
        };
        const made = await drawLabels(sheet).catch((error: Error) => error);
        if (made instanceof Error) {
          expect(made.message, stock.id).toContain('does not fit');
          continue;
        }
        const wanted = codes.map(c => `${READ[c.kind]} ${c.kind === 'UPC-A' ? '0' : ''}${c.says}`).sort();
        const file = join(dir, `${stock.id}.pdf`);
        writeFileSync(file, made);
        execFileSync('pdftoppm', ['-r', '300', '-singlefile', '-png', file, file]);
        const found = await scanned(
          readFileSync(`${file}.png`),
          codes.map(c => READ[c.kind]),
        );
        expect(found.map(f => `${f.format} ${f.text}`).sort(), `${name} on ${stock.id}`).toEqual(wanted);
        sheets++;
        if (stock.form === 'roll') {
          const [dots] = await drawPictures({ ...sheet, dots_per_mm: HEAD.dots_per_mm });
          const seen = await scanned(
            await withBorder(dots!),
            codes.map(c => READ[c.kind]),
          );
          expect(seen.map(f => `${f.format} ${f.text}`).sort(), `${name} on ${stock.id}`).toEqual(wanted);
          rolls++;
        }
      }
      expect(sheets).toBeGreaterThan(2);
      expect(rolls).toBeGreaterThan(0);
    },
    120_000,
  );
});

/** What a printer printed, with a white border as a reader wants it. */
const withBorder = (picture: PrintedPicture): Promise<Buffer> =>
  sharp(pngOf(picture))
    .extend({ top: 20, bottom: 20, left: 20, right: 20, background: '#FFFFFF' })
    .png()
    .toBuffer();

describe('a label printer', () => {
  const roll = async (params: { batchId: string; printId: string }, printerId = 'printer-1') =>
    owner.try(printOnRoll, { params, body: { printerId } });

  it('prints what was decided dot by dot: the picture it got reads back, with its words', async () => {
    const printer = labelPrinter(40);
    const served = await serve(printer, { every_ms: 100 });
    connectInstruments([served.port]);
    await expect.poll(() => printHead('printer-1')).toEqual({ dots_per_mm: 8, across: 832 });
    const { id: pictureId } = await owner.ok(addPaper, {
      params: { paperId: randomUUID() },
      query: { subject: `label picture:${line.recipeId}`, name: 'leaf.png' },
      body: picture({ grey: 40 }),
    });
    const look = { ...plainSetup('x').look, pictureId, pictureRatio: 0.7 };
    await changeSetup({ stockId: 'roll-100x75', scan: 'Data Matrix', bars: true, look });
    const params = await print([8, 9], { spares: 1 });
    expect((await roll(params)).body).toEqual({ printed: 3 });
    const [label] = printer.printed;
    expect(label).toMatchObject({ copies: 3, lines: [], picture: { across: 800, tall: 600 } });
    const codes = line.state.labels.at(-1)!.codes.map(c => c.says);
    const found = await scanned(await withBorder(label!.picture!));
    expect(found.map(f => f.text).sort()).toEqual([...codes].sort());
    // It is what the sheet says too: about as much of it is black as on paper at the same size.
    const file = join(dir, 'roll.pdf');
    writeFileSync(file, await owner.ok(labelSheet, { params }));
    execFileSync('pdftoppm', ['-r', '203.2', '-singlefile', '-gray', '-png', file, file]);
    const paper = await sharp(`${file}.png`).resize(800, 600, { fit: 'fill' }).greyscale().raw().toBuffer();
    const black = (dots: Iterable<number>) => [...dots].filter(v => v < 128).length;
    const dots = await sharp(pngOf(label!.picture!)).greyscale().raw().toBuffer();
    expect(black(dots) / black(paper)).toBeGreaterThan(0.9);
    expect(black(dots) / black(paper)).toBeLessThan(1.1);
    // What no longer may go out is not printed, nor on paper.
    await owner.ok(withdrawJars, {
      params: { batchId: line.batchId },
      body: { jars: [9], why: 'a lid that came loose', stamp: line.stamp() },
    });
    expect(await roll(params)).toMatchObject({ status: 422, body: { errors: [{ code: 'not-released' }] } });
    expect(printer.printed).toHaveLength(1);
    // The roll ends: it says so, and nothing is counted as printed.
    const more = await print([8], { spares: 400, read: [] });
    expect(await roll(more)).toMatchObject({
      status: 422,
      body: { errors: [{ code: 'not-printed', what: expect.stringContaining('only 37 labels are left') }] },
    });
    expect(await roll(more, 'printer-9')).toMatchObject({
      status: 422,
      body: { errors: [{ what: expect.stringContaining('it is not there') }] },
    });
    await served.close();
  });

  it('refuses a sheet of paper, and a label wider than its head', async () => {
    await changeSetup({ stockId: 'letter-6', bars: false, scan: 'QR', look: plainSetup('x').look });
    const sheet = await print([8], { read: [] });
    expect((await roll(sheet)).body).toMatchObject({ errors: [{ code: 'no-roll' }] });
    const wide = {
      ...LABEL_STOCKS.find(s => s.id === 'roll-100x75')!,
      id: 'wide',
      name: 'Wide roll',
      page_mm: { width: 150, height: 75 },
      label_mm: { width: 150, height: 75 },
      pitch_mm: { x: 150, y: 75 },
    };
    await changeSettings({ stocks: [wide] });
    await changeSetup({ stockId: 'wide' });
    const printer = labelPrinter(40);
    const served = await serve(printer, { every_ms: 100 });
    connectInstruments([served.port]);
    await expect.poll(() => printHead('printer-1')).not.toBeNull();
    expect((await roll(await print([8], { read: [] }))).body).toMatchObject({
      errors: [{ what: expect.stringContaining('1200 dots wide, and its head 832') }],
    });
    expect(printer.printed).toEqual([]);
    await served.close();
  });
});

describe('the page of a lot', () => {
  const page = async (path: string) => {
    const answer = await new Client(server).raw('GET', path);
    const html = answer.body instanceof Uint8Array ? new TextDecoder().decode(answer.body) : '';
    return { ...answer, html };
  };
  const NONE = 'There is no page for this lot';
  let address = '';

  it('is off until an owner opens it, under the address that is told', async () => {
    const now = await owner.ok(readLabelSettings);
    expect(now).toMatchObject({ pagesAt: '', page: null });
    expect((await page(`/lot/ABCDEFGH/${lotOf(line.state, 8)!.lotCode}`)).html).toContain(NONE);
    const { page: _page, ...body } = now;
    for (const pagesAt of ['jars.example', 'ftp://jars.example', 'https://jars.example/shop', 'javascript:1'])
      expect(
        (await owner.refused(changeLabelSettings, { body: { ...body, pagesAt } })).errors.map(e => e.path),
      ).toEqual(['pagesAt']);
    const opened = await changeSettings({ pagesAt: 'https://jars.example/' });
    expect(opened.page).toMatch(/^https:\/\/jars\.example\/lot\/[2-9A-HJ-NP-Z]{8}\/$/);
    address = new URL(opened.page!).pathname;
    // The name stays: it stands on jars.
    await changeSettings({ pagesAt: '' });
    expect((await changeSettings({ pagesAt: 'https://jars.example' })).page).toBe(opened.page);
  });

  it('shows what stands on the label, and nothing of who asks or made it; in no kind of script', async () => {
    const words = 'A <b>gift</b> & "more"';
    await changeSetup({ stockId: 'letter-6', scan: 'QR', words });
    const { printId } = await print([8]);
    const printedNow = line.state.labels.find(l => l.eventId === printId)!;
    const { lotCode } = printedNow.label;
    expect(printedNow.codes).toEqual([{ kind: 'QR', says: `https://jars.example${address}${lotCode}` }]);
    const { status, html, headers } = await page(address + lotCode);
    expect(status).toBe(200);
    expect(headers.get('content-type')).toContain('text/html');
    for (const part of [
      'Crushed tomatoes',
      'Ingredients: tomatoes, lemon juice',
      `Lot ${lotCode}`,
      '1 Road, Town',
      'noindex',
    ])
      expect(html).toContain(part);
    expect(html).toContain('A &lt;b&gt;gift&lt;/b&gt; &amp; &quot;more&quot;');
    expect(html).not.toMatch(/<script|onload|javascript:/i);
    // Read as it was typed by somebody, it leads there as well.
    expect((await page(address.toLowerCase() + lotCode.toLowerCase().replaceAll('-', ''))).html).toContain(
      'Crushed tomatoes',
    );
  });

  it('says when jars of the lot were called back, and not why', async () => {
    const { lotCode } = lotOf(line.state, 8)!;
    const { html } = await page(address + lotCode);
    expect(html).toContain('called back by their maker');
    expect(html).not.toContain('a lid that came loose');
    const first = lotOf(line.state, 2)!.lotCode;
    expect((await page(address + first)).html).not.toContain('called back');
  });

  it('is none for a lot that is none, has no label, or of another kitchen, and all of them look alike', async () => {
    await line.client.ok(startBatch, {
      body: { ...line.startBody(), batchId: randomUUID(), stamp: line.stamp() },
    });
    const { lotCode } = lotOf(line.state, 8)!;
    const pages = await Promise.all(
      [`${address}NONE-1`, `/lot/ABCDEFGH/${lotCode}`, `${address}__proto__`].map(page),
    );
    for (const { html, status } of pages) {
      expect(status).toBe(200);
      expect(html).toContain(NONE);
      expect(html).toBe(pages[0]?.html);
    }
    expect((await page(`${address}%00`)).status).toBe(422);
    await changeSettings({ pagesAt: '' });
    expect((await page(address + lotCode)).html).toContain(NONE);
  });

  it('is opened by an owner alone', async () => {
    const cook = await server.join(owner, 'cook', 'cook@test.example');
    const { page: _page, ...now } = await cook.ok(readLabelSettings);
    expect(
      await cook.try(changeLabelSettings, { body: { ...now, pagesAt: 'https://jars.example' } }),
    ).toMatchObject({ status: 403, body: { errors: [{ code: 'role', path: 'pagesAt' }] } });
    expect((await cook.try(changeLabelSettings, { body: now })).status).toBe(200);
  });
});
