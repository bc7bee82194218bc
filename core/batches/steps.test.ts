import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import type { Recipe } from '../recipes/index.ts';
import { fold, isStepDone, openNow, turnOf } from './index.ts';

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

describe('whose turn it is', () => {
  const steps = plumJam.steps;
  const waiting: Recipe = {
    ...plumJam,
    steps: steps.map((s, i) =>
      i === 0
        ? {
            ...s,
            kind: 'rest' as const,
            window: { from_min: 60, to_min: 240 },
            attention: { kind: 'free' as const },
          }
        : { ...s, attention: { kind: 'hands-on' as const }, window: null },
    ),
  };
  const batch = () => new PaperBatch(waiting, [{ size: 'half-pint', count: 4 }]).drawAll();
  const turns = (b: PaperBatch) => {
    const state = fold(b.events);
    return state.started!.recipe.steps.slice(0, 3).map(s => turnOf(state, s));
  };

  it('is that of the first open step; beside a wait that has begun, of the next', () => {
    const one = batch();
    expect(turns(one)).toEqual(['in order', 'out of order', 'out of order']);
    one.fact('step.started', { stepId: steps[0]!.id });
    expect(turns(one)).toEqual(['in order', 'side by side', 'out of order']);
    expect(openNow(fold(one.events)).map(s => s.id)).toEqual([steps[0]!.id, steps[1]!.id]);
    // The next one needs hands: what comes after it waits for it, begun or not.
    one.fact('step.started', { stepId: steps[1]!.id });
    expect(turns(one)[2]).toBe('out of order');
    one.fact('step.done', { stepId: steps[1]!.id, outOfOrder: '' });
    expect(turns(one)[2]).toBe('side by side');
  });

  it('two parts go their own ways', () => {
    const parted = {
      ...plumJam,
      steps: plumJam.steps.map((s, i) => ({ ...s, part: i === 0 ? 'syrup' : i === 1 ? 'fruit' : '' })),
    };
    const b = new PaperBatch(parted, [{ size: 'half-pint', count: 4 }]);
    expect(turns(b)).toEqual(['in order', 'side by side', 'out of order']);
  });

  it('a reason that was given stays with the step, and none is asked again', () => {
    const b = batch().fact('step.done', {
      stepId: steps[1]!.id,
      outOfOrder: 'The fruit was stoned last night',
    });
    expect(fold(b.events).steps[steps[1]!.id]?.outOfOrder).toBe('The fruit was stoned last night');
  });
});
