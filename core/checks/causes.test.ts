import { describe, expect, it } from 'vitest';
import { plumJam, waxBeans } from '../../demo/recipes.ts';
import { PaperBatch } from '../../testing/builders.ts';
import { fold, type JarFault, type SetSeen } from '../batches/index.ts';
import { causesOf } from './index.ts';

const US = { locale: 'en-US', measures: 'US' as const };
const seen = (batch: PaperBatch, found: JarFault[], set: SetSeen | null = null) => {
  batch.fact('jars.looked', { jars: [1], set, found, text: '' });
  return causesOf(fold(batch.events), US);
};
const jam = (started = {}) => new PaperBatch(plumJam, [{ size: 'half-pint', count: 4 }], started);
const beans = () => new PaperBatch(waxBeans, [{ size: 'pint', count: 4 }]);

describe('likely causes, from the record of the batch itself', () => {
  it('a thin set: the pot that stayed below the gel point', () => {
    const batch = jam().drawAll().fact('temperature.read', { where: 'pot', temp_C: 101.5 }).fill([1]);
    const [cause] = seen(batch, [], 'too soft');
    expect(cause).toMatchObject({ of: 'too soft', what: expect.stringMatching(/less than the gel point/) });
  });

  it('a firm one: the pot that went past it', () => {
    const batch = jam().drawAll().fact('temperature.read', { where: 'pot', temp_C: 107 }).fill([1]);
    expect(seen(batch, [], 'too firm')[0]?.what).toMatch(/past the gel point/);
  });

  it('siphoned: the headspace that departed, and a load that was lifted at once', () => {
    const batch = beans().drawAll();
    batch.fact('jars.filled', {
      size: 'pint',
      jars: [1, 2],
      jarLotId: null,
      lidLotId: null,
      headspace_mm: 6.35,
    });
    batch.process(1, [1, 2], 15);
    const causes = seen(batch, ['siphoned']);
    expect(causes.map(c => c.what)).toContainEqual(
      expect.stringMatching(/^The headspace was 1\/4 .* where 1\/2 .* is asked for\.$/),
    );
  });

  it('cloudy: water in the brine may be hard; what nothing explains says so, with the usual advice', () => {
    expect(
      seen(beans().drawAll().fill([1]), ['cloudy'])
        .map(c => c.change)
        .join(),
    ).toMatch(/sediment|soft water/);
    expect(seen(beans().drawAll().fill([1]), ['separated'])).toMatchObject([
      {
        what: 'Nothing in the record of this batch explains it.',
        change: expect.stringContaining('Heat tomatoes'),
      },
    ]);
  });

  it('nothing is judged before there is something to judge', () => {
    expect(causesOf(fold(jam().drawAll().events), US)).toEqual([]);
    expect(seen(jam().drawAll().fill([1]), [], 'as meant')).toEqual([]);
  });
});
