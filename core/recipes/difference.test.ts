import { amountOf, withLine } from '../../testing/recipe-lines.ts';
import { emptyRecipe, noTerms } from './index.ts';
import { differences } from './index.ts';
import type { Recipe } from './index.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as demo from '../../demo/recipes.ts';

const { plumJam } = demo;
const reader = { locale: 'en-US', temperature: 'C', measures: 'metric' } as const;

describe('what differs between two versions', () => {
  it('is nothing between a recipe and itself', () => {
    for (const recipe of Object.values(demo) as Recipe[])
      expect(differences(recipe, structuredClone(recipe), reader)).toEqual([]);
  });

  it('is said in words: changed, added, taken out, moved', () => {
    const after: Recipe = {
      ...plumJam,
      name: 'Plum jam',
      tags: ['no pectin'],
      lines: [
        plumJam.lines[1] as Recipe['lines'][number],
        plumJam.lines[0] as Recipe['lines'][number],
        {
          ...(plumJam.lines[2] as Recipe['lines'][number]),
          amount: { text: '1/3 c', unit: 'cup', value: '1/3', upTo: null, toTaste: false },
        },
        { ...(plumJam.lines[3] as Recipe['lines'][number]), id: 'wine', name: 'Wine' },
      ],
      steps: plumJam.steps.slice(1),
    };
    const said = differences(plumJam, after, reader).map(
      d => `${d.part} ${d.kind} ${d.about}: ${d.before} > ${d.after}`,
    );
    expect(said).toContain('recipe changed Name: Red plum jam > Plum jam');
    expect(said).toContain('recipe changed Tags: no pectin, summer > no pectin');
    expect(said).toContain(
      'lines changed Bottled lemon juice: 1/4 c Bottled lemon juice > 1/3 c Bottled lemon juice',
    );
    expect(said.some(s => s.startsWith('lines added Wine'))).toBe(true);
    expect(said.some(s => s.startsWith('lines taken out Water'))).toBe(true);
    expect(said.some(s => s.startsWith('lines moved Sugar'))).toBe(true);
    expect(said.some(s => s.startsWith('steps taken out Step 1'))).toBe(true);
  });

  it('finds every single change of a field', () => {
    const keys = (Object.keys(emptyRecipe()) as (keyof Recipe)[]).filter(
      k => !['format', 'variantOf', 'sketch', 'tested'].includes(k),
    );
    const other: Recipe = {
      ...demo.waxBeans,
      family: 'Other',
      shelfLife_months: 18,
      setBy: 'calcium pectin',
      outlets: [{ id: 'o', name: 'Juice', share: 0.1, use: 'refrigerator', jarSize: null, entryId: null }],
    };
    fc.assert(
      fc.property(fc.constantFrom(...keys), key => {
        const changed = { ...plumJam, [key]: other[key] } as Recipe;
        expect(differences(plumJam, changed, reader).length, key).toBeGreaterThan(0);
      }),
    );
  });

  const words = (before: Recipe, after: Recipe) =>
    differences(before, after, reader).map(d => `${d.about}: ${d.before} > ${d.after}`);
  const { currantJelly, crushedTomatoes, waxBeans } = demo;
  type Letter = Extract<Recipe['authority'], { grade: 'letter' }>;

  it('says the facts of a line by the names they have on screen', () => {
    expect(
      words(plumJam, withLine(plumJam, 'plums', { trimYield: 0.9, safelyAcid: false, group: null })),
    ).toEqual([
      'Red plums: share left of what is bought 0.92; standard-of-identity group II; safely acid by itself yes > ' +
        'share left of what is bought 0.9; standard-of-identity group none; safely acid by itself no',
    ]);
    expect(words(plumJam, withLine(plumJam, 'lemon', { subIngredients: 'lemon juice, sulphite' }))).toEqual([
      'Bottled lemon juice: its own ingredients lemon juice from concentrate, sulphites > its own ingredients lemon juice, sulphite',
    ]);
    expect(
      words(plumJam, withLine(plumJam, 'plums', { basis: 'as bought', where: 'strained', keptShare: 0.62 })),
    ).toEqual([
      'Red plums: 4 1/2 lb Red plums, stoned and quartered, skins on > ' +
        '4 1/2 lb Red plums, stoned and quartered, skins on, as bought, strained, 62 % kept',
    ]);
    const ratio = currantJelly.lines.find(l => l.id === 'sugar')?.ratio;
    if (!ratio) throw new Error('the jelly has its sugar by ratio');
    expect(
      words(currantJelly, withLine(currantJelly, 'sugar', { ratio: { ...ratio, per: amountOf('1 qt') } })),
    ).toEqual(['Sugar: 850 g Sugar, for each 1 L > 850 g Sugar, for each 1 qt']);
    expect(words(waxBeans, withLine(waxBeans, 'vinegar', { minStrength_pct: 6 }))).toEqual([
      'White vinegar, 5 %: 6 c White vinegar, 5 %, brine, at least 5 % > 6 c White vinegar, 5 %, brine, at least 6 %',
    ]);
  });

  it('says each end of a step, its wait, what goes in and its caution in words', () => {
    const step = (id: string, over: Partial<Recipe['steps'][number]>): Recipe => ({
      ...plumJam,
      steps: plumJam.steps.map(s => (s.id === id ? { ...s, ...over } : s)),
    });
    const after = (over: Partial<Recipe['steps'][number]>) =>
      differences(plumJam, step('soften', over), reader)[0]?.after;
    expect(after({ target: { kind: 'temperature', temp_C: 90, hold_min: 5 } })).toMatch(
      /; to 90\.0 °C, held 5 min; /,
    );
    expect(after({ target: { kind: 'time', minutes: 20 } })).toMatch(/; 20 min; /);
    expect(after({ target: { kind: 'volume', volume_mL: 3000 } })).toMatch(/; down to 3.00 L; /);
    expect(after({ target: { kind: 'depth', depth_mm: 60 } })).toMatch(/; down to 60 mm in the pot; /);
    expect(after({ target: { kind: 'gel point' } })).toMatch(/; to the gel point; /);
    expect(after({ window: { from_min: 60, to_min: 120 } })).toMatch(/wait 1 to 2 h/);
    expect(after({ caution: 'Hot.' })).toMatch(/; Hot\.$/);
    expect(words(plumJam, step('soften', { attention: { kind: 'free' }, mayStop_h: 12 }))).toEqual([
      'Step 4: how much of you it takes look in 5; one may stop after it, hours none > ' +
        'how much of you it takes free; one may stop after it, hours 12',
    ]);
    expect(
      differences(plumJam, step('macerate', { adds: [{ lineId: 'sugar', share: '1/3' }] }), reader)[0]?.after,
    ).toMatch(/with 1\/3 of Sugar/);
  });

  it('writes figures, degrees and measures as the kitchen that reads it does', () => {
    const changed = withLine(plumJam, 'plums', { trimYield: 0.9 });
    const hot: Recipe = {
      ...changed,
      steps: changed.steps.map(s =>
        s.id === 'soften' ? { ...s, target: { kind: 'temperature', temp_C: 90, hold_min: 5 } } : s,
      ),
    };
    const inGerman = differences(plumJam, hot, { ...reader, locale: 'de-DE' });
    expect(inGerman.map(d => d.after)).toEqual([
      'share left of what is bought 0,9',
      expect.stringContaining('to 90,0 °C, held 5 min'),
    ]);
    const inFahrenheit = differences(plumJam, hot, { ...reader, temperature: 'F' });
    expect(inFahrenheit[1]?.after).toContain('to 194.0 °F');
  });

  it('says what an authority rests on, and each of its limits', () => {
    const letter = waxBeans.authority as Letter;
    const changed = (over: Partial<Letter>): Recipe => ({ ...waxBeans, authority: { ...letter, ...over } });
    expect(words(waxBeans, changed({ maxPh: 4.2 }))).toEqual([
      expect.stringMatching(
        /^Its process: pH 4\.4 at most; .* > pH 4\.2 at most; raw pack, pint 10 min to 1000 ft, 15 min to 6000 ft, 20 min above, headspace 12\.7 mm; /,
      ),
    ]);
    expect(words(waxBeans, changed({ limits: 'Half-pints.' }))).toHaveLength(1);
    expect(words(waxBeans, changed({ reference: 'B-2' }))).toEqual([
      expect.stringMatching(/^Authority: letter DEMO-WK-02 .* > letter B-2 /),
    ]);
    const fill = changed({
      terms: {
        ...noTerms(),
        closure: 'lug cap',
        lines: [{ lineId: 'beans', least_pct: null, most_pct: 60 }],
      },
      process: {
        kind: 'hot-fill-hold',
        temp_C: 88,
        hold_min: 3,
        headspace_mm: 6,
        jarSizes: ['pint'],
      },
    });
    expect(words(waxBeans, fill)[0]).toMatch(
      /filled at 88 °C, held 3 min, pint, headspace 6 mm; .*Yellow wax beans 60 % at most; closure lug cap/,
    );
    const sea = changed({
      process: {
        kind: 'sea level',
        pack: 'hot',
        headspace_mm: 6,
        minutes: [{ jarSize: 'pint', minutes: 10 }],
      },
    });
    expect(words(waxBeans, sea)[0]).toMatch(/hot pack, pint 10 min at sea level, headspace 6 mm/);
    expect(
      words(crushedTomatoes, {
        ...crushedTomatoes,
        authority: { grade: 'published, untested', title: 'A cookbook' },
      }),
    ).toEqual([
      expect.stringMatching(/> published, untested: A cookbook$/),
      expect.stringMatching(
        /^Its process: of 2015, checked on 2026-03-02; from memory; entry tomatoes-crushed > $/,
      ),
    ]);
    expect(words(plumJam, { ...plumJam, authority: { grade: 'own', entryId: null } })).toEqual([
      'Its process: entry jam-no-pectin-10 > ',
    ]);
  });

  it('says how pieces are packed, and what else leaves the pot', () => {
    expect(words(waxBeans, { ...waxBeans, packing: null })).toEqual([
      'Packing: 225 g in a pint, 0.95 g in a mL of pieces, 10 % of liquid to spare > ',
    ]);
    const outlet = {
      id: 'o',
      name: 'Syrup',
      share: 0.25,
      use: 'jars',
      jarSize: 'half-pint',
      entryId: 'fruit-syrup',
    } as const;
    expect(words(plumJam, { ...plumJam, outlets: [outlet] })).toEqual([
      'Other outlets:  > Syrup 25 % to jars in half-pints by fruit-syrup',
    ]);
  });

  it('never shows the shape of the data: no braces, no quotes, no underscores', () => {
    const all = Object.values(demo) as Recipe[];
    for (const before of all)
      for (const after of all)
        for (const d of differences(before, after, reader)) {
          const shown = `${d.about} ${d.before} ${d.after}`
            .replaceAll(before.notes, '')
            .replaceAll(after.notes, '');
          expect(shown).not.toMatch(/[{}"_[\]]|undefined|null|object/);
        }
  });

  it('read the other way round, what was added was taken out', () => {
    const all = Object.values(demo) as Recipe[];
    for (const before of all)
      for (const after of all) {
        const there = differences(before, after, reader);
        const back = differences(after, before, reader);
        const count = (list: typeof there, kind: string) => list.filter(d => d.kind === kind).length;
        expect(count(back, 'added')).toBe(count(there, 'taken out'));
        expect(count(back, 'taken out')).toBe(count(there, 'added'));
        expect(count(back, 'changed')).toBe(count(there, 'changed'));
      }
  });
});
