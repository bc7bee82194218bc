import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as demo from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { lineOf } from '../../testing/recipe-lines.ts';
import {
  type Balance,
  type VesselId,
  balance,
  knownOf,
  massIn,
  netOfJars_g,
  reachedJars_g,
  together,
  volume_mL,
} from '../balance/index.ts';
import type { JarSizeId } from '../jars/index.ts';
import { type Recipe, stepFrom } from '../recipes/index.ts';
import { covered, fold, lineMasses, observed, timesInUse } from './index.ts';

const { plumJam, waxBeans, currantJelly, crushedTomatoes, strawberryJam } = demo;
const RECIPES: Recipe[] = [plumJam, waxBeans, currantJelly, crushedTomatoes, strawberryJam];
const made = (of: PaperBatch) => balance(observed(fold(of.events)));
const mass = (of: Balance, id: VesselId) => massIn(of.vessels.get(id) ?? new Map());

/** Weighs every line as planned, and fills the jars that were wanted. */
function exactly(recipe: Recipe, count: number): PaperBatch {
  const size: JarSizeId = recipe.makes.size;
  const batch = new PaperBatch(recipe, [{ size, count }]);
  for (const { line, planned_g } of lineMasses(fold(batch.events)))
    if (line.where !== 'each jar') batch.fact('line.weighed', { lineId: line.id, mass_g: planned_g });
  for (const step of recipe.steps)
    if (step.expects && recipe === currantJelly)
      batch.fact('measure.taken', { stepId: step.id, quantity: (2000 * count) / 9, unit: 'mL' });
  batch.fill(
    Array.from({ length: count }, (_, i) => i + 1),
    size,
  );
  return batch;
}

describe('a plan that is carried out exactly', () => {
  it('gives a record that agrees with it, in every vessel', () => {
    fc.assert(
      fc.property(fc.constantFrom(...RECIPES), fc.integer({ min: 2, max: 30 }), (recipe, count) => {
        const state = fold(exactly(recipe, count).events);
        const did = balance(observed(state));
        const plan = balance(covered(state));
        for (const id of new Set([...did.vessels.keys(), ...plan.vessels.keys()]))
          // A jelly's juice is measured, and its cloth follows from that; the plan only expects it.
          expect(Math.abs(mass(did, id) - mass(plan, id))).toBeLessThan(
            recipe === currantJelly ? mass(plan, 'jars') * 0.05 : 1e-6 * mass(plan, 'jars') + 1e-6,
          );
      }),
      { numRuns: 60 },
    );
  });

  it('is the same whatever the order in which independent things were entered', () => {
    const events = exactly(waxBeans, 8).events;
    const [start, ...rest] = events;
    const forward = balance(observed(fold(events)));
    const backward = balance(observed(fold([start as (typeof events)[0], ...rest.toReversed()])));
    for (const [id, contents] of forward.vessels)
      expect(massIn(backward.vessels.get(id) ?? new Map())).toBeCloseTo(massIn(contents), 9);
  });
});

describe('what happened takes the place of the plan', () => {
  it('a measured juice settles what the cloth held back', () => {
    const batch = new PaperBatch(currantJelly, [{ size: 'half-pint', count: 9 }]);
    const before = mass(made(batch), 'cloth');
    batch.fact('measure.taken', { stepId: 'juice', quantity: 1800, unit: 'mL' });
    const after = made(batch);
    const juice = after.cooks.at(-1);
    expect(mass(after, 'cloth')).toBeGreaterThan(before);
    // 1.8 L of juice, and 850 g of sugar to the litre.
    const sugar_g = 850 * 1.8;
    const start = juice?.start;
    if (!start) throw new Error('it is cooked');
    expect(volume_mL({ ...start, sugar_g: start.sugar_g - sugar_g })).toBeCloseTo(1800, -1);
  });

  it('the hottest reading of the pot stands for the gel point it was to reach', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    const gel = mass(made(batch), 'steam');
    batch.fact('temperature.read', { where: 'pot', temp_C: 100.5 });
    expect(mass(made(batch), 'steam')).toBeLessThan(gel);
    batch.fact('temperature.read', { where: 'pot', temp_C: 104 });
    expect(mass(made(batch), 'steam')).toBeGreaterThan(gel);
  });

  it('a weight after draining settles a soak', () => {
    const relish: Recipe = {
      ...waxBeans,
      packing: null,
      lines: [
        lineOf('Cucumbers', '3000 g', 'cucumbers', { role: 'low-acid produce', solids_pct: 3 }),
        lineOf('canning-salt', '150 g', 'salt', { where: 'soak' }),
        lineOf('white-vinegar', '1000 g', 'vinegar'),
      ],
      steps: [
        {
          ...stepFrom('soak', 'soak', 'Salt'),
          adds: [
            { lineId: 'cucumbers', share: '1' },
            { lineId: 'salt', share: '1' },
          ],
        },
        { ...stepFrom('weigh', 'measure', 'Weigh'), expects: lineOf('x', '2 kg').amount },
        { ...stepFrom('boil', 'cook', 'Boil'), adds: [{ lineId: 'vinegar', share: '1' }] },
      ],
    };
    const batch = new PaperBatch(relish, [{ size: 'pint', count: 8 }]);
    const salt = () => together(made(batch).vessels.get('drain') ?? new Map()).salt_g;
    const planned = salt();
    batch.fact('measure.taken', { stepId: 'weigh', quantity: 1700, unit: 'g' });
    expect(mass(made(batch), 'drain')).toBeCloseTo(3150 - 1700, 6);
    expect(salt()).toBeGreaterThan(planned);
  });

  it('is known as surely as the least sure of what is in the jar', () => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);
    const known = () => {
      const process = observed(fold(batch.events));
      return knownOf(process, balance(process).jars[0]?.each ?? new Map());
    };
    expect(known()).toBe('planned');
    batch.drawAll();
    expect(known()).toBe('drawn');
    for (const m of lineMasses(fold(batch.events)))
      if (m.line.where !== 'each jar') batch.fact('line.weighed', { lineId: m.line.id, mass_g: m.planned_g });
    // What is dosed by jar was drawn, not weighed.
    expect(known()).toBe('drawn');
  });

  it('pieces for more jars than were filled make tight jars, no tighter than glass allows', () => {
    const pieces = (mass_g: number) => {
      const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]);
      batch.fact('line.weighed', { lineId: 'beans', mass_g });
      batch.fill([1, 2, 3, 4, 5, 6, 7, 8], 'pint');
      return made(batch).jars[0]?.pieces_g ?? 0;
    };
    expect(pieces(1814)).toBeCloseTo(225, 6);
    // A tenth more lies within what jars of a pack differ by: some were left over.
    expect(pieces(1950)).toBeCloseTo(225, 6);
    expect(pieces(2400)).toBeCloseTo(300, 6);
    expect(pieces(90_000)).toBeLessThan(450);
  });

  it('an added line is in the jars too', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    batch.fact('line.added', { line: lineOf('cinnamon-stick', '10 g', 'stick', { where: 'pot' }) });
    expect(reachedJars_g(made(batch)).get('stick')).toBeGreaterThan(5);
  });
});

describe('times that stand ready for an odd jar', () => {
  it('are told where such a jar was filled, and not before', () => {
    const batch = new PaperBatch(plumJam, [
      { size: 'half-pint', count: 4 },
      { size: 'quarter-pint', count: 1 },
    ]);
    const started = fold(batch.events).started as NonNullable<ReturnType<typeof fold>['started']>;
    const odd = new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }], { times: started.times });
    expect(timesInUse(fold(odd.events)).map(t => t.jarSize)).toEqual(['half-pint']);
    odd.fill([1, 2, 3, 4], 'half-pint').fill([5], 'quarter-pint');
    expect(timesInUse(fold(odd.events)).map(t => t.jarSize)).toEqual(['half-pint', 'quarter-pint']);
    expect([...netOfJars_g(made(odd)).keys()].sort()).toEqual(['half-pint', 'quarter-pint']);
  });
});
