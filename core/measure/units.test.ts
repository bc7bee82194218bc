import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  Fraction,
  UNITS,
  type UnitId,
  celsius,
  fahrenheit,
  feetFromMetres,
  metresFromFeet,
  unitNamed,
} from './index.ts';

/** How GNU units writes each of ours. Its database is the outside reference: definitions.units of Debian's `units`. */
const GNU: Partial<Record<UnitId, string>> = {
  oz: 'oz',
  lb: 'lb',
  kg: 'kg',
  mL: 'milliliter',
  L: 'liter',
  tsp: 'teaspoon',
  tbsp: 'tablespoon',
  floz: 'floz',
  cup: 'cup',
  pint: 'pint',
  quart: 'quart',
  gallon: 'gallon',
};

function gnu(from: string, to: string): number {
  const run = spawnSync('units', ['-t', '--digits', '15', from, to], { encoding: 'utf8' });
  if (run.status !== 0) throw new Error(run.stdout + run.stderr);
  return Number(run.stdout.trim());
}

describe('units', () => {
  it.each(Object.entries(GNU) as [UnitId, string][])(
    '%s has the factor of the GNU units database',
    (id, name) => {
      const base = UNITS[id].dimension === 'mass' ? 'gram' : 'milliliter';
      expect(UNITS[id].factor.valueOf()).toBeCloseTo(gnu(name, base), 9);
    },
  );

  it('tells the tablespoon from the teaspoon by the case of one letter', () => {
    expect(unitNamed('T')?.id).toBe('tbsp');
    expect(unitNamed('t')?.id).toBe('tsp');
    expect(unitNamed('Cups')?.id).toBe('cup');
    expect(unitNamed('furlong')).toBeUndefined();
  });

  it('converts there and back without a loss', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(UNITS) as UnitId[])),
        fc.integer({ min: 1, max: 1e6 }),
        fc.integer({ min: 1, max: 999 }),
        (id, n, d) => {
          const amount = new Fraction(n, d);
          expect(amount.mul(UNITS[id].factor).div(UNITS[id].factor).equals(amount)).toBe(true);
        },
      ),
    );
  });

  it('keeps 1,000 ft at exactly 1,000 ft', () => {
    expect(feetFromMetres(304.8)).toBe(1000);
    expect(feetFromMetres(metresFromFeet(2350))).toBe(2350);
    expect(fahrenheit(100)).toBe(212);
    expect(celsius(32)).toBe(0);
  });
});
