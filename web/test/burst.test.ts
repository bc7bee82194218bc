import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { burst } from '../src/shell/burst.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const listening = () => {
  const keys: string[] = [];
  const codes: string[] = [];
  const { take } = burst(
    key => keys.push(key),
    code => codes.push(code),
  );
  const type = (text: string, apart_ms: number) => {
    for (const key of text) {
      take(key);
      vi.advanceTimersByTime(apart_ms);
    }
  };
  return { keys, codes, take, type };
};

describe('a code scanner among single keys', () => {
  it('keys that a hand presses act one by one', () => {
    const l = listening();
    l.type('1n3', 200);
    expect(l.keys).toEqual(['1', 'n', '3']);
    expect(l.codes).toEqual([]);
  });

  it('a burst is a code, with Enter or without, and no key of it acts', () => {
    const l = listening();
    l.type('RPJ-26321-16', 8);
    expect(l.take('Enter')).toBe(true);
    expect(l.codes).toEqual(['RPJ-26321-16']);
    l.type('DWB-26328-1E', 5);
    vi.advanceTimersByTime(100);
    expect(l.codes).toEqual(['RPJ-26321-16', 'DWB-26328-1E']);
    expect(l.keys).toEqual([]);
  });

  it('Enter by itself, and what no code holds, is left to the page', () => {
    const l = listening();
    for (const key of ['Enter', 'Escape', 'Tab', ' ', '/', '?', 'ArrowDown', 'Shift'])
      expect(l.take(key)).toBe(false);
    l.type('12', 5);
    vi.advanceTimersByTime(100);
    // Two keys at once are neither.
    expect([...l.keys, ...l.codes]).toEqual([]);
  });
});
