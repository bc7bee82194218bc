import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, sauerkraut, tomatoSalsa, waxBeans } from '../../../demo/recipes.ts';
import { following, written, writtenAs } from '../../../testing/covers.ts';
import {
  amountOf,
  lineOf,
  withAmount,
  withLine,
  withLines,
  withoutLine,
} from '../../../testing/recipe-lines.ts';
import { libraryOf } from '../../ingredients/index.ts';
import { Fraction, PLAIN_FIGURES } from '../../measure/index.ts';
import { type Line, type Recipe } from '../../recipes/index.ts';
import { PROCESS_ENTRIES, type ProcessEntry, processEntry } from '../../times/index.ts';
import { formulaChanges, routeToSale } from '../authority.ts';
import { formulaOf } from '../changes/change.ts';
import { coverChanges, coverGrams } from './index.ts';
import { freeText } from '../free.ts';
import { coverText } from './words.ts';
import { COVERS } from '../data/covers.ts';

const LIBRARY = new Map(libraryOf([]).map(i => [i.id, i]));
const codes = (recipe: Recipe) => coverChanges(recipe).map(c => c.code);
const WRITTEN = PROCESS_ENTRIES.flatMap(entry =>
  (COVERS[entry.cleanFormOf ?? entry.id] ?? []).map(
    (cover, i) => [`${entry.id} ${i}`, written(entry, cover), cover] as const,
  ),
);

const scaled = (recipe: Recipe, times: Fraction): Recipe => ({
  ...recipe,
  lines: recipe.lines.map(l =>
    l.where === 'each jar'
      ? l
      : { ...l, amount: { ...l.amount, value: new Fraction(l.amount.value).mul(times).toFraction() } },
  ),
});

describe('what the published entries cover (USDA Complete Guide, 2015; from memory)', () => {
  it('is written down for every entry, of ingredients the library knows, in amounts that can be weighed', () => {
    expect(Object.keys(COVERS).sort()).toEqual(
      PROCESS_ENTRIES.filter(e => e.cleanFormOf === null)
        .map(e => e.id)
        .sort(),
    );
    for (const [id, covers] of Object.entries(COVERS))
      for (const cover of covers ?? []) {
        expect(cover.anyAcidFruit || cover.food.some(f => f.main), id).toBe(true);
        for (const part of [...cover.food, ...cover.acid]) {
          expect(
            part.ids.filter(i => !LIBRARY.has(i)),
            id,
          ).toEqual([]);
          if (part.amount)
            for (const i of part.ids) expect(coverGrams(part, i), `${id} ${i}`).toBeGreaterThan(0);
        }
      }
  });

  it('asks for acid wherever produce is not acid by itself: in the pot, the brine or each jar', () => {
    for (const [id, covers] of Object.entries(COVERS)) {
      const entry = processEntry(id) as ProcessEntry;
      for (const cover of covers ?? []) {
        const lowAcid = cover.food.some(f => f.ids.some(i => !LIBRARY.get(i)?.safelyAcid));
        const asks =
          cover.acid.length > 0 || entry.acidInEachPint !== null || entry.products.includes('sauerkraut');
        expect(!lowAcid || asks, id).toBe(true);
      }
    }
  });

  it.each(WRITTEN)('%s: its own formula is covered, at every scale', (_, recipe) => {
    expect(coverChanges(recipe)).toEqual([]);
    for (const times of ['1/3', '7/2', '12']) expect(codes(scaled(recipe, new Fraction(times)))).toEqual([]);
  });

  it.each(WRITTEN)(
    '%s: each loss is named, with what brings it back, and going back restores it',
    (_, recipe, cover) => {
      const named = new Set(cover.food.flatMap(f => f.ids));
      const added = ['onion', 'garlic', 'bell-pepper', 'mushroom', 'snap-bean', 'fig'].filter(
        i => !named.has(i),
      );
      const edits: [code: string | null, (r: Recipe) => Recipe][] = [
        ...added.map(
          i =>
            ['produce-added', (r: Recipe) => withLines(r, lineOf(i, '200 g'))] as [
              string,
              (r: Recipe) => Recipe,
            ],
        ),
        ['produce-added', r => withLines(r, lineOf('Widdershins', '50 g', 'w', { role: 'other' }))],
        // Called a spice, it is still what its name says.
        ...added
          .slice(0, 1)
          .map(
            i =>
              [
                'produce-added',
                (r: Recipe) => withLines(r, lineOf(i, '200 g', 'as-spice', { role: 'spice' })),
              ] as [string, (r: Recipe) => Recipe],
          ),
        ['oil', r => withLines(r, lineOf('oil', '3 c', 'more-oil'))],
        ['thickening', r => withLines(r, lineOf('canning-starch', '3 lb', 'thick'))],
        // What every cook may do.
        [null, r => withLines(r, lineOf('black-pepper', '1 tsp'))],
        [null, r => withLines(r, lineOf('canning-salt', '1 tsp', 'more-salt'))],
        [null, r => withLines(r, lineOf('butter', '1/2 tsp'))],
      ];
      if (cover.water !== null || cover.packed)
        edits.push([
          cover.packed ? 'weaker-brine' : 'diluted',
          r => withLines(r, lineOf('water', '3 qt', 'more-water', { where: 'brine' })),
        ]);
      if (cover.acid.length > 0)
        edits.push([
          cover.packed && (cover.water === '' || cover.water === null)
            ? null
            : cover.packed
              ? 'weaker-brine'
              : 'less-acid',
          r => ({
            ...r,
            lines: r.lines.map(l =>
              cover.acid.some(a => a.ids[0] === l.id)
                ? {
                    ...l,
                    amount: { ...l.amount, value: new Fraction(l.amount.value).mul(9, 10).toFraction() },
                  }
                : l,
            ),
          }),
        ]);
      for (const food of cover.food.filter(f => !f.main && f.amount))
        edits.push(['more-low-acid', r => withLines(r, lineOf(food.ids[0] as string, food.amount, 'twice'))]);
      fc.assert(
        fc.property(fc.subarray(edits, { minLength: 1 }), chosen => {
          let now = recipe;
          for (const [, edit] of chosen) now = edit(now);
          const found = coverChanges(now);
          const wanted = new Set(chosen.flatMap(([code]) => code ?? []));
          // An entry of several formulas names what is lost from the one that fits best.
          if (
            (COVERS[
              recipe.authority.grade === 'tested publication' && recipe.authority.time.kind === 'entry'
                ? recipe.authority.time.entryId
                : ''
            ]?.length ?? 0) > 1
          )
            expect(found.length > 0).toBe(wanted.size > 0);
          else for (const code of wanted) expect(found.map(c => c.code)).toContain(code);
          if (wanted.size === 0) expect(found).toEqual([]);
          for (const change of found)
            expect(change).toMatchObject({ breaks: true, next: expect.stringMatching(/\S/) });
          // Whatever else was done, taking back what was done restores it.
          const ids = new Set(recipe.lines.map(l => l.id));
          const back = {
            ...now,
            lines: now.lines
              .filter(l => ids.has(l.id))
              .map(l => recipe.lines.find(x => x.id === l.id) as Line),
          };
          expect(coverChanges(back)).toEqual([]);
        }),
        { numRuns: 12 },
      );
    },
  );
});

describe('ways past an entry that were tried', () => {
  it('whatever is typed first as tested, and taken over anew, is held against the entry', () => {
    const eight = writtenAs('dill-pickles');
    const typed = withLines(
      withAmount(withAmount(eight, 'white-vinegar', '8 c'), 'water', '8 c'),
      lineOf('garlic', '1 clove', 'garlic', { where: 'each jar' }),
    );
    const taken: Recipe = { ...typed, tested: { takenOn: '2026-11-26', ...formulaOf(typed) } };
    for (const recipe of [typed, taken]) {
      expect(formulaChanges(recipe).map(c => c.what)).toEqual([
        'Garlic: Quick fresh-pack dill pickles names none.',
      ]);
      expect(routeToSale(recipe)).toMatchObject({ open: false });
    }
    // Stronger than the entry asks for is free: 8 to 8 where it has 6 to 8.
    expect(routeToSale(withoutLine(typed, 'garlic'))).toMatchObject({ open: true });
    expect(codes(withAmount(withoutLine(typed, 'garlic'), 'white-vinegar', '5 c'))).toEqual(['weaker-brine']);
  });

  it('tomato sauce takes no onions, peppers, garlic, basil or oil, by any name and any role', () => {
    const sauce = writtenAs('tomato-sauce');
    expect(routeToSale(sauce).open).toBe(true);
    for (const [name, over] of [
      ['onion', {}],
      ['Chopped yellow onions', { role: 'spice' }],
      ['basil', {}],
      ['garlic', { role: 'salt' }],
      ['bell-pepper', { role: 'sweetener' }],
      ['Onions', { ...lineOf('plum', '1 lb'), id: 'x', name: 'Onions' }],
      ['__proto__', { role: 'other' }],
    ] as [string, Partial<Line>][])
      expect(codes(withLines(sauce, lineOf(name, '8 oz', 'x', over))), name).toContain('produce-added');
    expect(codes(withLines(sauce, lineOf('oil', '1 Tbsp')))).toEqual(['oil']);
    expect(codes(withLines(sauce, lineOf('water', '1 c')))).toEqual(['diluted']);
    // Dipped for scalding, it is never in the food.
    expect(codes(withLines(sauce, lineOf('water', '1 gal', 'w', { where: 'dip' })))).toEqual([]);
  });

  it('three cups of vegetables in 22 lb of tomatoes, and not six, in any mixture (guide 3; from memory)', () => {
    const juice = { ...writtenAs('tomato-vegetable-juice') };
    const plain = withoutLine(juice, 'celery');
    const mixed = (c: string, o: string) => withLines(plain, lineOf('celery', c), lineOf('onion', o));
    expect(codes(mixed('1 c', '2 c'))).toEqual([]);
    expect(codes(mixed('3 c', '3 c'))).toEqual(['more-low-acid']);
    const [change] = coverChanges(mixed('3 c', '3 c'));
    expect(change?.what).toMatch(/g; the entry has 3 c for 22 lb of tomatoes, here .* g at most\.$/);
    expect(codes(scaled(mixed('1 c', '2 c'), new Fraction(5)))).toEqual([]);
    expect(codes(withLines(plain, lineOf('cucumber', '1 c')))).toEqual(['produce-added']);
  });

  it('sweet for sweet, hot for hot, onion for onion, weight for weight; not one for the other', () => {
    const sauce = writtenAs('hot-tomato-pepper-sauce');
    const peppers = (name: string, text: string) =>
      withLines(withoutLine(sauce, 'hot-pepper'), lineOf(name, text));
    expect(codes(peppers('jalapeno', '2 lb'))).toEqual([]);
    expect(codes(peppers('jalapeno', '2 1/4 lb'))).toEqual(['more-low-acid']);
    expect(codes(peppers('bell-pepper', '2 lb'))).toEqual(['produce-added']);
    const red = withLines(withAmount(sauce, 'onion', '1/2 lb'), lineOf('red-onion', '1/2 lb'));
    expect(codes(red)).toEqual([]);
    expect(codes(withAmount(red, 'red-onion', '1 lb'))).toEqual(['more-low-acid']);
  });

  it('dried spices are free to one part in a hundred of the pot; above it dried peppers, garlic and onion are fresh', () => {
    const relish = writtenAs('pickle-relish');
    expect(codes(withLines(relish, lineOf('dried-garlic', '1 Tbsp')))).toEqual([]);
    expect(codes(withLines(relish, lineOf('dried-garlic', '1 1/2 c')))).toEqual(['spice-as-fresh']);
    // Where the entry has peppers, they count among them.
    expect(codes(withLines(relish, lineOf('paprika', '1 1/2 c')))).toEqual(['more-low-acid']);
    expect(codes(withLines(relish, lineOf('mustard-seed', '1 c')))).toEqual([]);
    expect(codes(withLines(relish, lineOf('soy-sauce', '2 c')))).toEqual(['other']);
  });

  it('bottled juice may stand in for vinegar, vinegar never for juice', () => {
    const swap = (recipe: Recipe, from: string, to: string, text: string) =>
      withLines(withoutLine(recipe, from), lineOf(to, text));
    expect(codes(swap(writtenAs('pickle-relish'), 'white-vinegar', 'bottled-lemon', '4 c'))).toEqual([]);
    expect(codes(swap(writtenAs('tomatillo-salsa'), 'bottled-lemon', 'white-vinegar', '1 c'))).toEqual([
      'vinegar-for-juice',
    ]);
    expect(codes(swap(writtenAs('tomatillo-salsa'), 'bottled-lemon', 'fresh-lemon', '1 c'))).toContain(
      'less-acid',
    );
    expect(codes(swap(writtenAs('pickle-relish'), 'white-vinegar', 'homemade-vinegar', '4 c'))).toContain(
      'less-acid',
    );
    // Of a range the least counts.
    expect(codes(withAmount(writtenAs('pickle-relish'), 'white-vinegar', '3-5 c'))).toEqual(['less-acid']);
  });

  it('a reduced-sugar spread inherits no jam time, and no spread holds what is not safely acid', () => {
    const jam = writtenAs('jam-no-pectin-5');
    expect(routeToSale(jam).open).toBe(true);
    expect(codes(withAmount(jam, 'sugar', '2 lb'))).toEqual(['reduced-sugar']);
    expect(
      codes(withLines(jam, lineOf('Plums', '1 lb', 'odd', { role: 'fruit', safelyAcid: true }))),
    ).toEqual([]);
    expect(
      codes(withLines(jam, lineOf('White peaches', '1 lb', 'odd', { role: 'fruit', safelyAcid: true }))),
    ).toEqual(['produce-added']);
    expect(codes({ ...jam, setBy: 'ordinary pectin' })).toEqual(['thickening']);
    expect(codes(withLines(jam, lineOf('pectin-powder', '1 package')))).toEqual(['thickening']);
  });

  it('acid in each jar of tomatoes and figs: of any kind the entry offers, and enough of it', () => {
    const dose = (name: string, text: string): Recipe => ({
      ...crushedTomatoes,
      lines: [crushedTomatoes.lines[0] as Line, lineOf(name, text, 'dose', { where: 'each jar' })],
    });
    expect(codes(crushedTomatoes)).toEqual([]);
    for (const [name, text] of [
      ['citric-acid', '1/4 tsp'],
      ['white-vinegar', '2 Tbsp'],
    ] as const)
      expect(codes(dose(name, text))).toEqual([]);
    for (const [name, text] of [
      ['citric-acid', '1/8 tsp'],
      ['white-vinegar', '1 Tbsp'],
      ['fresh-lemon', '1 Tbsp'],
      ['sugar', '1 Tbsp'],
    ] as const)
      expect(codes(dose(name, text)), name).toContain('less-acid');
    expect(coverChanges(dose('bottled-lemon', '2 tsp'))[0]?.next).toMatch(
      /1 tablespoon of bottled lemon juice or 0.25 teaspoon of citric acid, or 2 tablespoons/,
    );
    const figs = writtenAs('figs');
    const vinegar = withLines(
      withoutLine(figs, 'dose'),
      lineOf('white-vinegar', '2 Tbsp', 'dose', { where: 'each jar' }),
    );
    expect(codes(vinegar)).toEqual(['less-acid']);
    // In the pot it is not in each jar.
    expect(codes(withLine(crushedTomatoes, 'lemon', { where: 'pot', amount: amountOf('2 c') }))).toEqual([
      'less-acid',
    ]);
  });

  it('what an entry covers is said before a recipe is written', () => {
    const said = (id: string) => coverText(processEntry(id) as ProcessEntry);
    expect(said('dilled-beans')).toEqual([
      'Of 4 lb of snap beans; at most 8 cloves of garlic; fresh dill as liked. At least 5 c of white vinegar, 5 %, to 5 c of water at most. Whole or chopped.',
    ]);
    expect(said('tomato-salsa')).toHaveLength(2);
    expect(said('apple-butter-10')).toEqual(said('apple-butter'));
    for (const entry of PROCESS_ENTRIES)
      for (const text of said(entry.id)) expect(text, entry.id).toMatch(/^Of [^{}]+\.$/);
    expect(coverText({ id: '__proto__', cleanFormOf: null })).toEqual([]);
  });

  it('what is free is said with its figure, where an authority asks anything', () => {
    const said = (recipe: Recipe, name: string) =>
      freeText(recipe, lineOf(name, '1 tsp'), 5000, PLAIN_FIGURES);
    expect(said(crushedTomatoes, 'black-pepper')).toBe(
      'to taste: dried spices are free to 50 g of this pot, together',
    );
    expect(said(waxBeans, 'canning-salt')).toBe('to taste: salt is flavour here');
    expect(said(crushedTomatoes, 'canning-salt')).toBeNull();
    expect(said(waxBeans, 'butter')).toMatch(/^free to 2\.5 g against foam/);
    expect([said(tomatoSalsa, 'black-pepper'), said(waxBeans, 'onion')]).toEqual([null, null]);
  });

  it('cut, peel and straining as it was tested, where the entry says', () => {
    const method = (over: Partial<Recipe['method']>): Recipe => ({
      ...crushedTomatoes,
      method: { ...crushedTomatoes.method, ...over },
    });
    expect(codes(method({ peel: 'skins on' }))).toEqual(['peel']);
    expect(codes(method({ cut: 'puréed' }))).toEqual(['pureed']);
    expect(codes(method({ strain: 'strained' }))).toEqual([]);
    expect(codes({ ...sauerkraut, method: { ...sauerkraut.method, cut: 'whole' } })).toEqual(['cut']);
  });

  it('a leaflet or a letter is held against what was taken over, an own recipe against nothing of it', () => {
    expect(coverChanges(waxBeans)).toEqual([]);
    expect(coverChanges(tomatoSalsa)).toEqual([]);
    expect(coverChanges({ ...tomatoSalsa, authority: following('nothing-of-that-name') })).toEqual([]);
    expect(coverChanges({ ...tomatoSalsa, authority: following('__proto__') })).toEqual([]);
  });
});
