import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { printed, SAMPLE_LABEL } from '../../testing/labels.ts';
import { samplePlace } from '../../testing/place.ts';
import { fold } from '../batches/index.ts';
import { JURISDICTIONS, noPlace, pointsOf } from '../kitchen/index.ts';
import { labelCounts, labelPlaceFault, outOfDatePrints } from './index.ts';

const TODAY = '2026-11-25';
const batchOf = (recipe = plumJam, purpose: 'sale' | 'home' = 'sale') =>
  new PaperBatch(recipe, [{ size: recipe.makes.size, count: 6 }], { purpose });
const printOn = (batch: PaperBatch, jars: number[], spares = 0) =>
  batch.add('labels.printed', { ...printed(batch.recipe.makes.size), jars, spares });

describe('the place and its labels', () => {
  const asked = (jurisdiction: ReturnType<typeof noPlace>, recipe = plumJam, purpose?: 'home') =>
    labelPlaceFault(fold(batchOf(recipe, purpose).events), { jurisdiction, locale: 'en-US' }, TODAY)?.what ??
    null;
  it('let none be printed for sale before the place is chosen and each of its points ticked', () => {
    expect(asked(noPlace())).toMatch(/Nobody has said/);
    expect(asked(samplePlace())).toBeNull();
    expect(asked(samplePlace({ points: [] }))).toMatch(/not ticked yet/);
    // What is not sold is not asked.
    expect(asked(noPlace(), plumJam, 'home')).toBeNull();
  });
  it('refuse a product that the profile does not allow, with the reason', () => {
    for (const rules of JURISDICTIONS) {
      const points = pointsOf(rules).map(point => ({ point, tickedOn: '2026-03-01', renewsOn: null }));
      const found = asked(samplePlace({ rules, points }), crushedTomatoes);
      const { rule } = rules.foods[crushedTomatoes.foodClass as keyof typeof rules.foods];
      expect([rules.id, found === null]).toEqual([rules.id, rule === 'allowed']);
      if (rule === 'not allowed') expect(found).toContain(`${rules.name} does not allow`);
    }
  });
});

describe('labels counted', () => {
  it('are used, spoiled, destroyed or left: the last count is what stands, for any counts', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 6 }),
        fc.nat(9),
        fc.array(fc.tuple(fc.nat(5), fc.nat(5), fc.nat(5)), { maxLength: 4 }),
        (jars, spares, counted) => {
          const batch = batchOf();
          const numbers = Array.from({ length: jars }, (_, i) => i + 1);
          const { id } = printOn(batch, numbers, spares);
          for (const [used, spoiled, destroyed] of counted)
            batch.add('labels.counted', { printId: id, used, spoiled, destroyed });
          const [count] = labelCounts(fold(batch.events), numbers);
          const [used, spoiled, destroyed] = counted.at(-1) ?? [0, 0, 0];
          expect(count).toMatchObject({ printed: jars + spares, used, spoiled, destroyed, askedBack: 0 });
          expect(count?.left).toBe(Math.max(0, jars + spares - used - spoiled - destroyed));
        },
      ),
    ));
  it('of jars that may no longer go out are asked back until they are counted as destroyed', () => {
    const batch = batchOf();
    const { id } = printOn(batch, [1, 2, 3, 4]);
    const back = () => labelCounts(fold(batch.events), [1, 2])[0];
    expect(back()).toMatchObject({ held: [3, 4], askedBack: 2 });
    batch.add('labels.counted', { printId: id, used: 2, spoiled: 0, destroyed: 1 });
    expect(back()?.askedBack).toBe(1);
    batch.add('labels.counted', { printId: id, used: 2, spoiled: 0, destroyed: 2 });
    expect(back()).toMatchObject({ askedBack: 0, left: 0 });
    // A count of another print, or of none, changes nothing.
    batch.add('labels.counted', { printId: crypto.randomUUID(), used: 9, spoiled: 9, destroyed: 9 });
    expect(back()).toMatchObject({ askedBack: 0, left: 0 });
  });
});

describe('prints out of date', () => {
  it('are those whose jars are for sale and whose last label would say something else', () => {
    const batch = batchOf();
    const first = printOn(batch, [1, 2, 3]);
    const second = printOn(batch, [3, 4]);
    const state = fold(batch.events);
    const other = { ...SAMPLE_LABEL, statement: 'Another sentence.' };
    expect(outOfDatePrints(state, [1, 2, 3, 4], () => SAMPLE_LABEL)).toEqual([]);
    expect(outOfDatePrints(state, [1, 2, 3, 4], () => null)).toEqual([]);
    // Jar 3 was labelled again: it counts with its last label only.
    expect(outOfDatePrints(state, [1, 3, 4], () => other).map(o => [o.printId, o.jars])).toEqual([
      [second.id, [3, 4]],
      [first.id, [1]],
    ]);
    expect(outOfDatePrints(state, [], () => other)).toEqual([]);
    expect(outOfDatePrints(state, [1], () => other)[0]?.changes).toEqual([
      { name: 'the statement', was: SAMPLE_LABEL.statement, is: 'Another sentence.' },
    ]);
  });
});
