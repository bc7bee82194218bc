import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { type BatchState, type LineMass, fold } from '../batches/index.ts';
import { fillVolume_mL } from '../jars/index.ts';
import type { Line } from '../recipes/index.ts';
import { amountConditions } from './amounts.ts';

const batch = (filled: number[], size: 'half-pint' | 'quarter-pint' = 'half-pint') =>
  fold(new PaperBatch(plumJam, [{ size, count: 8 }]).fill(filled).events);
const [plums, sugar] = plumJam.lines as [Line, Line];
const mass = (line: Line, actual_g: number): LineMass => ({
  line,
  planned_g: 0,
  actual_g,
  basis: 'weighed',
  drawn_g: null,
  by: null,
});
const found = (state: BatchState, ...masses: LineMass[]) =>
  amountConditions(state, masses).map(c => `${c.code}${c.against ? ' against' : ''}`);

describe('more in the jars than went in', () => {
  /** By the bounds of the doc comments: a jar holds its volume at 0.85 g/mL, and weights err by three tenths. */
  const least_g = (count: number, headspace_mm: number, size: 'half-pint' | 'quarter-pint' = 'half-pint') =>
    (count * fillVolume_mL(size, headspace_mm) * 0.85) / 1.3;

  it('holds, to the bound and no further', () => {
    const state = batch([1, 2, 3]);
    const headspace_mm = state.started?.times[0]?.headspace_mm as number;
    const bound_g = least_g(3, headspace_mm);
    expect(found(state, mass(plums, bound_g * 1.0001))).toEqual([]);
    expect(found(state, mass(plums, bound_g * 0.9999))).toEqual(['more-than-pot against']);
    expect(found(state, mass(plums, bound_g * 0.6), mass(sugar, bound_g * 0.4001))).toEqual([]);
    expect(found(state, mass(plums, bound_g * 0.6), mass(sugar, bound_g * 0.3999))).toHaveLength(1);
  });

  it('says both amounts, and how many jars', () => {
    const [condition] = amountConditions(batch([1, 2, 3]), [mass(plums, 100)]);
    expect(condition).toMatchObject({
      met: false,
      jars: null,
      evidence: expect.stringMatching(/^3 jars hold at least \d+ g; 100 g went in\.$/),
    });
  });

  it('goes by the headspace of each size, half an inch where its time is unknown', () => {
    const state = batch([1]);
    const [time] = state.started?.times ?? [];
    if (!state.started || !time) throw new Error('the jam has a time');
    const other = { ...time, jarSize: 'quarter-pint' as const, headspace_mm: 100 };
    // The time of another size says nothing of this one.
    const at = (times: (typeof time)[]) => ({
      ...state,
      started: { ...(state.started as NonNullable<typeof state.started>), times },
    });
    const between_g = (least_g(1, time.headspace_mm) + least_g(1, 12.7)) / 2;
    expect(found(at([other, time]), mass(plums, between_g))).toHaveLength(1);
    expect(found(at([]), mass(plums, between_g))).toEqual([]);
    expect(found(at([]), mass(plums, least_g(1, 12.7) * 0.999))).toHaveLength(1);
  });

  it('is not asked where a weight is unknown; what is only dipped in is in no jar', () => {
    const state = batch([1, 2, 3]);
    expect(found(state, mass(plums, 1), mass(sugar, 0))).toEqual([]);
    expect(found(state, mass(plums, 1), mass({ ...sugar, where: 'dip' }, 0))).toHaveLength(1);
    expect(found(state, mass(plums, 0))).toEqual([]);
  });

  it('nor where nothing is in jars yet', () => expect(found(batch([]), mass(plums, 1))).toEqual([]));
});

describe('a scale and its jars', () => {
  const at = (factor: string, recipe = plumJam) =>
    amountConditions(
      fold(
        new PaperBatch(recipe, [{ size: recipe.makes.size, count: recipe.makes.count }], { factor }).events,
      ),
      [],
    );
  it.each([
    ['3', false],
    ['1/3', false],
    ['1', false],
    ['301/100', true],
    ['100/301', true],
  ])('%s times for what makes one', (factor, off) =>
    expect(at(factor).map(c => c.code)).toEqual(off ? ['scale'] : []),
  );

  it('says what it was started at and what its jars take', () => {
    const [condition] = at('7/2');
    expect(condition).toMatchObject({ met: false, against: true, jars: null });
    expect(condition?.evidence).toBe(
      'The batch was started at 3 1/2 times the recipe, for jars that take 1 times.',
    );
  });

  it('has no meaning for what is cooked first and written down afterwards', () =>
    expect(at('7/2', { ...crushedTomatoes, sketch: true })).toEqual([]));
});
