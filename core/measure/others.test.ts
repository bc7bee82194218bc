import Qty from 'js-quantities';
import { unit as mathUnit } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { Fraction, UNITS, type UnitId } from './index.ts';

/** Unit conversion written by others (npm js-quantities and mathjs): the same factor to nine figures. */
const THEIRS: [UnitId, string | null, string | null, 'g' | 'mL'][] = [
  ['lb', 'lb', 'lbm', 'g'],
  ['oz', 'oz', 'oz', 'g'],
  ['kg', 'kg', 'kg', 'g'],
  ['cup', 'cu', 'cup', 'mL'],
  ['pint', 'pt', 'pint', 'mL'],
  ['quart', 'qt', 'quart', 'mL'],
  ['gallon', 'gal', 'gallon', 'mL'],
  ['floz', 'floz', 'fluidounce', 'mL'],
  ['tbsp', 'tbs', null, 'mL'],
  ['tsp', 'tsp', null, 'mL'],
  // Its spoons are the metric ones, which are other measures here too.
  ['metric tbsp', null, 'tablespoon', 'mL'],
  ['metric tsp', null, 'teaspoon', 'mL'],
  ['L', 'l', 'litre', 'mL'],
];

describe('factors by others', () => {
  it.each(THEIRS)('%s', (id, qty, math, base) => {
    const ours = UNITS[id].factor.valueOf();
    if (qty !== null) {
      const theirs = Qty(`1 ${qty}`).to(base === 'g' ? 'g' : 'ml').scalar;
      expect(ours / theirs).toBeCloseTo(1, 5);
    }
    if (math !== null) {
      const theirs = mathUnit(1, math).toNumber(base === 'g' ? 'g' : 'ml');
      // mathjs rounds its cups and pints to four figures.
      expect(ours / theirs).toBeCloseTo(1, 3);
    }
  });

  it('every conversion inverts exactly, between every two units of one kind', () => {
    const all = Object.values(UNITS);
    for (const a of all)
      for (const b of all.filter(u => u.dimension === a.dimension)) {
        const there = new Fraction(7, 3).mul(a.factor).div(b.factor);
        expect(there.mul(b.factor).div(a.factor).equals(new Fraction(7, 3)), `${a.id} ${b.id}`).toBe(true);
      }
  });

  it('dry measures are a sixth larger than liquid ones: 67.200625 to 57.75 cubic inches (NIST Handbook 44, appendix C; from memory)', () => {
    expect(UNITS['dry quart'].factor.div(UNITS.quart.factor).valueOf()).toBeCloseTo(67.200_625 / 57.75, 12);
    expect(UNITS['dry pint'].factor.mul(2).equals(UNITS['dry quart'].factor)).toBe(true);
  });
});
