import { describe, expect, it } from 'vitest';
import { UNCLEAR } from './data/unclear.ts';
import { libraryOf } from './library.ts';
import { isLowAcidByLibrary } from './low-acid.ts';
import { nameIndex, strengthIn } from './naming.ts';

const ALL = libraryOf([]);
const INDEX = nameIndex(ALL);
const id = (text: string) => INDEX.find(text)?.ingredient.id ?? null;
const asked = (text: string) => INDEX.choices(text).map(i => i.id);

describe('the names of the library', () => {
  it('each find their own ingredient', () => {
    expect(ALL.filter(i => id(i.name) !== i.id).map(i => `${i.name}: ${id(i.name)}`)).toEqual([]);
  });

  it('each other name finds its own, or is asked with its own among the answers; none finds another', () => {
    const wrong = ALL.flatMap(i =>
      i.aliases
        .filter(a => id(a) !== i.id && !asked(a).includes(i.id))
        .map(a => `${i.id}: "${a}" is ${id(a) ?? asked(a).join(' or ')}`),
    );
    expect(wrong).toEqual([]);
  });

  it('are asked only with answers that differ in what they are for, in acid, or in what is low in acid', () => {
    for (const { words, of } of UNCLEAR) {
      const found = of.map(one => ALL.find(i => i.id === one));
      expect(found.every(Boolean), `${words[0]}: ${of.join()}`).toBe(true);
      expect(new Set(of).size).toBe(of.length);
      expect(of.length).toBeGreaterThan(1);
    }
  });
});

describe('a name that could be two things', () => {
  it.each([
    ['peppers', 'bell-pepper', 'black-pepper'],
    ['pepper', 'hot-pepper', 'black-pepper'],
    ['red peppers, chopped', 'bell-pepper', 'hot-pepper'],
    ['cayenne pepper', 'cayenne', 'hot-pepper'],
    ['lemon juice', 'bottled-lemon', 'fresh-lemon'],
    ['Lemon juice, strained', 'bottled-lemon', 'fresh-lemon'],
    ['lime juice', 'bottled-lime', 'fresh-lime'],
    ['citric acid or lemon juice', 'citric-acid', 'fresh-lemon'],
    ['lemon juice or vinegar', 'bottled-lemon', 'white-vinegar'],
    ['peaches or nectarines', 'peach', 'nectarine'],
    ['pectin', 'pectin-powder', 'pectin-calcium'],
    ['basil', 'basil', 'basil-dried'],
    ['chopped parsley', 'parsley', 'parsley-dried'],
    ['oregano', 'oregano-fresh', 'oregano'],
    ['beans', 'snap-bean', 'kidney-bean'],
    ['mustard', 'mustard-seed', 'prepared-mustard'],
    ['ginger, grated', 'ginger', 'ginger-ground'],
    ['currants', 'currant-red', 'currants-dried'],
    ['peaches in white wine', 'peach', 'white-peach'],
    ['ground peppers', 'bell-pepper', 'hot-pepper'],
    ['bell or hot peppers', 'bell-pepper', 'hot-pepper'],
    ['lemon or lime juice', 'bottled-lime', 'fresh-lime'],
  ])('%s is asked', (text, ...among) => {
    expect(INDEX.find(text)).toBeNull();
    expect(asked(text)).toEqual(expect.arrayContaining(among));
  });

  it.each([
    ['white peaches', 'white-peach'],
    ['peaches (white)', 'white-peach'],
    ['peaches, white flesh', 'white-peach'],
    ['white-fleshed peaches', 'white-peach'],
    ['nectarines, white', 'white-nectarine'],
    ['ripe yellow peaches, peeled', 'peach'],
    ['peaches, peeled and sliced', 'peach'],
    ['pears (Asian)', 'asian-pear'],
    ['green mangoes', 'green-mango'],
    ['mangoes', 'mango'],
    ['bottled lemon juice', 'bottled-lemon'],
    ['lemon juice, bottled', 'bottled-lemon'],
    ['lemon juice (bottled)', 'bottled-lemon'],
    ['fresh lemon juice', 'fresh-lemon'],
    ['freshly squeezed lemon juice', 'fresh-lemon'],
    ['juice of 2 lemons', 'fresh-lemon'],
    ['lemons, juiced', 'fresh-lemon'],
    ['zest of 1 lemon', 'lemon-zest'],
    ['peppers, hot', 'hot-pepper'],
    ['sweet peppers', 'bell-pepper'],
    ['ground pepper', 'black-pepper'],
    ['dried basil', 'basil-dried'],
    ['basil, dried', 'basil-dried'],
    ['fresh basil leaves', 'basil'],
    ['ground ginger', 'ginger-ground'],
    ['onion powder', 'dried-onion'],
    ['apple cider vinegar', 'cider-vinegar'],
    ['vinegar, cider', 'cider-vinegar'],
    ['sugar (brown)', 'brown-sugar'],
    ['cherry tomatoes', 'cherry-tomato'],
    ['tomatoes, peeled, with their juice', 'tomato'],
    ['canning or pickling salt', 'canning-salt'],
    ['butter or margarine', 'butter'],
    ['salt', 'salt'],
    ['green beans', 'snap-bean'],
  ])('%s is plain', (text, is) => {
    expect([id(text), asked(text)]).toEqual([is, []]);
  });

  it('is not a fresh thing where it is dried, though only the fresh one is known', () => {
    for (const text of ['dried apples', 'apples, dried', 'powdered carrots', 'dehydrated cucumbers'])
      expect([id(text), asked(text).length], text).toEqual([null, 1]);
    // What went through a grinder is fresh.
    expect(id('ground cucumbers')).toBe('cucumber');
  });

  it('counts as low in acid while nobody says which it is', () => {
    const line = (name: string) => ({ ingredientId: null, name });
    for (const name of ['Peppers', 'peaches in white wine', 'beans', 'Basil', 'ginger'])
      expect(isLowAcidByLibrary(line(name)), name).toBe(true);
    for (const name of ['Red plums', 'lemon juice', 'Sugar', '__proto__', 'constructor'])
      expect(isLowAcidByLibrary(line(name)), name).toBe(false);
  });
});

describe('a strength', () => {
  it.each([
    ['white vinegar (4%)', 4],
    ['5% vinegar', 5],
    ['vinegar, 5 % acidity', 5],
    ['white vinegar, 6 percent', 6],
    ['cider vinegar 4.5% acidity', 4.5],
    ['vinegar (5 per cent acetic acid)', 5],
    ['vinegar', null],
    ['100 sugar cubes', null],
  ])('%s says %s', (text, says) => expect(strengthIn(text)).toBe(says));

  it('stays what it was said to be, and does not hide the name', () => {
    expect(id('white vinegar (4%)')).toBe('white-vinegar-4');
    expect(id('4 % white vinegar')).toBe('white-vinegar-4');
    expect(id('vinegar, 6% acidity')).toBe('white-vinegar-6');
    expect(id('5% vinegar')).toBe('white-vinegar');
    expect(id('cider vinegar (4%)')).toBe('cider-vinegar');
  });
});
