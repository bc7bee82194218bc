import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { Fraction } from '../measure/index.ts';
import { looseAmounts, recipeFaults, scaleRecipe, stepFrom, stepText, unboundNames } from './index.ts';

const PROCESS = { minutes: '15 minutes', headspace: '1/4 in' };
const said = (text: string, factor = '1', adds: { lineId: string; share: string }[] = []) =>
  stepText(plumJam, { text, adds }, { factor: new Fraction(factor), ...PROCESS });

describe('words of a step that are bound to figures', () => {
  it('show what goes in at this step, at this scale', () => {
    expect(said('Stir in {sugar}', '2')).toBe('Stir in 14 c sugar');
    expect(said('{Sugar} in two portions', '1', [{ lineId: 'sugar', share: '1/2' }])).toBe(
      '3 1/2 c Sugar in two portions',
    );
    expect(said('Wait {minutes}, {headspace} of space')).toBe('Wait 15 minutes, 1/4 in of space');
    expect(
      stepText(
        plumJam,
        { text: 'for {minutes}', adds: [] },
        { ...PROCESS, factor: new Fraction(1), minutes: '' },
      ),
    ).toBe('for the minutes of its process');
  });

  it('never contradict the figures of the sheet, at any scale', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.constantFrom('1', '1/2', '1/3'), (twelfths, share) => {
        const factor = new Fraction(twelfths, 12);
        const recipe = {
          ...plumJam,
          steps: [{ ...stepFrom('s', 'cook', '{sugar}'), adds: [{ lineId: 'sugar', share }] }],
        };
        const scaled = scaleRecipe(recipe, factor, []).lines.find(l => l.lineId === 'sugar');
        const sheet = share === '1' ? scaled?.measure : scaled?.portions[0]?.measure;
        const [step] = recipe.steps;
        expect(step && stepText(recipe, step, { factor, ...PROCESS })).toBe(`${sheet} sugar`);
      }),
    );
  });

  it('a name that is no line is a fault, and stands as it was typed', () => {
    for (const name of ['salt', '__proto__', 'constructor', 'toString', 'a}{b']) {
      const step = { text: `Add {${name}}.`, adds: [] };
      expect(said(step.text)).toBe(step.text);
      expect(unboundNames(plumJam, step).length, name).toBeGreaterThan(name.includes('}') ? -1 : 0);
    }
    const wrong = { ...plumJam, steps: [stepFrom('s', 'cook', 'Add {salt}')] };
    expect(recipeFaults(wrong).map(f => `${f.path} ${f.code}`)).toContain('steps[0].text unbound-name');
  });

  it('two lines of one name: that of the step, else a fault', () => {
    const [water] = plumJam.lines.filter(l => l.id === 'water');
    if (!water) throw new Error('no water');
    const twice = {
      ...plumJam,
      lines: [...plumJam.lines, { ...water, id: 'more', amount: { ...water.amount, value: '4' } }],
    };
    const step = { text: 'Pour in {water}', adds: [{ lineId: 'more', share: '1' }] };
    expect(stepText(twice, step, { factor: new Fraction(1), ...PROCESS })).toBe(
      `Pour in ${scaleRecipe(twice, new Fraction(1), []).lines.at(-1)?.measure} water`,
    );
    expect(unboundNames(twice, { ...step, adds: [] })).toEqual(['water']);
  });
});

describe('amounts in words that belong to a line', () => {
  const loose = (text: string) => looseAmounts(plumJam, { text });
  it.each([
    ['Add 7 cups of the sugar and boil.', 'sugar', '1', 'Add {Sugar} and boil.'],
    ['Stir in 3 1/2 c sugar', 'sugar', '1/2', 'Stir in {Sugar}'],
    ['1 cup white sugar first', 'sugar', '1/7', '{Sugar} first'],
  ])('"%s"', (text, lineId, share, bound) => {
    const [one] = loose(text);
    expect(one).toMatchObject({ lineId, share });
    expect(one?.text.toLowerCase()).toBe(bound.toLowerCase());
  });
  it.each([
    'Boil 7 minutes',
    'Add 9 cups sugar',
    'Fill 1/4 inch',
    'Add 3 cups plum skins later to 2 bowls',
    'sugar',
    '7',
  ])('"%s" is left alone', text => expect(loose(text).filter(l => l.lineId === 'sugar')).toEqual([]));
});
