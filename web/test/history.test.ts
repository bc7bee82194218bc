import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Action, type State, reduce } from '../src/recipes/editor/history.ts';

const start = (present = 0): State<number> => ({ past: [], present, future: [], key: '', at_ms: 0 });
const put = (value: number, key = '', at_ms = 0): Action<number> => ({
  kind: 'change',
  key,
  at_ms,
  change: () => value,
});
const run = (...actions: Action<number>[]) => actions.reduce(reduce<number>, start());
const undo: Action<number> = { kind: 'undo' };
const redo: Action<number> = { kind: 'redo' };

describe('undo and redo', () => {
  it('goes back to what was, and forward again', () => {
    expect(run(put(1), put(2)).present).toBe(2);
    expect(run(put(1), put(2), undo).present).toBe(1);
    expect(run(put(1), put(2), undo, undo).present).toBe(0);
    expect(run(put(1), put(2), undo, undo, redo).present).toBe(1);
  });

  it('at either end stays where it is', () => {
    expect(run(undo)).toEqual(start());
    expect(run(put(1), redo).present).toBe(1);
  });

  it('typing in one field is one step back, a pause or another field begins the next', () => {
    const typed = run(put(1, 'name', 0), put(2, 'name', 300), put(3, 'name', 900));
    expect(reduce(typed, undo).present).toBe(0);
    const paused = run(put(1, 'name', 0), put(2, 'name', 5000));
    expect(reduce(paused, undo).present).toBe(1);
    const other = run(put(1, 'name', 0), put(2, 'code', 100));
    expect(reduce(other, undo).present).toBe(1);
  });

  it('what has no field of its own is always a step of its own', () =>
    expect(run(put(1, '', 0), put(2, '', 1), undo).present).toBe(1));

  it('typing after a step back does not join what was typed before it', () =>
    expect(run(put(1, 'name', 0), put(2, 'code', 1), undo, put(5, 'name', 2), undo).present).toBe(1));

  it('a change that changes nothing is no step', () => expect(run(put(0)).past).toEqual([]));

  it('a new change forgets what was undone', () => {
    const branched = run(put(1), put(2), undo, put(9));
    expect(branched.future).toEqual([]);
    expect(reduce(branched, redo).present).toBe(9);
  });

  it('keeps two hundred steps and no more', () => {
    const long = run(...Array.from({ length: 300 }, (_, i) => put(i + 1)));
    expect(long.past).toHaveLength(200);
    expect(long.past[0]).toBe(100);
  });

  it('any number of steps back and as many forward end where they began', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 99 }), { maxLength: 40 }),
        fc.nat(60),
        (values, steps) => {
          const there = run(...values.map(v => put(v)));
          const back = Array.from({ length: steps }, () => undo).reduce(reduce<number>, there);
          const moved = there.past.length - back.past.length;
          const again = Array.from({ length: moved }, () => redo).reduce(reduce<number>, back);
          expect(again.present).toBe(there.present);
          expect(again.past).toEqual(there.past);
        },
      ),
    );
  });
});
