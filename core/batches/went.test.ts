import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold } from './fold.ts';
import { wentWhere } from './went.ts';

const jam = () => new PaperBatch(plumJam, [{ size: 'half-pint', count: 8 }]).drawAll();
const parts = (batch: PaperBatch) => {
  const went = wentWhere(fold(batch.events));
  if (!went) throw new Error('nothing is known of it');
  return went;
};

describe('where it went', () => {
  it('mass in equals mass out, whatever was filled, taken, left or weighed', () => {
    for (const count of [3, 8, 11])
      for (const recipe of [plumJam, waxBeans]) {
        const size = recipe === plumJam ? ('half-pint' as const) : ('pint' as const);
        const batch = new PaperBatch(recipe, [{ size, count: 8 }]).drawAll();
        batch.fill(Array.from({ length: count }, (_, i) => i + 1));
        batch.add('left.over', { went: 'eaten', what: 'pot', mass_g: 120, text: '' });
        batch.add('jars.weighed', { jars: [{ jar: 1, net_g: 300 }], left_g: 0 });
        const went = parts(batch);
        const out = went.jars_g + went.taken_g + went.left_g + went.off_g + went.missing_g;
        expect(out).toBeCloseTo(went.in_g, 6);
        expect(went.in_g).toBeGreaterThan(0);
        expect(went.left_g).toBe(120);
      }
  });

  it('what was taken from the pot is told apart, and is in no jar', () => {
    const plain = jam().fill([1, 2, 3, 4, 5, 6]);
    const taken = jam();
    taken.add('pot.taken', {
      mass_g: 400,
      how: 'as it stands',
      lotId: taken.batchId,
      itemId: taken.batchId,
      name: 'Plum base',
      label: 'B',
      unitCost: '0.01',
    });
    taken.fill([1, 2, 3, 4, 5, 6]);
    expect(parts(taken).taken_g).toBe(400);
    expect(parts(taken).in_g).toBeCloseTo(parts(plain).in_g, 3);
  });

  it('fewer jars than the pot holds leave something to explain', () => {
    const beans = (jars: number[]) =>
      parts(new PaperBatch(waxBeans, [{ size: 'pint', count: 8 }]).drawAll().fill(jars));
    expect(beans([1, 2, 3]).missing_g).toBeGreaterThan(beans([1, 2, 3, 4, 5, 6, 7, 8]).missing_g);
  });

  it('nothing is said before a jar is filled, or where a line has no weight', () => {
    expect(wentWhere(fold(jam().events))).toBeNull();
    expect(wentWhere(fold([]))).toBeNull();
  });
});
