import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold, lineMasses } from '../batches/index.ts';
import { knownMasses_g } from '../recipes/index.ts';
import { gate } from './gate.ts';
import { solidsByBalance } from './solids.ts';

/**
 * Solids by the balance: sugar and fruit over what three filled jars say of the whole. The sums the figures are held
 * against are done by hand here, from the lines alone.
 */
const EIGHT = [1, 2, 3, 4, 5, 6, 7, 8];
const cooked = (drawn = true) => {
  const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
  return (drawn ? batch.drawAll() : batch).wait(60).fill(EIGHT);
};
const weigh = (batch: PaperBatch, nets: readonly number[], left_g = 0) =>
  batch.fact('jars.weighed', { jars: nets.map((net_g, i) => ({ jar: i + 1, net_g })), left_g });
const of = (batch: PaperBatch) => {
  const state = fold(batch.events);
  return solidsByBalance(state, lineMasses(state));
};
const figures = (batch: PaperBatch) => {
  const found = of(batch);
  if (!found?.ok) throw new Error(JSON.stringify(found));
  return found;
};
const gel = (batch: PaperBatch) => gate(fold(batch.events)).conditions.find(c => c.code === 'gel');
/** Grams of solids that the lines bring: sugar all of it, fruit and juice by their °Brix. */
const solids_g = [...knownMasses_g(plumJam)].reduce((sum, [id, g]) => {
  const line = plumJam.lines.find(l => l.id === id);
  return sum + (g * (line?.solids_pct ?? 0)) / 100;
}, 0);

describe('what three filled jars prove', () => {
  it('is the solids of the whole pot, as a sum by hand finds them, and least with all that is uncertain against it', () => {
    const found = figures(weigh(cooked(), [290, 292, 291]));
    const byHand = (solids_g / (8 * 291 * 1.015)) * 100;
    expect(found.solids_pct).toBeGreaterThan(byHand - 0.5);
    expect(found.solids_pct).toBeLessThan(byHand + 0.5);
    expect(found.least_pct).toBeLessThan(found.solids_pct - 2);
    expect(gel(weigh(cooked(), [290, 292, 291]))).toMatchObject({
      met: true,
      evidence: expect.stringMatching(
        /^By what went in and what 3 filled jars weigh \(290 g, 292 g, 291 g\) it has \d\d\.\d % of solids, \d\d\.\d % at least; 65 % are asked for\.$/,
      ),
    });
  });

  it('counts what is left beside full jars', () => {
    const all = figures(weigh(cooked(), [291, 291, 291]));
    const left = figures(weigh(cooked(), [291, 291, 291], 400));
    expect(left.solids_pct).toBeCloseTo((all.solids_pct * all.pot_g) / (all.pot_g + 400), 6);
    expect(gel(weigh(cooked(), [291, 291, 291], 400))?.met).toBe(false);
    // A part-filled jar is what is left, and no full jar.
    const part = weigh(cooked(), [291, 291, 291], 100).fact('jars.set_aside', {
      jars: [8],
      why: 'part-filled',
    });
    expect(figures(part).pot_g).toBeCloseTo(7 * 291 * 1.015 + 100, 6);
  });

  it('is nothing with two jars, with jars that are not there, or with the same jar three times', () => {
    expect(of(weigh(cooked(), [291, 291]))).toBeNull();
    const others = cooked().fact('jars.weighed', {
      jars: [1, 1, 99].map(jar => ({ jar, net_g: 291 })),
      left_g: 0,
    });
    expect(of(others)).toBeNull();
    expect(gel(others)?.met).toBe(false);
  });

  it('goes by the heaviest weighing of a jar, and the most that was left: lighter ones afterwards prove nothing', () => {
    const heavy = weigh(cooked(), [320, 320, 320], 300);
    const before = figures(heavy);
    for (const nets of [[291, 291, 291], [291]]) weigh(heavy, nets);
    expect(figures(heavy)).toEqual(before);
    expect(figures(weigh(weigh(cooked(), [291, 291, 291]), [320, 320, 320])).nets_g).toEqual([320, 320, 320]);
  });

  it('generated: more in the jars, or more left, is never more solids; the least is never above the middle', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 286, max: 330 }), { minLength: 3, maxLength: 8 }),
        fc.integer({ min: 0, max: 900 }),
        fc.integer({ min: 1, max: 40 }),
        (nets, left_g, more) => {
          const found = figures(weigh(cooked(), nets, left_g));
          expect(found.least_pct).toBeLessThan(found.solids_pct);
          const heavier = figures(
            weigh(
              cooked(),
              nets.map(n => n + more),
              left_g,
            ),
          );
          expect(heavier.solids_pct).toBeLessThan(found.solids_pct);
          expect(figures(weigh(cooked(), nets, left_g + more)).solids_pct).toBeLessThan(found.solids_pct);
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('ways around it', () => {
  it('jars that weigh less than full jars of it would are no proof, however little they weigh', () => {
    for (const net_g of [250, 200, 120, 1]) {
      const batch = weigh(cooked(), [net_g, net_g, net_g]);
      expect(of(batch)).toMatchObject({
        ok: false,
        why: expect.stringMatching(/^The jars weigh less than full jars/),
      });
      expect(gel(batch)).toMatchObject({
        met: false,
        evidence: expect.stringMatching(/^Filled jars were weighed: /),
      });
    }
  });

  it('sugar that was weighed and drawn from no lot counts as far as it was drawn', () => {
    const batch = weigh(cooked(), [291, 291, 291]);
    const before = figures(batch).solids_pct;
    batch.fact('line.weighed', { lineId: 'sugar', mass_g: 3000 });
    expect(figures(batch).solids_pct).toBeCloseTo(before, 6);
  });

  it('what was only planned proves nothing', () => {
    expect(of(weigh(cooked(false), [291, 291, 291]))).toEqual({
      ok: false,
      why: 'Red plums, Sugar: neither weighed nor drawn.',
    });
  });

  it('a pot that something else left is not known by its jars', () => {
    const batch = weigh(cooked(), [291, 291, 291]);
    batch.add('outlet.opened', {
      outletId: 'juice',
      name: 'Juice',
      lotCode: 'RPJ-26324-2X',
      times: [],
      phLimit: 4.6,
      statementOfIdentity: 'Plum juice',
    });
    expect(of(batch)).toEqual({
      ok: false,
      why: 'Something else left the same pot, and what is left of it in the jars is not known.',
    });
  });

  it('a correction to lighter jars counts once somebody who may sign stands behind it', () => {
    const heavy = () => {
      const batch = cooked();
      const entry = batch.add('jars.weighed', {
        jars: [1, 2, 3].map(jar => ({ jar, net_g: 330 })),
        left_g: 0,
      });
      return { batch, entry };
    };
    const corrected = (signs: boolean, body: object | null) => {
      const { batch, entry } = heavy();
      batch.wait(120);
      batch.add(
        'entry.corrected',
        {
          replaces: entry.id,
          type: 'jars.weighed',
          body: body as never,
          bodyVersion: 1,
          occurredAt: null,
          reason: 'misread the scale',
        },
        { signs },
      );
      return batch;
    };
    const light = { jars: [1, 2, 3].map(jar => ({ jar, net_g: 291 })), left_g: 0 };
    expect(gel(corrected(true, light))?.met).toBe(true);
    expect(gel(corrected(false, light))?.met).toBe(false);
    // Taken back, it would make room for lighter ones.
    expect(fold(corrected(false, null).events).nets).toHaveLength(3);
    const heavier = { jars: [1, 2, 3].map(jar => ({ jar, net_g: 340 })), left_g: 0 };
    expect(fold(corrected(false, heavier).events).nets[0]?.net_g).toBe(340);
  });

  it('a batch that its authority covers asks for none of it', () => {
    const followed = new PaperBatch({ ...plumJam, authority: { grade: 'published, untested', title: 'x' } }, [
      { size: 'half-pint', count: 8 },
    ]);
    expect(gel(followed.drawAll().fill(EIGHT))).toBeUndefined();
  });
});
