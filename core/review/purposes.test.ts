import { describe, expect, it } from 'vitest';
import {
  crushedTomatoes,
  currantJelly,
  plumJam,
  sauerkraut,
  tomatoSalsa,
  waxBeans,
} from '../../demo/recipes.ts';
import { writtenAs } from '../../testing/covers.ts';
import { readPage } from '../../testing/open-page.ts';
import { samplePlace } from '../../testing/place.ts';
import { lineOf, withLines } from '../../testing/recipe-lines.ts';
import { JURISDICTIONS, noPlace, pointsOf } from '../kitchen/index.ts';
import { PLAIN_FIGURES } from '../measure/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { type Confirmation, type PurposeQuestion, classOf, pageOf, purposeFaults } from './index.ts';

const ALTITUDE_M = 716.28;
const read = (recipe: Recipe, altitude_m = ALTITUDE_M): Confirmation => {
  const body = readPage(recipe, altitude_m);
  return {
    id: 'c',
    subject: pageOf(recipe, altitude_m)?.subject ?? '',
    title: '',
    edition: body?.edition ?? '',
    page: '1',
    figures: body?.figures ?? [],
    papers: ['a'],
    demo: false,
    personId: 'p',
    confirmedAt: '2026-03-01T00:00:00.000Z',
  };
};
const own = (letter: Recipe): Recipe => ({
  ...letter,
  authority: { ...(letter.authority as Extract<Recipe['authority'], { grade: 'letter' }>), demo: false },
});
const ask = (recipe: Recipe, over: Partial<PurposeQuestion> = {}, place = samplePlace()): string[] => {
  const classed = { ...recipe, foodClass: classOf(recipe) };
  const faults = purposeFaults(classed, {
    kitchen: { ...PLAIN_FIGURES, altitude_m: ALTITUDE_M, demo: false, jurisdiction: place },
    sizes: [recipe.makes.size],
    confirmations: [read(classed)],
    today: '2026-11-26',
    ...over,
  });
  return (['sale', 'home', 'gift', 'trial'] as const).map(p => faults[p]?.code ?? 'open');
};
const place = (id: string) => {
  const rules = JURISDICTIONS.find(j => j.id === id);
  if (!rules) throw new Error(id);
  return samplePlace({
    rules,
    points: pointsOf(rules).map(point => ({ point, tickedOn: '2026-03-01', renewsOn: null })),
  });
};

describe('what a recipe may be cooked for', () => {
  it('for sale where both keys turn, and each of them is missed', () => {
    for (const recipe of [plumJam, currantJelly, crushedTomatoes, own(waxBeans), sauerkraut]) {
      expect(ask(recipe), recipe.name).toEqual(['open', 'open', 'open', 'open']);
      expect(ask(recipe, { confirmations: [] }), recipe.name).toEqual([
        'page-unconfirmed',
        'open',
        'open',
        'open',
      ]);
      expect(ask(recipe, {}, noPlace()), recipe.name).toEqual(['place', 'open', 'open', 'open']);
    }
  });

  it('the place is asked after the process, and both before anything is lit', () => {
    expect(ask(crushedTomatoes, {}, place('us-oh'))).toEqual(['place', 'open', 'open', 'open']);
    expect(ask(plumJam, {}, place('us-oh'))).toEqual(['open', 'open', 'open', 'open']);
    // A tested publication is no approval, a letter is one.
    expect(ask(crushedTomatoes, {}, place('us-ky'))[0]).toBe('place');
    expect(ask(own(waxBeans), {}, place('us-ky'))[0]).toBe('open');
    expect(ask(waxBeans, {}, place('us-ky'))[0]).toBe('page-unconfirmed');
  });

  it('an own acidified food is a trial; an own recipe of acid fruit may be cooked for home, cold', () => {
    expect(ask(tomatoSalsa)).toEqual(['no-route', 'no-time', 'no-time', 'open']);
    const peaches: Recipe = {
      ...plumJam,
      product: 'fruit in liquid',
      authority: { grade: 'own', entryId: null },
      lines: [lineOf('peach', '5 lb')],
    };
    expect(ask(peaches)).toEqual(['no-route', 'open', 'no-time', 'open']);
    const named = withLines(plumJam, lineOf('onion', '1 lb', 'o', { role: 'fruit', safelyAcid: true }));
    expect(ask(named)).toEqual(['no-route', 'no-time', 'no-time', 'open']);
  });

  it('what is refused for the shelf is cooked for the freezer or the table, never sold or given away', () => {
    const oily = withLines(own(waxBeans), lineOf('oil', '1 c'));
    expect(ask(oily)).toEqual(['refused-food', 'open', 'refused-food', 'open']);
    const floury = withLines(tomatoSalsa, lineOf('flour', '1/2 c'));
    expect(ask(floury)).toEqual(['refused-food', 'open', 'refused-food', 'open']);
  });

  it('a jar its authority has no time for is a slip, whatever it is cooked for', () => {
    expect(ask(plumJam, { sizes: ['half-pint', 'half-gallon'] })).toEqual([
      'no-time',
      'no-time',
      'no-time',
      'no-time',
    ]);
  });

  /** The kinds of work of the trade, each with what it deserves in a place that allows all of it. */
  const KINDS: [work: string, recipe: Recipe, sale: string][] = [
    ['jam cooked to the gel point, own', plumJam, 'open'],
    ['jam without pectin, published', writtenAs('jam-no-pectin-10'), 'open'],
    ['jam with pectin, clean jars', writtenAs('jam-pectin-10'), 'open'],
    ['jelly, own', currantJelly, 'open'],
    ['marmalade, published', writtenAs('marmalade-5'), 'open'],
    ['apple butter, published', writtenAs('apple-butter-10'), 'open'],
    ['fruit butter, own', { ...plumJam, product: 'fruit butter' }, 'no-route'],
    ['berry syrup, published', writtenAs('berry-syrup'), 'open'],
    ['apple juice', writtenAs('apple-juice-10'), 'open'],
    ['applesauce', writtenAs('applesauce'), 'open'],
    ['peaches in syrup, raw packed', writtenAs('peaches-raw'), 'open'],
    ['apple pie filling', writtenAs('apple-pie-filling'), 'open'],
    ['crushed tomatoes', crushedTomatoes, 'open'],
    ['tomato sauce', writtenAs('tomato-sauce'), 'open'],
    ['ketchup', writtenAs('tomato-ketchup'), 'open'],
    ['salsa, published', writtenAs('tomato-salsa'), 'open'],
    ['salsa, inherited', tomatoSalsa, 'no-route'],
    ['dill pickles', writtenAs('dill-pickles'), 'open'],
    ['beans by a letter', own(waxBeans), 'open'],
    ['pickle relish', writtenAs('pickle-relish'), 'open'],
    ['sauerkraut, published', sauerkraut, 'open'],
  ];
  it.each(KINDS)(
    '%s opens with both keys, or says before cooking why not and what would',
    (_, recipe, sale) => {
      const classed = { ...recipe, foodClass: classOf(recipe) };
      expect(ask(recipe)[0]).toBe(sale);
      const fault = purposeFaults(classed, {
        kitchen: { ...PLAIN_FIGURES, altitude_m: ALTITUDE_M, demo: false, jurisdiction: samplePlace() },
        sizes: [recipe.makes.size],
        confirmations: [],
        today: '2026-11-26',
      }).sale;
      for (const words of [fault?.what, fault?.why, fault?.next]) expect(words).toMatch(/\S/);
      // Whatever it is, somebody may cook it: for home, or to try.
      expect(ask(recipe)[3]).toBe('open');
    },
  );
});
