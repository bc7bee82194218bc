import { targetWords, windowText } from '@cocotte/core/recipes';
import { describe, expect, it } from 'vitest';
import { faultText, words } from '../src/kit/readers.ts';
import { STOPS, stopOf } from '../src/shell/stops.ts';
import { kitchenOf } from './browser.ts';

const US = kitchenOf('en-US', true);
const DE = kitchenOf('de-DE', false);
const window = (from_h: number, to_h: number) => ({ from_min: from_h * 60, to_min: to_h * 60 });

describe('what a step waits for, in words', () => {
  it.each([
    [window(4, 18), '4 to 18 h'],
    [window(12, 12), '12 h'],
    [window(0.5, 2), '0.5 to 2 h'],
    [window(24, 120), '1 to 5 days'],
    [window(504, 672), '3 to 4 weeks'],
    [window(336, 336), '2 weeks'],
  ])('%j is %s', (wait, text) => expect(windowText(wait, US)).toBe(text));

  it('a target, in the scale of the kitchen', () => {
    expect(targetWords({ kind: 'none' }, US)).toBe('');
    expect(targetWords({ kind: 'gel point' }, US)).toBe('to the gel point');
    expect(targetWords({ kind: 'temperature', temp_C: 90, hold_min: 5 }, US)).toBe('to 194.0 °F, held 5 min');
    expect(targetWords({ kind: 'temperature', temp_C: 90, hold_min: 0 }, DE)).toBe('to 90,0 °C');
    expect(targetWords({ kind: 'time', minutes: 2.5 }, US)).toBe('2 min 30 s');
    expect(targetWords({ kind: 'volume', volume_mL: 2250 }, DE)).toBe('down to 2,25 L');
    expect(targetWords({ kind: 'depth', depth_mm: 50.8 }, US)).toBe('down to 2.0 in in the pot');
    expect(targetWords({ kind: 'depth', depth_mm: 50.8 }, DE)).toBe('down to 51 mm in the pot');
    expect(targetWords({ kind: 'look', text: 'the skins give way' }, US)).toBe('until the skins give way');
  });
});

describe('a fault beneath its field', () => {
  it('is one line: what, why, what next', () => {
    expect(faultText({ what: 'A.', why: 'B.', next: 'C.' })).toBe('A. B. C.');
    expect(faultText({ what: 'A.', why: '', next: 'C.' })).toBe('A. C.');
  });

  it('words that must not be empty', () => {
    const reader = words('The name');
    expect(reader('  Plum ')).toEqual({ ok: true, value: 'Plum' });
    const empty = reader('   ');
    expect(empty.ok || empty.fault).toMatchObject({ code: 'missing', what: 'The name is empty.' });
  });
});

describe('the stops of the work', () => {
  it('a path belongs to the stop it begins with; the settings and the people to none', () => {
    for (const stop of STOPS) expect(stopOf(stop.path)).toBe(stop);
    expect(stopOf('/recipes/new')?.name).toBe('Recipes');
    expect(stopOf('/cook/0190')?.name).toBe('Cook');
    expect(stopOf('/kitchen')).toBeUndefined();
    expect(stopOf('/people')).toBeUndefined();
  });

  it('each has its own key', () => expect(new Set(STOPS.map(s => s.key)).size).toBe(STOPS.length));
});
