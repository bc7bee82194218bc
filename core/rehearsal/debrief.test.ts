import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { assess } from '../checks/index.ts';
import { PLAIN_FIGURES } from '../measure/index.ts';
import { debrief, type Rehearsed, type Seen, type WentWrong } from './index.ts';

const HABITS = { ...PLAIN_FIGURES, temperature: 'F', zone: 'America/Denver' } as const;
const MIN = 60_000;

/** A jam that is in its canner; the clock is started by hand. */
const packed = () => {
  const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
  batch.fill([1, 2, 3, 4, 5, 6, 7, 8]);
  return batch.fact('load.packed', {
    loadId: 'L',
    number: 1,
    jars: [1, 2, 3, 4, 5, 6, 7, 8],
    newLidLotId: null,
    cannerId: null,
    heat: 'boiling water',
  });
};

function codes(batch: PaperBatch, seen: Seen[], wentWrong: WentWrong[] = []) {
  const { state, standing } = assess(batch.events);
  const day: Rehearsed = { state, standing, events: batch.events, seen, wentWrong, now_ms: batch.now_ms };
  const found = debrief(day, HABITS);
  // Whatever was missed stands first.
  const firstWell = found.findIndex(f => f.well);
  expect(found.slice(firstWell < 0 ? found.length : firstWell).every(f => f.well)).toBe(true);
  for (const f of found) expect(f.well ? f.why === '' : f.what !== '').toBe(true);
  return found;
}
const has = (found: ReturnType<typeof codes>, code: string) => found.find(f => f.code === code);

describe('looking back at a rehearsal', () => {
  it('says nothing of nothing', () => {
    const state = fold([]);
    expect(
      debrief(
        { state, standing: assess([]).standing, events: [], seen: [], wentWrong: [], now_ms: 0 },
        HABITS,
      ),
    ).toEqual([]);
  });

  it('a clock that was started before the boil was started too early, however whole its record is', () => {
    const batch = packed();
    const at = batch.now_ms;
    batch.fact('load.boiling', { loadId: 'L' }).wait(12).fact('load.heat_off', { loadId: 'L' });
    const seen = [
      { at_ms: at - MIN, pot_C: 90, boiling: false },
      { at_ms: at + 4 * MIN, pot_C: 90, boiling: true },
    ];
    expect(fold(batch.events).loads[0]?.phase).toBe('resting');
    expect(has(codes(batch, seen), 'clock-early')?.what).toMatch(/it boiled at/);
    expect(has(codes(batch, [{ at_ms: at - MIN, pot_C: 90, boiling: false }]), 'clock-early')?.what).toMatch(
      /never boiled/,
    );
    const good = codes(batch, [{ at_ms: at - MIN, pot_C: 90, boiling: true }]);
    expect(has(good, 'clock-early')).toBeUndefined();
    expect(has(good, 'clock')?.well).toBe(true);
  });

  it('a lost boil that nobody entered is said, with what the record would have let through', () => {
    const batch = packed();
    const at = batch.now_ms;
    batch.fact('load.boiling', { loadId: 'L' }).wait(15).fact('load.heat_off', { loadId: 'L' });
    const seen = [
      { at_ms: at - MIN, pot_C: 90, boiling: true },
      { at_ms: at + 6 * MIN, pot_C: 90, boiling: false },
    ];
    const wrong: WentWrong[] = [{ scene: 'boil lost', from_ms: at + 6 * MIN, to_ms: null }];
    const found = codes(batch, seen, wrong);
    expect(has(found, 'trouble-unseen')?.well).toBe(false);
    expect(has(found, 'clock-ran-on')?.why).toMatch(/gone to the shelf/);
  });

  it('a lost boil that was entered is well done at once, late after minutes, and open until it boils again', () => {
    for (const [after_min, code] of [
      [0.5, 'trouble-seen'],
      [4, 'trouble-late'],
    ] as const) {
      const batch = packed();
      const at = batch.now_ms;
      batch.fact('load.boiling', { loadId: 'L' });
      batch.wait(6 + after_min).fact('load.boil_lost', { loadId: 'L', lost: 'boil' });
      const seen = [{ at_ms: at - MIN, pot_C: 90, boiling: true }];
      const lost = at + 6 * MIN;
      const open = codes(batch, seen, [{ scene: 'boil lost', from_ms: lost, to_ms: null }]);
      expect(has(open, code)?.well).toBe(code === 'trouble-seen');
      expect(has(open, 'trouble-open')?.what).toMatch(/never brought back/);
      const back = codes(batch, seen, [{ scene: 'boil lost', from_ms: lost, to_ms: lost + 5 * MIN }]);
      expect(has(back, 'trouble-open')).toBeUndefined();
    }
  });

  it('a reading of the metal is no reading of the pot, and a pot taken off by it is under its set', () => {
    const gel = fold(packed().events).started?.gelPoint_C ?? 0;
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    batch.fact('step.started', { stepId: 'boil' }).wait(20);
    const at = batch.now_ms;
    batch.fact('temperature.read', { where: 'pot', part: '', temp_C: gel, instrumentId: null });
    batch.fact('step.done', { stepId: 'boil', ended: 'thermometer' });
    const off = fold(batch.events).started?.kitchen.thermometerError_C ?? 0;
    const seen = (pot_C: number) => [{ at_ms: at - MIN, pot_C: pot_C - off, boiling: false }];
    const wrong = codes(batch, seen(gel - 5));
    expect(has(wrong, 'reading-off')?.well).toBe(false);
    expect(has(wrong, 'end-under')?.well).toBe(false);
    const right = codes(batch, seen(gel));
    expect(has(right, 'readings')?.well).toBe(true);
    expect(has(right, 'end')?.well).toBe(true);
    expect(has(codes(batch, seen(gel + 2)), 'end-over')?.well).toBe(false);
  });

  it('what was weighed while the scale crept is said; what was weighed after it was set right is not', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    const from_ms = batch.now_ms;
    const line = plumJam.lines[0]?.id ?? '';
    batch.wait(1).fact('line.weighed', { lineId: line, mass_g: 900 });
    const to_ms = batch.wait(1).now_ms;
    batch.wait(1).fact('line.weighed', { lineId: line, mass_g: 1141 });
    const found = codes(batch, [], [{ scene: 'scale creeping', from_ms, to_ms }]);
    expect(found.filter(f => f.code === 'weighed-creeping')).toHaveLength(1);
    expect(has(found, 'trouble-seen')?.what).toMatch(/set to zero after 2 min/);
  });

  it('steps left open and what the gate would hold are said; lots and tomorrow are not asked of it', () => {
    const found = codes(packed(), []);
    expect(has(found, 'steps-open')?.what).toMatch(/1, 2/);
    expect(found.some(f => f.code === 'gate-traced' || f.code === 'gate-sealed')).toBe(false);
    expect(found.some(f => f.code.startsWith('gate-') && !f.well)).toBe(true);
  });
});
