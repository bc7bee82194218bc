import { beforeEach, describe, expect, it } from 'vitest';
import { type OwnTimer, setTimer, timersFrom } from '../src/shell/timers.ts';
import { standInStorage } from './browser.ts';

const KEY = 'cocotte.timers.k';
const timer = (id: string, until_ms: number): OwnTimer => ({ id, name: `Stir ${id}`, since_ms: 0, until_ms });
const kept = (kitchen = 'k') => timersFrom(localStorage.getItem(`cocotte.timers.${kitchen}`) ?? '');

describe('timers of a device', () => {
  beforeEach(() => void standInStorage());

  it('are set, changed in their place and stopped, each kitchen its own', () => {
    setTimer('k', 'a', timer('a', 60_000));
    setTimer('k', 'b', timer('b', 30_000));
    setTimer('other', 'c', timer('c', 1));
    setTimer('k', 'a', timer('a', 90_000));
    expect(kept().map(t => [t.id, t.until_ms])).toEqual([
      ['b', 30_000],
      ['a', 90_000],
    ]);
    setTimer('k', 'b', null);
    setTimer('k', 'nobody', null);
    expect(kept().map(t => t.id)).toEqual(['a']);
    expect(kept('other').map(t => t.id)).toEqual(['c']);
  });

  it.each(['', 'x', 'null', '{}', '7', '[1, null, "x", {"id": "y"}, {"id": "z", "until_ms": "soon"}]'])(
    'are none in the text %s, and one is set over it',
    text => {
      localStorage.setItem(KEY, text);
      expect(kept()).toEqual([]);
      setTimer('k', 'a', timer('a', 5));
      expect(kept()).toEqual([timer('a', 5)]);
    },
  );

  it('may be called anything', () => {
    setTimer('k', '__proto__', { ...timer('__proto__', 5), name: '__proto__' });
    expect(kept().map(t => t.name)).toEqual(['__proto__']);
  });
});
