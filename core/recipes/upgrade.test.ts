import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { fromCsv, toCsv } from '../exchange/index.ts';
import { classOf, processFor, routeToSale } from '../review/index.ts';
import { upgradeTime } from '../times/index.ts';
import { recipeFaults } from './index.ts';
import type { Recipe } from './index.ts';
import { noTerms, upgradeRecipe } from './index.ts';

import { describe, expect, it } from 'vitest';

/** Recipes of the first shape, as batches that were cooked with them still hold them. */
const first = (over: object = {}): object => ({
  name: 'Apricot jam',
  code: 'APJ',
  statementOfIdentity: 'Apricot jam',
  foodClass: 'fruit spread',
  authority: { grade: 'own', entryId: 'jam-no-pectin-10' },
  lines: [
    line('fruit', 'Apricots', '2000', 'g'),
    { ...line('sugar', 'Sugar', '1500', 'g'), role: 'sweetener' },
  ],
  steps: [
    {
      id: 'stand',
      kind: 'rest',
      text: 'Stand in half the sugar',
      caution: '',
      window: { from_min: 60, to_min: 600 },
      target: { kind: 'none' },
      lineIds: ['fruit', 'sugar'],
    },
    {
      id: 'boil',
      kind: 'cook',
      text: 'Boil',
      caution: '',
      window: null,
      target: { kind: 'gel point' },
      lineIds: ['sugar'],
    },
    {
      id: 'hold',
      kind: 'cook',
      text: 'Hold',
      caution: '',
      window: null,
      target: { kind: 'temperature', temp_C: 90 },
      lineIds: [],
    },
  ],
  makes: { size: 'half-pint', count: 10 },
  jars: [{ size: 'half-pint', net: { kind: 'weight', oz: 9 } }],
  shelfLife_months: 12,
  readyAfter_days: 0,
  notes: 'From before.',
  ...over,
});

function line(id: string, name: string, value: string, unit: string) {
  return {
    id,
    name,
    preparation: '',
    role: 'fruit',
    where: 'pot',
    amount: { text: `${value} ${unit}`, unit, value },
    density_gPerMl: null,
    each_g: null,
    weightSource: '',
    trimYield: 0.9,
    labelName: name.toLowerCase(),
    subIngredients: '',
    allergens: [],
    minStrength_pct: null,
    safelyAcid: true,
  };
}

describe('a recipe of the first shape', () => {
  const now = upgradeRecipe(first());

  it('says what it said, in the shape of today', () => {
    expect(now).toMatchObject({
      format: 3,
      name: 'Apricot jam',
      code: 'APJ',
      notes: 'From before.',
      makes: { size: 'half-pint', count: 10 },
      authority: { grade: 'own', entryId: 'jam-no-pectin-10' },
      foodClass: 'fruit spread',
    });
    expect(now.lines.map(l => [l.name, l.amount.value, l.basis, l.keptShare])).toEqual([
      ['Apricots', '2000', 'prepared', 1],
      ['Sugar', '1500', 'prepared', 1],
    ]);
  });

  it('is whole by the rules of today: nothing to mend, the same class, the same time, the same way to sale', () => {
    expect(recipeFaults(now)).toEqual([]);
    expect(classOf(now)).toBe('fruit spread');
    expect(routeToSale(now).open).toBe(true);
    expect(processFor(now, 'half-pint', 716.28)).toMatchObject({ ok: true, time: { minutes: 15 } });
  });

  it('shares a line that several steps named evenly among them', () => {
    expect(now.steps.map(s => s.adds)).toEqual([
      [
        { lineId: 'fruit', share: '1' },
        { lineId: 'sugar', share: '1/2' },
      ],
      [{ lineId: 'sugar', share: '1/2' }],
      [],
    ]);
  });

  it('a temperature was reached, not held', () =>
    expect(now.steps[2]?.target).toEqual({ kind: 'temperature', temp_C: 90, hold_min: 0 }));

  it('knows its solids by what its lines were', () =>
    expect(now.lines.map(l => l.solids_pct)).toEqual([11, 100]));

  it('is read again as itself', () => expect(upgradeRecipe(structuredClone(now))).toEqual(now));
});

describe('the authorities of the first shape', () => {
  const pickle = (authority: object, name = 'Wax beans', lines: object[] = []) =>
    upgradeRecipe(
      first({
        foodClass: 'acidified food',
        authority,
        lines: [
          { ...line('beans', name, '1800', 'g'), role: 'low-acid produce', safelyAcid: false },
          ...lines,
        ],
        steps: [],
      }),
    );
  const vinegar = {
    ...line('vinegar', 'White vinegar, 5 %', '1400', 'g'),
    role: 'acid',
    where: 'brine',
    minStrength_pct: 5,
  };

  it('a letter keeps its minutes, its pack and its headspace', () => {
    const letter = pickle(
      {
        grade: 'letter',
        authority: 'Process desk',
        reference: 'A-1',
        issuedOn: '2026-01-01',
        demo: true,
        maxPh: 4.4,
        headspace_mm: 12.7,
        pack: 'raw',
        minutes: [
          {
            jarSize: 'half-pint',
            byAltitude: [
              { upTo_ft: 1000, minutes: 10 },
              { upTo_ft: null, minutes: 20 },
            ],
          },
        ],
      },
      'Wax beans',
      [vinegar],
    );
    expect(letter).toMatchObject({ product: 'pickle', method: { pack: 'raw', liquid: 'vinegar brine' } });
    expect(processFor(letter, 'half-pint', 0)).toMatchObject({
      ok: true,
      time: { minutes: 10, headspace_mm: 12.7, pack: 'raw' },
    });
    expect(processFor(letter, 'half-pint', 716.28)).toMatchObject({ ok: true, time: { minutes: 20 } });
    expect(routeToSale(letter).open).toBe(true);
  });

  it('a tested publication follows its entry with the pack and the liquid of that entry', () => {
    const publication = (entryId: string) => ({
      grade: 'tested publication',
      title: 'Guide',
      edition: '2015 revision',
      part: 'guide 3',
      checkedOn: '2026-01-01',
      fromMemory: true,
      entryId,
    });
    const beans = pickle(publication('dilled-beans'), 'Green beans', [vinegar]);
    expect(beans.method).toMatchObject({ pack: 'raw', liquid: 'vinegar brine' });
    expect(processFor(beans, 'half-pint', 0).ok).toBe(true);
    const dose = { ...line('lemon', 'Bottled lemon juice', '15.3', 'g'), role: 'acid', where: 'each jar' };
    for (const [entryId, liquid] of [
      ['tomatoes-crushed', 'none'],
      ['tomatoes-in-water', 'water'],
    ] as const) {
      const tomatoes = pickle(publication(entryId), 'Tomatoes', [dose]);
      expect(tomatoes).toMatchObject({ product: 'tomatoes', method: { pack: 'hot', liquid } });
      // Nobody said then whether they were peeled, and how they were cut: the entry asks for both.
      expect(processFor(tomatoes, 'half-pint', 0)).toMatchObject({
        ok: false,
        next: expect.stringMatching(/peeled/),
      });
      const cut = liquid === 'none' ? 'crushed' : 'whole';
      const said = { ...tomatoes, method: { ...tomatoes.method, peel: 'peeled', cut } as const };
      expect(processFor(said, 'half-pint', 0).ok).toBe(true);
    }
  });

  it('an untested one still opens nothing', () => {
    const untested = pickle({ grade: 'published, untested', title: 'A cookbook' }, 'Wax beans', [vinegar]);
    expect(untested.authority).toEqual({ grade: 'published, untested', title: 'A cookbook' });
    expect(processFor(untested, 'half-pint', 0).ok).toBe(false);
  });

  it('what is neither pickle nor tomato is something else, by itself', () =>
    expect(pickle({ grade: 'own', entryId: null }, 'Okra').product).toBe('other'));
});

describe('times and recipes of today', () => {
  it('a time from before hot fills were known is one in boiling water', () => {
    const answer = processFor(plumJam, 'half-pint', 0);
    if (!answer.ok) throw new Error(answer.what);
    const { method: _, fill: __, ...old } = answer.time;
    expect(upgradeTime(old as typeof answer.time)).toEqual(answer.time);
    expect(upgradeTime(answer.time)).toBe(answer.time);
  });

  it('pass through untouched', () => expect(upgradeRecipe(plumJam as Recipe)).toBe(plumJam));
});

describe('a recipe of the second shape', () => {
  const { terms: _terms, ...letter } = waxBeans.authority as Extract<
    Recipe['authority'],
    { grade: 'letter' }
  >;
  const second = (over: object) => ({ ...waxBeans, format: 2, authority: { ...letter, ...over } });

  it('has a letter that names nothing beside its heat step', () => {
    expect(upgradeRecipe(second({}))).toEqual({
      ...waxBeans,
      authority: { ...letter, terms: noTerms() },
    });
  });

  it('has the closure of a hot fill in its heat step', () => {
    const process = { kind: 'hot-fill-hold', temp_C: 88, hold_min: 3, headspace_mm: 6, jarSizes: ['pint'] };
    expect(upgradeRecipe(second({ process: { ...process, closure: 'lug caps' } })).authority).toEqual({
      ...letter,
      terms: { ...noTerms(), closure: 'lug caps' },
      process,
    });
  });

  it('says nothing else anew, and is read from a table that was written then', () => {
    expect(upgradeRecipe({ ...plumJam, format: 2 })).toEqual(plumJam);
    const now: Recipe = { ...waxBeans, authority: { ...letter, terms: noTerms() } };
    // The same table, with the letter as it was written before it named any terms.
    const then = toCsv([now]).replace(`,""terms"":${JSON.stringify(noTerms()).replaceAll('"', '""')}`, '');
    expect(then).not.toContain('terms');
    const read = fromCsv(then);
    expect(read.ok && read.recipes.map(r => r.value)).toEqual([now]);
  });
});
