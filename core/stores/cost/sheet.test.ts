import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crushedTomatoes, plumJam } from '../../../demo/recipes.ts';
import { PaperBatch } from '../../../testing/builders.ts';
import { fold } from '../../batches/index.ts';
import { plainCosts } from '../../kitchen/index.ts';
import { Decimal } from '../../measure/index.ts';
import type { CostContext, CostLine } from './index.ts';
import { aloneContext, batchCost, costLine, costSheet } from './index.ts';

const range = (from: number, n: number) => Array.from({ length: n }, (_, i) => from + i);
const kitchen = (costs: Partial<typeof plainCosts>) => ({
  kitchen: {
    name: 'K',
    altitude_m: 716.28,
    zone: 'UTC',
    locale: 'en-US',
    currency: 'USD',
    hourlyRate: '18.00',
    thermometerError_C: 0,
    costs: { ...plainCosts, ...costs },
  },
});

describe('actual cost', () => {
  it('adds lots, jars, lids and minutes, and divides by the jars that carry it', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }])
      .cookWell()
      .fact('minutes.worked', { minutes: 90 });
    // Three lines of 100 at 0.01; 8 jars at 0.92; 8 lids at 0.21; 1.5 h at 18.00.
    const sheet = batchCost(fold(batch.events));
    expect(sheet?.total).toBe('39.04');
    expect(sheet?.parts.filter(p => p.exact !== '0').map(p => [p.part, p.amount])).toEqual([
      ['ingredients', '3.00'],
      ['jars', '7.36'],
      ['lids', '1.68'],
      ['work', '27.00'],
    ]);
    expect(sheet?.bySize).toMatchObject([{ count: 8, perJar: '4.88', lossPerJar: '0.00' }]);
  });

  it('charges energy by burner power, overhead by batch, jar and month, the market by jar', () => {
    const costs = {
      burners: [{ id: 'hob', name: 'Hob', kind: 'electric' as const, power_W: 2000 }],
      electricity: '0.30',
      overhead: { perBatch: '1.00', perJar: '0.05', perMonth: '40.00', batchesPerMonth: 4 },
      market: { fee: '30.00', jars: 60 },
    };
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], kitchen(costs))
      .cookWell()
      .fact('energy.used', { burnerId: 'hob', minutes: 90 });
    const amount = (context?: Partial<CostContext>) =>
      Object.fromEntries(
        batchCost(fold(batch.events), { ...aloneContext, ...context })?.parts.map(p => [p.part, p.amount]) ??
          [],
      );
    // 3 kWh at 0.30; 1.00 + 8 x 0.05 + 40/5; 8/60 of 30.00.
    expect(amount({ monthBatches: 5 })).toMatchObject({ energy: '0.90', overhead: '9.40', market: '4.00' });
  });

  it('shares minutes with batches at the same time, and the opened kitchen with the batches of the day', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }], kitchen({}))
      .cookWell()
      .fact('minutes.shared', { minutes: 60, with: ['b2'] })
      .fact('kitchen.worked', { minutes: 30 });
    const work = { personId: 'p', minutes: 30, kind: 'kitchen' as const, with: [], hourlyRate: '18.00' };
    const sheet = batchCost(fold(batch.events), {
      ...aloneContext,
      dayBatches: 3,
      kitchenWork: [work, { ...work, minutes: 15 }],
      sharedWork: [{ ...work, kind: 'batch', minutes: 40, with: ['b1'] }],
    });
    const of = (part: string) => sheet?.parts.find(p => p.part === part)?.amount;
    // Half of 60 and half of 40 minutes at 18.00; a third of 45 minutes.
    expect(of('work')).toBe('15.00');
    expect(of('opening and cleaning')).toBe('4.50');
  });

  it('pays a person by their own rate', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
    const personId = batch.device.stamp(batch.now_ms).personId;
    const own = new PaperBatch(
      plumJam,
      [{ size: 'half-pint', count: 8 }],
      kitchen({ rates: [{ personId, hourlyRate: '30.00' }] }),
    );
    const worked = { ...own.fact('minutes.worked', { minutes: 60 }).events.at(-1), personId } as never;
    expect(batchCost(fold([...own.events.slice(0, -1), worked]))?.total).toBe('30.00');
  });

  it('does not count what came back', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).cookWell();
    batch.add('lots.returned', {
      lots: [{ lotId: batch.jarLotId, quantity: '2', unitCost: '0.92' }],
      reason: 'spare',
    });
    expect(batchCost(fold(batch.events))?.parts.find(p => p.part === 'jars')?.amount).toBe('5.52');
  });

  it('lets the jars that can be sold carry those that failed, broke, were sampled or given away, and says how much', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).cookWell();
    batch
      .fact('jars.set_aside', { jars: [1], why: 'broken' })
      .fact('jars.set_aside', { jars: [2, 3], why: 'sampled' });
    const sheet = batchCost(fold(batch.events));
    expect(sheet?.lost).toEqual([
      { why: 'broken', count: 1 },
      { why: 'sampled', count: 2 },
    ]);
    // Food, glass and lids: 12.04 over 8 and over 5.
    expect(sheet?.bySize[0]).toMatchObject({
      count: 5,
      perJarNoneLost: '1.50',
      perJar: '2.41',
      lossPerJar: '0.91',
    });
  });

  it('lets jars that go into another batch carry their own cost', () => {
    const batch = new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).cookWell();
    batch.add('jars.taken', { jars: [1, 2], lotId: batch.jarLotId, label: 'x', unitCost: '1.5' });
    const sheet = batchCost(fold(batch.events));
    expect(sheet?.lost).toEqual([]);
    expect(sheet?.bySize[0]?.count).toBe(8);
  });
});

describe('the sheet', () => {
  const money = fc.integer({ min: 0, max: 9_999_999 }).map(n => new Decimal(n).div(10_000).toFixed());
  const line = (size: CostLine['size']) =>
    fc
      .tuple(
        fc.constantFrom(
          'ingredients',
          'jars',
          'lids',
          'work',
          'energy',
          'overhead',
          'labels',
          'market' as const,
        ),
        money,
        money,
      )
      .map(([part, quantity, unitCost]) =>
        costLine({
          part: part as CostLine['part'],
          name: 'x',
          detail: '',
          key: 'x',
          quantity,
          unit: 'g',
          unitCost,
          size,
        }),
      );
  it('parts and jar sizes add up to the total to the cent, always', () => {
    fc.assert(
      fc.property(
        fc.array(line(null), { maxLength: 12 }),
        fc.array(line('pint'), { maxLength: 4 }),
        fc.array(line('quart'), { maxLength: 4 }),
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        (pot, pints, quarts, pintCount, quartCount) => {
          const sheet = costSheet({
            currency: 'USD',
            sharing: 'by jar',
            lines: [...pot, ...pints, ...quarts],
            jars: [
              { size: 'pint', filled: pintCount + 2, sellable: pintCount, net_g: 454 },
              { size: 'quart', filled: quartCount, sellable: quartCount, net_g: 907 },
            ],
            lost: [],
            unpriced: [],
          });
          const sum = (list: string[]) => list.reduce((a, p) => a.plus(p), new Decimal(0)).toFixed(2);
          expect(sum(sheet.parts.map(p => p.amount))).toBe(sheet.total);
          expect(sum(sheet.bySize.map(s => s.total))).toBe(sheet.total);
          // Exact shares add up to the exact total too.
          const exact = sheet.bySize.reduce(
            (a, s) => a.plus(new Decimal(s.exactPerJar).times(s.count)),
            new Decimal(0),
          );
          const whole = sheet.parts.reduce((a, p) => a.plus(p.exact), new Decimal(0));
          expect(exact.minus(whole).abs().lte(whole.times('1e-30').plus('1e-30'))).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('shares the pot by net mass, and lets each size bear its own jars', () => {
    const sheet = costSheet({
      currency: 'USD',
      sharing: 'by jar',
      lines: [
        costLine({
          part: 'ingredients',
          name: 'x',
          detail: '',
          key: 'x',
          quantity: '30',
          unit: 'g',
          unitCost: '1',
        }),
        costLine({
          part: 'jars',
          name: 'x',
          detail: '',
          key: 'j',
          quantity: '10',
          unit: 'each',
          unitCost: '0.5',
          size: 'pint',
        }),
      ],
      jars: [
        { size: 'pint', filled: 10, sellable: 10, net_g: 500 },
        { size: 'quart', filled: 5, sellable: 5, net_g: 2000 },
      ],
      lost: [],
      unpriced: [],
    });
    // 5 kg of 15 kg are in pints: 10.00 of 30.00, and 5.00 for their jars.
    expect(sheet.bySize.map(s => [s.size, s.total, s.perJar])).toEqual([
      ['pint', '15.00', '1.50'],
      ['quart', '20.00', '4.00'],
    ]);
  });

  it('hands the cost of a size of which none can be sold to the others', () => {
    const batch = new PaperBatch(crushedTomatoes, [
      { size: 'pint', count: 2 },
      { size: 'quart', count: 2 },
    ])
      .drawAll('0.02')
      .fill(range(1, 2), 'pint')
      .fill(range(3, 2), 'quart')
      .fact('jars.set_aside', { jars: [1, 2], why: 'broken' });
    const sheet = batchCost(fold(batch.events));
    expect(sheet?.bySize.map(s => [s.size, s.total])).toEqual([['quart', sheet?.total]]);
  });

  it('shares by jar what each jar takes of, and labels and the stall by those that can be sold', () => {
    const part = (p: CostLine['part'], cost: string) =>
      costLine({ part: p, name: 'x', detail: '', key: p, quantity: cost, unit: 'g', unitCost: '1' });
    const sheet = costSheet({
      currency: 'USD',
      sharing: 'by jar',
      lines: [part('ingredients', '30'), part('lids', '3'), part('overhead', '6'), part('market', '10')],
      jars: [
        { size: 'pint', filled: 10, sellable: 8, net_g: 500 },
        { size: 'quart', filled: 5, sellable: 2, net_g: 2000 },
      ],
      lost: [],
      unpriced: [],
    });
    // Pints: a third of the food, ten of fifteen lids and overheads, eight of ten at the stall. Worked by hand.
    expect(sheet.bySize[0]).toMatchObject({ total: '24.00', perJar: '3.00' });
    // A failed pint cost 1.00 of food, 0.20 of lid and 0.40 of overhead, and no stall: two of them weigh on eight.
    expect(sheet.bySize[0]).toMatchObject({ perJarNoneLost: '2.60', lossPerJar: '0.40' });
    expect(sheet.bySize[1]).toMatchObject({ total: '25.00', perJar: '12.50' });
    const before = costSheet({ ...sheet, sharing: 'by net mass' });
    expect(before.total).toBe(sheet.total);
    // As closed batches were shared: a third of everything.
    expect(before.bySize[0]?.total).toBe('16.33');
  });
});
