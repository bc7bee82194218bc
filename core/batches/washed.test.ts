import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { allergensOf } from '../labels/index.ts';
import { fold } from './fold.ts';
import { potBefore, unwashedAllergens } from './washed.ts';

const withMustard = {
  ...waxBeans,
  lines: waxBeans.lines.map((l, i) => (i === 0 ? { ...l, allergens: ['mustard', 'sulfites'] } : l)),
};
const first = new PaperBatch(withMustard, [{ size: 'pint', count: 4 }], { potId: 'wide' });
function jam(over: object = { potId: 'wide' }) {
  const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }], over);
  // It was started later the same day.
  const start = batch.events[0]!;
  start.receipt!.at = new Date(Date.parse(start.receipt!.at) + 3_600_000).toISOString();
  return batch;
}

describe('a pot that held an allergen', () => {
  it('is asked about in the next batch of that day, once', () => {
    const batch = jam();
    expect(potBefore(fold(batch.events), [fold(first.events)])).toEqual({
      names: ['Dilled wax beans'],
      allergens: ['mustard', 'sulfites'],
    });
    batch.add('pot.washed', { washed: true, allergens: ['mustard', 'sulfites'] });
    expect(potBefore(fold(batch.events), [fold(first.events)])).toBeNull();
  });

  it('is not asked about of another day, another pot, a later batch, or one that has the same', () => {
    const ask = (batch: PaperBatch, before = first) => potBefore(fold(batch.events), [fold(before.events)]);
    expect(ask(jam({ potId: 'wide', madeOn: '2026-11-21' }))).toBeNull();
    expect(ask(jam({ potId: 'narrow' }))).toBeNull();
    expect(ask(jam({ potId: null }))).not.toBeNull();
    expect(ask(first, jam())).toBeNull();
    expect(ask(first, first)).toBeNull();
  });

  it('that was not washed gives its allergens to the label; one that was washed does not', () => {
    const batch = jam();
    const before = allergensOf(fold(batch.events));
    batch.add('pot.washed', { washed: false, allergens: ['mustard'] });
    expect(unwashedAllergens(fold(batch.events))).toEqual(['mustard']);
    expect(allergensOf(fold(batch.events))).toEqual([...before, 'mustard'].sort());
    batch.wait(1).add('pot.washed', { washed: true, allergens: ['mustard'] });
    expect(allergensOf(fold(batch.events))).toEqual(before);
  });
});
