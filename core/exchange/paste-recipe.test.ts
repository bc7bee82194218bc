import { describe, expect, it } from 'vitest';
import { libraryOf, nameIndex } from '../ingredients/index.ts';
import { Fraction } from '../measure/index.ts';
import { recipeFaults, stepText } from '../recipes/index.ts';
import { asRead, readPasted, recipeFromText } from './index.ts';
import { TEXTS } from './text-corpus.fixture.ts';

const INDEX = nameIndex(libraryOf([]));
const recipeOf = (text: string) => {
  let n = 0;
  const newId = () => `id-${++n}`;
  const read = readPasted(text, 'en-US', INDEX, newId);
  return { read, recipe: recipeFromText(read, asRead(read), newId) };
};
const adds = (text: string) => {
  const { recipe } = recipeOf(text);
  const name = new Map(recipe.lines.map(l => [l.id, l.ingredientId]));
  return recipe.steps
    .filter(s => s.adds.length > 0)
    .map(s => s.adds.map(a => `${name.get(a.lineId)}${a.share === '1' ? '' : ` ${a.share}`}`).join(', '));
};

describe('a recipe from a text', () => {
  it('of each of the sixty nothing is wrong but what the text leaves open, and each step keeps its words', () => {
    for (const [text] of TEXTS) {
      const { read, recipe } = recipeOf(text);
      // What goes in where is whole or nowhere; no step refers to a line that is not there.
      const faults = recipeFaults(recipe).filter(f => f.path.startsWith('steps'));
      expect(
        faults.map(f => `${f.path} ${f.code}`),
        read.title,
      ).toEqual([]);
      const shares = new Map<string, Fraction>();
      for (const { lineId, share } of recipe.steps.flatMap(s => s.adds))
        shares.set(lineId, (shares.get(lineId) ?? new Fraction(0)).add(share));
      expect(
        [...shares.values()].every(s => s.equals(1)),
        read.title,
      ).toBe(true);
      expect(recipe.code).toMatch(/^[A-Z]{3}$|^$/);
      for (const step of recipe.steps)
        expect(stepText(recipe, step, { factor: new Fraction(1), minutes: 'M', headspace: 'H' })).not.toMatch(
          /[{}]/,
        );
    }
  });

  it('says what goes in at which step', () => {
    const method = (steps: string) =>
      `Plum jam\n4 lb plums\n7 cups sugar\n1/4 cup bottled lemon juice\n1 cinnamon stick\n\nMethod\n${steps}`;
    expect(
      adds(method('1. Simmer the plums 10 minutes.\n2. Add the sugar and lemon juice, boil 5 minutes.')),
    ).toEqual(['plum', 'sugar, bottled-lemon']);
    expect(
      adds(
        method('1. Layer plums with half the sugar overnight.\n2. Add the remaining sugar, boil 5 minutes.'),
      ),
    ).toEqual(['plum, sugar 1/2', 'sugar 1/2']);
    expect(
      adds(
        method(
          '1. Combine all ingredients except lemon juice, boil 5 minutes.\n2. Add lemon juice, boil 1 minute.',
        ),
      ),
    ).toEqual(['plum, sugar, cinnamon-stick', 'bottled-lemon']);
    // A part and nothing of the rest: nobody knows where that goes.
    expect(adds(method('1. Boil plums with 2 cups of the sugar.'))).toEqual(['plum']);
  });

  it('binds amounts, minutes and headspace in the words', () => {
    const { recipe } = recipeOf(
      'Plum jam\n4 lb plums\n7 cups sugar\n\nMethod\n1. Boil plums with 3 1/2 cups sugar 5 minutes.\n2. Add 3 1/2 cups of the sugar and boil 1 minute.\n3. Fill hot jars, leaving 1/4 inch headspace.\n4. Process 10 minutes.',
    );
    expect(recipe.steps.map(s => s.text)).toEqual([
      'Boil plums with {sugar} 5 minutes.',
      'Add {sugar} and boil 1 minute.',
      'Fill hot jars, leaving {headspace} headspace.',
      'Process {minutes}.',
    ]);
    const twice = { factor: new Fraction(2), minutes: '15 minutes', headspace: '1/4 in' };
    expect(recipe.steps.map(s => stepText(recipe, s, twice))).toEqual([
      'Boil plums with 7 c sugar 5 minutes.',
      'Add 7 c sugar and boil 1 minute.',
      'Fill hot jars, leaving 1/4 in headspace.',
      'Process 15 minutes.',
    ]);
    expect(recipe.notes).toContain('The text says: 10 minutes, headspace 1/4 inch.');
  });

  it('so much for each measure is tied to a measuring step, which is made where the text has none', () => {
    for (const steps of [
      'Drip overnight.\nMeasure the juice.\nBoil to the gel point.',
      'Drip overnight.\nBoil to the gel point.',
    ]) {
      const { recipe } = recipeOf(
        `Grape jelly\n3 lb grapes\n3/4 cup sugar for each cup of juice\n\nMethod\n${steps}`,
      );
      const measure = recipe.steps.find(s => s.kind === 'measure');
      expect(recipe.lines.at(-1)?.ratio).toMatchObject({ of: 'step', id: measure?.id });
      expect(recipe.steps.map(s => s.kind).indexOf('measure')).toBe(1);
    }
  });
});
