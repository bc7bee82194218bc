import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkCharacter, isLotCode, lotCode, misreadOf } from './index.ts';

const BODY = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789'];

describe('the check character', () => {
  it('is that of the worked example of ISBT 128, which takes it from ISO/IEC 7064 MOD 37-2 (from memory)', () =>
    expect(checkCharacter('G123498654321')).toBe('H'));
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

describe('lot codes', () => {
  const part = fc.record({
    recipe: fc.stringMatching(/^[A-Z]{3}$/),
    day: fc
      .date({ min: new Date('2024-01-01'), max: new Date('2049-12-31'), noInvalidDate: true })
      .map(d => d.toISOString().slice(0, 10)),
    number: fc.integer({ min: 1, max: 60 }),
  });
  const codeOf = (p: { recipe: string; day: string; number: number }) => lotCode(p.recipe, p.day, p.number);
  it('never collide', () =>
    fc.assert(
      fc.property(part, part, (a, b) => {
        const same = a.recipe === b.recipe && a.day === b.day && a.number === b.number;
        expect(codeOf(a) === codeOf(b)).toBe(same);
      }),
    ));
  it('lead from a misread one to the code it was, saying what was wrong, whatever else there is', () =>
    fc.assert(
      fc.property(
        fc.array(part, { minLength: 1, maxLength: 12 }),
        fc.nat(),
        fc.nat(),
        fc.constantFrom(...BODY),
        fc.constantFrom('wrong', 'swapped', 'missing', 'more'),
        (parts, which, spot, other, how) => {
          const codes = [...new Set(parts.map(codeOf))];
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
            if (how === 'wrong' || how === 'swapped')
              expect(isLotCode(`${read.slice(0, 3)}-${read.slice(3, 8)}-${read.slice(8)}`)).toBe(false);
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
