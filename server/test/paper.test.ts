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
import { fold, type LabelStock } from '@cocotte/core/batches';
import { LABEL_STOCKS, type LabelPiece, layOut, NET_SHARE, PLAIN_LOOK, placesOn } from '@cocotte/core/labels';
import { inkOf } from '@cocotte/core/typeset';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { crushedTomatoes, waxBeans } from '../../demo/recipes.ts';
import { printed, SAMPLE_LABEL, toPrint } from '../../testing/labels.ts';
import { Line } from '../../testing/line.ts';
import { scanned } from '../../testing/scan.ts';
import { type Client, TestServer } from '../../testing/test-server.ts';
import { heavy } from '../src/heavy/pool.ts';
import { labelFonts } from '../src/labels/faces.ts';
import { askOf, printFaults } from '../src/labels/print.ts';
import { drawCheckPage, drawLabels, type LabelSheet } from '../src/labels/sheet.ts';

let server: TestServer;
let owner: Client;
let line: Line;
const dir = mkdtempSync(join(tmpdir(), 'cocotte-paper-'));
beforeAll(async () => {
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

/** A sheet of one label after the other, plainly unless told otherwise. */
const sheetOf = (over: Partial<LabelSheet> = {}): LabelSheet => {
  const { read: _read, ...print } = printed(over.size ?? 'half-pint', over.label ?? SAMPLE_LABEL);
  return { ...print, count: 1, offset_mm: { x: 0, y: 0 }, picture: null, ...over };
};
const stockOf = (id: string) => LABEL_STOCKS.find(s => s.id === id) as LabelStock;
/** The design that a stock is for. */
const designFor = (stock: LabelStock) =>
  stock.shape === 'round' ? 'jar top' : stock.label_mm.width > 150 ? 'wrap-around' : 'one panel';
const words = (file: string, word: string) =>
  [
    ...run('pdftotext', '-bbox', file, '-').matchAll(
      new RegExp(`<word xMin="([\\d.]+)" yMin="([\\d.]+)"[^>]*>${word}</word>`, 'g'),
    ),
  ].map(m => [Number(m[1]), Number(m[2])] as const);

describe('labels', () => {
  it('are printed though every thread has long work before them', async () => {
    const before = line.state.labels.length;
    const work = Array.from({ length: 4 }, () =>
      heavy('label sheet', sheetOf({ size: 'pint', count: 8000 })),
    );
    const view = await owner.ok(printLabels, {
      params: { batchId: line.batchId },
      body: toPrint([2], 'pint', line.stamp()),
    });
    expect(fold(view.events).labels).toHaveLength(before + 1);
    for (const sheet of await Promise.all(work)) expect(sheet.byteLength).toBeGreaterThan(100_000);
  });

  it('come as a sound PDF at true size, say all that is wanted, and carry a code that reads back to the lot code', async () => {
    const view = await owner.ok(printLabels, {
      params: { batchId: line.batchId },
      body: {
        ...toPrint(
          Array.from({ length: 11 }, (_, i) => i + 2),
          'pint',
          line.stamp(),
        ),
        start: 3,
        spares: 2,
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
    // Every face is embedded, as TrueType of its own.
    const faces = run('pdffonts', file).trim().split('\n').slice(2);
    expect(faces.length).toBeGreaterThanOrEqual(3);
    for (const face of faces) expect(face).toMatch(/CID TrueType\s+Identity-H\s+yes (?:yes|no)\s+yes/);
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
    // Three of the first sheet were gone: it has seven, the next one six.
    expect(words(file, 'Crushed')).toHaveLength(13);
    run('pdftoppm', '-r', '300', '-png', file, join(dir, 'page'));
    const codes: string[] = [];
    for (const name of readdirSync(dir).filter(n => n.startsWith('page'))) {
      const found = await scanned(readFileSync(join(dir, name)), ['QRCode']);
      codes.push(...found.map(f => f.text));
    }
    expect(codes).toEqual(Array.from({ length: 13 }, () => lotCode));
  });

  it('stand where the stock and the printer have them, to a tenth of a millimetre, from the first that is free', async () => {
    for (const stock of LABEL_STOCKS) {
      const over = { stock, design: designFor(stock) } as const;
      const each = stock.columns * stock.rows;
      const start = each > 2 ? 2 : 0;
      const offset_mm = { x: 1.3, y: -0.7 };
      const file = keep(
        `${stock.id}.pdf`,
        await drawLabels(sheetOf({ ...over, start, count: each - start, offset_mm })),
      );
      const made = layOut(askOf(sheetOf(over)), labelFonts());
      if (!made.ok) throw new Error(JSON.stringify(made.faults));
      const name = made.pieces[0]?.drawing.items.find(i => i.field === 'identity');
      if (name?.kind !== 'text') throw new Error('The name is drawn.');
      const boxes = words(file, 'Pickled');
      expect(boxes).toHaveLength(each - start);
      const places = placesOn(stock, each - start, start);
      for (const [i, [x]] of boxes.entries()) {
        const at = places[i] as (typeof places)[number];
        const wanted = at.x_mm + offset_mm.x + (name.xs_mm[0] as number);
        expect(Math.abs((x / 72) * 25.4 - wanted)).toBeLessThan(0.1);
        const down =
          ((boxes[i] as readonly number[])[1] as number) - (boxes[0] as readonly [number, number])[1];
        expect(
          Math.abs((down / 72) * 25.4 - (at.y_mm - (places[0] as (typeof places)[number]).y_mm)),
        ).toBeLessThan(0.1);
      }
    }
  });

  it.each([
    ['half-pint', '8 fl oz (1/2 pt) 236 mL', 3.175],
    ['pint', '16 fl oz (1 pt) 473 mL', 3.175],
    ['quart', '32 fl oz (1 qt) 946 mL', 4.7625],
  ] as const)(
    'have letters of net contents as high as the panel of a %s asks, and no others below 1/16 inch, measured in ink',
    async (size, netContents, least_mm) => {
      for (const [stock, design] of [
        ['letter-10', 'one panel'],
        ['letter-10', 'front and back'],
        ['letter-12-rounds', 'jar top'],
        ['letter-6', 'one panel'],
      ] as const) {
        const sheet = sheetOf({
          label: { ...SAMPLE_LABEL, netContents },
          stock: stockOf(stock),
          size,
          design,
        });
        const file = keep(`net-${size}-${stock}.pdf`, await drawLabels(sheet));
        const made = layOut(askOf(sheet), labelFonts());
        if (!made.ok) throw new Error(JSON.stringify(made.faults));
        const least = { net: design === 'jar top' ? 25.4 / 16 : least_mm, statement: 25.4 / 16 };
        for (const field of ['net', 'statement'] as const) {
          const piece = made.pieces.findIndex(p => p.drawing.items.some(i => i.field === field));
          const at = placesOn(sheet.stock, 2, 0)[piece] as { x_mm: number; y_mm: number };
          const height_mm = inkHeight_mm(file, made.pieces[piece] as LabelPiece, field, at);
          expect(height_mm).toBeGreaterThanOrEqual(least[field]);
          if (field === 'net') expect(height_mm).toBeLessThan(least[field] * 1.05);
        }
        const { drawing, panel } = made.pieces[0] as LabelPiece;
        const net = drawing.items.filter(i => i.field === 'net').map(i => inkOf(i, labelFonts()).top);
        if (design !== 'jar top' && panel)
          expect(panel.bottom - Math.min(...net)).toBeLessThanOrEqual(NET_SHARE * (panel.bottom - panel.top));
      }
    },
  );

  it('show on paper what their layout draws, and nothing of it lies beyond the edge of the label', async () => {
    for (const [design, id] of DESIGNS) {
      const stock = stockOf(id);
      const sheet = sheetOf({ design, stock, size: 'pint' });
      const file = keep(`whole-${design}.pdf`, await drawLabels(sheet));
      const made = layOut(askOf(sheet), labelFonts());
      if (!made.ok) throw new Error(JSON.stringify(made.faults));
      const dpi = 254;
      const picture = execFileSync('pdftoppm', ['-gray', '-r', String(dpi), '-f', '1', '-l', '1', file], {
        maxBuffer: 64e6,
      });
      const { wide, tall, pixels } = greys(picture);
      const inked: { x: number; y: number }[] = [];
      for (let y = 0; y < tall; y++)
        for (let x = 0; x < wide; x++)
          if ((pixels[y * wide + x] as number) < 128) inked.push({ x: x / 10, y: y / 10 });
      const places = placesOn(stock, made.pieces.length, 0);
      const boxes = made.pieces.flatMap((p, i) =>
        p.drawing.items.map(item => {
          const { left, top, right, bottom } = inkOf(item, labelFonts());
          const at = places[i] as { x_mm: number; y_mm: number };
          return {
            left: left + at.x_mm,
            right: right + at.x_mm,
            top: top + at.y_mm,
            bottom: bottom + at.y_mm,
          };
        }),
      );
      expect(inked.length).toBeGreaterThan(2000);
      const stray = inked.filter(
        ({ x, y }) =>
          !boxes.some(
            b => x >= b.left - 0.2 && x <= b.right + 0.1 && y >= b.top - 0.2 && y <= b.bottom + 0.1,
          ),
      );
      expect(stray).toEqual([]);
    }
  });

  it('refuse a text that would have to be printed too small, and name the nearest stock on which it fits', async () => {
    const long = { ...SAMPLE_LABEL, ingredients: 'a very long ingredient, '.repeat(16) };
    await expect(drawLabels(sheetOf({ label: long }))).rejects.toThrow(RangeError);
    const faults = printFaults({ ...sheetOf({ label: long }), others: [] });
    expect(faults).toHaveLength(1);
    expect(faults[0]?.next).toMatch(/^It fits on "Letter sheet, five strips of 8 by 2 inches"/);
  });

  it('say when a jar is not for sale', async () =>
    expect(
      textOf(keep('gift.pdf', await drawLabels(sheetOf({ label: { ...SAMPLE_LABEL, notForSale: true } })))),
    ).toContain('Not for sale'));

  it('print the kitchen’s own picture in its colours', async () => {
    const picture = await sharp({
      create: { width: 60, height: 30, channels: 3, background: '#3355AA' },
    })
      .jpeg()
      .toBuffer();
    const look = { ...PLAIN_LOOK, ground: '#FFF8E8', pictureId: crypto.randomUUID(), pictureRatio: 0.5 };
    const file = keep(
      'picture.pdf',
      await drawLabels(sheetOf({ design: 'front and back', look, picture: new Uint8Array(picture) })),
    );
    sound(file);
    expect(run('pdfimages', '-list', file)).toMatch(/image\s+60\s+30\s+rgb/);
  });

  it('have a page that shows how far a printer is off', async () => {
    for (const stock of LABEL_STOCKS) {
      const file = keep(
        `check-${stock.id}.pdf`,
        await drawCheckPage({ stock, offset_mm: { x: 0.4, y: -1.2 }, locale: 'en-US' }),
      );
      sound(file);
      expect(textOf(file)).toContain('0.4 mm to the right, -1.2 mm down');
    }
  });
});

/** Each design with a stock that it is for. */
const DESIGNS = [
  ['one panel', 'letter-10'],
  ['wrap-around', 'letter-5-strips'],
  ['front and back', 'a4-8'],
  ['jar top', 'letter-12-rounds'],
  ['small jar', 'letter-6'],
] as const;

/** A picture in greys, as it was printed to PGM. */
function greys(picture: Buffer): { wide: number; tall: number; pixels: Buffer } {
  const [, wide = '0', tall = '0'] = /^P5\s+(\d+)\s+(\d+)\s+\d+\s/.exec(picture.toString('latin1')) ?? [];
  return {
    wide: Number(wide),
    tall: Number(tall),
    pixels: picture.subarray(picture.length - Number(wide) * Number(tall)),
  };
}

/** Height of the ink of the first lower-case o of a field, as it is rendered at 1200 dots per inch. */
function inkHeight_mm(
  file: string,
  { drawing }: LabelPiece,
  field: string,
  at: { x_mm: number; y_mm: number },
): number {
  for (const item of drawing.items) {
    if (item.kind !== 'text' || item.field !== field) continue;
    const i = [...item.text].indexOf('o');
    if (i < 0) continue;
    const glyph = labelFonts()[item.face].glyph('o');
    if (!glyph) continue;
    const dpi = 1200;
    const px = (mm: number) => Math.round((mm / 25.4) * dpi);
    const x = at.x_mm + (item.xs_mm[i] as number) + glyph.left * item.size_mm;
    const y = at.y_mm + item.y_mm - glyph.top * item.size_mm;
    const { wide, tall, pixels } = greys(
      execFileSync('pdftoppm', [
        ...`-gray -r ${dpi} -f 1 -l 1 -x ${px(x)} -y ${px(y) - 6}`.split(' '),
        ...`-W ${px((glyph.right - glyph.left) * item.size_mm)} -H ${px((glyph.top - glyph.bottom) * item.size_mm) + 12}`.split(
          ' ',
        ),
        file,
      ]),
    );
    const inked = Array.from({ length: tall }, (_, row) =>
      pixels.subarray(row * wide, (row + 1) * wide).some(v => v < 128),
    );
    return ((inked.lastIndexOf(true) - inked.indexOf(true) + 1) / dpi) * 25.4;
  }
  throw new Error(`No lower-case o in ${field}.`);
}

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
