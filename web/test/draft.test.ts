import { readNumber } from '@cocotte/core/measure';
import type { Kitchen } from '@cocotte/core/kitchen';
import { type Recipe, classOf, libraryOf } from '@cocotte/core/recipes';
import * as demo from '@cocotte/demo/recipes';
import { fieldText } from '@cocotte/core/measure';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { draftOf } from '../src/recipes/editor/draft.ts';
import { readDraft } from '../src/recipes/editor/read-draft.ts';

const kitchen = (locale: string, imperial: boolean): Kitchen => ({
  id: 'k',
  name: 'Kitchen',
  altitude_m: 0,
  hourlyRate: '0',
  makerName: '',
  makerAddress: '',
  jurisdiction: { name: '', statement: '', source: '', confirmedOn: null },
  thermometerError_C: 0,
  pots: [],
  canners: [],
  version: 1,
  locale,
  currency: 'USD',
  zone: 'UTC',
  temperature: imperial ? 'F' : 'C',
  altitude: imperial ? 'ft' : 'm',
});
const LIBRARY = new Map(libraryOf([]).map(i => [i.id, i]));
const hint = (id: string | null) => (id === null ? {} : (LIBRARY.get(id) ?? {}));
const letter = demo.waxBeans.authority as Extract<Recipe['authority'], { grade: 'letter' }>;
/** The demo's recipes, and shapes it has none of. */
const RECIPES: Recipe[] = [
  ...Object.values(demo),
  {
    ...demo.waxBeans,
    authority: {
      ...letter,
      process: {
        kind: 'hot-fill-hold',
        temp_C: 88,
        hold_min: 2.5,
        closure: 'lug cap',
        headspace_mm: 6.35,
        jarSizes: ['pint'],
      },
    },
  },
  {
    ...demo.waxBeans,
    authority: {
      ...letter,
      process: {
        kind: 'sea level',
        pack: 'raw',
        headspace_mm: 12.7,
        minutes: [{ jarSize: 'pint', minutes: 10 }],
      },
    },
  },
  {
    ...demo.plumJam,
    outlets: [
      { id: 'o', name: 'Syrup', share: 0.125, use: 'jars', jarSize: 'half-pint', entryId: 'berry-syrup' },
    ],
    steps: demo.plumJam.steps.map((s, i) => ({
      ...s,
      target:
        i === 3
          ? { kind: 'temperature', temp_C: 82.5, hold_min: 10 }
          : i === 5
            ? { kind: 'depth', depth_mm: 50.8 }
            : i === 6
              ? { kind: 'volume', volume_mL: 2250 }
              : s.target,
      ...(i === 2 ? { separates: { part: 'juice', share: 0.375 }, mayStop_h: 12.5 } : {}),
    })),
  },
];

describe('the editor', () => {
  it.each([
    ['en-US', true],
    ['en-GB', false],
    ['de-DE', false],
    ['fr-FR', false],
  ] as const)('opened and kept without a change, a recipe is the same (%s)', (locale, imperial) => {
    for (const recipe of RECIPES) {
      const here = kitchen(locale, imperial);
      const { recipe: read, faults } = readDraft(draftOf(recipe, here, 0), here, recipe, hint);
      expect(faults, recipe.name).toEqual([]);
      expect(read, recipe.name).toEqual({ ...recipe, foodClass: classOf(recipe) });
    }
  });

  it('a figure in a field is read as what it was, in every locale', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('en-US', 'de-DE', 'fr-FR', 'en-IN', 'sv-SE'),
        fc.integer({ min: 0, max: 99_999_999 }),
        (locale, n) => {
          const value = n / 10_000;
          const read = readNumber(fieldText(value, locale), locale, { name: 'x', min: 0, max: 10_000 });
          expect(read.ok && read.value).toBeCloseTo(value, 9);
        },
      ),
    );
  });
});
