import { describe, expect, it } from 'vitest';
import { crushedTomatoes } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import type { Canner } from '../kitchen/index.ts';
import type { StartedBody } from './events.ts';
import { fold } from './fold.ts';
import { loadPlan, nextLoads } from './next-load.ts';

const water: Canner = {
  id: 'w',
  name: 'Water',
  kind: 'boiling water',
  holds: { pint: 9, quart: 7, 'half-gallon': 4 },
};
const steam: Canner = { id: 's', name: 'Steam', kind: 'steam', holds: { pint: 8, quart: 7 } };
const upTo = (n: number, from = 1) => Array.from({ length: n - from + 1 }, (_, i) => from + i);

/** At sea level, where the time of a quart is within what steam was tested for. */
function batchOf(
  jars: { size: 'pint' | 'quart' | 'half-gallon'; count: number }[],
  heat: Canner['kind'] = 'boiling water',
) {
  const plain = new PaperBatch(crushedTomatoes, jars);
  const { kitchen } = plain.events[0]!.body as StartedBody;
  const batch = new PaperBatch(crushedTomatoes, jars, { heat, kitchen: { ...kitchen, altitude_m: 0 } });
  let number = 1;
  for (const { size, count } of jars) {
    batch.fill(upTo(number + count - 1, number), size);
    number += count;
  }
  return batch;
}
const pack = (batch: PaperBatch, loadId: string, jars: number[], cannerId: string | null) =>
  batch.add('load.packed', { loadId, number: 1, jars, newLidLotId: null, cannerId });
const [A, B] = ['01930000-0000-7000-8000-00000000000a', '01930000-0000-7000-8000-00000000000b'] as const;

describe('the next load', () => {
  it('takes what stands in the canner, and leaves the rest waiting', () => {
    const [load] = nextLoads(fold(batchOf([{ size: 'quart', count: 28 }]).events), [water]);
    expect(load?.jars.map(j => j.number)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(load?.busy).toBe(false);
  });

  it('two canners at once: what one has, the other is not offered', () => {
    const batch = batchOf([{ size: 'quart', count: 14 }]);
    pack(batch, A, upTo(7), 'w');
    const second = { ...water, id: 'w2', name: 'Second' };
    const [first, other] = nextLoads(fold(batch.events), [water, second]);
    expect([first?.canner?.id, first?.busy, first?.jars.map(j => j.number)]).toEqual([
      'w2',
      false,
      upTo(14, 8),
    ]);
    expect([other?.canner?.id, other?.busy]).toEqual(['w', true]);
    pack(batch, B, upTo(14, 8), 'w2');
    expect(nextLoads(fold(batch.events), [water, second]).map(l => l.jars.length)).toEqual([0, 0]);
  });

  it('the only canner is in use also where nobody said which it was', () => {
    const batch = batchOf([{ size: 'quart', count: 14 }]);
    pack(batch, A, upTo(7), null);
    expect(nextLoads(fold(batch.events), [water])[0]?.busy).toBe(true);
    expect(nextLoads(fold(batch.events), [])[0]?.busy).toBe(true);
  });

  it('steam takes what was tested in it, and water the half-gallons beside it', () => {
    const batch = batchOf([
      { size: 'quart', count: 3 },
      { size: 'half-gallon', count: 2 },
    ]);
    const loads = nextLoads(fold(batch.events), [steam, water]);
    const inSteam = loads.find(l => l.heat === 'steam');
    expect(inSteam?.jars.every(j => j.size === 'quart')).toBe(true);
    expect(inSteam?.unfit).toEqual([{ size: 'half-gallon', why: 'no-room' }]);
    expect(loads.find(l => l.heat === 'boiling water')?.jars).toHaveLength(5);
  });

  it('a kitchen without a canner has the usual one of the heat it began with', () => {
    const [load] = nextLoads(fold(batchOf([{ size: 'quart', count: 9 }]).events), []);
    expect([load?.canner, load?.heat, load?.jars.length]).toEqual([null, 'boiling water', 7]);
    const steamed = nextLoads(fold(batchOf([{ size: 'quart', count: 2 }], 'steam').events), [water]);
    expect(steamed.map(l => [l.canner?.id ?? null, l.heat])).toEqual([
      [null, 'steam'],
      ['w', 'boiling water'],
    ]);
  });

  it('mixed sizes run for the longest, and say what each would take alone', () => {
    const state = fold(
      batchOf([
        { size: 'pint', count: 2 },
        { size: 'quart', count: 2 },
      ]).events,
    );
    const [load] = nextLoads(state, [water]);
    const plan = loadPlan(state, load!, load!.jars);
    const minutes = (size: string) => state.started?.times.find(t => t.jarSize === size)?.minutes;
    expect(plan.minutes).toBe(minutes('quart'));
    expect(plan.shorter).toEqual([{ size: 'pint', minutes: minutes('pint') }]);
    expect(plan.over).toBe(0);
    expect(plan.free).toBeGreaterThan(0);
    expect(loadPlan(state, { holds: { pint: 1, quart: 1 } }, load!.jars).over).toBe(3);
  });
});
