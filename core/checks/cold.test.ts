import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { lineOf, withLines } from '../../testing/recipe-lines.ts';
import { fold } from '../batches/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { coldDays, coldText } from '../review/index.ts';
import { coldJars } from './cold.ts';
import { gate } from './gate.ts';

/** How long food without a processing time keeps in the cold: common practice of the trade, from memory. */
const own: Recipe = { ...waxBeans, authority: { grade: 'own', entryId: null } };

describe('what keeps in the cold, and until when', () => {
  it('keeps longer the more there is that keeps it', () => {
    expect(coldDays(plumJam)).toBe(21);
    expect(coldDays(waxBeans)).toBe(14);
    expect(coldDays(own)).toBe(7);
    const oily = withLines(plumJam, lineOf('Wheat flour', '2 tbsp', 'flour', { role: 'other' }));
    expect(coldDays(oily)).toBe(4);
  });

  it('says the day, over the end of a month and of a year', () => {
    expect(coldText(own, ['pint', 'quart'], '2026-12-28', { locale: 'en-US' })).toBe(
      'There is no processing time for pints, quarts: they go into the refrigerator and are eaten by Jan 4, 2027, or into the freezer; they are never released.',
    );
  });

  it('holds for part-filled and moved jars, counted from the day they were filled', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).drawAll().fill([1, 2, 3, 4]);
    batch.fact('jars.set_aside', { jars: [4], why: 'part-filled' }).wait(3 * 24 * 60);
    batch
      .fact('jars.moved', { jars: [2], to: 'refrigerator' })
      .fact('jars.moved', { jars: [3], to: 'freezer' });
    const day = fold(batch.events).started?.madeOn;
    expect(day).toBe('2026-11-20');
    expect(coldJars(fold(batch.events)).map(j => [j.number, j.place, j.eatBy])).toEqual([
      [2, 'refrigerator', '2026-12-11'],
      [3, 'freezer', null],
      [4, 'refrigerator', '2026-12-11'],
    ]);
  });

  it('holds for every jar of food that has no time, and such jars are never released', () => {
    const batch = new PaperBatch(own, [{ size: 'pint', count: 2 }], { purpose: 'home' })
      .drawAll()
      .fill([1, 2]);
    const state = fold(batch.events);
    expect(state.started?.times).toEqual([]);
    expect(coldJars(state).map(j => j.eatBy)).toEqual(['2026-11-27', '2026-11-27']);
    expect(gate(state).releasable).toEqual([]);
    expect(coldJars(fold([]))).toEqual([]);
  });
});
