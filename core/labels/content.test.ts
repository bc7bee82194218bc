import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { JURISDICTIONS, PLAIN_LABEL, type Jurisdiction } from '../kitchen/index.ts';
import type { Line, Recipe } from '../recipes/index.ts';
import {
  allergensFor,
  allergensNamed,
  claimsIn,
  labelChanges,
  labelContent,
  type LabelSetup,
  NET_FORMS,
  netAmount,
  netContentsText,
  nutritionLine,
  plainSetup,
  roundedCalories,
  roundedFat,
  roundedGrams,
  roundedSodium,
} from './index.ts';

const SAMPLE = JURISDICTIONS[0] as Jurisdiction;
const kitchenOf = (label = PLAIN_LABEL, locale = 'en-US', number = '') => ({
  locale,
  makerName: 'Test Kitchen',
  makerAddress: '1 Road, Town',
  jurisdiction: {
    name: SAMPLE.name,
    statement: SAMPLE.statement,
    source: 'x',
    confirmedOn: '2026-01-01',
    rules: { ...SAMPLE, label },
    points: [],
    number,
  },
});
const EU = { ...PLAIN_LABEL, rules: 'EU' as const };
const withLine = (recipe: Recipe, id: string, over: Partial<Line>): Recipe => ({
  ...recipe,
  lines: recipe.lines.map(l => (l.id === id ? { ...l, ...over } : l)),
});
const labelOf = (
  recipe: Recipe,
  setup: Partial<LabelSetup> = {},
  kitchen = kitchenOf(),
  batch = new PaperBatch(recipe, [{ size: recipe.makes.size, count: 4 }]),
) => {
  const made = labelContent(
    fold(batch.drawAll().events),
    kitchen,
    { ...plainSetup('letter-10'), ...setup },
    recipe.makes.size,
  );
  if (!made.ok) throw new Error(made.faults.map(f => f.what).join(' '));
  return made.label;
};

describe('allergens', () => {
  it('are found by the words of ingredients, though nobody declared them: the nine of FALCPA and the FASTER Act (from memory)', () => {
    const found = (words: string) => allergensFor([], words, 'US', false);
    expect(found('soy sauce (water, soybeans, wheat, salt)')).toEqual(['soy', 'wheat']);
    expect(found('fish sauce (anchovies, salt)')).toEqual(['anchovy']);
    expect(found('plums, toasted almonds, ghee, tahini, egg white, prawns, roasted peanuts')).toEqual([
      'almond',
      'egg',
      'milk',
      'peanut',
      'sesame',
      'shrimp',
    ]);
    // Words that hold one without being it.
    expect(
      found(
        'cream of tartar, butter beans, apple butter, eggplant, crab apples, buckwheat, coconut milk, butternut squash',
      ),
    ).toEqual([]);
    // Named by the European Union alone.
    expect(found('mustard seed, celery seed')).toEqual([]);
    expect(allergensFor([], 'mustard seed, celery seed', 'EU', false)).toEqual(['celery', 'mustard']);
  });
  it('named by their group alone are declared by it, which is asked for its kind; a kind that is named stands for it', () => {
    const found = (words: string) => allergensFor([], words, 'US', false);
    expect(found('plums, chopped nuts, seafood stock')).toEqual(['shellfish', 'tree nuts']);
    expect(found('mixed nuts (almonds, pecans), fish paste')).toEqual(['almond', 'fish', 'pecan']);
    expect(found('nutmeg, coconut, doughnuts, chestnuts, pine nuts, nut-free, tiger nuts, peanuts')).toEqual([
      'peanut',
      'pine nut',
    ]);
    expect(allergensFor(['Walnut'], 'nut meal', 'US', false)).toEqual(['Walnut']);
    const made = labelContent(
      fold(
        new PaperBatch(withLine(waxBeans, 'dill', { labelName: 'nuts' }), [
          { size: 'pint', count: 4 },
        ]).drawAll().events,
      ),
      kitchenOf(),
      plainSetup('letter-10'),
      'pint',
    );
    expect(made.rules.find(r => r.what === 'Allergens')).toMatchObject({
      met: true,
      shown:
        'Contains: tree nuts. Which tree nuts, has to be said: enter the kind in the text of its package',
    });
  });
  it('stand in the line beneath the ingredients, joined with what lots and lines declare, each once', () => {
    const soy = withLine(waxBeans, 'dill', {
      labelName: 'soy sauce',
      subIngredients: 'water, soybeans, wheat, salt',
      allergens: ['Soy'],
    });
    expect(labelOf(soy).contains).toBe('Soy, wheat');
  });
  it('are set bold where the place is under the other rules, and have no line of their own', () => {
    const label = labelOf(
      withLine(waxBeans, 'dill', { labelName: 'mustard seed' }),
      {},
      kitchenOf(EU, 'en-GB'),
    );
    expect(label.contains).toBe('');
    expect(label.emphasised).toContain('mustard');
    expect(label.ingredients).toContain('mustard seed');
    expect(allergensNamed('milk powder', 'EU')).toEqual([{ allergen: 'milk', word: 'milk' }]);
  });
  it('have sulphites where a package names them, unless they were shown to be under 10 ppm (21 CFR 101.100(a)(4), from memory)', () => {
    expect(labelOf(crushedTomatoes)).toMatchObject({ contains: 'sulfites' });
    const few = labelOf(crushedTomatoes, { fewSulphites: 'Laboratory paper of March 2: 4 ppm' });
    expect(few.contains).toBe('');
    expect(few.ingredients).not.toMatch(/sul(?:f|ph)ite/);
    expect(few.ingredients).toContain('lemon juice (lemon juice from concentrate)');
  });
});

describe('ingredients', () => {
  it('are in the order of independent arithmetic: what of each line is in the jars, by weight, for any amounts', () => {
    const ids = plumJam.lines.map(l => l.id);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 50, max: 4000 }), { minLength: ids.length, maxLength: ids.length }),
        masses => {
          const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
          ids.forEach((lineId, i) => batch.fact('line.weighed', { lineId, mass_g: masses[i] as number }));
          const made = labelContent(
            fold(batch.drawAll().events),
            kitchenOf(),
            plainSetup('letter-10'),
            'half-pint',
          );
          const text = made.ok ? made.label.ingredients : '';
          if (!made.ok) return;
          const at = ids.map(id => text.indexOf(plumJam.lines.find(l => l.id === id)?.labelName ?? '?'));
          for (const [i, a] of ids.entries())
            for (const [j, b] of ids.entries()) {
              // Everything of this jam ends in the jars in the same share; water that boils off stays with its line.
              if ((masses[i] as number) > (masses[j] as number) + 1 && a !== b)
                expect(at[i], text).toBeLessThan(at[j] as number);
            }
        },
      ),
      { numRuns: 60 },
    );
  });
  it('open a compound from the package text of the lot that was drawn, not from the recipe', () => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]).drawAll();
    const drawn = batch.events.find(e => e.type === 'lot.drawn');
    if (drawn?.type !== 'lot.drawn') throw new Error('drawn');
    const lemon = drawn.body.lots.find(l => l.lineId?.includes('lemon'));
    if (!lemon) throw new Error('lemon juice');
    lemon.subIngredients = 'lemon juice, lemon oil';
    lemon.allergens = [];
    const made = labelContent(fold(batch.events), kitchenOf(), plainSetup('letter-10'), 'pint');
    expect(made.ok && made.label.ingredients).toContain('(lemon juice, lemon oil)');
  });
  it('join spices as spices where asked, but never onion, garlic, celery, paprika or turmeric (21 CFR 101.22(a)(2), from memory)', () => {
    const grouped = labelOf(waxBeans, { groupSpices: true }).ingredients;
    expect(grouped).toContain('spices');
    const spice = waxBeans.lines.find(l => l.role === 'spice') as Line;
    expect(grouped).not.toContain(spice.labelName);
    expect(labelOf(waxBeans).ingredients).toContain(spice.labelName);
    expect(grouped).toContain('garlic');
    for (const name of ['onion powder', 'celery seed', 'paprika', 'turmeric'])
      expect(
        labelOf(withLine(waxBeans, spice.id, { labelName: name }), { groupSpices: true }).ingredients,
      ).toContain(name);
  });
});

describe('net contents', () => {
  it('are written in the forms the rules know', () => {
    const oz20 = { kind: 'weight', oz: 20 } as const;
    const pint = { kind: 'volume', floz: 16 } as const;
    expect(NET_FORMS.map(f => netContentsText(oz20, f))).toEqual([
      'Net Wt 20 oz (566 g)',
      'Net Wt 1 lb 4 oz (566 g)',
      'Net Wt 20 oz (1 lb 4 oz) 566 g',
      'Net Wt 566 g (20 oz)',
    ]);
    expect(NET_FORMS.map(f => netContentsText(pint, f))).toEqual([
      '16 fl oz (473 mL)',
      '1 pt (473 mL)',
      '16 fl oz (1 pt) 473 mL',
      '473 mL (16 fl oz)',
    ]);
    expect(netContentsText(oz20, 'both', 'EU')).toBe('566 g');
    expect(netContentsText(pint, 'both', 'EU')).toBe('473 ml');
  });
  it('never overstate in either system, for any quantity', () =>
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 300, noNaN: true }), quantity => {
        const oz = Math.round(quantity * 10) / 10;
        // Grams in an avoirdupois ounce, millilitres in a fluid ounce: NIST Handbook 44, appendix C.
        expect(netAmount({ kind: 'weight', oz }).amount).toBeLessThanOrEqual(oz * 28.349523125 + 1e-9);
        expect(netAmount({ kind: 'weight', oz }).amount).toBeGreaterThan(oz * 28.349523125 - 1);
        expect(netAmount({ kind: 'volume', floz: oz }).amount).toBeLessThanOrEqual(oz * 29.5735295625 + 1e-9);
      }),
    ));
});

describe('nutrition facts', () => {
  it('are rounded as 21 CFR 101.9(c) has it (from memory)', () => {
    expect([0, 4.9, 5, 47, 50, 51, 54.9, 55, 104, 106].map(roundedCalories)).toEqual([
      0, 0, 5, 45, 50, 50, 50, 60, 100, 110,
    ]);
    expect([0.4, 0.5, 0.7, 0.8, 4.7, 4.8, 5.4, 5.5].map(roundedFat)).toEqual([0, 0.5, 0.5, 1, 4.5, 5, 5, 6]);
    expect([4, 5, 7, 8, 138, 141, 144, 146].map(roundedSodium)).toEqual([0, 5, 5, 10, 140, 140, 140, 150]);
    expect([0.4, 0.5, 0.9, 1, 1.4, 1.5, 12.6].map(roundedGrams)).toEqual([
      '0g',
      'less than 1g',
      'less than 1g',
      '1g',
      '1g',
      '2g',
      '13g',
    ]);
  });
  it('say that they are calculated where they are, and are on the label only where they are asked for', () => {
    expect(labelOf(plumJam).nutrition).toBe('');
    const serving = { says: '1 tbsp', grams: 20 };
    const text = labelOf(plumJam, { nutrition: { how: 'calculated', serving } }).nutrition;
    expect(text).toMatch(/^Nutrition Facts \(calculated\) Servings: about \d+, Serv\. size: 1 tbsp \(20g\)/);
    // A jam of sugar and fruit alike: some two thirds of it are sugar, some 50 calories a tablespoon.
    const kcal = Number(/Calories (\d+)/.exec(text)?.[1]);
    expect(kcal).toBeGreaterThanOrEqual(30);
    expect(kcal).toBeLessThanOrEqual(60);
    const entered = nutritionLine(
      {
        energy_kcal: 250,
        fat_g: 0,
        saturated_g: 0,
        carbohydrate_g: 62.5,
        fibre_g: 1,
        sugars_g: 60,
        addedSugars_g: 50,
        protein_g: 0.3,
        sodium_mg: 10,
      },
      serving,
      283,
      false,
    );
    expect(entered).toMatch(
      /^Nutrition Facts Servings: about 14, .*Calories 50, Total Fat 0g \(0% DV\).*Total Carb\. 13g \(5% DV\).*Total Sugars 12g \(Incl\. 10g Added Sugars, 20% DV\)/,
    );
    expect(entered).not.toContain('calculated');
  });
});

describe('words of one’s own', () => {
  it.each([
    ['Lowers your cholesterol', 'health-claim'],
    ['Rich in antioxidants', 'health-claim'],
    ['Sugar-free', 'nutrient-claim'],
    ['Low sodium', 'nutrient-claim'],
    ['Made from organic plums', 'organic-claim'],
    ['Gluten free', 'gluten-free-claim'],
    ['Nut-free', 'allergen-free-claim'],
    ['Fresh salsa', 'fresh-claim'],
  ])('that make a claim are refused with its rule: %s', (words, code) => {
    const found = claimsIn(words, 'words');
    expect(found.map(f => f.code)).toContain(code);
    expect(found.find(f => f.code === code)).toMatchObject({ stops: true, path: 'words' });
    expect(() => labelOf(plumJam, { words })).toThrow('Your own words make a claim that may not be made.');
  });
  it.each([
    ['All natural', 'natural-claim'],
    ['Vegan', 'vegan-claim'],
    ['No preservatives', 'no-preservatives-claim'],
    ['Local plums', 'local-claim'],
  ])('that only have to be true are explained and let through: %s', (words, code) => {
    expect(claimsIn(words, 'words')).toMatchObject([{ code, stops: false }]);
    expect(labelOf(plumJam, { words }).words).toBe(words);
  });
  it.each(['My grandmother’s recipe', 'Try it with cheese', 'Made from fresh fruit', 'From Alder Crossing'])(
    'that claim nothing are left alone: %s',
    words => expect(claimsIn(words, 'words')).toEqual([]),
  );
});

describe('what a place asks', () => {
  it('a number in the place of an address, and beside it', () => {
    const either = { ...PLAIN_LABEL, maker: 'address or number' as const };
    expect(labelOf(plumJam, {}, kitchenOf(either, 'en-US', 'No. 4711'))).toMatchObject({
      address: '',
      registration: 'No. 4711',
    });
    expect(labelOf(plumJam, {}, kitchenOf(either))).toMatchObject({
      address: '1 Road, Town',
      registration: '',
    });
    const both = { ...PLAIN_LABEL, number: true };
    expect(labelOf(plumJam, {}, kitchenOf(both, 'en-US', 'No. 4711'))).toMatchObject({
      address: '1 Road, Town',
      registration: 'No. 4711',
    });
    expect(() => labelOf(plumJam, {}, kitchenOf(both))).toThrow('registration number');
  });
  it('fruit and sugar in 100 g of a jam (Directive 2001/113/EC, from memory)', () => {
    expect(labelOf(plumJam, {}, kitchenOf(EU, 'en-GB')).shares).toMatch(
      /^Prepared with \d+ g of fruit per 100 g\. Total sugar content: \d+ g per 100 g\.$/,
    );
    expect(labelOf(plumJam).shares).toBe('');
  });
});

describe('a label that was printed', () => {
  const before = labelOf(plumJam);
  it('is out of date by what it would say otherwise today, and by nothing else', () => {
    expect(labelChanges(before, before)).toEqual([]);
    const now = { ...before, ingredients: 'plums, honey', contains: 'milk', bestBy: '2028-01-01' };
    expect(labelChanges(before, now).map(c => c.name)).toEqual([
      'the ingredients',
      'the allergens',
      'the dates',
    ]);
    expect(labelChanges(before, now)[1]).toEqual({
      name: 'the allergens',
      was: before.contains,
      is: 'milk',
    });
  });
  it('before places were kept with labels is not out of date for that', () =>
    expect(labelChanges({ ...before, place: null, asks: PLAIN_LABEL }, { ...before, asks: EU })).toEqual([]));
});
