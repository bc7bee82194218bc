import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { minutesAt } from '../heat/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { metresFromFeet } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { PROCESS_ENTRIES, processEntry, waterCover_mm } from '../times/index.ts';
import { routeToSale } from './authority.ts';
import { processFor } from './process-for.ts';

import { describe, expect, it } from 'vitest';

/**
 * The published tables, typed again from memory and apart from the data file: USDA Complete Guide to Home Canning
 * (2015), guide 7 (jams without added pectin), guide 6 (dilled beans), guide 3 (crushed tomatoes; whole or halved in water).
 */
const PUBLISHED: [entry: string, size: JarSizeId, [altitude_ft: number, minutes: number][]][] = [
  [
    'jam-no-pectin-5',
    'half-pint',
    [
      [0, 5],
      [1000, 5],
      [1001, 10],
      [6000, 10],
      [6001, 15],
      [10_000, 15],
    ],
  ],
  [
    'jam-no-pectin-5',
    'pint',
    [
      [1000, 5],
      [1001, 10],
      [6000, 10],
      [6001, 15],
    ],
  ],
  [
    'dilled-beans',
    'pint',
    [
      [0, 5],
      [1000, 5],
      [1001, 10],
      [6000, 10],
      [6001, 15],
    ],
  ],
  [
    'tomatoes-crushed',
    'pint',
    [
      [0, 35],
      [1000, 35],
      [1001, 40],
      [3000, 40],
      [3001, 45],
      [6000, 45],
      [6001, 50],
    ],
  ],
  [
    'tomatoes-crushed',
    'quart',
    [
      [1000, 45],
      [1001, 50],
      [3000, 50],
      [3001, 55],
      [6000, 55],
      [6001, 60],
    ],
  ],
  [
    'tomatoes-in-water',
    'pint',
    [
      [1000, 40],
      [1001, 45],
      [3000, 45],
      [3001, 50],
      [6000, 50],
      [6001, 55],
    ],
  ],
  [
    'tomatoes-in-water',
    'quart',
    [
      [1000, 45],
      [1001, 50],
      [3000, 50],
      [3001, 55],
      [6000, 55],
      [6001, 60],
    ],
  ],
];

describe('processing times', () => {
  it.each(
    PUBLISHED.flatMap(([entry, size, rows]) => rows.map(([ft, min]) => [entry, size, ft, min] as const)),
  )('%s, %s, at %s ft: %s min', (entry, size, ft, min) => {
    const row = processEntry(entry)?.rows.find(r => r.jarSize === size);
    expect(minutesAt(row?.byAltitude ?? [], metresFromFeet(ft))?.minutes).toBe(min);
  });

  it('each row states its source and that it comes from memory, and its bands rise', () => {
    for (const entry of PROCESS_ENTRIES) {
      expect(entry.source.title).not.toBe('');
      expect(entry.source.part).not.toBe('');
      expect(entry.source.fromMemory).toBe(true);
      for (const row of entry.rows) {
        expect(row.byAltitude.at(-1)?.upTo_ft).toBeNull();
        for (let i = 1; i < row.byAltitude.length; i++)
          expect((row.byAltitude[i] as { minutes: number }).minutes).toBeGreaterThanOrEqual(
            (row.byAltitude[i - 1] as { minutes: number }).minutes,
          );
        // One published row, berries and the like, keeps its minutes over two bands; none ends where it began.
        expect((row.byAltitude.at(-1) as { minutes: number }).minutes).toBeGreaterThan(
          (row.byAltitude[0] as { minutes: number }).minutes,
        );
      }
    }
  });

  it('gives the three demo recipes their times at 2,350 ft', () => {
    const at = (recipe: Recipe, size: JarSizeId) => processFor(recipe, size, metresFromFeet(2350));
    expect(at(plumJam, 'half-pint')).toMatchObject({
      ok: true,
      time: { minutes: 15, seaLevel_min: 10, jars: 'clean', band: '1,001 to 6,000 ft' },
    });
    expect(at(waxBeans, 'pint')).toMatchObject({ ok: true, time: { minutes: 15, pack: 'raw' } });
    expect(at(crushedTomatoes, 'pint')).toMatchObject({
      ok: true,
      time: { minutes: 40, headspace_mm: 12.7 },
    });
    expect(at(crushedTomatoes, 'quart')).toMatchObject({ ok: true, time: { minutes: 50 } });
  });

  it('takes the next size up for a smaller jar and refuses a larger one with the reason', () => {
    expect(processFor(plumJam, 'quarter-pint', 0)).toMatchObject({
      ok: true,
      time: { minutes: 10, borrowedFrom: 'half-pint' },
    });
    const quart = processFor(waxBeans, 'quart', 0);
    expect(quart).toMatchObject({ ok: false, what: 'No processing time for quarts.' });
    expect(!quart.ok && quart.why).toContain('goes up to pints');
  });

  it('keeps sterile jars for a five-minute entry at every altitude', () => {
    const five: Recipe = { ...plumJam, authority: { grade: 'own', entryId: 'jam-no-pectin-5' } };
    expect(processFor(five, 'half-pint', metresFromFeet(7000))).toMatchObject({
      ok: true,
      time: { minutes: 15, jars: 'sterile' },
    });
  });

  it('lends an own or untested recipe no time', () => {
    const own: Recipe = { ...waxBeans, authority: { grade: 'own', entryId: 'dilled-beans' } };
    expect(processFor(own, 'pint', 0)).toMatchObject({
      ok: false,
      what: 'An own recipe has no processing time to borrow.',
    });
    expect(routeToSale(own).open).toBe(false);
    const untested: Recipe = { ...plumJam, authority: { grade: 'published, untested', title: 'A cookbook' } };
    expect(processFor(untested, 'half-pint', 0).ok).toBe(false);
    expect(routeToSale(untested).open).toBe(false);
  });

  it('opens the family time to spreads of safely acid fruit, whatever they may be called', () => {
    const with_ = (sugar: string, over: Partial<Recipe['lines'][number]> = {}): Recipe => ({
      ...plumJam,
      lines: [
        {
          ...(plumJam.lines[0] as Recipe['lines'][number]),
          amount: { text: '470 g', unit: 'g', value: '470', upTo: null, toTaste: false },
          group: 'I',
          ...over,
        },
        {
          ...(plumJam.lines[1] as Recipe['lines'][number]),
          amount: { text: `${sugar} g`, unit: 'g', value: sugar, upTo: null, toTaste: false },
        },
      ],
    });
    expect(routeToSale(with_('550')).open).toBe(true);
    // A gram more sugar is a matter of the name (21 CFR 150.160), and no matter of safety.
    expect(routeToSale(with_('551')).open).toBe(true);
    expect(routeToSale(with_('500', { safelyAcid: false })).open).toBe(false);
    expect(routeToSale(with_('400', { role: 'low-acid produce' })).open).toBe(false);
  });

  it('ends where the tables end, and asks for two inches of water over half an hour', () => {
    expect(processFor(plumJam, 'half-pint', 3100).ok).toBe(false);
    expect(waterCover_mm(30)).toBeCloseTo(25.4);
    expect(waterCover_mm(31)).toBeCloseTo(50.8);
  });
});
