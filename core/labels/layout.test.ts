import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FONTS, OUTLINES } from '../../testing/fonts.ts';
import { SAMPLE_LABEL } from '../../testing/labels.ts';
import { symbolOf } from '../../testing/symbols.ts';
import { LABEL_DESIGNS, type LabelContent, type LabelDesign, type LabelStock } from '../batches/index.ts';
import { bodyOf, JAR_SIZES } from '../jars/index.ts';
import { PLAIN_LABEL } from '../kitchen/index.ts';
import { contrast, type Drawn, inkOf, svgOf, textFaults } from '../typeset/index.ts';
import {
  type CodeSymbol,
  LABEL_STOCKS,
  type LabelAsk,
  type LabelPiece,
  layOut,
  leastSizes,
  NET_SHARE,
  panelArea_in2,
  placesOn,
  PLAIN_LOOK,
  requirements,
  stockFaults,
  withNearest,
} from './index.ts';

const stockOf = (id: string) => LABEL_STOCKS.find(s => s.id === id) as LabelStock;
/** The lot code as it is scanned, and others that stand beside it. */
const CODE = symbolOf('QR', 'DWB-26328-2K');
const EAN = symbolOf('EAN-13', '4006381333931');
const SETS: readonly (readonly CodeSymbol[])[] = [
  [],
  [CODE],
  [symbolOf('Data Matrix', '(01)04006381333931(15)271124(10)DWB-26328-2K'), EAN],
  [CODE, symbolOf('UPC-A', '036000291452')],
];
const askFor = (over: Partial<LabelAsk> & { stock?: string } = {}): LabelAsk => {
  const { stock = 'letter-10', ...rest } = over;
  const { label_mm, shape, form } = stockOf(stock);
  return {
    label: SAMPLE_LABEL,
    design: 'one panel',
    size_mm: label_mm,
    shape,
    look: PLAIN_LOOK,
    container: bodyOf('pint'),
    form,
    codes: [CODE],
    ...rest,
  };
};
const laid = (ask: LabelAsk) => {
  const made = layOut(ask, FONTS);
  if (!made.ok) throw new Error(made.faults.map(f => f.what).join(' '));
  return made;
};
/** What has to stay free for a code to be read, by what its first bar and its modules say of it. */
function quietOf(item: Drawn & { kind: 'code' }, { bars, across, tall }: CodeSymbol) {
  const [x_mm, y_mm, width_mm] = item.bars_mm[0] as readonly [number, number, number, number];
  const [x, y, width] = bars[0] as CodeSymbol['bars'][number];
  const m = width_mm / width;
  const [left, top] = [x_mm - x * m, y_mm - y * m];
  return { left, top, right: left + across * m, bottom: top + tall * m };
}
const faultsOf = (ask: LabelAsk) => {
  const made = layOut(ask, FONTS);
  return made.ok ? [] : made.faults;
};
const EU = { ...PLAIN_LABEL, rules: 'EU' as const };
/** Each design with stock that it is for. */
const TRIED: readonly (readonly [LabelDesign, string])[] = [
  ['one panel', 'letter-10'],
  ['one panel', 'roll-100x75'],
  ['wrap-around', 'letter-5-strips'],
  ['front and back', 'a4-8'],
  ['jar top', 'letter-12-rounds'],
  ['small jar', 'letter-10'],
  ['small jar', 'roll-100x75'],
];
const texts = (pieces: readonly LabelPiece[], field: string) =>
  pieces
    .flatMap(p => p.drawing.items.filter(i => i.field === field))
    .map(i => (i.kind === 'text' ? i.text : ''))
    .join(' ')
    .replaceAll(/\s+/g, ' ')
    .trim();

describe('type that the rules ask for', () => {
  it('follows the table of 21 CFR 101.7(i) by the area of the panel (from memory)', () => {
    // A jar whose panel has so many square inches: 40 % of height times girth, as 21 CFR 101.1 has it.
    const jar = (area_in2: number) => ({
      across_mm: 80,
      tall_mm: (area_in2 * 25.4 ** 2) / (0.4 * Math.PI * 80),
      lid_mm: 60,
    });
    const sixteenths = (area: number) =>
      Math.round((leastSizes(SAMPLE_LABEL, jar(area), 'one panel', FONTS).netHeight_mm / 25.4) * 1600) / 100;
    expect(panelArea_in2(jar(20), 'one panel')).toBeCloseTo(20, 9);
    expect([1, 4.5, 5.5, 22, 26, 90, 110, 370, 420].map(sixteenths)).toEqual([1, 1, 2, 2, 3, 3, 4, 4, 8]);
    // Near a limit the larger letters are asked for: glass differs.
    expect(sixteenths(24.5)).toBe(3);
  });
  it('measures the panel on the lid for a label that lies there', () =>
    expect(panelArea_in2({ across_mm: 80, tall_mm: 100, lid_mm: 2 * 25.4 }, 'jar top')).toBeCloseTo(
      Math.PI,
      9,
    ));
  it('follows Directive 76/211/EEC by what is stated, elsewhere (from memory)', () => {
    const figures = (amount: number) =>
      leastSizes({ asks: EU, net: { unit: 'g', amount } }, bodyOf('pint'), 'one panel', FONTS).netHeight_mm;
    expect([20, 50, 51, 200, 201, 1000, 1001].map(figures)).toEqual([2, 2, 3, 3, 4, 4, 6]);
  });
  it('is measured on the letter the rule names: the size that is set has it so high', () => {
    for (const { id } of JAR_SIZES) {
      const us = leastSizes(SAMPLE_LABEL, bodyOf(id), 'one panel', FONTS);
      expect(us.net * FONTS.bold.lowercase).toBeCloseTo(us.netHeight_mm, 9);
      expect(us.plain * FONTS.plain.lowercase).toBeCloseTo(25.4 / 16, 9);
      const eu = leastSizes({ asks: EU, net: { unit: 'g', amount: 300 } }, bodyOf(id), 'one panel', FONTS);
      expect(eu.net * (FONTS.bold.glyph('0')?.top ?? 0)).toBeCloseTo(eu.netHeight_mm, 9);
      expect(eu.plain * (FONTS.plain.glyph('x')?.top ?? 0)).toBeCloseTo(1.2, 9);
    }
  });
  it('has the statement as large as its place asks', () => {
    const asks = { ...PLAIN_LABEL, statement_pt: 12 };
    const made = laid(askFor({ stock: 'letter-6', label: { ...SAMPLE_LABEL, asks } }));
    const sizes = made.pieces[0]?.drawing.items.flatMap(i =>
      i.kind === 'text' && i.field === 'statement' ? [(i.size_mm / 25.4) * 72] : [],
    );
    expect(Math.min(...(sizes ?? []))).toBeGreaterThanOrEqual(12);
  });
  it('refuses a jar without measures', () => {
    expect(() => panelArea_in2({ across_mm: 0, tall_mm: 1, lid_mm: 1 }, 'one panel')).toThrow(RangeError);
    expect(faultsOf(askFor({ container: { across_mm: Number.NaN, tall_mm: 1, lid_mm: 1 } }))).toMatchObject([
      { code: 'impossible-panel' },
    ]);
  });
});

describe('a label laid out', () => {
  it.each(TRIED)('meets every requirement of type and place: %s on %s', (design, stock) => {
    const ask = askFor({ design, stock });
    const made = laid(ask);
    const rules = requirements([], ask, made, FONTS);
    expect(rules.filter(r => !r.met)).toEqual([]);
    expect(rules.map(r => r.what)).toContain('Net contents high enough');
    for (const r of rules) expect(r.at).not.toBeNull();
  });

  it('never lets anything lie outside, over something else or below the least size, and leaves nothing out, whatever it says', () => {
    const word = fc.oneof(
      { weight: 6, arbitrary: fc.stringMatching(/^[A-Za-zéèüößñçØ'-]{1,14}$/) },
      { weight: 1, arbitrary: fc.stringMatching(/^[A-Z]{15,60}$/) },
      { weight: 1, arbitrary: fc.constantFrom('1/2', '°', '—', '%', '(', '&', '<b>', '"') },
    );
    const words = (most: number) => fc.array(word, { minLength: 1, maxLength: most }).map(w => w.join(' '));
    let [fitted, refused] = [0, 0];
    fc.assert(
      fc.property(
        fc.constantFrom(...TRIED),
        fc.record({
          statementOfIdentity: words(8),
          ingredients: words(60),
          contains: fc.oneof(fc.constant(''), words(5)),
          directions: fc.oneof(fc.constant(''), words(8)),
          statement: words(20),
          words: fc.oneof(fc.constant(''), words(30)),
          nutrition: fc.oneof(fc.constant(''), words(40)),
          maker: words(4),
        }),
        fc.constantFrom(...JAR_SIZES.map(j => j.id)),
        fc.constantFrom(...SETS),
        ([design, stock], said, size, codes) => {
          const ask = askFor({
            design,
            stock,
            label: { ...SAMPLE_LABEL, ...said },
            container: bodyOf(size),
            codes: design === 'jar top' ? [] : codes,
          });
          const made = layOut(ask, FONTS);
          if (!made.ok) {
            refused++;
            for (const fault of made.faults) {
              expect(fault.what).not.toBe('');
              expect(fault.next).not.toBe('');
            }
            return;
          }
          fitted++;
          for (const { drawing } of made.pieces) {
            const boxes = drawing.items.map(i => ({ i, box: inkOf(i, FONTS) }));
            for (const { i, box } of boxes) {
              if (drawing.round) {
                const r = drawing.width_mm / 2;
                for (const x of [box.left, box.right])
                  for (const y of [box.top, box.bottom])
                    expect(Math.hypot(x - r, y - r), `${i.field}`).toBeLessThanOrEqual(r);
              }
              expect(box.left, i.field).toBeGreaterThanOrEqual(1.5);
              expect(box.top, i.field).toBeGreaterThanOrEqual(1.5);
              expect(box.right, i.field).toBeLessThanOrEqual(drawing.width_mm - 1.5);
              expect(box.bottom, i.field).toBeLessThanOrEqual(drawing.height_mm - 1.5);
              // Figures beneath bars are as large as the bars are.
              if (i.kind === 'text' && i.field !== 'code')
                expect(i.size_mm).toBeGreaterThanOrEqual(
                  i.field === 'net' ? made.least.net : Math.min(made.least.plain, made.least.bold),
                );
            }
            for (const { i } of boxes)
              if (i.kind === 'code') {
                const symbol = codes.find(c => c.says === i.says) as CodeSymbol;
                const quiet = quietOf(i, symbol);
                for (const b of boxes)
                  if (b.i !== i && !(b.i.kind === 'text' && b.i.text === symbol.says))
                    expect(overlap({ box: quiet }, b), `${i.says} and ${b.i.field}`).toBe(false);
              }
            for (const [n, a] of boxes.entries())
              for (const b of boxes.slice(n + 1))
                if (a.i.field !== b.i.field)
                  expect(overlap(a, b), `${a.i.field} and ${b.i.field}`).toBe(false);
          }
          const set = (text: string) => text.normalize('NFC').replaceAll(/\s+/g, ' ').trim();
          for (const [field, text] of [
            ['identity', said.statementOfIdentity],
            ['ingredients', said.ingredients],
            ['contains', said.contains],
            ['directions', said.directions],
            ['statement', said.statement],
            ['words', said.words],
            ['nutrition', said.nutrition],
            ['maker', said.maker],
          ] as const)
            expect(texts(made.pieces, field).replaceAll(' ', '')).toContain(set(text).replaceAll(' ', ''));
          expect(requirements([], ask, made, FONTS).filter(r => !r.met)).toEqual([]);
        },
      ),
      { numRuns: 400 },
    );
    // Both happen, else nothing was tried.
    expect(fitted).toBeGreaterThan(40);
    expect(refused).toBeGreaterThan(40);
  });

  it('sets the largest type that fits, and smaller type where there is more to say', () => {
    const size = (ingredients: string) =>
      Math.min(
        ...laid(askFor({ label: { ...SAMPLE_LABEL, ingredients } })).pieces.flatMap(p =>
          p.drawing.items.flatMap(i => (i.kind === 'text' && i.field === 'ingredients' ? [i.size_mm] : [])),
        ),
      );
    expect(size('plums')).toBeGreaterThan(size('plums, sugar, '.repeat(8)));
  });

  it('keeps a quantity with its unit, and a day together', () => {
    for (const [design, stock] of TRIED) {
      const runs = laid(askFor({ design, stock })).pieces.flatMap(p =>
        p.drawing.items.flatMap(i => (i.kind === 'text' && ['net', 'lot'].includes(i.field) ? [i.text] : [])),
      );
      const lines = runs.map(t => t.replaceAll('\u00A0', ' ')).join('\n');
      for (const whole of ['16 fl oz', '473 mL', 'Nov 24, 2027']) expect(lines).toContain(whole);
    }
  });

  it('has net contents in the lowest 30 per cent, except on a small panel, where that is waived', () => {
    const [piece] = laid(askFor()).pieces as [LabelPiece];
    const net = piece.drawing.items.filter(i => i.field === 'net').map(i => inkOf(i, FONTS).top);
    expect(piece.drawing.height_mm - Math.min(...net)).toBeLessThanOrEqual(
      piece.drawing.height_mm * NET_SHARE,
    );
    expect(leastSizes(SAMPLE_LABEL, bodyOf('quarter-pint'), 'jar top', FONTS).netAtFoot).toBe(false);
  });

  it('says what does not fit, and the nearest stock on which it does', () => {
    const stock = stockOf('letter-10');
    const ask = askFor({ label: { ...SAMPLE_LABEL, ingredients: 'wild blackberries, '.repeat(24) } });
    const faults = withNearest(faultsOf(ask), ask, stock, [], FONTS);
    expect(faults).toMatchObject([{ code: 'does-not-fit', path: 'stock' }]);
    expect(faults[0]?.next).toContain('Letter sheet, six of 4 by 3 1/3 inches');
    const own = { ...stock, id: 'own', name: 'Mine', label_mm: { width: 104, height: 54 } };
    const little = askFor({ label: { ...SAMPLE_LABEL, ingredients: 'wild blackberries, '.repeat(9) } });
    if (faultsOf(little).length > 0)
      expect(withNearest(faultsOf(little), little, stock, [own], FONTS)[0]?.next).toContain('"Mine"');
  });

  it('refuses a name of 300 characters that has no room, and sets one that has', () => {
    const name = 'Spiced '.repeat(42) + 'relish';
    expect(name).toHaveLength(300);
    expect(faultsOf(askFor({ label: { ...SAMPLE_LABEL, statementOfIdentity: name } }))).toMatchObject([
      { code: 'does-not-fit' },
    ]);
    const one = faultsOf(askFor({ label: { ...SAMPLE_LABEL, statementOfIdentity: 'x'.repeat(300) } }));
    expect(one[0]?.what).toMatch(/^"x{40}…" in the name of the food is wider/);
    const large = { width: 250, height: 250 };
    expect(
      texts(
        laid(askFor({ size_mm: large, label: { ...SAMPLE_LABEL, statementOfIdentity: name } })).pieces,
        'identity',
      ),
    ).toBe(name);
  });

  it('refuses a round design on stock with corners, the other way round, and stock too small for words', () => {
    expect(faultsOf(askFor({ design: 'jar top' }))).toMatchObject([{ code: 'other-shape' }]);
    for (const design of LABEL_DESIGNS.filter(d => d !== 'jar top'))
      expect(faultsOf(askFor({ design, stock: 'letter-12-rounds' }))).toMatchObject([
        { code: 'other-shape' },
      ]);
    for (const size of [0, -1, 3, Number.NaN])
      expect(faultsOf(askFor({ size_mm: { width: size, height: 50 } }))).toMatchObject([
        { code: 'too-small' },
      ]);
  });

  it('finds weak contrast, and where it is', () => {
    const ask = askFor({ look: { ...PLAIN_LOOK, accent: '#F5C9A0' } });
    const weak = requirements([], ask, laid(ask), FONTS).find(r => r.what === 'Contrast');
    expect(weak).toMatchObject({ met: false, field: 'identity' });
    // WCAG's own extremes.
    expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 9);
    expect(contrast('#777777', '#FFFFFF')).toBeCloseTo(4.48, 2);
  });
});

const overlap = (
  a: { box: { left: number; right: number; top: number; bottom: number } },
  b: typeof a,
): boolean =>
  a.box.left < b.box.right - 1e-6 &&
  b.box.left < a.box.right - 1e-6 &&
  a.box.top < b.box.bottom - 1e-6 &&
  b.box.top < a.box.bottom - 1e-6;

describe('characters', () => {
  const faults = (text: string) => textFaults(text, FONTS, 'label.identity', 'The name');
  it('with accents are set, composed or not', () => {
    for (const text of ['Crème fraîche, Köstlichkeit, Señorita, Łódź', 'e\u0301clair'])
      expect(faults(text)).toEqual([]);
    const made = laid(askFor({ label: { ...SAMPLE_LABEL, statementOfIdentity: 'Cre\u0300me' } }));
    expect(texts(made.pieces, 'identity')).toBe('Crème');
  });
  it('that no shipped face has are named, never left out', () => {
    const [fault] = faults('Plum 李 jam 🍑');
    expect(fault).toMatchObject({ code: 'no-glyph', path: 'label.identity' });
    expect(fault?.what).toContain('"李" (U+674E)');
    expect(fault?.what).toContain('U+1F351');
    expect(faultsOf(askFor({ label: { ...SAMPLE_LABEL, words: '李' } }))).toMatchObject([
      { code: 'no-glyph' },
    ]);
  });
  it.each(['مربى البرقوق', 'ריבת שזיפים', 'बेर का जैम', 'แยมลูกพลัม'])(
    'of a script that needs shaping are refused with that reason: %s',
    text => expect(faults(text)).toMatchObject([{ code: 'needs-shaping' }]),
  );
  it('that mean something in SVG are only characters', () => {
    const evil = '</svg><script>alert(1)</script> & "x"';
    const made = laid(askFor({ stock: 'letter-6', label: { ...SAMPLE_LABEL, words: evil } }));
    const svg = svgOf((made.pieces[0] as LabelPiece).drawing, OUTLINES);
    expect(svg).not.toContain('<script');
    expect(svg.match(/<\/svg>/g)).toHaveLength(1);
    expect(svg).toContain('&lt;script&gt;');
  });
});

describe('stock', () => {
  it('that ships lies on its page without overlapping', () => {
    for (const stock of LABEL_STOCKS) expect(stockFaults(stock), stock.id).toEqual([]);
  });
  it('with impossible measures is refused, measure by measure', () => {
    const stock = stockOf('letter-10');
    const codes = (over: Partial<LabelStock>) => stockFaults({ ...stock, ...over }).map(f => f.path);
    expect(codes({ columns: 3 })).toEqual(['columns']);
    expect(codes({ rows: 6 })).toEqual(['rows']);
    expect(codes({ pitch_mm: { x: 50, y: 20 } })).toEqual(['pitch_mm.x', 'pitch_mm.y']);
    expect(codes({ shape: 'round' })).toEqual(['label_mm.height']);
  });
  it('takes each label to a place of its own, from the first that is free', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LABEL_STOCKS),
        fc.integer({ min: 1, max: 60 }),
        fc.nat(),
        (stock, count, gone) => {
          const each = stock.columns * stock.rows;
          const start = gone % each;
          const places = placesOn(stock, count, start);
          expect(places).toHaveLength(count);
          expect(new Set(places.map(p => `${p.page} ${p.x_mm} ${p.y_mm}`)).size).toBe(count);
          expect(places[0]?.page).toBe(0);
          expect(places.at(-1)?.page).toBe(Math.ceil((count + start) / each) - 1);
          for (const { x_mm, y_mm } of places) {
            expect(x_mm + stock.label_mm.width).toBeLessThanOrEqual(stock.page_mm.width + 0.01);
            expect(y_mm + stock.label_mm.height).toBeLessThanOrEqual(stock.page_mm.height + 0.01);
          }
        },
      ),
    );
  });
});

describe('a label of the other market', () => {
  const label: LabelContent = {
    ...SAMPLE_LABEL,
    asks: EU,
    locale: 'en-GB',
    netContents: '340 g',
    net: { unit: 'g', amount: 340 },
    ingredients: 'cabbage, mustard, salt',
    emphasised: ['mustard'],
  };
  it('has its allergens bold, its quantity in figures, its days as they are written there', () => {
    const ask = askFor({ label, stock: 'a4-8' });
    const made = laid(ask);
    const bold = made.pieces[0]?.drawing.items.filter(i => i.kind === 'text' && i.face === 'bold');
    expect(bold?.filter(i => i.field === 'ingredients').map(i => (i.kind === 'text' ? i.text : ''))).toEqual([
      expect.stringMatching(/^ ?mustard$/),
    ]);
    expect(texts(made.pieces, 'lot')).toMatch(/^LDWB-26328-2K.*Best before 24 Nov 2027/);
    expect(requirements([], ask, made, FONTS).filter(r => !r.met)).toEqual([]);
  });
});
