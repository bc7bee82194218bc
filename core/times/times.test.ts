import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { fromSeaLevel, sterilise_min } from '../heat/index.ts';
import { replaceAcid } from '../ingredients/index.ts';
import { JAR_SIZES, jarSize, type JarSizeId } from '../jars/index.ts';
import { metresFromFeet, MM_PER_INCH } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { processFor } from '../review/index.ts';
import { PROCESS_ENTRIES, entriesFor } from './entries.ts';
import { DOSES, PUBLISHED } from './published-times.fixture.ts';
import {
  entryBasis,
  headspaceInches,
  processByEntry,
  steamFault,
  timeFrom,
  upgradeTime,
  waterCover_in,
} from './scheduled.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const minutes = (entryId: string, size: JarSizeId, altitude_ft: number) => {
  const answer = processByEntry(entryId, size, metresFromFeet(altitude_ft));
  return answer.ok ? answer.time.minutes : answer.what;
};

describe('published times (USDA Complete Guide to Home Canning, 2015; from memory, written down twice)', () => {
  it.each(PUBLISHED)('%s, %s: at both sides of each band edge', (entryId, size, bands, headspace_in) => {
    const tops = bands.length === 3 ? [1000, 6000] : [1000, 3000, 6000];
    expect(minutes(entryId, size, 0)).toBe(bands[0]);
    tops.forEach((top, i) => {
      expect(minutes(entryId, size, top)).toBe(bands[i]);
      expect(minutes(entryId, size, top + 0.1)).toBe(bands[i + 1]);
      expect(minutes(entryId, size, top + 1)).toBe(bands[i + 1]);
    });
    expect(minutes(entryId, size, 10_000)).toBe(bands.at(-1));
    const answer = processByEntry(entryId, size, 0);
    expect(answer.ok && answer.time.headspace_mm / MM_PER_INCH).toBeCloseTo(headspace_in, 9);
  });

  it.each(DOSES)('%s takes its acid in each pint', (entryId, lemon, citric, vinegar) => {
    const dose = PROCESS_ENTRIES.find(e => e.id === entryId)?.acidInEachPint;
    expect(dose).toMatchObject({ bottledLemon_tbsp: lemon, citricAcid_tsp: citric });
    expect(dose?.vinegar_tbsp ?? null).toBe(vinegar);
  });

  it('covers every family the issue names', () => {
    const products = new Set(PROCESS_ENTRIES.flatMap(e => e.products));
    for (const product of [
      'jam',
      'preserves',
      'jelly',
      'fruit butter',
      'marmalade',
      'syrup',
      'juice',
      'purée',
      'fruit in liquid',
      'pie filling',
      'tomatoes',
      'tomato sauce',
      'ketchup',
      'salsa',
      'chutney',
      'relish',
      'pickle',
      'sauerkraut',
    ] as const)
      expect(products.has(product), product).toBe(true);
    const withHalfGallon = PROCESS_ENTRIES.filter(e => e.rows.some(r => r.jarSize === 'half-gallon')).map(
      e => e.id,
    );
    expect(withHalfGallon.sort()).toEqual(['apple-juice', 'grape-juice']);
  });
});

describe('jars and altitude, for every entry', () => {
  const sizes = JAR_SIZES.map(s => s.id);
  it('a smaller jar takes the next size up, a larger one is refused', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PROCESS_ENTRIES),
        fc.constantFrom(...sizes),
        fc.double({ min: -50, max: 3048, noNaN: true }),
        (entry, size, altitude_m) => {
          const answer = processByEntry(entry.id, size, altitude_m);
          const wanted = jarSize(size).pints;
          const rows = entry.rows.filter(r => jarSize(r.jarSize).pints.compare(wanted) >= 0);
          if (rows.length === 0) {
            expect(answer.ok).toBe(false);
            return;
          }
          const next = rows.sort((a, b) => jarSize(a.jarSize).pints.compare(jarSize(b.jarSize).pints))[0];
          expect(answer.ok && answer.time.borrowedFrom).toBe(next?.jarSize === size ? null : next?.jarSize);
          expect(answer.ok && answer.time.minutes).toBeGreaterThanOrEqual(next?.byAltitude[0]?.minutes ?? 0);
        },
      ),
    );
  });

  it('is never shorter higher up', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PROCESS_ENTRIES),
        fc.double({ min: 0, max: 3048, noNaN: true }),
        fc.double({ min: 0, max: 3048, noNaN: true }),
        (entry, a, b) => {
          const size = entry.rows[0]?.jarSize ?? 'pint';
          const low = processByEntry(entry.id, size, Math.min(a, b));
          const high = processByEntry(entry.id, size, Math.max(a, b));
          expect(low.ok && high.ok && high.time.minutes >= low.time.minutes).toBe(true);
        },
      ),
    );
  });

  it('keeps sterile jars for a five-minute entry at every altitude, clean ones from ten', () => {
    const jars = (entryId: string, altitude_ft: number) => {
      const answer = processByEntry(entryId, 'half-pint', metresFromFeet(altitude_ft));
      return answer.ok ? answer.time.jars : '';
    };
    expect(jars('jam-no-pectin-5', 0)).toBe('sterile');
    // Ten minutes here by altitude, but five at sea level: the jars stay sterile.
    expect(jars('jam-no-pectin-5', 2350)).toBe('sterile');
    expect(jars('jam-no-pectin-10', 0)).toBe('clean');
    expect([0, 1000, 1001, 2350, 6000].map(ft => sterilise_min(metresFromFeet(ft)))).toEqual([
      10, 10, 12, 13, 16,
    ]);
  });
});

describe('rules of the trade', () => {
  it('where only a sea-level time is given, takes the longer of the two rules and says which (common practice)', () => {
    const at = (min: number, ft: number) => fromSeaLevel(min, metresFromFeet(ft));
    expect(at(10, 0)).toMatchObject({ minutes: 10 });
    // Band ladder: +5 above 1,000, +10 above 3,000, +15 above 6,000; per thousand: each started one.
    expect(at(10, 1000)).toMatchObject({ minutes: 11 });
    expect(at(10, 1001)).toMatchObject({ minutes: 15 });
    expect(at(10, 3000).minutes).toBe(15);
    expect(at(10, 3001).minutes).toBe(20);
    expect(at(10, 6001).minutes).toBe(25);
    // Over 20 minutes two for each started thousand.
    expect(at(25, 4001).minutes).toBe(25 + 10);
    expect(at(25, 5001)).toMatchObject({ minutes: 25 + 12 });
    expect(at(25, 5001).rule).toMatch(/two minutes/);
    expect(at(25, 2000).rule).toMatch(/ladder/);
  });

  it('steam: half-pints to quarts, 45 minutes at most after the altitude addition (extension research; from memory)', () => {
    const at = (entryId: string, size: JarSizeId, ft: number) => {
      const answer = processByEntry(entryId, size, metresFromFeet(ft));
      if (!answer.ok) throw new Error(answer.what);
      return steamFault(answer.time);
    };
    expect(at('tomatoes-crushed', 'pint', 6000)).toBeNull();
    expect(at('tomatoes-crushed', 'pint', 6001)).toMatch(/over the 45/);
    expect(at('jam-no-pectin-10', 'quarter-pint', 0)).toMatch(/half-pints to quarts/);
    expect(at('apple-juice', 'half-gallon', 0)).toMatch(/half-pints to quarts/);
  });

  it('steam begins at half-pints, ends with quarts and with the forty-fifth minute, and needs a canner', () => {
    const time = { method: 'boiling water', minutes: 45, jarSize: 'half-pint' } as const;
    expect(steamFault(time)).toBeNull();
    expect(steamFault({ ...time, jarSize: 'quart' })).toBeNull();
    expect(steamFault({ ...time, minutes: 46 })).toBe(
      '46 minutes is over the 45 that steam was tested for: the water would boil away.',
    );
    for (const { id, pints } of JAR_SIZES) {
      const tested = pints.compare(1 / 2) >= 0 && pints.compare(2) <= 0;
      expect([id, steamFault({ ...time, jarSize: id }) === null]).toEqual([id, tested]);
    }
    expect(steamFault({ ...time, method: 'hot-fill-hold' })).toMatch(/no canner/);
  });

  it('rows in any order give the same time, and a hot fill keeps sterile jars', () => {
    const basis = entryBasis('tomatoes-crushed');
    if (!basis.ok) throw new Error(basis.what);
    const turned = { ...basis, rows: basis.rows.toReversed() };
    for (const size of ['half-pint', 'pint', 'quart', 'half-gallon'] as const)
      expect(timeFrom(turned, size, 0)).toEqual(timeFrom(basis, size, 0));
    const hot = timeFrom({ ...basis, method: 'hot-fill-hold' }, 'pint', 0);
    expect(hot.ok && hot.time.jars).toBe('sterile');
    const ends = timeFrom({ ...basis, rows: basis.rows.map(r => ({ ...r, at: () => null })) }, 'pint', 3000);
    expect(ends).toMatchObject({ ok: false, what: 'No processing time at this altitude.' });
  });

  it('entries are listed by the product they serve', () => {
    for (const product of ['jelly', 'tomatoes', 'pickle'] as const) {
      const listed = entriesFor(product);
      expect(listed.length).toBeGreaterThan(0);
      expect(listed).toEqual(PROCESS_ENTRIES.filter(e => e.products.includes(product)));
    }
  });

  it('a headspace is shown in inches of 25.4 mm', () => {
    expect([6.35, 12.7, 25.4].map(headspaceInches)).toEqual([0.25, 0.5, 1]);
  });

  it('a jar too large says how far the tables go, and an entry nobody knows is no time', () => {
    const large = processByEntry('jam-no-pectin-10', 'half-gallon', 0);
    expect(large).toMatchObject({ ok: false, what: 'No processing time for half-gallons.' });
    const largest = PROCESS_ENTRIES.find(e => e.id === 'jam-no-pectin-10')?.rows.at(-1)?.jarSize as JarSizeId;
    expect(!large.ok && large.next).toBe(`Use ${jarSize(largest).plural} or smaller.`);
    expect(processByEntry('__proto__', 'pint', 0)).toMatchObject({ ok: false });
  });

  it('a time stored before hot fills were known is one in boiling water; a new one is left as it is', () => {
    const answer = processByEntry('jam-no-pectin-10', 'half-pint', 0);
    if (!answer.ok) throw new Error(answer.what);
    const { method: _method, fill: _fill, ...old } = answer.time;
    expect(upgradeTime(old as typeof answer.time)).toEqual(answer.time);
    const hot = { ...answer.time, method: 'hot-fill-hold' as const, fill: { temp_C: 88, closure: 'lug' } };
    expect(upgradeTime(hot)).toEqual(hot);
  });

  it('water cover is 1 inch, 2 over half an hour', () => {
    expect([30, 31].map(waterCover_in)).toEqual([1, 2]);
  });

  it('bottled juice may replace vinegar, never the other way but in plain tomatoes (USDA, guides 3 and 6; from memory)', () => {
    expect(replaceAcid('vinegar', 'bottled juice', 100, false)).toMatchObject({ ok: true, volume_mL: 100 });
    expect(replaceAcid('bottled juice', 'vinegar', 100, false).ok).toBe(false);
    expect(replaceAcid('bottled juice', 'vinegar', 100, true)).toMatchObject({ ok: true, volume_mL: 200 });
    const citric = replaceAcid('bottled juice', 'citric acid', 14.786_764_781_25, true);
    expect(citric.ok && citric.volume_mL).toBeCloseTo(4.928_921_593_75 / 4, 9);
  });
});

describe("an authority's own time", () => {
  const letter = (process: unknown): Recipe =>
    ({ ...waxBeans, authority: { ...waxBeans.authority, process } }) as Recipe;

  it('reads a letter that gives a sea-level time by our altitude rule', () => {
    const recipe = letter({
      kind: 'sea level',
      pack: 'raw',
      headspace_mm: 12.7,
      minutes: [{ jarSize: 'pint', minutes: 10 }],
    });
    expect(processFor(recipe, 'pint', metresFromFeet(2350))).toMatchObject({
      ok: true,
      time: { minutes: 15, seaLevel_min: 10 },
    });
    expect(processFor(recipe, 'quart', 0).ok).toBe(false);
  });

  it('reads a hot fill and hold: no canner, its temperature and closure', () => {
    const held = letter({
      kind: 'hot-fill-hold',
      temp_C: 88,
      hold_min: 3,
      closure: 'lug cap with a button',
      headspace_mm: 6,
      jarSizes: ['half-pint'],
    });
    expect(processFor(held, 'half-pint', 0)).toMatchObject({
      ok: false,
      what: expect.stringMatching(/hot pack/),
    });
    const recipe: Recipe = { ...held, method: { ...held.method, pack: 'hot' } };
    const answer = processFor(recipe, 'half-pint', 3000);
    expect(answer).toMatchObject({
      ok: true,
      time: { method: 'hot-fill-hold', minutes: 3, fill: { temp_C: 88 } },
    });
    expect(answer.ok && steamFault(answer.time)).toMatch(/no canner/);
    expect(processFor(recipe, 'pint', 0).ok).toBe(false);
  });

  it('belongs to its pack, its packing liquid and its product', () => {
    const what = (recipe: Recipe) => {
      const answer = processFor(recipe, recipe.makes.size, 0);
      return answer.ok ? '' : answer.what;
    };
    const m = crushedTomatoes.method;
    expect(what({ ...crushedTomatoes, method: { ...m, pack: 'raw' } })).toMatch(/set for a hot pack/);
    expect(what({ ...crushedTomatoes, method: { ...m, liquid: 'water' } })).toMatch(
      /set for no packing liquid/,
    );
    expect(what({ ...crushedTomatoes, product: 'salsa' })).toMatch(/no entry for salsa/);
    expect(what({ ...waxBeans, method: { ...waxBeans.method, pack: 'hot' } })).toMatch(/set for a raw pack/);
    expect(what({ ...plumJam, method: { ...plumJam.method, pack: 'raw' } })).toMatch(/set for a hot pack/);
    for (const recipe of [crushedTomatoes, waxBeans, plumJam]) expect(what(recipe)).toBe('');
  });

  it('takes no time from a publication older than the mid-1990s', () => {
    const old = { ...crushedTomatoes, authority: { ...crushedTomatoes.authority, year: 1988 } } as Recipe;
    expect(processFor(old, 'pint', 0)).toMatchObject({ ok: false });
    expect(processFor(crushedTomatoes, 'pint', 0).ok).toBe(true);
  });

  it('refuses above the tables', () => {
    expect(processFor(plumJam, 'half-pint', 3049).ok).toBe(false);
  });
});
