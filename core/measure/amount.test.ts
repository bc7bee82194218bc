import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  Fraction,
  UNITS,
  type UnitId,
  amountMiddle,
  amount_g,
  amountText,
  readAmount,
  scanAmount,
} from './index.ts';

const read = (text: string, locale = 'en-US') => {
  const r = readAmount(text, locale);
  return r.ok
    ? `${r.value.value}${r.value.upTo ? `..${r.value.upTo}` : ''} ${r.value.unit}${r.value.toTaste ? ' to taste' : ''}`
    : r.fault.code;
};

describe('amounts as people write them', () => {
  it.each([
    ['2 1/2 c', '5/2 cup'],
    ['2-1/2 cups', '5/2 cup'],
    ['1½ lb', '3/2 lb'],
    ['½ tsp', '1/2 tsp'],
    ['1⁄2 tsp', '1/2 tsp'],
    ['3 qt + 1 pt', '7/2 quart'],
    ['1 c plus 2 Tbsp', '9/8 cup'],
    ['5 lb 4 oz', '21/4 lb'],
    ['5 lbs., 4 oz.', '21/4 lb'],
    ['6-7 cups', '6..7 cup'],
    ['6–7 cups', '6..7 cup'],
    ['2 to 3 1/2 Tbsp', '2..7/2 tbsp'],
    ['1 1/2-2 lb', '3/2..2 lb'],
    ['half a bushel', '1/2 bushel'],
    ['a peck', '1 peck'],
    ['a quarter cup', '1/4 cup'],
    ['one half teaspoon', '1/2 tsp'],
    ['2 medium', '2 each'],
    ['2 large', '2 large'],
    ['3 cloves', '3 clove'],
    ['a pinch', '1 pinch'],
    ['a dozen', '12 each'],
    ['2 dozen', '24 each'],
    ['250 g', '250 g'],
    ['250g', '250 g'],
    ['1,250 g', '1250 g'],
    ['8', '8 each'],
    ['1 (1.75 oz) box', '7/4 oz'],
    ['2 15-ounce cans', '30 oz'],
    ['1 box', '1 package'],
    ['3 fl. oz.', '3 floz'],
    ['2 T', '2 tbsp'],
    ['2 t', '2 tsp'],
    ['1 metric cup', '1 metric cup'],
    ['2 imp pt', '2 imperial pint'],
    ['about 3 c', '3 cup'],
    ['1-2 tsp, to taste', '1..2 tsp to taste'],
    ['to taste', 'to-taste-bare'],
    ['7-6 cups', 'range-backwards'],
    ['0 g', 'not-positive'],
    ['-2 g', 'not-positive'],
    ['some', 'no-amount'],
    ['3 wheelbarrows', 'unknown-unit'],
    ['1,5 kg', 'ambiguous-number'],
    ['1/0 c', 'not-a-number'],
    ['$3', 'no-amount'],
  ])('%s', (text, expected) => expect(read(text)).toBe(expected));

  it('reads the decimals of the locale', () => {
    expect(read('1,5 kg', 'de-DE')).toBe('3/2 kg');
    expect(read('1.250 g', 'de-DE')).toBe('1250 g');
    expect(read('1.5 kg', 'de-DE')).toBe('ambiguous-number');
  });

  it('asks where a unit means two things', () => {
    const oz = readAmount('8 oz', 'en-US', { liquid: true });
    expect(oz.ok && oz.ask?.choices.map(c => c.amount.unit)).toEqual(['floz', 'oz']);
    const pint = readAmount('2 pt', 'en-US', { dryPint: true });
    expect(pint.ok && pint.ask?.choices.map(c => c.amount.unit)).toEqual(['dry pint', 'pint']);
    const plain = readAmount('8 oz', 'en-US');
    expect(plain.ok && plain.ask).toBeNull();
  });

  it('leaves the rest of a line, and words that soften a figure with it', () => {
    expect(scanAmount('2 scant cups sugar', 'en-US')).toMatchObject({
      rest: 'sugar',
      loose: 'scant',
      value: { value: '2', unit: 'cup' },
    });
    expect(scanAmount('3 large cloves garlic, minced', 'en-US')).toMatchObject({
      rest: 'garlic, minced',
      loose: 'large',
      value: { unit: 'clove' },
    });
    expect(scanAmount('1 (1.75 oz) box pectin', 'en-US')).toMatchObject({
      rest: 'pectin',
      value: { value: '7/4', unit: 'oz' },
    });
    expect(scanAmount('Salt', 'en-US')).toBeNull();
  });

  it('reckons with the middle of a range', () => {
    const r = readAmount('6-7 cups', 'en-US');
    expect(r.ok && amountMiddle(r.value).equals('13/2')).toBe(true);
  });

  it('needs the weight of a bushel from its commodity', () => {
    const r = readAmount('half a bushel', 'en-US');
    if (!r.ok) throw new Error();
    expect(() => amount_g(r.value, {})).toThrow(/bushel/);
    expect(amount_g(r.value, { bushel_g: 24_000 })).toBe(12_000);
  });

  it('is never written as nothing, or as another: a sixteenth is no eighth', () => {
    expect(amountText(new Fraction(1, 16), 'tsp')).toBe('1/16 tsp');
    expect(amountText(new Fraction(1, 40), 'bushel')).toBe('1/40 bu');
    expect(amountText(new Fraction(7, 3), 'cup')).toBe('2 1/3 c');
  });

  it('any amount written out is read back as the same amount', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(UNITS) as UnitId[])),
        fc.integer({ min: 1, max: 4000 }),
        (unit, eighths) => {
          const value = new Fraction(eighths, 8);
          const back = readAmount(amountText(value, unit), 'en-US');
          return back.ok && back.value.unit === unit && new Fraction(back.value.value).equals(value);
        },
      ),
    );
  });
});
