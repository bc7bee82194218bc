import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import type { Recipe, Step } from '../recipes/index.ts';
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
  const [first, second, third] = plumJam.steps as [Step, Step, Step];
  const rest = {
    kind: 'rest' as const,
    window: { from_min: 60, to_min: 240 },
    attention: { kind: 'free' as const },
  };
  const hands = { attention: { kind: 'hands-on' as const }, window: null };
  const withSteps = (...changes: Partial<Step>[]): Recipe => ({
    ...plumJam,
    steps: plumJam.steps.map((s, i) => ({ ...s, ...hands, ...changes[i] })),
  });
  const turns = (b: PaperBatch) => {
    const state = fold(b.events);
    return state.started!.recipe.steps.slice(0, 3).map(s => turnOf(state, s));
  };
  const of = (recipe: Recipe) => new PaperBatch(recipe, [{ size: 'half-pint', count: 4 }]).drawAll();

  it('is that of the first open step; what gets things ready goes beside a wait, once that has begun', () => {
    const one = of(withSteps(rest, { kind: 'prepare' }, { kind: 'cook' }));
    expect(turns(one)).toEqual(['in order', 'out of order', 'out of order']);
    one.fact('step.started', { stepId: first.id });
    expect(turns(one)).toEqual(['in order', 'side by side', 'out of order']);
    expect(openNow(fold(one.events)).map(s => s.id)).toEqual([first.id, second.id]);
    one.fact('step.done', { stepId: second.id });
    expect(turns(one)[2]).toBe('out of order');
    one.fact('step.done', { stepId: first.id });
    expect(turns(one)[2]).toBe('in order');
  });

  it('what stands in sugar is not cooked before it has stood; a brine is, while the cucumbers soak', () => {
    const line = plumJam.lines[0]!;
    const recipe: Recipe = {
      ...withSteps(
        { ...rest, kind: 'soak', adds: [{ lineId: line.id, share: '1' }] },
        { kind: 'cook', adds: [{ lineId: 'vinegar', share: '1' }] },
        { kind: 'cook', adds: [] },
      ),
      lines: [...plumJam.lines, { ...line, id: 'vinegar', where: 'brine' }],
    };
    const b = of(recipe).fact('step.started', { stepId: first.id });
    expect(turns(b)).toEqual(['in order', 'side by side', 'out of order']);
    const pot = { ...recipe, lines: recipe.lines.map(l => ({ ...l, where: 'pot' as const })) };
    expect(turns(of(pot).fact('step.started', { stepId: first.id }))[1]).toBe('out of order');
  });

  it('two parts go their own ways, as far as one of them needs nobody', () => {
    const parted = withSteps({ ...rest, part: 'syrup' }, { part: 'fruit', kind: 'cook' }, {});
    expect(turns(of(parted).fact('step.started', { stepId: first.id }))).toEqual([
      'in order',
      'side by side',
      'out of order',
    ]);
    expect(turns(of(parted))[1]).toBe('out of order');
  });

  it('a reason that was given stays with the step, and none is asked again', () => {
    const b = of(plumJam).fact('step.done', { stepId: third.id, outOfOrder: 'It was done last night' });
    expect(fold(b.events).steps[third.id]?.outOfOrder).toBe('It was done last night');
  });
});
