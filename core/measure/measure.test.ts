import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  Decimal,
  Fraction,
  addDays,
  addMonths,
  allocate,
  canonicalJson,
  clockText,
  countdownText,
  dayOf,
  durationText,
  instantMs,
  instantOf,
  instantText,
  isDay,
  kitchenVolume,
  kitchenWeight,
  localTextOf,
  mixedText,
  moneyText,
  rangesText,
  readAmount,
  readDecimal,
  readNumber,
  readRanges,
  readRational,
  roundTogether,
  UNITS,
  yearAndDay,
  amount_g,
  altitudeText,
  massText,
  temperatureText,
} from './index.ts';

const rational = (text: string, locale = 'en-US') => {
  const r = readRational(text, locale);
  return r.ok ? r.value.toFraction() : r.fault.code;
};

describe('reading numbers', () => {
  it.each([
    ['2 1/2', '5/2'],
    ['1½', '3/2'],
    ['½', '1/2'],
    ['3/4', '3/4'],
    ['2.5', '5/2'],
    ['.5', '1/2'],
    ['1,250', '1250'],
    ['1,250.5', '2501/2'],
    ['-3', '-3'],
    ['1,5', 'ambiguous-number'],
    ['1.2.3', 'not-a-number'],
    ['', 'missing'],
    ['$4', 'currency-sign'],
    ['two', 'not-a-number'],
    ['1/0', 'not-a-number'],
    ['1e5', 'not-a-number'],
    ['Infinity', 'not-a-number'],
  ])('%s in en-US reads as %s', (text, expected) => expect(rational(text)).toBe(expected));

  it('reads the decimal comma where the locale has one, and asks about a point', () => {
    expect(rational('1,5', 'de-DE')).toBe('3/2');
    expect(rational('1.250', 'de-DE')).toBe('1250');
    expect(rational('1.5', 'de-DE')).toBe('ambiguous-number');
  });

  it('names the limit that was passed, why and what next', () => {
    const r = readNumber('15', 'en-US', {
      name: 'The pH',
      min: 0,
      max: 14,
      why: 'The scale runs from 0 to 14.',
    });
    expect(r).toEqual({
      ok: false,
      fault: {
        path: '',
        code: 'too-large',
        what: 'The pH must be at most 14.',
        why: 'The scale runs from 0 to 14.',
        next: 'Type a figure up to 14.',
      },
    });
    expect(readNumber('0', 'en-US', { name: 'The weight', min: 0, above: true })).toMatchObject({
      ok: false,
      fault: { code: 'too-small' },
    });
    expect(readNumber('1.5', 'en-US', { name: 'Jars', whole: true })).toMatchObject({
      ok: false,
      fault: { code: 'not-whole' },
    });
  });

  it('reads decimals without passing through a double', () => {
    expect(readDecimal('0.1', 'en-US', { name: 'x' })).toEqual({ ok: true, value: '0.1' });
    expect(readDecimal('1/3', 'en-US', { name: 'x' }, 4)).toEqual({ ok: true, value: '0.3333' });
  });
});

describe('amounts', () => {
  it.each([
    ['2 1/2 c', '5/2', 'cup'],
    ['1½ lb', '3/2', 'lb'],
    ['250 g', '250', 'g'],
    ['8', '8', 'each'],
    ['1/4 tsp', '1/4', 'tsp'],
    ['3 cloves', '3', 'clove'],
    ['12 fl oz', '12', 'floz'],
  ])('%s', (text, value, unit) => {
    expect(readAmount(text, 'en-US')).toMatchObject({ ok: true, value: { value, unit } });
  });

  it.each([
    ['0 g', 'not-positive'],
    ['-2 lb', 'not-positive'],
    ['3 furlongs', 'unknown-unit'],
    ['some sugar', 'no-amount'],
  ])('%s is refused as %s', (text, code) => {
    expect(readAmount(text, 'en-US')).toMatchObject({ ok: false, fault: { code } });
  });

  it('weighs a volume by its density and refuses one without', () => {
    const cup = { text: '1 c', unit: 'cup' as const, value: '1', upTo: null, toTaste: false };
    expect(amount_g(cup, { density_gPerMl: 0.845 })).toBeCloseTo(199.92, 2);
    expect(() => amount_g(cup, {})).toThrow(RangeError);
    expect(() => amount_g({ text: '1', unit: 'each', value: '1', upTo: null, toTaste: false }, {})).toThrow(
      RangeError,
    );
  });

  it('shows a volume in kitchen measures within a spoon of the truth', () => {
    expect(kitchenVolume(UNITS.cup.factor.valueOf() * 2.5).text).toBe('2 1/2 c');
    expect(kitchenVolume(UNITS.tbsp.factor.valueOf()).text).toBe('1 Tbsp');
    expect(kitchenVolume(UNITS.tsp.factor.valueOf() / 4).text).toBe('1/4 tsp');
    fc.assert(
      fc.property(fc.double({ min: 0.7, max: 20_000, noNaN: true }), ml => {
        const { text, error } = kitchenVolume(ml);
        const step_mL = text.endsWith('c')
          ? UNITS.cup.factor.valueOf() / 4
          : text.endsWith('Tbsp')
            ? UNITS.tbsp.factor.valueOf() / 4
            : UNITS.tsp.factor.valueOf() / 8;
        expect(Math.abs(error * ml)).toBeLessThanOrEqual(step_mL / 2 + 1e-6);
        // From a tablespoon up two measures say it within a few percent, and are read back as they were meant.
        if (ml >= UNITS.tbsp.factor.valueOf()) expect(Math.abs(error)).toBeLessThanOrEqual(0.025);
        const read = readAmount(text, 'en-US');
        if (!read.ok) throw new Error(`${text}: ${read.fault.what}`);
        const back = new Fraction(read.value.value).mul(UNITS[read.value.unit].factor).valueOf();
        expect(back).toBeCloseTo(ml * (1 + error), 6);
      }),
    );
    expect(kitchenVolume(9 * UNITS.tbsp.factor.valueOf())).toEqual({ text: '1/2 c + 1 Tbsp', error: 0 });
  });

  it('holds any amount within 5 %, whatever is scaled down: nothing is written as nothing', () => {
    const grams = (text: string) =>
      text
        .split(/(?<=[a-z]) /)
        .map(part => {
          const read = readAmount(part, 'en-US');
          if (!read.ok) throw new Error(`${text}: ${read.fault.what}`);
          return new Fraction(read.value.value).mul(UNITS[read.value.unit].factor).valueOf();
        })
        .reduce((a, b) => a + b, 0);
    fc.assert(
      fc.property(fc.double({ min: -3, max: 5, noNaN: true }), exponent => {
        const amount = 10 ** exponent;
        expect(Math.abs(grams(kitchenWeight(amount)) / amount - 1)).toBeLessThanOrEqual(0.0501);
        expect(Math.abs(kitchenVolume(amount).error)).toBeLessThanOrEqual(0.0501);
        expect(`${kitchenWeight(amount)} ${kitchenVolume(amount).text}`).not.toMatch(/(?:^| )0 /);
      }),
    );
    expect(kitchenWeight(1)).toBe('1 g');
    expect(kitchenWeight(0)).toBe('0 oz');
    expect(kitchenVolume(0.1).text).toBe('1/10 mL');
    expect(kitchenWeight(1.5)).toBe('1 1/2 g');
  });

  it('writes mixed numbers and weights', () => {
    expect(mixedText(12.5, false)).toBe('12 1/2');
    expect(mixedText(1 / 3, false)).toBe('1/3');
    expect(mixedText(2.99, false)).toBe('3');
    expect(mixedText(0.125, true)).toBe('1/8');
    expect(kitchenWeight(453.59237 * 7 + 28.349523125 * 3)).toBe('7 lb 3 oz');
    expect(kitchenWeight(28.35)).toBe('1 oz');
  });
});

describe('sharing a total', () => {
  const cents = fc.integer({ min: 0, max: 10_000_000 }).map(n => new Decimal(n).div(100));
  it('gives parts that add up to it, each within a cent of its exact share', () => {
    fc.assert(
      fc.property(
        cents,
        fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 30 }),
        (total, weights) => {
          const parts = allocate(
            total,
            weights.map(w => new Decimal(w)),
            2,
          );
          expect(parts.reduce((a, b) => a.plus(b), new Decimal(0)).eq(total)).toBe(true);
          const sum = weights.reduce((a, b) => a + b, 0);
          parts.forEach((p, i) =>
            expect(
              p
                .minus(total.times(sum === 0 ? 1 / weights.length : (weights[i] as number) / sum))
                .abs()
                .lte('0.01000001'),
            ).toBe(true),
          );
        },
      ),
    );
  });
  it('refuses nothing to share over, and a negative weight', () => {
    expect(() => allocate(new Decimal(1), [], 2)).toThrow(RangeError);
    expect(() => allocate(new Decimal(1), [new Decimal(-1)], 2)).toThrow(RangeError);
    expect(roundTogether([], 2)).toEqual([]);
  });
});

describe('days', () => {
  it('derives the day in the kitchen, not in UTC', () => {
    expect(dayOf(Date.parse('2026-11-24T05:30:00Z'), 'America/Denver')).toBe('2026-11-23');
    expect(dayOf(Date.parse('2026-11-24T07:30:00Z'), 'America/Denver')).toBe('2026-11-24');
  });
  it('goes from wall clock to instant and back, over clock changes too', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1_700_000_000, max: 1_900_000_000 }),
        fc.constantFrom('America/Denver', 'Europe/Berlin', 'Asia/Kolkata', 'Australia/Lord_Howe'),
        (s, zone) => {
          const text = localTextOf(s * 1000, zone);
          expect(localTextOf(instantOf(text, zone), zone)).toBe(text);
        },
      ),
    );
    expect(Number.isNaN(instantOf('nonsense', 'UTC'))).toBe(true);
    // 02:30 does not exist on this day; it moves forward.
    expect(localTextOf(instantOf('2026-03-08T02:30', 'America/Denver'), 'America/Denver')).toBe(
      '2026-03-08T03:30:00',
    );
  });
  it('reads an instant as Date.parse does, and leaves other shapes to it', () => {
    fc.assert(
      fc.property(
        fc.date({
          min: new Date('1600-01-01T00:00:00Z'),
          max: new Date('2400-01-01T00:00:00Z'),
          noInvalidDate: true,
        }),
        date => {
          expect(instantMs(date.toISOString())).toBe(date.getTime());
        },
      ),
    );
    expect(instantMs('2024-02-29T23:59:59.999Z')).toBe(Date.parse('2024-02-29T23:59:59.999Z'));
    expect(instantMs('2026-11-24T10:00:00Z')).toBe(Date.parse('2026-11-24T10:00:00Z'));
    expect(Number.isNaN(instantMs('some day in the late autumn'))).toBe(true);
  });
  it('adds days and months as a calendar does', () => {
    expect(addDays('2026-12-31', 1)).toBe('2027-01-01');
    expect(addMonths('2024-02-29', 12)).toBe('2025-02-28');
    expect(addMonths('2026-11-24', 18)).toBe('2028-05-24');
    expect(yearAndDay('2026-11-24')).toBe('26328');
    expect(isDay('2026-02-30')).toBe(false);
    expect(isDay('2026-02-28')).toBe(true);
  });
});

describe('words for figures', () => {
  const us = { locale: 'en-US', currency: 'USD', temperature: 'F', altitude: 'ft', measures: 'US' } as const;
  it('writes money, temperatures, altitudes and times', () => {
    expect(moneyText('1234.565', us)).toBe('$1,234.56');
    expect(moneyText('1234.575', us)).toBe('$1,234.58');
    expect(temperatureText(100, us)).toBe('212.0 °F');
    expect(altitudeText(716.28, us)).toBe('2,350 ft');
    expect(massText(2960, us)).toBe('2,960 g');
    expect(countdownText(402)).toBe('06:42');
    expect(countdownText(4200)).toBe('1 h 10');
    expect(durationText(898)).toBe('14 min 58 s');
  });
  it('writes the time of day as the locale reads it, in the zone of the kitchen', () => {
    const at = Date.parse('2026-11-25T00:34:05Z');
    const denver = { locale: 'en-US', zone: 'America/Denver' };
    expect(clockText(at, denver)).toBe('5:34\u00a0PM');
    expect(clockText(at, denver, true)).toBe('5:34:05\u00a0PM');
    expect(instantText(at, denver)).toBe('Nov 24, 5:34\u00a0PM');
    expect(clockText(at, { ...denver, zone: 'America/New_York' })).toBe('7:34\u00a0PM');
    const berlin = { locale: 'de-DE', zone: 'Europe/Berlin' };
    expect(clockText(at, berlin)).toBe('01:34');
    expect(clockText(at, berlin, true)).toBe('01:34:05');
    expect(clockText(Date.parse('2026-11-24T23:00:00Z'), berlin)).toBe('00:00');
    expect(clockText(Date.parse('2026-11-25T07:00:00Z'), denver)).toBe('12:00\u00a0AM');
  });
  it('writes jar numbers as ranges and reads them back', () => {
    expect(rangesText([4, 1, 2, 3, 7, 9, 10])).toBe('1-4, 7, 9, 10');
    expect(readRanges('1-4, 7')).toEqual([1, 2, 3, 4, 7]);
    expect(readRanges('4-1')).toBeNull();
    expect(readRanges('x')).toBeNull();
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 200 }), { maxLength: 60 }), numbers => {
        expect(readRanges(rangesText(numbers))).toEqual([...numbers].sort((a, b) => a - b));
      }),
    );
  });
  it('writes the same value as the same canonical text, whatever the order of its keys', () => {
    expect(canonicalJson({ b: 1, a: [1, { d: 2, c: 3 }] })).toBe('{"a":[1,{"c":3,"d":2}],"b":1}');
    expect(() => canonicalJson(undefined)).toThrow(TypeError);
  });
  it('scales exactly', () => expect(new Fraction('1/3').mul(3).toFraction()).toBe('1'));
});
