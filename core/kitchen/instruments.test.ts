import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { INSTRUMENT_KINDS, readInstrumentLine } from './index.ts';

describe('a line of an instrument', () => {
  it('says what it is, how it was checked, and what it shows', () => {
    expect(readInstrumentLine('HELLO 1 ph-1 ph_meter pH Meter by the sink', null)).toEqual({
      word: 'hello',
      id: 'ph-1',
      kind: 'ph meter',
      name: 'Meter by the sink',
    });
    expect(readInstrumentLine('CAL 2026-11-01T09:00:00Z -0.4', 'thermometer')).toEqual({
      word: 'cal',
      at: '2026-11-01T09:00:00.000Z',
      off: -0.4,
    });
    expect(readInstrumentLine('READ 7 -12.5 moving', 'thermometer')).toEqual({
      word: 'read',
      value: -12.5,
      steady: false,
    });
  });

  it.each([
    ['another version', 'HELLO 2 a thermometer C x'],
    ['another unit than its kind', 'HELLO 1 a thermometer F x'],
    ['a kind nobody knows', 'HELLO 1 a __proto__ C x'],
    ['an id with letters that lead elsewhere', 'HELLO 1 ../a thermometer C x'],
    ['no figure', 'READ 1 hot steady'],
    ['a figure without an end', 'READ 1 1e999 steady'],
    ['not a number', 'READ 1 NaN steady'],
    ['a hex figure', 'READ 1 0x10 steady'],
    ['a word too many', 'READ 1 20 steady now'],
    ['hotter than any probe', 'READ 1 900 steady'],
    ['a day that is none', 'CAL soon 0'],
    ['nothing', ''],
    ['half a line', 'READ'],
  ])('%s is rubbish', (_, line) => expect(readInstrumentLine(line, 'thermometer')).toBeNull());

  it('nothing is read before it said what it is', () => {
    expect(readInstrumentLine('READ 1 20 steady', null)).toBeNull();
  });

  it('a name keeps letters and loses what could lead elsewhere', () => {
    const said = readInstrumentLine('HELLO 1 a scale g <b>Waage</b> "groß" \u202e', null);
    expect(said).toMatchObject({ name: 'bWaageb groß ' });
    expect(readInstrumentLine('HELLO 1 a scale g', null)).toMatchObject({ name: 'a' });
  });

  it('never throws, and gives finite figures only, whatever comes', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 220, unit: 'binary' }),
        fc.constantFrom(...INSTRUMENT_KINDS, null),
        (line, kind) => {
          for (const text of [line, `READ ${line}`, `HELLO 1 ${line}`, `CAL ${line}`]) {
            const said = readInstrumentLine(text, kind);
            if (said?.word === 'read') expect(Number.isFinite(said.value)).toBe(true);
          }
        },
      ),
    );
  });
});
