import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HEAD, labelPrinter } from '../../devices/printer.ts';
import { pictureWords, printWords, readInstrumentLine } from './index.ts';

const dots = fc.integer({ min: 1, max: 120 }).chain(across =>
  fc.integer({ min: 1, max: 60 }).chain(tall =>
    fc
      .array(fc.constantFrom(0, 0, 0, 255, 129), {
        minLength: Math.ceil(across / 8) * tall,
        maxLength: Math.ceil(across / 8) * tall,
      })
      .map(rows => ({ across, tall, rows: Uint8Array.from(rows) })),
  ),
);

describe('a label told to a printer dot by dot', () => {
  it('comes off the roll as it was, in lines that the protocol takes', () =>
    fc.assert(
      fc.property(dots, fc.integer({ min: 1, max: 9 }), (picture, copies) => {
        const printer = labelPrinter();
        const words = pictureWords(picture, copies);
        for (const word of words) {
          expect(word.length).toBeLessThanOrEqual(200);
          expect(printer.obey?.(word)).toBe('OK');
        }
        expect(printer.printed).toEqual([{ lines: [], picture, copies }]);
      }),
    ));
  it('fits a line at the widest head that is believed', () => {
    const [, row] = pictureWords({ across: 1080, tall: 1, rows: new Uint8Array(135).fill(255) }, 1);
    expect(row?.length).toBeLessThanOrEqual(200);
    expect(readInstrumentLine('HEAD 8 832', 'label printer')).toEqual({
      word: 'head',
      head: { dots_per_mm: 8, across: 832 },
    });
    for (const line of ['HEAD 8 1081', 'HEAD 0 832', 'HEAD 8', 'HEAD 8 832 9', 'HEAD -8 832', 'HEAD 8 8e2'])
      expect(readInstrumentLine(line, 'label printer'), line).toBeNull();
    expect(readInstrumentLine('HEAD 8 832', 'scale')).toBeNull();
  });
  it('is refused with other dots than its page has, and without copies', () => {
    expect(() => pictureWords({ across: 9, tall: 2, rows: new Uint8Array(3) }, 1)).toThrow(RangeError);
    expect(() => pictureWords({ across: 8, tall: 1, rows: new Uint8Array(1) }, 0)).toThrow(RangeError);
    expect(() => printWords(['x'], 10_000)).toThrow(RangeError);
  });
  it('that was broken off is none: what comes after it is a label of its own', () => {
    const printer = labelPrinter();
    const told = (...words: string[]) => words.map(w => printer.obey?.(w) ?? null);
    expect(told('PAGE 16 2', 'ROWS 0 1 /w8=', 'LINE load 1', 'PRINT 2')).toEqual(['OK', 'OK', 'OK', 'OK']);
    expect(printer.printed).toEqual([{ lines: ['load 1'], picture: null, copies: 2 }]);
    expect(
      told(
        'ROWS 0 0 /w8=',
        'PRINT 1',
        `PAGE ${HEAD.across + 1} 2`,
        'PAGE 16 2',
        'ROWS 0 2 /w8=',
        'ROWS 1 0 /w8=',
        'ROWS 0 0 /w==',
        'ROWS 0 0 ???',
      ),
    ).toEqual([
      'NO there is no page',
      'NO nothing to print',
      'NO the page is larger than the head',
      'OK',
      'NO there is no such row',
      'NO there is no such row',
      'NO the row is not as wide as the page',
      null,
    ]);
  });
});
