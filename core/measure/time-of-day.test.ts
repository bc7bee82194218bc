import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { localTextOf, readTimeOfDay, timesInOrder } from './index.ts';

const read = (text: string, clock: 12 | 24 = 12) => {
  const found = readTimeOfDay(text, clock);
  return found.ok ? found.value : found.fault.code;
};

describe('a time as it stands on a sheet', () => {
  it.each([
    ['7:34 PM', 1174],
    ['7:34pm', 1174],
    ['734p', 1174],
    ['7.34 p.m.', 1174],
    ['12:05 AM', 5],
    ['12 pm', 720],
    ['19:34', 1174],
    ['1934', 1174],
    ['0:10', 10],
    ['00:10', 10],
    ['24:00', 0],
  ])('%s', (text, minutes) => expect(read(text)).toBe(minutes));

  it('is asked about where it could be of either half, and taken as it stands on a clock of 24 hours', () => {
    for (const text of ['7:34', '734', '7', '12:00']) expect(read(text)).toBe('which-half');
    expect([read('7:34', 24), read('734', 24), read('12:00', 24)]).toEqual([454, 454, 720]);
  });

  it.each([
    '',
    'noon',
    '7:60',
    '25:00',
    '24:01',
    '13 PM',
    '0 AM',
    '7:34 XM',
    '-7:30',
    '7:34:10',
    '1:2',
    '__proto__',
  ])('%j is none', text => expect(read(text)).toBe('not-a-time-of-day'));
});

describe('times of a sheet, one after the other', () => {
  it('go on to the next day past midnight, and never backwards', () => {
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.integer({ min: 0, max: 1439 })), { maxLength: 12 }),
        fc.constantFrom('UTC', 'America/Denver', 'Europe/Berlin'),
        (times, zone) => {
          const at = timesInOrder('2026-06-10', zone, times);
          expect(at).toHaveLength(times.length);
          let last = -Infinity;
          at.forEach((ms, i) => {
            if (ms === null) return expect(times[i]).toBeNull();
            expect(ms).toBeGreaterThanOrEqual(last);
            last = ms;
            const [h, m] = localTextOf(ms, zone).slice(11, 16).split(':').map(Number) as [number, number];
            return expect(h * 60 + m).toBe(times[i]);
          });
        },
      ),
    );
  });

  it('the same time twice is one moment', () => {
    const [a, b] = timesInOrder('2026-11-20', 'UTC', [600, 600]);
    expect(a).toBe(b);
  });
});
