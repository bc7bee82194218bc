import { type Ingredient, libraryOf } from '@cocotte/core/ingredients';
import { describe, expect, it } from 'vitest';
import { BLANK, type Texts, readTexts, textsOf } from '../src/recipes/book/ingredient-texts.ts';

const LIBRARY = libraryOf([]);
const plum = LIBRARY.find(i => i.id === 'plum') as Ingredient;
const taken = (read: ReturnType<typeof readTexts>) => ({
  ingredient: read.ok ? read.value : null,
  faults: read.ok ? [] : read.faults,
});
const read = (over: Partial<Texts>, base = plum, locale = 'en-US') =>
  taken(readTexts({ ...textsOf(base, locale), ...over }, base, base.id, locale));
const faults = (over: Partial<Texts>) => read(over).faults.map(f => `${f.path} ${f.code}`);

describe('an ingredient in its form', () => {
  it.each(['en-US', 'de-DE', 'fr-FR'])(
    'opened and kept without a change, every one of the library is the same (%s)',
    locale => {
      for (const i of LIBRARY) {
        const { ingredient, faults: found } = read({}, i, locale);
        expect([i.id, found]).toEqual([i.id, []]);
        for (const key of [
          'cup_g',
          'one_g',
          'trim',
          'ph',
          'acid',
          'role',
          'allergens',
          'aliases',
          'group',
        ] as const)
          expect([i.id, key, ingredient?.[key]]).toEqual([i.id, key, i[key]]);
        expect([i.id, ingredient?.sources]).toEqual([i.id, expect.objectContaining(i.sources)]);
      }
    },
  );

  it('a value of the kitchen is marked as its own, and only that', () => {
    const { ingredient } = read({ cups: [{ key: 'sliced', grams: '171' }] });
    expect(ingredient?.cup_g).toEqual({ sliced: 171 });
    expect(ingredient?.sources.cup_g).toBe('own');
    expect(ingredient?.sources.ph).toBe(plum.sources.ph);
    expect(read({}).ingredient?.sources).toEqual(plum.sources);
  });

  it('rows that are empty are none; a weight without a name is as it is', () => {
    expect(read({ cups: [{ key: '', grams: '' }] }).ingredient?.cup_g).toEqual({});
    expect(read({ cups: [{ key: ' ', grams: '150' }] }).ingredient?.cup_g).toEqual({ 'as it is': 150 });
  });

  it('a pH with one end is that at both', () => {
    expect(read({ phLow: '3.4', phHigh: '' }).ingredient?.ph).toEqual([3.4, 3.4]);
    expect(read({ phLow: '', phHigh: '3.9' }).ingredient?.ph).toEqual([3.9, 3.9]);
    expect(read({ phLow: '', phHigh: '' }).ingredient?.ph).toBeNull();
  });

  it('only fruit is safely acid or has a group; only acid has a strength', () => {
    const spice = read({ role: 'spice', safelyAcid: true, group: 'I' }).ingredient;
    expect(spice).toMatchObject({ safelyAcid: false, group: null });
    expect(read({ role: 'acid', strength: '5' }).ingredient?.strength_pct).toBe(5);
  });

  it.each([
    [{ name: ' ' }, 'name missing'],
    [{ cups: [{ key: 'sliced', grams: '0' }] }, 'cups.0.grams too-small'],
    [{ cups: [{ key: 'sliced', grams: '900' }] }, 'cups.0.grams too-large'],
    [
      {
        cups: [
          { key: 'a', grams: '1' },
          { key: 'b', grams: 'x' },
        ],
      },
      'cups.1.grams not-a-number',
    ],
    [{ pieces: [{ key: 'each', grams: '' }] }, 'pieces.0.grams missing'],
    [{ knife: '120' }, 'knife too-large'],
    [{ mill: '0' }, 'mill too-small'],
    [{ thawed: '-5' }, 'thawed too-small'],
    [{ water: '101' }, 'water too-large'],
    [{ solids: 'sweet' }, 'solids not-a-number'],
    [{ phHigh: '15' }, 'phHigh too-large'],
    [{ freshFactor: '0.2' }, 'freshFactor too-small'],
    [{ bushel: '0' }, 'bushel too-small'],
    [{ acid: 'citric', titratable: '-1' }, 'titratable too-small'],
    [{ role: 'acid', strength: '101' }, 'strength too-large'],
  ] as [Partial<Texts>, string][])('%j', (over, fault) => {
    expect(faults(over)).toContain(fault);
    expect(read(over).ingredient).toBeNull();
  });

  it('a new one needs only its name', () => {
    const { ingredient, faults: none } = taken(
      readTexts({ ...textsOf(BLANK, 'en-US'), name: 'Widdershins' }, BLANK, 'own-1', 'en-US'),
    );
    expect(none).toEqual([]);
    expect(ingredient).toMatchObject({
      id: 'own-1',
      name: 'Widdershins',
      labelName: 'widdershins',
      role: 'fruit',
    });
  });
});
