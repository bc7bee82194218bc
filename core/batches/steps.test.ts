import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold, isStepDone } from './index.ts';

const four = [1, 2, 3, 4];
const jam = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).drawAll();
const done = (batch: PaperBatch) =>
  plumJam.steps.filter(s => isStepDone(fold(batch.events), s)).map(s => s.kind);

describe('a step is done', () => {
  it('when somebody says so, or when the jars show it', () => {
    const batch = jam();
    expect(done(batch)).toEqual([]);
    batch.fact('step.done', { stepId: 'soften', ended: null });
    expect(done(batch)).toEqual(['cook']);
    batch.fill([1, 2, 3]);
    expect(done(batch)).toEqual(['cook']);
    batch.fill([4]);
    expect(done(batch)).toEqual(['cook', 'fill']);
    batch.process(1, four, 15);
    expect(done(batch)).toEqual(['cook', 'fill', 'process']);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] });
    expect(done(batch)).toEqual(['cook', 'fill', 'process', 'cool']);
  });

  it('also with fewer jars than were wanted, once all of them are out; never with one still in', () => {
    const batch = jam().fill([1, 2]);
    batch.process(1, [1, 2], 15);
    expect(done(batch)).toEqual(['fill', 'process']);
    const more = jam().fill(four);
    more.process(1, [1, 2], 15);
    expect(done(more)).toEqual(['fill']);
    // Jars that were set aside wait for nothing; nothing at all is no jar.
    more.fact('jars.set_aside', { jars: [3, 4], why: 'broken' });
    expect(done(more)).toEqual(['fill', 'process']);
    const none = jam().fill(four).fact('jars.set_aside', { jars: four, why: 'broken' });
    expect(done(none)).toEqual(['fill']);
  });
});
