import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as demo from '../demo/recipes.ts';
import { recipeRule } from './index.ts';
import {
  type Rule,
  check,
  choice,
  day,
  decimal,
  dictionary,
  faultsIn,
  figure,
  flag,
  list,
  maybe,
  rational,
  shape,
  text,
  union,
  uuid,
} from './rules.ts';

const thing = shape<Record<string, unknown>>({
  id: uuid,
  name: text({ min: 1, max: 5 }),
  on: day,
  money: decimal({ min: 0, max: 10, name: 'x' }),
  share: rational,
  n: figure({ min: 1, max: 9, whole: true, name: 'x' }),
  above: figure({ min: 0, above: true, max: 1, name: 'x' }),
  flag,
  pick: choice(['a', 'b', 2]),
  perhaps: maybe(figure({ min: 0, max: 1, name: 'x' })),
  list: list(text({ max: 3 }), { min: 1, max: 2 }),
  free: dictionary(figure({ min: 0, max: 9, name: 'x' })),
  either: union('kind', {
    a: shape<object & { kind: string }>({ kind: choice(['a']) }),
    b: shape<{ kind: string; x: boolean }>({ kind: choice(['b']), x: flag }),
  }),
});
const GOOD = {
  id: '0190b5a4-0000-7000-8000-000000000000',
  name: 'abc',
  on: '2026-02-28',
  money: '3.50',
  share: '5/2',
  n: 3,
  above: 0.5,
  flag: true,
  pick: 'a',
  perhaps: null,
  list: ['x'],
  free: { k: 1 },
  either: { kind: 'b', x: false },
};

/** Every part asked of Yup, with no quick answer in between. */
const byYup = (rule: Rule<unknown>, value: unknown): boolean =>
  faultsIn(rule, value, () => () => false).length === 0;

describe('the rules', () => {
  it('a quick yes and Yup always agree: over any value in any field', () => {
    expect(check(thing, GOOD).ok).toBe(true);
    const odd = fc.oneof(
      fc.anything(),
      fc.constantFrom(
        '',
        ' ',
        'abc',
        'abcdef',
        '2026-02-30',
        '0',
        '5/0',
        '5/2',
        '-1',
        '11',
        0,
        1,
        2,
        9.5,
        -0.1,
        Infinity,
        Number.NaN,
        null,
        undefined,
        [],
        {},
        ['x', 'y', 'z'],
        { kind: 'a' },
        { kind: 'a', more: 1 },
        { kind: 'c' },
        { k: 'x' },
      ),
    );
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(GOOD), 'unknown'), odd, (key, value) => {
        const changed = { ...GOOD, [key]: value };
        expect(check(thing, changed).ok).toBe(byYup(thing, changed));
      }),
      { numRuns: 2000 },
    );
  });

  it('every fault of a recipe is named by its path, and the demo recipes have none', () => {
    for (const recipe of Object.values(demo)) expect(check(recipeRule, recipe).ok).toBe(true);
    const bad = structuredClone(demo.plumJam) as unknown as Record<string, unknown> & {
      lines: Record<string, unknown>[];
    };
    bad.makes = { size: 'bucket', count: 0 };
    (bad.lines[1] as Record<string, unknown>).trimYield = 2;
    bad.extra = 1;
    const found = check(recipeRule, bad);
    expect(found.ok ? [] : found.faults.map(f => f.path)).toEqual(
      expect.arrayContaining(['makes.size', 'makes.count', 'lines[1].trimYield', '']),
    );
  });
});
