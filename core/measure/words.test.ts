import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAmount, readNumber, readRational, speaker } from './index.ts';

describe('a message function', () => {
  const say = speaker('en', {
    jars: '{n, plural, =0 {no jars} one {# jar} other {# jars}}',
    weight: 'It weighs {g, number} g, not {typed}.',
  });

  it('has plurals as the language and figures as the kitchen has them', () => {
    expect([0, 1, 2, 1234].map(n => say('jars', { n }))).toEqual([
      'no jars',
      '1 jar',
      '2 jars',
      '1,234 jars',
    ]);
    expect(say('jars', { n: 1234 }, 'de-DE')).toBe('1.234 jars');
    expect(say('jars', { n: 1234 }, 'en-US')).toBe('1,234 jars');
    expect(say('weight', { g: 2.5, typed: '2.5' }, 'de-DE')).toBe('It weighs 2,5 g, not 2.5.');
  });

  it('takes what was typed for a text, whatever it looks like', () => {
    fc.assert(
      fc.property(fc.string(), typed => {
        expect(say('weight', { g: 1, typed })).toBe(`It weighs 1 g, not ${typed}.`);
      }),
    );
    expect(say('weight', { g: 1, typed: '<b>{g}</b> __proto__' })).toContain('<b>{g}</b> __proto__');
  });

  it('refuses to leave a hole in a sentence', () => {
    expect(() => say('weight', { g: 1 })).toThrow(/typed/);
  });
});

describe('what readers say of a figure they cannot read', () => {
  const fault = (text: string, locale: string) => {
    const read = readNumber(text, locale, { name: 'The depth', min: 0.5, max: 1200, unit: ' mm' });
    return read.ok ? null : read.fault;
  };

  it('is written with the figures of the kitchen', () => {
    expect(fault('9999', 'en-US')).toMatchObject({
      code: 'too-large',
      what: 'The depth must be at most 1,200 mm.',
      next: 'Type a figure up to 1,200 mm.',
    });
    expect(fault('9999', 'de-DE')).toMatchObject({ what: 'The depth must be at most 1.200 mm.' });
    expect(fault('0', 'de-DE')).toMatchObject({ what: 'The depth must be at least 0,5 mm.' });
    expect(fault('two', 'en-US')?.next).toBe('Type it like 2.5 or 2 1/2.');
    expect(fault('zwei', 'de-DE')?.next).toBe('Type it like 2,5 or 2 1/2.');
  });

  it('names a limit that itself is not taken', () => {
    const read = readNumber('0', 'en-US', { name: 'The jars', min: 0, above: true });
    expect(!read.ok && read.fault).toMatchObject({
      what: 'The jars must be above 0.',
      next: 'Type a figure above 0.',
      why: 'A figure outside these limits is a slip of the finger, not a measurement.',
    });
  });

  it('has what, why and next for whatever is typed, in any locale', () => {
    const locales = ['en-US', 'de-DE', 'fr-FR', 'de-CH', 'en-IN'];
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...locales), (text, locale) => {
        for (const read of [readRational(text, locale), readAmount(text, locale)])
          if (!read.ok)
            for (const said of [read.fault.what, read.fault.why, read.fault.next])
              expect(said).toMatch(/^\S.*\.$/su);
      }),
    );
  });
});
