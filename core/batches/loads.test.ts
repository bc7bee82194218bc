import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch, START_MS } from '../../testing/builders.ts';
import { Device } from '../../testing/device.ts';
import { placed } from '../../testing/placed.ts';
import { gate } from '../checks/index.ts';
import { elapsedBetween, fold, unusedOf } from './index.ts';

const codes = (batch: PaperBatch) => fold(batch.events).deviations.map(d => d.code);
const met = (batch: PaperBatch, code: string) =>
  gate(fold(batch.events)).conditions.find(c => c.code === code)?.met;

describe('a load', () => {
  it('of mixed jars takes the longest time, and has none where one of its jars has none', () => {
    // Crushed tomatoes have a time for pints and quarts and none for half-gallons.
    const sizes = [
      { size: 'pint' as const, count: 2 },
      { size: 'quart' as const, count: 2 },
      { size: 'half-gallon' as const, count: 1 },
    ];
    const filled = () =>
      new PaperBatch(crushedTomatoes, sizes)
        .fill([1, 2], 'pint')
        .fill([3, 4], 'quart')
        .fill([5], 'half-gallon');
    const times = fold(filled().events).started?.times ?? [];
    const minutes = (size: string) => times.find(t => t.jarSize === size)?.minutes ?? 0;
    expect(minutes('quart')).toBeGreaterThan(minutes('pint'));
    expect(minutes('half-gallon')).toBe(0);

    const mixed = filled();
    mixed.process(1, [1, 2, 3, 4], minutes('pint'));
    expect(fold(mixed.events).loads[0]).toMatchObject({
      phase: 'short',
      required_s: minutes('quart') * 60,
    });
    for (const order of [
      [1, 5],
      [5, 1],
    ]) {
      const without = filled();
      without.process(1, order, 600);
      expect(fold(without.events).loads[0]).toMatchObject({ phase: 'no time', required_s: null });
      expect(codes(without)).toEqual(['no_time']);
      expect(gate(fold(without.events)).conditions.find(c => c.code === 'processed')?.jars).toContain(1);
    }
  });

  it('may be steamed where another of its batch is boiled; what steam was not tested for is held until it is boiled', () => {
    // Here pints take 40 minutes and quarts 50, which is over the 45 that steam was tested for.
    const batch = new PaperBatch(crushedTomatoes, [
      { size: 'pint', count: 1 },
      { size: 'quart', count: 2 },
    ])
      .drawAll()
      .fill([1], 'pint')
      .fill([2, 3], 'quart');
    const run = (
      number: number,
      jars: number[],
      heat: 'steam' | 'boiling water',
      newLidLotId: string | null = null,
    ) => {
      const loadId = randomUUID();
      batch.add('load.packed', { loadId, number, jars, newLidLotId, cannerId: null, heat });
      batch.wait(10).add('load.boiling', { loadId });
      batch.wait(50).add('load.heat_off', { loadId });
      batch.wait(5).add('load.lifted', { loadId });
    };
    run(1, [1], 'steam');
    run(2, [2], 'boiling water');
    expect(codes(batch)).toEqual([]);
    run(3, [3], 'steam');
    const [held] = fold(batch.events).deviations;
    expect(held).toMatchObject({ code: 'steam_untested', jars: [3] });
    expect(held?.what).toBe(
      'Load 3 (jars 3) was put in steam. 50 minutes is over the 45 that steam was tested for: the water would boil away.',
    );
    const jarsHeld = () =>
      gate(fold(batch.events)).conditions.flatMap(c => (c.code.startsWith('deviation:steam') ? c.jars : []));
    expect(jarsHeld()).toEqual([3]);
    run(4, [3], 'boiling water', batch.lidLotId);
    expect(jarsHeld()).toEqual([]);
    // A pint beside a quart in one load runs for the quart's time.
    run(5, [1, 2], 'steam', batch.lidLotId);
    expect(jarsHeld()).toEqual([1, 2]);
  });

  it('that was lifted takes no more entries at the stove: each opens a deviation and changes no time', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }]).drawAll().fill([1, 2]);
    const loadId = batch.process(1, [1, 2], 9);
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'short', time_s: 9 * 60 });
    batch.wait(1).fact('load.boiling', { loadId }).wait(30).fact('load.heat_off', { loadId });
    batch.fact('load.boil_lost', { loadId });
    expect(fold(batch.events).loads[0]).toMatchObject({ phase: 'short', time_s: 9 * 60, voided_s: [] });
    expect(codes(batch)).toEqual(['after_lift', 'after_lift', 'after_lift', 'short']);
  });

  it('packed with new lids counts them from then on: the jars are untraced until that lid lot is drawn', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }]).cookWell();
    expect(met(batch, 'traced')).toBe(true);
    const newLidLotId = randomUUID();
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 2, jars: [2], newLidLotId });
    expect(fold(batch.events).jars.map(j => j.lidLotId)).toEqual([batch.lidLotId, newLidLotId]);
    expect(met(batch, 'traced')).toBe(false);
    expect(gate(fold(batch.events)).conditions.find(c => c.code === 'traced')?.evidence).toContain(
      'lids of jars 2',
    );
    const first = fold(batch.events).draws[0]?.lots.find(l => l.kind === 'lid');
    batch.add('lot.drawn', { lots: [{ ...(first as NonNullable<typeof first>), lotId: newLidLotId }] });
    expect(met(batch, 'traced')).toBe(true);
  });

  it('what stands on no jar is left over: glass, and lids that closed none', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 3 }]).drawAll();
    const left = () => unusedOf(fold(batch.events)).map(u => [u.kind, u.count]);
    expect(left()).toEqual([
      ['jar', 3],
      ['lid', 3],
    ]);
    batch.fill([1, 2]);
    expect(left()).toEqual([
      ['jar', 1],
      ['lid', 1],
    ]);
    // A jar that goes in again takes the last lid.
    batch.add('load.packed', { loadId: randomUUID(), number: 1, jars: [1], newLidLotId: batch.lidLotId });
    expect(left()).toEqual([['jar', 1]]);
    batch.add('lots.returned', {
      lots: [{ lotId: batch.jarLotId, quantity: '1', unitCost: '0' }],
      reason: 'left',
    });
    expect(left()).toEqual([]);
  });

  it('packed again without new lids keeps the lids it had', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }]).cookWell();
    batch.process(2, [1, 2], 15);
    expect(fold(batch.events).jars.map(j => j.lidLotId)).toEqual([batch.lidLotId, batch.lidLotId]);
  });
});

describe('a press', () => {
  const packed = () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }]).drawAll().fill([1, 2]);
    const loadId = randomUUID();
    batch.fact('load.packed', { loadId, number: 1, jars: [1, 2], newLidLotId: null });
    batch.wait(5).fact('load.boiling', { loadId }).wait(15).fact('load.heat_off', { loadId });
    return { batch, loadId };
  };

  it('before the load was lifted says nothing about the seal, however late that was', () => {
    const { batch, loadId } = packed();
    batch.wait(20 * 60).fact('jars.pressed', { sealed: [1, 2], failed: [] });
    expect(fold(batch.events).jars.map(j => j.pressed)).toEqual([null, null]);
    batch.wait(1).fact('load.lifted', { loadId });
    expect(fold(batch.events).jars.map(j => j.pressed)).toEqual([null, null]);
    expect(met(batch, 'sealed')).toBe(false);
    batch.wait(12 * 60).fact('jars.pressed', { sealed: [1, 2], failed: [] });
    expect(met(batch, 'sealed')).toBe(true);
  });

  it('is worth nothing any more once the jar went back into the canner', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 2 }]).cookWell();
    expect(met(batch, 'sealed')).toBe(true);
    batch.process(2, [1], 15);
    expect(fold(batch.events).jars.map(j => j.pressed !== null)).toEqual([false, true]);
    expect(met(batch, 'sealed')).toBe(false);
  });

  it('that names a jar in both lists counts it as failed', () => {
    const { batch, loadId } = packed();
    batch
      .fact('load.lifted', { loadId })
      .wait(13 * 60)
      .fact('jars.pressed', { sealed: [1, 2], failed: [2] });
    expect(fold(batch.events).jars.map(j => j.pressed?.sealed)).toEqual([true, false]);
  });
});

describe('two clocks', () => {
  it('may differ by five seconds and not by more, either way round', () => {
    const from = new Device('p', START_MS).stamp(START_MS);
    const later = (by_s: number) => ({ ...from, wallClock: new Date(START_MS + by_s * 1000).toISOString() });
    for (const [page_s, wall_s, verified] of [
      [600, 605, true],
      [600, 595, true],
      [600, 605.001, false],
      [600, 594.999, false],
    ] as const) {
      const to = { ...later(wall_s), monotonic_ms: page_s * 1000 };
      const got = elapsedBetween(placed(from), placed(to));
      expect({ page_s, wall_s, verified: got.verified }).toEqual({ page_s, wall_s, verified });
      expect(got.time_s).toBeCloseTo(verified ? page_s : Math.min(page_s, wall_s), 6);
    }
  });
});
