import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import type { Recipe } from '../recipes/index.ts';
import { assess, deviationRecords, gate } from './index.ts';

const jam = (started = {}) => new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }], started).cookWell();
const records = (batch: PaperBatch) => deviationRecords(fold(batch.events));
const releasable = (batch: PaperBatch) => gate(fold(batch.events)).releasable;

describe('the gate for every exit but destruction', () => {
  it('a sample or a gift that nobody released is a deviation, which holds no other jar', () => {
    for (const why of ['sampled', 'gifted'] as const) {
      const batch = jam();
      batch.fact('jars.set_aside', { jars: [2], why });
      expect(records(batch)).toMatchObject([{ code: 'ungated', state: 'open' }]);
      expect(releasable(batch)).toEqual([1, 3, 4]);
      const key = records(batch)[0]?.key ?? '';
      batch
        .wait(5)
        .fact('deviation.settled', { key, minutes: null, action: 'held', reason: 'It came back closed.' });
      expect(records(batch)[0]?.state).toBe('gone');
    }
  });

  it('of what was released, destroyed, broken, or eaten at home nobody asks', () => {
    const free = jam();
    free.add('jars.released', { jars: [2], evidence: [] });
    free.wait(5).fact('jars.set_aside', { jars: [2], why: 'gifted' });
    expect(records(free)).toEqual([]);
    for (const why of ['destroyed', 'broken', 'tested'] as const)
      expect(records(jam().fact('jars.set_aside', { jars: [2], why }))).toEqual([]);
    expect(records(jam({ purpose: 'home' }).fact('jars.set_aside', { jars: [2], why: 'gifted' }))).toEqual(
      [],
    );
    // Released afterwards is not released before.
    const late = jam();
    late.fact('jars.set_aside', { jars: [2], why: 'gifted' });
    late.wait(5).add('jars.released', { jars: [2], evidence: [] });
    expect(records(late)).toHaveLength(1);
  });
});

describe('what was released and is called back', () => {
  it('is held from then on, alone, and never released again', () => {
    const batch = jam();
    batch.add('jars.released', { jars: [1, 2, 3, 4], evidence: [] });
    batch.wait(60).add('jars.withdrawn', { jars: [2, 3], why: 'Glass was found in jar 2.' });
    const { standing, state } = assess(batch.events);
    expect(standing.released).toEqual([1, 4]);
    expect(standing.forms.map(f => f.form)).toEqual(['released', 'held', 'held', 'released']);
    expect(state.jars[1]?.withdrawn?.why).toBe('Glass was found in jar 2.');
    expect(releasable(batch)).toEqual([1, 4]);
    batch.wait(5).add('jars.released', { jars: [2], evidence: [] });
    expect(assess(batch.events).standing.released).toEqual([1, 4]);
  });
});

describe('the jar that is kept', () => {
  it('stays behind when the others go, until it need not be kept', () => {
    const batch = jam();
    batch.fact('jars.marked', { jars: [4], for: 'keeping' });
    expect(releasable(batch)).toEqual([1, 2, 3]);
    batch.wait(5).fact('jars.marked', { jars: [4], for: 'sale' });
    expect(releasable(batch)).toEqual([1, 2, 3, 4]);
  });
});

describe('what closes a jar', () => {
  const { authority } = waxBeans;
  const withClosure = (closure: string): Recipe =>
    authority.grade === 'letter'
      ? { ...waxBeans, authority: { ...authority, terms: { ...authority.terms, closure } } }
      : waxBeans;
  const closed = (recipe: Recipe, closure: string) => {
    const four = [1, 2, 3, 4];
    const batch = new PaperBatch(recipe, [{ size: 'pint', count: 4 }]).drawAll().wait(60);
    batch.fact('jars.filled', {
      size: 'pint',
      jars: four,
      jarLotId: batch.jarLotId,
      lidLotId: batch.lidLotId,
      closure,
    });
    batch.process(1, four, 15);
    return batch.wait(13 * 60);
  };
  const open = (batch: PaperBatch) =>
    gate(fold(batch.events))
      .conditions.filter(c => !c.met)
      .map(c => c.code);

  it('is a flat lid with a band, or what its letter names; anything else holds the jar', () => {
    expect(open(closed(withClosure(''), 'wire bail'))).toContain('closure');
    expect(open(closed(withClosure('one-piece lid'), 'wire bail'))).toContain('closure');
    expect(open(closed(withClosure('One-piece lid'), 'one-piece lid '))).not.toContain('closure');
    expect(open(closed(withClosure(''), ''))).not.toContain('closure');
    // A letter may call flat lids by any of their names: that is no other closure, and a thumb proves it.
    for (const flat of [
      'two-piece lids, new',
      'Two piece metal lid',
      'new flat lids and bands',
      '2-part lids',
    ]) {
      expect(open(closed(withClosure(flat), flat))).not.toContain('closure');
      expect(open(closed(withClosure(''), flat))).not.toContain('closure');
    }
    for (const other of [
      'one-piece lid',
      'flat lid with wire bail',
      'lug cap',
      'reusable two-piece lid',
      'flat',
    ])
      expect(open(closed(withClosure(''), other))).toContain('closure');
  });

  it('another closure has a proof of its own: a thumb says nothing of it', () => {
    const letter = withClosure('one-piece lid');
    const press = (how: 'pressed' | 'as the letter says') => {
      const batch = closed(letter, 'one-piece lid');
      batch.fact('jars.pressed', { sealed: [1, 2, 3, 4], failed: [], how });
      return open(batch);
    };
    expect(press('pressed')).toContain('sealed');
    expect(press('as the letter says')).not.toContain('sealed');
  });
});

it('a check before market is kept with each jar, and proves nothing at the gate', () => {
  const batch = jam();
  batch.fact('jars.market_checked', { jars: [1, 2], done: ['band off', 'washed'] });
  batch
    .wait(5)
    .fact('jars.market_checked', { jars: [2], done: ['band off', 'washed', 'looked at', 'clean band'] });
  const { jars } = fold(batch.events);
  expect(jars.map(j => j.market?.done.length ?? 0)).toEqual([2, 4, 0, 0]);
});
