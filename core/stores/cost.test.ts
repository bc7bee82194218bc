import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from '../batches/index.ts';
import { Decimal } from '../measure/index.ts';
import { batchCost, drawFault } from './index.ts';

describe('cost', () => {
  it('adds lots, jars, lids and minutes, and divides by the jars that carry it', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }])
      .cookWell()
      .fact('minutes.worked', { minutes: 90 });
    // Three lines of 100 at 0.01; 8 jars at 0.92; 8 lids at 0.21; 1.5 h at 18.00.
    expect(batchCost(fold(batch.events))).toMatchObject({
      total: '39.04',
      parts: [
        { part: 'ingredients', amount: '3.00' },
        { part: 'jars', amount: '7.36' },
        { part: 'lids', amount: '1.68' },
        { part: 'work', amount: '27.00' },
      ],
      bySize: [{ count: 8, perJar: '4.88' }],
    });
  });

  it('lets the jars that are left carry those set aside', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).cookWell();
    const before = batchCost(fold(batch.events))?.bySize[0]?.perJar;
    const after = batchCost(fold(batch.fact('jars.set_aside', { jars: [1, 2], why: 'broken' }).events));
    expect(after?.lostJars).toBe(2);
    expect(Number(after?.bySize[0]?.perJar)).toBeGreaterThan(Number(before));
  });

  it('parts and jar sizes add up to the total to the cent, always', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99_999 }),
        fc.double({ min: 0.1, max: 999, noNaN: true }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        (tenths, minutes, pints, quarts) => {
          const batch = new PaperBatch(crushedTomatoes, [
            { size: 'pint', count: pints },
            { size: 'quart', count: quarts },
          ]);
          const range = (from: number, n: number) => Array.from({ length: n }, (_, i) => from + i);
          batch
            .drawAll(new Decimal(tenths).div(100_000).toFixed())
            .fill(range(1, pints), 'pint')
            .fill(range(pints + 1, quarts), 'quart')
            .fact('minutes.worked', { minutes });
          const cost = batchCost(fold(batch.events));
          const sum = (list: { amount?: string; total?: string }[]) =>
            list.reduce((a, p) => a.plus(p.amount ?? p.total ?? 0), new Decimal(0)).toFixed(2);
          expect(sum(cost?.parts ?? [])).toBe(cost?.total);
          expect(sum(cost?.bySize ?? [])).toBe(cost?.total);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('drawing', () => {
  const item = {
    id: 'i',
    kind: 'ingredient' as const,
    name: 'White vinegar',
    unit: 'mL' as const,
    unit_g: 1.01,
    jarSize: null,
    labelName: 'vinegar',
    subIngredients: '',
    allergens: [],
  };
  const line = waxBeans.lines.find(l => l.id === 'vinegar') ?? null;
  it.each([
    ['5 % vinegar', 5, '100', '500', undefined],
    ['weak vinegar', 4, '100', '500', 'too-weak'],
    ['unlabelled vinegar', null, '100', '500', 'too-weak'],
    ['more than there is', 5, '501', '500', 'more-than-lot'],
    ['nothing', 5, '0', '500', 'not-positive'],
  ])('%s', (_, strength_pct, quantity, onHand, code) =>
    expect(drawFault(item, { label: 'V', strength_pct }, line, quantity, onHand)?.code).toBe(code),
  );
  it('refuses jars for a line, and an ingredient for none', () => {
    expect(
      drawFault({ ...item, kind: 'jar' }, { label: 'V', strength_pct: null }, line, '1', '5')?.code,
    ).toBe('wrong-use');
    expect(drawFault(item, { label: 'V', strength_pct: 5 }, null, '1', '5')?.code).toBe('wrong-use');
  });
});
