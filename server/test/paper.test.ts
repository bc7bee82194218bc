import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  blankSheet,
  changeKitchen,
  labelSheet,
  printLabels,
  readKitchen,
  recordSheet,
  releaseJars,
} from '@cocotte/contract';
import { fold, type LabelContent } from '@cocotte/core/batches';
import { LABEL_STOCKS, type LabelStock, NET_SHARE } from '@cocotte/core/labels';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader';
import { crushedTomatoes, waxBeans } from '../../demo/recipes.ts';
import { Line } from '../../testing/line.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { heavy } from '../src/heavy/pool.ts';
import { drawLabels } from '../src/labels/sheet.ts';

const habits = { locale: 'en-US' };

let server: TestServer;
let owner: Client;
let line: Line;
const dir = mkdtempSync(join(tmpdir(), 'cocotte-paper-'));
beforeAll(async () => {
  // The reader's own binary from its package: it would be fetched from elsewhere otherwise.
  const wasm = readFileSync(
    join(import.meta.dirname, '../../node_modules/zxing-wasm/dist/reader/zxing_reader.wasm'),
  );
  prepareZXingModule({
    overrides: {
      wasmBinary: wasm.buffer.slice(wasm.byteOffset, wasm.byteOffset + wasm.byteLength) as ArrayBuffer,
    },
  });
  server = await TestServer.open();
  owner = await server.firstOwner();
  line = await Line.open(owner, crushedTomatoes, 'pint', 12);
  await (await (await line.start()).draw()).cook(40);
  await line.readPh(4.12);
  line.view = await owner.ok(releaseJars, {
    params: { batchId: line.batchId },
    body: { jars: Array.from({ length: 11 }, (_, i) => i + 2), stamp: line.stamp() },
  });
});
afterAll(async () => {
  rmSync(dir, { recursive: true });
  await server.close();
});

const keep = (name: string, bytes: Uint8Array): string => {
  const file = join(dir, name);
  writeFileSync(file, bytes);
  return file;
};
const run = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8' });
const textOf = (file: string) => run('pdftotext', '-raw', file, '-').replaceAll(/\s+/g, ' ');
const sound = (file: string) =>
  expect(run('qpdf', '--check', file)).toContain('No syntax or stream encoding errors found');

describe('labels', () => {
  it('are printed though every thread has long work before them', async () => {
    const before = line.state.labels.length;
    const stock = LABEL_STOCKS[0] as LabelStock;
    const { started } = line.state;
    if (!started) throw new Error('The batch is started.');
    const label = {
      statementOfIdentity: 'Jam',
      ingredients: 'plums',
      contains: '',
      netContents: 'Net Wt 10 oz 283 g',
      maker: 'Test Kitchen',
      address: '1 Road, Town',
      lotCode: started.lotCode,
      madeOn: started.madeOn,
      bestBy: '2027-11-24',
      readyFrom: null,
      directions: '',
      statement: 'Made at home.',
      notForSale: false,
    };
    const work = Array.from({ length: 4 }, () =>
      heavy('label sheet', { label, stock, size: 'pint', count: 4000, habits }),
    );
    const view = await owner.ok(printLabels, {
      params: { batchId: line.batchId },
      body: { jars: [2], size: 'pint', stock: stock.id, stamp: line.stamp() },
    });
    expect(fold(view.events).labels).toHaveLength(before + 1);
    for (const sheet of await Promise.all(work)) expect(sheet.byteLength).toBeGreaterThan(100_000);
  });

  it('come as a sound PDF at true size, say all that is wanted, and carry a code that reads back to the lot code', async () => {
    const view = await owner.ok(printLabels, {
      params: { batchId: line.batchId },
      body: {
        jars: Array.from({ length: 11 }, (_, i) => i + 2),
        size: 'pint',
        stock: 'letter-10',
        stamp: line.stamp(),
      },
    });
    const print = view.events.at(-1);
    const file = keep(
      'labels.pdf',
      await owner.ok(labelSheet, { params: { batchId: line.batchId, printId: print?.id ?? '' } }),
    );
    sound(file);
    const info = run('pdfinfo', file);
    expect(info).toMatch(/Pages:\s+2/);
    expect(info).toMatch(/Page size:\s+612 x 792 pts/);
    const text = textOf(file);
    const { lotCode, madeOn } = line.state.started ?? { lotCode: '', madeOn: '' };
    expect(madeOn).toBe('2026-11-24');
    for (const part of [
      'Crushed tomatoes',
      'Ingredients: tomatoes, lemon juice',
      'Contains: sulfites',
      'Net Wt 15 oz',
      '425 g',
      'Test Kitchen, 1 Road, Town',
      `Lot ${lotCode}`,
      'Made Nov 24, 2026',
      'Best by Nov 24, 2027',
      'Made at home.',
    ])
      expect(text).toContain(part);
    run('pdftoppm', '-r', '300', '-png', file, join(dir, 'page'));
    const codes: string[] = [];
    for (const name of readdirSync(dir).filter(n => n.startsWith('page'))) {
      const found = await readBarcodes(new Blob([readFileSync(join(dir, name))]), {
        formats: ['QRCode'],
        maxNumberOfSymbols: 20,
      });
      codes.push(...found.map(f => f.text));
    }
    expect(codes).toEqual(Array.from({ length: 11 }, () => lotCode));
  });

  it('stand where the stock has them, to a tenth of a millimetre', async () => {
    for (const stock of LABEL_STOCKS) {
      const bytes = await drawLabels({
        label: sample,
        stock,
        size: 'half-pint',
        count: stock.columns * stock.rows,
        habits,
      });
      const file = keep(`${stock.id}.pdf`, bytes);
      const boxes = [
        ...run('pdftotext', '-bbox', file, '-').matchAll(
          /<word xMin="([\d.]+)" yMin="([\d.]+)"[^>]*>Pickled<\/word>/g,
        ),
      ].map(m => [Number(m[1]), Number(m[2])] as const);
      expect(boxes).toHaveLength(stock.columns * stock.rows);
      const xs = [...new Set(boxes.map(b => b[0].toFixed(2)))].map(Number).sort((a, b) => a - b);
      const ys = [...new Set(boxes.map(b => b[1].toFixed(2)))].map(Number).sort((a, b) => a - b);
      expect(Math.abs((xs[1] as number) - (xs[0] as number) - (stock.pitch_mm.x * 72) / 25.4)).toBeLessThan(
        0.28,
      );
      for (let i = 1; i < ys.length; i++)
        expect(
          Math.abs((ys[i] as number) - (ys[i - 1] as number) - (stock.pitch_mm.y * 72) / 25.4),
        ).toBeLessThan(0.28);
    }
  });

  it.each([
    ['half-pint', '8 fl oz (1/2 pt) 236 mL', '236', 3.175],
    ['pint', '16 fl oz (1 pt) 473 mL', '473', 3.175],
    ['quart', '32 fl oz (1 qt) 946 mL', '946', 4.762],
  ] as const)(
    'have figures of net contents as high as the panel of a %s asks, measured in ink, in its lowest 30 per cent',
    async (size, netContents, word, least_mm) => {
      for (const stock of LABEL_STOCKS) {
        const bytes = await drawLabels({ label: { ...sample, netContents }, stock, size, count: 1, habits });
        const file = keep(`net-${size}-${stock.id}.pdf`, bytes);
        const box = new RegExp(
          `<word xMin="([\\d.]+)" yMin="([\\d.]+)" xMax="([\\d.]+)" yMax="([\\d.]+)">${word}</word>`,
        ).exec(run('pdftotext', '-bbox', file, '-'));
        const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = (box ?? []).slice(1).map(Number);
        // A grey picture of the word alone, row by row.
        const dpi = 1200;
        const px = (pt: number) => Math.round((pt * dpi) / 72);
        const picture = execFileSync('pdftoppm', [
          ...`-gray -r ${dpi} -x ${px(x0)} -y ${px(y0) - 20} -W ${px(x1 - x0)} -H ${px(y1 - y0) + 40}`.split(
            ' ',
          ),
          file,
        ]);
        const [, wide = '0', tall = '0'] =
          /^P5\s+(\d+)\s+(\d+)\s+\d+\s/.exec(picture.toString('latin1')) ?? [];
        const pixels = picture.subarray(picture.length - Number(wide) * Number(tall));
        const inked = Array.from({ length: Number(tall) }, (_, row) =>
          pixels.subarray(row * Number(wide), (row + 1) * Number(wide)).some(v => v < 128),
        );
        const height_mm = ((inked.lastIndexOf(true) - inked.indexOf(true) + 1) / dpi) * 25.4;
        expect(height_mm).toBeGreaterThanOrEqual(least_mm);
        expect(height_mm).toBeLessThan(least_mm * 1.12);
        const top_mm =
          ((y0 - 20 / (dpi / 72) + inked.indexOf(true) / (dpi / 72)) / 72) * 25.4 - stock.margin_mm.top;
        expect(top_mm).toBeGreaterThan(stock.label_mm.height * (1 - NET_SHARE));
      }
    },
  );

  it('refuse a text that would have to be printed too small', async () => {
    await expect(
      drawLabels({
        label: { ...sample, ingredients: 'a very long ingredient, '.repeat(60) },
        stock: LABEL_STOCKS[1] as LabelStock,
        size: 'pint',
        count: 1,
        habits,
      }),
    ).rejects.toThrow(RangeError);
  });

  it('say when a jar is not for sale', async () =>
    expect(
      textOf(
        keep(
          'gift.pdf',
          await drawLabels({
            label: { ...sample, notForSale: true },
            stock: LABEL_STOCKS[0] as LabelStock,
            size: 'pint',
            count: 1,
            habits,
          }),
        ),
      ),
    ).toContain('Not for sale'));
});

const sample: LabelContent = {
  statementOfIdentity: 'Pickled wax beans',
  ingredients: 'wax beans, vinegar, water, salt, dill, garlic',
  contains: '',
  netContents: '16 fl oz (1 pt) 473 mL',
  maker: 'Test Kitchen',
  address: '1 Road, Town',
  lotCode: 'DWB-26328-2K',
  madeOn: '2026-11-24',
  bestBy: '2027-11-24',
  readyFrom: '2026-12-15',
  directions: 'Refrigerate after opening.',
  statement: 'Made in a home kitchen that is not inspected.',
  notForSale: false,
};

describe('the record on paper', () => {
  it('holds every entry, who and when, corrections beside what they correct, and the head hash', async () => {
    const note = line.fact('note.written', { text: 'the jars were blue' });
    await line.send([note]);
    await line.wait(5).note('entry.corrected', {
      replaces: note.id,
      type: 'note.written',
      body: { text: 'the jars were green' },
      occurredAt: null,
      reason: 'poor light',
    });
    const file = keep('record.pdf', await owner.ok(recordSheet, { params: { batchId: line.batchId } }));
    sound(file);
    const text = textOf(file);
    for (const part of [
      'Full boil: the clock started',
      'Heat off',
      'Pressed: 12 sealed',
      'pH 4.12 in jar 1',
      'the jars were blue',
      'Correction of entry',
      'poor light',
      'Released jars 2-12',
      'Ona, entered at the time',
      'Entered at the time: it arrived as it happened.',
      'Ona',
      'met',
    ])
      expect(text).toContain(part);
    const last = line.view?.events.at(-1);
    expect(text.replaceAll(' ', '')).toContain(last?.hash);
    expect(text.indexOf('the jars were green')).toBeGreaterThan(text.indexOf('the jars were blue'));
  });
});

describe('the sheet to write on', () => {
  it('prints the targets before cooking, and lines to write on', async () => {
    const beans = await Line.open(owner, waxBeans, 'pint', 8, { demoLetter: true });
    await beans.start('home');
    const file = keep('blank.pdf', await owner.ok(blankSheet, { params: { batchId: beans.batchId } }));
    sound(file);
    const text = textOf(file);
    for (const part of [
      'DEMO, do not cook from this',
      '15 minutes from the full boil',
      'raw pack',
      'Yellow wax beans',
      '6 c',
      'Full boil at',
      'Heat off at',
      'pH, jar, temperature, time',
    ])
      expect(text).toContain(part);
    expect(run('pdfinfo', file)).toContain('612 x 792 pts (letter)');
  });

  it("is drawn on the kitchen's own paper and by its clock, with nothing beyond its edge", async () => {
    const { id: _id, placed: _placed, demo: _demo, ...settings } = await owner.ok(readKitchen);
    const other = { ...settings, paper: 'A4' as const, locale: 'en-US-u-hc-h23' };
    await owner.ok(changeKitchen, { body: other });
    const file = keep('record-a4.pdf', await owner.ok(recordSheet, { params: { batchId: line.batchId } }));
    sound(file);
    expect(run('pdfinfo', file)).toMatch(/Page size:\s+595\.\d+ x 841\.\d+ pts \(A4\)/);
    expect(textOf(file)).not.toMatch(/\d [AP]M\b/);
    const words = run('pdftotext', '-bbox', file, '-').matchAll(/xMin="([\d.]+)".* xMax="([\d.]+)"/g);
    const edges = [...words].flatMap(([, left, right]) => [Number(left), Number(right)]);
    expect(edges.length).toBeGreaterThan(100);
    expect(Math.min(...edges)).toBeGreaterThan(35);
    expect(Math.max(...edges)).toBeLessThan(595 - 35);
    for (const locale of ['en-US-u-hc-h99-', 'nonsense locale', 'x'])
      expect(
        (await owner.try(changeKitchen, { body: { ...other, version: other.version + 1, locale } })).status,
      ).toBe(422);
  });
});
