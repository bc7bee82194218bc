import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { LIDS_TO_JUDGE, type SealCount, sealCounts, sealGroups, worseLids } from './index.ts';

const jam = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
const counts = (batch: PaperBatch) =>
  sealCounts(fold(batch.events)).map(({ load, tried, failed, lidLotId }) => ({
    load,
    tried,
    failed,
    lidLotId,
  }));

describe('seals of a batch', () => {
  it('are counted once they were pressed after lifting; what is not pressed is not tried', () => {
    const batch = jam().fill([1, 2, 3, 4]);
    batch.process(1, [1, 2, 3, 4], 15);
    expect(counts(batch)).toEqual([]);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [1, 2], failed: [3] });
    expect(counts(batch)).toEqual([{ load: 1, tried: 3, failed: 1, lidLotId: batch.lidLotId }]);
  });

  it('a jar that went in again under a new lid was tried twice, once for each lid', () => {
    const batch = jam().fill([1, 2]);
    batch.process(1, [1, 2], 15);
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [1], failed: [2] });
    const lid = randomUUID();
    const loadId = randomUUID();
    batch.add('load.packed', { loadId, number: 2, jars: [2], newLidLotId: lid });
    batch.wait(10).add('load.boiling', { loadId });
    batch.wait(15).add('load.heat_off', { loadId });
    batch.wait(5).add('load.lifted', { loadId });
    batch.wait(13 * 60).fact('jars.pressed', { sealed: [2], failed: [] });
    expect(counts(batch)).toEqual([
      { load: 1, tried: 2, failed: 1, lidLotId: batch.lidLotId },
      { load: 2, tried: 1, failed: 0, lidLotId: lid },
    ]);
  });

  it('one found open, bulging or mouldy later failed, whatever the press said', () => {
    const batch = jam().cookWell();
    batch.wait(30 * 24 * 60).fact('jars.set_aside', { jars: [2], why: 'bulging' });
    batch.fact('jars.set_aside', { jars: [3], why: 'broken' });
    expect(counts(batch)).toEqual([{ load: 1, tried: 8, failed: 1, lidLotId: batch.lidLotId }]);
  });
});

const of = (
  lidLotId: string | null,
  tried: number,
  failed: number,
  over: Partial<SealCount> = {},
): SealCount => ({
  lidLotId,
  tried,
  failed,
  size: 'pint',
  load: 1,
  cannerId: null,
  headspace_mm: null,
  ...over,
});

describe('lid lots', () => {
  it('one that fails more than chance is named over several batches, with both counts', () => {
    // Three batches, one or two failures in each: none of them says anything by itself.
    const bad = [of('bad', 8, 2), of('bad', 9, 1), of('bad', 8, 2)];
    const others = [of('good', 60, 1), of('fine', 50, 0), of(null, 10, 3)];
    for (const one of bad) expect(worseLids([one, ...others])).toEqual([]);
    expect(worseLids([...bad, ...others])).toMatchObject([
      { lidLotId: 'bad', tried: 25, failed: 5, othersTried: 110, othersFailed: 1 },
    ]);
  });

  it('is judged from twenty lids on, and beside others only', () => {
    const others = of('good', 100, 0);
    expect(worseLids([of('few', LIDS_TO_JUDGE - 1, 6), others])).toEqual([]);
    expect(worseLids([of('few', LIDS_TO_JUDGE, 6), others])).toHaveLength(1);
    expect(worseLids([of('alone', 40, 20)])).toEqual([]);
  });

  it('no lot is worse where all fail alike, and a lot with no failure never is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 200 }), fc.integer({ min: 2, max: 5 }), (tried, lots) => {
        const alike = Array.from({ length: lots }, (_, i) => of(`lot ${i}`, tried, 1));
        expect(worseLids(alike)).toEqual([]);
        expect(worseLids([of('clean', tried, 0), ...alike]).map(w => w.lidLotId)).not.toContain('clean');
      }),
    );
  });

  it('a lot called __proto__ is a lot like any other', () => {
    expect(worseLids([of('__proto__', 30, 8), of('good', 90, 0)]).map(w => w.lidLotId)).toEqual([
      '__proto__',
    ]);
    expect(sealGroups([of('__proto__', 3, 1), of('__proto__', 2, 0)], c => c.lidLotId)).toMatchObject([
      { key: '__proto__', tried: 5, failed: 1 },
    ]);
  });

  it('groups by what is asked, the worst first; what belongs to none is left out', () => {
    const groups = sealGroups([of('a', 10, 0), of('b', 10, 4), of(null, 9, 9)], c => c.lidLotId);
    expect(groups.map(g => [g.key, g.share])).toEqual([
      ['b', 0.4],
      ['a', 0],
    ]);
  });
});
