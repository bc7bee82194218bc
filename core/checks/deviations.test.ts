import { describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { deviationRecords, gate, openActions } from './index.ts';

const four = [1, 2, 3, 4];
const tomatoes = () => new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]);
const records = (batch: PaperBatch) => deviationRecords(fold(batch.events));
const one = (batch: PaperBatch, code: string) => records(batch).find(r => r.code === code);
const actions = (...of: Parameters<typeof openActions>) =>
  openActions(...of)
    .filter(a => a.why === '')
    .map(a => a.action);

describe('what may be done about a deviation', () => {
  it('hangs on its kind and the hours: jars go in again within 24 h of being lifted', () => {
    expect(actions({ kind: 'process', settles: null }, 23.9)).toContain('processed again');
    expect(actions({ kind: 'process', settles: null }, 24.1)).not.toContain('processed again');
    expect(actions({ kind: 'process', settles: null }, null)).toContain('processed again');
    expect(actions({ kind: 'acid', settles: null }, 1)).toEqual([
      'refrigerated',
      'held',
      'authority asked',
      'destroyed',
    ]);
    expect(actions({ kind: 'acid', settles: 'reason' }, 1)).toContain('shown right');
  });

  it('above the limit there is only holding, a written word, and destruction', () =>
    expect(actions({ kind: 'above the limit', settles: null }, 1)).toEqual([
      'held',
      'authority asked',
      'destroyed',
    ]));

  it('what cannot be settled by a word says where it is mended', () =>
    expect(openActions({ kind: 'entry', settles: null }, null)[0]).toMatchObject({
      action: 'shown right',
      why: expect.stringContaining('corrected in the record'),
    }));
});

describe('the list of deviations', () => {
  const above = () => tomatoes().cookWell().readPh(4.7);
  const about = (batch: PaperBatch) => ({ key: one(batch, 'ph_above')?.key ?? '', minutes: null });

  it('a reading above the limit is one, and no word of the kitchen settles it', () => {
    const batch = above();
    expect(one(batch, 'ph_above')).toMatchObject({ kind: 'above the limit', state: 'open', jars: null });
    for (const action of ['shown right', 'authority asked', 'held'] as const)
      batch.fact('deviation.settled', { ...about(batch), action, reason: 'It tastes sour enough.' });
    expect(one(batch, 'ph_above')?.state).toBe('open');
    expect(one(batch, 'ph_above')?.actions.map(a => a.action)).toEqual([
      'shown right',
      'authority asked',
      'held',
    ]);
    expect(gate(fold(batch.events)).releasable).toEqual([]);
  });

  it('is over once its jars went another way', () => {
    const batch = above();
    batch.fact('deviation.settled', {
      ...about(batch),
      action: 'destroyed',
      reason: 'Bagged.',
      cause: 'Very ripe fruit',
      paper: { paperId: 'p', sha256: 'x' },
    });
    batch.fact('jars.set_aside', { jars: [2, 3, 4], why: 'destroyed' });
    expect(one(batch, 'ph_above')).toMatchObject({
      state: 'gone',
      actions: [{ action: 'destroyed', cause: 'Very ripe fruit', paperId: 'p' }],
    });
  });

  it('only what was shown right settles what can be settled; other actions are kept with it', () => {
    const lost = () => {
      const batch = tomatoes().drawAll().fill(four);
      batch.fact('dose.checked', { lineId: 'lemon', quantity: 1, unit: 'mL' });
      return batch;
    };
    const key = one(lost(), 'bottle_short') && lost();
    const batch = key as PaperBatch;
    const of = { key: one(batch, 'bottle_short')?.key ?? '', minutes: null };
    expect(one(batch, 'bottle_short')?.settles).toBe('reason');
    batch.wait(5).fact('deviation.settled', { ...of, action: 'held', reason: 'Until tomorrow.' });
    expect(one(batch, 'bottle_short')?.state).toBe('open');
    batch.wait(5).fact('deviation.settled', { ...of, reason: 'The mark was read upside down.' });
    expect(one(batch, 'bottle_short')?.state).toBe('settled');
    expect(one(batch, 'bottle_short')?.unseen).toBe(true);
  });

  it('a second person looks at it, never the same one; who does not agree opens it again', () => {
    const batch = tomatoes().drawAll().fill(four);
    batch.fact('dose.checked', { lineId: 'lemon', quantity: 1, unit: 'mL' });
    const key = one(batch, 'bottle_short')?.key ?? '';
    batch.wait(5).fact('deviation.settled', { key, reason: 'Misread.', minutes: null });
    batch.wait(5).fact('deviation.looked', { key, agrees: false, text: '' });
    expect(one(batch, 'bottle_short')).toMatchObject({ state: 'settled', secondLook: null });
    const other = tomatoes().device;
    batch.wait(5).add('deviation.looked', { key, agrees: true, text: '' }, { device: other });
    expect(one(batch, 'bottle_short')).toMatchObject({
      state: 'settled',
      unseen: false,
      secondLook: { agrees: true },
    });
    batch
      .wait(5)
      .add('deviation.looked', { key, agrees: false, text: 'I saw the bottle.' }, { device: other });
    expect(one(batch, 'bottle_short')).toMatchObject({ state: 'open', secondLook: { agrees: false } });
    expect(gate(fold(batch.events)).conditions.some(c => c.code.startsWith('deviation:bottle_short'))).toBe(
      true,
    );
  });
});
