import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { plumJam } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { type BatchEvent, type DrawnLot, type UsedDraw, fold } from './index.ts';

const jam = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]);
/** Plums are bought with stones: 0.92 of what is drawn stays. */
const KEPT = plumJam.lines.find(l => l.id === 'plums')?.trimYield as number;

function draw(batch: PaperBatch, over: Partial<DrawnLot>, used: UsedDraw | null = null): void {
  batch.add('lot.drawn', {
    used,
    lots: [
      {
        lotId: randomUUID(),
        itemId: randomUUID(),
        kind: 'ingredient',
        name: 'Plums',
        lotLabel: 'P-1',
        lineId: 'plums',
        jarSize: null,
        quantity: String(over.mass_g ?? 1),
        unit: 'g',
        unitCost: '0',
        mass_g: null,
        trimYield: null,
        labelName: '',
        subIngredients: '',
        allergens: [],
        ...over,
      },
    ],
  });
}
const books = (batch: PaperBatch) => fold(batch.events).books;

describe('weighed against drawn', () => {
  const of = (weighed_g: number, ...drawn_g: number[]) => {
    const batch = jam();
    for (const mass_g of drawn_g) draw(batch, { mass_g });
    // What serves another line, or is not weighed, has no part in it.
    draw(batch, { lineId: 'sugar', mass_g: 5000 });
    draw(batch, { mass_g: null });
    return books(batch.fact('line.weighed', { lineId: 'plums', mass_g: weighed_g }));
  };

  it('is as drawn less trimming, to a tenth', () => {
    expect(KEPT).toBeLessThan(1);
    expect(of(KEPT * 1000, 600, 400)).toEqual([]);
    expect(of(KEPT * 1000 * 1.099, 1000)).toEqual([]);
    expect(of(KEPT * 1000 * 0.901, 1000)).toEqual([]);
    expect(of(KEPT * 1000 * 1.101, 1000)).toHaveLength(1);
    expect(of(KEPT * 1000 * 0.899, 1000)).toHaveLength(1);
    // Of a pinch five grams more or less are what a scale errs.
    expect(of(KEPT * 10 + 5, 10)).toEqual([]);
    expect(of(KEPT * 10 + 5.1, 10)).toHaveLength(1);
  });

  it('says both, and what drawing would settle it, as bought', () => {
    const [note] = of(KEPT * 3000, 1000);
    expect(note).toMatchObject({
      key: 'books:line:plums',
      what: 'Red plums: 2,760 g weighed, 920 g drawn from lots.',
      draw: { lineId: 'plums', kind: 'ingredient', unit: 'g' },
      settled: null,
    });
    expect(note?.draw?.quantity).toBeCloseTo(2000, 6);
  });

  it('of which more was drawn than weighed is settled by a word alone', () =>
    expect(of(KEPT * 500, 1000)).toMatchObject([{ draw: null }]));

  it('is nothing of a line of which no lot was drawn, or that nobody weighed', () => {
    expect(of(900)).toEqual([]);
    const batch = jam();
    draw(batch, { mass_g: 1000 });
    expect(books(batch)).toEqual([]);
  });
});

describe('jars, lids, and what was used while the book was away', () => {
  it('notes what is filled beyond what was drawn, and never what may still be filled', () => {
    const batch = jam().drawAll();
    expect(books(batch.fill([1, 2, 3]))).toEqual([]);
    expect(books(batch.fill([4, 5, 6, 7, 8]))).toEqual([]);
    expect(books(batch.fill([9, 10]))).toMatchObject([
      {
        key: 'books:jar',
        what: '10 jars are filled, 8 half-pints drawn.',
        draw: { lineId: null, kind: 'jar', quantity: 2, unit: 'each' },
      },
      {
        key: 'books:lid',
        what: '10 jars are filled, 8 lids drawn.',
        draw: { lineId: null, kind: 'lid', quantity: 2, unit: 'each' },
      },
    ]);
    // Where none were drawn at all the trace says so.
    expect(books(jam().fill([1]))).toEqual([]);
  });

  it('asks of a lot the books do not have, where nobody eats of it', () => {
    const batch = jam();
    const used = batch.add('lot.used', { lotId: randomUUID(), lineId: null, quantity: 3, unit: 'each' });
    const key = `books:used:${used.id}`;
    expect(books(batch)).toMatchObject([
      { key, what: 'A lot was used that is not in the books.', settled: null },
    ]);
    expect(fold(batch.events)).toMatchObject({ deviations: [], used: [{ quantity: 3, drawn: false }] });
    batch.add('deviation.settled', { key, reason: 'looked at', minutes: null }, { signs: false });
    expect(books(batch)[0]?.settled).toMatchObject({ reason: 'looked at' });
    batch.add('deviation.settled', { key, reason: 'again', minutes: null });
    expect(books(batch)[0]?.settled).toMatchObject({ reason: 'looked at' });
  });

  it('holds the batch where a line of the recipe was served by what was not drawn; not while it still waits', () => {
    const batch = jam();
    const used = batch.add('lot.used', { lotId: randomUUID(), lineId: 'sugar', quantity: 900, unit: 'g' });
    expect(fold(batch.events).deviations).toMatchObject([
      { key: `used_unfit:${used.id}`, jars: null, settles: null, settled: null },
    ]);
    expect(books(batch)).toEqual([]);
    const waiting = batch.events.map(e => (e.id === used.id ? { ...e, receipt: null } : e)) as BatchEvent[];
    expect(fold(waiting)).toMatchObject({ deviations: [], books: [], used: [{ drawn: false }] });
    // Drawn for it, it is served; what the books lacked of it is asked about and holds nothing.
    draw(
      batch,
      { lineId: 'sugar', mass_g: 900, lotLabel: 'S-2', name: 'Sugar' },
      { entryId: used.id, short: '200' },
    );
    expect(fold(batch.events)).toMatchObject({ deviations: [], used: [{ drawn: true }] });
    expect(books(batch)).toMatchObject([
      { key: `books:short:${used.id}`, what: 'Sugar, lot S-2: 200 g more was used than the books had.' },
    ]);
  });
});
