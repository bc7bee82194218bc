import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { FONTS } from '../../testing/fonts.ts';
import { nthLotCode, SAMPLE_LABEL } from '../../testing/labels.ts';
import { symbolOf } from '../../testing/symbols.ts';
import { fold, USUAL_LOT_PATTERN } from '../batches/index.ts';
import { bodyOf } from '../jars/index.ts';
import {
  checkDigit,
  LABEL_STOCKS,
  type LabelAsk,
  type LabelSetup,
  labelCodes,
  layOut,
  lidLines,
  lidText,
  PLAIN_LOOK,
  plainSetup,
  readItemNumber,
  scannedLotCode,
} from './index.ts';

/** Numbers printed in publications as examples, recalled from memory: of EAN-13, of UPC-A, and of an ISBN as its EAN-13. */
const PUBLISHED = ['4006381333931', '036000291452', '9780306406157'];

describe('item numbers', () => {
  it('have the check digits of published examples', () => {
    for (const number of PUBLISHED) {
      expect(checkDigit(number.slice(0, -1))).toBe(Number(number.at(-1)));
      expect(readItemNumber(number)).toEqual({ ok: true, number });
    }
  });
  it('are read with what stands between their figures', () =>
    expect(readItemNumber(' 0 36000-29145 2 ')).toEqual({ ok: true, number: '036000291452' }));
  it('with any one wrong figure, and with most swaps, are refused; nothing is put right', () =>
    fc.assert(
      fc.property(
        fc.stringMatching(/^\d{12}$/),
        fc.nat({ max: 12 }),
        fc.nat({ max: 9 }),
        (body, at, other) => {
          const number = body + String(checkDigit(body));
          expect(readItemNumber(number).ok).toBe(true);
          const wrong = number.slice(0, at) + String(other) + number.slice(at + 1);
          const read = readItemNumber(wrong);
          expect(read.ok).toBe(wrong === number);
          if (!read.ok) expect(read.fault).toMatchObject({ code: 'wrong-check-digit' });
          // Neighbours that differ by five are the swap its weights cannot see (from memory of the same source).
          const i = at % 12;
          const [a, b] = [number[i], number[i + 1]] as [string, string];
          const swapped = number.slice(0, i) + b + a + number.slice(i + 2);
          expect(readItemNumber(swapped).ok).toBe(a === b || Math.abs(Number(a) - Number(b)) === 5);
        },
      ),
    ));
  it('of another length, or with anything but figures, are refused', () => {
    const code = (text: string) => {
      const read = readItemNumber(text);
      return read.ok ? 'ok' : read.fault.code;
    };
    expect(['', '4006381', '96385074', '14006381333938'].map(code)).toEqual(Array(4).fill('bad-length'));
    expect(
      ['40063813339３1', '__proto__', '4006381333931;', '-0360-00291452', '٤٠٠٦٣٨١٣٣٣٩٣١'].map(code),
    ).toEqual(['ok', 'not-figures', 'not-figures', 'ok', 'not-figures']);
  });
});

describe('codes of a label', () => {
  const codes = (over: Partial<LabelSetup>, page: string | null = null) =>
    labelCodes({ ...plainSetup('letter-10'), ...over }, 'pint', SAMPLE_LABEL, page);
  const numbers = [{ size: 'pint' as const, number: '4006381333931' }];
  it('hold the lot code, or where it can be read', () => {
    expect(codes({})).toEqual({ ok: true, codes: [{ kind: 'QR', says: 'DWB-26328-2K' }] });
    expect(codes({}, 'https://jars.example/lot/7K2M9QXA/')).toEqual({
      ok: true,
      codes: [{ kind: 'QR', says: 'https://jars.example/lot/7K2M9QXA/DWB-26328-2K' }],
    });
    // A slash between the parts is none of the address: what stands between them is no part of a code.
    expect(
      labelCodes(
        plainSetup('letter-10'),
        'pint',
        { ...SAMPLE_LABEL, lotCode: 'DWB/26328/2K' },
        'https://x/lot/Y/',
      ),
    ).toEqual({ ok: true, codes: [{ kind: 'QR', says: 'https://x/lot/Y/DWB-26328-2K' }] });
    expect(codes({ scan: 'none' })).toEqual({ ok: true, codes: [] });
    expect(codes({ design: 'jar top', bars: true })).toEqual({ ok: true, codes: [] });
  });
  it('hold item, best-by and lot by their GS1 identifiers, and the number in bars, where the maker has one', () => {
    expect(codes({ scan: 'Data Matrix', bars: true, numbers })).toEqual({
      ok: true,
      codes: [
        { kind: 'Data Matrix', says: '(01)04006381333931(15)271124(10)DWB-26328-2K' },
        { kind: 'EAN-13', says: '4006381333931' },
      ],
    });
    expect(codes({ scan: 'none', bars: true, numbers: [{ size: 'pint', number: '036000291452' }] })).toEqual({
      ok: true,
      codes: [{ kind: 'UPC-A', says: '036000291452' }],
    });
  });
  it('are refused without a number, with that of another jar, or with a wrong one: none is made up', () => {
    const fault = (over: Partial<LabelSetup>) => {
      const made = codes({ bars: true, ...over });
      return made.ok ? [] : made.faults.map(f => [f.path, f.code]);
    };
    expect(fault({})).toEqual([['number', 'no-number']]);
    expect(fault({ bars: false, scan: 'Data Matrix' })).toEqual([['number', 'no-number']]);
    expect(fault({ numbers: [{ size: 'quart', number: '4006381333931' }] })).toEqual([
      ['number', 'no-number'],
    ]);
    expect(fault({ numbers: [{ size: 'pint', number: '4006381333932' }] })).toEqual([
      ['number', 'wrong-check-digit'],
    ]);
  });
  it('lead back to their lot code, however they were scanned or copied', () => {
    for (const text of [
      'DWB-26328-2K',
      '  DWB-26328-2K ',
      'https://jars.example/lot/7K2M9QXA/DWB-26328-2K',
      'http://192.168.1.7:4600/lot/7K2M9QXA/DWB-26328-2K?x=1',
      '(01)04006381333931(15)271124(10)DWB-26328-2K',
      '01040063813339311527112410DWB-26328-2K',
      ']d201040063813339311727112410DWB-26328-2K',
      '\u001d01040063813339311527112410DWB-26328-2K',
    ])
      expect(scannedLotCode(text), text).toBe('DWB-26328-2K');
    for (const text of ['', '%', 'plum jam', 'https://jars.example/lot/', 'https://x/lot/y/%E0%A4%A'])
      expect(typeof scannedLotCode(text)).toBe('string');
  });
});

describe('codes laid out', () => {
  const stock = (id: string) => LABEL_STOCKS.find(s => s.id === id)!;
  const ask = (over: Partial<LabelAsk> & { on?: string }): LabelAsk => {
    const { label_mm, shape, form } = stock(over.on ?? 'letter-6');
    return {
      label: SAMPLE_LABEL,
      design: 'one panel',
      size_mm: label_mm,
      shape,
      form,
      look: PLAIN_LOOK,
      container: bodyOf('pint'),
      codes: [],
      ...over,
    };
  };
  const bars = (asked: LabelAsk) => {
    const made = layOut(asked, FONTS);
    if (!made.ok) throw new Error(made.faults.map(f => f.what).join(' '));
    return made.pieces.flatMap(p => p.drawing.items.flatMap(i => (i.kind === 'code' ? [i] : [])));
  };
  const EAN = symbolOf('EAN-13', '4006381333931');

  it('have bars between 80 % and 200 % of their nominal size, 0.33 mm, and as high (GS1 General Specifications, from memory)', () => {
    for (const on of ['letter-6', 'a4-8', 'roll-100x75'])
      for (const symbol of [EAN, symbolOf('UPC-A', '036000291452')]) {
        const [found] = bars(ask({ on, codes: [symbol] }));
        const ends = found!.bars_mm.map(b => b[0] + b[2]);
        const module = (Math.max(...ends) - Math.min(...found!.bars_mm.map(b => b[0]))) / 95;
        expect(module / 0.33).toBeGreaterThanOrEqual(0.8 - 1e-9);
        expect(module / 0.33).toBeLessThanOrEqual(2);
        expect(Math.min(...found!.bars_mm.map(b => b[3])) / (22.85 * (module / 0.33))).toBeCloseTo(1, 9);
        // On a roll every module is of whole dots of 203 dpi.
        if (on.startsWith('roll')) expect(module * 8).toBeCloseTo(Math.round(module * 8), 9);
      }
  });
  it('say that they have no room rather than becoming smaller, with the stock on which they have', () => {
    const made = layOut(ask({ on: 'letter-10', codes: [EAN, EAN, EAN, EAN] }), FONTS);
    expect(made).toMatchObject({ ok: false, faults: [{ code: 'does-not-fit' }] });
  });
  it('are refused in colours that a scanner cannot see: it looks with red light for dark on light', () => {
    const faults = (ink: string, ground: string) => {
      const made = layOut(ask({ codes: [EAN], look: { ...PLAIN_LOOK, ink, ground } }), FONTS);
      return made.ok ? [] : made.faults.map(f => f.code);
    };
    expect(faults('#2A211D', '#FFFFFF')).toEqual([]);
    expect(faults('#103060', '#FFF4DC')).toEqual([]);
    expect(faults('#D01010', '#FFFFFF')).toEqual(['code-ink']);
    expect(faults('#FFFFFF', '#2A211D')).toEqual(['code-ink']);
  });
});

describe('what is written on lids', () => {
  it('is lot and load, once for jars that are alike; jars set aside are left out', () => {
    const lotCode = nthLotCode('RPJ', '2026-11-20', 1);
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], {
      lotPattern: USUAL_LOT_PATTERN,
      lotCode,
    });
    expect(lidLines(fold(batch.events))).toEqual([]);
    batch.fill([1, 2, 3, 4, 5, 6, 7]);
    batch.process(1, [1, 2, 3], 10);
    batch.process(2, [4, 5, 6], 10);
    batch.fact('jars.set_aside', { jars: [2], why: 'broken' } as never);
    const state = fold(batch.events);
    expect(lidLines(state).map(l => [l.lotCode, l.load, l.jars])).toEqual([
      [lotCode, 1, [1, 3]],
      [lotCode, 2, [4, 5, 6]],
      [lotCode, null, [7]],
    ]);
    expect(lidText(state)).toBe(
      [
        plumJam.name,
        '',
        `${lotCode}   load 1    2 half-pints   jar 1, 3`,
        `${lotCode}   load 2    3 half-pints   jar 4-6`,
        `${lotCode}   no load   1 half-pint    jar 7`,
        '',
      ].join('\n'),
    );
  });
});
