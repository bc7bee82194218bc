import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_FIGURES } from '../measure/index.ts';
import {
  changedPoints,
  editedPlace,
  JURISDICTIONS,
  type Jurisdiction,
  PLACE_FOODS,
  type PlacePoint,
  noPlace,
  placeFault,
  pointsOf,
  runsOut,
} from './index.ts';

const TODAY = '2026-11-26';
const placeOf = (id: string): Jurisdiction => {
  const found = JURISDICTIONS.find(j => j.id === id);
  if (!found) throw new Error(id);
  return found;
};
const ticked = (rules: Jurisdiction, renewsOn: string | null = null) => ({
  rules,
  points: pointsOf(rules).map(point => ({ point, tickedOn: '2026-03-01', renewsOn })),
});
const asked = (
  profile: Parameters<typeof placeFault>[0],
  foodClass: Parameters<typeof placeFault>[1]['foodClass'],
  hasLetter = false,
) => placeFault(profile, { foodClass, hasLetter }, TODAY, PLAIN_FIGURES)?.what ?? 'allowed';

describe('the place', () => {
  it('ships a neutral sample, seventeen places of one country and two of a metric market, each from memory and saying where it is from', () => {
    expect(JURISDICTIONS).toHaveLength(20);
    expect(new Set(JURISDICTIONS.map(j => j.id)).size).toBe(20);
    expect(JURISDICTIONS.filter(j => j.label.rules === 'EU').map(j => j.id)).toEqual(['gb-eng', 'de']);
    expect(JURISDICTIONS.every(j => !j.edited)).toBe(true);
    expect(JURISDICTIONS.filter(j => !j.fromMemory).map(j => j.id)).toEqual(['sample']);
    for (const j of JURISDICTIONS) {
      expect(j.source, j.id).not.toBe('');
      // What is kept of it in the settings has these bounds.
      expect(j.source.length, j.id).toBeLessThanOrEqual(200);
      expect(j.statement.length, j.id).toBeLessThanOrEqual(300);
      for (const food of PLACE_FOODS) expect(j.foods[food].why, `${j.id} ${food}`).toMatch(/\.$/);
      // No place lets food above 4.6 onto a shelf.
      expect(j.phLimit ?? 4.6).toBeLessThanOrEqual(4.6);
      // Where acidified food may be sold at all, the highest pH is named.
      if (j.foods['acidified food'].rule !== 'not allowed') expect(j.phLimit, j.id).not.toBeNull();
    }
  });

  it('is changed by its owner into a version of its own, and what it says otherwise is told point by point', () => {
    const ohio = placeOf('us-oh');
    const same = editedPlace(ohio, {});
    expect(same).toMatchObject({ id: 'us-oh', version: ohio.version + 1, edited: true });
    expect(changedPoints(ohio, same)).toEqual([]);
    const changes = {
      foods: { ...ohio.foods, 'acidified food': { rule: 'allowed' as const, why: 'So they wrote.' } },
      outlets: ['home'],
      ceiling: { amount: '1', currency: 'USD' },
      training: 'a course',
      label: { ...ohio.label, statement_pt: 14, number: true },
    };
    expect(changedPoints(ohio, editedPlace(ohio, changes))).toEqual([
      'foods',
      'outlets',
      'ceiling',
      'training',
      'registration',
      'statement',
    ]);
    // Who is refused hears that it is the kitchen's own version.
    const own = editedPlace(ohio, { outlets: ['home'] });
    expect(
      placeFault(
        { rules: own, points: [] },
        { foodClass: 'acidified food', hasLetter: false },
        TODAY,
        PLAIN_FIGURES,
      )?.why,
    ).toContain('as this kitchen changed it');
  });

  it('papers that a kitchen keeps beside them run out like the others, and are asked of nobody', () => {
    const rules = placeOf('sample');
    const whole = ticked(rules);
    const food = PLACE_FOODS.find(f => rules.foods[f].rule === 'allowed') ?? 'fruit spread';
    expect(asked(whole, food)).toBe('allowed');
    for (const point of ['water', 'insurance'] as const) {
      const kept = (renewsOn: string | null) => ({
        rules,
        points: [...whole.points, { point, tickedOn: '2026-03-01', renewsOn }],
      });
      expect(asked(kept(null), food)).toBe('allowed');
      expect(asked(kept('2026-11-26'), food)).toBe('allowed');
      expect(asked(kept('2026-11-25'), food)).toMatch(/ran out on/);
      expect(runsOut(kept('2026-12-10'), TODAY).map(r => [r.point, r.over])).toEqual([[point, false]]);
      expect(runsOut(kept('2027-03-10'), TODAY)).toEqual([]);
    }
  });

  it('nothing is sold before a place is chosen and every point that applies is ticked', () => {
    expect(asked(noPlace(), 'fruit spread')).toBe('Nobody has said under whose rules this kitchen sells.');
    fc.assert(
      fc.property(
        fc.constantFrom(...JURISDICTIONS),
        fc.constantFrom(...PLACE_FOODS),
        fc.nat(),
        (rules, food, n) => {
          const whole = ticked(rules);
          const gone = whole.points[n % whole.points.length]?.point as PlacePoint;
          const said = asked({ rules, points: whole.points.filter(p => p.point !== gone) }, food, true);
          expect(said).toMatch(
            rules.foods[food].rule === 'not allowed' ? /does not allow/ : /not ticked yet are/,
          );
        },
      ),
    );
  });

  it('what was ticked holds until its last day, and no longer', () => {
    const ends = (day: string) => asked(ticked(placeOf('sample'), day), 'fruit spread');
    expect([ends('2026-11-26'), ends('2027-01-01')]).toEqual(['allowed', 'allowed']);
    expect(ends('2026-11-25')).toMatch(/: which kinds of food it allows ran out on /);
  });

  it('a tested publication is no approval where the place asks for an approved process', () => {
    const kentucky = ticked(placeOf('us-ky'));
    expect(asked(kentucky, 'fruit spread')).toBe('allowed');
    expect(asked(kentucky, 'acidified food')).toMatch(/asks for an approved process for acidified food\.$/);
    expect(asked(kentucky, 'acidified food', true)).toBe('allowed');
    expect(asked(ticked(placeOf('us-oh')), 'acidified food', true)).toMatch(
      /does not allow acidified food\.$/,
    );
    expect(asked(ticked(placeOf('us-wi')), 'acidified food')).toBe('allowed');
    for (const rules of JURISDICTIONS)
      expect(asked(ticked(rules), 'refused', true)).toMatch(/refused food is sold nowhere/);
  });
});

describe('what runs out', () => {
  const until = (ends: Partial<Record<PlacePoint, string | null>>) => ({
    rules: placeOf('sample'),
    points: Object.entries(ends).map(([point, renewsOn]) => ({
      point: point as PlacePoint,
      tickedOn: '2026-03-01',
      renewsOn: renewsOn ?? null,
    })),
  });

  it('is told of a month ahead, the first to end first, and what never ends is not', () => {
    const found = runsOut(
      until({
        training: '2026-12-26',
        foods: '2026-11-25',
        outlets: '2026-11-26',
        ceiling: '2026-12-27',
        statement: null,
      }),
      TODAY,
    );
    expect(found).toEqual([
      { point: 'foods', renewsOn: '2026-11-25', over: true },
      { point: 'outlets', renewsOn: '2026-11-26', over: false },
      { point: 'training', renewsOn: '2026-12-26', over: false },
    ]);
  });

  it('is nothing of a place that was not chosen, or that asks nothing of it', () => {
    expect(runsOut({ rules: null, points: until({ foods: '2020-01-01' }).points }, TODAY)).toEqual([]);
    // The sample asks for no registration.
    expect(runsOut(until({ registration: '2020-01-01' }), TODAY)).toEqual([]);
    expect(runsOut(noPlace(), TODAY)).toEqual([]);
  });

  it('and has run out by the same day on which a start for sale is refused', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 }), days => {
        const renewsOn = new Date(Date.UTC(2026, 10, 1 + days)).toISOString().slice(0, 10);
        const profile = ticked(placeOf('sample'), renewsOn);
        expect(runsOut(profile, TODAY).some(p => p.over)).toBe(asked(profile, 'fruit spread') !== 'allowed');
      }),
    );
  });
});
