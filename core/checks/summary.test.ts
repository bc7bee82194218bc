import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch, START_MS } from '../../testing/builders.ts';
import { lineOf } from '../../testing/recipe-lines.ts';
import { type BatchState, fold } from '../batches/index.ts';
import { assess, isOpen, summarise } from './index.ts';
import { printed } from '../../testing/labels.ts';

const four = [1, 2, 3, 4];
const HOUR_MS = 3_600_000;
/** A pinch of salt that no recipe of ours names: the kind of thing a person settles with a word. */
const pinch = { ...lineOf('canning-salt', '1 g', 'pinch'), role: 'salt' as const };
const tomatoes = (started = {}) => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], started);
const forms = (batch: PaperBatch) => assess(batch.events).standing.forms.map(f => f.form);
const summary = (batch: PaperBatch) => summarise(assess(batch.events));
/** What is due beside the looks, which have a part of their own. */
const due = (batch: PaperBatch) => summary(batch).due.filter(d => !d.kind.startsWith('look'));
const filled = () => tomatoes().drawAll().fill(four);
const lifted = () => {
  const batch = filled();
  batch.process(1, four, 40);
  return batch;
};

describe('where a jar is', () => {
  it('goes from filled to released, one form at a time', () => {
    const batch = filled();
    const steps: [string, string][] = [['filled', forms(batch).join()]];
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: four, newLidLotId: null });
    steps.push(['in the canner', forms(batch)[0] as string]);
    batch.fact('load.boiling', { loadId }).wait(40).fact('load.heat_off', { loadId });
    steps.push(['in the canner', forms(batch)[0] as string]);
    batch.wait(5).fact('load.lifted', { loadId });
    steps.push(['cooling', forms(batch)[0] as string]);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [1, 2, 3], failed: [4] });
    steps.push(['sealed,sealed,sealed,failed', forms(batch).join()]);
    batch.fact('jars.set_aside', { jars: [4], why: 'seal failed' });
    steps.push(['set aside', forms(batch)[3] as string]);
    batch.wait(13 * 60).readPh(3.9, { jar: 4 });
    batch.add('jars.released', { jars: [1, 2], evidence: [] });
    steps.push(['released,released,sealed,set aside', forms(batch).join()]);
    expect(steps.map(s => s[1])).toEqual(['filled,filled,filled,filled', ...steps.slice(1).map(s => s[0])]);
    expect(summary(batch).forms).toEqual({ released: 2, sealed: 1, 'set aside': 1 });
    expect(summary(batch)).toMatchObject({ jars: 3, released: 2, labelled: 0, stage: 'checking' });
  });

  it('of a short load is held, pressed or not', () => {
    const batch = filled();
    batch.process(1, four, 20);
    expect(forms(batch)).toEqual(['held', 'held', 'held', 'held']);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [1, 2, 3], failed: [4] });
    expect(forms(batch)).toEqual(['held', 'held', 'held', 'failed']);
  });
});

describe('the stage of a batch', () => {
  const stage = (batch: PaperBatch) => assess(batch.events).standing.stage;

  it('is cooking while any jar is still to be lifted', () => {
    expect(stage(tomatoes())).toBe('cooking');
    const batch = filled();
    expect(stage(batch)).toBe('cooking');
    const inside = filled();
    inside.fact('load.packed', { loadId: randomUUID(), number: 1, jars: four, newLidLotId: null });
    expect(stage(inside)).toBe('cooking');
    batch.process(1, [1, 2], 40);
    expect(stage(batch)).toBe('cooking');
    batch.process(2, [3, 4], 40);
    expect(stage(batch)).toBe('checking');
  });

  it('does not wait for jars that were set aside', () => {
    const batch = filled();
    batch.process(1, [1, 2, 3], 40);
    expect(stage(batch)).toBe('cooking');
    expect(stage(batch.fact('jars.set_aside', { jars: [4], why: 'part-filled' }))).toBe('checking');
  });

  it('is released when every jar that is left is, and closed when none is left', () => {
    const batch = tomatoes().cookWell().readPh(3.9);
    batch.add('jars.released', { jars: [1, 2, 3], evidence: [] });
    expect(stage(batch)).toBe('checking');
    batch.fact('jars.set_aside', { jars: [4], why: 'broken' });
    expect(stage(batch)).toBe('released');
    expect(stage(batch.fact('jars.set_aside', { jars: [1, 2, 3], why: 'broken' }))).toBe('closed');
  });
});

describe('what runs by itself', () => {
  it('a load from its full boil for its time, then the rest with the heat off, then nothing', () => {
    const batch = filled();
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 2, jars: four, newLidLotId: null });
    expect(summary(batch).running).toEqual([]);
    batch.wait(5).fact('load.boiling', { loadId });
    const boil_ms = batch.now_ms;
    expect(summary(batch).running).toEqual([
      {
        kind: 'load',
        id: loadId,
        title: 'Canner, load 2',
        detail: crushedTomatoes.name,
        since_ms: boil_ms,
        until_ms: boil_ms + 40 * 60_000,
        latest_ms: null,
      },
    ]);
    batch.wait(1).fact('load.boil_lost', { loadId });
    expect(summary(batch).running).toEqual([]);
    batch.wait(1).fact('load.boiling', { loadId }).wait(40).fact('load.heat_off', { loadId });
    const off_ms = batch.now_ms;
    // Five minutes with the heat off: common practice.
    expect(summary(batch).running).toMatchObject([
      { kind: 'rest', id: loadId, title: 'Load 2 rests', since_ms: off_ms, until_ms: off_ms + 5 * 60_000 },
    ]);
    batch.wait(5).fact('load.lifted', { loadId });
    expect(summary(batch).running).toEqual([]);
  });

  it('a load whose jars have no time does not call: there is nothing to call at', () => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'half-gallon', count: 1 }]).fill([1]);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1], newLidLotId: null });
    batch.fact('load.boiling', { loadId });
    expect(summary(batch).running).toEqual([]);
  });

  it('a wait has a window, and ends with its step', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    batch.wait(30).fact('step.started', { stepId: 'macerate' }).fact('step.started', { stepId: 'prepare' });
    const since_ms = batch.now_ms;
    // The plums stand 4 to 18 hours.
    expect(summary(batch).running).toMatchObject([
      {
        kind: 'wait',
        id: 'macerate',
        since_ms,
        until_ms: since_ms + 4 * HOUR_MS,
        latest_ms: since_ms + 18 * HOUR_MS,
      },
    ]);
    expect(summary(batch.fact('step.done', { stepId: 'macerate' })).running).toEqual([]);
  });

  it('what calls first stands first', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).fill([1, 2]);
    batch.fact('step.started', { stepId: 'macerate' });
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    batch.fact('load.boiling', { loadId });
    expect(summary(batch).running.map(r => r.kind)).toEqual(['load', 'wait']);
    const late = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).fill([1, 2]);
    late.fact('step.started', { stepId: 'macerate' }).wait(4 * 60 - 1);
    late.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    late.fact('load.boiling', { loadId });
    expect(summary(late).running.map(r => r.kind)).toEqual(['wait', 'load']);
  });
});

describe('what is due', () => {
  it('the press twelve hours after the last lifting, for the jars that wait for it', () => {
    const batch = filled();
    expect(due(batch)).toEqual([]);
    batch.process(1, [1, 2], 40);
    batch.process(2, [3, 4], 40);
    const lifted_ms = batch.now_ms;
    expect(due(batch)[0]).toEqual({ kind: 'press', from_ms: lifted_ms + 12 * HOUR_MS, count: 4, next: '' });
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [1, 3], failed: [] });
    expect(due(batch)[0]).toMatchObject({ kind: 'press', count: 2 });
    batch.fact('jars.set_aside', { jars: [2], why: 'broken' });
    expect(due(batch)[0]).toMatchObject({ kind: 'press', count: 1 });
  });

  it('jars that did not seal stand there at once, counted from the load they came out of, until they go their way', () => {
    const batch = filled();
    batch.process(1, four, 40);
    const lifted_ms = batch.now_ms;
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [3, 4], failed: [1, 2] });
    const failed = () => due(batch).find(d => d.kind === 'reprocess');
    expect(failed()).toMatchObject({ count: 2 });
    expect(Math.abs((failed()?.from_ms ?? 0) - lifted_ms)).toBeLessThan(60_000);
    // Nothing stands there twice.
    expect(due(batch).map(d => d.kind)).not.toContain('held');
    batch.fact('jars.set_aside', { jars: [1], why: 'broken' });
    expect(failed()).toMatchObject({ count: 1 });
    batch.fact('jars.set_aside', { jars: [2], why: 'broken' });
    expect(failed()).toBeUndefined();
  });

  it('a press that came too early is due again', () => {
    const batch = lifted()
      .wait(11 * 60)
      .fact('jars.pressed', { sealed: four, failed: [] });
    expect(due(batch)[0]).toMatchObject({ kind: 'press', count: 4 });
    batch.wait(60).fact('jars.pressed', { sealed: four, failed: [] });
    expect(due(batch).map(d => d.kind)).toEqual(['acidity']);
  });

  it('nothing is to release while a jar of the batch still cools', () => {
    const batch = lifted()
      .wait(13 * 60)
      .fact('jars.pressed', { sealed: [1, 2, 3], failed: [] })
      .wait(13 * 60)
      .readPh(3.9);
    expect(assess(batch.events).standing.gate.releasable).toEqual([2, 3]);
    expect(due(batch).map(d => d.kind)).toEqual(['press']);
  });

  it('stands in the order in which it is due', () => {
    const batch = lifted().fact('line.added', { line: pinch });
    expect(due(batch).map(d => d.kind)).toEqual(['settle', 'press', 'acidity']);
  });

  it('acidity a day after lifting: once a reading counts, or one is above the limit, no more', () => {
    const batch = lifted();
    const acidity = () => due(batch).find(d => d.kind === 'acidity');
    expect(acidity()).toMatchObject({ kind: 'acidity', from_ms: batch.now_ms + 24 * HOUR_MS, count: 1 });
    batch.wait(23 * 60).readPh(3.9, { hoursSinceProcessing: 48 });
    expect(acidity()).toBeDefined();
    batch.wait(60).readPh(3.9, { jar: 2 });
    expect(acidity()).toBeUndefined();
    // Above 4.2 a second jar is asked for.
    const near = lifted()
      .wait(25 * 60)
      .readPh(4.3);
    expect(due(near).find(d => d.kind === 'acidity')).toBeDefined();
    near.readPh(4.25, { jar: 2 });
    expect(due(near).find(d => d.kind === 'acidity')).toBeUndefined();
    expect(
      due(
        lifted()
          .wait(25 * 60)
          .readPh(4.58),
      ).find(d => d.kind === 'acidity'),
    ).toBeUndefined();
    const above = lifted().readPh(4.8, { hoursSinceProcessing: 2 });
    expect(due(above).find(d => d.kind === 'acidity')).toBeUndefined();
  });

  it('no acidity of a jam, nor of a trial, nor before the last jar was lifted', () => {
    const jam = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).cookWell();
    expect(due(jam).map(d => d.kind)).not.toContain('acidity');
    const trial = tomatoes({ purpose: 'trial' }).drawAll().fill(four);
    trial.process(1, four, 40);
    expect(due(trial).map(d => d.kind)).toEqual(['press']);
    const half = filled();
    half.process(1, [1, 2], 40);
    expect(due(half).map(d => d.kind)).toEqual(['press']);
  });

  it('release of what the gate lets through, once nothing cools any more; labels of what was released', () => {
    const batch = lifted()
      .wait(13 * 60)
      .fact('jars.pressed', { sealed: [1, 2, 3], failed: [4] })
      .wait(13 * 60)
      .readPh(3.9, { jar: 4 });
    expect(due(batch)).toMatchObject([{ kind: 'release', count: 3 }]);
    batch.wait(10).add('jars.released', { jars: [1, 2], evidence: [] });
    const released_ms = batch.now_ms;
    expect(due(batch).map(d => [d.kind, d.count])).toEqual([
      ['release', 1],
      ['label', 2],
    ]);
    expect(due(batch)[1]?.from_ms).toBe(released_ms);
    batch.add('labels.printed', { jars: [1], ...printed('pint') });
    expect(due(batch).map(d => [d.kind, d.count])).toEqual([
      ['release', 1],
      ['label', 1],
    ]);
    expect(summary(batch).labelled).toBe(1);
  });

  it('a deviation somebody may settle, until it was', () => {
    const batch = lifted().fact('line.added', { line: pinch }).wait(1);
    expect(due(batch).find(d => d.kind === 'settle')).toMatchObject({ count: 1 });
    const key = fold(batch.events).deviations[0]?.key as string;
    batch.add('deviation.settled', { key, reason: 'a slip of the finger', minutes: null });
    expect(due(batch).find(d => d.kind === 'settle')).toBeUndefined();
    const hopeless = filled();
    hopeless.process(1, four, 5);
    expect(due(hopeless).find(d => d.kind === 'settle')).toBeUndefined();
  });
});

describe('a batch that is held', () => {
  it('stands among what is due with its next step, until each jar has gone its way', () => {
    const batch = filled();
    batch.process(1, four, 5);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] });
    batch.wait(13 * 60).readPh(3.9);
    expect(due(batch)).toMatchObject([{ kind: 'held', count: 3 }]);
    expect(due(batch)[0]?.next).toMatch(/Load 1 .* boiled 5 min of 40 min\. Within 24 h put the jars back/);
    batch.fact('jars.moved', { jars: [2, 3], to: 'refrigerator' });
    expect(due(batch)).toMatchObject([{ kind: 'held', count: 1 }]);
    expect(forms(batch)).toEqual(['set aside', 'set aside', 'set aside', 'held']);
    // What stands in the cold may go into the canner again, and then is judged by that.
    batch.wait(5).process(2, [2, 3], 40);
    expect(forms(batch)).toEqual(['set aside', 'cooling', 'cooling', 'held']);
    batch.fact('jars.moved', { jars: [4], to: 'freezer' });
    expect(due(batch).map(d => d.kind)).not.toContain('held');
  });

  it('calls for somebody who may sign, while a correction waits for that', () => {
    const batch = lifted().wait(25 * 60);
    const reading = batch.readPh(4.9).events.at(-1);
    batch.wait(60).add(
      'entry.corrected',
      {
        replaces: reading?.id ?? '',
        type: 'ph.read',
        body: { ...(reading?.body as object), ph: 3.9 } as never,
        occurredAt: null,
        reason: 'a slip of the pen',
      },
      { signs: false },
    );
    expect(due(batch).find(d => d.kind === 'sign')).toMatchObject({ count: 1 });
    batch.add('correction.signed', { correctionId: batch.events.at(-1)?.id ?? '' });
    expect(due(batch).find(d => d.kind === 'sign')).toBeUndefined();
  });
});

describe('a summary', () => {
  it('carries what lists show, and the yield against what was foreseen', () => {
    const batch = tomatoes({ expected: { pints: 5, foreseen: true } }).drawAll();
    expect(summary(batch).yield).toBeNull();
    batch.fill([1, 2, 3, 4]).fact('jars.set_aside', { jars: [4], why: 'part-filled' });
    batch.fact('yield.explained', { reason: 'boiled down' });
    expect(summary(batch)).toMatchObject({
      lotCode: `${crushedTomatoes.code}-26324-1X`,
      name: crushedTomatoes.name,
      purpose: 'sale',
      madeOn: '2026-11-20',
      jars: 3,
      yield: { expected_pints: 5, foreseen: true, actual_pints: 3, reasons: ['boiled down'] },
    });
    // A jar that broke was filled all the same.
    batch.fact('jars.set_aside', { jars: [3], why: 'broken' });
    expect(summary(batch).yield?.actual_pints).toBe(3);
    expect(summary(tomatoes().fill(four)).yield).toBeNull();
  });

  it('gives readings with the day in the kitchen, how they were made and how old the jar was', () => {
    const kitchen = { ...(fold(tomatoes().events).started as NonNullable<BatchState['started']>).kitchen };
    const batch = tomatoes({ kitchen: { ...kitchen, zone: 'Pacific/Auckland' } }).cookWell();
    batch.readPh(3.9).readPh(3.8, { method: 'laboratory', reference: 'R-7', hoursSinceProcessing: 40 });
    // 15:00 UTC and some 27 h later is already the next day in Auckland.
    const day = new Date(batch.now_ms + 13 * HOUR_MS).toISOString().slice(0, 10);
    expect(batch.now_ms).toBeGreaterThan(START_MS);
    expect(summary(batch).readings).toEqual([
      { day, ph: 3.9, method: 'meter, 26 h after processing' },
      { day, ph: 3.8, method: 'laboratory R-7, 26 h after processing' },
    ]);
  });

  it('is not made of a batch that was never started', () => {
    expect(() => summarise(assess([]))).toThrow(/has not been started/);
  });
});

describe('jars are looked at', () => {
  const looks = (batch: PaperBatch) => summary(batch).due.filter(d => d.kind.startsWith('look'));
  const look = (batch: PaperBatch, set: 'as meant' | 'too soft' | null, jars = four) =>
    batch.fact('jars.looked', { jars, set, found: ['floating'], text: '' });
  const jam = () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }]).cookWell();
    const lift_ms = fold(batch.events).loads[0]?.lifted?.at_ms as number;
    return { batch, lift_ms };
  };

  it('from a day after lifting, once; what was seen earlier may still change', () => {
    const batch = lifted();
    const lift_ms = batch.now_ms;
    expect(looks(batch)).toEqual([{ kind: 'look', from_ms: lift_ms + 24 * HOUR_MS, count: 4, next: '' }]);
    look(batch.wait(60), null);
    expect(looks(batch)).toHaveLength(1);
    look(batch.wait(24 * 60), null);
    expect(looks(batch)).toEqual([]);
    expect(looks(filled())).toEqual([]);
  });

  it('again in two weeks where the set was too soft, also when all is released and labelled', () => {
    const { batch, lift_ms } = jam();
    look(batch, 'too soft');
    const again = [{ kind: 'look again', from_ms: lift_ms + 14 * 24 * HOUR_MS, count: 4, next: '' }];
    expect(looks(batch)).toEqual(again);
    batch.add('jars.released', { jars: four, evidence: [] });
    batch.add('labels.printed', { jars: four, ...printed('half-pint') });
    expect([isOpen(summary(batch)), looks(batch)]).toEqual([true, again]);
    // It has come by then, or it has not: either way nobody is asked a third time.
    look(batch.wait(14 * 24 * 60), 'too soft');
    expect([isOpen(summary(batch)), looks(batch)]).toEqual([false, []]);
    const well = jam().batch;
    look(well, 'as meant');
    expect(looks(well)).toEqual([]);
  });

  it('holds no jar and opens no gate', () => {
    const { batch } = jam();
    const before = assess(batch.events).standing;
    batch.fact('jars.looked', { jars: [1, 99], set: 'too soft', found: ['cloudy', 'siphoned'], text: 'x' });
    expect(assess(batch.events).standing).toEqual(before);
    // What else waits is not hidden by a look that is due.
    const held = filled();
    held.process(1, four, 20);
    held.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] });
    held.wait(13 * 60).readPh(3.9, { jar: 4 });
    expect(summary(held).due.map(d => d.kind)).toEqual(expect.arrayContaining(['look', 'held']));
  });

  it('is what is learned: the last set, the jars of each fault once, the words of all', () => {
    const { batch } = jam();
    look(batch, 'too soft', [1, 2]);
    batch.fact('jars.looked', {
      jars: [2, 3],
      set: null,
      found: ['floating', 'cloudy'],
      text: 'Stir longer.',
    });
    expect(summary(batch).learned).toMatchObject({
      set: 'too soft',
      found: [
        { fault: 'floating', jars: 3 },
        { fault: 'cloudy', jars: 2 },
      ],
      said: ['Stir longer.'],
    });
  });
});
