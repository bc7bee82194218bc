import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { cooked, fold, lineMasses } from './index.ts';

const range = (n: number) => Array.from({ length: n }, (_, i) => i + 1);
const eight = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
const done = (batch: PaperBatch, stepId: string) => batch.fact('step.done', { stepId, ended: null });
const of = (batch: PaperBatch) => cooked(fold(batch.events));

/** A jam that simmers for so long after its rest, and boils for so long after that. */
function jam(simmer_min: number, boil_min: number, jars: number): PaperBatch {
  const batch = eight().drawAll();
  done(batch, 'macerate').wait(simmer_min);
  done(batch, 'soften').wait(boil_min);
  done(batch, 'boil');
  return jars > 0 ? batch.fill(range(jars)) : batch;
}

describe('how a batch was cooked', () => {
  it('is the time of its cook steps, each from its begin or from the end of the step before', () => {
    expect(of(jam(12, 25, 0))).toEqual({ minutes: 37, boilOff_gPerMin: null });
    const begun = eight().drawAll();
    done(begun, 'macerate').wait(300).fact('step.started', { stepId: 'soften' }).wait(12);
    done(begun, 'soften').wait(25);
    done(begun, 'boil');
    expect(of(begun)?.minutes).toBe(37);
  });

  it('is not told where an end is missing, two fall together, or its time is doubtful', () => {
    const open = eight().drawAll();
    done(open, 'macerate').wait(10);
    expect(of(open)).toBeNull();
    expect(of(jam(0, 25, 8))).toBeNull();
    const forgotten = jam(10, 25 * 60, 8);
    expect(of(forgotten)).toBeNull();
    // Nobody ever measured this clock, and its entries came late.
    const unknown = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], {}, null);
    for (const stepId of ['macerate', 'soften', 'boil'])
      unknown.wait(10).add('step.done', { stepId, ended: null }, { arrives_min: 600 });
    expect(of(unknown)).toBeNull();
  });

  it('drives off what went in less what the jars hold', () => {
    const batch = jam(12, 25, 8);
    const rate = of(batch)?.boilOff_gPerMin as number;
    const in_g = lineMasses(fold(batch.events)).reduce((n, m) => n + m.actual_g, 0);
    // Eight half-pints of jam, at 1.31 to 1.36 g in a mL as common practice has it, 0.23 to 0.24 L in each.
    const driven_g = rate * 37;
    expect(in_g - driven_g).toBeGreaterThan(8 * 230 * 1.25);
    expect(in_g - driven_g).toBeLessThan(8 * 245 * 1.4);
  });

  it('is slower the more jars it filled, and spread over its pots', () => {
    fc.assert(
      fc.property(fc.integer({ min: 7, max: 8 }), fc.integer({ min: 5, max: 60 }), (jars, boil_min) => {
        const fewer = of(jam(10, boil_min, jars))?.boilOff_gPerMin as number;
        const more = of(jam(10, boil_min, jars + 1))?.boilOff_gPerMin as number;
        expect(fewer).toBeGreaterThan(more);
        const twice = of(jam(10, boil_min * 2 + 10, jars))?.boilOff_gPerMin as number;
        expect(twice * 2).toBeCloseTo(fewer, 6);
      }),
      { numRuns: 20 },
    );
  });

  it('counts no part-filled jar, and tells no rate of a brine, or where food went another way', () => {
    const part = jam(12, 25, 8).fact('jars.set_aside', { jars: [8], why: 'part-filled' });
    expect(of(part)?.boilOff_gPerMin).toBe(of(jam(12, 25, 7))?.boilOff_gPerMin);
    const packed = new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]).drawAll();
    for (const s of waxBeans.steps) done(packed.wait(5), s.id);
    packed.fill(range(4));
    // Only its brine is cooked.
    expect(of(packed)).toBeNull();
    // Three jars of eight: nothing boils down so far, somebody ate it.
    expect(of(jam(12, 25, 3))?.boilOff_gPerMin).toBeNull();
  });
});
