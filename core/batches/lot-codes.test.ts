import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PaperBatch } from '../../testing/builders.ts';
import { plumJam } from '../../demo/recipes.ts';
import { nthLotCode } from '../../testing/labels.ts';
import {
  bareCode,
  checkCharacter,
  fold,
  jarLotCode,
  LOT_DAYS,
  LOT_SEPARATORS,
  lotCodeFits,
  lotCodes,
  lotOf,
  lotPatternFaults,
  lotsOf,
  type LotPattern,
  misreadOf,
  readsAsLotCode,
  USUAL_LOT_PATTERN,
} from './index.ts';

const BODY = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789'];

describe('the check character', () => {
  it('is that of the worked example of ISBT 128, which takes it from ISO/IEC 7064 MOD 37-2 (from memory)', () =>
    expect(checkCharacter('G123498654321')).toBe('H'));
  it('makes characters weighted by powers of two add up to 1 modulo 37, as the standard defines it (from memory)', () => {
    const values = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ*';
    const weighted = (text: string) =>
      [...text].reduce(
        (sum, c, i) => sum + BigInt(values.indexOf(c)) * 2n ** BigInt(text.length - 1 - i),
        0n,
      ) % 37n;
    for (const text of ['RPJ263281', 'DWB263242', 'A', '0', 'ZZZ9999999'])
      expect(weighted(text + checkCharacter(text))).toBe(1n);
  });
  it('catches each wrong character and each swap of neighbours, exhaustively for short codes', () => {
    const good = (text: string) => checkCharacter(text.slice(0, -1)) === text.at(-1);
    let tried = 0;
    for (const a of BODY)
      for (const b of BODY) {
        const code = a + b + checkCharacter(a + b);
        expect(good(code)).toBe(true);
        for (let i = 0; i < 3; i++)
          for (const other of i === 2 ? [...BODY, '*'] : BODY)
            if (other !== code[i]) {
              tried++;
              if (good(code.slice(0, i) + other + code.slice(i + 1)))
                throw new Error(`${code} ${i} ${other}`);
            }
        if (a !== b && good(b + a + code[2])) throw new Error(`${code} swapped`);
        // The check itself may change places with its neighbour where that stays a body of letters and digits.
        if (b !== code[2] && code[2] !== '*' && good(a + code[2] + b)) throw new Error(`${code} swapped`);
      }
    expect(tried).toBeGreaterThan(130_000);
  });
});

/** Every pattern that codes can be put together by. */
const patternOf = fc
  .record({
    parts: fc.constantFrom<LotPattern['parts']>(
      ['product', 'day', 'sequence'],
      ['day', 'sequence', 'product'],
      ['sequence', 'product', 'day'],
      ['day', 'sequence'],
      ['sequence', 'day'],
    ),
    day: fc.constantFrom(...LOT_DAYS),
    separator: fc.constantFrom(...LOT_SEPARATORS),
    leftOut: fc.subarray([...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'], { maxLength: 12 }).map(l => l.join('')),
    load: fc.boolean(),
  })
  .filter(p => lotPatternFaults(p).length === 0);
const part = fc.record({
  product: fc.stringMatching(/^[A-Z]{3}$/),
  day: fc
    .date({ min: new Date('2024-01-01'), max: new Date('2049-12-31'), noInvalidDate: true })
    .map(d => d.toISOString().slice(0, 10)),
  number: fc.integer({ min: 1, max: 40 }),
});
const usual = (p: { product: string; day: string; number: number }) => nthLotCode(p.product, p.day, p.number);

describe('lot codes', () => {
  it('hold product, day, number and check in the order of the kitchen', () => {
    const code = (over: Partial<LotPattern>) =>
      nthLotCode('DWB', '2026-11-24', 1, { ...USUAL_LOT_PATTERN, ...over });
    expect(code({})).toMatch(/^DWB-26328-\d+[0-9A-HJ-NP-Z]$/);
    expect(code({ day: 'date', separator: '/' })).toMatch(/^DWB\/261124\/\d+[0-9A-HJ-NP-Z]$/);
    expect(code({ parts: ['day', 'sequence'], separator: '' })).toMatch(/^26328\d+[0-9A-HJ-NP-Z]$/);
    expect(code({ parts: ['sequence', 'product', 'day'] })).toMatch(/^\d+-DWB-26328[0-9A-HJ-NP-Z]$/);
    expect(() => nthLotCode('dwb', '2026-11-24', 1)).toThrow(RangeError);
  });

  it('never meet, of one pattern, whatever product, day, number, filling and load; also without what stands between', () =>
    fc.assert(
      fc.property(patternOf, fc.array(part, { minLength: 1, maxLength: 4 }), (pattern, parts) => {
        const seen = new Map<string, string>();
        for (const p of parts) {
          // Where the product is no part of the code, its number counts through the day.
          const product = pattern.parts.includes('product') ? p.product : 'AAA';
          const base = nthLotCode(product, p.day, p.number, pattern);
          for (const filling of [0, 1, 2, 5])
            for (const load of pattern.load ? [null, 1, 2, 3, 8, 17] : [null]) {
              const code = jarLotCode(pattern, base, filling, load);
              const of = `${product} ${p.day} ${p.number} ${filling} ${load}`;
              expect(seen.get(bareCode(code)) ?? of).toBe(of);
              seen.set(bareCode(code), of);
              expect(lotCodeFits(code)).toBe(true);
              expect(readsAsLotCode(pattern, code)).toBe(true);
              expect(code).not.toContain('*');
              // GS1 lot numbers have 20 characters at most (General Specifications, AI 10, from memory).
              expect(code.length).toBeLessThanOrEqual(20);
              const said = bareCode(code).replace(product, '');
              for (const letter of pattern.leftOut) expect(said).not.toContain(letter);
            }
        }
      }),
      { numRuns: 150 },
    ));

  it('catch one wrong and two swapped characters, wherever they are', () =>
    fc.assert(
      fc.property(
        patternOf,
        part,
        fc.nat(),
        fc.nat(),
        fc.constantFrom(...BODY),
        (pattern, p, a, b, other) => {
          const code = bareCode(
            jarLotCode(pattern, nthLotCode(p.product, p.day, p.number, pattern), a % 3, (b % 5) + 1),
          );
          const at = b % code.length;
          const wrong = code.slice(0, at) + other + code.slice(at + 1);
          if (wrong !== code) expect(lotCodeFits(wrong)).toBe(false);
          const i = b % (code.length - 1);
          const swapped = code.slice(0, i) + code[i + 1] + code[i] + code.slice(i + 2);
          if (swapped !== code) expect(lotCodeFits(swapped)).toBe(false);
        },
      ),
      { numRuns: 500 },
    ));

  it('are refused a pattern by which they would meet, or that has no letters left', () => {
    const faults = (over: Partial<LotPattern>) =>
      lotPatternFaults({ ...USUAL_LOT_PATTERN, ...over }).map(f => `${f.path}: ${f.what}`);
    expect(faults({})).toEqual([]);
    expect(faults({ parts: ['product', 'day'] })).toEqual(['parts: The lot code has no sequence.']);
    expect(faults({ parts: [] })).toEqual(['parts: The lot code has no day and no sequence.']);
    expect(faults({ parts: ['day', 'day', 'sequence'] })).toEqual([
      'parts: The day stands twice in the lot code.',
    ]);
    for (const leftOut of ['0', 'io', 'II', 'ABCDEFGHIJKLM', 'Ä', '*'])
      expect(faults({ leftOut })).toEqual([
        'leftOut: What is left out is up to 12 letters from A to Z, each once.',
      ]);
  });

  it('pass over numbers whose check would be a star or a letter that is left out, and no other', () => {
    const every = lotCodes({ ...USUAL_LOT_PATTERN, leftOut: '' }, 'RPJ', '2026-11-24');
    const some = lotCodes({ ...USUAL_LOT_PATTERN, leftOut: 'BZ' }, 'RPJ', '2026-11-24');
    const first = Array.from({ length: 80 }, () => every.next().value);
    const kept = first.filter(c => !/[BZ]$/.test(c));
    expect(kept.length).toBeLessThan(first.length);
    expect(kept.map(() => some.next().value)).toEqual(kept);
    const numbers = first.map(c => Number(c.slice('RPJ-26328-'.length, -1)));
    const missing = Array.from({ length: numbers.at(-1) as number }, (_, i) => i + 1).filter(
      n => !numbers.includes(n),
    );
    expect(missing.length).toBeGreaterThan(0);
    expect(missing.every(n => checkCharacter(`RPJ26328${n}`) === '*')).toBe(true);
  });

  it('tell the load of a jar where the kitchen wants it: the last one it was in', () => {
    const lotPattern = { ...USUAL_LOT_PATTERN, load: true };
    const lotCode = nthLotCode('RPJ', '2026-11-20', 1, lotPattern);
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], { lotPattern, lotCode });
    batch.fill([1, 2, 3, 4, 5, 6]);
    batch.process(1, [1, 2, 3], 10);
    batch.process(2, [4, 5], 10);
    const lots = lotsOf(fold(batch.events));
    expect(lots.map(l => [l.load, l.jars.map(j => j.number)])).toEqual([
      [1, [1, 2, 3]],
      [2, [4, 5]],
      [null, [6]],
    ]);
    const codes = lots.map(l => l.lotCode);
    expect(new Set(codes).size).toBe(3);
    expect(codes[0]).toMatch(new RegExp(`^${lotCode.slice(0, -1)}[A-HJ-NP-Z][0-9A-HJ-NP-Z]$`));
    // Put in again, it bears the code of that load.
    batch.process(3, [1], 10);
    expect(lotOf(fold(batch.events), 1)).toMatchObject({ load: 3 });
    expect(codes).not.toContain(lotOf(fold(batch.events), 1)?.lotCode);
    expect(lotOf(fold(batch.events), 2)?.lotCode).toBe(codes[0]);
  });
});

describe('misread lot codes', () => {
  it('lead to the code it was, saying what was wrong, whatever else there is', () =>
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 12 }),
        fc.nat(),
        fc.nat(),
        fc.constantFrom(...BODY),
        fc.constantFrom('wrong', 'swapped', 'missing', 'more'),
        (parts, which, spot, other, how) => {
          const codes = [...new Set(parts.map(usual))];
          const code = codes[which % codes.length] as string;
          const bare = code.replaceAll('-', '');
          const i = spot % (bare.length - 1);
          const read = {
            wrong: bare.slice(0, i) + other + bare.slice(i + 1),
            swapped: bare.slice(0, i) + bare[i + 1] + bare[i] + bare.slice(i + 2),
            missing: bare.slice(0, i) + bare.slice(i + 1),
            more: bare.slice(0, i) + other + bare.slice(i),
          }[how];
          const found = misreadOf(` ${read.toLowerCase()} `, codes);
          if (codes.some(c => c.replaceAll('-', '') === read)) expect(found).toEqual([]);
          else {
            expect(found.map(f => f.code)).toContain(code);
            expect(found.every(f => f.said.endsWith('.'))).toBe(true);
            // A wrong or a swapped character never makes another good code.
            if (how === 'wrong' || how === 'swapped') expect(lotCodeFits(read)).toBe(false);
          }
        },
      ),
      { numRuns: 500 },
    ));
  it('are said by what was wrong in them', () => {
    const known = ['DWB-26328-2K', 'RPJ-26328-1N'];
    const said = (read: string) => misreadOf(read, known).map(f => `${f.code}: ${f.said}`);
    expect(said('DWB-26328-2X')).toEqual(['DWB-26328-2K: "K" was read as "X", character 10.']);
    expect(said('DWB 26382 2K')).toEqual(['DWB-26328-2K: "2" and "8" changed places, character 7.']);
    expect(said('RPJ-2628-1N')).toEqual(['RPJ-26328-1N: "3" is missing, character 6.']);
    expect(said('RPJ-263328-1N')).toEqual(['RPJ-26328-1N: "3" is one too many, character 7.']);
    expect(said('dwb263282k')).toEqual([]);
    expect(said('XYZ-26328-9Q')).toEqual([]);
    for (const odd of ['', '__proto__', '-', '李'.repeat(50)]) expect(said(odd)).toEqual([]);
  });
});
