import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { itemFaults, jarsInUse, needsOf, type ShelfItem, USUAL_JARS, wantedOf } from './index.ts';

const shelf = (items: ReturnType<typeof jarsInUse>): ShelfItem[] =>
  items.map(item => ({ item, lots: [], lastCost: null, average: null, reserved: '0' }));

describe('jars and lids in use', () => {
  it('are sound items, each with the lid of its mouth, none twice', () => {
    fc.assert(
      fc.property(fc.subarray([...USUAL_JARS, { id: '__proto__' }].map(j => j.id)), ids => {
        let n = 0;
        const items = jarsInUse(new Set(ids), () => `i${n++}`);
        expect(items.flatMap(itemFaults)).toEqual([]);
        const mouths = new Set(items.filter(i => i.kind === 'jar').map(i => i.mouth));
        expect(items.filter(i => i.kind === 'lid').map(i => i.mouth)).toEqual(
          ['regular', 'wide'].filter(m => mouths.has(m as 'wide')),
        );
        expect(new Set(items.map(i => i.name)).size).toBe(items.length);
        expect(items.filter(i => i.kind === 'jar')).toHaveLength(ids.filter(i => i !== '__proto__').length);
      }),
    );
  });

  it('are what a batch asks for: no other item is made for a size that is in use', () => {
    for (const jar of USUAL_JARS) {
      const items = jarsInUse(new Set([jar.id]), () => `${jar.id} ${Math.random()}`);
      const needs = needsOf([], new Map(), [{ size: jar.size, count: 8 }], shelf(items));
      const wanted = wantedOf(needs, new Map(), () => 'new');
      expect(wanted.map(w => [w.item.name, w.kept, w.quantity])).toEqual([
        [jar.name, true, '8'],
        [`Lids, ${jar.mouth} mouth`, true, '8'],
      ]);
    }
  });
});
