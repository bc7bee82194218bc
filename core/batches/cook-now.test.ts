import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { gelPoint_C } from '../heat/index.ts';
import type { Step } from '../recipes/index.ts';
import { cookNow, type CookNow, fold } from './index.ts';

const POT = { capacity_mL: 9000, diameter_mm: 380, boilOff_gPerMin: 60 };
const MIN = 60_000;
const stepOf = (id: string, recipe = plumJam) => recipe.steps.find(s => s.id === id) as Step;
const jam = (started = {}) => {
  const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], started).drawAll();
  for (const stepId of ['open', 'prepare', 'macerate', 'soften'])
    batch.wait(15).fact('step.done', { stepId, ended: null });
  return batch.fact('step.started', { stepId: 'boil' });
};
const now = (batch: PaperBatch, pot: typeof POT | null = POT, stepId = 'boil') =>
  cookNow(fold(batch.events), stepOf(stepId), pot, batch.now_ms) as CookNow;
const level = (batch: PaperBatch, of: 'weight' | 'depth', quantity: number) =>
  batch.fact('level.read', { stepId: 'boil', of, quantity });

describe('a pot on the fire', () => {
  it('has so much water to go at its begin, and is ready when its pot has boiled that off', () => {
    const seen = now(jam());
    expect(seen.toGo_g).toBeGreaterThan(100);
    expect(seen.doneBrix).toBeGreaterThan(seen.brix);
    expect(seen.ready?.mid_ms).toBeCloseTo(
      (seen.begun_ms as number) + ((seen.toGo_g as number) / 60) * MIN,
      -1,
    );
    expect(seen.ready?.from_ms).toBeLessThan(seen.ready?.mid_ms as number);
    expect(seen.measured).toBe(false);
    expect(seen.target_C).toBeCloseTo(gelPoint_C(716.28), 6);
    // It ends about where jam keeps: common practice, 65 °Brix and a little over.
    expect(seen.doneBrix).toBeGreaterThan(62);
    expect(seen.doneBrix).toBeLessThan(72);
  });

  it('is told by a weight, a depth or a refractometer alike: each says the same of the same pot', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), share => {
        const before = now(jam());
        const toGo_g = (before.toGo_g as number) * share;
        const weight_g = before.now_g - (before.toGo_g as number) + toGo_g;
        const batch = level(jam().wait(6), 'weight', weight_g);
        const weighed = now(batch);
        expect(weighed.toGo_g).toBeCloseTo(toGo_g, 6);
        const others = [
          level(jam().wait(6), 'depth', weighed.levels?.now_mm as number),
          jam().wait(6).fact('solids.read', {
            brix_pct: weighed.brix,
            part: '',
            outletId: null,
            potId: null,
            instrumentId: null,
          }),
        ];
        for (const other of others) expect(now(other).toGo_g).toBeCloseTo(toGo_g, 3);
      }),
      { numRuns: 40 },
    );
  });

  it('is done when the thermometer shows the gel point, and past it above', () => {
    const at = (over_C: number) =>
      now(
        jam()
          .wait(12)
          .fact('temperature.read', { where: 'pot', temp_C: gelPoint_C(716.28) + over_C }),
      );
    expect(at(0).toGo_g).toBeCloseTo(0, 6);
    expect(at(0).past).toBe(false);
    expect(at(1).past).toBe(true);
    expect(at(-1.5).toGo_g).toBeGreaterThan(20);
    // Water and sugar boil no higher, whatever is typed: nothing is below nothing.
    const absurd = at(100);
    expect([absurd.toGo_g, absurd.now_g > 0]).toEqual([0, true]);
    // A thermometer that reads high shows a higher end, and says the same of the pot.
    const high = { kitchen: { ...fold(jam().events).started?.kitchen, thermometerError_C: 1 } };
    const truly = jam(high)
      .wait(12)
      .fact('temperature.read', { where: 'pot', temp_C: gelPoint_C(716.28) + 1 });
    expect(now(truly).toGo_g).toBeCloseTo(0, 6);
  });

  it('boils on between two readings, and the second tells how fast', () => {
    const batch = jam();
    const whole_g = now(batch).now_g;
    level(batch.wait(5), 'weight', whole_g - 100);
    level(batch.wait(5), 'weight', whole_g - 300);
    const seen = now(batch);
    expect([seen.measured, Math.round(seen.rate_gPerMin as number)]).toEqual([true, 40]);
    const left_min = ((seen.ready?.mid_ms as number) - batch.now_ms) / MIN;
    expect(left_min).toBeCloseTo((seen.toGo_g as number) / 40, 6);
    const later = now(batch.wait(2));
    expect(later.toGo_g).toBeCloseTo((seen.toGo_g as number) - 80, 6);
  });

  it('never is ready before now, holds less than nothing, or more than began: whatever is read, whenever', () => {
    const reading = fc.oneof(
      fc.record({ t: fc.constant('temp' as const), v: fc.double({ min: -5, max: 130, noNaN: true }) }),
      fc.record({ t: fc.constant('weight' as const), v: fc.double({ min: 1, max: 9e5, noNaN: true }) }),
      fc.record({ t: fc.constant('depth' as const), v: fc.double({ min: 0.1, max: 900, noNaN: true }) }),
      fc.record({ t: fc.constant('brix' as const), v: fc.double({ min: 0.1, max: 95, noNaN: true }) }),
    );
    fc.assert(
      fc.property(
        fc.array(fc.record({ of: reading, after: fc.integer({ min: 0, max: 40 }) }), { maxLength: 5 }),
        fc.integer({ min: 0, max: 300 }),
        (readings, late) => {
          const batch = jam();
          const began = now(batch);
          for (const { of, after } of readings) {
            batch.wait(after);
            if (of.t === 'temp') batch.fact('temperature.read', { where: 'pot', temp_C: of.v });
            else if (of.t === 'brix')
              batch.fact('solids.read', {
                brix_pct: of.v,
                part: '',
                outletId: null,
                potId: null,
                instrumentId: null,
              });
            else level(batch, of.t, of.v);
          }
          const seen = now(batch.wait(late));
          expect(seen.toGo_g).toBeGreaterThanOrEqual(0);
          expect(seen.toGo_g).toBeLessThanOrEqual((began.toGo_g as number) + 1e-6);
          expect(seen.now_g).toBeLessThanOrEqual(began.now_g + 1e-6);
          expect(seen.now_g).toBeGreaterThan(0);
          if (seen.ready) {
            expect(seen.ready.from_ms).toBeGreaterThanOrEqual(batch.now_ms);
            expect(seen.ready.from_ms).toBeLessThanOrEqual(seen.ready.mid_ms);
            expect(seen.ready.mid_ms).toBeLessThanOrEqual(seen.ready.to_ms);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('counts what was read since it began, of the whole pot, and in each of several pots', () => {
    const batch = jam();
    const early = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }])
      .drawAll()
      .fact('temperature.read', { where: 'pot', temp_C: 103 })
      .wait(10);
    for (const stepId of ['open', 'prepare', 'macerate', 'soften'])
      early.fact('step.done', { stepId, ended: null });
    expect(now(early).lastRead_ms).toBeNull();
    const part = batch.fact('temperature.read', { where: 'pot', temp_C: 103, part: 'juice' });
    expect([now(part).points, now(part).lastRead_ms]).toEqual([[], null]);
    const two = jam({ pots: { count: 2, each: '1/2', overridden: false, reasons: [] } });
    expect(now(two).toGo_g).toBeCloseTo((now(jam()).toGo_g as number) / 2, 6);
    expect(now(two).levels?.now_mm).toBeCloseTo((now(jam()).levels?.now_mm as number) / 2, 6);
  });

  it('counts a line that is weighed in portions as planned until its last portion is in', () => {
    const portion = (stepId: string, mass_g: number) =>
      now(jam().fact('line.weighed', { lineId: 'sugar', mass_g }), POT, stepId).now_g;
    const whole_g = now(jam()).now_g;
    expect(portion('boil', 600)).toBeCloseTo(whole_g, 6);
    expect(portion('boil', 4000)).toBeGreaterThan(whole_g);
    const batch = jam().fact('line.weighed', { lineId: 'sugar', mass_g: 600 });
    batch.fact('step.done', { stepId: 'boil', ended: null });
    expect(now(batch).now_g).toBeLessThan(whole_g - 100);
  });

  it('tells no time where only the eye does, where nobody began or measured the pot, and nothing of a brine', () => {
    const eye = now(jam(), POT, 'soften');
    expect([eye.toGo_g, eye.ready, eye.levels?.done_mm]).toEqual([null, null, null]);
    const unmeasured = now(jam(), { ...POT, boilOff_gPerMin: 0 });
    expect([unmeasured.ready, (unmeasured.toGo_g as number) > 0]).toEqual([null, true]);
    expect(now(jam(), null).levels).toBeNull();
    const idle = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    expect(now(idle).ready).toBeNull();
    const beans = new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]).drawAll();
    const brine = waxBeans.steps.find(s => s.kind === 'cook') as Step | undefined;
    if (brine) expect(cookNow(fold(beans.events), brine, POT, beans.now_ms)).toBeNull();
  });
});
