import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as demo from '../../demo/recipes.ts';
import { type Recipe, differences, emptyRecipe } from './index.ts';

const { plumJam } = demo;

describe('what differs between two versions', () => {
  it('is nothing between a recipe and itself', () => {
    for (const recipe of Object.values(demo) as Recipe[])
      expect(differences(recipe, structuredClone(recipe))).toEqual([]);
  });

  it('is said in words: changed, added, taken out, moved', () => {
    const after: Recipe = {
      ...plumJam,
      name: 'Plum jam',
      tags: ['no pectin'],
      lines: [
        plumJam.lines[1] as Recipe['lines'][number],
        plumJam.lines[0] as Recipe['lines'][number],
        {
          ...(plumJam.lines[2] as Recipe['lines'][number]),
          amount: { text: '1/3 c', unit: 'cup', value: '1/3', upTo: null, toTaste: false },
        },
        { ...(plumJam.lines[3] as Recipe['lines'][number]), id: 'wine', name: 'Wine' },
      ],
      steps: plumJam.steps.slice(1),
    };
    const said = differences(plumJam, after).map(
      d => `${d.part} ${d.kind} ${d.about}: ${d.before} > ${d.after}`,
    );
    expect(said).toContain('recipe changed Name: Red plum jam > Plum jam');
    expect(said).toContain('recipe changed Tags: no pectin, summer > no pectin');
    expect(said).toContain(
      'lines changed Bottled lemon juice: 1/4 c Bottled lemon juice > 1/3 c Bottled lemon juice',
    );
    expect(said.some(s => s.startsWith('lines added Wine'))).toBe(true);
    expect(said.some(s => s.startsWith('lines taken out Water'))).toBe(true);
    expect(said.some(s => s.startsWith('lines moved Sugar'))).toBe(true);
    expect(said.some(s => s.startsWith('steps taken out Step 1'))).toBe(true);
  });

  it('finds every single change of a field', () => {
    const keys = (Object.keys(emptyRecipe()) as (keyof Recipe)[]).filter(
      k => !['format', 'variantOf', 'sketch', 'tested'].includes(k),
    );
    const other: Recipe = {
      ...demo.waxBeans,
      family: 'Other',
      shelfLife_months: 18,
      setBy: 'calcium pectin',
      outlets: [{ id: 'o', name: 'Juice', share: 0.1, use: 'refrigerator', jarSize: null, entryId: null }],
    };
    fc.assert(
      fc.property(fc.constantFrom(...keys), key => {
        const changed = { ...plumJam, [key]: other[key] } as Recipe;
        expect(differences(plumJam, changed).length, key).toBeGreaterThan(0);
      }),
    );
  });
});
