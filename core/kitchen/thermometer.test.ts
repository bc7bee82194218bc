import fc from 'fast-check';
import { expect, it } from 'vitest';
import { boilingPoint_C } from '../heat/index.ts';
import { addDays, dayOf } from '../measure/index.ts';
import { ownThermometer, thermometerDue } from './index.ts';

it('what was seen in ice and at the boil goes with each reading, in between by a straight line, with the day of it', () => {
  const off = fc.double({ min: -5, max: 5, noNaN: true });
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 3000, noNaN: true }),
      off,
      fc.option(off),
      fc.double({ min: -10, max: 130, noNaN: true }),
      fc.constantFrom('America/Denver', 'Europe/Berlin', 'Pacific/Auckland'),
      (altitude_m, boiling, ice, read_C, zone) => {
        const kitchen = {
          altitude_m,
          zone,
          thermometerError_C: boiling,
          thermometerIce_C: ice,
          thermometerCheckedOn: '2026-03-08',
        };
        const at = (c: number) => ownThermometer(kitchen, c) as { at: string; off: number };
        const { off: here } = at(read_C);
        expect(dayOf(Date.parse(at(read_C).at), zone)).toBe('2026-03-08');
        expect(here).toBeGreaterThanOrEqual(Math.min(boiling, ice ?? boiling) - 0.005001);
        expect(here).toBeLessThanOrEqual(Math.max(boiling, ice ?? boiling) + 0.005001);
        expect(at(boilingPoint_C(altitude_m)).off).toBeCloseTo(boiling, 2);
        expect(at(0).off).toBeCloseTo(ice ?? boiling, 2);
        expect(ownThermometer({ ...kitchen, thermometerCheckedOn: null }, read_C)).toBeNull();
      },
    ),
  );
});

it('it is seen in boiling water again after a month, or where it never was', () => {
  const due = (on: string | null, today: string) => thermometerDue({ thermometerCheckedOn: on }, today);
  expect(due(null, '2026-11-25')).toBe(true);
  expect([29, 30].map(n => due('2026-10-20', addDays('2026-10-20', n)))).toEqual([false, true]);
});
