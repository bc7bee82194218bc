import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldText } from '@cocotte/core/measure';
import {
  anyWords,
  chosen,
  faultText,
  fieldPath,
  listed,
  missing,
  orElse,
  orNone,
  readShape,
  readersOf,
  rows,
  unasked,
  words,
  wordsOrNone,
} from '../../src/kit/readers.ts';

const US = readersOf({ locale: 'en-US', temperature: 'F' });
const DE = readersOf({ locale: 'de-DE', temperature: 'C' });

describe('readers of words', () => {
  it('drop what surrounds them; empty is a fault, nothing, or itself', () => {
    expect(words('The name')('  Wren ')).toEqual({ ok: true, value: 'Wren' });
    expect(words('The name')(' \t')).toEqual({
      ok: false,
      fault: {
        path: '',
        code: 'missing',
        what: 'The name is empty.',
        why: 'It is needed to go on.',
        next: 'Fill it in.',
      },
    });
    expect(words('The day', 'Stock is drawn by age.', 'Enter it.')('')).toMatchObject({
      fault: { why: 'Stock is drawn by age.', next: 'Enter it.' },
    });
    expect(anyWords('  ')).toEqual({ ok: true, value: '' });
    expect(wordsOrNone('  ')).toEqual({ ok: true, value: null });
    expect(wordsOrNone(' x ')).toEqual({ ok: true, value: 'x' });
  });

  it('list each name once, in the order they came', () =>
    expect(listed(' milk, soy,, milk ,wheat, ').value).toEqual(['milk', 'soy', 'wheat']));

  it('a choice that was never made is a fault; what is not asked for is whatever is usual', () => {
    expect(chosen<string>('No item.', 'It is of something.', 'Choose.')('')).toMatchObject({
      ok: false,
      fault: { what: 'No item.' },
    });
    expect(chosen<string>('No item.', '', '')('sugar')).toEqual({ ok: true, value: 'sugar' });
    expect(unasked(7)()).toEqual({ ok: true, value: 7 });
  });

  it('a fault is one line, without holes where it says less', () => {
    expect(faultText(missing('The price is empty.', '', 'Fill it in.'))).toBe(
      'The price is empty. Fill it in.',
    );
  });
});

describe('readers of figures', () => {
  const price = { name: 'The price', min: 0, max: 100 };

  it('read them in the habits of the kitchen, and refuse the other ones rather than guess', () => {
    expect(US.figure(price)('1.5')).toEqual({ ok: true, value: 1.5 });
    expect(DE.figure(price)('1,5')).toEqual({ ok: true, value: 1.5 });
    expect(US.figure(price)('1,5').ok).toBe(false);
    expect(DE.decimal(price)('0,10')).toEqual({ ok: true, value: '0.1' });
    expect(US.figure(price)('a few').ok).toBe(false);
  });

  it('name their limits as the kitchen writes them', () => {
    const limits = { name: 'The capacity', min: 0.5, max: 10_000, unit: ' L' };
    const words = (read: typeof US, text: string) => {
      const found = read.figure(limits)(text);
      return found.ok ? '' : `${found.fault.what} ${found.fault.next}`;
    };
    expect(words(DE, '0,4')).toBe('The capacity must be at least 0,5 L. Type a figure from 0,5 L.');
    expect(words(US, '0.4')).toBe('The capacity must be at least 0.5 L. Type a figure from 0.5 L.');
    expect(words(US, '10001')).toBe('The capacity must be at most 10,000 L. Type a figure up to 10,000 L.');
    expect(words(DE, 'viel')).toContain('Type it like 2,5 or 2 1/2.');
  });

  it('whatever is printed in a field is read back from it, in every locale', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('en-US', 'en-GB', 'de-DE', 'fr-CA', 'es-MX', 'de-CH'),
        fc.integer({ min: -999_999, max: 99_999_999 }),
        (locale, hundredths) => {
          const value = hundredths / 100;
          const read = readersOf({ locale, temperature: 'C' }).figure({
            name: 'It',
            min: -10_000,
            max: 1_000_000,
          });
          expect({ locale, read: read(fieldText(value, locale, 2)) }).toEqual({
            locale,
            read: { ok: true, value },
          });
        },
      ),
    );
  });

  it('nothing typed is nothing, what is usual, or a fault, as the field says', () => {
    expect(orNone(US.figure(price))(' ')).toEqual({ ok: true, value: null });
    expect(orElse(3, US.figure(price))('')).toEqual({ ok: true, value: 3 });
    expect(orElse(3, US.figure(price))('x').ok).toBe(false);
    expect(US.figure(price)('').ok).toBe(false);
  });

  it('temperatures are typed in the degrees of the kitchen and kept in Celsius', () => {
    const limits = { name: 'The pot', min: 0, max: 150 };
    // 212 °F is 100 °C by definition.
    expect(US.temperature_C(limits)('212')).toEqual({ ok: true, value: 100 });
    expect(DE.temperature_C(limits)('102,5')).toEqual({ ok: true, value: 102.5 });
    expect(US.temperature_C(limits)('302').ok).toBe(true);
    expect(US.temperature_C(limits)('303').ok).toBe(false);
    const cold = US.temperature_C(limits)('31');
    expect(!cold.ok && cold.fault.what).toContain('32');
  });
});

describe('a shape', () => {
  const shape = {
    name: words('The name'),
    lines: rows((line: { id: string; price: string; kind: string }) => ({
      price: line.kind === 'free' ? unasked('0') : US.decimal({ name: 'The price', min: 0, max: 10 }),
    })),
  };
  const line = (id: string, price: string, kind = 'bought') => ({ id, price, kind });

  it('reads all of it, and leaves of a row what has no reader as it is', () =>
    expect(readShape(shape, { name: ' Wren ', lines: [line('a', '1.20'), line('b', '', 'free')] })).toEqual({
      ok: true,
      value: {
        name: 'Wren',
        lines: [
          { id: 'a', price: '1.2', kind: 'bought' },
          { id: 'b', price: '0', kind: 'free' },
        ],
      },
    }));

  it('says every fault at once, each by the path of its field', () => {
    const read = readShape(shape, { name: '', lines: [line('a', '1'), line('b', ''), line('c', '11')] });
    expect(!read.ok && read.faults.map(f => f.path)).toEqual(['name', 'lines.1.price', 'lines.2.price']);
  });

  it('rows in rows have their paths too', () => {
    const nested = { pots: rows((_pot: { lines: unknown[] }) => ({ lines: shape.lines })) };
    const read = readShape(nested, { pots: [{ lines: [] }, { lines: [line('a', '1'), line('b', 'x')] }] });
    expect(!read.ok && read.faults.map(f => f.path)).toEqual(['pots.1.lines.1.price']);
  });

  it('a field named like something every object has is a field', () => {
    const odd = Object.fromEntries([
      ['constructor', words('The maker')],
      ['toString', anyWords],
    ]);
    const read = readShape(odd, Object.fromEntries([['constructor', 'x']].concat([['toString', 'y']])));
    expect(read).toMatchObject({ ok: true });
    expect(read.ok && Object.entries(read.value)).toEqual([
      ['constructor', 'x'],
      ['toString', 'y'],
    ]);
  });

  it('names a path as a form does, however the server wrote it', () => {
    expect(fieldPath('lines[0].price')).toBe('lines.0.price');
    expect(fieldPath('[2]')).toBe('2');
    expect(fieldPath('a[1][2].b')).toBe('a.1.2.b');
    expect(fieldPath('name')).toBe('name');
  });
});
