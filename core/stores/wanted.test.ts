import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { libraryOf } from '../ingredients/index.ts';
import { Fraction } from '../measure/index.ts';
import { scaleRecipe } from '../recipes/index.ts';
import {
  type Lot,
  type ShelfItem,
  itemFaults,
  itemOf,
  lotName,
  needsOf,
  ownYield,
  plainFacts,
  wantedOf,
  asksOf,
  factsByName,
  upgradeItem,
} from './index.ts';

const LIBRARY = libraryOf([]);
const byId = new Map(LIBRARY.map(i => [i.id, i]));
let n = 0;
const newId = () => `00000000-0000-4000-8000-${String(++n).padStart(12, '0')}`;
const needs = (recipe: typeof plumJam, shelf: ShelfItem[] = [], count = 8) => {
  const jars = [{ size: recipe.makes.size, count }];
  const scaled = scaleRecipe(recipe, new Fraction(1), jars);
  return needsOf(recipe.lines, new Map(scaled.lines.map(l => [l.lineId, l.asBought_g])), jars, shelf);
};
const lot = (onHand: string, over: Partial<Lot> = {}): Lot => ({
  id: newId(),
  itemId: 'i',
  label: 'L',
  supplier: '',
  receivedOn: '2026-07-01',
  bestBy: null,
  unitCost: '0',
  onHand,
  strength_pct: null,
  openedOn: null,
  receiptId: null,
  facts: plainFacts(),
  ...over,
});

describe('what is needed and not there', () => {
  it('each ingredient of the library makes a sound item, in a unit one can buy it in', () => {
    for (const known of LIBRARY) {
      const item = itemOf(newId(), known.name, known);
      expect(itemFaults(item), known.id).toEqual([]);
      expect(item.unit === 'mL' ? item.unit_g : 1, known.id).toBeGreaterThan(0);
      expect(item.ingredientId).toBe(known.id);
    }
  });

  it('on an empty shelf is everything but water and bands, each once, at least as much as the batch takes', () => {
    for (const recipe of [plumJam, waxBeans]) {
      const wanted = wantedOf(needs(recipe), byId, newId);
      expect(wanted.map(w => w.item.kind)).toEqual(expect.arrayContaining(['ingredient', 'jar', 'lid']));
      expect(wanted.some(w => /water/i.test(w.item.name) || w.item.kind === 'band')).toBe(false);
      expect(new Set(wanted.map(w => w.item.name)).size).toBe(wanted.length);
      for (const w of wanted.filter(x => x.item.kind === 'ingredient')) {
        const of = needs(recipe).filter(x => w.for.includes(x.title));
        const need_g = of.reduce((sum, x) => sum + x.quantity, 0);
        expect(Number(w.quantity) * (w.item.unit_g ?? 1), w.item.name).toBeGreaterThanOrEqual(need_g - 1e-6);
        expect(Number(w.quantity) * (w.item.unit_g ?? 1)).toBeLessThan(need_g + 2);
      }
    }
  });

  it('and what the shelf has takes it away: nothing is wanted that is there', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 3, noNaN: true }), share => {
        const empty = wantedOf(needs(plumJam), byId, newId);
        const shelf = empty.map(({ item, quantity }): ShelfItem => ({
          item,
          lots: [lot((Number(quantity) * share).toFixed(3))],
          lastCost: null,
          average: null,
          reserved: '0',
        }));
        const left = wantedOf(needs(plumJam, shelf), byId, newId);
        if (share >= 1) expect(left).toEqual([]);
        else {
          expect(left.every(w => w.kept)).toBe(true);
          for (const w of left) {
            const was = empty.find(e => e.item.id === w.item.id);
            expect(Number(w.quantity)).toBeLessThanOrEqual(Number(was?.quantity));
          }
        }
      }),
    );
  });
});

describe('a lot that was given no name', () => {
  it('is called after what it is and the day it came, each its own, within forty letters', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), fc.integer({ min: 1, max: 60 }), (name, count) => {
        const taken = new Set<string>();
        for (let i = 0; i < count; i++) {
          const label = lotName(name, '2026-07-04', taken, { locale: 'en-US' });
          expect(label.length).toBeLessThanOrEqual(40);
          expect(taken.has(label.toLowerCase())).toBe(false);
          taken.add(label.toLowerCase());
        }
      }),
    );
  });
});

describe('what a name proves of a lot, and what is asked', () => {
  const item = (
    use: 'citrus juice' | 'salt' | 'produce' | 'vinegar',
    name: string,
    ingredientId: string | null = null,
  ) => upgradeItem({ id: newId(), kind: 'ingredient', unit: 'g', name, use, ingredientId });
  it.each([
    ['citrus juice', 'Fresh juice I bottled', null],
    ['citrus juice', 'Lemon juice, bottled by hand', 'fresh-lemon'],
    ['citrus juice', 'Fresh-pressed', 'bottled-lemon'],
    ['citrus juice', 'Lemon juice', null],
    ['salt', 'Seasoned salt', null],
    ['salt', 'Canning salt, iodised', 'canning-salt'],
    ['salt', 'Salt for the canning room', null],
    ['salt', 'Sea salt with an anti-caking agent', 'sea-salt'],
  ] as const)('%s "%s" (%s) is asked', (use, name, ingredientId) => {
    expect(asksOf(item(use, name, ingredientId))).toEqual([use === 'salt' ? 'salt' : 'juice']);
  });
  it.each([
    ['citrus juice', 'Bottled lemon juice', 'bottled-lemon', { juice: 'bottled' }],
    ['citrus juice', 'Lime juice', 'fresh-lime', { juice: 'fresh' }],
    ['salt', 'Canning and pickling salt', 'canning-salt', { salt: 'canning' }],
    ['salt', 'Kosher salt', 'kosher-salt', { salt: 'kosher' }],
  ] as const)('%s "%s" is what the library says', (use, name, ingredientId, facts) => {
    expect(factsByName(item(use, name, ingredientId))).toMatchObject(facts);
    expect(asksOf(item(use, name, ingredientId))).toEqual([]);
  });
  it('strength of a vinegar and condition of produce are asked whatever it is called', () => {
    expect(asksOf(item('vinegar', 'White vinegar, 5 %', 'white-vinegar'))).toEqual(['strength']);
    expect(asksOf(item('produce', 'Sound plums', 'plum'))).toEqual(['condition']);
  });
});

describe('the waste of a lot', () => {
  const plums = { ingredientId: 'plum', trimYield: 0.92 };
  const facts = (over: object) => ({ facts: plainFacts(over) });
  it.each([
    ['as the line', 'plum', {}, plums, null],
    ['bought frozen', 'plum', { condition: 'frozen' }, plums, 1],
    ['frozen here', 'plum', { source: 'made here' }, plums, 1],
    ['of another ingredient, its own', 'tomato-paste', {}, { ingredientId: 'tomato', trimYield: 0.9 }, 1],
    ['of what nobody knows', null, {}, plums, null],
    ['for jars and lids', 'plum', {}, null, null],
  ] as const)('%s', (_, ingredientId, over, line, share) => {
    expect(ownYield({ ingredientId }, facts(over), line)).toBe(share);
  });
});
