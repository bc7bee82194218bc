import { describe, expect, it } from 'vitest';
import { PROCESS_ENTRIES, PRODUCTS } from '../times/index.ts';
import { SET_BY, usualNet, usualOf } from './index.ts';

describe('what a recipe of a kind begins with', () => {
  it.each(PRODUCTS)(
    '%s: in a jar, pack and liquid that a published entry of that kind has, where one is',
    product => {
      const usual = usualOf(product);
      expect(SET_BY).toContain(usual.setBy);
      expect(usual.covered).toBe(usual.method.liquid !== 'none' && product !== 'sauerkraut');
      const entries = PROCESS_ENTRIES.filter(e => e.products.includes(product));
      if (entries.length === 0) return;
      expect(entries.some(e => e.pack === usual.method.pack)).toBe(true);
      expect(entries.some(e => e.rows.some(r => r.jarSize === usual.size))).toBe(true);
      const { liquid } = usual.method;
      expect(
        entries.some(e => e.liquids.length === 0 || e.liquids.includes(liquid) || liquid === 'none'),
      ).toBe(true);
    },
  );

  it('spreads are sold by weight, what pours by volume, and no more than the jar holds', () => {
    expect(usualNet('half-pint', 'jam')).toEqual({ kind: 'weight', oz: 10 });
    expect(usualNet('pint', 'pickle')).toEqual({ kind: 'volume', floz: 16 });
  });
});
