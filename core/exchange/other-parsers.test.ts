import { parseIngredient as sharp } from '@jlucaspains/sharp-recipe-parser';
import { parseIngredient } from 'parse-ingredient';
import { parse as v3 } from 'recipe-ingredient-parser-v3';
import { libraryOf, nameIndex } from '../ingredients/index.ts';
import { Fraction, UNITS, unitNamed } from '../measure/index.ts';
import { readPasted } from './paste.ts';
import { TEXTS } from './text-corpus.fixture.ts';

import { describe, expect, it } from 'vitest';

/** Three general ingredient parsers from the registry on the same lines. They are used here and nowhere else. */

interface Reading {
  low: number | null;
  high: number | null;
  unit: string | null;
  name: string;
  /** What one package holds, where it was read apart from the count. */
  size: { quantity: number; unit: string } | null;
}

const INDEX = nameIndex(libraryOf([]));
const ours = (text: string): Reading | null => {
  const [line] = readPasted(`Lines\n\nIngredients\n${text}`, 'en-US', INDEX, () => 'x').lines;
  if (!line) return null;
  const { amount, ingredientId } = line.line;
  return {
    low: new Fraction(amount.value).valueOf(),
    high: amount.upTo === null ? null : new Fraction(amount.upTo).valueOf(),
    unit: amount.unit,
    name: ingredientId ?? line.which.map(w => w.id).join(' or '),
    size: null,
  };
};
/** Their unit by our name for it; a bare number counts pieces. */
const unitOf = (unit: string | null | undefined): string => (unit ? (unitNamed(unit)?.id ?? unit) : 'each');
const named = (name: string): string =>
  INDEX.find(name)?.ingredient.id ??
  INDEX.choices(name)
    .map(i => i.id)
    .join(' or ');

const PARSERS: Record<string, (text: string) => Reading | null> = {
  'parse-ingredient': text => {
    const [r] = parseIngredient(text);
    return r
      ? {
          low: r.quantity,
          high: r.quantity2,
          unit: unitOf(r.unitOfMeasureID),
          name: named(r.description),
          size: null,
        }
      : null;
  },
  'recipe-ingredient-parser-v3': text => {
    const r = v3(text, 'eng');
    return {
      low: r.minQty,
      high: r.maxQty > r.minQty ? r.maxQty : null,
      unit: unitOf(r.unit),
      name: named(r.ingredient),
      size: null,
    };
  },
  'sharp-recipe-parser': text => {
    const r = sharp(text, 'en-US');
    const also = r?.alternativeQuantities[0];
    return r
      ? {
          low: r.minQuantity,
          high: r.maxQuantity > r.minQuantity ? r.maxQuantity : null,
          unit: unitOf(r.unit),
          name: named(r.ingredient),
          size: also ? { quantity: also.quantity, unit: unitOf(also.unit) } : null,
        }
      : null;
  },
};

/** Lines of the corpus with what they have to read as; lines for each jar are left out: who reads them states another jar. */
const LINES = TEXTS.flatMap(([text, facts]) => {
  const wanted = facts
    .split('\n')
    .filter(f => f.startsWith('line ') && !/each jar| per /.test(f))
    .map(f => f.slice(5));
  const rows = readPasted(text, 'en-US', INDEX, () => 'x').lines;
  return rows.flatMap(row => {
    const got = row.line;
    const is = wanted.find(w => {
      const [value = '', unit, id] = w.split(' ');
      return (
        id === got.ingredientId || (value.split('..')[0] === got.amount.value && unit === got.amount.unit)
      );
    });
    if (!is) return [];
    wanted.splice(wanted.indexOf(is), 1);
    const [value = '', unit = '', id = ''] = is.split(' ');
    const [low = '', high = null] = value.split('..');
    return [{ text: row.text, low, high, unit, id }];
  });
});
/** Amounts in packages of a stated size: in all. */
const PACKAGES = [
  ['2 (28 oz) cans tomatoes', '56', 'oz'],
  ['1 (6 oz) can tomato paste', '6', 'oz'],
  ['1 6-ounce can tomato paste', '6', 'oz'],
  ['2 cans tomatoes (28 oz)', '56', 'oz'],
  ['3 (15 oz) cans kidney beans', '45', 'oz'],
  ['1 can (20 oz) pineapple', '20', 'oz'],
  ['2 (14.5 ounce) cans tomatoes', '29', 'oz'],
  ['1 (400 g) tin tomatoes', '400', 'g'],
].map(([text = '', low = '', unit = '']) => ({ text, low, unit }));

const near = (a: number | null, b: number) => a !== null && Math.abs(a - b) < 0.01 * b;
const mean = (all: boolean[]) => all.filter(Boolean).length / all.length;

function scores(read: (text: string) => Reading | null) {
  const all = LINES.map(l => ({ want: l, got: read(l.text) }));
  const value = (text: string) => new Fraction(text).valueOf();
  const counted = (unit: string) => UNITS[unit as 'each'].dimension === 'count';
  return {
    quantity: mean(all.map(({ want, got }) => near(got?.low ?? null, value(want.low)))),
    range: mean(
      all
        .filter(l => l.want.high !== null)
        .map(({ want, got }) => near(got?.high ?? null, value(want.high as string))),
    ),
    // A bare count, "4 jalapeños", has no unit to be read.
    unit: mean(
      all
        .filter(l => !(counted(l.want.unit) && l.want.unit === 'each'))
        .map(({ want, got }) => got?.unit === want.unit),
    ),
    ingredient: mean(all.map(({ want, got }) => got?.name === want.id)),
    'package size': mean(
      PACKAGES.map(p => {
        const got = read(p.text);
        const whole = got?.unit === p.unit && near(got.low, value(p.low));
        const parts = got?.size?.unit === p.unit && near((got.low ?? 0) * got.size.quantity, value(p.low));
        return whole || parts;
      }),
    ),
  };
}

describe('three general ingredient parsers on the same lines', () => {
  const mine = scores(ours);

  it('there is enough to compare', () => {
    expect(LINES.length).toBeGreaterThan(300);
    expect(LINES.filter(l => l.high !== null).length).toBeGreaterThan(0);
    const wanted = TEXTS.flatMap(([, facts]) =>
      facts.split('\n').filter(f => f.startsWith('line ') && !/each jar| per /.test(f)),
    );
    expect(LINES.length / wanted.length).toBeGreaterThan(0.98);
  });

  it.each(Object.entries(PARSERS))('at least as many are right in every field as by %s', (_, read) => {
    const theirs = scores(read);
    for (const field of Object.keys(mine) as (keyof typeof mine)[])
      expect(mine[field], `${field}: ${mine[field]} to ${theirs[field]}`).toBeGreaterThanOrEqual(
        theirs[field],
      );
  });

  it('quantities, units and package sizes are all read, ingredients in 19 of 20', () => {
    expect(mine.quantity).toBeGreaterThan(0.99);
    expect(mine.unit).toBeGreaterThan(0.97);
    expect(mine['package size']).toBe(1);
    expect(mine.range).toBe(1);
    expect(
      mine.ingredient,
      LINES.filter(l => ours(l.text)?.name !== l.id)
        .map(l => `${l.text}: ${ours(l.text)?.name}`)
        .join('\n'),
    ).toBeGreaterThan(0.95);
  });
});
