import fc from 'fast-check';
import { expect, it } from 'vitest';
import { addDays } from '../measure/index.ts';
import { thermometerDue } from '../kitchen/index.ts';
import { boilingPoint_C, gelPoint_C, thermometerError_C } from './index.ts';

it('a thermometer is off by what it shows over boiling water, and a gel point on it is too', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 3000, noNaN: true }),
      fc.double({ min: -5, max: 5, noNaN: true }),
      (m, off) => {
        const error_C = thermometerError_C(boilingPoint_C(m) + off, m);
        expect(error_C).toBeCloseTo(off, 9);
        // 8 °F over boiling water, common practice: on this thermometer as on a true one.
        expect(gelPoint_C(m) + error_C - (boilingPoint_C(m) + off)).toBeCloseTo(8 / 1.8, 6);
      },
    ),
  );
});

it('it is seen in boiling water again after a month, or where it never was', () => {
  const due = (on: string | null, today: string) => thermometerDue({ thermometerCheckedOn: on }, today);
  expect(due(null, '2026-11-25')).toBe(true);
  expect([29, 30].map(n => due('2026-10-20', addDays('2026-10-20', n)))).toEqual([false, true]);
});
