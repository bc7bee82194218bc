import { describe, expect, it } from 'vitest';
import { crushedTomatoes, waxBeans, plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { formulaOf } from '../review/index.ts';
import { atThePot } from './at-the-pot.ts';
import { doseOf } from './bottle.ts';
import { fold } from './fold.ts';
import { covered } from './observed.ts';
import { isStepDone } from './steps.ts';
import type { StartedBody } from './events.ts';

const codes = (batch: PaperBatch) => fold(batch.events).deviations.map(d => d.code);
const openHolds = (batch: PaperBatch) =>
  fold(batch.events)
    .deviations.filter(d => !d.settled)
    .map(d => d.code);

describe('several pots of one batch', () => {
  const twoPots = (): PaperBatch =>
    new PaperBatch(plumJam, [{ size: 'half-pint', count: 16 }], {
      pots: { count: 2, each: '1', overridden: false, reasons: [] },
    } as Partial<StartedBody>);
  const cook = plumJam.steps.find(s => s.kind === 'cook') ?? plumJam.steps[0]!;

  it('a step is done once each pot is, or one tap said so of all', () => {
    const batch = twoPots();
    batch.add('step.done', { stepId: cook.id, potId: '1', ended: 'thermometer' });
    batch.wait(1);
    expect(isStepDone(fold(batch.events), cook)).toBe(false);
    expect(fold(batch.events).steps[cook.id]?.pots['1']?.ended).toBe('thermometer');
    batch.add('step.done', { stepId: cook.id, potId: '2', ended: 'cold plate' });
    expect(isStepDone(fold(batch.events), cook)).toBe(true);

    const same = twoPots();
    same.add('step.done', { stepId: cook.id });
    expect(isStepDone(fold(same.events), cook)).toBe(true);
  });

  it('pots that the batch does not have end nothing, whatever they are called', () => {
    const batch = twoPots();
    for (const potId of ['3', '__proto__', 'constructor', '01'])
      batch.add('step.done', { stepId: cook.id, potId });
    batch.add('step.done', { stepId: cook.id, potId: '1' });
    expect(isStepDone(fold(batch.events), cook)).toBe(false);
  });
});

describe('more jars than stand in the canner', () => {
  const canner = {
    id: 'seven',
    name: 'Seven quarts',
    kind: 'boiling water' as const,
    holds: { quart: 7, pint: 9 },
  };
  const batchOf = (count: number, canners = [canner] as StartedBody['equipment']['canners']) => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'quart', count }], {
      equipment: { pots: [], canners },
    } as Partial<StartedBody>);
    batch.fill(Array.from({ length: count }, (_, i) => i + 1));
    return batch;
  };
  const pack = (batch: PaperBatch, jars: number, cannerId: string | null) =>
    batch.add('load.packed', {
      loadId: '01930000-0000-7000-8000-000000000001',
      number: 1,
      jars: Array.from({ length: jars }, (_, i) => i + 1),
      newLidLotId: null,
      cannerId,
    });

  it('28 quarts are no one load of a canner for 7; 7 are', () => {
    const batch = batchOf(28);
    pack(batch, 28, 'seven');
    expect(codes(batch)).toContain('overfull');
    const right = batchOf(28);
    pack(right, 7, 'seven');
    expect(codes(right)).not.toContain('overfull');
  });

  it('a canner whose figure nobody kept holds nothing back', () => {
    const old = batchOf(28, [{ id: 'seven', name: 'Old', kind: null, holds: null }]);
    pack(old, 28, 'seven');
    expect(codes(old)).not.toContain('overfull');
  });

  it('without a canner’s name, or by one that is none of the kitchen’s, it is the one that takes most', () => {
    for (const id of [null, '__proto__', 'constructor', 'another']) {
      const batch = batchOf(28);
      pack(batch, 28, id);
      expect(codes(batch)).toContain('overfull');
      const right = batchOf(7);
      pack(right, 7, id);
      expect(codes(right)).not.toContain('overfull');
    }
    const big = { ...canner, id: 'big', holds: { quart: 30 } };
    const there = batchOf(28, [canner, big]);
    pack(there, 28, null);
    expect(codes(there)).not.toContain('overfull');
  });

  it('is settled by its reason, since the figure is the owner’s', () => {
    const batch = batchOf(9);
    pack(batch, 9, 'seven');
    expect(openHolds(batch)).toContain('overfull');
    batch.wait(1);
    batch.add('deviation.settled', {
      key: 'overfull:01930000-0000-7000-8000-000000000001',
      reason: 'It holds nine; the figure was for half of it',
      minutes: null,
    });
    expect(openHolds(batch)).not.toContain('overfull');
  });
});

describe('what left the bottle', () => {
  const acid = crushedTomatoes.lines.find(l => l.where === 'each jar' && l.role === 'acid')!;
  const dosed = (jars: number) => {
    const batch = new PaperBatch(crushedTomatoes, [{ size: 'pint', count: 8 }]);
    batch.add('jars.filled', {
      size: 'pint',
      jars: [1, 2, 3, 4, 5, 6, 7, 8],
      jarLotId: null,
      lidLotId: null,
    });
    batch.add('dose.given', { lineId: acid.id, jars: Array.from({ length: jars }, (_, i) => i + 1) });
    batch.wait(1);
    return batch;
  };
  const each = doseOf(acid, 'pint');

  it('a pint has the dose that is published: a tablespoon of juice, or a quarter teaspoon of citric acid', () => {
    // USDA Complete Guide, guide 3 (from memory). A tablespoon is 14.787 mL, NIST Handbook 44.
    expect(doseOf(acid, 'quart').g).toBeCloseTo(2 * each.g, 9);
    expect(each.mL).toBeCloseTo(/citric/i.test(acid.name) ? 14.787 / 12 : 14.787, 2);
  });

  it('one dose short holds the jars that were dosed; enough, or a spoon over, holds none', () => {
    const short = dosed(8);
    short.add('dose.checked', { lineId: acid.id, quantity: each.g * 7, unit: 'g' });
    expect(openHolds(short)).toContain('bottle_short');
    expect(fold(short.events).deviations.find(d => d.code === 'bottle_short')?.jars).toHaveLength(8);
    for (const doses of [7.8, 8, 8.3, 9]) {
      const fine = dosed(8);
      fine.add('dose.checked', { lineId: acid.id, quantity: each.g * doses, unit: 'g' });
      expect(openHolds(fine)).not.toContain('bottle_short');
    }
  });

  it('another look does not take the first away: that takes a correction, signed', () => {
    const batch = dosed(8);
    const read = batch.add('dose.checked', { lineId: acid.id, quantity: each.g * 6, unit: 'g' });
    batch.wait(5);
    batch.add('dose.checked', { lineId: acid.id, quantity: each.g * 8, unit: 'g' });
    expect(openHolds(batch)).toContain('bottle_short');
    const correction = batch.add(
      'entry.corrected',
      {
        replaces: read.id,
        type: 'dose.checked',
        body: { lineId: acid.id, quantity: each.g * 8, unit: 'g' },
        occurredAt: null,
        reason: 'read the wrong mark',
      },
      { signs: false },
    );
    // Nobody has signed it yet.
    expect(openHolds(batch)).toContain('bottle_short');
    batch.add('correction.signed', { correctionId: correction.id });
    expect(openHolds(batch)).not.toContain('bottle_short');
  });

  it('is held against the jars that had been dosed by then', () => {
    const batch = dosed(4);
    batch.add('dose.checked', { lineId: acid.id, quantity: each.g * 4, unit: 'g' });
    batch.wait(1);
    batch.add('dose.given', { lineId: acid.id, jars: [5, 6, 7, 8] });
    expect(openHolds(batch)).not.toContain('bottle_short');
  });
});

describe('a substitution at the pot', () => {
  const tested = { ...waxBeans, tested: { takenOn: '2026-02-10', ...formulaOf(waxBeans) } };
  const vinegar = waxBeans.lines.find(l => l.role === 'acid')!;

  it('weaker vinegar costs the authority, and holds the batch; the same strength is covered', () => {
    const weaker = { ...vinegar, minStrength_pct: 4, name: 'White vinegar, 4 %' };
    const answer = atThePot(tested, r => ({
      ...r,
      lines: r.lines.map(l => (l.id === vinegar.id ? weaker : l)),
    }));
    expect(answer.answer).toBe('costs');
    expect(answer.says.length).toBeGreaterThan(0);
    const batch = new PaperBatch(tested, [{ size: 'pint', count: 7 }]);
    batch.add('line.replaced', { lineId: vinegar.id, line: weaker });
    expect(openHolds(batch)).toContain('line_replaced');

    const cider = { ...vinegar, name: 'Cider vinegar, 5 %', ingredientId: 'cider-vinegar' };
    const same = atThePot(tested, r => ({
      ...r,
      lines: r.lines.map(l => (l.id === vinegar.id ? cider : l)),
    }));
    expect(same.answer).not.toBe('costs');
  });

  it('serves where the first served, and leaves what is covered as it was', () => {
    const batch = new PaperBatch(tested, [{ size: 'pint', count: 7 }]);
    const before = covered(fold(batch.events));
    batch.add('line.replaced', {
      lineId: vinegar.id,
      line: { ...vinegar, id: 'another', where: 'each jar', name: 'Strong vinegar' },
    });
    const state = fold(batch.events);
    const line = state.started?.recipe.lines.find(l => l.id === vinegar.id);
    expect(line).toMatchObject({ id: vinegar.id, where: vinegar.where, name: 'Strong vinegar' });
    expect(covered(state)).toEqual(before);
  });

  it('of what was drawn already holds the batch until the draw is put back', () => {
    const batch = new PaperBatch(tested, [{ size: 'pint', count: 7 }]).drawAll();
    batch.wait(1);
    const cider = { ...vinegar, name: 'Cider vinegar, 5 %' };
    batch.add('line.replaced', { lineId: vinegar.id, line: cider });
    expect(openHolds(batch)).toContain('replaced_after_draw');
    const draw = batch.events.find(e => e.type === 'lot.drawn')!;
    batch.wait(1).add('draw.reversed', { drawId: draw.id, reason: 'another bottle went in' });
    expect(openHolds(batch)).not.toContain('replaced_after_draw');
    // Drawn afterwards, it is what went in.
    batch.wait(1).drawAll();
    expect(openHolds(batch)).not.toContain('replaced_after_draw');
  });

  it('by a stronger one is worth no more than the recipe counts on', () => {
    const batch = new PaperBatch(tested, [{ size: 'pint', count: 7 }]);
    batch.add('line.replaced', { lineId: vinegar.id, line: { ...vinegar, minStrength_pct: 25 } });
    const line = fold(batch.events).started?.recipe.lines.find(l => l.id === vinegar.id);
    expect(line?.minStrength_pct).toBe(vinegar.minStrength_pct);
  });

  it('of a line that this recipe does not have is an unknown line, and replaces nothing', () => {
    for (const lineId of ['nowhere', '__proto__']) {
      const batch = new PaperBatch(tested, [{ size: 'pint', count: 7 }]);
      batch.add('line.replaced', { lineId, line: vinegar });
      expect(fold(batch.events).replaced).toEqual([]);
      expect(codes(batch)).toContain('unknown_line');
    }
  });

  it('is taken back by a signature only, once others could build on it', () => {
    const batch = new PaperBatch(tested, [{ size: 'pint', count: 7 }]);
    const weak = batch.add('line.replaced', { lineId: vinegar.id, line: { ...vinegar, minStrength_pct: 3 } });
    batch.wait(10);
    const back = batch.add(
      'entry.corrected',
      {
        replaces: weak.id,
        type: 'line.replaced',
        body: null,
        occurredAt: null,
        reason: 'it was the right bottle',
      },
      { signs: false },
    );
    expect(openHolds(batch)).toContain('line_replaced');
    batch.add('correction.signed', { correctionId: back.id });
    expect(openHolds(batch)).not.toContain('line_replaced');
  });
});

describe('what is entered besides', () => {
  it('headspace, marks, pictures, left-overs and washed pots are kept, and hold nothing', () => {
    const batch = new PaperBatch(waxBeans, [{ size: 'pint', count: 7 }]);
    batch.fill([1, 2]);
    batch.add('jars.filled', {
      size: 'half-pint',
      jars: [3],
      jarLotId: null,
      lidLotId: null,
      headspace_mm: 19,
    });
    batch.add('jars.marked', { jars: [3], for: 'reading' });
    batch.add('left.over', { went: 'over a refrigerator jar', what: 'brine', mass_g: 300, text: '' });
    batch.add('pot.washed', { washed: false, allergens: ['mustard'] });
    batch.add('picture.kept', { paperId: batch.batchId, sha256: 'a'.repeat(64), of: null, text: 'the jars' });
    const state = fold(batch.events);
    expect(state.jars.map(j => [j.number, j.headspace_mm, j.marked])).toEqual([
      [1, null, 'sale'],
      [2, null, 'sale'],
      [3, 19, 'reading'],
    ]);
    expect(state.leftOver).toMatchObject([{ went: 'over a refrigerator jar', mass_g: 300 }]);
    expect(state.washed).toMatchObject([{ washed: false }]);
    expect(state.pictures).toMatchObject([{ text: 'the jars' }]);
    const plain = new PaperBatch(waxBeans, [{ size: 'pint', count: 7 }]);
    plain.fill([1, 2]);
    expect(codes(batch)).toEqual(codes(plain));
  });
});
