import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { type Condition, condition, sentence, tempBoth } from './condition.ts';
import { gate } from './index.ts';

const four = [1, 2, 3, 4];
const tomatoes = () => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]);
/** Minutes crushed tomatoes take in pints at 2,350 ft. */
const TAKES_MIN = 40;

const find = (batch: PaperBatch, code: string): Condition => {
  const found = gate(fold(batch.events)).conditions.find(c => c.code === code);
  if (!found) throw new Error(`no condition ${code}`);
  return found;
};

describe('acid in each jar', () => {
  it('names the line, says how many jars have it, and holds those that have none recorded', () => {
    const batch = tomatoes().cookWell();
    expect(find(batch, 'dose:lemon')).toMatchObject({
      title: 'Bottled lemon juice in each jar',
      met: true,
      evidence: 'Given to all 4 jars.',
      next: '',
      jars: [],
    });
    batch.fact('jars.filled', { size: 'pint', jars: [5, 6], jarLotId: null, lidLotId: batch.lidLotId });
    expect(find(batch, 'dose:lemon')).toMatchObject({
      met: false,
      evidence: 'Not recorded for jar 5, 6, or only after it was closed.',
      next: 'Record the dose, or set the jar aside.',
      jars: [5, 6],
    });
    batch
      .fact('dose.given', { lineId: 'lemon', jars: [5] })
      .fact('jars.set_aside', { jars: [6], why: 'broken' });
    expect(find(batch, 'dose:lemon')).toMatchObject({ met: true, evidence: 'Given to all 5 jars.' });
  });

  it('missed stays missed, whatever is said afterwards; only a correction takes it back', () => {
    const batch = tomatoes().cookWell();
    const missed = batch.wait(1).add('dose.missed', { lineId: 'lemon', jars: [2] });
    batch.wait(1).fact('dose.given', { lineId: 'lemon', jars: [2] });
    expect(find(batch, 'dose:lemon').jars).toEqual([2]);
    batch.wait(1).fact('entry.corrected', {
      replaces: missed.id,
      type: 'dose.missed',
      body: { lineId: 'lemon', jars: [3] },
      occurredAt: null,
      reason: 'it was the other jar',
    });
    expect(find(batch, 'dose:lemon').jars).toEqual([3]);
  });

  it('is asked only where the recipe puts acid into each jar: salt in each jar is no condition', () => {
    const salted = {
      ...waxBeans,
      lines: waxBeans.lines.map(l => (l.role === 'salt' ? { ...l, where: 'each jar' as const } : l)),
    };
    for (const recipe of [plumJam, salted]) {
      const batch = new PaperBatch(recipe, [{ size: 'pint', count: 4 }]);
      const asked = gate(fold(batch.events)).conditions.map(c => c.code.split(':')[0]);
      expect(asked).not.toContain('dose');
    }
  });
});

describe('processed for the whole time', () => {
  it('shows each load that was run in full, and its time beside what it had to be', () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, [1, 2], TAKES_MIN);
    batch.process(2, [3, 4], TAKES_MIN + 2);
    expect(find(batch, 'processed')).toMatchObject({
      met: true,
      evidence: 'Load 1 40 min of 40 min, load 2 42 min of 40 min.',
      jars: [],
    });
  });

  it('goes by the last load of a jar: a short one after a full one holds it', () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, four, TAKES_MIN);
    batch.process(2, [4], 10);
    expect(find(batch, 'processed')).toMatchObject({
      met: false,
      evidence: 'Jar 4 was not in a load that was processed in full.',
      jars: [4],
    });
    batch.process(3, [4], TAKES_MIN);
    expect(find(batch, 'processed')).toMatchObject({
      met: true,
      evidence: 'Load 1 40 min of 40 min, load 3 40 min of 40 min.',
    });
  });

  it('holds jars that were never in the canner, and those whose load still boils or rests', () => {
    const batch = tomatoes().drawAll().fill(four);
    expect(find(batch, 'processed').jars).toEqual(four);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    batch.fact('load.boiling', { loadId }).wait(60);
    expect(find(batch, 'processed').jars).toEqual(four);
    batch.fact('load.heat_off', { loadId });
    expect(find(batch, 'processed').jars).toEqual(four);
    batch.wait(5).fact('load.lifted', { loadId });
    expect(find(batch, 'processed').jars).toEqual([3, 4]);
  });
});

describe('sealed, pressed after cooling', () => {
  const lifted = () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.process(1, four, TAKES_MIN);
    return batch;
  };

  it('counts a press at twelve hours to the minute, and none before', () => {
    const at = (minutes: number) =>
      find(lifted().wait(minutes).fact('jars.pressed', { sealed: four, failed: [] }), 'sealed');
    expect(at(12 * 60)).toMatchObject({ met: true, evidence: '4 jars pressed and sealed.', jars: [] });
    expect(at(12 * 60 - 1)).toMatchObject({
      met: false,
      evidence: 'Jar 1-4 is not pressed, failed, or was pressed before 12 h.',
      jars: four,
    });
  });

  it('a seal that gave way holds its jar, and no later press makes it good: only a new load does', () => {
    const batch = lifted()
      .wait(13 * 60)
      .fact('jars.pressed', { sealed: [1, 2, 3], failed: [4] })
      .wait(60)
      .fact('jars.pressed', { sealed: [4], failed: [1] });
    expect(find(batch, 'sealed').jars).toEqual([1, 4]);
    expect(find(batch, 'sealed').next).toMatch(/refrigerate those that failed, or process them again/);
    batch.process(2, [1, 4], TAKES_MIN);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: four, failed: [] });
    expect(find(batch, 'sealed').jars).toEqual([]);
  });

  it('a jar that was never in a load is not sealed, whoever pressed it', () => {
    const batch = lifted().fact('jars.filled', {
      size: 'pint',
      jars: [5],
      jarLotId: null,
      lidLotId: null,
    });
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [...four, 5], failed: [] });
    expect(find(batch, 'sealed').jars).toEqual([5]);
  });
});

describe('a batch that has not come so far', () => {
  it('with no jar filled holds everything, and says so in each condition of a jar', () => {
    const batch = tomatoes();
    for (const code of ['dose:lemon', 'processed', 'sealed'])
      expect(find(batch, code)).toMatchObject({ met: false, evidence: 'No jar is filled.', jars: null });
    expect(gate(fold(batch.events)).releasable).toEqual([]);
  });

  it('with every jar set aside has none left to judge', () => {
    const batch = tomatoes().cookWell().readPh(3.9).fact('jars.set_aside', { jars: four, why: 'broken' });
    expect(find(batch, 'sealed')).toMatchObject({ met: false, evidence: 'No jar is filled.', jars: null });
    expect(gate(fold(batch.events)).releasable).toEqual([]);
  });

  it('that was never started is held by that alone', () => {
    const batch = tomatoes();
    const events = batch.fill(four).events.filter(e => e.type !== 'batch.started');
    expect(gate(fold(events))).toEqual({
      conditions: [
        {
          code: 'started',
          title: 'The batch was started',
          met: false,
          evidence: 'No start is recorded.',
          why: '',
          next: '',
          jars: null,
          against: false,
          proof: [],
        },
      ],
      releasable: [],
    });
  });
});

describe('the words of a condition', () => {
  it('leaves out what to do next once it is met', () => {
    const of = { code: 'x', title: 'X', evidence: 'e', why: 'w', next: 'Do it.', jars: null };
    expect(condition({ ...of, met: false }).next).toBe('Do it.');
    expect(condition({ ...of, met: true }).next).toBe('');
  });

  it('gives a temperature in both scales, to a tenth', () => {
    // 100 °C is 212 °F by definition; 102.1 °C is 215.78 °F.
    expect(tempBoth(100, { locale: 'en-US' })).toBe('212.0 °F (100.0 °C)');
    expect(tempBoth(102.1, { locale: 'en-US' })).toBe('215.8 °F (102.1 °C)');
    expect(tempBoth(102.1, { locale: 'de-DE' })).toBe('215,8 °F (102,1 °C)');
    expect(tempBoth(-40, { locale: 'en-US' })).toBe('-40.0 °F (-40.0 °C)');
  });

  it('begins with a large letter', () => {
    expect(sentence('load 1')).toBe('Load 1');
    expect(sentence('')).toBe('');
  });
});
