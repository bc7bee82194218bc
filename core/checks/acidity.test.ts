import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, waxBeans } from '../../demo/recipes.ts';
import { calibratedAt, rechecked } from '../../testing/bench.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { type BatchEvent, fold } from '../batches/index.ts';
import { type Condition, acidityOf, assess, gate } from './index.ts';

const DAY_MIN = 24 * 60;
const tomatoes = (started = {}) =>
  new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }], started).cookWell();
const beans = (started = {}) => new PaperBatch(waxBeans, [{ size: 'pint', count: 6 }], started).cookWell();
const purée = () =>
  new PaperBatch({ ...crushedTomatoes, method: { ...crushedTomatoes.method, cut: 'puréed' } }, [
    { size: 'pint', count: 4 },
  ]);
const condition = (batch: PaperBatch, code = 'ph-evidence'): Condition | undefined =>
  gate(fold(batch.events)).conditions.find(c => c.code === code);
const met = (batch: PaperBatch) => condition(batch)?.met;

describe('equilibrium of pieces', () => {
  it('is not shown by one reading, however sour it is', () => {
    const one = beans().readPh(3.4, { tightest: true, sample: 'whole, blended' });
    expect(condition(one)).toMatchObject({
      met: false,
      evidence: expect.stringContaining('Whether the middle of the pieces is as acid is not shown.'),
      next: expect.stringContaining('Read solids and brine of one jar apart'),
    });
  });

  it('is shown where solids and brine of one jar agree, in one sitting', () => {
    const apart = (brine: number, solids: number, over: object = {}, between_min = 10) =>
      met(
        beans()
          .readPh(brine, { sample: 'brine', tightest: true })
          .wait(between_min)
          .readPh(solids, { sample: 'solids', tightest: true, ...over }),
      );
    expect(apart(3.5, 3.6)).toBe(true);
    expect(apart(3.5, 3.61)).toBe(false);
    // Of two jars it says nothing of either; a jar that stood open is no sample any more.
    expect(apart(3.5, 3.5, { jar: 2 })).toBe(false);
    expect(apart(3.5, 3.5, {}, 5 * 60)).toBe(false);
    // Brine twice says nothing of the pieces.
    expect(apart(3.5, 3.5, { sample: 'brine' })).toBe(false);
    expect(acidityOf(fold(beans().readApart(3.5).events)).how).toBe('solids and brine agree');
  });

  it('is shown by two jars a day apart that agree', () => {
    const days = (first: number, second: number, apart_min: number, sample: 'whole, blended' | 'brine') =>
      met(
        beans().readPh(first, { sample, tightest: true }).wait(apart_min).readPh(second, { jar: 2, sample }),
      );
    expect(days(3.5, 3.45, DAY_MIN, 'whole, blended')).toBe(true);
    expect(days(3.5, 3.3, DAY_MIN, 'whole, blended')).toBe(false);
    expect(days(3.5, 3.5, 19 * 60, 'whole, blended')).toBe(false);
    expect(days(3.5, 3.5, 3 * DAY_MIN, 'brine')).toBe(false);
    // The same jar a day later stood open in between.
    expect(met(beans().readPh(3.5, { tightest: true }).wait(DAY_MIN).readPh(3.5, { tightest: true }))).toBe(
      false,
    );
  });

  it('asks for the tightest jar where pieces are packed', () => {
    expect(condition(beans().readApart(3.5, { tightest: false }))).toMatchObject({
      met: false,
      evidence: expect.stringContaining('None of them was the tightest jar.'),
    });
    expect(met(beans().readApart(3.5, { tightest: false }).readPh(3.6, { jar: 2, tightest: true }))).toBe(
      true,
    );
  });

  it("is the laboratory's to say, with its paper", () => {
    const laboratory = { method: 'laboratory' as const, calibration: null, buffers: [], reference: 'LAB-7' };
    const paper = { paperId: 'p', sha256: 'x' };
    expect(met(beans().readPh(3.6, { ...laboratory, paper, tightest: true }))).toBe(true);
    expect(met(beans().readPh(3.6, { ...laboratory, tightest: true }))).toBe(false);
  });
});

it('a smooth product counts once it has cooled, a crushed one after a day', () => {
  const cooled = (batch: PaperBatch) => {
    batch.drawAll().fill([1, 2, 3, 4]);
    batch.process(1, [1, 2, 3, 4], 45);
    return met(batch.wait(13 * 60).readPh(4));
  };
  expect(cooled(purée())).toBe(true);
  expect(cooled(new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]))).toBe(false);
});

describe('between the limit a kitchen acts at and 4.6', () => {
  it('the limit is the kitchen’s own, kept when the batch began', () => {
    expect(met(tomatoes({ phAct: 4 }).readPh(4.0))).toBe(false);
    expect(met(tomatoes({ phAct: 4 }).readPh(4.0).readPh(4.0, { jar: 2 }))).toBe(true);
    expect(met(tomatoes({ phAct: 4.6 }).readPh(4.5))).toBe(true);
  });

  it('counts what replicates and the buffer leave open, unrounded', () => {
    const wide = { replicates: [4.46, 4.54] };
    const two = (over: object) => met(tomatoes().readPh(4.5, over).readPh(4.5, { jar: 2 }));
    expect(two({})).toBe(true);
    // ± 0.08: 4.58 at the most; ± 0.1 is 4.6 and more.
    expect(two(wide)).toBe(true);
    expect(two({ replicates: [4.45, 4.55] })).toBe(false);
    expect(condition(tomatoes().readPh(4.5, { replicates: [4.45, 4.55] }))?.evidence).toContain(
      'with its uncertainty of 0.1',
    );
  });

  it('never lets through what may lie above the limit, and never holds what lies below in two jars', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 5, noNaN: true }),
        fc.double({ min: 3, max: 5, noNaN: true }),
        (first, second) => {
          const batch = tomatoes().readPh(first).readPh(second, { jar: 2 });
          const worst = Math.max(first, second);
          expect(gate(fold(batch.events)).releasable.length > 0).toBe(worst + 0.05 <= 4.6 + 1e-9);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('ways around the meter', () => {
  it('a calibration of yesterday, none, or a buffer that was not right again, releases nothing', () => {
    const batch = tomatoes();
    const yesterday = calibratedAt(batch.now_ms - DAY_MIN * 60_000);
    batch.fact('meter.rechecked', rechecked(yesterday));
    expect(condition(batch.readPh(3.9, { calibration: yesterday }))?.evidence).toContain(
      'the meter was not calibrated that day',
    );
    expect(met(tomatoes().readPh(3.9, { calibration: null }))).toBe(false);
    const off = tomatoes();
    const today = calibratedAt(off.now_ms, { at: new Date(off.now_ms - 60_000).toISOString() });
    off.fact('meter.rechecked', rechecked(today, 4.2));
    expect(condition(off.readPh(3.9, { calibration: today }))?.evidence).toContain(
      'read 4.20 again after it',
    );
  });

  it('a buffer read before the reading, or hours after, stands behind nothing', () => {
    const read = (before_min: number, after_min: number | null) => {
      const batch = tomatoes();
      const calibration = calibratedAt(batch.now_ms, { at: new Date(batch.now_ms - 1000).toISOString() });
      if (after_min === null) batch.fact('meter.rechecked', rechecked(calibration));
      batch.wait(before_min).add('ph.read', {
        ...(tomatoes().readPh(3.9).events.at(-1) as BatchEvent<'ph.read'>).body,
        calibration,
      });
      if (after_min !== null) batch.wait(after_min).fact('meter.rechecked', rechecked(calibration));
      return met(batch);
    };
    expect(read(5, 10)).toBe(true);
    expect(read(5, null)).toBe(false);
    expect(read(5, 13 * 60)).toBe(false);
  });

  it('an entry in an older shape proves no calibration', () => {
    const batch = tomatoes().readPh(3.9);
    const entry = batch.events.at(-1) as BatchEvent;
    const {
      sample: _s,
      tightest: _t,
      replicates: _r,
      paper: _p,
      ...old
    } = entry.body as BatchEvent<'ph.read'>['body'];
    const as = (typeVersion: number, body: object) =>
      batch.events.map(e => (e === entry ? ({ ...e, typeVersion, body } as BatchEvent) : e));
    const { calibration: _c, instrumentId: _i, ...first } = old;
    for (const events of [as(1, first), as(2, { ...old, calibration: null })])
      expect(gate(fold(events)).conditions.find(c => c.code === 'ph-evidence')).toMatchObject({
        met: false,
        evidence: expect.stringContaining('is not kept with it'),
      });
    // What was released on it stays released: a rule never takes a release back.
    const { device } = batch;
    batch.events.splice(0, Infinity, ...as(1, first));
    batch.add('jars.released', { jars: [2, 3], evidence: [] }, { device });
    expect(assess(batch.events).standing).toMatchObject({
      released: [2, 3],
      asksMore: ['Equilibrium pH at or below 4.6'],
    });
  });

  it('a figure typed beside replicates that say another is not believed', () => {
    const batch = tomatoes().readPh(3.9, { replicates: [4.55, 4.63] });
    expect(condition(batch, 'ph-limit')?.met).toBe(false);
    expect(met(tomatoes().readPh(3.9, { replicates: [4.3, 4.32] }))).toBe(false);
  });
});

describe('a sample before filling', () => {
  const inPot = (ph: number, potId: string | null = null) => ({
    ph,
    temp_C: 24,
    method: 'meter' as const,
    replicates: [],
    instrumentId: null,
    outletId: null,
    potId,
  });
  const before = (ph: number, more: (batch: PaperBatch) => unknown = () => undefined) => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 4 }]);
    batch.fact('pot.ph_read', inPot(ph));
    more(batch);
    return batch.cookWell();
  };

  it('above the limit holds what is filled, until it was mended and read again', () => {
    const bad = before(4.7).readPh(3.9);
    expect(condition(bad, 'ph-before')).toMatchObject({
      met: false,
      evidence: expect.stringContaining('pH 4.7'),
    });
    expect(gate(fold(bad.events)).releasable).toEqual([]);
    const mended = before(4.7, b => {
      b.wait(10).fact('pot.ph_read', inPot(4.1));
    }).readPh(3.9);
    expect(condition(mended, 'ph-before')).toBeUndefined();
    expect(gate(fold(mended.events)).releasable).toEqual([2, 3, 4]);
  });

  it('two finished jars show more than the pot did', () => {
    const shown = before(4.7).readPh(4.0).readPh(4.0, { jar: 2 });
    expect(condition(shown, 'ph-before')?.met).toBe(true);
    expect(gate(fold(shown.events)).releasable).toEqual([3, 4]);
  });

  it('below the limit proves nothing of a jar', () =>
    expect(condition(before(3.8))).toMatchObject({ met: false, evidence: 'No reading is entered.' }));

  it('of one pot says nothing of the other', () => {
    const pots = before(4.7, b => b.fact('pot.ph_read', inPot(4.0, '2')));
    expect(condition(pots, 'ph-before')?.met).toBe(false);
  });
});
