import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { fromSeaLevel, sterilise_min } from '../heat/index.ts';
import { replaceAcid } from '../ingredients/index.ts';
import { JAR_SIZES, jarSize, type JarSizeId } from '../jars/index.ts';
import { depthText, metresFromFeet, MM_PER_INCH } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { processFor } from '../review/index.ts';
import { PROCESS_ENTRIES, entriesFor } from './entries.ts';
import { entryBasis, processByEntry, timeFrom, upgradeTime, waterCover_mm } from './scheduled.ts';
import { steamFault } from './steam.ts';

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const minutes = (entryId: string, size: JarSizeId, altitude_ft: number) => {
  const answer = processByEntry(entryId, size, metresFromFeet(altitude_ft));
  return answer.ok ? answer.time.minutes : answer.what;
};

/** Minutes of an entry by jar and band. */
const rowsOf = (entryId: string) => {
  const entry = PROCESS_ENTRIES.find(e => e.id === entryId);
  if (!entry) throw new Error(entryId);
  return entry.rows;
};
const atSeaLevel = (entryId: string, size: JarSizeId) => minutes(entryId, size, 0);
const ROWS = PROCESS_ENTRIES.flatMap(e => e.rows.map(r => [r.id, r.byAltitude] as const));

/**
 * The tables come from one memory, and a second table from the same memory would prove nothing. They are held to rules of
 * their own, which a slip of a figure breaks: how bands rise, what a larger jar, a colder pack and a thicker food may not
 * fall below, what kind of product has which headspace. What the rules cannot see, the owner does, who confirms each entry
 * from the open page before the first sale.
 */
describe('published times (USDA Complete Guide to Home Canning, 2015; from memory), by rules all of them obey', () => {
  it('has the entries of the guides, and beside each of five minutes its clean-jar form', () => {
    expect(PROCESS_ENTRIES.filter(e => e.cleanFormOf === null)).toHaveLength(89);
    for (const entry of PROCESS_ENTRIES) {
      const isShort = entry.rows.some(r => (r.byAltitude[0]?.minutes ?? 0) < 10);
      const clean = PROCESS_ENTRIES.filter(e => e.cleanFormOf === entry.id);
      expect(clean, entry.id).toHaveLength(isShort ? 1 : 0);
      for (const form of clean) {
        expect(form.rows.every(r => (r.byAltitude[0]?.minutes ?? 0) >= 10)).toBe(true);
        expect(
          form.rows.map(r => r.byAltitude.map(b => b.minutes - (r.byAltitude[0]?.minutes ?? 0))),
        ).toEqual(entry.rows.map(r => r.byAltitude.map(b => b.minutes - (r.byAltitude[0]?.minutes ?? 0))));
      }
    }
  });

  it.each(ROWS)(
    '%s: in fives, rising by nothing or five from band to band, by ten to fifteen in all',
    (_, bands) => {
      const figures = bands.map(b => b.minutes);
      expect(figures.every(m => m % 5 === 0 && m >= 5 && m <= 100)).toBe(true);
      figures.slice(1).forEach((m, i) => expect([0, 5]).toContain(m - (figures[i] as number)));
      const rise = (figures.at(-1) as number) - (figures[0] as number);
      // Three bands rise each time; of four, those that begin at fifteen may stay for one.
      expect(rise).toBeGreaterThanOrEqual(10);
      expect(rise).toBe(bands.length === 3 ? 10 : figures.some((m, i) => m === figures[i + 1]) ? 10 : 15);
      // From half an hour on the guide gives four bands.
      if ((figures[0] as number) >= 30) expect(bands).toHaveLength(4);
    },
  );

  it.each(ROWS)('%s: both sides of each edge of a band', (id, bands) => {
    const [entryId = '', size] = id.split('/');
    bands.forEach(({ upTo_ft, minutes: m }, i) => {
      if (upTo_ft === null) return expect(minutes(entryId, size as JarSizeId, 10_000)).toBe(m);
      expect(minutes(entryId, size as JarSizeId, upTo_ft)).toBe(m);
      expect(minutes(entryId, size as JarSizeId, upTo_ft + 0.1)).toBe(bands[i + 1]?.minutes);
    });
  });

  it('a larger jar never takes less, in any band, and at most ten minutes more than the next', () => {
    for (const entry of PROCESS_ENTRIES) {
      const rows = [...entry.rows].sort((a, b) => jarSize(a.jarSize).pints.compare(jarSize(b.jarSize).pints));
      rows.slice(1).forEach((row, i) =>
        row.byAltitude.forEach((band, k) => {
          const smaller = rows[i]?.byAltitude[k]?.minutes as number;
          expect(band.minutes, row.id).toBeGreaterThanOrEqual(smaller);
          expect(band.minutes, row.id).toBeLessThanOrEqual(smaller + 10);
        }),
      );
    }
  });

  it('a raw pack never takes less than the hot pack of the same food', () => {
    const pairs = PROCESS_ENTRIES.flatMap(raw =>
      PROCESS_ENTRIES.filter(
        hot => raw.pack === 'raw' && hot.pack === 'hot' && raw.product === hot.product,
      ).map(hot => [raw, hot] as const),
    );
    expect(pairs.length).toBeGreaterThanOrEqual(8);
    for (const [raw, hot] of pairs)
      for (const row of raw.rows) {
        const other = hot.rows.find(r => r.jarSize === row.jarSize);
        row.byAltitude.forEach((band, k) =>
          expect(band.minutes, row.id).toBeGreaterThanOrEqual(other?.byAltitude[k]?.minutes ?? 0),
        );
      }
  });

  it('thicker food never takes less than thinner food of the same kind', () => {
    for (const order of [
      ['tomato-juice', 'tomato-sauce', 'tomatoes-crushed', 'tomatoes-in-water', 'tomatoes-in-juice'],
      ['tomato-juice', 'tomato-vegetable-juice'],
      ['tomatoes-in-water-raw', 'tomatoes-no-liquid'],
      ['apple-juice', 'applesauce', 'apple-slices', 'apple-pie-filling'],
      ['grape-juice', 'grapes-hot'],
      ['berry-syrup', 'berries-hot', 'blueberry-pie-filling'],
      ['cherries-hot', 'cherry-pie-filling'],
      ['fruit-puree', 'peaches-hot', 'peach-pie-filling'],
      ['jam-pectin-5', 'berry-syrup'],
      ['tomato-salsa', 'tomato-sauce'],
      ['pickle-relish', 'corn-relish'],
    ])
      order.slice(1).forEach((thick, i) => {
        for (const size of ['pint', 'quart'] as const) {
          const thin = order[i] as string;
          if (![thin, thick].every(id => rowsOf(id).some(r => r.jarSize === size))) continue;
          expect(atSeaLevel(thick, size), `${thick} ${size}`).toBeGreaterThanOrEqual(
            atSeaLevel(thin, size) as number,
          );
        }
      });
  });

  it('each kind of product has its headspace (guide 1 and trade; from memory)', () => {
    const inches = (product: string) => [
      ...new Set(
        PROCESS_ENTRIES.filter(e => (e.products as readonly string[])[0] === product).map(
          e => e.headspace_mm / MM_PER_INCH,
        ),
      ),
    ];
    for (const spread of ['jam', 'jelly', 'marmalade', 'fruit butter'])
      expect(inches(spread)).toEqual([1 / 4]);
    for (const half of ['pickle', 'relish', 'salsa', 'chutney', 'tomatoes', 'sauerkraut', 'syrup'])
      expect(inches(half), half).toEqual([1 / 2]);
    expect(inches('pie filling')).toEqual([1]);
    expect(inches('ketchup')).toEqual([1 / 8]);
    // Grapes swell: an inch; all other fruit half of one.
    expect(inches('fruit in liquid').sort()).toEqual([1 / 2, 1]);
    // Fruit juice a quarter, tomato juice a half.
    expect(inches('juice').sort()).toEqual([1 / 4, 1 / 2]);
  });

  it('plain tomatoes and figs take acid in each pint, and nothing else does; vinegar is twice the lemon', () => {
    const dosed = PROCESS_ENTRIES.filter(e => e.acidInEachPint !== null);
    const plain = PROCESS_ENTRIES.filter(
      e => e.id === 'figs' || (e.id.startsWith('tomato') && !/ketchup|salsa/.test(e.id)),
    );
    expect(dosed).toEqual(plain);
    for (const { id, acidInEachPint: dose } of dosed) {
      expect(dose).toMatchObject({ bottledLemon_tbsp: 1, citricAcid_tsp: 1 / 4 });
      expect(dose?.vinegar_tbsp, id).toBe(id === 'figs' ? null : 2);
    }
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
    const withHalfGallon = PROCESS_ENTRIES.filter(
      e => e.cleanFormOf === null && e.rows.some(r => r.jarSize === 'half-gallon'),
    ).map(e => e.id);
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

  it('steam: quarter-pints as half-pints, to quarts, 45 minutes at most after the altitude addition (extension research; from memory)', () => {
    const at = (entryId: string, size: JarSizeId, ft: number) => {
      const answer = processByEntry(entryId, size, metresFromFeet(ft));
      if (!answer.ok) throw new Error(answer.what);
      return steamFault(answer.time);
    };
    expect(at('tomatoes-crushed', 'pint', 6000)).toBeNull();
    expect(at('tomatoes-crushed', 'pint', 6001)).toMatch(/over the 45/);
    expect(at('jam-no-pectin-10', 'quarter-pint', 0)).toBeNull();
    expect(at('apple-juice', 'half-gallon', 0)).toMatch(/up to quarts/);
  });

  it('steam ends with quarts and with the forty-fifth minute, and needs a canner', () => {
    const time = { method: 'boiling water', minutes: 45, jarSize: 'half-pint' } as const;
    expect(steamFault(time)).toBeNull();
    expect(steamFault({ ...time, jarSize: 'quart' })).toBeNull();
    expect(steamFault({ ...time, minutes: 46 })).toBe(
      '46 minutes is over the 45 that steam was tested for: the water would boil away.',
    );
    for (const { id, pints } of JAR_SIZES) {
      const tested = pints.compare(2) <= 0;
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
    expect([6.35, 12.7, 25.4].map(mm => depthText(mm, { locale: 'en-US', measures: 'US' }))).toEqual([
      '1/4 in',
      '1/2 in',
      '1 in',
    ]);
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
    expect([30, 31].map(waterCover_mm)).toEqual([25.4, 50.8]);
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
